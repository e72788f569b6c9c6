"""A customer's page: known, merged, taken apart again, handed over, erased."""

import json

from sqlmodel import col, select

from lamsik.store import customers, events
from lamsik.store.orders import customer_named
from lamsik.store.tables import (
    CustodyItem,
    Customer,
    CustomerWord,
    LogEntry,
    Order,
    OrderChange,
    OrderLine,
    Piece,
)
from tests.web.pouring import rows
from tests.web.test_doing import opened

ARLA = "/orders/customers/1"


def who(visitor, name):
    return next(row for row in rows(visitor, Customer) if row.name == name)


def orders_of(visitor, key):
    return [row.number for row in rows(visitor, Order) if row.customer_id == key]


def known(**more):
    return {"name": "Ärla Brandt", "mail": "aerla@example.org", **more}


def test_the_list_and_the_page_say_who_they_are_and_what_they_have_here(demo):
    text = demo.get("/orders/customers").text
    assert "Tove Ekmark" in text and f'href="{ARLA}"' in text
    assert "Tove" not in demo.get("/orders/customers?q=brandt").text
    page = demo.get(ARLA).text
    assert "Perhaps the same" in page and "the same mail" in page and "wobble at once" in page
    assert orders_of(demo, 1) and all(number in page for number in orders_of(demo, 1))
    own = next(piece for piece in rows(demo, Piece) if piece.repaint)
    assert "K0002" in page and "Nothing of theirs is here" in demo.get("/orders/customers/4").text
    hers = next(row.id for row in rows(demo, Order) if row.customer_id == 1)
    with opened(demo) as session:
        kept = session.get_one(Piece, own.id)
        kept.order_id = hers
        session.add(kept)
        session.commit()
    assert own.number in demo.get(ARLA).text
    assert f'href="{ARLA}"' in demo.get("/orders/1").text and ARLA in demo.get("/search?q=brandt").text
    assert 'value="Ärla Brandt"' in demo.get("/orders/new?customer=Ärla Brandt").text
    assert demo.get("/orders/customers/999").status_code == 404


def test_what_is_known_is_kept_and_what_cannot_be_stays_in_its_field(demo):
    demo.post(ARLA, known(phone="0420", address="Reed Lane 4\n0420 Landing", speaks="inches"))
    row = who(demo, "Ärla Brandt")
    assert row.facts["phone"] == "0420" and "note" not in row.facts
    order = orders_of(demo, 1)[0]
    number = next(one.id for one in rows(demo, Order) if one.number == order)
    assert " in)" in " ".join(demo.get(f"/orders/{number}").text.split())  # in the units she speaks in
    for sent, says in (
        (known(phone="1" * 61), "at most 60 characters"),
        (known(name=" "), "a name"),
        (known(name="tove ekmark"), "merge the two"),
        (known(speaks="cubits"), "must be"),
    ):
        answer = demo.post(ARLA, sent)
        assert answer.status_code == 422 and says in answer.text and 'role="alert"' in answer.text
    assert who(demo, "Ärla Brandt").facts == row.facts
    demo.post(ARLA, known(name="Ärla Lund"))
    assert "K0002" in demo.get("/orders/custody?q=lund").text
    assert "Ärla Lund" in demo.get("/orders?q=lund").text  # their orders are found by the new name


def test_what_they_wrote_is_noted_of_their_order_only(demo):
    mine = next(row.id for row in rows(demo, Order) if row.customer_id == 1)
    other = next(row for row in rows(demo, Order) if row.customer_id == 2)
    demo.post(f"{ARLA}/wrote", {"text": "Two lines\nof thanks", "order": str(mine)})
    assert "Two lines" in demo.get(ARLA).text and "<br>of thanks" in demo.get(ARLA).text.replace("\n", "")
    for sent, says in (
        ({"text": "  "}, "what they wrote"),
        ({"text": "x" * 4001}, "at most 4000 letters"),
        ({"text": "Thanks", "order": str(other.id)}, "an order of theirs"),
    ):
        answer = demo.post(f"{ARLA}/wrote", sent)
        assert answer.status_code == 422 and says in answer.text and sent["text"].strip() in answer.text
    assert sum(row.customer_id == 1 for row in rows(demo, CustomerWord)) == 2


def test_two_that_are_one_are_merged_and_taken_apart_again(demo):
    double, before = who(demo, "A. Brandt"), who(demo, "Ärla Brandt").facts
    mine, theirs = orders_of(demo, 1), orders_of(demo, 2)
    told = demo.post(f"{ARLA}/merge", {"double": "2"}, follow_redirects=True).text
    assert "is Ärla Brandt now" in told and sorted(orders_of(demo, 1)) == sorted(mine + theirs)
    assert "Tove Ekmark" not in demo.get("/orders/customers").text
    assert demo.get("/orders/customers/2").headers["Location"].endswith(ARLA)
    assert orders_of(demo, 2) == [] and theirs[0] in demo.get("/orders?q=brandt").text
    with opened(demo) as session:  # a new enquiry under the old name is the kept one's
        assert customer_named(session, "tove ekmark").id == 1
    demo.post("/orders/customers/2/unmerge")
    assert orders_of(demo, 1) == mine and orders_of(demo, 2) == theirs
    assert who(demo, "Ärla Brandt").facts == before and who(demo, "Tove Ekmark").facts["phone"]
    assert "another customer" in demo.post(f"{ARLA}/merge", {"double": "1"}).text
    assert "one that was merged" in demo.post(f"/orders/customers/{double.id}/unmerge").text
    demo.post(f"{ARLA}/merge", {"double": str(double.id)})
    assert "a customer who is here" in demo.post(f"{ARLA}/merge", {"double": str(double.id)}).text


def test_the_log_tells_the_same_and_a_merge_is_not_undone_by_halves(demo):
    demo.post(f"{ARLA}/merge", {"double": "2"})
    with opened(demo) as session:
        for key in (1, 2):
            state = events.rebuilt(session, "customer", key)["", key]
            assert state == events.state_of(session.get_one(Customer, key))
        moved = [
            one
            for one in session.exec(events.listed("customer", 2)).all()
            if "merged_into_id" in (one.after or {}) and one.before
        ]
        assert moved and not any(events.can_take_back(one) for one in moved)


def test_all_that_is_kept_is_handed_over(demo):
    told = json.loads(demo.get(f"{ARLA}/customer.json").data)
    assert (told["format"], told["name"], told["mail"]) == (
        "lamsik-customer",
        "Ärla Brandt",
        "aerla@example.org",
    )
    assert {one["number"] for one in told["orders"]} == set(orders_of(demo, 1))
    assert told["lent"][0]["number"] == "K0002" and told["orders"][-1]["paid"][0]["minor"] > 0
    assert told["orders"][-1]["pieces"] and told["wrote"][0]["order"] in orders_of(demo, 1)


def test_one_who_is_erased_leaves_no_name_anywhere_but_the_figures_stay(demo):
    refused = demo.post(f"{ARLA}/erase", follow_redirects=True).text
    assert (
        "ship or delete what they ordered first" in refused
        and "Still open" in refused
        and who(demo, "Ärla Brandt")
    )
    demo.post(f"{ARLA}/merge", {"double": str(who(demo, "A. Brandt").id)})
    demo.post(f"{ARLA}/wrote", {"text": "Please erase Brandt"})
    with opened(demo) as session:
        theirs = session.exec(select(Order).where(Order.customer_id == 1)).first()
        theirs.discount_why = "a cousin of the Brandts"
        line = session.exec(select(OrderLine).where(OrderLine.order_id == theirs.id)).first()
        session.add(OrderChange(order_id=theirs.id, line_id=line.id, word="Brandt said yes"))
        session.add(theirs)
    before = [(row.number, row.quantity, row.price_minor, row.due_on) for row in rows(demo, Order)]
    for row in rows(demo, Order):
        if row.customer_id == 1 and row.stand != "shipped":
            demo.post(f"/orders/{row.id}/delete")
    assert "Erase for good" in demo.get(f"{ARLA}/erase").text
    lent = demo.post(f"{ARLA}/erase", follow_redirects=True).text
    assert "give back what of theirs is here first" in lent
    demo.post("/orders/custody/2/give_back")
    told = demo.post(f"{ARLA}/erase", follow_redirects=True).text
    assert "Customer 1" in told and "was erased on their request" in told
    with opened(demo) as session:
        for table in (Customer, CustomerWord, CustodyItem, Order, OrderChange, LogEntry):
            kept = " ".join(str(row.model_dump()) for row in session.exec(select(table)).all()).casefold()
            assert "brandt" not in kept and "aerla@" not in kept, table
        left = session.exec(select(Order).order_by(col(Order.id))).all()
        assert [(row.number, row.quantity, row.price_minor, row.due_on) for row in left] == before
    for sent, way in ((known(), ""), ({"text": "x"}, "/wrote")):
        assert "was erased" in demo.post(f"{ARLA}{way}", sent).text
    assert demo.get("/orders?q=brandt").text.count("<td>") == 0
    with opened(demo) as session:  # whoever is called so later is someone else
        assert customer_named(session, "Customer 1").id != 1


def test_who_may_be_double_is_found_among_many(demo):
    with opened(demo) as session:
        session.add_all(Customer(name=f"Someone {n}", search=f"someone {n}") for n in range(400))
        session.commit()
        arla = session.get_one(Customer, 1)
        assert [(one.name, why) for one, why in customers.doubles(session, arla)] == [("A. Brandt", "mail")]

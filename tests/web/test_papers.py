"""Parcels and papers: part by part, numbered without gaps, never changed once issued."""

import re
from datetime import date

import pytest
from sqlalchemy.exc import DatabaseError
from sqlmodel import select, text

from lamsik.core.orders.papers import address_lines
from lamsik.store import pieces, routes, stands
from lamsik.store.tables import CustodyItem, Customer, Document, Order, OrderLine, Paper, Parcel, Piece
from tests.demo_rows import FERRY_RUNNER
from tests.refusing import refusing
from tests.web.pouring import rows
from tests.web.test_doing import opened

QUOTED = 26
"""An order of several lines for one who has an address."""


def stand(visitor, key=QUOTED):
    return next(row.stand for row in rows(visitor, Order) if row.id == key)


def issued(visitor, kind, **sent):
    answer = visitor.post(f"/orders/{QUOTED}/paper/{kind}", sent)
    return answer.headers["Location"]


def all_made(visitor):
    """Every piece of the order made and ready, its parts off the shelf; its pieces."""
    visitor.post(f"/orders/{QUOTED}/accept")
    with opened(visitor) as session:
        for line in session.exec(select(OrderLine).where(OrderLine.order_id == QUOTED)).all():
            if line.kind == "parts":
                parts = line.id
                continue
            for _ in range(line.quantity):
                design = session.get_one(Document, line.design_id or FERRY_RUNNER)
                piece = pieces.start(session, design, line, "clear" if line.kind == "clear" else "")
                for step in routes.of(session, piece):
                    if not step.of.hands_over:
                        pieces.end_step(session, piece, step.key)
    visitor.post(f"/orders/{QUOTED}/line/{parts}/picked")
    return [row.id for row in rows(visitor, Piece) if row.order_id == QUOTED], parts


def test_an_order_goes_out_in_parts_and_is_shipped_with_the_last(demo):
    made, parts = all_made(demo)
    assert len(made) == 8 and stand(demo) == "ready"
    page = f"/orders/{QUOTED}/parcels"
    demo.post(page, {"piece": [str(key) for key in made[:5]], "box": "flat box", "box_g": "60 g"})
    (parcel,) = rows(demo, Parcel)
    text = " ".join(demo.get(f"/orders/{QUOTED}").text.split())
    assert "(estimate)" in text and "flat box" in text
    grams = int(re.search(r"about (\d+) g \(estimate\)", text)[1])
    assert 60 + 5 * 5 < grams < 60 + 5 * 60
    demo.post(f"{page}/1/keep", {"weight": "182.5 g", "tracking": "ZZ 42"})
    assert "182.5 g" in demo.get(f"/orders/{QUOTED}").text
    demo.post(f"{page}/1/send")
    assert (
        stand(demo) == "ready"
        and [row.stand for row in rows(demo, Piece) if row.id in made].count("shipped") == 5
    )
    assert "one that is still here" in demo.post(f"{page}/1/unpack", follow_redirects=True).text
    for wrong, says in (
        ({"piece": str(made[0])}, "what is ready and in no other parcel"),
        ({}, "put something into it"),
    ):
        assert says in demo.post(page, wrong, follow_redirects=True).text
    item = next(row for row in rows(demo, CustodyItem) if row.order_id is None or row.order_id == QUOTED)
    with opened(demo) as session:
        session.get_one(CustodyItem, item.id).order_id = QUOTED
    lent = {"piece": [str(key) for key in made[5:]], "line": str(parts), "custody": str(item.id)}
    demo.post(page, lent)
    refused = demo.post(f"{page}/2/send", follow_redirects=True).text
    if item.bag:
        assert "stays as it is" in refused and "of the bag are not matched" in refused
        assert stand(demo) == "ready"
        with opened(demo) as session:
            session.get_one(CustodyItem, item.id).bag = []
        demo.post(f"{page}/2/send")
    assert stand(demo) == "shipped"
    history = demo.get(f"/history?of=order&id={QUOTED}").text
    for said in ("parcel S0001 packed", "parcel S0002 went out", "parts off the shelf for it"):
        assert said in history
    assert next(row.returned_on for row in rows(demo, CustodyItem) if row.id == item.id) == date.today()
    demo.post(f"{page}/2/back")
    assert stand(demo) == "ready"
    assert next(row.returned_on for row in rows(demo, CustodyItem) if row.id == item.id) is None
    assert "one that went out" in demo.post(f"{page}/2/back", follow_redirects=True).text
    demo.post(f"{page}/2/unpack")
    assert [row.number for row in rows(demo, Parcel)] == ["S0001"]
    for where, sent, says in (
        ("", {"box_g": "heavy", "piece": str(made[6])}, "heavy"),
        ("", {"box": "x" * 121, "piece": str(made[6])}, "at most 120 letters"),
        ("/1/keep", {"weight": "-3 g"}, "-3"),
    ):
        assert says in demo.post(page + where, sent, follow_redirects=True).text
    assert "a parcel of this order" in demo.post("/orders/1/parcels/1/send").text


def test_papers_are_numbered_without_gaps_and_say_what_was_agreed(demo):
    first, second = issued(demo, "quote"), issued(demo, "quote")
    assert [row.number for row in rows(demo, Paper)] == ["Q-0001", "Q-0002"] and first != second
    text = " ".join(demo.get(first).text.split())
    assert "Quote Q-0001" in text and "235.00 EUR" in text and "Tollgate" in text and "<svg" in text
    assert "version 1" in text and "4 clear coats" in text
    pdf = demo.get(f"{first}.pdf")
    assert (
        pdf.mimetype == "application/pdf"
        and pdf.data.startswith(b"%PDF")
        and "Q-0001" in pdf.headers["Content-Disposition"]
    )
    for kind, says in (
        ("invoice", "note their yes first"),
        ("receipt", "a payment noted on the order first"),
        ("packing", "pack one first"),
        ("poem", "one of"),
        ("counter", "one of"),
    ):
        assert says in demo.post(f"/orders/{QUOTED}/paper/{kind}", {}, follow_redirects=True).text
    demo.post(f"/orders/{QUOTED}/accept")
    demo.post(f"/orders/{QUOTED}/paid", {"on": "2026-05-31", "sum": "35", "how": "cash"})
    assert "Still open: 200.00 EUR" in demo.get(issued(demo, "invoice")).text
    assert "35.00 EUR" in demo.get(issued(demo, "receipt")).text
    assert "Rinse it in fresh water" in demo.get(issued(demo, "care")).text
    assert "In all" in demo.get(issued(demo, "confirmation")).text
    assert [row.number for row in rows(demo, Paper)][2:] == ["I-0001", "R-0001", "H-0001", "C-0001"]
    assert "Invoice" in demo.get(f"/orders/{QUOTED}").text


def test_an_issued_paper_never_changes_and_is_cancelled_by_another(demo):
    page = issued(demo, "quote")
    before = demo.get(page).text
    (line,) = [row for row in rows(demo, OrderLine) if row.order_id == QUOTED and row.clears == 4]
    sent = {
        "quantity": "9",
        "form": "slim",
        "length": "90 mm",
        "material": "basswood",
        "scheme": "0",
        "clears": "4",
    }
    sent |= {"behaviour": "slow rise", "pitch": "0°", "water": "1", "price": "99", "per": "each", "note": ""}
    demo.post(f"/orders/{QUOTED}/line/{line.id}", sent)
    assert next(row.price_minor for row in rows(demo, Order) if row.id == QUOTED) > 80_000
    assert demo.get(page).text == before  # as it went out
    for change in ("UPDATE paper SET html = 'other'", "DELETE FROM paper"):
        with pytest.raises(DatabaseError, match="stays as it is"), opened(demo) as session:
            session.execute(text(change))
    assert "quote Q-0001 issued" in demo.get(f"/history?of=order&id={QUOTED}").text
    counter = demo.post("/orders/paper/1/cancel").headers["Location"]
    said = " ".join(demo.get(counter).text.split())
    assert "Cancellation X-0001" in said and "quote Q-0001" in said
    again = demo.post("/orders/paper/1/cancel", follow_redirects=True).text
    assert "one that is not cancelled yet" in again and "cancelled" in demo.get(f"/orders/{QUOTED}").text
    care = issued(demo, "care").rsplit("/", 1)[1]
    assert "one that says sums" in demo.post(f"/orders/paper/{care}/cancel", follow_redirects=True).text
    with opened(demo) as session:
        other = {"order_id": QUOTED, "kind": "quote", "n": 9, "number": "Q-0009"}
        session.add(Paper(**other, html="<p>changed</p>", digest="of another"))
    assert "this one was changed outside" in demo.get("/orders/paper/4").text
    with opened(demo) as session:
        session.get_one(OrderLine, line.id).rate_minor = None
        stands.order_anew(session, session.get_one(Order, QUOTED))
    unpriced = demo.post(f"/orders/{QUOTED}/paper/quote", {}, follow_redirects=True).text
    assert "a price on every line first" in unpriced


def test_a_label_and_a_packing_list_are_of_a_parcel(demo):
    made, _ = all_made(demo)
    demo.post(f"/orders/{QUOTED}/parcels", {"piece": str(made[0])})
    label = demo.get(issued(demo, "label", parcel="1")).text
    assert "by the ferry" in label and "0418 Tollgate" in label and "S0001" in label
    listed = demo.get(issued(demo, "packing", parcel="1")).text
    number = next(row.number for row in rows(demo, Piece) if row.id == made[0])
    assert number in listed and listed.count("<svg") == 2  # the piece and the order
    other = demo.post("/orders/1/paper/packing", {"parcel": "1"}, follow_redirects=True).text
    assert "a parcel of this order" in other
    with opened(demo) as session:
        piece = session.get_one(Piece, made[0])
        pieces.take_back_step(session, piece, routes.of(session, piece)[-3].key)
    unfinished = demo.post(f"/orders/{QUOTED}/parcels/1/send", follow_redirects=True).text
    assert "all of its route done but the way out" in unfinished
    with opened(demo) as session:
        order = session.get_one(Order, QUOTED)
        session.get_one(Customer, order.customer_id).facts = {"address": "Tollgate"}
    refused = demo.post(f"/orders/{QUOTED}/paper/label", {"parcel": "1"}, follow_redirects=True).text
    assert "an address of two lines at least on the customer" in refused


def test_an_address_of_one_line_finds_nobody():
    assert address_lines(" Ann \n\n 4 Reed Lane ") == ["Ann", "4 Reed Lane"]
    with refusing("an address of two lines at least: who, and where"):
        address_lines("4 Reed Lane")

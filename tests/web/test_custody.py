"""What customers lend: received, bagged, refitted, given back; an order is not closed before."""

from datetime import date, timedelta

import pytest
from hypothesis import given
from hypothesis import strategies as st

from lamsik.core.errors import Refused
from lamsik.core.orders.custody import BagRow, checked, may_go_back, short
from lamsik.store.tables import CustodyItem, Order
from tests.refusing import refusing
from tests.web.pouring import rows
from tests.web.test_money import SHIPPED, stand

LURE = "/orders/custody/1"
ROWS = st.builds(
    BagRow, st.just("ring"), st.just(4), st.integers(0, 4), st.sampled_from(["", " ", "two new ones"])
)


def came(**more):
    known = {
        "kind": "bait",
        "what": "old glider",
        "received_on": date.today().isoformat(),
        "weight": "21.5 g",
    }
    return {**known, "place": "shelf 3", **more}


def item(visitor, key):
    return next(row for row in rows(visitor, CustodyItem) if row.id == key)


@given(ROWS)
def test_a_bag_is_matched_once_all_is_on_again_or_it_was_said_what_is_not(row):
    assert row.is_matched == (row.back == 4 or row.instead.strip() != "") == (short([row]) == ())
    if row.is_matched:
        may_go_back([row])
    else:
        with pytest.raises(Refused):
            may_go_back([row, row])


def test_what_no_bag_can_hold_is_told():
    for wrong, says in (
        ({"what": " "}, "what was taken off"),
        ({"what": "x" * 121}, "at most 120"),
        ({"count": 0}, "1 to 500"),
        ({"back": 3}, "0 to 2"),
        ({"instead": "x" * 201}, "at most 200"),
    ):
        with refusing(says):
            BagRow(**{"what": "ring", "count": 2, **wrong})
    with refusing("in the bag already"):
        checked([BagRow("Ring", 1), BagRow("ring ", 2)])
    with refusing("just 40 rows"):
        checked([BagRow(f"ring {n}", 1) for n in range(41)])


def test_it_is_received_with_a_number_and_found(demo):
    text = demo.get("/orders/custody").text
    assert "harbour lure" in text and "shelf by the window" in text
    assert "harbour" not in demo.get("/orders/custody?q=smelt").text
    order = next(row for row in rows(demo, Order) if row.customer_id == 1)
    asked = demo.get(f"/orders/custody/new?customer=1&order={order.id}").text
    assert f'value="{order.id}" selected' in " ".join(asked.split()) and "Receive it" in asked
    page = demo.post("/orders/custody/new?customer=1", came(order=str(order.id))).headers["Location"]
    mine = item(demo, 3)
    assert (mine.number, mine.weight_g, mine.order_id) == ("K0003", 21.5, order.id)
    assert "21.5 g" in demo.get(page).text and "all of it can go back" in demo.get(page).text
    for seen in ("/orders/customers/1", f"/orders/{order.id}", "/orders/custody"):
        assert "K0003" in demo.get(seen).text
    made = demo.get(f"/orders/{order.id}").text.split('href="/pieces/')[1].split('"')[0]
    assert "K0003" in demo.get(f"/pieces/{made}").text


@pytest.mark.parametrize(
    ("sent", "says"),
    [
        ({"what": " "}, "as its owner calls it"),
        ({"kind": "boat"}, "one of bait"),
        ({"genuine": "surely"}, "genuine, in doubt, not genuine, or nothing"),
        ({"genuine": "genuine"}, "name whoever said so"),
        ({"weight": "heavy"}, "heavy"),
        ({"weight": "-3 g"}, "more than nothing"),
        ({"received_on": "yesterday"}, "a day, as"),
        ({"due_back_on": "2001-01-01"}, "after it came"),
        ({"place": "x" * 121}, "at most 120 letters"),
        ({"order": "2"}, "whoever it belongs to"),
    ],
)
def test_what_cannot_be_is_said_and_nothing_is_kept_of_it(demo, sent, says):
    for page in ("/orders/custody/new?customer=1", "/orders/custody/2"):
        answer = demo.post(page, came(**sent))
        assert answer.status_code == 422 and says in answer.text and 'role="alert"' in answer.text
        assert "old glider" in answer.text or "what" in sent  # what was typed is still there
    assert len(rows(demo, CustodyItem)) == 2 and item(demo, 2).what == "smelt, the flank as it was"
    assert demo.get("/orders/custody/new?customer=x").status_code == 404


def test_nothing_goes_back_before_its_bag_is_matched(demo):
    text = demo.get(LURE).text
    assert "treble no. 4 to be" in " ".join(text.split()) and "Bag K0001" in text
    refused = demo.post(f"{LURE}/give_back")
    assert refused.status_code == 422 and "refit it, or say what took its place" in refused.text
    demo.post(f"{LURE}/bag", {"back_0": "1", "back_1": "2", "what": "wire 1 mm", "count": "3"})
    assert [row["back"] for row in item(demo, 1).bag] == [1, 2, 0] and len(item(demo, 1).bag) == 3
    wrong = (
        ({"back_0": "3"}, "0 to 2"),
        ({"back_0": "1.5"}, "whole"),
        ({"what": "x", "count": "many"}, "many"),
    )
    for sent, says in wrong:
        assert says in demo.post(f"{LURE}/bag", sent).text
    demo.post(f"{LURE}/bag", {"back_0": "1", "instead_0": "one new treble, she knows", "back_2": "3"})
    demo.post(f"{LURE}/give_back", {"on": "2026-12-01"})
    assert item(demo, 1).returned_on == date(2026, 12, 1) and "It went back" in demo.get(LURE).text
    assert (
        "harbour" not in demo.get("/orders/custody").text
        and "harbour" in demo.get("/orders/custody?gone=1").text
    )
    gone = demo.post(f"{LURE}/bag", {"back_0": "2"})
    assert gone.status_code == 422 and "it is not here any more" in gone.text
    demo.post(f"{LURE}/take_back")
    assert item(demo, 1).returned_on is None


def test_an_order_is_closed_only_when_what_they_lent_went_back_or_was_written_off(demo):
    order = next(row for row in rows(demo, Order) if row.id == SHIPPED)
    sent = came(order=str(SHIPPED), due_back_on=(date.today() + timedelta(days=9)).isoformat())
    page = demo.post(f"/orders/custody/new?customer={order.customer_id}", sent).headers["Location"]
    demo.post(f"/orders/{SHIPPED}/paid", {"on": "2026-05-31", "sum": "999", "how": "cash"})
    assert stand(demo, SHIPPED) == "shipped"
    assert "what its owner said" in demo.post(f"{page}/write_off", {"word": " "}).text
    demo.post(f"{page}/write_off", {"word": "keep it, wrote on Monday"})
    assert stand(demo, SHIPPED) == "closed" and "Written off: keep it" in demo.get(page).text
    demo.post(f"{page}/take_back")
    assert stand(demo, SHIPPED) == "shipped"
    erased = demo.post(f"/orders/customers/{order.customer_id}/erase", follow_redirects=True).text
    assert "Nothing is erased" in erased
    demo.post(f"{page}/give_back")
    assert stand(demo, SHIPPED) == "closed"

"""What is said and paid of an order: its stage follows, History takes back, bad sums are told."""

from datetime import date

import pytest
from sqlmodel import select

from lamsik.store import events, stands
from lamsik.store.tables import Order, Paper, Payment, Piece
from tests import demo_rows
from tests.web.pouring import rows
from tests.web.test_doing import opened

ASKED = demo_rows.ORDER_FERRY_RUNNER_90_ASKED
SHIPPED = 17
"""An order that went out and is not paid."""


def kept_true(visitor):
    """Whether all that is kept beside pieces and orders is what their facts tell."""
    kept = (Piece.id, Piece.stand), (Order.id, Order.stand, Order.queue, Order.gone_on, Order.owed_minor)
    with opened(visitor) as session:
        before = [session.exec(select(*of)).all() for of in kept]
        stands.all_anew(session)
        return before == [session.exec(select(*of)).all() for of in kept]


def stand(visitor, key):
    return next(row.stand for row in rows(visitor, Order) if row.id == key)


def test_an_enquiry_is_quoted_accepted_cancelled_and_taken_up_again(demo):
    page = f"/orders/{ASKED}"
    assert "Accept the order" in demo.get(page).text and "It is cancelled" not in demo.get(page).text
    said = {"quote": "quote", "accept": "accepted", "cancel": "cancelled", "reopen": "accepted"}
    for way, stage in said.items():
        demo.post(f"{page}/{way}")
        assert stand(demo, ASKED) == stage, way
    assert "Not accepted after all" in demo.get(page).text
    assert demo.post(f"{page}/decline").status_code == 422
    demo.post(f"{page}/reopen")
    demo.post(f"{page}/decline")
    text = demo.get(page).text
    assert stand(demo, ASKED) == "declined" and "It was declined." in text and "Accept the order" not in text
    listed = demo.get("/orders").text
    assert "badge stand declined" in listed.replace("\n", "")
    history = demo.get(f"/history?of=order&id={ASKED}").text
    assert "quoted" in history and "declined" in history and "not accepted after all" in history


def test_an_order_is_closed_once_all_is_paid_and_open_again_when_that_is_taken_off(demo):
    page = f"/orders/{SHIPPED}"
    assert kept_true(demo)
    order = next(row for row in rows(demo, Order) if row.id == SHIPPED)
    assert order.stand == "shipped" and "Still open" in demo.get(page).text
    demo.post(f"{page}/price", {"shipping": "6,50"})
    due = (order.price_minor + 650) / 100
    assert f"{due:.2f} EUR" in demo.get(page).text and order.price_minor > 2000 and kept_true(demo)
    today = date.today().isoformat()
    demo.post(f"{page}/paid", {"on": today, "sum": "20", "how": "cash"})
    assert stand(demo, SHIPPED) == "shipped" and f"{due - 20:.2f} EUR" in demo.get(page).text
    demo.post(
        f"{page}/paid", {"on": today, "sum": f"{due - 14.5:.2f}", "how": "transfer", "note": "too much"}
    )
    text = demo.get(page).text
    assert stand(demo, SHIPPED) == "closed" and "To pay back" in text and "5.50 EUR" in text
    demo.post(f"{page}/paid", {"on": today, "sum": "-5.50", "how": "cash"})
    assert "0.00 EUR" in demo.get(page).text and stand(demo, SHIPPED) == "closed"
    mine = [row for row in rows(demo, Payment) if row.order_id == SHIPPED]
    most = max(mine, key=lambda row: row.minor)
    assert kept_true(demo)
    demo.post(f"{page}/unpaid", {"payment": str(most.id)})
    assert stand(demo, SHIPPED) == "shipped" and kept_true(demo)
    with opened(demo) as session:
        last = events.last_of(session, most.id, "order", "payment")
    demo.post(f"/history/{last.id}/take-back")
    assert stand(demo, SHIPPED) == "closed" and kept_true(demo)
    assert "a payment of this order" in demo.post(f"/orders/{ASKED}/unpaid", {"payment": str(most.id)}).text


@pytest.mark.parametrize(
    ("way", "sent", "says"),
    [
        ("paid", {"sum": "much", "how": "cash"}, "much"),
        ("paid", {"sum": "", "how": "cash"}, "Sum"),
        ("paid", {"sum": "0", "how": "cash"}, "more than nothing"),
        ("paid", {"sum": "5", "how": "shells"}, "one of transfer"),
        ("paid", {"sum": "5", "how": "cash", "on": "yesterday"}, "a day, as"),
        ("price", {"shipping": "12 pounds"}, "12 pounds"),
        ("price", {"shipping": "-3"}, "-3"),
        ("price", {"due": "soon", "shipping": ""}, "a day, as"),
    ],
)
def test_a_sum_that_is_none_is_said_and_nothing_changes(demo, way, sent, says):
    before = next(row for row in rows(demo, Order) if row.id == SHIPPED)
    answer = demo.post(f"/orders/{SHIPPED}/{way}", {"on": "2026-05-31", **sent})
    assert answer.status_code == 422 and says in answer.text and 'role="alert"' in answer.text
    typed = sent.get("sum") or sent.get("shipping", "")
    assert not typed or f'value="{typed}"' in answer.text  # it is still there to be put right
    after = next(row for row in rows(demo, Order) if row.id == SHIPPED)
    assert (after.price_minor, after.shipping_minor) == (before.price_minor, before.shipping_minor)
    assert not [row for row in rows(demo, Payment) if row.order_id == SHIPPED]


def test_a_discount_comes_off_the_sum_and_a_deposit_is_waited_for(demo):
    page = f"/orders/{ASKED}"
    before = next(row.price_minor for row in rows(demo, Order) if row.id == ASKED)
    terms = {"shipping": "6", "discount": "10 %", "why": "a third order", "deposit": "30 %"}
    demo.post(f"{page}/price", terms)
    order = next(row for row in rows(demo, Order) if row.id == ASKED)
    assert order.price_minor == before - round(before / 10)
    text = demo.get(page).text
    due = (order.price_minor + 600) / 100
    first = round(order.price_minor * 0.3 + 180) / 100
    assert f"−{(before - order.price_minor) / 100:.2f} EUR, a third order" in text
    assert f"{due:.2f} EUR" in text and f"{first:.2f} EUR: {first:.2f} EUR of it has not come" in text
    assert "Waits for its deposit" not in text  # nothing begins before it is agreed
    letter = demo.get(f"{page}/letter/quote").text
    assert f"Of it {first:.2f} EUR is asked before work begins." in letter and "third order: −" in letter
    demo.post(f"{page}/accept")
    assert f"Waits for its deposit: {first:.2f} EUR" in demo.get(page).text
    demo.post(f"{page}/paper/quote")
    paper = demo.get(f"/orders/paper/{max(row.id for row in rows(demo, Paper))}").text
    assert (
        "Discount 10 %, a third order" in paper and f"Deposit before work begins: {first:.2f} EUR." in paper
    )
    demo.post(f"{page}/paid", {"on": date.today().isoformat(), "sum": f"{first:.2f}", "how": "cash"})
    text = demo.get(page).text
    assert "Waits for its deposit" not in text and f"{first:.2f} EUR: paid" in text
    demo.post(f"{page}/price", {**terms, "discount": "5", "deposit": ""})
    order = next(row for row in rows(demo, Order) if row.id == ASKED)
    assert order.price_minor == before - 500 and "Deposit</dt>" not in demo.get(page).text


@pytest.mark.parametrize("name", ["discount", "deposit"])
def test_a_share_that_is_none_is_said_and_what_was_kept_stays(demo, name):
    page = f"/orders/{ASKED}"
    demo.post(f"{page}/price", {name: "20 %"})
    answer = demo.post(f"{page}/price", {name: "140 %"})
    assert answer.status_code == 422 and "a share as 10 %, or a sum as 12.50" in answer.text
    assert 'value="140 %"' in answer.text
    assert next(getattr(row, f"{name}_percent") for row in rows(demo, Order) if row.id == ASKED) == 20.0

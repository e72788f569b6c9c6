"""What is taken off an order's sum and asked before work begins, as pages, papers and letters say it."""

from dataclasses import dataclass

from lamsik.core.money import Money
from lamsik.core.orders.lines import total_minor
from lamsik.core.orders.terms import Share, deposit_open
from lamsik.store import stands
from lamsik.store.tables import Order
from lamsik.web.shared.db import db


@dataclass(frozen=True)
class OrderTerms:
    """Of an order, each with its unit: the sum of its lines, what is taken off, the deposit and what of it
    has not come; empty where there is none. `discount` and `deposit` are as they are typed.
    """

    lines: str
    off: str
    discount: str
    why: str
    first: str
    deposit: str
    waits: str


def terms_of(order: Order) -> OrderTerms:
    """The terms of an order."""
    off, first = stands.discount(order), stands.deposit(order)
    total = total_minor([stands.as_line(row) for row in stands.lines_of(db(), order)])
    paid = stands.paid_minor(db(), order)
    due = stands.agreed(order, paid).due_minor
    missing = deposit_open(first, due, paid)

    def said(minor: int | None) -> str:
        return "" if minor is None else Money(minor, order.currency).said

    return OrderTerms(
        said(total),
        said(off.of(total)) if off.is_any and total is not None else "",
        _typed(off, order.currency),
        order.discount_why,
        said(first.of(due)) if first.is_any and due is not None else "",
        _typed(first, order.currency),
        said(missing) if missing else "",
    )


def _typed(share: Share, currency: str) -> str:
    if share.percent is not None:
        return f"{share.percent:g} %"
    return str(Money(share.minor, currency).amount) if share.minor is not None else ""

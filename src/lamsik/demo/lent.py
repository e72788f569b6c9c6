"""Puts in what the invented shop knows of its customers, what they lent and what they wrote."""

from datetime import date, timedelta

from sqlmodel import Session

from lamsik.core.orders.custody import BagRow
from lamsik.demo import scenario_customers
from lamsik.store import custody, customers, orders
from lamsik.store.tables import CustodyItem


def build(session: Session) -> None:
    """What is known of some customers, one who is double, what they wrote."""
    named = {row.name: row for row in session.exec(orders.customers()).all()}
    for name, facts in scenario_customers.KNOWN_OF.items():
        customers.keep(session, named[name], name, {**named[name].facts, **facts})
    orders.customer_named(session, scenario_customers.DOUBLE[0], {"contact": scenario_customers.DOUBLE[1]})
    for whose, kind, what, condition, grams, seen, by, place, bag in scenario_customers.LENT:
        item = CustodyItem(
            number="",
            customer_id=named[whose].id or 0,
            kind=kind,
            what=what,
            condition=condition,
            weight_g=grams,
            typed={"weight_g": f"{grams} g"} if grams else {},
            genuine=seen,
            genuine_by=by,
            place=place,
            received_on=date.today() - timedelta(days=9),
            due_back_on=date.today() + timedelta(days=33),
        )
        custody.receive(session, item)
        custody.put_in_bag(session, item, [BagRow(*row) for row in bag])
    for name, text in scenario_customers.WROTE:
        row = named[name]
        first = session.exec(customers.ordered(row.id or 0)).first()
        customers.note_word(session, row, text, first.id if first else None)

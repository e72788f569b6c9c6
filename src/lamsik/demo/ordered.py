"""Puts in what the invented shop has ready to sell, and an order of several lines that is being quoted."""

from datetime import date, timedelta

from sqlmodel import Session, select

from lamsik.core.orders.lines import CLEAR_ONLY, MADE, PARTS
from lamsik.demo.scenario_customers import QUOTED, READY_PRICE, WAYS
from lamsik.store import documents, orders, pieces, routes, stores
from lamsik.store.tables import CustodyItem, Document, Order, OrderLine


def build(session: Session) -> None:
    """A piece that is ready and nobody's; a quote for two bodies, clear on a lent bait, and rings."""
    body = session.exec(select(Document).where(Document.name == QUOTED[1][0])).one()
    piece = pieces.start(session, body)
    piece.price_minor = READY_PRICE
    for step in routes.of(session, piece):
        if not step.of.hands_over:
            pieces.end_step(session, piece, step.key)
    stores.put_setting(session, "ready", {"hours": 72, "shipping": [list(one) for one in WAYS]})
    item = session.exec(select(CustodyItem)).first()
    who, *lines = QUOTED
    customer = orders.customer_named(session, who)
    order = Order(number=orders.next_number(session), customer_id=0, due_on=date.today() + timedelta(days=52))
    rows = [_made(session, *line) for line in lines]
    if item is not None and item.customer_id == customer.id:
        rows.append(OrderLine(order_id=0, kind=CLEAR_ONLY, clears=2, custody_id=item.id, rate_minor=450))
    rows.append(OrderLine(order_id=0, kind=PARTS, quantity=10, note="Split rings no. 3", lump_minor=400))
    orders.place(session, order, customer, *rows)
    orders.say(session, order, "quote")


def _made(
    session: Session, name: str, scheme: str, quantity: int, clears: int | None, rate: int
) -> OrderLine:
    body = session.exec(select(Document).where(Document.name == name, Document.kind == "body")).one()
    paint = session.exec(select(Document).where(Document.name == scheme, Document.kind == "scheme")).one()
    content = documents.content(session, body)
    length = content["body"].get("length_mm") or 90.0
    row = OrderLine(order_id=0, kind=MADE, quantity=quantity, clears=clears, rate_minor=rate)
    row.design_id, row.scheme_id, row.length_mm = body.id, paint.id, float(length)
    row.typed, row.material = {"length": f"{length:g} mm"}, content["material"]["name"]
    row.form = str(content["form"])
    return row

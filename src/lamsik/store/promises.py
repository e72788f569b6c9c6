"""What was promised for an order, and what the bench says: its own routes after what is promised already."""

from collections.abc import Sequence
from datetime import date, datetime

from sqlmodel import Session, col, select

from lamsik.core.errors import require
from lamsik.core.materials import BODY_MATERIALS, USUAL_WOOD, body_material
from lamsik.core.orders.promise import Ready, ready
from lamsik.core.route.repaint import repainted
from lamsik.core.route.steps import Route
from lamsik.core.route.workdays import Workdays
from lamsik.core.shapes.catalogue import Catalogue
from lamsik.core.shapes.design import Want, host_of
from lamsik.core.shapes.forms import FORMS, form
from lamsik.core.water import Water
from lamsik.documents.body.document import to_design
from lamsik.documents.registry import KINDS
from lamsik.store import as_ordered, documents, order_lines, pieces, routes, stands
from lamsik.store.stands import DONE
from lamsik.store.tables import Document, Order, OrderLine, Piece, Promise

MOST_PIECES, MOST_LINES = 400, 120
"""So much of what is promised is looked at."""


def route_of(session: Session, row: OrderLine, shop: Catalogue | None = None) -> Route:
    """The route of a line: of its body as it was agreed or is drawn, dressed as ordered; of a form at its
    length while nothing is drawn. Empty where nothing is made for it.
    """
    line = stands.as_line(row)
    if not line.of.of:
        return ()
    design = session.get(Document, row.design_id or row.like_id or 0)
    if line.of.of != "body":
        return routes.of_document(session, design.kind, documents.content(session, design)) if design else ()
    if row.revision_id is not None:
        content = documents.content_at(session, row.revision_id)
    else:
        content = documents.content(session, design) if design else _of_form(row)
        content = as_ordered.dressed(session, content, row, shop=shop)
    work = order_lines.work_of(row)
    if work:
        return repainted(to_design(content), work, routes.own_minutes(session))
    return routes.of_document(session, "body", content)


def _of_form(row: OrderLine) -> dict[str, object]:
    start = form(row.form if row.form in FORMS else "slim")
    material = body_material(row.material if row.material in BODY_MATERIALS else USUAL_WOOD)
    scale = (row.length_mm or start.length_mm) / start.length_mm
    sizes = (start.length_mm * scale, round(start.depth_mm * scale, 1), round(start.width_mm * scale, 1))
    asked = {"name": row.title, "start": start, "host": host_of(material), "water": Water(), "want": Want()}
    return KINDS["body"].begins(**asked, sizes_mm=sizes)


def told(session: Session, order: Order, days: Workdays, at: datetime) -> Ready:
    """When the order can be ready, after all that was promised before it."""
    lines = [
        (route_of(session, row), stands.as_line(row).wanted)
        for row in stands.lines_of(session, order)[:MOST_LINES]
    ]
    return ready(lines, before_min(session, order), days, at)


def before_min(session: Session, order: Order) -> float:
    """Hands that are promised to other orders [min]: what is left of their pieces, and pieces not begun."""
    agreed = (
        col(Order.accepted_at).is_not(None),
        col(Order.queue) < DONE,
        col(Order.deleted_at).is_(None),
        Order.id != order.id,
    )
    going = session.exec(
        select(Piece).join(Order).where(*pieces.GOING, *agreed).order_by(col(Order.queue)).limit(MOST_PIECES)
    ).all()
    ways, ended = routes.of_many(session, going), routes.ended(session, going)
    minutes = sum(
        step.each_min
        for piece in going
        for step in ways[piece.id or 0]
        if step.key not in ended[piece.id or 0]
    )
    lines = session.exec(
        select(OrderLine).join(Order).where(*agreed, col(OrderLine.deleted_at).is_(None)).limit(MOST_LINES)
    ).all()
    for row in lines:
        lacks = stands.as_line(row).wanted - order_lines.made_of(session, row)
        if lacks > 0:
            minutes += lacks * sum(step.each_min for step in route_of(session, row))
    return minutes


def waits_for(session: Session, order: Order) -> list[tuple[str, str]]:
    """What of an order waits for something other than hands: the line, and for what."""
    waiting = []
    for row in stands.lines_of(session, order):
        kind = stands.as_line(row).of
        if kind.is_theirs and not row.custody_id:
            waiting.append((row.title, "theirs"))
        elif kind.of and not row.design_id:
            waiting.append((row.title, "shape"))
        elif kind.is_painted and not row.scheme_id:
            waiting.append((row.title, "scheme"))
    return waiting


def promise(session: Session, order: Order, on: date, why: str) -> Promise:
    """A day is promised for an order; what was promised before is remembered."""
    require(len(why) <= 500, "why", f"{len(why)} letters", "at most 500 letters")
    row = Promise(order_id=order.id or 0, due_on=on, why=why.strip())
    order.due_on = on
    session.add_all((row, order))
    session.flush()
    stands.order_anew(session, order)
    return row


def of_order(session: Session, order: Order) -> Sequence[Promise]:
    """What was promised for an order, the newest first."""
    query = select(Promise).where(Promise.order_id == order.id)
    return session.exec(query.order_by(col(Promise.id).desc())).all()

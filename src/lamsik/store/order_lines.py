"""The lines of orders: what each is, what was agreed of it, and how that changed with the customer's yes."""

from collections.abc import Sequence
from typing import Any

from sqlmodel import Session, col, func, select
from sqlmodel.sql.expression import Select

from lamsik.core.errors import Refused, require
from lamsik.core.orders.lines import DETAIL, FLOATS, LINE_KINDS, MADE, PARTS, REPAINT, STOCK
from lamsik.core.quantities import plainly
from lamsik.core.route.repaint import CLEARED, DETAILED, KEPT, OLD_PAINT
from lamsik.core.shapes.forms import FORMS
from lamsik.store import as_ordered, documents, ready_stock, rights, stands
from lamsik.store.events import told
from lamsik.store.paging import MOST
from lamsik.store.search import fold
from lamsik.store.stands import DONE
from lamsik.store.tables import (
    CustodyItem,
    Customer,
    Document,
    Order,
    OrderChange,
    OrderLine,
    Piece,
    Revision,
    ShopWater,
    now,
)
from lamsik.words.orders import COLUMNS, told_line

MOST_LINES = 400


def keep(session: Session, row: OrderLine) -> OrderLine:
    """A line as it is now; its scheme stays in the version it has. Raises `Refused` naming the field: what
    cannot be, what is not for sale, what is not this customer's or sold already.
    """
    line, order = stands.as_line(row), session.get_one(Order, row.order_id)
    require(len(row.note) <= 2000, "note", f"{len(row.note)} letters", "at most 2000 letters")
    if row.kind == REPAINT:
        row.old_paint = row.old_paint or KEPT
        require(row.old_paint in OLD_PAINT, "old_paint", row.old_paint, f"one of {', '.join(OLD_PAINT)}")
    if row.kind in (DETAIL, PARTS):
        require(bool(row.note.strip()), "note", "", "what it is, in a word or two")
    what = _named(session, row, order, line.of.is_theirs)
    _may_be_sold(session, row)
    scheme = session.get(Document, row.scheme_id) if row.scheme_id else None
    row.scheme_version = (row.scheme_version or scheme.current) if scheme is not None else 0
    length = row.typed.get("length") or (plainly(row.length_mm, "length") if row.length_mm else "")
    form = FORMS[row.form].name if row.form in FORMS else row.form
    row.title = told_line(row.kind, form, length, what, row.clears)[:160]
    session.add(row)
    session.flush()
    _told_anew(session, order)
    return row


def _named(session: Session, row: OrderLine, order: Order, is_theirs: bool) -> str:
    """What a line is done to or made of, by name. Raises `Refused` where that is someone else's or gone."""
    if is_theirs and row.custody_id:
        item = session.get(CustodyItem, row.custody_id)
        if item is None or item.customer_id != order.customer_id:
            raise Refused("custody", row.custody_id, "something of theirs that is here")
        if item.order_id is None:
            item.order_id = order.id  # it goes back with this order
            session.add(item)
        return f"{item.what}, {item.number}"
    if row.kind == STOCK:
        piece = session.get(Piece, row.piece_id) if row.piece_id else None
        if piece is None:
            raise Refused("piece", "", "one that is ready and not sold")
        return f"{session.get_one(Document, piece.design_id).name}, {piece.number}"
    chosen = row.design_id or row.like_id
    if row.kind in (MADE, FLOATS) and chosen:
        name = session.get_one(Document, chosen).name
        whose = session.get_one(Customer, order.customer_id).name
        return "" if whose in name else name  # a name leaves with its customer
    return row.note.splitlines()[0][:80] if row.kind == PARTS and row.note else ""


def _may_be_sold(session: Session, row: OrderLine) -> None:
    """Raises `Refused` where the body or the scheme is not for sale: it is asked at every way in."""
    piece = session.get(Piece, row.piece_id) if row.kind == STOCK and row.piece_id else None
    body = piece.design_id if piece is not None else row.design_id or row.like_id
    for field, why in (
        ("design", why_not(session, row, body)),
        ("scheme", _why_not_painted(session, row, body)),
    ):
        if why:
            raise Refused(field, why, "one that may be sold, or ask whoever it is from")


def _why_not_painted(session: Session, row: OrderLine, body: int | None) -> str:
    """Why the scheme of a line may be on no order: its own, or else what its body is painted in."""
    if row.scheme_id:
        return rights.why_not(session, row.scheme_id)
    design = session.get(Document, body) if body and not LINE_KINDS[row.kind].is_theirs else None
    code = documents.content(session, design).get("scheme") if design is not None else ""
    return rights.of_scheme(session, str(code or ""))


def why_not(session: Session, row: OrderLine, design_id: int | None) -> str:
    """Why a body may not be on a line; empty where it may: what is theirs is painted for them, whosever shape
    it is.
    """
    return "" if LINE_KINDS[row.kind].is_theirs else rights.why_not(session, design_id)


def _told_anew(session: Session, order: Order) -> None:
    stands.order_anew(session, order)
    customer = session.get_one(Customer, order.customer_id)
    order.search = fold(f"{order.number} {order.title} {customer.name}")
    session.add(order)
    session.flush()


def take_off(session: Session, row: OrderLine) -> None:
    """A line is no longer on the order. Raises `Refused` while pieces are made for it."""
    require(row.kind == STOCK or not made_of(session, row), "line", row.title, "put its pieces away first")
    row.deleted_at = now()
    session.add(row)
    session.flush()
    if row.kind == STOCK:
        ready_stock.settle_of(session, row.piece_id)
    _told_anew(session, session.get_one(Order, row.order_id))


def made_of(session: Session, row: OrderLine) -> int:
    """How many pieces are made for a line."""
    here = Piece.line_id == row.id, col(Piece.deleted_at).is_(None)
    return session.exec(select(func.count()).select_from(Piece).where(*here)).one()


def work_of(row: OrderLine) -> str:
    """What is done to something that is made already, as its piece keeps it; empty where it is made here."""
    return {REPAINT: row.old_paint, "clear": CLEARED, DETAIL: DETAILED}.get(row.kind, "")


def waiting_for(session: Session, design_id: int, order_id: int | None = None) -> OrderLine | None:
    """The line this design is made for that still lacks pieces, of the order that is agreed and due first, or
    of one order.
    """
    begun_for = (
        select(func.count())
        .where(Piece.line_id == OrderLine.id, col(Piece.deleted_at).is_(None))
        .correlate(OrderLine)
        .scalar_subquery()
    )
    lacks = OrderLine.quantity * OrderLine.per_set > begun_for
    query = select(OrderLine).join(Order).where(*_open(design_id), lacks, col(Order.accepted_at).is_not(None))
    if order_id is not None:
        query = query.where(OrderLine.order_id == order_id)
    return session.exec(query.order_by(col(Order.queue), col(OrderLine.id)).limit(1)).first()


def _open(design_id: int | None) -> tuple[Any, ...]:
    return (
        OrderLine.design_id == design_id,
        col(OrderLine.deleted_at).is_(None),
        col(Order.queue) < DONE,
        col(Order.deleted_at).is_(None),
    )


def for_design(session: Session, design_id: int | None, most: int = MOST) -> Sequence[tuple[Order, Customer]]:
    """The open orders a design is made for, with their customers, the nearest due first."""
    if design_id is None:
        return []
    query: Select[Order, Customer] = select(Order, Customer).join(Customer).join(OrderLine)
    return session.exec(
        query.where(*_open(design_id)).distinct().order_by(col(Order.queue)).limit(most)
    ).all()


def in_scheme(session: Session, scheme_id: int, most: int = MOST) -> Sequence[tuple[Order, OrderLine]]:
    """The orders in a scheme with their lines, open ones first."""
    here = (
        OrderLine.scheme_id == scheme_id,
        col(OrderLine.deleted_at).is_(None),
        col(Order.deleted_at).is_(None),
    )
    query: Select[Order, OrderLine] = select(Order, OrderLine).join(OrderLine)
    return session.exec(query.where(*here).order_by(col(Order.queue)).limit(most)).all()


def made_as(session: Session, design: Document, row: OrderLine | None) -> Revision:
    """The revision that a piece is made from: the design of now or as it was agreed; where its line is in
    another scheme or has its own clear coats, one beside it that is so.
    """
    frozen = session.get(Revision, row.revision_id) if row is not None and row.revision_id else None
    if frozen is not None and frozen.document_id == design.id:
        return frozen
    drawn = documents.revision(session, design)
    return drawn if row is None else as_ordered.revision_for(session, design, drawn, row, False)


FROZEN = tuple(name for name in COLUMNS if name != "deleted_at")
"""What of a line stays as it was agreed."""


def freeze(session: Session, order: Order) -> None:
    """What is agreed of each line stays so: its body in the revision of now, its scheme in its version."""
    for row in stands.lines_of(session, order):
        fix(session, row)


def fix(session: Session, row: OrderLine, base: int | None = None) -> None:
    """A line stays as it is now; its body as in the revision `base`, or else as it is drawn now."""
    design = session.get(Document, row.design_id) if row.design_id else None
    drawn = session.get(Revision, base) if base else None
    if design is not None:
        if drawn is None or drawn.document_id != design.id:
            drawn = documents.revision(session, design)
        row.revision_id = as_ordered.revision_for(session, design, drawn, row, True).id
    water = session.get(ShopWater, row.water_id) if row.water_id else None
    in_water = {"temperature_c": water.temperature_c, "salinity_psu": water.salinity_psu} if water else {}
    kept = {name: getattr(row, name) for name in FROZEN}
    of = drawn.id if design is not None and drawn is not None else None
    row.agreed = {**kept, "water": in_water, "of": of, "at": now().isoformat()}
    session.add(row)
    session.flush()


def thaw(session: Session, order: Order) -> None:
    """It is not agreed after all: its lines can be changed again."""
    for row in stands.lines_of(session, order):
        row.agreed, row.revision_id = {}, None
        session.add(row)
    session.flush()


def change(session: Session, row: OrderLine, after: dict[str, Any]) -> OrderChange | None:
    """What would be other than agreed waits for the customer's yes; None where nothing would. `revision_id`
    names the body as it would be drawn. Raises `Refused` while another change of the line waits.
    """
    before = {
        name: row.agreed.get("of") if name == "revision_id" else told(getattr(row, name)) for name in after
    }
    other = {name: value for name, value in after.items() if before[name] != value}
    if not other:
        return None
    waits = select(OrderChange).where(OrderChange.line_id == row.id, OrderChange.answer == "")
    require(session.exec(waits).first() is None, "change", row.title, "the answer to its last change first")
    asked = OrderChange(
        order_id=row.order_id,
        line_id=row.id or 0,
        before={name: before[name] for name in other},
        after=other,
    )
    session.add(asked)
    session.flush()
    return asked


def answer(session: Session, asked: OrderChange, says: str, word: str = "") -> None:
    """The customer said yes or no to a change: with a yes the line is so. Raises `Refused` for one that is
    answered already, and where the line cannot be so.
    """
    require(asked.answer == "", "change", asked.answer, "one that waits for an answer")
    asked.answer, asked.answered_at, asked.word = says, now(), word.strip()[:500]
    session.add(asked)
    if says == "yes":
        _take(session, session.get_one(OrderLine, asked.line_id), dict(asked.after))
    session.flush()


def _take(session: Session, row: OrderLine, after: dict[str, Any]) -> None:
    base = after.pop("revision_id", row.agreed.get("of"))
    if after.get("deleted_at"):
        take_off(session, row)
        return
    was = row.piece_id
    if after.get("scheme_id", row.scheme_id) != row.scheme_id:
        row.scheme_version = 0  # that of the other scheme
    if {"length_mm", "pitch_deg"} & after.keys():
        row.typed = {}  # what was typed was of before
    for name, value in after.items():
        setattr(row, name, value)
    keep(session, row)
    if row.kind == STOCK:
        ready_stock.ask(session, row)
        ready_stock.settle_of(session, was)
    fix(session, row, base)


def changes(session: Session, order: Order) -> Sequence[OrderChange]:
    """The changes of an order's lines since it was agreed, the newest first."""
    query = select(OrderChange).where(OrderChange.order_id == order.id)
    return session.exec(query.order_by(col(OrderChange.id).desc())).all()


def out_since(session: Session, row: OrderLine) -> Revision | None:
    """The revision of the body that is out since this line was agreed; None where there is none."""
    design = session.get(Document, row.design_id) if row.design_id else None
    if design is None or row.revision_id is None:
        return None
    newest = documents.revision(session, design)
    return newest if newest.id != row.agreed.get("of") else None


def begun(session: Session, order: Order, kind: str = MADE) -> OrderLine:
    """A line that is being written: as one of its kind begins."""
    if len(stands.lines_of(session, order)) >= MOST_LINES:
        raise Refused("line", MOST_LINES, f"at most {MOST_LINES} lines on an order")
    require(kind in LINE_KINDS, "kind", kind, f"one of {', '.join(LINE_KINDS)}")
    return OrderLine(order_id=order.id or 0, kind=kind, clears=2 if kind == "clear" else None)

"""What is shown of an order's lines: each with its picture, its words, what is made and can be done."""

from collections.abc import Sequence
from dataclasses import dataclass

from sqlmodel import col, func, select

from lamsik.core.orders.customer_facts import INCHES as SPEAKS_INCHES
from lamsik.core.orders.lines import LINE_KINDS, MADE, LineTerms
from lamsik.core.quantities import INCHES, METRIC, said, saying
from lamsik.core.shapes.forms import FORMS
from lamsik.store import order_lines, ready_stock
from lamsik.store import stands as stands_of
from lamsik.store.tables import CustodyItem, Customer, Document, Order, OrderLine, Piece, Revision, ShopWater
from lamsik.web.shared.db import db, in_short
from lamsik.words.orders import LINES

OFF_MM = 0.5
"""A shape that differs by less is as long as was asked for."""


@dataclass(frozen=True)
class ShownLine:
    """A line as its order shows it: the row, what counts of it, what it is called, the words under that; the
    design, the revision that is drawn and that of the paint on it, the scheme, what of theirs it is done to,
    the piece of stock; how many pieces are begun and ready; whether another has the piece before them; the
    body as it was drawn on since; how long its shape is where the line says otherwise [mm].
    """

    row: OrderLine
    of: LineTerms
    kind: str
    says: tuple[str, ...]
    design: Document | None
    drawn: int | None
    paint: int | None
    scheme: Document | None
    item: CustodyItem | None
    piece: Piece | None
    begun: int
    ready: int
    is_behind: bool
    newer: Revision | None
    other_mm: float | None

    @property
    def lacks(self) -> int:
        """How many pieces are still to be begun."""
        return max(self.of.wanted - self.begun, 0) if self.of.of.of else 0


def settle_what_is_over() -> None:
    """Pieces that were kept for someone whose time is over are the next one's, or free, before a page says
    whose they are.
    """
    if ready_stock.over(db()):
        in_short(ready_stock.settle_all)
        db().rollback()  # what it read before is of a moment ago


def shown_lines(order: Order, rows: Sequence[OrderLine], customer: Customer) -> list[ShownLine]:
    """The lines as they are shown."""
    ids = [row.id for row in rows]
    counts: dict[int | None, dict[str, int]] = {}
    asked = select(Piece.line_id, Piece.stand, func.count()).where(
        col(Piece.line_id).in_(ids), col(Piece.deleted_at).is_(None)
    )
    for line, at, many in db().exec(asked.group_by(col(Piece.line_id), Piece.stand)).all():
        counts.setdefault(line, {})[at] = many
    return [_shown(order, row, counts.get(row.id, {}), customer.facts.get("speaks", "")) for row in rows]


def _shown(order: Order, row: OrderLine, standing: dict[str, int], speaks: str) -> ShownLine:
    design = db().get(Document, row.design_id) if row.design_id else None
    piece = db().get(Piece, row.piece_id) if row.piece_id else None
    drawn = row.revision_id or (piece.revision_id if piece else None) or _newest(design)
    scheme = db().get(Document, row.scheme_id) if row.scheme_id else None
    asking = ready_stock.asking(db(), row.piece_id) if row.piece_id else ()
    return ShownLine(
        row,
        stands_of.as_line(row),
        LINES[row.kind],
        tuple(_says(row, speaks)),
        design,
        drawn,
        _paint(row, scheme) if design is not None and row.revision_id is None else None,
        scheme,
        db().get(CustodyItem, row.custody_id) if row.custody_id else None,
        piece,
        sum(standing.values()),
        sum(many for at, many in standing.items() if at != "making"),
        bool(asking) and asking[0][0].id != row.id,
        order_lines.out_since(db(), row) if order.accepted_at else None,
        _other_length(row, drawn),
    )


def _other_length(row: OrderLine, drawn: int | None) -> float | None:
    """How long the shape is where that is not what the line says [mm]."""
    if drawn is None or row.length_mm is None or row.kind != MADE:
        return None
    asked = select(func.json_extract(Revision.content, "$.body.length_mm")).where(Revision.id == drawn)
    mm = db().exec(asked).first()
    return float(mm) if mm is not None and abs(float(mm) - row.length_mm) > OFF_MM else None


def _paint(row: OrderLine, scheme: Document | None) -> int | None:
    """The revision of the scheme that was ordered; of one that is agreed it is on the body already."""
    if scheme is None:
        return None
    number = row.scheme_version or scheme.current
    return (
        db()
        .exec(select(Revision.id).where(Revision.document_id == scheme.id, Revision.number == number))
        .first()
    )


def _newest(design: Document | None) -> int | None:
    if design is None or design.deleted_at is not None:
        return None
    return (
        db()
        .exec(select(Revision.id).where(Revision.document_id == design.id, Revision.number == design.current))
        .first()
    )


def _says(row: OrderLine, speaks: str) -> list[str]:
    """What is wanted, in words, a fact each."""
    kind = LINE_KINDS[row.kind]
    if kind.of != "body":
        return [f"{row.per_set} in a set"] if kind.in_sets and row.per_set > 1 else []
    length = row.typed.get("length", "its own length")
    theirs = in_their_units(row, speaks)
    form = FORMS[row.form].name if row.form in FORMS else row.form
    rows = [f"{form}, {length}{f' ({theirs})' if theirs else ''}, {row.material}"]
    if not kind.is_theirs:
        hangs = "level" if row.pitch_deg == 0 else said(row.pitch_deg, "angle", 0)
        water = db().get(ShopWater, row.water_id) if row.water_id else None
        where = f", in {said(water.temperature_c, 'temperature', 0)} {water.name}" if water else ""
        rows.append(f"{row.behaviour}, {hangs}{where}")
    if row.old_paint:
        rows.append(f"its old paint {row.old_paint}")
    if row.clears is not None:
        rows.append(f"{row.clears} clear coat{'' if row.clears == 1 else 's'}")
    return rows


def in_their_units(row: OrderLine, speaks: str) -> str:
    """How long it is in the units the customer speaks in; empty where the shop speaks in them too."""
    if not speaks or row.length_mm is None:
        return ""
    with saying(INCHES if speaks == SPEAKS_INCHES else METRIC):
        theirs = said(row.length_mm, "length")
    return theirs if theirs != said(row.length_mm, "length") else ""

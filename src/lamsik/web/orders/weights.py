"""What a parcel weighs: off the scale, or told from what lies in it."""

from dataclasses import dataclass

from sqlmodel import col, select

from lamsik.core.errors import require
from lamsik.core.orders.lines import PARTS
from lamsik.core.quantities import plainly, said
from lamsik.core.stock.shipping import rate_for
from lamsik.core.tank.mass import budget
from lamsik.documents.body.document import to_design
from lamsik.store import costs, documents, pieces, stands
from lamsik.store.parcels import Packed
from lamsik.store.tables import CustodyItem, Document, Order, OrderLine, Parcel, Piece
from lamsik.web.shared.db import db


@dataclass(frozen=True)
class Weight:
    """What a parcel weighs, in words; whether that is an estimate."""

    says: str
    is_estimate: bool


def weight_of(parcel: Parcel, inside: Packed) -> Weight:
    """Its weight; an estimate as long as it was not weighed: pieces as they were weighed last or as they are
    drawn, what of theirs was weighed, and the box.
    """
    if parcel.weight_g is not None:
        return Weight(parcel.typed.get("weight_g") or plainly(parcel.weight_g, "mass"), False)
    known = sum(_mass_g(piece) for piece in inside.pieces) + sum(
        item.weight_g or 0.0 for item in inside.theirs
    )
    return Weight(said(known + (parcel.box_g or 0.0), "mass", 0), True)


def shipped_minor(order: Order, zone: str) -> int:
    """What the way of all of an order costs to a zone, in minor units. Raises `Refused`."""
    rows = [row for row in stands.lines_of(db(), order) if stands.as_line(row).wanted]
    mass_g = sum(_line_g(row) for row in rows)
    return rate_for(costs.rates(db()), zone, mass_g).minor


def _line_g(row: OrderLine) -> float:
    """What all of a line weighs [g]: pieces as they were weighed or drawn, what is theirs as it came, the
    others as their body is drawn.
    """
    begun = list(
        db().exec(select(Piece).where(Piece.line_id == row.id, col(Piece.deleted_at).is_(None))).all()
    )
    if row.piece_id and not begun:
        begun = [db().get_one(Piece, row.piece_id)]
    known = [_mass_g(piece) for piece in begun]
    more = max(stands.as_line(row).wanted - len(known), 0)
    theirs = db().get(CustodyItem, row.custody_id) if row.custody_id and more else None
    if theirs is not None and theirs.weight_g:
        return sum(known) + more * theirs.weight_g
    drawn = db().get(Document, row.design_id or row.like_id or 0) if more else None
    is_told = not more or row.kind == PARTS or drawn is not None
    require(is_told, "shipping", row.title, "a sum: what this line weighs is not drawn yet")
    if drawn is None or drawn.kind != "body":
        return sum(known)
    return sum(known) + more * budget(to_design(documents.content(db(), drawn))).mass_g


def _mass_g(piece: Piece) -> float:
    seen = pieces.readings(db(), piece)
    for stage in ("rigged", "cleared", "came"):
        if f"stage:{stage}" in seen:
            return seen[f"stage:{stage}"].weighing.value
    if db().get_one(Document, piece.design_id).kind != "body":
        return 0.0
    return budget(to_design(dict(pieces.document_of(db(), piece)))).mass_g

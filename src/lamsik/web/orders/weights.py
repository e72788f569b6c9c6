"""What a parcel weighs: off the scale, or told from what lies in it."""

from dataclasses import dataclass

from lamsik.core.quantities import plainly, said
from lamsik.core.tank.mass import budget
from lamsik.documents.body.document import to_design
from lamsik.store import pieces
from lamsik.store.parcels import Packed
from lamsik.store.tables import Document, Parcel, Piece
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


def _mass_g(piece: Piece) -> float:
    seen = pieces.readings(db(), piece)
    for stage in ("rigged", "cleared", "came"):
        if f"stage:{stage}" in seen:
            return seen[f"stage:{stage}"].weighing.value
    if db().get_one(Document, piece.design_id).kind != "body":
        return 0.0
    return budget(to_design(dict(pieces.document_of(db(), piece)))).mass_g

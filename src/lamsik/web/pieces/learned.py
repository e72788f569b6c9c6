"""What the shop's own blanks tell of how true it works."""

from lamsik.core.shapes.faces import MADE_TRUE_TO, learned_mm, moved
from lamsik.core.shapes.solid import solid
from lamsik.core.tank.mass import size_ml
from lamsik.formats.body_document import to_design
from lamsik.store import pieces, stores
from lamsik.store.tables import Piece
from lamsik.web.shared.db import db


def learn_faces() -> None:
    """Every blank that was weighed in air and in water, against its drawing; kept in the shop's settings by construction."""
    seen: dict[str, list[tuple[float, float]]] = {}
    for piece_id, found in pieces.readings_of_all(db()).items():
        piece = db().get(Piece, piece_id) if any(target.startswith(f"{pieces.WATER}:") for target in found) else None
        design = to_design(dict(pieces.document_of(db(), piece))) if piece else None
        size = size_ml(design, pieces.measured(found)) if design else None
        if design is not None and size is not None:
            seen.setdefault(design.host.construction, []).append((size[0] - solid(design.body).volume_ml, moved(design.body).ml_per_mm))
    learned = {made: {"mm": learned_mm(rows, MADE_TRUE_TO[made]), "blanks": len(rows)} for made, rows in seen.items()}
    stores.put_setting(db(), "faces", {"learned": learned})

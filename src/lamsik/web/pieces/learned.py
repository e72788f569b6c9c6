"""What the shop's own blanks tell of how true it works."""

from lamsik.core.shapes.faces import MADE_TRUE_TO, learned_mm, moved
from lamsik.core.shapes.solid import solid
from lamsik.core.tank.mass import size_ml
from lamsik.store import pieces, stores
from lamsik.web.shared.cards import design_of
from lamsik.web.shared.db import db

MOST_BLANKS = 400
"""The newest blanks that teach: the shop's hand is as it is now."""


def learn_faces() -> None:
    """The newest blanks that were weighed in air and in water, against their drawing; kept in the shop's
    settings by construction.
    """
    seen: dict[str, list[tuple[float, float]]] = {}
    rows = pieces.held_under(db(), MOST_BLANKS)
    readings, contents = (
        pieces.readings_of(db(), [row.id or 0 for row in rows]),
        pieces.documents_of(db(), rows),
    )
    for piece in rows:
        design = design_of(contents[piece.revision_id])
        size = size_ml(design, pieces.measured(readings.get(piece.id or 0, {})))
        if size is not None:
            seen.setdefault(design.host.construction, []).append(
                (size[0] - solid(design.body).volume_ml, moved(design.body).ml_per_mm)
            )
    learned = {
        construction: learned_mm(blanks, MADE_TRUE_TO[construction]) for construction, blanks in seen.items()
    }
    kept = {name: {"mm": one.value, "blanks": one.n, "spread": one.spread} for name, one in learned.items()}
    stores.put_setting(db(), "faces", {"learned": kept})

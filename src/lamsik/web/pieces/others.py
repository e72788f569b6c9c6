"""A float or a blade that is made: its drawing, what it should weigh, its steps."""

from dataclasses import dataclass
from typing import Any

from lamsik.core.floats.design import own_mass_g
from lamsik.core.floats.parts import mass_g
from lamsik.core.route.others import body_of
from lamsik.core.shapes.sources import Source
from lamsik.documents.blades.document import blade_of
from lamsik.documents.floats.document import to_float
from lamsik.drawings import blade as blade_drawings
from lamsik.drawings import floats as float_drawings
from lamsik.drawings.svg import Node
from lamsik.store import pieces
from lamsik.store.pieces import Reading
from lamsik.store.tables import Document, Piece
from lamsik.web.pieces.bench import StepRow, rows_of
from lamsik.web.shared.db import db
from lamsik.web.shared.whole import WAYS


@dataclass(frozen=True)
class OtherView:
    """All that the page of a float or a blade at the bench shows.

    `page` and `undo` are the endpoints of what it is made from and of bringing that back.
    """

    piece: Piece
    row: Document
    name: str
    picture: Node
    source: Source
    rows: tuple[StepRow, ...]
    readings: dict[str, Reading]
    page: str
    undo: str


def view(piece: Piece, row: Document) -> OtherView:
    """A float or a blade with what was weighed of it."""
    content: dict[str, Any] = dict(pieces.document_of(db(), piece))
    if row.kind == "float":
        design = to_float(content)
        name, picture = design.name, float_drawings.thumbnail(design)
        masses = {"carved": mass_g(body_of(design)), "cleared": own_mass_g(design)}
        source = Source(**content["source"]) if content.get("source") else Source()
    else:
        blade = blade_of(content)
        name, picture, masses = blade.name, blade_drawings.picture(blade), {"carved": blade.mass_g}
        source = Source(blade.source, blade.source_note)
    readings = pieces.readings(db(), piece)
    page, _, undo = WAYS[row.kind]
    rows = rows_of(piece, readings, masses.get)
    return OtherView(piece, row, name, picture, source, rows, readings, page, undo)

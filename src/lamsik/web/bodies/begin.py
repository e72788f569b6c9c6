"""A new design from a form, for the Shapes bench and for what is ordered."""

from lamsik.core.materials import body_material
from lamsik.core.shapes.design import Want, host_of
from lamsik.core.shapes.forms import form
from lamsik.core.water import Water
from lamsik.store import documents
from lamsik.store.tables import Document
from lamsik.web.shared.db import db


def begin(
    name: str,
    form_key: str,
    wood: str,
    want: Want,
    length_mm: float | None = None,
    water: Water | None = None,
) -> Document:
    """Keep a new design: the form at its own proportions, at another length if given."""
    start, material = form(form_key), body_material(wood)
    scale = (length_mm or start.length_mm) / start.length_mm
    sizes = (start.length_mm * scale, round(start.depth_mm * scale, 1), round(start.width_mm * scale, 1))
    host = host_of(material)
    return documents.new(
        db(),
        "body",
        name=name,
        start=start,
        host=host,
        water=water or Water(),
        want=want,
        sizes_mm=sizes,
    )

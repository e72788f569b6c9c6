"""Edits of a body: what follows from a field that is set, starting forms, materials, schemes; and what a
body document says of itself.
"""

from collections.abc import Mapping
from dataclasses import asdict
from typing import Any

from lamsik.core.errors import Refused, rule
from lamsik.core.materials import body_material
from lamsik.core.shapes.catalogue import Catalogue
from lamsik.core.shapes.design import Design, host_of
from lamsik.core.shapes.forms import form
from lamsik.core.shapes.scaling import with_length
from lamsik.core.trade.behaviours import BEHAVIOURS
from lamsik.documents.body import edits_parts, edits_shape, edits_tank, paint
from lamsik.documents.body.document import MOST_BYTES, body_block, new_document, to_design, with_design
from lamsik.documents.body.shape import BODY_SCHEMA
from lamsik.documents.engine import Kind, Reference
from lamsik.documents.rows import Document
from lamsik.documents.schemes.document import TEXTS, locked_layer
from lamsik.documents.typed import Edit, word


def _before_set(document: Document, path: str, text: str, catalogue: Catalogue) -> None:
    """A part stays what it is, and what follows from the shape is not typed."""
    if path.rpartition(".")[2] == "kind" and not path.startswith(("joints.", "source.")):
        raise Refused(path, text, rule("keeps-kind-part"))
    if path in ("body.upper_exponent", "body.lower_exponent") and (
        document["body"]["mesh"] or document["body"]["turned"]
    ):
        raise Refused(path, None, rule("mesh-or-round-section"))


def _chosen(document: Document, path: str, catalogue: Catalogue) -> Document:
    """A behaviour that has a name brings its usual speed."""
    name = document["want"]["behaviour"]
    if path == "want.behaviour" and name in BEHAVIOURS:
        document["want"]["speed_cm_s"] = BEHAVIOURS[name].speed_cm_s
    return paint.noted(document, path)


def _measured(document: Document, path: str, before: Document, catalogue: Catalogue) -> Document:
    """A length takes all that sits on the body along; a figure that was typed says so."""
    if path == "body.length_mm":
        length, document["body"] = document["body"]["length_mm"], before
        document = with_design(document, with_length(to_design(document), length))
    if path == "material.density_g_cm3":
        document["material"]["source"] = "typed"
    if path == "drag":
        document["drag_source"] = "shop" if document["drag"] is None else "typed"
    return paint.noted(document, path)


def _form(document: Document, edit: Mapping[str, Any], catalogue: Catalogue) -> Document:
    start = form(word(edit, "form"))
    document["form"], document["purpose"] = start.key, start.purpose
    document["body"] = body_block(start, start.length_mm, start.depth_mm, start.width_mm)
    document["hardware"] = [
        {**row, "x_mm": min(row["x_mm"], start.length_mm)} for row in document["hardware"]
    ]
    for group in ("ballast", "cavities", "trials"):
        document[group] = [row for row in document[group] if row["x_mm"] < start.length_mm]
    document["joints"], document["segments"], document["shell"] = [], [], None
    document["pours"] = [row for row in document["pours"] if row["to_mm"] <= start.length_mm]
    return document


def _material(document: Document, edit: Mapping[str, Any], catalogue: Catalogue) -> Document:
    material = body_material(word(edit, "name"))
    document["material"] = asdict(host_of(material))
    document["typed"].pop("material.density_g_cm3", None)
    return document


def _removed(document: Document, group: str, row: Document) -> Document:
    document = edits_parts.removed(document, group, row)
    return paint.left_out(document, row) if group == paint.GROUP else document


def _design(document: Document, edit: Edit, catalogue: Catalogue) -> Design:
    if word(edit, "path") == "body.length_mm":  # it takes all that sits on the body along
        BODY_SCHEMA.checked(document)
    return to_design(document)


BODY: Kind[Catalogue, Design] = Kind(
    name="body",
    stem="B",
    schema=BODY_SCHEMA,
    most_bytes=MOST_BYTES,
    begins=new_document,
    value=_design,
    refers=(Reference("scheme", "scheme"),),
    acts={
        "form": _form,
        "material": _material,
        "scheme": paint.lay,
        "as_in_scheme": paint.as_in_scheme,
        "hang": edits_parts.hang,
        "swap": edits_parts.swap,
        "lip": edits_parts.lip,
        "slug": edits_parts.slug,
        "pair": edits_parts.pair,
        **edits_shape.EDITS,
        **edits_tank.EDITS,
    },
    groups=("hardware", "ballast", "layers", "allowances", "pours", "cavities", "trials", "joints"),
    singles=("lip",),
    texts=("behaviour", "by", "roll", "place", "fill", *TEXTS),
    empties=("drag", "measured_g_cm3", "solid_g_cm3", "face_mm", "up_mm"),
    whole=("count", "passes", "seed"),
    flags=("pierced",),
    before_set=_before_set,
    chosen=_chosen,
    measured=_measured,
    removed=_removed,
    locked=locked_layer,
)

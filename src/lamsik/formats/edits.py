"""Edits to a body document, as the screens send them: typed text, or something taken from the shop.

An edit never leaves a document half changed: it returns a new, checked one or raises `Refused`.
"""

from collections.abc import Callable, Mapping
from dataclasses import asdict
from typing import Any

from lamsik.core import units
from lamsik.core.errors import Refused
from lamsik.core.materials import body_material
from lamsik.core.shapes.catalogue import Catalogue
from lamsik.core.shapes.design import Design, Host
from lamsik.core.shapes.forms import form
from lamsik.core.shapes.scaling import with_length
from lamsik.core.tank.motion import TYPICAL_SPEED_CM_S
from lamsik.formats import edits_parts, edits_shape, edits_tank
from lamsik.formats.amounts import amount, is_empty, note_typed
from lamsik.formats.body_document import Document, body_block, check_field, checked, to_design, with_design
from lamsik.formats.edit_tools import holder_of, take
from lamsik.formats.json_text import copied

QUANTITY_BY_ENDING = {
    "_g_cm3": "density",
    "_cm_s": "speed",
    "_m_s": "pace",
    "_percent": "percent",
    "_s": "seconds",
    "_m": "distance",
    "_deg": "angle",
    "_mm": "length",
    "_um": "thickness",
    "_psu": "salinity",
    "_c": "temperature",
    "_g": "mass",
    "_h": "time",
    "_ml": "volume",
}
"""Which quantity a field holds, by the unit at the end of its name; others are plain numbers."""

_TEXT_FIELDS = ("name", "colour", "note", "behaviour", "by", "roll", "place", "kind", "outline", "fill")
_MAY_BE_EMPTY = ("drag", "measured_g_cm3", "solid_g_cm3", "face_mm", "up_mm")


def quantity_of(path: str) -> str:
    """The quantity of a field path: `body.length_mm` holds a length."""
    return next((kind for ending, kind in QUANTITY_BY_ENDING.items() if path.endswith(ending)), "number")


def apply(document: Document, edit: Mapping[str, Any], catalogue: Catalogue) -> Document:
    """The document after one edit `{"do": …}`; see `EDITS` for what can be done.

    Raises:
        Refused: unknown edit, unreadable text, or a value that is not allowed.
    """
    return applied(document, edit, catalogue)[0]


def applied(document: Document, edit: Mapping[str, Any], catalogue: Catalogue) -> tuple[Document, Design]:
    """The document after one edit, and the design it describes; `Refused` as `apply`."""
    name = edit.get("do")
    if not isinstance(name, str) or name not in EDITS:
        raise Refused("do", name, f"one of {', '.join(EDITS)}")
    changed = EDITS[name](copied(document), edit, catalogue)
    path = str(edit.get("path", ""))
    if name == "set" and path != "body.length_mm":
        holder, leaf = holder_of(changed, path)
        check_field(path, holder[leaf])
    else:
        checked(changed)
    return changed, to_design(changed)


def _set(document: Document, edit: Mapping[str, Any], catalogue: Catalogue) -> Document:
    path, text = str(edit.get("path", "")), str(edit.get("text", ""))
    holder, leaf = holder_of(document, path)
    if leaf == "kind" and not path.startswith(("joints.", "source.")):
        raise Refused(path, text, "a part keeps its kind: take it off and put another on")
    if leaf in _TEXT_FIELDS:
        holder[leaf] = text.strip()
        return _named_behaviour(document, path)
    if leaf in _MAY_BE_EMPTY and is_empty(edit):
        holder[leaf] = None
        document["typed"].pop(path, None)
        return _with_source(document, path)
    if path in ("body.upper_exponent", "body.lower_exponent") and (
        document["body"]["mesh"] or document["body"]["turned"]
    ):
        raise Refused(path, None, "the section is that of the mesh, or round: it is not set here")
    kind = quantity_of(path)
    shown = "in" if edit.get("unit") == "in" and kind == "length" else units.STORED[kind]
    value = amount(edit, kind, path, shown)
    if path == "body.length_mm":
        document = with_design(document, with_length(to_design(document), value))
    else:
        holder[leaf] = value if leaf != "count" else int(value)
    note_typed(document, edit, path)
    return _with_source(document, path)


def _with_source(document: Document, path: str) -> Document:
    """A figure that was typed says so."""
    if path == "material.density_g_cm3":
        document["material"]["source"] = "typed"
    if path == "drag":
        document["drag_source"] = "shop" if document["drag"] is None else "typed"
    return document


def _named_behaviour(document: Document, path: str) -> Document:
    name = document["want"]["behaviour"]
    if path == "want.behaviour" and name in TYPICAL_SPEED_CM_S:
        document["want"]["speed_cm_s"] = TYPICAL_SPEED_CM_S[name]
    return document


def _form(document: Document, edit: Mapping[str, Any], catalogue: Catalogue) -> Document:
    start = form(str(edit.get("form")))
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
    found = body_material(str(edit.get("name")))
    document["material"] = asdict(Host(found.name, found.density_g_cm3, found.spread_g_cm3, found.kind))
    document["typed"].pop("material.density_g_cm3", None)
    return document


def _scheme(document: Document, edit: Mapping[str, Any], catalogue: Catalogue) -> Document:
    code = str(edit.get("code"))
    document["coats"] = [asdict(coat) for coat in take(catalogue.schemes, code, "scheme")]
    document["scheme"] = code
    return document


EDITS: dict[str, Callable[[Document, Mapping[str, Any], Catalogue], Document]] = {
    "set": _set,
    "form": _form,
    "material": _material,
    "scheme": _scheme,
    "hang": edits_parts.hang,
    "swap": edits_parts.swap,
    "remove": edits_parts.remove,
    "lip": edits_parts.lip,
    "slug": edits_parts.slug,
    "pair": edits_parts.pair,
    **edits_shape.EDITS,
    **edits_tank.EDITS,
}
"""Everything an edit can do, by name."""

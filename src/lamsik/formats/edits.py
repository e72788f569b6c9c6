"""Edits to a body document, as the screens send them: typed text, or something taken from the shop.

An edit never leaves a document half changed: it returns a new, checked one or raises `Refused`.
"""

import copy
from collections.abc import Callable, Mapping
from dataclasses import asdict, replace
from typing import Any

from lamsik.core import units
from lamsik.core.errors import Refused, finite_between
from lamsik.core.materials import body_material
from lamsik.core.shapes.ballast_holes import Slug
from lamsik.core.shapes.catalogue import Catalogue
from lamsik.core.shapes.design import Host, Want
from lamsik.core.shapes.forms import form
from lamsik.core.shapes.hardware import SEATS, Item, Lip, Placement
from lamsik.core.shapes.scaling import with_length
from lamsik.core.tank.motion import TYPICAL_SPEED_CM_S
from lamsik.formats.body_document import Document, body_block, check_field, checked, hardware_row, to_design, with_design

QUANTITY_BY_ENDING = {
    "_g_cm3": "density", "_cm_s": "speed", "_deg": "angle", "_mm": "length", "_um": "thickness",
    "_psu": "salinity", "_c": "temperature", "_g": "mass", "_h": "time",
}  # fmt: skip
"""Which quantity a field holds, by the unit at the end of its name; others are plain numbers."""

_TEXT_FIELDS = ("name", "colour", "note", "behaviour")


def quantity_of(path: str) -> str:
    """The quantity of a field path: `body.length_mm` holds a length."""
    return next((kind for ending, kind in QUANTITY_BY_ENDING.items() if path.endswith(ending)), "number")


def apply(document: Document, edit: Mapping[str, Any], catalogue: Catalogue) -> Document:
    """The document after one edit `{"do": …}`; see `EDITS` for what can be done.

    Raises:
        Refused: unknown edit, unreadable text, or a value that is not allowed.
    """
    name = edit.get("do")
    if not isinstance(name, str) or name not in EDITS:
        raise Refused("do", name, f"one of {', '.join(EDITS)}")
    changed = EDITS[name](copy.deepcopy(document), edit, catalogue)
    path = str(edit.get("path", ""))
    if name == "set" and path != "body.length_mm":
        holder, leaf = _holder(changed, path)
        check_field(path, holder[leaf])
    else:
        checked(changed)
    to_design(changed)
    return changed


def _set(document: Document, edit: Mapping[str, Any], catalogue: Catalogue) -> Document:
    path, text = str(edit.get("path", "")), str(edit.get("text", ""))
    holder, leaf = _holder(document, path)
    if leaf in _TEXT_FIELDS:
        holder[leaf] = text.strip()
        return _named_behaviour(document, path)
    kind = quantity_of(path)
    shown = "in" if edit.get("unit") == "in" and kind == "length" else units.STORED[kind]
    value = units.parse(text, kind, path, None if kind == "temperature" else shown).value
    if path == "body.length_mm":
        document = with_design(document, with_length(to_design(document), value))
    else:
        holder[leaf] = value if leaf != "count" else int(value)
    if path == "material.density_g_cm3":
        document["material"]["source"] = "typed"
    document["typed"][path] = text.strip()[:40]
    return document


def _named_behaviour(document: Document, path: str) -> Document:
    name = document["want"]["behaviour"]
    if path == "want.behaviour" and name in TYPICAL_SPEED_CM_S:
        document["want"]["speed_cm_s"] = TYPICAL_SPEED_CM_S[name]
    return document


def _holder(document: Document, path: str) -> tuple[Document, str]:
    """The object that holds a field; list rows are named by their key (`ballast.b1.x_mm`)."""
    here: Any = document
    *steps, leaf = path.split(".")
    for step in steps:
        found = here.get(step) if isinstance(here, dict) else next((row for row in here if row["key"] == step), None)
        if found is None:
            raise Refused(path, step, "no such part on this design")
        here = found
    if not isinstance(here, dict) or leaf not in here or isinstance(here[leaf], dict | list):
        raise Refused(path, leaf, "no such field on this design")
    return here, leaf


def _take(table: Mapping[str, Any], code: object, field_name: str) -> Any:
    if str(code) not in table:
        raise Refused(field_name, code, "not in Stores; add it there first")
    return table[str(code)]


def _free_key(taken: list[str], stem: str) -> str:
    return next(f"{stem}{n}" for n in range(1, 200) if f"{stem}{n}" not in taken)


def _hang(document: Document, edit: Mapping[str, Any], catalogue: Catalogue) -> Document:
    item: Item = _take(catalogue.items, edit.get("code"), "code")
    seat = str(edit.get("seat") or "belly")
    if seat not in SEATS:
        raise Refused("seat", seat, f"one of {', '.join(SEATS)}")
    rows = document["hardware"]
    key = _free_key([row["key"] for row in rows], item.kind.replace("_", ""))
    length = document["body"]["length_mm"]
    place = finite_between("x_mm", edit.get("x_mm") or 0.42 * length, 0.0, 600.0, "mm")
    x = {"nose": 0.0, "tail": length}.get(seat, place)
    hung_on = _free_eye(rows, item.kind) if item.kind in ("ring", "hook") else None
    rows.append(hardware_row(Placement(key, item, seat, x, hung_on)))
    return document


def _free_eye(rows: list[Document], kind: str) -> str:
    """The first eye nothing hangs on: rings go on hangers, hooks on rings or else on hangers."""
    taken = {row["hung_on"] for row in rows}
    order = ("hanger",) if kind == "ring" else ("ring", "hanger")
    free = [row["key"] for wanted in order for row in rows if row["kind"] == wanted and row["key"] not in taken]
    if not free:
        raise Refused("hung_on", kind, f"no free {'hanger' if kind == 'ring' else 'ring or hanger'}: add one first")
    return str(free[0])


def _swap(document: Document, edit: Mapping[str, Any], catalogue: Catalogue) -> Document:
    item: Item = _take(catalogue.items, edit.get("code"), "code")
    row, _ = _holder(document, f"hardware.{edit.get('key')}.mass_g")
    row.update(asdict(item))
    return document


def _remove(document: Document, edit: Mapping[str, Any], catalogue: Catalogue) -> Document:
    group, key = str(edit.get("group")), str(edit.get("key"))
    if group == "lip":
        document["lip"] = None
        return document
    if group not in ("hardware", "ballast", "coats"):
        raise Refused("group", group, "one of hardware, ballast, coats, lip")
    gone = {key}
    if group == "hardware":  # what hangs on it goes along
        for _ in range(3):
            gone |= {row["key"] for row in document["hardware"] if row["hung_on"] in gone}
    document[group] = [row for row in document[group] if row["key"] not in gone]
    return document


def _form(document: Document, edit: Mapping[str, Any], catalogue: Catalogue) -> Document:
    start = form(str(edit.get("form")))
    document["form"], document["purpose"] = start.key, start.purpose
    document["body"] = body_block(start, start.length_mm, start.depth_mm, start.width_mm)
    document["hardware"] = [{**row, "x_mm": min(row["x_mm"], start.length_mm)} for row in document["hardware"]]
    document["ballast"] = [row for row in document["ballast"] if row["x_mm"] < start.length_mm]
    return document


def _material(document: Document, edit: Mapping[str, Any], catalogue: Catalogue) -> Document:
    found = body_material(str(edit.get("name")))
    document["material"] = asdict(Host(found.name, found.density_g_cm3, found.spread_g_cm3, found.kind))
    document["typed"].pop("material.density_g_cm3", None)
    return document


def _lip(document: Document, edit: Mapping[str, Any], catalogue: Catalogue) -> Document:
    plate: Lip = _take(catalogue.lips, edit.get("code"), "code")
    document["lip"] = asdict(replace(plate, x_mm=round(0.075 * document["body"]["length_mm"], 1)))
    return document


def _slug(document: Document, edit: Mapping[str, Any], catalogue: Catalogue) -> Document:
    """One more slug on the belly, a plain start for dragging."""
    slug: Slug = _take(catalogue.slugs, edit.get("code"), "code")
    key = _free_key([row["key"] for row in document["ballast"]], "b")
    mass = slug.ball_g if slug.form == "ball" else 1.0
    place = 0.5 * document["body"]["length_mm"]
    hole = {"key": key, "slug": asdict(slug), "mass_g": round(mass, 2), "x_mm": place, "drill_mm": slug.diameter_mm, "cover_mm": 2.0, "filler_g_cm3": 1.15}
    document["ballast"].append(hole)
    return document


def _ballast(document: Document, edit: Mapping[str, Any], catalogue: Catalogue) -> Document:
    """Put a ballast answer on: its holes replace those there were."""
    document["ballast"] = edit.get("holes")
    return document


def _scheme(document: Document, edit: Mapping[str, Any], catalogue: Catalogue) -> Document:
    code = str(edit.get("code"))
    document["coats"] = [asdict(coat) for coat in _take(catalogue.schemes, code, "scheme")]
    document["scheme"] = code
    return document


def _water(document: Document, edit: Mapping[str, Any], catalogue: Catalogue) -> Document:
    document["water"] = asdict(_take(catalogue.waters, edit.get("name"), "water"))
    return document


def _want(document: Document, edit: Mapping[str, Any], catalogue: Catalogue) -> Document:
    name = str(edit.get("behaviour"))
    if name not in TYPICAL_SPEED_CM_S:
        raise Refused("want.behaviour", name, f"one of {', '.join(TYPICAL_SPEED_CM_S)}")
    document["want"] = asdict(Want(name, TYPICAL_SPEED_CM_S[name], document["want"]["pitch_deg"]))
    return document


EDITS: dict[str, Callable[[Document, Mapping[str, Any], Catalogue], Document]] = {
    "set": _set, "hang": _hang, "swap": _swap, "remove": _remove, "form": _form, "material": _material,
    "lip": _lip, "slug": _slug, "ballast": _ballast, "scheme": _scheme, "water": _water, "want": _want,
}  # fmt: skip
"""Everything an edit can do, by name."""

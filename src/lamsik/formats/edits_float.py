"""Edits of a float document, as the page sends them: typed measures, points of a profile, parts and marks
put on and taken off.
"""

from collections.abc import Callable, Mapping
from typing import Any

import numpy as np

from lamsik.core import units
from lamsik.core.errors import Refused, finite_between, one_of, require
from lamsik.core.floats.inverse import carried_mm, sized
from lamsik.core.floats.parts import KINDS, Part, profile
from lamsik.core.floats.shotting import ShotTable
from lamsik.core.materials import BODY_MATERIALS, METALS
from lamsik.core.water import Water
from lamsik.formats.amounts import amount, is_empty, note_typed
from lamsik.formats.edit_tools import free_key, holder_of
from lamsik.formats.edits import quantity_of
from lamsik.formats.float_document import Document, checked, part_row, to_float, with_float
from lamsik.formats.json_text import copied

Edit = Mapping[str, Any]
TEXTS = ("name", "kind", "family", "wanted_mark", "form", "telltale", "shots")
MAY_BE_EMPTY = ("mass_g", "measured_g_cm3")
GROUPS = ("parts", "marks", "tips")


def apply(
    document: Document, edit: Edit, waters: Mapping[str, Water], tables: Mapping[str, ShotTable] | None = None
) -> Document:
    """The document after one edit; `waters` and shot `tables` are the shop's by name. Raises `Refused`
    where it cannot be.
    """
    name = edit.get("do")
    if not isinstance(name, str) or name not in EDITS:
        raise Refused("do", name, f"one of {', '.join(EDITS)}")
    if name == "set" and tables is not None:
        _known(document, str(edit.get("path", "")), str(edit.get("text", "")).strip(), tables)
    return checked(EDITS[name](copied(document), edit, waters))


def _known(document: Document, path: str, text: str, tables: Mapping[str, ShotTable]) -> None:
    """A shot table or a tell-tale is one the shop has."""
    if path == "shots":
        one_of("shots", text, tables)
    if path == "telltale" and text:
        table = tables.get(str(document.get("shots", "")), next(iter(tables.values())))
        one_of("tell-tale", text, {shot.name: shot for shot in table.shots})


def _set(document: Document, edit: Edit, waters: Mapping[str, Water]) -> Document:
    path, text = str(edit.get("path", "")), str(edit.get("text", ""))
    if path.startswith("source."):
        source = {"kind": "own", "note": "", **document.get("source", {})}
        require(path in ("source.kind", "source.note"), "path", path, "source.kind or source.note")
        document["source"] = {**source, path.removeprefix("source."): text.strip()}
        return document
    for group in ("parts", "tips"):
        if path.startswith(f"{group}.") and path.endswith(".wall_mm"):
            _row(document, group, path.split(".")[1]).setdefault(
                "wall_mm", 0.0
            )  # files from before blind bores
    holder, leaf = holder_of(document, path)
    if leaf in TEXTS:
        holder[leaf] = text.strip()
        if leaf == "form" and text == "own" and not holder.get("points"):
            holder["points"] = _own_points(holder)
        return document
    if leaf in MAY_BE_EMPTY and is_empty(edit):
        holder[leaf] = None
        document["typed"].pop(path, None)
        return document
    kind = quantity_of(path)
    shown = "in" if edit.get("unit") == "in" and kind == "length" else units.STORED[kind]
    value = amount(edit, kind, path, shown)
    before = dict(holder)
    holder[leaf] = value
    note_typed(document, edit, path)
    if path.startswith(("parts.", "tips.")):
        Part(
            **{**holder, "points": tuple(tuple(point) for point in holder["points"])}
        )  # what is wrong with the part itself is said first
    if leaf == "length_mm" and path.startswith("parts.") and not holder["inside"]:
        _carry(document, before, value)
    return document


def _carry(document: Document, before: Document, length_mm: float) -> None:
    """What stood on a part stands on it again; what ran through it runs through it still."""
    top, shift = before["foot_mm"] + before["length_mm"], length_mm - before["length_mm"]
    for row in document["parts"]:
        if row["key"] == before["key"]:
            continue
        if row["foot_mm"] >= top - 1e-6:
            row["foot_mm"] += shift
        elif (
            row["foot_mm"] + row["length_mm"] >= top - 1e-6
            and before["kind"] == "body"
            and row["foot_mm"] <= before["foot_mm"] + 1e-6
        ):
            row["length_mm"] = max(row["length_mm"] + shift, 0.5)
    part = Part(**{**before, "points": tuple(tuple(point) for point in before["points"])})
    for mark in document["marks"]:
        mark["height_mm"] = carried_mm(mark["height_mm"], part, length_mm)


def _own_points(row: Document) -> list[list[float]]:
    """The part's standard profile as points of its own."""
    part = Part(**{**row, "form": "cylinder" if row["form"] == "own" else row["form"], "points": ()})
    heights, radii = profile(part)
    if len(heights) > 9:
        even = np.linspace(0.0, part.length_mm, 9)
        heights, radii = even, np.interp(even, heights, radii)
    return [
        [float(z / part.length_mm), float(r / (part.diameter_mm / 2))]
        for z, r in zip(heights, radii, strict=True)
    ]


def _point(document: Document, edit: Edit, waters: Mapping[str, Water]) -> Document:
    """Pull a point of a profile: its height over the foot (`value_mm`) and its radius (`x_mm`); a standard
    form becomes the maker's own.
    """
    row, at = (
        _row(document, "parts", edit.get("line")),
        int(finite_between("index", edit.get("index"), 0, 60)),
    )
    if row["form"] != "own":
        row["points"] = _own_points(row)
        row["form"] = "own"
    points = row["points"]
    require(at < len(points), "index", at, f"0 to {len(points) - 1}")
    height = finite_between(
        "value_mm", edit.get("value_mm", points[at][0] * row["length_mm"] + row["foot_mm"]), -1e4, 1e4, "mm"
    )
    if 0 < at < len(points) - 1:
        points[at][0] = min(
            max((height - row["foot_mm"]) / row["length_mm"], points[at - 1][0] + 0.01),
            points[at + 1][0] - 0.01,
        )
    radius = finite_between("x_mm", edit.get("x_mm", points[at][1] * row["diameter_mm"] / 2), -1e4, 1e4, "mm")
    points[at][1] = max(radius, 0.0) / (row["diameter_mm"] / 2)
    most = max(r for _, r in points)
    require(most > 0.01, "x_mm", radius, "pull it out: the part has no width left")
    row["diameter_mm"] = most * row["diameter_mm"]
    row["points"] = [[s, r / most] for s, r in points]
    return document


def _row(document: Document, group: str, key: object) -> Document:
    found: Document | None = next((row for row in document[group] if row["key"] == key), None)
    if found is None:
        raise Refused(group, key, f"one of {', '.join(row['key'] for row in document[group])}")
    return found


def _drop_point(document: Document, edit: Edit, waters: Mapping[str, Water]) -> Document:
    row = _row(document, "parts", edit.get("line"))
    at = int(finite_between("index", edit.get("index"), 0, 60))
    require(row["form"] == "own" and 0 < at < len(row["points"]) - 1, "index", at, "a point between the ends")
    del row["points"][at]
    return document


def _add_point(document: Document, edit: Edit, waters: Mapping[str, Water]) -> Document:
    """One more point in the longest stretch of a profile."""
    row = _row(document, "parts", edit.get("line"))
    points = row["points"] if row["form"] == "own" else _own_points(row)
    gap, at = max((b[0] - a[0], i) for i, (a, b) in enumerate(zip(points, points[1:], strict=False)))
    middle = [points[at][0] + gap / 2, (points[at][1] + points[at + 1][1]) / 2]
    row["points"], row["form"] = [*points[: at + 1], middle, *points[at + 1 :]], "own"
    return document


def _add(document: Document, edit: Edit, waters: Mapping[str, Water]) -> Document:
    """A part of a kind on the top, a mark at the top, or a tip for the box."""
    group, kind = str(edit.get("group", "parts")), str(edit.get("kind", "tip"))
    if group == "marks":
        top = to_float(document).top_mm
        document["marks"].append(
            {
                "key": free_key(document["marks"], "m"),
                "name": _free_name(document["marks"]),
                "height_mm": _free_height(document["marks"], top),
            }
        )
        return document
    require(group in GROUPS and kind in KINDS, "kind", kind, f"one of {', '.join(KINDS)}")
    top = 0.0 if group == "tips" or kind == "loading" else to_float(document).top_mm
    length, diameter, density = {
        "loading": (12.0, 6.0, 8.5),
        "bead": (6.0, 6.0, 0.5),
        "body": (40.0, 14.0, 0.16),
        "adapter": (25.0, 4.0, 1.1),
    }.get(kind, (40.0, 2.0, 0.65))
    form = "ball" if kind == "bead" else "cylinder"
    key = free_key(document[group], kind if group == "parts" else "t")
    document[group].append(
        part_row(
            Part(
                key,
                kind,
                kind,
                length,
                diameter,
                density,
                -length if kind == "loading" and group == "parts" else top,
                form=form,
            )
        )
    )
    return document


def _free_height(marks: list[Document], top: float) -> float:
    """Near the top, where no other mark's handle lies [mm]."""
    heights = [round(share * top, 1) for share in (0.9, 0.85, 0.8, 0.75, 0.7, 0.65, 0.6, 0.95)]
    return next(
        (height for height in heights if all(abs(height - row["height_mm"]) >= 0.03 * top for row in marks)),
        heights[0],
    )


def _free_name(marks: list[Document]) -> str:
    """`mark 3`, or the next that no other is called."""
    names = {row["name"] for row in marks}
    return next(name for n in range(len(marks) + 1, 99) if (name := f"mark {n}") not in names)


def _remove(document: Document, edit: Edit, waters: Mapping[str, Water]) -> Document:
    group, key = str(edit.get("group")), edit.get("key")
    require(group in GROUPS, "group", group, f"one of {', '.join(GROUPS)}")
    _row(document, group, key)
    document[group] = [row for row in document[group] if row["key"] != key]
    if group == "parts" and any(not row["inside"] for row in document["parts"]):  # marks stay on what is left
        low, high = (to_float({**document, "marks": []}).foot_mm, to_float({**document, "marks": []}).top_mm)
        document["marks"] = [
            {**mark, "height_mm": min(max(mark["height_mm"], low), high)} for mark in document["marks"]
        ]
    return document


def _material(document: Document, edit: Edit, waters: Mapping[str, Water]) -> Document:
    """Another wood or metal for a part."""
    row, name = _row(document, "parts", edit.get("key")), str(edit.get("name"))
    if name in BODY_MATERIALS:
        row["density_g_cm3"], row["spread_g_cm3"] = (
            BODY_MATERIALS[name].density_g_cm3,
            BODY_MATERIALS[name].spread_g_cm3,
        )
    elif name in METALS:
        row["density_g_cm3"], row["spread_g_cm3"] = METALS[name], 0.0
    else:
        raise Refused("material", name, f"known are {', '.join((*BODY_MATERIALS, *METALS))}")
    row["name"] = f"{str(row['name']).split(',')[0]}, {name}"
    document["typed"].pop(f"parts.{row['key']}.density_g_cm3", None)
    return document


def _flag(document: Document, edit: Edit, waters: Mapping[str, Water]) -> Document:
    holder, leaf = holder_of(document, str(edit.get("path", "")))
    require(
        leaf in ("sealed", "inside") and isinstance(edit.get("on"), bool),
        "path",
        leaf,
        "sealed or inside, true or false",
    )
    holder[leaf] = edit["on"]
    return document


def _water(document: Document, edit: Edit, waters: Mapping[str, Water]) -> Document:
    name = str(edit.get("name"))
    if name not in waters:
        raise Refused("water", name, f"the shop's are {', '.join(waters)}")
    found = waters[name]
    document["water"] = {
        "name": found.name,
        "temperature_c": found.temperature_c,
        "salinity_psu": found.salinity_psu,
        "measured_g_cm3": found.measured_g_cm3,
    }
    return document


def _size(document: Document, edit: Edit, waters: Mapping[str, Water]) -> Document:
    """Make it carry a load: by body length, diameter or loading."""
    wanted = units.parse(str(edit.get("text", "")), "mass", "load", "g").value
    return with_float(document, sized(to_float(document), wanted, str(edit.get("by", "length"))))


EDITS: dict[str, Callable[[Document, Edit, Mapping[str, Water]], Document]] = {
    "set": _set,
    "point": _point,
    "drop_point": _drop_point,
    "add_point": _add_point,
    "add": _add,
    "remove": _remove,
    "material": _material,
    "flag": _flag,
    "water": _water,
    "size": _size,
}
"""What can be done to a float, by name."""

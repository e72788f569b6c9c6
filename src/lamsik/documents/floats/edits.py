"""Edits of a float document, as the page sends them: typed measures, points of a profile, parts and marks
put on and taken off.
"""

from collections.abc import Mapping
from dataclasses import dataclass, field

import numpy as np

from lamsik.core.errors import Refused, finite_between, named, one_of, require, rule
from lamsik.core.floats.design import Float, Mark
from lamsik.core.floats.inverse import carried_mm, sized
from lamsik.core.floats.parts import KINDS, FloatPart, profile
from lamsik.core.floats.shotting import ShotTable
from lamsik.core.materials import BODY_MATERIALS, METALS
from lamsik.core.paints.layers import Layer
from lamsik.core.paints.other_skins import laid_on_other, skin_of_float
from lamsik.core.paints.roles import CLEARS, FITTED
from lamsik.core.quantities import read_measure
from lamsik.core.water import Water
from lamsik.documents.adding import adding, between_neighbours, index_of, taking, without_point
from lamsik.documents.engine import Kind, Reference
from lamsik.documents.floats.document import (
    FLOAT_SCHEMA,
    MOST_BYTES,
    blank,
    brought_in,
    read,
    to_float,
    with_float,
)
from lamsik.documents.rows import Document, holder_of, row_of, take
from lamsik.documents.typed import Edit, word
from lamsik.documents.values import row_of as kept
from lamsik.documents.values import value_of

GROUPS = ("parts", "marks", "tips")
BY_HAND = "-"
"""What a float is painted by whose paint is typed."""


@dataclass(frozen=True)
class Shop:
    """What a float takes from the shop, by name: its waters, where they are at hand its shot tables, and the
    layers and versions of its paint schemes by code.
    """

    waters: Mapping[str, Water]
    tables: Mapping[str, ShotTable] | None = None
    schemes: Mapping[str, tuple[Layer, ...]] = field(default_factory=dict)
    versions: Mapping[str, int] = field(default_factory=dict)


def _before_set(document: Document, path: str, text: str, shop: Shop) -> None:
    """A shot table or a tell-tale is one the shop has."""
    if shop.tables is None:
        return
    if path == "shots":
        one_of("shots", text, shop.tables)
    if path == "telltale" and text:
        table = shop.tables.get(str(document.get("shots", "")), next(iter(shop.tables.values())))
        one_of("tell-tale", text, {shot.name: shot for shot in table.shots})


def _chosen(document: Document, path: str, shop: Shop) -> Document:
    """A part whose profile becomes its own begins from the one it had."""
    holder, leaf = holder_of(document, path)
    if leaf == "form" and holder[leaf] == "own" and not holder.get("points"):
        holder["points"] = _own_points(holder)
    return document


def _measured(document: Document, path: str, before: Document, shop: Shop) -> Document:
    """What is wrong with a part itself is said first; a length takes along what stood on it."""
    holder, leaf = holder_of(document, path)
    if path.startswith(("parts.", "tips.")):
        value_of(FloatPart, holder)
    if leaf == "length_mm" and path.startswith("parts.") and not holder["inside"]:
        _carry(document, before, holder["length_mm"])
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
    part = value_of(FloatPart, before)
    for mark in document["marks"]:
        mark["height_mm"] = carried_mm(mark["height_mm"], part, length_mm)


def _own_points(row: Document) -> list[list[float]]:
    """The part's standard profile as points of its own."""
    part = FloatPart(**{**row, "form": "cylinder" if row["form"] == "own" else row["form"], "points": ()})
    heights, radii = profile(part)
    if len(heights) > 9:
        even = np.linspace(0.0, part.length_mm, 9)
        heights, radii = even, np.interp(even, heights, radii)
    return [
        [float(z / part.length_mm), float(r / (part.diameter_mm / 2))]
        for z, r in zip(heights, radii, strict=True)
    ]


def _point(document: Document, edit: Edit, shop: Shop) -> Document:
    """Pull a point of a profile: its height over the foot (`value_mm`) and its radius (`x_mm`); a standard
    form becomes the maker's own.
    """
    row = row_of(document, "parts", edit.get("line"))
    if row["form"] != "own":
        row["points"] = _own_points(row)
        row["form"] = "own"
    points = row["points"]
    at = index_of(points, edit)
    there = points[at][0] * row["length_mm"] + row["foot_mm"]
    height = finite_between("value_mm", edit.get("value_mm", there), -1e4, 1e4, "mm")
    points[at][0] = between_neighbours(points, at, (height - row["foot_mm"]) / row["length_mm"], 0.01)
    radius = finite_between("x_mm", edit.get("x_mm", points[at][1] * row["diameter_mm"] / 2), -1e4, 1e4, "mm")
    points[at][1] = max(radius, 0.0) / (row["diameter_mm"] / 2)
    most = max(r for _, r in points)
    require(most > 0.01, "x_mm", radius, rule("width-left"))
    row["diameter_mm"] = most * row["diameter_mm"]
    row["points"] = [[s, r / most] for s, r in points]
    return document


def _drop_point(document: Document, edit: Edit, shop: Shop) -> Document:
    row = row_of(document, "parts", edit.get("line"))
    row["points"] = without_point(row["points"] if row["form"] == "own" else _own_points(row), edit)
    row["form"] = "own"
    return document


def _add_point(document: Document, edit: Edit, shop: Shop) -> Document:
    """One more point in the longest stretch of a profile."""
    row = row_of(document, "parts", edit.get("line"))
    points = row["points"] if row["form"] == "own" else _own_points(row)
    gap, at = max((b[0] - a[0], i) for i, (a, b) in enumerate(zip(points, points[1:], strict=False)))
    middle = [points[at][0] + gap / 2, (points[at][1] + points[at + 1][1]) / 2]
    row["points"], row["form"] = [*points[: at + 1], middle, *points[at + 1 :]], "own"
    return document


def _add(document: Document, edit: Edit, shop: Shop) -> Document:
    """A part of a kind on the top, a mark near the top, or a tip for the box."""
    group, kind = word(edit, "group", "parts"), word(edit, "kind", "tip")
    one_of("kind", kind, dict.fromkeys(KINDS))
    stem = {"parts": kind, "marks": "m", "tips": "t"}
    return adding(group, one_of("group", group, stem), _new)(document, edit, shop)


def _new(document: Document, edit: Edit, shop: Shop, key: str) -> FloatPart | Mark:
    group, kind = word(edit, "group", "parts"), word(edit, "kind", "tip")
    top = to_float(document).top_mm
    if group == "marks":
        return Mark(_free_name(document["marks"]), _free_height(document["marks"], top), key)
    length, diameter, density = {
        "loading": (12.0, 6.0, 8.5),
        "bead": (6.0, 6.0, 0.5),
        "body": (40.0, 14.0, 0.16),
        "adapter": (25.0, 4.0, 1.1),
    }.get(kind, (40.0, 2.0, 0.65))
    foot = 0.0 if group == "tips" else -length if kind == "loading" else top
    form = "ball" if kind == "bead" else "cylinder"
    return FloatPart(key, kind, kind, length, diameter, density, foot, form=form)


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


def _removed(document: Document, group: str, row: Document) -> Document:
    """Marks stay on what is left."""
    if group == "parts" and any(not other["inside"] for other in document["parts"]):
        bare = to_float({**document, "marks": []})
        document["marks"] = [
            {**mark, "height_mm": min(max(mark["height_mm"], bare.foot_mm), bare.top_mm)}
            for mark in document["marks"]
        ]
    return document


def _material(document: Document, edit: Edit, shop: Shop) -> Document:
    """Another wood or metal for a part."""
    row, name = row_of(document, "parts", edit.get("key")), word(edit, "name")
    if name in BODY_MATERIALS:
        row["density_g_cm3"], row["spread_g_cm3"] = (
            BODY_MATERIALS[name].density_g_cm3,
            BODY_MATERIALS[name].spread_g_cm3,
        )
    elif name in METALS:
        row["density_g_cm3"], row["spread_g_cm3"] = METALS[name], 0.0
    else:
        raise Refused("material", name, named((*BODY_MATERIALS, *METALS)))
    row["name"] = f"{str(row['name']).split(',')[0]}, {name}"
    document["typed"].pop(f"parts.{row['key']}.density_g_cm3", None)
    return document


def _size(document: Document, edit: Edit, shop: Shop) -> Document:
    """Make it carry a load: by body length, diameter or loading."""
    wanted = read_measure(word(edit, "text"), "mass", "load")
    return with_float(document, sized(to_float(document), wanted, word(edit, "by", "length")))


def _scheme(document: Document, edit: Edit, shop: Shop) -> Document:
    """Painted by a scheme: its bands and its tip lie on this float's skin, what they weigh is its paint, what
    its clears weigh its varnish. Eyes are no part of a float. By none: what it weighs stays.
    """
    code = word(edit, "code")
    if code == BY_HAND:
        return {**document, **_unpainted()}
    layers = take(shop.schemes, code, "scheme")
    rows = laid_on_other(layers, skin_of_float(to_float(document)))
    dry = {"paint_g": 0.0, "varnish_g": 0.0}
    for layer, on in rows:
        if layer.does != FITTED:
            dry["varnish_g" if layer.does == CLEARS else "paint_g"] += on.mass_g
    for name, mass in dry.items():
        document[name] = round(mass, 4)
        document["typed"].pop(name, None)
    painted = {"scheme": code, "scheme_version": shop.versions.get(code, 0), "layers": kept(layers)}
    return {**document, **painted}


def _unpainted() -> Document:
    """What a float has whose paint is typed."""
    return {"scheme": "", "scheme_version": 0, "layers": []}


FLOAT: Kind[Shop, Float] = Kind(
    name="float",
    stem="F",
    schema=FLOAT_SCHEMA,
    most_bytes=MOST_BYTES,
    read=brought_in,
    begins=blank,
    value=lambda document, _edit, _shop: read(document),
    refers=(Reference("shots", "shots", "name"), Reference("scheme", "scheme")),
    acts={
        "point": _point,
        "drop_point": _drop_point,
        "add_point": _add_point,
        "add": _add,
        "material": _material,
        "water": taking("water", "waters", "name", "water"),
        "size": _size,
        "scheme": _scheme,
    },
    groups=GROUPS,
    texts=("name", "kind", "family", "wanted_mark", "form", "telltale", "shots", "note"),
    empties=("mass_g", "measured_g_cm3"),
    flags=("sealed", "inside"),
    before_set=_before_set,
    chosen=_chosen,
    measured=_measured,
    removed=_removed,
)

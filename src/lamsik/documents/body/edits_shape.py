"""Edits of the shape itself: points of its lines, mirroring, scaling, joints, segments, hollow bodies."""

from collections.abc import Callable
from dataclasses import asdict

import numpy as np

from lamsik.core.errors import Refused, Within, finite_between, named, rule
from lamsik.core.materials import BODY_MATERIALS, body_material
from lamsik.core.quantities import read_measure
from lamsik.core.shapes.body import Body, station
from lamsik.core.shapes.catalogue import Catalogue
from lamsik.core.shapes.curves import phi_of_share
from lamsik.core.shapes.design import Host
from lamsik.core.shapes.hardware import Lip
from lamsik.core.shapes.hollow import Shell
from lamsik.core.shapes.joints import Joint
from lamsik.core.shapes.scaling import scaled, to_volume
from lamsik.documents.adding import adding, between_neighbours, index_of, without_point
from lamsik.documents.body.document import to_design, with_design
from lamsik.documents.rows import Document, take
from lamsik.documents.typed import Edit, word

LINES = {"top": "depth_mm", "bottom": "depth_mm", "half_width": "width_mm", "widest": "depth_mm"}
"""Lines that are drawn through points, and the measure their shares are of."""

MOST_POINTS, LEAST_GAP = 60, 0.004
MIRRORS = ("belly", "back", "ends")


def _line(document: Document, edit: Edit) -> tuple[Document, str, float]:
    """The body's block, the key of the named line and the measure its shares are of."""
    block, line = document["body"], word(edit, "line")
    if block["mesh"]:
        raise Refused("line", line, rule("mesh-keeps-lines"))
    if line not in LINES or block[f"{line}_shares"] is None:
        raise Refused("line", line, named(name for name in LINES if block[f"{name}_shares"]))
    if block["turned"] and line != "half_width":
        raise Refused("line", line, rule("turned-has-one-line"))
    return block, f"{line}_shares", float(block[LINES[line]])


def _point(document: Document, edit: Edit, catalogue: Catalogue) -> Document:
    """Move one point; the ends keep their place along the body, no point passes its neighbours."""
    block, name, size = _line(document, edit)
    points = block[name]
    at = index_of(points, edit)
    share = _given(edit, "x", points[at][0] * block["length_mm"]) / block["length_mm"]
    share = between_neighbours(points, at, share, LEAST_GAP)
    value = _given(edit, "value", points[at][1] * size)
    points[at] = [share, max(value, 0.0) / size if name == "half_width_shares" else value / size]
    return fitted(document)


def _given(edit: Edit, name: str, now_mm: float) -> float:
    """A coordinate of a point [mm]: dragged as a number, typed as text, or as it is."""
    if isinstance(edit.get(f"{name}_text"), str):
        return read_measure(edit[f"{name}_text"], "length", name)
    return finite_between(f"{name}_mm", edit.get(f"{name}_mm", now_mm), -1e4, 1e4, "mm")


def _add_point(document: Document, edit: Edit, catalogue: Catalogue) -> Document:
    """One more point on a line, where it runs already."""
    block, name, size = _line(document, edit)
    share = finite_between("x_mm", edit.get("x_mm"), 0.0, block["length_mm"], "mm") / block["length_mm"]
    points = block[name]
    if len(points) >= MOST_POINTS:
        raise Refused("line", len(points), rule("at-most-points", most=MOST_POINTS))
    if min(abs(share - p[0]) for p in points) < LEAST_GAP:
        raise Refused("x_mm", edit.get("x_mm"), rule("point-there"))
    curve = getattr(to_design(document).body, name.removesuffix("_shares"))
    value = float(curve.at(phi_of_share(np.array([share])))[0])
    block[name] = sorted([*points, [share, value / size]])
    return fitted(document)


def _drop_point(document: Document, edit: Edit, catalogue: Catalogue) -> Document:
    """Take a point off a line; its ends stay."""
    block, name, _ = _line(document, edit)
    block[name] = without_point(block[name], edit)
    return fitted(document)


def _exponent(document: Document, edit: Edit, catalogue: Catalogue) -> Document:
    """Pull the section's diagonal out or in at a station: y = a·2^(−1/n) there."""
    block, half = document["body"], word(edit, "half")
    if half not in ("upper", "lower") or block["mesh"] or block["turned"]:
        raise Refused("half", half, rule("drawn-half"))
    here = station(
        to_design(document).body, finite_between("x_mm", edit.get("x_mm"), 0.0, block["length_mm"], "mm")
    )
    share = finite_between("reach_mm", edit.get("reach_mm"), 0.0, 300.0, "mm") / max(here.half_width_mm, 1e-6)
    n = np.log(2) / -np.log(min(max(share, 0.5), 0.9438))
    block[f"{half}_exponent"] = round(float(min(max(n, 1.0), 12.0)), 2)
    document["typed"].pop(f"body.{half}_exponent", None)
    return document


def _flag(edit: Edit) -> bool:
    if not isinstance(edit.get("on"), bool):
        raise Refused("on", edit.get("on"), rule("true-or-false"))
    return bool(edit["on"])


def _widest(document: Document, edit: Edit, catalogue: Catalogue) -> Document:
    """Give the widest line points of its own, or let it lie in the middle again."""
    block, on = document["body"], _flag(edit)
    if block["mesh"] or block["turned"]:
        raise Refused("widest", on, rule("widest-of-drawn"))
    block["widest_shares"] = None
    if on:
        shares = np.linspace(0.0, 1.0, 6)
        middle = to_design(document).body.widest_at(phi_of_share(shares)) / block["depth_mm"]
        block["widest_shares"] = [[float(s), float(v)] for s, v in zip(shares, middle, strict=True)]
    return document


def _turned(document: Document, edit: Edit, catalogue: Catalogue) -> Document:
    """Make it a turned body, round all along, or free its lines again."""
    block = document["body"]
    if block["mesh"]:
        raise Refused("turned", edit.get("on"), rule("mesh"))
    block["turned"] = _flag(edit)
    block["widest_shares"] = None
    if not block["turned"]:
        block["top_shares"] = [list(p) for p in block["half_width_shares"]]
        block["bottom_shares"] = [[s, -v] for s, v in block["half_width_shares"]]
        block["upper_exponent"] = block["lower_exponent"] = 2.0
    block["depth_mm"] = block["width_mm"]
    return fitted(document)


def _mirror(document: Document, edit: Edit, catalogue: Catalogue) -> Document:
    """Belly like the back, back like the belly, or nose and tail changed over."""
    block, how = document["body"], word(edit, "how")
    if how not in MIRRORS:
        raise Refused("how", how, named(MIRRORS))
    if block["mesh"]:
        raise Refused("how", how, rule("mesh-mirrored-elsewhere"))
    if how == "belly":
        block["bottom_shares"] = [[s, -v] for s, v in block["top_shares"]]
    elif how == "back":
        block["top_shares"] = [[s, -v] for s, v in block["bottom_shares"]]
    else:
        for name in ("top_shares", "bottom_shares", "half_width_shares", "widest_shares"):
            block[name] = [[1.0 - s, v] for s, v in reversed(block[name])] if block[name] else block[name]
        block["round_nose"], block["round_tail"] = block["round_tail"], block["round_nose"]
    return fitted(document)


def fitted(document: Document) -> Document:
    """The document with depth and width as its lines now measure, the shares taken of them.

    Raises `Refused` where lines cross or nothing is left of the body.
    """
    block = document["body"]
    body = to_design(document).body
    for size, measured, names in (
        ("depth_mm", body.depth_mm, ("top_shares", "bottom_shares", "widest_shares")),
        ("width_mm", body.width_mm, ("half_width_shares",)),
    ):
        if not 0.5 <= measured <= 300:
            raise Refused(f"body.{size}", round(measured, 2), Within(0.5, 300.0, "mm"))
        factor = block[size] / measured
        for name in names:
            if block[name] and not (block["turned"] and size == "depth_mm"):
                block[name] = [[s, min(max(v * factor, -1.0), 1.0)] for s, v in block[name]]
        if abs(factor - 1.0) > 1e-9:
            document["typed"].pop(f"body.{size}", None)
        block[size] = measured
    return document


def _resize(document: Document, edit: Edit, catalogue: Catalogue) -> Document:
    """The whole body larger or smaller, by its length, by a factor, or to a volume; hardware keeps its
    size.
    """
    by, text, design = word(edit, "by"), word(edit, "text"), to_design(document)
    if by == "length":
        length = finite_between("new size", read_measure(text, "length", "new size"), 5.0, 600.0, "mm")
        grown = scaled(design, length / design.body.length_mm)
    elif by == "factor":
        grown = scaled(
            design, finite_between("new size", read_measure(text, "number", "new size"), 0.05, 20.0)
        )
    elif by == "volume":
        grown = to_volume(
            design,
            finite_between("new size", read_measure(text, "volume", "new size"), 0.05, 20_000.0, "ml"),
        )
    else:
        raise Refused("by", by, named(("length", "factor", "volume")))
    for name in ("body.length_mm", "body.depth_mm", "body.width_mm"):
        document["typed"].pop(name, None)
    return with_design(document, grown)


def _joint(document: Document, edit: Edit, catalogue: Catalogue, key: str) -> Joint:
    """In the middle of the longest segment unless a place is given."""
    rows, length = document["joints"], document["body"]["length_mm"]
    marks = [0.0, *sorted(row["x_mm"] for row in rows), length]
    gap, start = max((b - a, a) for a, b in zip(marks, marks[1:], strict=False))
    place = start + gap * (0.55 if not rows else 0.5) if edit.get("x_mm") is None else edit["x_mm"]
    place = round(finite_between("x_mm", place, 0.0, length, "mm"), 1)
    return Joint(key, place, kind=(word(edit, "kind") or "linked"))


def _segment_material(document: Document, edit: Edit, catalogue: Catalogue) -> Document:
    """A segment of another material; no name makes it of the body's own again."""
    key, name = word(edit, "key"), word(edit, "name")
    rows = [row for row in document["segments"] if row["key"] != key]
    if name:
        material = body_material(name)
        rows.append(
            {
                "key": key,
                "material": asdict(
                    Host(material.name, material.density_g_cm3, material.spread_g_cm3, material.kind)
                ),
            }
        )
    document["segments"] = sorted(rows, key=lambda row: str(row["key"]))
    return document


def _hollow(document: Document, edit: Edit, catalogue: Catalogue) -> Document:
    """Make the body a shell, empty or filled with a light material; `on` false makes it solid again."""
    if not _flag(edit):
        document["shell"] = None
        return document
    fill = word(edit, "fill") or "air"
    if fill != "air" and fill not in BODY_MATERIALS:
        raise Refused("fill", fill, named(BODY_MATERIALS, "air"))
    body = to_design({**document, "shell": None}).body
    wall = min(2.0, round(_thinnest(body) / 5, 1))
    was = document["shell"] or {"wall_mm": wall, "around_mm": wall}
    document["shell"] = asdict(
        Shell(
            was["wall_mm"],
            0.0 if fill == "air" else body_material(fill).density_g_cm3,
            fill,
            was.get("around_mm", 0.0),
        )
    )
    return document


def _thinnest(body: Body) -> float:
    return min(body.depth_mm, body.width_mm)


def _swap_lip(document: Document, edit: Edit, catalogue: Catalogue) -> Document:
    """Another plate from stock in the lip's place, at the angle and place it has."""
    plate: Lip = take(catalogue.lips, edit.get("code"), "code")
    was = document["lip"]
    if was is None:
        raise Refused("lip", None, rule("lip-first"))
    document["lip"] = {
        **asdict(plate),
        "x_mm": was["x_mm"],
        "angle_deg": was["angle_deg"],
        "square_deg": was["square_deg"],
    }
    return document


EDITS: dict[str, Callable[[Document, Edit, Catalogue], Document]] = {
    "point": _point,
    "add_point": _add_point,
    "drop_point": _drop_point,
    "exponent": _exponent,
    "widest": _widest,
    "turned": _turned,
    "mirror": _mirror,
    "resize": _resize,
    "joint": adding("joints", "j", _joint, in_order="x_mm"),
    "segment_material": _segment_material,
    "hollow": _hollow,
    "swap_lip": _swap_lip,
}
"""What can be done to the shape, by name."""

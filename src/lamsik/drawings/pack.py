"""What the saw, the knife and the drill need, each drawn in true millimetres: templates, sections, drill
map, lip, segments.
"""

from collections.abc import Iterable, Sequence
from textwrap import wrap

import numpy as np

from lamsik.core.quantities import numeral, place, plainly, said
from lamsik.core.shapes.body import section_outline, side_outline, station, top_outline
from lamsik.core.shapes.clashes import cut_ends
from lamsik.core.shapes.curves import Array
from lamsik.core.shapes.design import Design
from lamsik.core.shapes.drillings import Drilling
from lamsik.core.shapes.hardware import lip_outline, lip_point
from lamsik.core.shapes.space import hollow_outlines, hollow_section
from lamsik.drawings.ink import INK, MUTED
from lamsik.drawings.paper import THIN, Drawing, Listed
from lamsik.drawings.ruler import ruler
from lamsik.drawings.svg import Node, label, node, path
from lamsik.words.tell import tell, told

LINE = 0.3
FINE = 241
DASH = "1.2 0.8"


def drawings(
    design: Design, holes: Sequence[Drilling], stations_mm: Sequence[float], slot: str
) -> list[Drawing]:
    """The whole pack, in the order of work."""
    rows = [side(design, holes), top(design, holes), *sections(design, stations_mm), drill_map(design, holes)]
    if design.lip is not None:
        rows += [lip_plate(design), slot_angle(design, slot)]
    return rows


def _shape(points: Iterable[Iterable[float]], **more: object) -> Node:
    return node(
        "path", d=path(points), fill="none", stroke=INK, stroke_width=LINE, stroke_linejoin="round", **more
    )


def side(design: Design, holes: Sequence[Drilling]) -> Drawing:
    """The side template with stations, axis, saw cuts, slot and hole marks."""
    body = design.body
    outline = side_outline(body, FINE)
    high, low = float(outline[:, 1].max()), float(outline[:, 1].min())
    rows = [
        _shape(outline, data_outline="side"),
        _axis(body.length_mm),
        *_stations(design),
        *_cuts(design),
        *_slot(design),
        *(_hollow(row) for row in hollow_outlines(design)),
        ruler(body.length_mm, THIN, 0, -low + 3),
    ]
    rows += _arrow(design)
    rows += [_mark(hole, hole.x_mm, -hole.z_mm) for hole in holes]
    return Drawing(
        "side",
        "Side template",
        tuple(rows),
        (-6.0, -high - 5, body.length_mm + 18, high - low + 18),
        _grain(design),
    )


def _hollow(outline: Array) -> Node:
    return node("path", d=path(outline), fill="none", stroke=MUTED, stroke_width=0.2, stroke_dasharray=DASH)


def _grain(design: Design) -> str:
    if design.shell is not None:
        return f"Hollow, wall {plainly(design.shell.wall_mm, 'length')}: the hollow is drawn dashed."
    return (
        "Grain along the arrow; glue it on the blank with the axis parallel to an edge."
        if design.host.construction == "wood"
        else "Glue it on the blank, axis parallel to an edge."
    )


def _arrow(design: Design) -> list[Node]:
    """Which way the grain runs."""
    if design.host.construction != "wood":
        return []
    start, end = 0.55 * design.body.length_mm, 0.8 * design.body.length_mm
    z = station(design.body, 0.62 * design.body.length_mm).middle_mm + 2.4
    line = node(
        "path",
        d=f"M{start:.1f} {-z:.1f}H{end:.1f}m-2.4 -1l2.4 1l-2.4 1",
        fill="none",
        stroke=INK,
        stroke_width=0.25,
    )
    return [line, label("grain", start, -z - 1.0, 2.4, fill=MUTED)]


def top(design: Design, holes: Sequence[Drilling]) -> Drawing:
    """The top template with its centre line, saw cuts and holes."""
    body = design.body
    outline = top_outline(body, FINE)
    half = float(outline[:, 1].max())
    rows = [
        _shape(outline, data_outline="top"),
        _axis(body.length_mm),
        ruler(body.length_mm, THIN, 0, half + 3),
    ]
    rows += [
        node("line", x1=x, x2=x, y1=-reach, y2=reach, stroke=INK, stroke_width=LINE)
        for x, reach in cuts_from_above(design)
    ]
    for hole in holes:
        if hole.face in ("belly", "back"):
            dash = {"stroke_dasharray": DASH} if hole.face == "belly" else {}
            for y in (-hole.beside_mm, hole.beside_mm) if hole.beside_mm else (0.0,):
                rows += [
                    node(
                        "circle",
                        cx=hole.x_mm,
                        cy=y,
                        r=hole.drill_mm / 2,
                        fill="none",
                        stroke=INK,
                        stroke_width=LINE,
                        **dash,
                    ),
                    _mark(hole, hole.x_mm, y),
                ]
    return Drawing(
        "top",
        "Top template",
        tuple(rows),
        (-6.0, -half - 5, body.length_mm + 18, 2 * half + 18),
        "Holes drawn dashed are drilled from the belly.",
    )


def sections(design: Design, stations_mm: Sequence[float]) -> list[Drawing]:
    """A template for each station: the outside of the section, to be cut out and held against the blank."""
    return [_section(design, x) for x in stations_mm]


def _section(design: Design, x: float) -> Drawing:
    outline = section_outline(design.body, x, 160)
    half, high, low = float(outline[:, 0].max()), float(outline[:, 1].max()), float(outline[:, 1].min())
    cross = [
        node("line", x1=-half, x2=half, y1=0, y2=0, stroke=MUTED, stroke_width=0.15, stroke_dasharray=DASH),
        node("line", x1=0, x2=0, y1=-high, y2=-low, stroke=MUTED, stroke_width=0.15, stroke_dasharray=DASH),
    ]
    inside = hollow_section(design, x)
    if inside is not None:
        cross.append(_hollow(inside))
    return Drawing(
        f"section-{x:g}",
        f"Section {place(x)}",
        (_shape(outline), *cross),
        (-half - 2, -high - 2, 2 * half + 4, high - low + 4),
    )


def drill_map(design: Design, holes: Sequence[Drilling]) -> Drawing:
    """Each hole on the side view by its letter, and the list: face, place, drill, depth, angle, what for."""
    body = design.body
    outline = side_outline(body, FINE)
    high, low = float(outline[:, 1].max()), float(outline[:, 1].min())
    rows = [_shape(outline), _axis(body.length_mm), *_cuts(design)]
    for hole in holes:
        rows += [*_bore(design, hole), _mark(hole, hole.x_mm, -hole.z_mm)]
    listed = tuple(Listed(hole.x_mm, *_said(hole)) for hole in holes)
    note = (
        "Drill square to the middle plane; stop collar or tape on the drill."
        if holes
        else "No holes in this design."
    )
    return Drawing(
        "drill",
        "Drill map",
        tuple(rows),
        (-6.0, -high - 6, body.length_mm + 14, high - low + 12),
        note,
        listed,
    )


def _said(hole: Drilling) -> tuple[str, str]:
    """A hole of the list: where, which drill, how deep, at what angle; and what it is for."""
    depth = (
        f"{said(hole.depth_mm, 'length')} deep"
        if hole.through_mm is None
        else f"through the {said(hole.through_mm, 'length')} wall into the hollow"
    )
    return (
        (
            f"{hole.mark}  {_where(hole)}: drill {plainly(hole.drill_mm, 'length')}, {depth},"
            f" {said(hole.angle_deg, 'angle', 0)} to the"
            " axis"
        ),
        f"for {told(hole.purpose)}{f'; {tell(hole.fits)}' if hole.fits else ''}",
    )


def _where(hole: Drilling) -> str:
    """From which face, and how far from the nose."""
    if hole.face in ("nose", "tail"):
        return f"from the {hole.face}"
    pair = f", two, {place(hole.beside_mm)} to each side of the middle" if hole.beside_mm else ""
    return (
        f"{'inside' if hole.face == 'inside' else f'from the {hole.face}'}, {place(hole.x_mm)} from the"
        f" nose{pair}"
    )


def _bore(design: Design, hole: Drilling) -> list[Node]:
    """The hole's two sides from the side, dashed."""
    ways = {"belly": (0, 1), "back": (0, -1), "nose": (1, 0), "tail": (-1, 0)}
    if hole.face not in ways:
        return []
    dx, dz = ways[hole.face]
    half, depth = hole.drill_mm / 2, min(hole.depth_mm, design.body.length_mm)
    corners = [
        (hole.x_mm - half * abs(dz), hole.z_mm - half * abs(dx)),
        (hole.x_mm + half * abs(dz), hole.z_mm + half * abs(dx)),
    ]
    ends = [(x + dx * depth, z + dz * depth) for x, z in reversed(corners)]
    return [
        node(
            "path",
            d=path([*corners, *ends]),
            fill="none",
            stroke=INK,
            stroke_width=0.2,
            stroke_dasharray=DASH,
        )
    ]


def lip_plate(design: Design) -> Drawing:
    """The lip's outline with the line to which it goes into its slot."""
    assert design.lip is not None
    lip = design.lip
    outline = lip_outline(lip, 96)
    half = lip.width_mm / 2
    rows = (
        _shape(outline),
        node("line", x1=0, x2=0, y1=-half, y2=half, stroke=MUTED, stroke_width=0.2, stroke_dasharray=DASH),
        node(
            "line",
            x1=-lip.inset_mm,
            x2=lip.length_mm,
            y1=0,
            y2=0,
            stroke=MUTED,
            stroke_width=0.15,
            stroke_dasharray=DASH,
        ),
    )
    note = f"{said(lip.thickness_mm, 'length')} plate; cut it wide and trim"
    return Drawing(
        "lip",
        f"Lip, {numeral(lip.width_mm, 'length', 0)} × {said(lip.length_mm, 'length', 0)}",
        rows,
        (-lip.inset_mm - 3, -half - 3, max(lip.length_mm + lip.inset_mm + 6, 55), 2 * half + 6),
        note,
    )


def slot_angle(design: Design, says: str) -> Drawing:
    """The slot's angle as a gauge: the body axis, the plate, the angle between."""
    assert design.lip is not None
    lip, reach = design.lip, 45.0
    angle = np.radians(lip.angle_deg)
    tip = (-reach * float(np.cos(angle)), reach * float(np.sin(angle)))
    arc = f"M-25 0 A25 25 0 0 0 {-25 * np.cos(angle):.2f} {25 * np.sin(angle):.2f}"
    rows = (
        node("line", x1=-reach - 5, x2=20, y1=0, y2=0, stroke=INK, stroke_width=LINE),
        node(
            "line",
            x1=lip.inset_mm * float(np.cos(angle)),
            y1=-lip.inset_mm * float(np.sin(angle)),
            x2=tip[0],
            y2=tip[1],
            stroke=INK,
            stroke_width=LINE,
        ),
        node("path", d=arc, fill="none", stroke=MUTED, stroke_width=0.2),
        label(said(lip.angle_deg, "angle", 0), -31, 6, 4.0),
        label("body axis", 4, -1.5, 2.6, fill=MUTED),
    )
    top = max(lip.inset_mm * float(np.sin(angle)), 4.0) + 2
    y, lines = max(tip[1], 10.0) + 6, wrap(says, 62)
    words = [label(line, -reach - 5, y + 3.4 * i, 2.4, fill=MUTED) for i, line in enumerate(lines)]
    return Drawing(
        "slot", "Slot angle", (*rows, *words), (-reach - 6, -top, 100.0, top + y + 3.4 * len(lines))
    )


def _axis(length: float) -> Node:
    return node(
        "line", x1=-4, x2=length + 6, y1=0, y2=0, stroke=MUTED, stroke_width=0.2, stroke_dasharray="4 1 0.5 1"
    )


def _stations(design: Design) -> list[Node]:
    rows = []
    for x in np.arange(10.0, design.body.length_mm, 10.0).tolist():
        here = station(design.body, x)
        rows.append(
            node(
                "line",
                x1=x,
                x2=x,
                y1=-here.top_mm,
                y2=-here.bottom_mm,
                stroke=MUTED,
                stroke_width=0.1,
                stroke_dasharray="1 1",
            )
        )
    return rows


def cut_lines(design: Design) -> list[Array]:
    """Both faces of each saw cut on the side, from back to belly: lines (2, 2) of x and z [mm]."""
    return [np.array(cut_ends(design.body, cut)) for pair in design.body.cuts for cut in pair]


def cuts_from_above(design: Design) -> list[tuple[float, float]]:
    """Both faces of each saw cut at the axis, seen from above: where, and how far to each side [mm]."""
    return [
        (x, station(design.body, joint.x_mm).half_width_mm)
        for joint in design.body.joints
        for x in (joint.fore_mm, joint.aft_mm)
    ]


def slot_outline(design: Design) -> Array:
    """The lip's slot on the side, from its inner edge to 3 mm out of the body: a closed outline (4, 2) of
    x and z [mm].
    """
    lip = design.lip
    assert lip is not None
    outer, inner, half = (
        lip_point(design.body, lip, 3.0),
        lip_point(design.body, lip, -lip.inset_mm),
        lip.thickness_mm / 2,
    )
    across = half * np.array([np.sin(np.radians(lip.angle_deg)), -np.cos(np.radians(lip.angle_deg))])
    out, deep = np.array([outer[0], outer[2]]), np.array([inner[0], inner[2]])
    return np.array([out - across, deep - across, deep + across, out + across])


def station_line(design: Design, x_mm: float) -> Array:
    """A station on the side, from belly to back: a line (2, 2) of x and z [mm]."""
    here = station(design.body, x_mm)
    return np.array([[x_mm, here.bottom_mm], [x_mm, here.top_mm]])


def _cuts(design: Design) -> list[Node]:
    """Both faces of each saw cut."""
    return [
        node("line", x1=x0, y1=-z0, x2=x1, y2=-z1, stroke=INK, stroke_width=LINE)
        for (x0, z0), (x1, z1) in (row.tolist() for row in cut_lines(design))
    ]


def _slot(design: Design) -> list[Node]:
    if design.lip is None:
        return []
    corners = slot_outline(design) * [1.0, -1.0]
    return [
        node("line", x1=a[0], y1=a[1], x2=b[0], y2=b[1], stroke=INK, stroke_width=0.2)
        for a, b in (corners[:2].tolist(), corners[2:].tolist())
    ]


def _mark(hole: Drilling, x: float, y: float) -> Node:
    """A hole's centre and letter."""
    cross = node(
        "path",
        d=f"M{x - 1.6:.2f} {y:.2f}h3.2M{x:.2f} {y - 1.6:.2f}v3.2",
        stroke=INK,
        stroke_width=0.2,
        fill="none",
    )
    return node("g", cross, label(hole.mark, x + 1.2, y - 1.2, 2.6, font_weight=700))

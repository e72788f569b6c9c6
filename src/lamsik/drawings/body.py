"""Pictures of a whole bait that other rooms share: thumbnails, silhouettes."""

import numpy as np

from lamsik.core.shapes.body import side_outline
from lamsik.core.shapes.curves import phi_of_share, share_of_phi
from lamsik.core.shapes.design import Design
from lamsik.core.shapes.hardware import eye_of, lip_point
from lamsik.core.shapes.skins import Mesh
from lamsik.drawings import parts
from lamsik.drawings.ink import INK, WOOD, pen_for
from lamsik.drawings.inside import inside
from lamsik.drawings.paint import painted
from lamsik.drawings.svg import Node, framed, group, label, node, path


def thumbnail(design: Design, name: str, holes: bool = False) -> Node:
    """A small side view, painted, with lip and hooks; with `holes` also where the metal sits."""
    body = design.body
    pen = pen_for(body.length_mm * 1.2, 220)
    high, low, left = float(side_outline(body)[:, 1].max()), hang_depth(design), front_reach(design)
    margin = 5 * pen.mm
    content = [
        *parts.lip(design, pen),
        painted(design, pen, name),
        *(inside(design, pen) if holes else []),
        *parts.hardware(design, pen),
    ]
    hooks = [p.item.mass_g for p in design.hardware if p.item.kind == "hook"]
    tail = 3.0 + 8.0 * (max(hooks) / 0.6) ** (1 / 3) if hooks else (5.0 if design.hardware else 0.0)
    return framed(
        content,
        -left - margin,
        -high - margin,
        body.length_mm + left + tail + 2 * margin,
        high + low + 2 * margin,
        "",
    )


def silhouette(design: Design) -> Node:
    """A bare side outline, for picking a form."""
    outline = side_outline(design.body)
    pen = pen_for(design.body.length_mm, 90)
    high, low = float(outline[:, 1].max()), float(outline[:, 1].min())
    shape = node("path", d=path(outline), fill=WOOD, stroke=INK, stroke_width=1.4 * pen.mm)
    return framed(
        [shape],
        -2 * pen.mm,
        -high - 2 * pen.mm,
        design.body.length_mm + 4 * pen.mm,
        high - low + 4 * pen.mm,
        "",
    )


def hang_depth(design: Design) -> float:
    """How far down (SVG) the side view reaches: belly, lip, hooks."""
    lowest = -float(side_outline(design.body)[:, 1].min())
    for placed in design.hardware:
        if placed.item.kind == "hook":
            eye = eye_of(design.hardware, design.body, placed, design.lip)
            lowest = max(
                lowest, -eye[2] + 2.6 + 1.25 * 13.0 * (max(placed.item.mass_g, 0.02) / 0.6) ** (1 / 3)
            )
    if design.lip:
        lowest = max(lowest, -lip_point(design.body, design.lip, design.lip.length_mm)[2])
    return lowest


def front_reach(design: Design) -> float:
    """How far ahead of the nose the drawing reaches [mm]."""
    reach = 6.0 if any(p.seat == "nose" for p in design.hardware) else 1.0
    if design.lip:
        reach = max(reach, -lip_point(design.body, design.lip, design.lip.length_mm)[0] + 1)
    return reach


def widest_x(design: Design) -> float:
    """Where the body is widest, x [mm]."""
    phi = phi_of_share(np.linspace(0.02, 0.98, 97))
    best = int(np.argmax(design.body.half_width.at(phi)))
    return float(design.body.length_mm * share_of_phi(phi)[best])


def mesh_views(mesh: Mesh, size: float = 150.0) -> Node:
    """A mesh from its three axes, as dots, each view named by its axes: for telling nose and back."""
    points = mesh.vertices[:: max(1, len(mesh.vertices) // 1500)]
    low, span = mesh.vertices.min(axis=0), float(np.ptp(mesh.vertices, axis=0).max()) or 1.0
    views = []
    for at, (across, up) in enumerate(((0, 2), (0, 1), (1, 2))):
        flat = (points[:, [across, up]] - low[[across, up]]) / span * size
        d = "".join(f"M{x:.1f} {size - y:.1f}h.01" for x, y in flat)
        name = label(f"{'xyz'[across]} to the right, {'xyz'[up]} up", 0, size + 16, 11, fill=INK)
        views.append(
            group(
                [node("path", d=d, stroke=INK, stroke_width=1.6, stroke_linecap="round"), name],
                transform=f"translate({at * (size + 40)} 0)",
            )
        )
    return framed(views, -6, -6, 3 * size + 110, size + 30, "The mesh from three sides")

"""What is inside the body on the side view: drilled holes, poured ends, balls in chambers, and the tub's
trial weights outside.
"""

import numpy as np

from lamsik.core.quantities import said
from lamsik.core.shapes.body import station
from lamsik.core.shapes.clashes import cut_ends
from lamsik.core.shapes.design import Design
from lamsik.core.shapes.inside import Cavity, PouredEnd, cavity_point, pour_cuts
from lamsik.core.tank.trial import trial_point
from lamsik.drawings import parts
from lamsik.drawings.ink import INK, LEAD, POUR, TIP, Pen
from lamsik.drawings.svg import Node, group, label, node, path


def inside(design: Design, pen: Pen) -> list[Node]:
    """Poured ends, holes and chambers, dashed as what lies inside."""
    rows = [_pour(design, pour, pen) for pour in design.pours]
    rows += [parts.hole(design, hole, pen) for hole in design.ballast]
    return rows + [_cavity(design, cavity, pen) for cavity in design.cavities]


def _pour(design: Design, pour: PouredEnd, pen: Pen) -> Node:
    fore, aft = pour_cuts(design.body, pour)
    (x0, _), (u0, _) = cut_ends(design.body, fore) if fore else ((pour.from_mm, 0.0), (pour.from_mm, 0.0))
    (x1, _), (u1, _) = cut_ends(design.body, aft) if aft else ((pour.to_mm, 0.0), (pour.to_mm, 0.0))
    back = [station(design.body, float(x)) for x in np.linspace(x0, x1, 25)]
    belly = [station(design.body, float(x)) for x in np.linspace(u1, u0, 25)]
    edge = [(r.x_mm, r.top_mm) for r in back] + [(r.x_mm, r.bottom_mm) for r in belly]
    return node(
        "path",
        d=path(edge),
        fill=POUR,
        fill_opacity=0.75,
        stroke=INK,
        stroke_width=pen.mm,
        stroke_dasharray=f"{3 * pen.mm:.2f} {2 * pen.mm:.2f}",
    )


def _cavity(design: Design, cavity: Cavity, pen: Pen) -> Node:
    x, _, z = cavity_point(design.body, cavity)
    long, bore, size = cavity.length_mm, cavity.bore_mm, cavity.slug.diameter_mm
    dashed = f"{3 * pen.mm:.2f} {2 * pen.mm:.2f}"
    room = node(
        "rect",
        x=x - long / 2,
        y=-z - bore / 2,
        width=long,
        height=bore,
        rx=bore / 2,
        fill="#FFFFFF",
        fill_opacity=0.8,
        stroke=INK,
        stroke_width=pen.mm,
        stroke_dasharray=dashed,
    )
    first = x - (cavity.count - 1) / 2 * size
    balls = [
        node("circle", cx=first + i * size, cy=-z, r=size / 2, fill=LEAD, stroke=INK, stroke_width=pen.mm)
        for i in range(cavity.count)
    ]
    return group([room, *balls])


def trial_weights(design: Design, pen: Pen) -> list[Node]:
    """The clips and tape of the tub, outside the body, with their grams."""
    rows = []
    for trial in design.trials:
        x, _, z = trial_point(design, trial)
        size = 13 * pen.mm
        block = node(
            "rect",
            x=x - size,
            y=-z,
            width=2 * size,
            height=0.8 * size,
            rx=2 * pen.mm,
            fill=LEAD,
            stroke=TIP,
            stroke_width=1.6 * pen.mm,
        )
        rows.append(
            group(
                [
                    block,
                    label(said(trial.mass_g, "mass", 1), x, -z + 2.2 * size, pen.text, text_anchor="middle"),
                ]
            )
        )
    return rows

"""Weighing drawn: in air, in water, a floater held under by a sinker, a float pulled down to a mark; and a
thing at rest in its water.
"""

from lamsik.core.quantities import said
from lamsik.core.weighing.inwater import InWater
from lamsik.drawings.ink import CARD, INK, LEAD, MUTED, PALE, STEEL, TIP, WATER, WOOD
from lamsik.drawings.svg import Node, framed, group, label, node

WIDE, HIGH, GAP = 120.0, 150.0, 14.0
SCENES = (("air", "in air"), ("water", "in water"), ("both", "under a sinker"), ("marks", "to each mark"))


def weighing_scenes() -> Node:
    """The four ways of weighing side by side; the page lights the one at hand."""
    rows = []
    for at, (name, says) in enumerate(SCENES):
        words = label(says, WIDE / 2, HIGH + 14, 10.5, text_anchor="middle", fill=MUTED)
        rows.append(
            group(
                [*_stand(name), words],
                transform=f"translate({at * (WIDE + GAP):g} 0)",
                class_="way",
                data_way=name,
            )
        )
    return framed(rows, -4, -4, 4 * WIDE + 3 * GAP + 8, HIGH + 26, "Four ways of weighing")


def _stand(name: str) -> list[Node]:
    """A scale on a shelf, what hangs from it, the tub below."""
    wet = name != "air"
    rows = [
        node("rect", x=0, y=0, width=WIDE, height=HIGH, rx=6, fill=CARD, class_="ground"),
        node("path", d="M22 40V146M98 40V146M14 40H106", stroke=INK, stroke_width=2, fill="none"),
        node("rect", x=36, y=22, width=48, height=17, rx=3, fill=STEEL, stroke=INK, stroke_width=1.4),
        node("rect", x=45, y=26, width=30, height=8, rx=1.5, fill=PALE),
    ]
    if wet:
        rows += [
            node(
                "path",
                d="M30 86V140Q30 146 36 146H84Q90 146 90 140V86",
                fill=PALE,
                stroke=INK,
                stroke_width=1.4,
            ),
            node("line", x1=30, x2=90, y1=92, y2=92, stroke=WATER, stroke_width=2),
        ]
    drop = {"air": 78, "water": 108, "both": 124, "marks": 122}[name]
    rows.append(node("line", x1=60, x2=60, y1=39, y2=drop - 6, stroke=INK, stroke_width=0.9))
    if name in ("air", "water"):
        rows.append(node("ellipse", cx=60, cy=drop, rx=19, ry=7, fill=WOOD, stroke=INK, stroke_width=1.4))
    elif name == "both":
        rows += [
            _lead(drop),
            node("ellipse", cx=60, cy=104, rx=19, ry=7, fill=WOOD, stroke=INK, stroke_width=1.4),
        ]
    else:
        rows += [
            _lead(drop + 6),
            node("path", d="M60 70V88", stroke=TIP, stroke_width=2.6),
            node(
                "path",
                d="M60 84C66 88 67 104 60 116C53 104 54 88 60 84Z",
                fill=WOOD,
                stroke=INK,
                stroke_width=1.4,
            ),
        ]
    return rows


def _lead(y: float) -> Node:
    return node(
        "path",
        d=f"M60 {y - 8:g}L68 {y + 7:g}H52Z",
        fill=LEAD,
        stroke=INK,
        stroke_width=1.2,
        stroke_linejoin="round",
    )


def thing_in_water(thing: InWater, kind: str) -> Node:
    """The thing afloat, hanging or on the bottom, with what it weighs in air and what is left of it in
    water.
    """
    floats = thing.lift_g > 0
    share = min(thing.density_g_cm3 / thing.water.density_g_cm3, 1.0)
    y = 96 + (16 - 32 * (1 - share)) if floats else 196
    words = f"lifts {said(thing.lift_g, 'mass')}" if floats else f"sinks with {said(thing.water_g, 'mass')}"
    arrow = f"M250 {y - 4:g}v-44m-6 9l6 -9l6 9" if floats else f"M250 {y - 30:g}v26m-6 -9l6 9l6 -9"
    rows = [
        node("rect", x=0, y=96, width=500, height=124, fill=PALE),
        node("line", x1=0, x2=500, y1=96, y2=96, stroke=WATER, stroke_width=2.5),
        node(
            "ellipse",
            cx=250,
            cy=y,
            rx=62,
            ry=16,
            fill=WOOD if kind != "sinker" else LEAD,
            stroke=INK,
            stroke_width=2,
        ),
        node("path", d=arrow, stroke=TIP, stroke_width=2.5, fill="none"),
        label(words, 266, y - 30, 15, font_weight=600),
        label(f"{said(thing.air_g, 'mass')} in air", 12, 32, 15, font_weight=600),
        label(
            f"{said(thing.volume_ml, 'volume')} at {said(thing.density_g_cm3, 'density')}",
            12,
            54,
            13,
            fill=MUTED,
        ),
        label(thing.water.describe(), 488, 210, 12, fill=MUTED, text_anchor="end"),
    ]
    return framed(rows, 0, 0, 500, 220, "The thing in its water")


def float_with_marks(rows: list[tuple[str, float, float | None]]) -> Node:
    """A float and its marks from below, with what it carries to each in the water measured and in the one
    wanted; bars to one scale.
    """
    high, most = 60.0 + 44.0 * len(rows), max((max(a, b or 0.0) for _, a, b in rows), default=1.0) or 1.0
    foot, top = high - 14.0, 14.0
    body = (
        f"M70 {foot}C86 {foot - 20} 90 {foot - 60} 72 {foot - 80}V{top}H68V{foot - 80}C50 {foot - 60} 54"
        f" {foot - 20} 70 {foot}Z"
    )
    drawn = [
        node("rect", x=0, y=36, width=500, height=high - 36, fill=PALE),
        node("path", d=body, fill=WOOD, stroke=INK, stroke_width=1.6),
    ]
    drawn.append(node("line", x1=0, x2=500, y1=36, y2=36, stroke=WATER, stroke_width=2.2))
    drawn += [
        label("as weighed", 230, 26, 12, fill=WATER, font_weight=600),
        label("in the wanted water", 330, 26, 12, fill=MUTED, font_weight=600),
    ]
    for at, (name, measured, wanted) in enumerate(rows):
        y = foot - 34 - at * 44.0
        drawn += [
            node("line", x1=60, x2=120, y1=y, y2=y, stroke=TIP, stroke_width=1.6),
            label(name, 126, y + 5, 14, font_weight=600),
            node("rect", x=230, y=y - 12, width=200 * max(measured, 0.0) / most, height=11, fill=WATER),
            label(said(measured, "mass"), 436, y - 2, 13),
        ]
        if wanted is not None:
            drawn += [
                node("rect", x=230, y=y + 2, width=200 * max(wanted, 0.0) / most, height=11, fill=STEEL),
                label(said(wanted, "mass"), 436, y + 12, 13, fill=MUTED),
            ]
    return framed(drawn, 0, 0, 500, high, "The float and what it carries to each mark")

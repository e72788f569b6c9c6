"""Stencils at true size: the card with its slits, what is cut out, marks to lay it by, and how far it is
stretched.
"""

import numpy as np

from lamsik.core.paints.stencils import Stencil
from lamsik.core.shapes.curves import Array
from lamsik.core.shapes.drawn_layers import DrawnLayer
from lamsik.drawings.ink import CARD, INK, MUTED, TIP
from lamsik.drawings.paper import Drawing
from lamsik.drawings.svg import Node, framed, group, label, node, path

STEPS = ((0.02, "#F3E3B8"), (0.035, "#E9B872"), (0.05, "#C4532D"))
"""How far card is stretched or pushed together, from so much on, and the ink it is shown in."""
WORD_MM, MARK_MM = 2.6, 6.0


def stretched(stencil: Stencil, name: str) -> Node:
    """The stencil laid flat, in colour where it does not lie of itself."""
    wide, high = np.ptp(stencil.outline, axis=0)
    low, left = float(stencil.outline[:, 1].min()), float(stencil.outline[:, 0].min())
    flat = stencil.flat
    off = np.maximum(flat.stretch[:, 1] - 1.0, 1.0 - flat.stretch[:, 0])
    rows: list[Node] = [node("path", d=path(stencil.outline), fill=CARD)]
    for n, (least, ink) in enumerate(STEPS):
        most = STEPS[n + 1][0] if n + 1 < len(STEPS) else np.inf
        mine = flat.faces[(off >= least) & (off < most)]
        if len(mine):
            rows.append(node("path", d=" ".join(path(flat.points[face]) for face in mine), fill=ink))
    rows += _card(stencil, 1.4 * max(float(wide), 30.0) / 400.0)
    box = (left - 4.0, -(low + float(high)) - 4.0, float(wide) + 8.0, float(high) + 12.0)
    return framed(rows, *box, f"{name}, for the {stencil.side} side, laid flat")


def _card(stencil: Stencil, line_mm: float) -> list[Node]:
    cut = {"fill": "none", "stroke": INK, "stroke_width": round(line_mm, 3), "stroke_linejoin": "round"}
    rows = [node("path", d=path(stencil.outline), **cut)]
    if stencil.openings:
        openings = " ".join(path(one) for one in stencil.openings)
        rows.append(
            node("path", d=openings, **{**cut, "fill": INK, "fill_opacity": 0.16, "fill_rule": "evenodd"})
        )
    return rows + [*_marks(stencil)]


def _marks(stencil: Stencil) -> list[Node]:
    """Which way the nose is, which edge is the back, where the eye is, for which side it is."""
    left, low = stencil.outline.min(axis=0)
    right, high = stencil.outline.max(axis=0)
    middle, toward = (low + high) / 2.0, -1.0 if stencil.is_nose_left else 1.0
    at = left + 1.5 if toward < 0 else right - 1.5
    arrow = np.array([(at - 4 * toward, middle), (at, middle), (at - 1.6 * toward, middle + 1.2)])
    told = {"fill": MUTED, "text_anchor": "middle"}
    rows = [
        node("path", d=path(arrow, close=False), fill="none", stroke=TIP, stroke_width=0.35),
        label(stencil.side[0].upper(), at - 2.0 * toward, -(middle + 2.5), 4.0, **told),
    ]
    if stencil.is_back:
        rows.append(label("back", (left + right) / 2, -(high + 1.0), WORD_MM, **told))
    if stencil.eye is not None:
        x, y = (float(one) for one in stencil.eye)
        cross = " ".join(path(one, close=False) for one in _cross(stencil.eye))
        rows.append(node("circle", cx=x, cy=-y, r=1.2, fill="none", stroke=TIP, stroke_width=0.35))
        rows.append(node("path", d=cross, stroke=TIP, stroke_width=0.25))
    return rows


def _cross(at: Array) -> list[Array]:
    """Two lines that cross at a place."""
    return [np.array([at - reach, at + reach]) for reach in (np.array([2.0, 0.0]), np.array([0.0, 2.0]))]


def to_print(stencil: Stencil, name: str, note: str) -> Drawing:
    """The stencil to print at true size."""
    left, low = (float(one) for one in stencil.outline.min(axis=0))
    wide, high = (float(one) for one in np.ptp(stencil.outline, axis=0))
    box = (left - 1.0, -(low + high) - 5.0, wide + 2.0, high + 7.0)
    return Drawing(stencil.side, f"{name}, {stencil.side}", (group(_card(stencil, 0.2)),), box, note)


def to_cut(pair: tuple[Stencil, ...], name: str) -> list[DrawnLayer]:
    """Stencils beside each other for a cutter: what is cut, what is drawn."""
    outlines: list[Array] = []
    lines: list[Array] = []
    words: list[tuple[float, float, str]] = []
    x = 0.0
    for one in pair:
        move = np.array([x - float(one.outline[:, 0].min()), 0.0])
        outlines += [one.outline + move, *(row + move for row in one.openings)]
        low = float(one.outline[:, 1].min())
        words.append((x + 2.0, low - 5.0, f"{name} {one.side[0].upper()}"))
        if one.eye is not None:
            lines += _cross(one.eye + move)
        x += float(np.ptp(one.outline[:, 0])) + MARK_MM
    return [DrawnLayer("CUT", tuple(outlines)), DrawnLayer("MARKS", (), (), tuple(lines), tuple(words))]

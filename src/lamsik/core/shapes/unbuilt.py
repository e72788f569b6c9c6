"""What cannot be built as it is drawn: things in one another's room, in a saw cut, out of the skin, or open
into an empty hollow.

Less wall than the shop allows is a clash (`clashes`); this is what no care at the bench helps. It is not
computed as if it could be.
"""

from itertools import combinations

import numpy as np

from lamsik.core.findings import Finding, finding
from lamsik.core.shapes.body import Body, uncut
from lamsik.core.shapes.columns import Columns, reach_of
from lamsik.core.shapes.design import Design
from lamsik.core.shapes.dividing import Bounds, cut_up
from lamsik.core.shapes.space import space_of
from lamsik.core.shapes.things import BORE, CHAMBER, HOLE, Thing, things_in
from lamsik.core.trade.part_kinds import OPEN, THROUGH

LEAST_MM3 = 0.5
"""Less than this is a touch."""


def unbuilt(design: Design) -> tuple[Finding, ...]:
    """What cannot be built, in words; empty where all can."""
    names = _names(design)
    bores = tuple(p for p in design.hardware if p.item.pocket_ml > 0)
    things = things_in(design.body, design.ballast, design.cavities, bores, design.lip)
    if not things and len(design.pours) < 2:
        return ()
    through = frozenset(p.key for p in bores if p.item.of.bore in (THROUGH, OPEN))
    reasons = list(
        dict.fromkeys(
            finding(name, **dict(zip(("what", "other"), (names[at] for at in ats), strict=False)))
            for name, ats in _found(design.body, things, through)
        )
    )
    reasons += [
        finding("pours-overlap", one=a.from_mm, other=b.from_mm)
        for a, b in combinations(design.pours, 2)
        if a.from_mm < b.to_mm - 0.01 and b.from_mm < a.to_mm - 0.01
    ]
    if design.shell is not None and design.shell.around_mm == 0 and design.shell.is_empty:
        space = space_of(design)
        reasons += [
            finding("open-in-the-hollow", what=names[row.thing.kind, row.thing.key])
            for row in space.taken
            if row.thing.kind in (HOLE, CHAMBER) and sum(piece.volume_mm3 for piece in row.hollow) > LEAST_MM3
        ]
    return tuple(dict.fromkeys(reasons))


def _names(design: Design) -> dict[tuple[str, str], Finding]:
    rows = {
        (
            HOLE,
            h.key,
        ): finding("pair-at" if h.count > 1 else "hole-at", drill=h.drill_mm, x=h.x_mm)
        for h in design.ballast
    }
    rows |= {(CHAMBER, c.key): finding("chamber-at", x=c.x_mm) for c in design.cavities}
    rows |= {(BORE, p.key): finding("bore-for", part=p.item.name) for p in design.hardware}
    return {**rows, ("plate", "lip"): finding("lips-slot")}


Found = tuple[str, tuple[tuple[str, str], ...]]


def _found(body: Body, things: tuple[Thing, ...], through: frozenset[str]) -> list[Found]:
    """What meets what it must not, each once."""
    bounds = Bounds.of(body, (), None)
    faults: list[Found] = []
    columns = [thing.shape.columns(bounds.breaks(*thing.shape.heights)) for thing in things]
    for (one, mine), (other, _) in combinations(zip(things, columns, strict=True), 2):
        if not mine.meets(*other.shape.span):
            continue
        bits = cut_up(mine, bounds, (other.shape,))
        if float(bits.volume[bits.barred].sum()) > LEAST_MM3:
            same = (one.kind, one.key) == (other.kind, other.key)
            faults.append(
                (
                    "meet-each-other" if same else "runs-into-other",
                    ((one.kind, one.key), (other.kind, other.key)),
                )
            )
    for thing, mine in zip(things, columns, strict=True):
        if thing.kind == BORE and thing.key in through:
            continue
        at = ((thing.kind, thing.key),)
        if body.joints:
            bits = cut_up(mine, bounds, ())
            if float(bits.volume[bits.segment < 0].sum()) > LEAST_MM3:
                faults.append(("meets-a-joint", at))
        if thing.kind in (HOLE, CHAMBER, BORE) and _outside(body, thing, mine) > LEAST_MM3:
            faults.append(("breaks-out", at))
    return faults


def _outside(body: Body, thing: Thing, columns: Columns) -> float:
    """What of a thing lies out of the skin [mm³]; a hole may do so at its mouth only."""
    foot, head = reach_of(uncut(body))(columns.x, columns.y)
    over = np.clip(columns.high - np.maximum(head, columns.low), 0.0, columns.high - columns.low)
    under = (
        np.zeros(len(over))
        if thing.kind == HOLE
        else np.clip(np.minimum(foot, columns.high) - columns.low, 0.0, columns.high - columns.low)
    )
    return float(columns.ground @ np.maximum(over + under, 0.0))

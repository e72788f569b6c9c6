"""How much paint a set of pieces takes: ml and whole drops of each, in one mix, and what must be bought."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from math import ceil

from lamsik.core.errors import finite_between, require, rule
from lamsik.core.paints.paint import Paint
from lamsik.core.paints.shelf import ShelfPaint
from lamsik.core.paints.spraying import STAYS_SHARE, Cup, cups
from lamsik.core.paints.wanted import RecipePart
from lamsik.core.shapes.design import Design

DROP_ML = 0.05
"""A drop of a paint that is not on the shelf [ml]."""
MOST_PIECES = 1000
LOSS = 0.1
"""What stays in cup and brush, of what is needed, until the shop's own figure is known (a guess)."""


@dataclass(frozen=True)
class Amount:
    """What a mix of a recipe takes.

    Args:
        net_ml: on the bodies and past them, of all pieces [ml].
        gross_ml: with what stays in cup and brush [ml].
        drops: code and whole drops of each paint, its ratio kept.
        mixed_ml: what these drops are together [ml].
    """

    net_ml: float
    gross_ml: float
    drops: tuple[tuple[str, int], ...]
    mixed_ml: float


def amount(
    each_ml: float, pieces: int, parts: Sequence[tuple[str, int, float]], loss: float = LOSS
) -> Amount:
    """What a mix for a set takes; parts are code, drops in the ratio and ml of a drop.

    Notes: n pieces take n times one; then the loss is put on, then drops are rounded up, the whole ratio.

    Raises:
        Refused: no piece, no part, a loss that is none.
    """
    require(pieces >= 1 and bool(parts), "pieces", pieces, rule("a-piece"))
    finite_between("loss", loss, 0.0, 3.0)
    net = each_ml * pieces
    gross = net * (1.0 + loss)
    once = sum(count * drop_ml for _, count, drop_ml in parts)
    times = max(ceil(gross / once - 1e-9), 1)
    return Amount(net, gross, tuple((code, count * times) for code, count, _ in parts), once * times)


@dataclass(frozen=True)
class Pigment:
    """A paint that goes into a mix: its code and name, whole drops and ml of it, what is left on the shelf
    [ml] (None where no pot is counted).
    """

    code: str
    name: str
    drops: int
    ml: float
    left_ml: float | None

    @property
    def lacks_ml(self) -> float:
        """What must be bought [ml]."""
        return max(self.ml - self.left_ml, 0.0) if self.left_ml is not None else 0.0


@dataclass(frozen=True)
class Needed:
    """A paint that a set of pieces takes: as the layers have it, how much, and what goes into it; none of the
    shelf has no pigments. `by` is how it goes on, empty where in more than one way.
    """

    paint: Paint
    layers: tuple[str, ...]
    amount: Amount
    pigments: tuple[Pigment, ...]
    by: str = ""


def needed(
    design: Design,
    pieces: int,
    loss: float,
    shelf: Mapping[str, ShelfPaint],
    recipes: Mapping[str, Sequence[RecipePart]],
    stays: Mapping[str, float] = STAYS_SHARE,
) -> tuple[Needed, ...]:
    """What the layers of a design take of each paint for so many pieces, in the order they go on.

    Args:
        design, pieces, loss: what is painted, how often, and what stays in cup and brush, of what is needed.
        shelf: paints by code.
        recipes: parts of colours that are mixed, by code.
        stays: what of it stays on the body, by how it goes on.
    """
    rows: dict[tuple[str, ...], list[Cup]] = {}
    for cup in cups(design, stays):
        if cup.wet_ml > 0:
            rows.setdefault(_of_paint(cup.layer.paint), []).append(cup)
    return tuple(_needed(row, pieces, loss, shelf, recipes) for row in rows.values())


def _of_paint(paint: Paint) -> tuple[str, ...]:
    """What tells one paint from another."""
    return (paint.code,) if paint.code else (paint.name, paint.colour.upper(), paint.kind, paint.chemistry)


def _needed(
    row: Sequence[Cup],
    pieces: int,
    loss: float,
    shelf: Mapping[str, ShelfPaint],
    recipes: Mapping[str, Sequence[RecipePart]],
) -> Needed:
    paint, each = row[0].layer.paint, sum(cup.wet_ml for cup in row)
    parts = [(part.code, int(part.drops)) for part in recipes.get(paint.code, ())] or [(paint.code, 1)]
    is_known = all(code in shelf and drops > 0 for code, drops in parts)
    drops = [(code, count, shelf[code].drop_ml if is_known else DROP_ML) for code, count in parts]
    whole = amount(each, pieces, drops, loss)
    pigments = [
        Pigment(code, shelf[code].name, count, count * shelf[code].drop_ml, _left(shelf[code]))
        for code, count in (whole.drops if is_known else ())
    ]
    ways = {cup.layer.by for cup in row}
    by = ways.pop() if len(ways) == 1 else ""
    return Needed(paint, tuple(cup.layer.name for cup in row), whole, tuple(pigments), by)


def _left(paint: ShelfPaint) -> float | None:
    return paint.left_ml if paint.pots else None

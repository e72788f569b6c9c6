"""The shelf as recipes are looked for: paints whose looks are known, as strong as the shop's mixes say."""

from collections.abc import Sequence
from dataclasses import replace
from functools import lru_cache

from lamsik.core.errors import Refused
from lamsik.core.paints.matching import Recipe, matches
from lamsik.core.paints.measured import measured
from lamsik.core.paints.mixing import Backing, Tint, lab_mixed
from lamsik.core.paints.shelf import ShelfPaint
from lamsik.core.paints.strengths import MixedSwatch, Strengths, strengths
from lamsik.core.paints.wanted import WantedColour
from lamsik.core.shapes.curves import Array

Shelf = tuple[tuple[str, ShelfPaint], ...]
"""Paints by their codes."""


def tint(code: str, paint: ShelfPaint) -> Tint | None:
    """A paint as it is mixed; None where its kind does not mix, or no surface looks as its swatch."""
    if not paint.mixes:
        return None
    try:
        known = measured(paint.swatch)
    except Refused:
        return None
    return Tint(code, known.k_um, known.s_um, 1.0, paint.drop_ml, paint.price)


@lru_cache(maxsize=16)
def taught(shelf: Shelf, mixed: tuple[WantedColour, ...]) -> Strengths:
    """What the shop's mixed swatches say of the paints on its shelf."""
    rows = [one for code, paint in shelf if (one := tint(code, paint)) is not None]
    swatches = [
        MixedSwatch(tuple((part.code, part.drops) for part in match.parts), match.on, match.seen)
        for match in mixed
        if match.is_seen and match.parts
    ]
    return strengths(rows, swatches)


@lru_cache(maxsize=16)
def tints(shelf: Shelf, mixed: tuple[WantedColour, ...]) -> tuple[Tint, ...]:
    """Paints that may be mixed, as strong as they are known to be."""
    known = taught(shelf, mixed)
    rows = [one for code, paint in shelf if (one := tint(code, paint)) is not None]
    return tuple(replace(one, strength=known.of.get(one.code, 1.0)) for one in rows)


@lru_cache(maxsize=64)
def recipes(match: WantedColour, shelf: Shelf, mixed: tuple[WantedColour, ...]) -> tuple[Recipe, ...]:
    """The best recipes for a wanted colour from the shelf; paints of which nothing is left are left out.

    Raises:
        Refused: the ground looks as no surface does.
    """
    empty = {code for code, paint in shelf if paint.pots and paint.left_ml <= 0}
    rows = [one for one in tints(shelf, mixed) if one.code not in empty]
    return tuple(matches(match.wanted, rows, match.on)) if rows else ()


def foretold(match: WantedColour, rows: Sequence[Tint], ground: Backing) -> Array | None:
    """Lab (3,) of the recipe a match has; None where it has none, or a paint of it is not known."""
    known = {one.code: one for one in rows}
    if not match.parts or any(part.code not in known for part in match.parts):
        return None
    if sum(part.drops for part in match.parts) <= 0:
        return None
    return lab_mixed([known[part.code] for part in match.parts], [part.drops for part in match.parts], ground)

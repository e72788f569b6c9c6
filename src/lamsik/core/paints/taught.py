"""The shelf as recipes are looked for: paints whose looks are known, as strong as the shop's mixes say."""

from collections.abc import Mapping, Sequence
from dataclasses import replace
from functools import lru_cache

from lamsik.core.errors import Refused
from lamsik.core.paints.film import under_surface
from lamsik.core.paints.lab import Lab
from lamsik.core.paints.matching import Recipe, matches
from lamsik.core.paints.measured import measured, smoothest
from lamsik.core.paints.mixing import Backing, Tint, lab_mixed
from lamsik.core.paints.paint import Paint
from lamsik.core.paints.shelf import TYPED, ShelfPaint
from lamsik.core.paints.strengths import MixedSwatch, Strengths, strengths
from lamsik.core.paints.swatch import CARD, Swatch
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
    return strengths(rows, [seen for match in mixed if (seen := _swatch(match)) is not None])


def _swatch(match: WantedColour) -> MixedSwatch | None:
    """What a colour that was mixed and seen teaches; None where it teaches nothing: not seen, no drop in it,
    or laid on what no surface looks like.
    """
    parts = tuple((part.code, part.drops) for part in match.parts if part.drops > 0)
    if not match.is_seen or not parts:
        return None
    try:
        return MixedSwatch(parts, match.on, match.seen)
    except Refused:
        return None


@lru_cache(maxsize=16)
def tints(shelf: Shelf, mixed: tuple[WantedColour, ...]) -> tuple[Tint, ...]:
    """Paints that may be mixed, as strong as they are known to be."""
    known = taught(shelf, mixed)
    rows = [one for code, paint in shelf if (one := tint(code, paint)) is not None]
    return tuple(replace(one, strength=known.of.get(one.code, 1.0)) for one in rows)


def recipes(match: WantedColour, shelf: Shelf, mixed: tuple[WantedColour, ...]) -> tuple[Recipe, ...]:
    """The best recipes for a wanted colour from the shelf; paints of which nothing is left are left out.

    Raises:
        Refused: the ground looks as no surface does.
    """
    empty = {code for code, paint in shelf if paint.pots and paint.left_ml <= 0}
    rows = tuple(one for one in tints(shelf, mixed) if one.code not in empty)
    plain = WantedColour("wanted", match.wanted, ground=match.ground, film_um=match.film_um)
    return _recipes(plain, rows)


@lru_cache(maxsize=64)
def _recipes(match: WantedColour, rows: tuple[Tint, ...]) -> tuple[Recipe, ...]:
    return tuple(matches(match.wanted, rows, match.on)) if rows else ()


def foretold(match: WantedColour, rows: Sequence[Tint], ground: Backing) -> Array | None:
    """Lab (3,) of the recipe a match has; None where it has none, or a paint of it is not known."""
    known = {one.code: one for one in rows}
    if not match.parts or any(part.code not in known for part in match.parts):
        return None
    if sum(part.drops for part in match.parts) <= 0:
        return None
    return lab_mixed([known[part.code] for part in match.parts], [part.drops for part in match.parts], ground)


@lru_cache(maxsize=64)
def mixed_paint(match: WantedColour, shelf: Shelf, mixed: tuple[WantedColour, ...]) -> Paint | None:
    """A colour as it is mixed, as a layer takes it: its looks foretold, what else it is by volume; None where
    it has no recipe, or a paint of it is not known.
    """
    paints, rows = dict(shelf), tints(shelf, mixed)
    grounds = [under_surface(smoothest(one, "card")) for one in CARD]
    foretelling = [foretold(match, rows, Backing(ground, match.film_um)) for ground in grounds]
    looks = [one for one in foretelling if one is not None]
    if len(looks) < len(grounds):
        return None
    shares = _shares(match, paints)
    main = paints[max(shares, key=lambda code: shares[code])]
    solids = sum(share * paints[code].solids_percent for code, share in shares.items())
    density = sum(share * paints[code].density_g_cm3 for code, share in shares.items())
    white, black = (Lab(*(float(one) for one in look)) for look in looks)
    swatch = Swatch(white, black, match.film_um)
    whole = ShelfPaint(
        match.name, main.kind, main.chemistry, swatch, TYPED, solids, density, caution=main.caution
    )
    return whole.as_paint


def _shares(match: WantedColour, paints: Mapping[str, ShelfPaint]) -> dict[str, float]:
    """What of the mix each paint is, by wet volume."""
    volumes = {part.code: part.drops * paints[part.code].drop_ml for part in match.parts}
    return {code: volume / sum(volumes.values()) for code, volume in volumes.items()}

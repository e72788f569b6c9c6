"""What is said of moulds: the verdict, the halves as they are poured and as they are printed."""

from lamsik.core.moulds.advice import Look, turns
from lamsik.core.moulds.funnels import feed_ml, feeds
from lamsik.core.moulds.layout import Mould, cavity_ml
from lamsik.core.moulds.silicone import BLOCK, FIRST_HALF, SECOND_HALF
from lamsik.core.moulds.vents import FLAT
from lamsik.core.quantities import said
from lamsik.core.trade.mould_kinds import INJECTION, OPEN, PRESS, SPLIT, TWO_PART

HALVES = {
    BLOCK: "the block",
    FIRST_HALF: "first half, over the master",
    SECOND_HALF: "second half, in place of the clay",
}
"""By the half that is poured."""

PULLS = {
    "side": "the flank: it lies on its side",
    "back": "the back: it lies belly down",
    "belly": "the belly: it lies back down",
    "nose": "the nose: it stands on its tail",
    "tail": "the tail: it stands on its nose",
}
"""Towards what the upper half is pulled off, and how the master lies then."""

FILLED = {
    OPEN: "From one corner, letting it creep over",
    TWO_PART: "A thin stream into the funnel, from high",
    SPLIT: "A thin stream into the funnel, from high",
    PRESS: "Over-fill the lower half, close it on one side first",
    INJECTION: "Push it in slowly until it shows at the vents",
}
"""How a kind of mould is filled."""

VENTS = {"round": "round", "slit": "slit, a third as deep as wide"}
"""By the shape of a vent."""

PROGRESS = {"block": "the block", "halves": "cutting the halves", "check": "looking it over"}
"""What is worked at while halves are made for a printer; others by their own name."""


def verdict(mould: Mould, seen: Look) -> str:
    """The verdict: what it takes, whether air stays."""
    count = len(mould.cavities)
    poured = " and ".join(said(half.pour_ml, "volume", 0) for half in seen.halves)
    cavities = f"{count} cavities" if count > 1 else "one cavity"
    air = ""
    if seen.points:
        spots, ways = len(seen.points), turns(mould)
        where = "each casting" if len(ways) == 1 else f"a cavity turned {said(ways[0], 'angle', 0)}"
        air = (
            f" {'Air stays' if spots == 1 else f'{spots} places hold air'}:"
            f" {said(sum(p.trapped_ml for p in seen.points), 'volume')} in {where} as it stands."
        )
    elif mould.kind != INJECTION and not seen.turned:
        air = (
            " No air stays as it stands."
            if mould.stand != FLAT or mould.kind != OPEN
            else " It is open above: no air stays."
        )
    for turn, points in seen.turned:
        air += (
            f" Turned {said(turn, 'angle', 0)}, a cavity holds"
            f" {said(sum(p.trapped_ml for p in points), 'volume')}."
        )
    feed = (
        f", {said(feed_ml(mould), 'volume', 1)} in the funnel{'s' if count > 1 else ''}"
        if feeds(mould)
        else ""
    )
    return (
        f"{mould.kind.capitalize()} mould of {cavities} of {said(cavity_ml(mould), 'volume', 1)}{feed};"
        f" it takes {poured}"
        f" of mould material.{air}"
    )

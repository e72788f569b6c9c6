"""Colours in words: how far two lie apart, what a recipe is, how well mixtures are foretold."""

from collections.abc import Iterable, Mapping

from lamsik.core.paints.shelf import GUESSED, ShelfPaint
from lamsik.core.paints.strengths import Strengths
from lamsik.core.quantities import counted, said

STEPS = ((0.5, "nobody tells them apart"), (1.0, "told apart side by side"), (2.0, "near"), (4.0, "seen"))
"""How far two looks lie apart (ΔE2000), in words, up to each figure."""
SOURCES = {
    "typed": "typed",
    "photo": "off a photo",
    "reader": "by the colour reader",
    "guessed": "not looked at yet",
}
"""Where looks are from."""
MOVES = {
    "lighter": "Lighter",
    "darker": "Darker",
    "redder": "Redder",
    "greener": "Less red",
    "warmer": "Warmer",
    "cooler": "Cooler",
}
"""How a wanted colour is moved."""


def apart(off: float) -> str:
    """How far two looks lie apart."""
    says = next((text for most, text in STEPS if off <= most), "another colour")
    return f"ΔE {said(off, 'number', 1)}, {says}"


def recipe(parts: Iterable[tuple[str, float]], names: Mapping[str, str]) -> str:
    """A recipe: drops of each paint by its name."""
    return " + ".join(f"{said(drops, 'number', 0)} {names.get(code, code)}" for code, drops in parts)


def paint(one: ShelfPaint) -> str:
    """A paint in a sentence."""
    looks = {
        GUESSED: "its looks are a guess: spray a card and type what you see",
        "typed": "looks typed",
        "photo": "looks off a photo",
        "reader": "looks by the colour reader",
    }[one.source]
    return f"{one.kind.capitalize()}, {one.chemistry}-based; {looks}."


def pots(one: ShelfPaint) -> str:
    """What is wrong with the pots of a paint in a recipe; empty where nothing is."""
    if not one.pots or one.left_ml > 0:
        return ""
    return (
        f"its pots are empty: {f'take {one.instead}' if one.instead else 'buy some, or take another recipe'}"
    )


def model(known: Strengths) -> str:
    """How well mixtures are foretold."""
    if known.median is None or known.worst is None:
        return (
            "No mixed swatch tells yet how well mixtures are foretold: note how two of your mixes came out."
        )
    return (
        f"Foretells your {counted(known.count, 'mixed swatch', 'mixed swatches')} to ΔE"
        f" {said(known.median, 'number', 1)} (median), {said(known.worst, 'number', 1)} at worst, each left"
        " out of what it is held against."
    )

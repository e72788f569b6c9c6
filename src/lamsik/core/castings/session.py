"""A pour as a guided run: what must be ticked before the clock of a time-boxed step starts, in which order
it goes.
"""

from dataclasses import dataclass

from lamsik.core.errors import Refused
from lamsik.core.mixes.product import Product
from lamsik.core.moulds.layout import Mould
from lamsik.core.moulds.pull import PRESS

PREPARE, WEIGH, MIX, POUR, CURE, DEMOULD, COUNT, DONE = (
    "prepare",
    "weigh",
    "mix",
    "pour",
    "cure",
    "demould",
    "count",
    "done",
)
DROPPED = "dropped"
"""A pour given up before anything was poured: no shot of its mould."""

ORDER = (PREPARE, WEIGH, MIX, POUR, CURE, DEMOULD, COUNT, DONE)
TITLES = {
    PREPARE: "Lay everything out",
    WEIGH: "Weigh the parts",
    MIX: "Mix",
    POUR: "Pour",
    CURE: "Let it cure",
    DEMOULD: "Demould",
    COUNT: "Count good and bad",
    DONE: "Put away",
    DROPPED: "Dropped",
}
UNTIL_POURED = (PREPARE, WEIGH, MIX, POUR)
"""Steps at which a pour can still be corrected or dropped."""

FIRMNESS = ("", "soft", "firm", "hard")


@dataclass(frozen=True)
class Tick:
    """Something to see to before the clock starts."""

    key: str
    says: str


def checklist(product: Product, mould: Mould | None, inserts: int = 0) -> tuple[Tick, ...]:
    """What has to be ticked before mixing: the clock runs from then on."""
    rows = [
        Tick("laid out", "Mould, cups, sticks, inserts, bands, a place for drips: all within reach"),
        Tick("protection", "Gloves and glasses on, room aired, as the caution beside says"),
        Tick(
            "level",
            (
                "Bench and mould stand level"
                if mould is None or not mould.tilt_deg
                else f"Mould is propped at {abs(mould.tilt_deg):.0f}° and stands firm"
            ),
        ),
        Tick("release", "Release is on where the material needs it, and dry"),
    ]
    if product.stir_s:
        rows.append(Tick("stirred", f"Tubs stirred for {product.stir_s:.0f} s each, to the bottom"))
    if inserts:
        rows.append(
            Tick("inserts", f"Wire, ballast and tubes are in: {inserts} for each cavity, clean and dry")
        )
    if mould is not None and mould.kind == PRESS:
        rows.append(Tick("pressing", "Boards and clamps lie ready; wells are clean"))
    if product.kind == "plastisol":
        rows.append(
            Tick(
                "dry",
                "Mould and jug are dry: a drop of water spits; no shared kitchen oven, microwave or jug",
            )
        )
    rows.append(Tick("caution", "I have read the caution and the product's safety data sheet"))
    return tuple(rows)


def missing(ticks: tuple[Tick, ...], done: frozenset[str]) -> tuple[Tick, ...]:
    """What is not ticked yet."""
    return tuple(tick for tick in ticks if tick.key not in done)


def following(step: str, ticks: tuple[Tick, ...], done: frozenset[str]) -> str:
    """The step after this one.

    Raises:
        Refused: the time-boxed part cannot start before everything is ticked; or there is nothing after the
            last.
    """
    left = missing(ticks, done)
    if step == PREPARE and left:
        raise Refused("checklist", f"{len(left)} open", f"tick first: {left[0].says}")
    at = ORDER.index(step)
    if at + 1 >= len(ORDER):
        raise Refused("step", step, "this pour is finished")
    return ORDER[at + 1]

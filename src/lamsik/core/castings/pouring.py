"""A pour as a guided run: the states of a mould's shot and of the cup it is poured from, and the events that
lead from one to the next. What is not in the table of events cannot happen.
"""

from collections.abc import Mapping
from dataclasses import dataclass

from lamsik.core.errors import Refused, rule
from lamsik.core.mixes.product import Product
from lamsik.core.moulds.layout import Mould
from lamsik.core.quantities import said
from lamsik.core.trade.mould_kinds import PRESS

PREPARE, WEIGH, POUR, CURE, DEMOULD, COUNT, DONE = (
    "prepare",
    "weigh",
    "pour",
    "cure",
    "demould",
    "count",
    "done",
)
GIVEN_UP = "dropped"
"""A pour given up before anything was poured: no shot of its mould."""
ALONE = ""
"""Where a cup is that no pour is begun for: a mould's own material, a test."""

ORDER = (PREPARE, WEIGH, POUR, CURE, DEMOULD, COUNT, DONE)
TITLES = {
    PREPARE: "Lay everything out",
    WEIGH: "Weigh and mix",
    POUR: "Pour",
    CURE: "Let it cure",
    DEMOULD: "Demould",
    COUNT: "Count good and bad",
    DONE: "Put away",
    GIVEN_UP: "Dropped",
}
UNTIL_POURED = (PREPARE, WEIGH, POUR)
"""Steps at which a pour can still be corrected or dropped."""

NONE, WEIGHING, MIXED, POURED, FAILED, PUT_BACK = "", "weighing", "mixed", "poured", "failed", "dropped"
"""States of a cup; what was in one that is put back is on the books again."""

FIRMNESS = ("", "soft", "firm", "hard")


@dataclass(frozen=True)
class Stand:
    """Where a pour is, and its cup."""

    step: str
    cup: str = NONE


@dataclass(frozen=True)
class Happening:
    """What an event leads to, from where it can happen; anything else is refused with `says`.

    Args:
        steps: the step a pour goes on to, by the step it is at.
        cups: the state its cup goes on to, by its state.
        says: what is said where it cannot happen.
    """

    steps: Mapping[str, str]
    cups: Mapping[str, str]
    says: str


def _stays(*names: str) -> dict[str, str]:
    return dict(zip(names, names, strict=True))


_EMPTIED = _stays(POURED, NONE)
"""Once it is poured nobody asks for its cup: of a pour of an earlier release it may not be known."""
NOT_MIXED = "weigh the parts and press Mixed on the weighing page"
HAPPENINGS: Mapping[str, Happening] = {
    "begin weighing": Happening(
        {PREPARE: WEIGH, ALONE: ALONE}, {NONE: WEIGHING}, "it is weighed for already, or further on"
    ),
    "mix": Happening({WEIGH: POUR, ALONE: ALONE}, {WEIGHING: MIXED}, "it is mixed already"),
    "unmix": Happening(
        {POUR: WEIGH, ALONE: ALONE},
        {MIXED: WEIGHING},
        "only one that is mixed and not poured goes back to the scale",
    ),
    "pour": Happening({POUR: CURE, ALONE: ALONE}, {MIXED: POURED}, NOT_MIXED),
    "demould": Happening({CURE: DEMOULD}, _EMPTIED, "only what is poured and set is demoulded"),
    "take out": Happening({DEMOULD: COUNT}, _EMPTIED, "demould it first"),
    "count": Happening({COUNT: DONE}, _EMPTIED, "only what is out of the mould is counted, and only once"),
    "fail": Happening(
        {CURE: DONE, DEMOULD: DONE, COUNT: DONE},
        {POURED: FAILED, NONE: NONE},
        "only what is poured and not counted fails: before that drop it, it is no shot of the mould",
    ),
    "give up": Happening(
        {PREPARE: GIVEN_UP, WEIGH: GIVEN_UP, POUR: GIVEN_UP},
        {NONE: NONE, WEIGHING: PUT_BACK, MIXED: FAILED},
        "it is poured already: count it, or tag it as failed",
    ),
    "put back": Happening(
        {WEIGH: PREPARE, ALONE: ALONE},
        {WEIGHING: PUT_BACK},
        "only one that is weighed is dropped: what was used stays on the books",
    ),
    "spoil": Happening(
        {WEIGH: PREPARE, POUR: PREPARE, ALONE: ALONE},
        {WEIGHING: FAILED, MIXED: FAILED},
        "only one that is not poured fails: what was used stays on the books",
    ),
}
"""By the name of the event."""


def after(stand: Stand, event: str) -> Stand:
    """Where a pour and its cup stand once something happened.

    Raises:
        Refused: it cannot happen from there.
    """
    happening = HAPPENINGS[event]
    if stand.step not in happening.steps or stand.cup not in happening.cups:
        raise Refused("pour" if stand.step else "batch", stand.step or stand.cup, happening.says)
    return Stand(happening.steps[stand.step], happening.cups[stand.cup])


def can(stand: Stand, event: str) -> bool:
    """Whether something can happen from there."""
    return stand.step in HAPPENINGS[event].steps and stand.cup in HAPPENINGS[event].cups


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
                else f"Mould is propped at {said(abs(mould.tilt_deg), 'angle', 0)} and stands firm"
            ),
        ),
        Tick("release", "Release is on where the material needs it, and dry"),
    ]
    if product.stir_s:
        rows.append(
            Tick("stirred", f"Tubs stirred for {said(product.stir_s, 'seconds', 0)} each, to the bottom")
        )
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


def all_laid_out(ticks: tuple[Tick, ...], done: frozenset[str]) -> None:
    """Raises `Refused` while something is not ticked: the time-boxed part does not start before."""
    left = missing(ticks, done)
    if left:
        raise Refused("checklist", f"{len(left)} open", rule("tick-first", says=left[0].says))

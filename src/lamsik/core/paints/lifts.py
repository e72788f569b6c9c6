"""What may lie on what, after how long: only what the shop has tried itself on a test patch says so."""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Annotated

from lamsik.core.limits import Between, Name, OneOf, held
from lamsik.core.paints.layers import Layer
from lamsik.core.paints.odd import Warned
from lamsik.core.paints.paint import CHEMISTRIES

HELD, *_ = RESULTS = ("held", "lifted", "wrinkled", "peeled")
"""How a test patch came out."""
NONE = CHEMISTRIES[-1]
LIFTS, WAIT_LONGER, UNTRIED = "lifts", "wait_longer", "untried"
"""What can be said of one layer on another."""


@dataclass(frozen=True)
class Patch:
    """A test patch: what lay under, what went on, after how long [h], and how it came out."""

    under: Annotated[str, OneOf(CHEMISTRIES)]
    over: Annotated[str, OneOf(CHEMISTRIES)]
    after_h: Annotated[float, Between(0, 5000, "h", "from one to the other")]
    result: Annotated[str, OneOf(RESULTS)]
    note: Name = ""

    def __post_init__(self) -> None:
        held(self)

    @property
    def is_good(self) -> bool:
        """Whether it held."""
        return self.result == HELD


def pairs(layers: Sequence[Layer]) -> list[tuple[Layer, Layer]]:
    """Each layer of a chemistry with the next one that has one, where they differ."""
    wet = [one for one in layers if one.paint.chemistry != NONE]
    return [
        (under, over)
        for under, over in zip(wet, wet[1:], strict=False)
        if under.paint.chemistry != over.paint.chemistry
    ]


def lifting(layers: Sequence[Layer], patches: Sequence[Patch]) -> list[Warned]:
    """What the shop's test patches say of each layer on the one under it; of a pair nobody has tried once.

    Notes: a patch that failed after as long or longer speaks against it, one that held after as long or
        sooner for it; the least time at which one held is what to wait.
    """
    warned, untried = [], set()
    for under, over in pairs(layers):
        pair = (under.paint.chemistry, over.paint.chemistry)
        tried = [one for one in patches if (one.under, one.over) == pair]
        good = [one.after_h for one in tried if one.is_good]
        bad = [one.after_h for one in tried if not one.is_good]
        held_h, failed_h = min(good, default=None), max(bad, default=None)
        if over.intended:
            continue
        if failed_h is not None and failed_h >= under.wait_h and (held_h is None or held_h <= failed_h):
            warned.append(Warned(LIFTS, over.key, under.key, (("hours", failed_h, "time"),)))
        elif held_h is not None and held_h > under.wait_h:
            warned.append(Warned(WAIT_LONGER, over.key, under.key, (("hours", held_h, "time"),)))
        elif held_h is None and pair not in untried:
            untried.add(pair)
            warned.append(Warned(UNTRIED, over.key, under.key))
    return warned

"""Kinds of step on the way of a piece: at which bench, how long hands are on it, what it occupies. A kind
more is one row here, and its words in `words/route.py`.

The minutes are those a shop begins with, until its own are known (spread about a third): set-up, once for all
pieces that are done together, and each. Those of a print, a blade, a float's stem and of shipping are our own
guess beside the others.
"""

from collections.abc import Mapping
from dataclasses import dataclass

from lamsik.core.errors import Refused, finite_between, rule

MOST_MIN = 600.0
"""Longest that hands are on one step [min]."""


@dataclass(frozen=True)
class StepKind:
    """A kind of step.

    Args:
        key: its name where the shop's own minutes are kept.
        bench: where it is done.
        setup_min: hands-on time once for all pieces done together [min].
        each_min: hands-on time for each piece [min].
        resource: what of the shop it occupies; empty where only hands are needed.
        makes_body: whether the body itself is made by it.
        hands_over: whether the piece leaves the shop by it: with only such left it is ready.
    """

    key: str
    bench: str
    setup_min: float
    each_min: float
    resource: str = ""
    makes_body: bool = False
    hands_over: bool = False


_ROWS = (
    StepKind("carve", "saw", 15, 42, makes_body=True),
    StepKind("cut", "saw", 5, 30, makes_body=True),
    StepKind("pour", "moulds", 2, 4, "mould", makes_body=True),
    StepKind("print", "printer", 5, 12, "printer", makes_body=True),
    StepKind("bend", "bench", 10, 15, makes_body=True),
    StepKind("seal", "brush", 5, 2, "wheel"),
    StepKind(
        "fit",
        "bench",
        10,
        15,
    ),
    StepKind(
        "assemble",
        "bench",
        5,
        6,
    ),
    StepKind("tub", "tub", 5, 6, "tub"),
    StepKind("come", "desk", 3, 4),
    StepKind("key", "bench", 3, 8),
    StepKind("strip", "bench", 8, 20),
    StepKind("mask", "bench", 5, 3),
    StepKind("prime", "spray corner", 6, 3, "spray corner"),
    StepKind("colour", "spray corner", 4, 2, "spray corner"),
    StepKind("stencil", "spray corner", 5, 4, "spray corner"),
    StepKind("eyes", "bench", 2, 3),
    StepKind("clear", "wheel", 8, 4, "wheel"),
    StepKind(
        "rig",
        "bench",
        3,
        5,
    ),
    StepKind("swim", "water", 15, 8),
    StepKind("check", "bench", 2, 3),
    StepKind("pack", "bench", 5, 6),
    StepKind("ship", "desk", 5, 2, hands_over=True),
)
STEP_KINDS: Mapping[str, StepKind] = {kind.key: kind for kind in _ROWS}
"""By key, in the order they usually come."""

Minutes = Mapping[str, tuple[float, float]]
"""By kind of step: set-up and each [min]."""


def minutes(own: Mapping[str, tuple[float, float]] | None = None) -> dict[str, tuple[float, float]]:
    """Set-up and each [min] of every kind: the shop's own where it has them, else the table's.

    Raises:
        Refused: a figure of the shop that is no time.
    """
    of_kinds = {key: (kind.setup_min, kind.each_min) for key, kind in STEP_KINDS.items()}
    for key, (setup, each) in (own or {}).items():
        if key not in STEP_KINDS:
            raise Refused("minutes", key, rule("one-of", listed=", ".join(STEP_KINDS)))
        of_kinds[key] = (
            finite_between("set-up", setup, 0.0, MOST_MIN, "min"),
            finite_between("each", each, 0.0, MOST_MIN, "min"),
        )
    return of_kinds

"""Kinds of step on the way of a piece: at which bench, how long hands are on it, what it occupies, what is
looked at before it counts as done. A kind more is one row here.

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
        word: what it is called.
        bench: where it is done.
        setup_min: hands-on time once for all pieces done together [min].
        each_min: hands-on time for each piece [min].
        resource: what of the shop it occupies; empty where only hands are needed.
        checklist: what is looked at before it counts as done.
        makes_body: whether the body itself is made by it.
        hands_over: whether the piece leaves the shop by it: with only such left it is ready.
    """

    key: str
    word: str
    bench: str
    setup_min: float
    each_min: float
    resource: str = ""
    checklist: tuple[str, ...] = ()
    makes_body: bool = False
    hands_over: bool = False


_ROWS = (
    StepKind("carve", "saw, carve and sand", "saw", 15, 42, makes_body=True),
    StepKind("cut", "cut and sand foam", "saw", 5, 30, makes_body=True),
    StepKind("pour", "demould and trim", "moulds", 2, 4, "mould", makes_body=True),
    StepKind("print", "clean and sand a print", "printer", 5, 12, "printer", makes_body=True),
    StepKind("bend", "cut and bend a blade", "bench", 10, 15, makes_body=True),
    StepKind("seal", "seal", "brush", 5, 2, "wheel"),
    StepKind(
        "fit",
        "drill, ballast and hang",
        "bench",
        10,
        15,
        checklist=("Every hole of the map drilled, slugs seated", "Tie and hangers in line with the keel"),
    ),
    StepKind(
        "assemble",
        "stem, eye and load of a float",
        "bench",
        5,
        6,
        checklist=("Stem in line with the body", "Eye closed, load seated"),
    ),
    StepKind(
        "tub", "tub test", "tub", 5, 6, "tub", ("No bubble on it", "Hooks and rings as it will be fished")
    ),
    StepKind("prime", "prime", "spray corner", 6, 3, "spray corner"),
    StepKind("colour", "a colour", "spray corner", 4, 2, "spray corner"),
    StepKind("stencil", "stencil or net", "spray corner", 5, 4, "spray corner", ("Both sides mirror",)),
    StepKind("eyes", "eyes", "bench", 2, 3, checklist=("Level from the nose and from the back",)),
    StepKind("clear", "a clear", "wheel", 8, 4, "wheel", ("No run at the tail", "Joints and pivots move")),
    StepKind(
        "rig",
        "rings and hooks",
        "bench",
        3,
        5,
        checklist=("Line ties bare of clear", "Pivots and joints free", "Contacts bare, where it has any"),
    ),
    StepKind("swim", "swim test", "water", 15, 8),
    StepKind(
        "pack", "photograph and pack", "bench", 5, 6, checklist=("Both sides and the back", "Points covered")
    ),
    StepKind("ship", "ship", "desk", 5, 2, hands_over=True),
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

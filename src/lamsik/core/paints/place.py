"""Where on a body a layer lies: relative to the body, so that one scheme fits longer, deeper and jointed
ones.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Annotated

from lamsik.core.limits import Between, Name, OneOf, Says, held
from lamsik.core.paints.paint import BOTH, SIDES

NOSE, EYE, TAIL, JOINT, HANGER = ALONG = ("nose", "eye", "tail", "joint", "hanger")
BACK, KEEL = "back", "keel"
ROUND = (BACK, KEEL, EYE)
LETTERS = "letters"
SHAPE_NAMES = (
    "region",
    "bars",
    "spots",
    "net",
    "scales",
    "weave",
    "veins",
    "splatter",
    "stencil",
    "disc",
    "arc",
    LETTERS,
)
"""Shapes of masks; each is registered in `masks`."""
OUTLINES = ("leaf", "drop", "chevron", "fin", "star", "flame", "half moon")
"""Outlines a stencil can have; each is drawn in `outlines`."""
EYE_SHARE, EYE_ROUND = 0.085, 0.41
"""Where an eye sits that no layer places: behind the nose, and round from the back."""


@dataclass(frozen=True)
class Along:
    """A station: from an anchor so many lengths of the body, and so many millimetres, towards the tail."""

    anchor: Annotated[str, OneOf(ALONG)] = NOSE
    at_percent: Annotated[float, Between(-100, 100, "%", "of the body's length, towards the tail")] = 0.0
    more_mm: Annotated[float, Between(-600, 600, "mm", "and so far on, towards the tail")] = 0.0

    def __post_init__(self) -> None:
        held(self)


@dataclass(frozen=True)
class Round:
    """A place round the body: from an anchor so much of the way and so many mm on, towards the keel."""

    anchor: Annotated[str, OneOf(ROUND)] = BACK
    at_percent: Annotated[
        float, Between(-100, 100, "%", "of the way from back to keel, towards the keel")
    ] = 0.0
    more_mm: Annotated[float, Between(-600, 600, "mm", "and so far on, towards the keel")] = 0.0

    def __post_init__(self) -> None:
        held(self)


@dataclass(frozen=True)
class Place:
    """Where a layer lies: a shape within a stretch of the skin.

    `begins`, `ends` are where along the body, `top`, `bottom` how far round from the back; marks are spread
    over that stretch, `count` of them, `size_percent` of the body's depth and `size_mm` more across. Of a
    shape that lies at one place (`disc`, `arc`, a lone `stencil`) `begins` and `top` say where.
    `cover_percent` is how much of its shape it covers where that is not all: what a net or a splatter covers,
    a thin mist. `edge_percent` is how soft its rim is: 0 is cut, 100 fades all the way from its middle.
    """

    shape: Annotated[str, OneOf(SHAPE_NAMES)] = "region"
    begins: Along = Along()
    ends: Along = Along(TAIL)
    top: Round = Round()
    bottom: Round = Round(KEEL)
    count: Annotated[int, Between(0, 60, "", "how many marks")] = 0
    size_percent: Annotated[
        float, Between(0, 200, "%", "size of a mark, of the body's depth; of bars, of their pitch")
    ] = 0.0
    size_mm: Annotated[float, Between(0, 300, "mm", "and so much more")] = 0.0
    slant_deg: Annotated[float, Between(-80, 80, "°", "leans towards the tail at the keel")] = 0.0
    cover_percent: Annotated[float, Between(0, 100, "%", "how much of its shape it covers")] = 100.0
    edge_percent: Annotated[float, Between(0, 100, "%", "how soft its rim is: 0 cut, 100 all of it")] = 0.0
    side: Annotated[str, OneOf(SIDES)] = BOTH
    outline: Annotated[str, OneOf(OUTLINES)] = "leaf"
    words: Annotated[Name, Says("what letters say")] = ""
    seed: Annotated[int, Between(0, 9999, "", "which of the ways chance can fall")] = 1

    def __post_init__(self) -> None:
        held(self)

    @property
    def size_share(self) -> float:
        """Size of a mark, a share of the body's depth; of bars, of their pitch."""
        return self.size_percent / 100.0

    @property
    def cover_share(self) -> float:
        """How much of its shape it covers, of 1."""
        return self.cover_percent / 100.0

    @property
    def edge_share(self) -> float:
        """How soft its rim is, of 1."""
        return self.edge_percent / 100.0

    def is_on(self, side: str) -> bool:
        """Whether it lies on the left or the right of the body."""
        return self.side in (BOTH, side)


@dataclass(frozen=True)
class Anchors:
    """Where things are on a body that layers are placed from: x [mm] of the eye, of joints, of hangers, and
    how far round the eye sits.
    """

    eye_mm: float | None = None
    eye_round: float = EYE_ROUND
    joints_mm: tuple[float, ...] = ()
    hangers_mm: tuple[float, ...] = ()

    def x_mm(self, place: Along, length_mm: float) -> float:
        """A station [mm], held to the body; an anchor that the body lacks lies in its middle."""
        middle = length_mm / 2
        at = {
            NOSE: 0.0,
            TAIL: length_mm,
            EYE: EYE_SHARE * length_mm if self.eye_mm is None else self.eye_mm,
            JOINT: self.joints_mm[0] if self.joints_mm else middle,
            HANGER: self.hangers_mm[0] if self.hangers_mm else middle,
        }[place.anchor]
        return min(max(at + place.at_percent / 100.0 * length_mm + place.more_mm, 0.0), length_mm)

    def round_share(self, place: Round, girth_mm: float) -> float:
        """A place round the body, a share of the way from back to keel, held to it."""
        at = {BACK: 0.0, KEEL: 1.0, EYE: self.eye_round}[place.anchor]
        return min(max(at + place.at_percent / 100.0 + place.more_mm / max(girth_mm, 1e-9), 0.0), 1.0)

    def lacks(self, place: Place) -> tuple[str, ...]:
        """Anchors a place asks for that this body has not."""
        missing = {JOINT: not self.joints_mm, HANGER: not self.hangers_mm}
        asked: Sequence[str] = (place.begins.anchor, place.ends.anchor)
        return tuple(name for name in dict.fromkeys(asked) if missing.get(name))

"""Layers of a scheme: what is done, with which paint, where, in how many passes, and what follows."""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Annotated

from lamsik.core.errors import finite_between
from lamsik.core.limits import Between, Key, Name, OneOf, Says, held
from lamsik.core.paints.eyes import EYE_KINDS
from lamsik.core.paints.kinds import KINDS
from lamsik.core.paints.masks import SHAPES
from lamsik.core.paints.odd import Warned
from lamsik.core.paints.paint import Paint
from lamsik.core.paints.place import Place
from lamsik.core.paints.roles import FITTED, SPRAYED, WAYS

HIDING_SHARE = 0.9
"""A ground over so much of the surface leaves nothing of the colours under it to be seen."""
WHITE_LEAST = 0xD8
"""A ground is white for the colours over it when no part of its colour is darker."""


@dataclass(frozen=True)
class Layer:
    """One layer of a scheme: what is done, with which paint, where, in how many passes, and what follows.

    `film_um` is the dry film of one pass [µm] where it lies. Eyes are bought parts: they carry `mass_g`, of
    the pair, instead, and are of an `eye` kind. `by` is how it goes on; a sprayed one has its air and how far
    off the brush is held. `wait_h` is the least wait before the next layer; `window_h` the longest, if there
    is one, and `cure_h` how long the last coat of a clear takes to be hard; `scuff` says that it is rubbed
    dull before the next. `intended` answers what is found odd about it, so that no later hand corrects it; a
    layer that is `locked` stays as it is while others change.
    """

    key: Key
    kind: Annotated[str, OneOf(tuple(KINDS))]
    name: Name
    paint: Paint = Paint()
    place: Place = Place()
    film_um: Annotated[float, Between(0, 3000, "µm", "dry film of one pass")] = 20.0
    passes: Annotated[int, Between(1, 20, "", "passes of that film")] = 1
    wait_h: Annotated[float, Between(0, 2000, "h", "least wait before the next layer")] = 1.0
    window_h: Annotated[float, Between(0, 5000, "h", "longest wait before the next layer")] | None = None
    cure_h: (
        Annotated[float, Between(0, 5000, "h", "from the last coat of a clear until it is hard")] | None
    ) = None
    mass_g: Annotated[float, Between(0, 50, "g", "mass of a pair of eyes")] | None = None
    note: Name = ""
    by: Annotated[str, OneOf(WAYS), Says("how it goes on")] = SPRAYED
    pressure_bar: Annotated[float, Between(0, 10, "bar", "air at the brush")] | None = None
    distance_mm: Annotated[float, Between(0, 1000, "mm", "from the brush to the body")] | None = None
    eye: Annotated[str, OneOf(tuple(EYE_KINDS)), Says("of eyes, what they are")] = "flat"
    scuff: Annotated[bool, Says("rubbed dull before the next")] = False
    intended: Annotated[Name, Says("why it is meant to be so, where it looks wrong")] = ""
    locked: Annotated[bool, Says("stays as it is while others change")] = False

    def __post_init__(self) -> None:
        held(self)
        if self.window_h is not None:
            finite_between("window_h", self.window_h, self.wait_h, 5000.0, "h")

    @property
    def does(self) -> str:
        """What a layer of its kind does."""
        return KINDS[self.kind].does

    @property
    def is_glued_late(self) -> bool:
        """Whether it is eyes that can go on after the clear."""
        return self.does == FITTED and EYE_KINDS[self.eye].may_be_last

    @property
    def is_there(self) -> bool:
        """Whether it is eyes that are on the body before anything else."""
        return self.does == FITTED and EYE_KINDS[self.eye].is_there

    @property
    def dry_um(self) -> float:
        """All its passes [µm]."""
        return self.film_um * self.passes

    @property
    def is_counted(self) -> bool:
        """Whether it is a number of marks."""
        return "count" in SHAPES[self.place.shape].uses

    @property
    def covers_all(self) -> bool:
        """Whether hardly anything under it is left to be seen, by where it lies."""
        return (
            self.place == Place(side=self.place.side, cover_percent=self.place.cover_percent)
            and self.place.cover_share >= HIDING_SHARE
        )

    @property
    def is_white(self) -> bool:
        """Whether it is a white ground for the colours over it."""
        red, green, blue = (int(self.paint.colour[n : n + 2], 16) for n in (1, 3, 5))
        return min(red, green, blue) >= WHITE_LEAST and not self.paint.of.is_open


def begun(kind: str, key: str) -> Layer:
    """A new layer of a kind."""
    return Layer(key=key, kind=kind, **KINDS[kind].start)


def warned(layers: Sequence[Layer]) -> tuple[Warned, ...]:
    """What is wrong with where each lies, from the first layer on; what is meant so is not."""
    return tuple(
        one
        for n, layer in enumerate(layers)
        if not layer.intended
        for one in KINDS[layer.kind].warns(layer, layers[:n], layers[n + 1 :])
    )


def layers_upto(layers: Sequence[Layer], key: str | None) -> tuple[Layer, ...]:
    """The layers up to one, that one among them; all where there is none of that key."""
    keys = [layer.key for layer in layers]
    return tuple(layers[: keys.index(key) + 1] if key in keys else layers)

"""Layers of a scheme, and the kinds there are of them, registered by name: what each does, how a new one
begins, what surface it takes, what it weighs, what it must not lie on.

A kind more is one entry here and its drawing in `drawings/paint.py`; schemes, weights, routes and what a body
lacks ask the kind and know no names.
"""

from collections.abc import Callable, Iterator, Mapping, Sequence
from dataclasses import dataclass, field
from typing import Annotated, Any

from lamsik.core.errors import finite_between
from lamsik.core.limits import Between, Key, Name, OneOf, held
from lamsik.core.paints.paint import BOTH, Paint, Place

SEALS, GROUNDS, COLOURS, FITTED, CLEARS = "seals", "grounds", "colours", "fitted", "clears"
"""What a layer does: closes the body, gives paint a hold, is the pattern, is a bought part, protects all."""

SEALS_PAINT, HIDES, ON_CLEAR, NO_GROUND, NOT_COVERED = (
    "seals_paint",
    "hides",
    "on_clear",
    "no_ground",
    "not_covered",
)
"""What can be wrong with the place of a layer among the others."""
HIDING_SHARE = 0.9
"""A ground over so much of the surface leaves nothing of the colours under it to be seen."""


@dataclass(frozen=True)
class Warned:
    """A finding about a layer: which of the above, the layer's key, and the key of the other it is about."""

    name: str
    layer: str
    other: str = ""


Others = Sequence["Layer"]


@dataclass(frozen=True)
class LayerKind:
    """A kind of layer.

    Args:
        name, does: what it is called, and what it does.
        start: what a new one begins with; every figure is the maker's to change.
        is_counted: whether it is drawn in a number of marks.
        has_edge: whether it has a rim that can be soft.
        area_mm2: the surface it takes, of so much wetted surface [mm²].
        film_ml: its dry volume [ml] on such an area [mm²].
        mass_g: its dry mass [g] on such an area [mm²].
        warns: what is wrong with where it lies, given the layers under it and those over it.
    """

    name: str
    does: str
    start: Mapping[str, Any] = field(hash=False)
    is_counted: bool = False
    has_edge: bool = False
    area_mm2: Callable[["Layer", float], float] = lambda layer, surface: _covered(layer, surface)
    film_ml: Callable[["Layer", float], float] = lambda layer, area: _film_ml(layer, area)
    mass_g: Callable[["Layer", float], float] = lambda layer, area: _film_g(layer, area)
    warns: Callable[["Layer", Others, Others], Iterator[Warned]] = lambda *_: iter(())


def _covered(layer: "Layer", surface_mm2: float) -> float:
    """Share of the surface on each side that it lies on."""
    return surface_mm2 * layer.place.cover_share * (1.0 if layer.place.side == BOTH else 0.5)


def _film_ml(layer: "Layer", area_mm2: float) -> float:
    """Dry volume [ml]: area × film of one pass × passes; what carries a mass has that of it."""
    if layer.mass_g is not None:
        return layer.mass_g / layer.paint.density_g_cm3
    return layer.dry_um * 1e-3 * area_mm2 / 1000.0


def _film_g(layer: "Layer", area_mm2: float) -> float:
    """Dry mass [g]: volume × density of the film; of a bought part what it weighs."""
    if layer.mass_g is not None:
        return layer.mass_g
    return _film_ml(layer, area_mm2) * layer.paint.density_g_cm3


def _closes_in(layer: "Layer", under: Others, over: Others) -> Iterator[Warned]:
    painted = [one for one in under if one.does in (GROUNDS, COLOURS)]
    if painted:
        yield Warned(SEALS_PAINT, layer.key, painted[-1].key)


def _hides(layer: "Layer", under: Others, over: Others) -> Iterator[Warned]:
    yield from _on_clear(layer, under, over)
    colours = [one for one in under if one.does == COLOURS]
    if colours and layer.place.cover_share >= HIDING_SHARE:
        yield Warned(HIDES, layer.key, colours[-1].key)


def _on_clear(layer: "Layer", under: Others, over: Others) -> Iterator[Warned]:
    clears = [one for one in under if one.does == CLEARS]
    if clears:
        yield Warned(ON_CLEAR, layer.key, clears[-1].key)


def _grounded(layer: "Layer", under: Others, over: Others) -> Iterator[Warned]:
    yield from _on_clear(layer, under, over)
    late = [one for one in over if one.does == GROUNDS]
    if late and not any(one.does == GROUNDS for one in under):
        yield Warned(NO_GROUND, layer.key, late[0].key)


def _sealed_in(layer: "Layer", under: Others, over: Others) -> Iterator[Warned]:
    if any(one.does == CLEARS for one in under) and not any(one.does == CLEARS for one in over):
        yield Warned(NOT_COVERED, layer.key)


def _known(*kinds: LayerKind) -> dict[str, LayerKind]:
    return {kind.name: kind for kind in kinds}


KINDS = _known(
    LayerKind(
        "seal",
        SEALS,
        {
            "name": "Seal, thinned epoxy",
            "paint": Paint("#D9C08C", 1.12, caution="epoxy"),
            "film_um": 35.0,
            "wait_h": 12.0,
        },
        warns=_closes_in,
    ),
    LayerKind(
        "primer",
        GROUNDS,
        {"name": "White primer", "paint": Paint("#F4F2EC", 1.45), "film_um": 30.0, "wait_h": 2.0},
        warns=_hides,
    ),
    LayerKind("base", COLOURS, {"name": "Base", "paint": Paint("#D8DEE0"), "film_um": 15.0}, warns=_grounded),
    LayerKind(
        "fade",
        COLOURS,
        {
            "name": "Back fade",
            "paint": Paint("#3B5B45"),
            "place": Place(cover_share=0.5, reach_share=0.55, edge_share=0.5),
            "film_um": 12.0,
        },
        has_edge=True,
        warns=_grounded,
    ),
    LayerKind(
        "bars",
        COLOURS,
        {
            "name": "Bars",
            "paint": Paint("#22332B"),
            "place": Place(cover_share=0.2, reach_share=0.6, count=7),
            "film_um": 10.0,
        },
        is_counted=True,
        has_edge=True,
        warns=_grounded,
    ),
    LayerKind(
        "spots",
        COLOURS,
        {
            "name": "Spots",
            "paint": Paint("#A8281E"),
            "place": Place(cover_share=0.08, count=9),
            "film_um": 10.0,
        },
        is_counted=True,
        has_edge=True,
        warns=_grounded,
    ),
    LayerKind(
        "eyes",
        FITTED,
        {
            "name": "Eyes, 5 mm",
            "paint": Paint("#E8C33A", 1.3, caution=""),
            "place": Place(reach_share=0.26),
            "film_um": 0.0,
            "mass_g": 0.06,
            "wait_h": 0.0,
        },
        warns=_sealed_in,
    ),
    LayerKind(
        "clear",
        CLEARS,
        {
            "name": "Clear, slow epoxy",
            "paint": Paint("#FFFFFF", 1.12, caution="epoxy"),
            "film_um": 120.0,
            "wait_h": 24.0,
            "window_h": 36.0,
        },
    ),
)
"""By name, in the order they usually lie."""


@dataclass(frozen=True)
class Layer:
    """One layer of a scheme: what is done, with which paint, where, in how many passes, and what follows.

    `film_um` is the dry film of one pass [µm] where it lies. Eyes are bought parts: they carry `mass_g`, of
    the pair, instead. `wait_h` is the least wait before the next layer; `window_h` the longest, if there is
    one.
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
    mass_g: Annotated[float, Between(0, 50, "g", "mass of a pair of eyes")] | None = None
    note: Name = ""

    def __post_init__(self) -> None:
        held(self)
        if self.window_h is not None:
            finite_between("window_h", self.window_h, self.wait_h, 5000.0, "h")

    @property
    def does(self) -> str:
        """What a layer of its kind does."""
        return KINDS[self.kind].does

    @property
    def dry_um(self) -> float:
        """All its passes [µm]."""
        return self.film_um * self.passes


def begun(kind: str, key: str) -> Layer:
    """A new layer of a kind."""
    return Layer(key=key, kind=kind, **KINDS[kind].start)


@dataclass(frozen=True)
class Laid:
    """A layer on a body: area it takes [mm²], dry volume [ml], dry mass [g]."""

    area_mm2: float
    film_ml: float
    mass_g: float


def laid(layer: Layer, surface_mm2: float) -> Laid:
    """The layer on so much wetted surface [mm²]."""
    kind = KINDS[layer.kind]
    area = kind.area_mm2(layer, surface_mm2)
    return Laid(area, kind.film_ml(layer, area), kind.mass_g(layer, area))


def warned(layers: Sequence[Layer]) -> tuple[Warned, ...]:
    """What is wrong with where each lies among the others, from the first layer on."""
    return tuple(
        one
        for n, layer in enumerate(layers)
        for one in KINDS[layer.kind].warns(layer, layers[:n], layers[n + 1 :])
    )

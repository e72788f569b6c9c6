"""The kinds of layers there are, registered by name: what each does, how a new one begins, how its rims lie,
what it must not lie on.

A kind more is one entry here; schemes, weights, routes, pictures and what a body lacks ask the kind and know
no names.
"""

from collections.abc import Callable, Iterator, Mapping
from dataclasses import dataclass, field
from typing import TYPE_CHECKING, Any

from lamsik.core.paints import odd
from lamsik.core.paints.odd import Others, Warned
from lamsik.core.paints.paint import PAINT_KINDS, Paint
from lamsik.core.paints.place import BACK, EYE, EYE_ROUND, EYE_SHARE, KEEL, TAIL, Along, Place, Round
from lamsik.core.paints.roles import (
    BRUSHED,
    CLEARS,
    COLOURS,
    DUSTED,
    FITTED,
    GROUNDS,
    SEALS,
    SET,
    SPRAYED,
)

if TYPE_CHECKING:
    from lamsik.core.paints.layers import Layer


@dataclass(frozen=True)
class LayerKind:
    """A kind of layer.

    Args:
        name, does: what it is called, and what it does.
        start: what a new one begins with; every figure is the maker's to change.
        thins: whether a rim thins its film, as an airbrush does; else it shares the area, as a net does.
        warns: what is wrong with where it lies, given the layers under it and those over it.
    """

    name: str
    does: str
    start: Mapping[str, Any] = field(hash=False)
    thins: bool = True
    warns: Callable[["Layer", Others, Others], Iterator[Warned]] = lambda *_: iter(())


def _known(*kinds: LayerKind) -> dict[str, LayerKind]:
    return {kind.name: kind for kind in kinds}


def _paint(kind: str, colour: str, **more: Any) -> Paint:
    return Paint(colour, kind=kind, **{"covering_percent": 100.0 * PAINT_KINDS[kind].covering_share, **more})


def _sprayed(pressure_bar: float, distance_mm: float) -> dict[str, Any]:
    """Air and distance to begin with: fine work near by with little, grounds from farther with more."""
    return {"by": SPRAYED, "pressure_bar": pressure_bar, "distance_mm": distance_mm}


SIGNATURE = "signature"
"""The kind of layer that carries the number of the piece."""
_BY_BRUSH: dict[str, Any] = {"by": BRUSHED}

_EPOXY: dict[str, Any] = {
    "density_g_cm3": 1.12,
    "caution": "epoxy",
    "chemistry": "epoxy",
    "solids_percent": 100.0,
    "swatch_um": 100.0,
}
_BODY: dict[str, Any] = {"begins": Along(at_percent=20.0), "ends": Along(TAIL, -10.0)}
"""Where marks lie: behind the head, ahead of the tail."""

KINDS = _known(
    LayerKind(
        "seal",
        SEALS,
        {
            **_BY_BRUSH,
            "name": "Seal, thinned epoxy",
            "paint": _paint("clear", "#D9C08C", **{**_EPOXY, "covering_percent": 20.0}),
            "film_um": 35.0,
            "wait_h": 12.0,
        },
        warns=odd.closes_in,
    ),
    LayerKind(
        "primer",
        GROUNDS,
        {
            **_sprayed(2.0, 200),
            "name": "White primer",
            "paint": Paint("#F4F2EC", 1.45, swatch_um=30.0, solids_percent=45.0),
            "film_um": 30.0,
            "wait_h": 2.0,
        },
        warns=odd.hides,
    ),
    LayerKind(
        "foil",
        COLOURS,
        {
            "by": SET,
            "name": "Foil, burnished on",
            "paint": _paint(
                "foil", "#D3D9DC", density_g_cm3=2.2, caution="", chemistry="none", solids_percent=100.0
            ),
            "place": Place(
                begins=Along(at_percent=18.0),
                ends=Along(TAIL, -6.0),
                top=Round(at_percent=22.0),
                bottom=Round(KEEL, -8.0),
            ),
            "film_um": 25.0,
        },
        thins=False,
        warns=odd.grounded,
    ),
    LayerKind(
        "base",
        COLOURS,
        {**_sprayed(1.6, 150), "name": "Base", "paint": Paint("#D8DEE0"), "film_um": 15.0},
        warns=odd.grounded,
    ),
    LayerKind(
        "powder",
        COLOURS,
        {
            "by": DUSTED,
            "name": "Powder, dusted",
            "paint": _paint(
                "powder", "#C9CFD2", density_g_cm3=1.6, caution="", chemistry="none", solids_percent=100.0
            ),
            "film_um": 8.0,
        },
        warns=odd.grounded,
    ),
    LayerKind(
        "wrap",
        COLOURS,
        {
            "by": SET,
            "name": "Cloth wrap",
            "paint": _paint(
                "ink", "#AEB7BA", density_g_cm3=1.1, caution="", chemistry="none", solids_percent=100.0
            ),
            "place": Place(shape="weave", size_mm=1.6, cover_percent=72.0),
            "film_um": 60.0,
        },
        thins=False,
        warns=odd.grounded,
    ),
    LayerKind(
        "fade",
        COLOURS,
        {
            **_sprayed(1.4, 80),
            "name": "Back fade",
            "paint": Paint("#3B5B45"),
            "place": Place(bottom=Round(at_percent=55), edge_percent=50.0),
            "film_um": 12.0,
        },
        warns=odd.grounded,
    ),
    LayerKind(
        "band",
        COLOURS,
        {
            **_sprayed(1.2, 60),
            "name": "Throat band",
            "paint": Paint("#C24A2A"),
            "place": Place(begins=Along(at_percent=16.0), ends=Along(at_percent=26.0), edge_percent=30.0),
            "film_um": 10.0,
        },
        warns=odd.grounded,
    ),
    LayerKind(
        "net",
        COLOURS,
        {
            **_sprayed(1.4, 120),
            "name": "Scales through a net",
            "paint": _paint("pearl", "#AEBBB4"),
            "place": Place(
                shape="net",
                **_BODY,
                top=Round(at_percent=12.0),
                bottom=Round(at_percent=72.0),
                size_mm=4.0,
                cover_percent=60.0,
                edge_percent=25.0,
            ),
            "film_um": 8.0,
        },
        thins=False,
        warns=odd.grounded,
    ),
    LayerKind(
        "scales",
        COLOURS,
        {
            **_sprayed(1.2, 60),
            "name": "Scales, cut",
            "paint": Paint("#3E4A3A"),
            "place": Place(
                shape="scales",
                **_BODY,
                top=Round(at_percent=12.0),
                bottom=Round(at_percent=72.0),
                size_mm=5.0,
            ),
            "film_um": 8.0,
        },
        warns=odd.grounded,
    ),
    LayerKind(
        "bars",
        COLOURS,
        {
            **_sprayed(1.2, 40),
            "name": "Bars",
            "paint": Paint("#22332B"),
            "place": Place(
                shape="bars",
                begins=Along(at_percent=22.0),
                ends=Along(TAIL, -10.0),
                bottom=Round(at_percent=60.0),
                count=7,
                size_percent=52.0,
            ),
            "film_um": 10.0,
        },
        warns=odd.grounded,
    ),
    LayerKind(
        "spots",
        COLOURS,
        {
            **_sprayed(1.0, 30),
            "name": "Spots",
            "paint": Paint("#A8281E"),
            "place": Place(
                shape="spots",
                begins=Along(at_percent=22.0),
                ends=Along(TAIL, -10.0),
                top=Round(at_percent=16.0),
                bottom=Round(at_percent=62.0),
                count=9,
                size_percent=11.0,
                size_mm=0.8,
            ),
            "film_um": 10.0,
        },
        warns=odd.grounded,
    ),
    LayerKind(
        "veins",
        COLOURS,
        {
            **_sprayed(0.8, 15),
            "name": "Veins, drawn fine",
            "paint": Paint("#2E4436"),
            "place": Place(
                shape="veins",
                **_BODY,
                bottom=Round(at_percent=45.0),
                size_mm=9.0,
                cover_percent=18.0,
                edge_percent=30.0,
            ),
            "film_um": 8.0,
        },
        warns=odd.grounded,
    ),
    LayerKind(
        "splatter",
        COLOURS,
        {
            **_BY_BRUSH,
            "name": "Splatter off a brush",
            "paint": Paint("#1D2A25"),
            "place": Place(shape="splatter", bottom=Round(at_percent=60.0), size_mm=2.2, cover_percent=8.0),
            "film_um": 10.0,
        },
        thins=False,
        warns=odd.grounded,
    ),
    LayerKind(
        "stencil",
        COLOURS,
        {
            **_sprayed(1.2, 60),
            "name": "Stencil",
            "paint": Paint("#23323A"),
            "place": Place(
                shape="stencil",
                begins=Along(at_percent=40.0),
                ends=Along(TAIL, -20.0),
                top=Round(at_percent=40.0),
                bottom=Round(at_percent=60.0),
                count=1,
                size_percent=60.0,
            ),
            "film_um": 10.0,
        },
        thins=False,
        warns=odd.grounded,
    ),
    LayerKind(
        "gill",
        COLOURS,
        {
            **_sprayed(1.0, 30),
            "name": "Gill stroke",
            "paint": Paint("#7E2A20"),
            "place": Place(
                shape="arc",
                begins=Along(EYE, 6.0),
                top=Round(EYE, 8.0),
                size_percent=62.0,
                edge_percent=12.0,
            ),
            "film_um": 8.0,
        },
        warns=odd.grounded,
    ),
    LayerKind(
        "fin",
        COLOURS,
        {
            **_sprayed(1.0, 30),
            "name": "Side fin",
            "paint": Paint("#B4542E"),
            "place": Place(
                shape="stencil",
                begins=Along(EYE, 21.0),
                ends=Along(EYE, 21.0),
                top=Round(EYE, 20.0),
                bottom=Round(EYE, 20.0),
                count=1,
                size_percent=50.0,
                slant_deg=-18.0,
                outline="fin",
                edge_percent=10.0,
            ),
            "film_um": 8.0,
        },
        warns=odd.grounded,
    ),
    LayerKind(
        "lettering",
        COLOURS,
        {
            **_BY_BRUSH,
            "name": "Maker's mark",
            "paint": _paint("ink", "#16283A"),
            "place": Place(
                shape="letters",
                begins=Along(TAIL, -30.0),
                top=Round(at_percent=82.0),
                size_mm=3.0,
                words="No. 1",
                side="left",
            ),
            "film_um": 5.0,
        },
        thins=False,
        warns=odd.grounded,
    ),
    LayerKind(
        SIGNATURE,
        COLOURS,
        {
            **_BY_BRUSH,
            "name": "Signed and numbered",
            "paint": _paint("ink", "#16283A"),
            "place": Place(
                shape="letters",
                begins=Along(TAIL, -34.0),
                top=Round(at_percent=88.0),
                size_mm=2.5,
                words="No.",
                side="left",
            ),
            "film_um": 5.0,
        },
        thins=False,
        warns=odd.grounded,
    ),
    LayerKind(
        "glitter",
        COLOURS,
        {
            **_BY_BRUSH,
            "name": "Glitter in clear",
            "paint": _paint("glitter", "#E2E6D8", **{**_EPOXY, "covering_percent": 30.0}),
            "place": Place(shape="splatter", size_mm=0.8, cover_percent=15.0),
            "film_um": 40.0,
            "wait_h": 12.0,
        },
        thins=False,
        warns=odd.grounded,
    ),
    LayerKind(
        "eyes",
        FITTED,
        {
            "by": SET,
            "name": "Eyes, 5 mm",
            "paint": Paint("#E8C33A", 1.3, caution="", chemistry="none", solids_percent=100.0),
            "place": Place(
                shape="disc",
                begins=Along(at_percent=100.0 * EYE_SHARE),
                top=Round(BACK, 100.0 * EYE_ROUND),
                size_percent=26.0,
            ),
            "film_um": 0.0,
            "mass_g": 0.06,
            "wait_h": 0.0,
        },
        thins=False,
        warns=odd.eyes_in_order,
    ),
    LayerKind(
        "clear",
        CLEARS,
        {
            **_BY_BRUSH,
            "name": "Clear, slow epoxy",
            "paint": _paint("clear", "#FFFFFF", **_EPOXY),
            "film_um": 120.0,
            "wait_h": 8.0,
            "window_h": 36.0,
            "cure_h": 24.0,
        },
    ),
)
"""By name, in the order they usually lie."""

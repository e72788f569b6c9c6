"""A shot of a mould as it is asked for, of three kinds: resin, foam, hot plastic. Each holds what its kind
needs and nothing of the others.
"""

from dataclasses import dataclass
from functools import cached_property
from typing import Any

from lamsik.core.castings import foam, plastisol
from lamsik.core.castings.born import Born
from lamsik.core.castings.dense_rear import TwoPours, bonds, two_pours, uneven_mm
from lamsik.core.castings.inserts import BURIED, Insert, covers_mm, inserts_ml, level_mm, net_ml
from lamsik.core.castings.softbody import Exposed
from lamsik.core.errors import one_of
from lamsik.core.findings import Finding
from lamsik.core.mixes.filler import Filling, filling_for
from lamsik.core.mixes.fillers import FILLERS
from lamsik.core.mixes.product import Product, liquid_g_cm3
from lamsik.core.moulds.layout import Mould, cavity_ml, laid_point, pour_up
from lamsik.core.moulds.silicone import runner_ml

USUAL_FILLER = "hollow microspheres"
"""What lightens a resin where nobody said otherwise."""
PROP_DEG = 15.0
"""How far a mould is propped for a dense pour where nobody said otherwise [°]."""


@dataclass(frozen=True)
class DenseFirst:
    """A dense mix poured first into the propped mould: how it lies, how far off the middle the mass then
    is [mm], at which angle it is propped, whether the two bond (None where the wait is not known) and why
    they come apart.
    """

    two: TwoPours
    uneven_mm: tuple[float, float, float] | None
    prop_deg: float
    bonds: bool | None = None
    parts: Finding | None = None


@dataclass(frozen=True, kw_only=True)
class MouldShot:
    """What every shot has: its volumes [ml], the density of what is cast [g/cm³], what lies in it.

    `covers` says how much material is over what is buried [mm]; `point` what a hook's bent-in point does.
    """

    product: Product
    cavities: int
    each_ml: float
    inserts: tuple[Insert, ...]
    net_ml: float
    runner_ml: float
    density_g_cm3: float
    covers: tuple[tuple[str, float], ...] = ()
    point: Exposed | None = None
    dense: DenseFirst | None = None

    @property
    def of_cavities_ml(self) -> float:
        """All cavities filled, less inserts [ml]."""
        return self.net_ml * self.cavities

    @property
    def sprue_ml(self) -> float:
        """All their runners [ml]."""
        return self.runner_ml * self.cavities

    @property
    def mixed_ml(self) -> float:
        """What the cavities take of the main mix [ml]: a dense pour is mixed by itself."""
        return (self.dense.two.light_ml if self.dense else self.net_ml) * self.cavities

    @property
    def poured_ml(self) -> float:
        """What a shot mixes of the main mix before its loss [ml of liquid]."""
        return self.mixed_ml + self.sprue_ml

    @property
    def body_g(self) -> float:
        """What was poured of one casting weighs [g]."""
        return self.dense.two.mass_g if self.dense else self.net_ml * self.density_g_cm3

    @property
    def casting_g(self) -> float:
        """What one casting weighs, its inserts too [g]."""
        return self.body_g + sum(insert.mass_g for insert in self.inserts)

    @property
    def born(self) -> Born:
        """How its pieces are born: what of, how dense, and whether with what lies in them; of two pours
        their mean, and how far that lies from the middle.
        """
        two = self.dense.two if self.dense else None
        density = two.mass_g / (two.dense_ml + two.light_ml) if two else self.density_g_cm3
        uneven = self.dense.uneven_mm if self.dense else None
        return Born(self.product.name, self.product.kind, density, bool(self.inserts), uneven)


@dataclass(frozen=True, kw_only=True)
class ResinShot(MouldShot):
    """Resin, filled to a density or as it is."""

    filling: Filling | None = None
    filler: str = ""


@dataclass(frozen=True, kw_only=True)
class FoamShot(MouldShot):
    """Foam: its charge, and how high the liquid stands before it rises [mm]."""

    charge: foam.Charge
    fill_mark_mm: float

    @property
    def sprue_ml(self) -> float:
        """A foam fills no runner [ml]."""
        return 0.0

    @property
    def poured_ml(self) -> float:
        """The liquid of all charges [ml]."""
        return self.charge.liquid_ml * self.cavities

    @property
    def body_g(self) -> float:
        """What one casting weighs of foam, and of what is under it [g]."""
        return self.dense.two.mass_g if self.dense else self.net_ml * self.charge.target_g_cm3


@dataclass(frozen=True, kw_only=True)
class HotShot(MouldShot):
    """Hot plastic: the jug, thin zones, what is said of its layers and of a gloss, scrap by colour."""

    jug: plastisol.Jug
    zones: tuple[plastisol.Zone, ...] = ()
    layers: Finding | None = None
    scrap: tuple[plastisol.Coloured, ...] = ()
    gloss: Finding | None = None


@dataclass(frozen=True)
class Cast:
    """What is cast, before it is known of which kind it is: the mould, of what, how many, what lies in it."""

    mould: Mould
    product: Product
    cavities: int
    inserts: tuple[Insert, ...]

    @cached_property
    def each_ml(self) -> float:
        """One cavity [ml]."""
        return cavity_ml(self.mould)

    @cached_property
    def net_ml(self) -> float:
        """One cavity less what lies in it [ml]."""
        return net_ml(self.each_ml, self.inserts)

    @cached_property
    def runner_ml(self) -> float:
        """The runner of one cavity [ml]."""
        return runner_ml(self.mould)

    def shared(self) -> dict[str, Any]:
        """What every kind of shot of it has, but its density."""
        return {
            "product": self.product,
            "cavities": self.cavities,
            "each_ml": self.each_ml,
            "inserts": self.inserts,
            "net_ml": self.net_ml,
            "runner_ml": self.runner_ml,
            "covers": _covers(self.mould, self.inserts),
        }


def _covers(mould: Mould, inserts: tuple[Insert, ...]) -> tuple[tuple[str, float], ...]:
    """How much material is over each insert [mm], those that are placed in the body's own frame."""
    mesh = mould.master.mesh
    return tuple(
        (
            insert.kind if insert.kind == "hook shank" else f"{insert.kind} {insert.key}",
            covers_mm(mesh, insert),
        )
        for insert in inserts
        if insert.kind in BURIED
    )


@dataclass(frozen=True)
class DenseAsked:
    """A dense pour as asked for: how much of it [ml], how dense [g/cm³], propped at [°], and how long after
    it the second follows [min]; None where that is not known.
    """

    ml: float
    g_cm3: float
    prop_deg: float = PROP_DEG
    waited_min: float | None = None


def dense_first(cast: Cast, asked: DenseAsked, light_g_cm3: float) -> DenseFirst:
    """A dense mix poured first, under what is cast at `light_g_cm3`. Raises `Refused` where it does not
    fit.
    """
    mould, product = cast.mould, cast.product
    placed = [(ml, laid_point(mould, at)) for insert in cast.inserts for ml, at in insert.pieces()]
    two = two_pours(mould.lies, pour_up(mould, asked.prop_deg), asked.ml, asked.g_cm3, light_g_cm3, placed)
    uneven = uneven_mm(mould, two)
    if asked.waited_min is None:
        return DenseFirst(two, uneven, asked.prop_deg)
    window = 60.0 * product.recoat_from_h, 60.0 * (product.recoat_to_h or product.demould_h)
    parts = bonds(asked.waited_min, *window)
    return DenseFirst(two, uneven, asked.prop_deg, not parts, parts)


def resin_shot(
    cast: Cast, target_g_cm3: float | None, filler: str, dense: DenseAsked | None, point: Exposed | None
) -> ResinShot:
    """Resin, made as dense as asked for with a filler, or as it comes. Raises `Refused`."""
    density, filling, name = cast.product.density_g_cm3, None, ""
    if target_g_cm3 is not None:
        kind = one_of("filler", filler or USUAL_FILLER, FILLERS)
        filling, name = filling_for(target_g_cm3, density, kind.true_g_cm3), kind.name
        density = target_g_cm3
    return ResinShot(
        **cast.shared(),
        density_g_cm3=density,
        point=point,
        dense=dense_first(cast, dense, density) if dense else None,
        filling=filling,
        filler=name,
    )


def foam_shot(
    cast: Cast,
    free_g_cm3: float,
    target_g_cm3: float,
    spread_share: float,
    dense: DenseAsked | None,
    point: Exposed | None,
) -> FoamShot:
    """Foam that rises to a density in a closed mould. Raises `Refused`.

    Args:
        cast: what is cast.
        free_g_cm3: what it rises to by itself, at the shop's warmth.
        target_g_cm3: what it shall be.
        spread_share: how uncertain its rise is.
        dense: a dense pour under it.
        point: what the hook's point does.
    """
    under = dense_first(cast, dense, target_g_cm3) if dense else None
    net = under.two.light_ml if under else cast.net_ml
    charge = foam.charge(net, target_g_cm3, free_g_cm3, liquid_g_cm3(cast.product), spread_share)
    shape, up = cast.mould.lies, pour_up(cast.mould)
    liquid = charge.liquid_ml + inserts_ml(cast.inserts) + (under.two.dense_ml if under else 0.0)
    mark = level_mm(shape, up, 1000.0 * liquid) - float((shape.vertices @ up).min())
    return FoamShot(
        **cast.shared(),
        density_g_cm3=charge.target_g_cm3,
        point=point,
        dense=under,
        charge=charge,
        fill_mark_mm=mark,
    )


@dataclass(frozen=True)
class HotAsked:
    """A hot shot as asked for: heated at once [g], heating and one shot [min], its colours with how much of
    each, how they lie, and whether a gloss was asked for and answered.
    """

    jug_g: float
    heat_min: float
    each_min: float
    colours: tuple[tuple[str, float], ...] = ()
    way: str = plastisol.GELLED
    gloss: bool = False
    gloss_yes: bool = False


def hot_shot(
    cast: Cast, asked: HotAsked, scraps: tuple[plastisol.Scrap, ...], point: Exposed | None
) -> HotShot:
    """Hot plastic from a jug. Raises `Refused`."""
    mould = cast.mould
    jug = plastisol.shot(
        cast.net_ml * cast.cavities,
        cast.runner_ml * cast.cavities,
        cast.product.density_g_cm3,
        asked.jug_g,
        cast.cavities,
        asked.heat_min,
        asked.each_min,
    )
    zones = plastisol.thin_zones(mould.lies, mould.thin_mm)
    names = [name for name, _ in asked.colours]
    return HotShot(
        **cast.shared(),
        density_g_cm3=cast.product.density_g_cm3,
        point=point,
        jug=jug,
        zones=zones,
        layers=plastisol.layer_says(asked.way, names, pour_up(mould)) if len(names) >= 2 else None,
        scrap=plastisol.by_colour(jug.shot_g, asked.colours, scraps),
        gloss=plastisol.may_gloss(zones, asked.gloss_yes) if asked.gloss else None,
    )

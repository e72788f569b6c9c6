"""What is asked of a casting and what comes out: amounts by the kind of material, inserts, thin zones,
fill marks; ready for a pour.
"""

from dataclasses import dataclass, field
from typing import Any

import numpy as np

from lamsik.core.castings import foam, plastisol
from lamsik.core.castings.born import Born
from lamsik.core.castings.dense_rear import TwoPours, bonds, two_pours, uneven_mm
from lamsik.core.castings.inserts import (
    BURIED,
    Insert,
    covers_mm,
    inserts_ml,
    level_mm,
    net_ml,
    of_design,
    shank,
)
from lamsik.core.castings.matching import Match, matched
from lamsik.core.castings.softbody import Exposed, exposed
from lamsik.core.errors import Refused, one_of
from lamsik.core.mixes.filler import Filling, filling_for
from lamsik.core.mixes.fillers import FILLERS
from lamsik.core.mixes.product import Product, liquid_g_cm3
from lamsik.core.moulds.layout import Mould, cavity_ml, laid_point, pour_up
from lamsik.core.moulds.silicone import runner_ml
from lamsik.core.shapes.design import Design
from lamsik.web.batches.planning import BatchAsked

SHANK = (
    ("shank_from", "hook shank from", None),
    ("shank_to", "to", None),
    ("shank_up", "over the axis", 0.0),
    ("shank_across", "across", 1.2),
)


@dataclass(frozen=True)
class Casting:
    """A shot as asked for: its volumes [ml], density, and what the kind of material adds to it."""

    product: Product
    cavities: int
    each_ml: float
    inserts: tuple[Insert, ...]
    net_ml: float
    runner_ml: float
    density_g_cm3: float
    filling: Filling | None = None
    filler: str = ""
    charge: foam.Charge | None = None
    fill_mark_mm: float | None = None
    covers: tuple[tuple[str, float], ...] = ()
    two: TwoPours | None = None
    uneven_mm: tuple[float, float, float] | None = None
    bonds: bool = False
    parts: str = ""
    prop_deg: float | None = None
    shot: plastisol.HotShot | None = None
    zones: tuple[plastisol.Zone, ...] = ()
    layers: str = ""
    scrap: tuple[plastisol.Coloured, ...] = ()
    gloss: str = ""
    point: Exposed | None = None
    notes: tuple[str, ...] = field(default_factory=tuple)

    @property
    def of_cavities_ml(self) -> float:
        """All cavities filled, less inserts [ml]."""
        return self.net_ml * self.cavities

    @property
    def sprue_ml(self) -> float:
        """All their runners [ml]; a foam fills none."""
        return 0.0 if self.product.kind == "foam" else self.runner_ml * self.cavities

    @property
    def poured_ml(self) -> float:
        """What a shot mixes of the main mix before its loss [ml of liquid]."""
        if self.charge:
            return self.charge.liquid_ml * self.cavities
        return self.mixed_ml + self.sprue_ml

    @property
    def mixed_ml(self) -> float:
        """Of it what the cavities take of the main mix [ml]: a dense pour is mixed by itself."""
        return (self.two.light_ml if self.two else self.net_ml) * self.cavities

    @property
    def born(self) -> Born:
        """How its pieces are born: what of, how dense, and whether with what lies in them; of two pours
        their mean, and how far that lies from the middle.
        """
        density = (
            self.two.mass_g / (self.two.dense_ml + self.two.light_ml) if self.two else self.density_g_cm3
        )
        return Born(self.product.name, self.product.kind, density, bool(self.inserts), self.uneven_mm)

    @property
    def casting_g(self) -> float:
        """What one casting weighs, its inserts too [g]."""
        body = (
            self.two.mass_g
            if self.two
            else self.net_ml * (self.charge.target_g_cm3 if self.charge else self.density_g_cm3)
        )
        return body + sum(insert.mass_g for insert in self.inserts)


def casting(
    mould: Mould,
    product: Product,
    cavities: int,
    design: Design | None,
    asked: BatchAsked,
    scraps: tuple[plastisol.Scrap, ...] = (),
) -> Casting:
    """The shot a form asks for. Raises `Refused` naming the field."""
    inserts = of_design(design) if design and not asked.get("no_inserts") else ()
    if asked.get("shank_from") or asked.get("shank_to"):
        inserts = (*inserts, _shank(asked))
    each = cavity_ml(mould)
    net = net_ml(each, inserts)
    figures: dict[str, Any] = {
        "product": product,
        "cavities": cavities,
        "each_ml": each,
        "inserts": inserts,
        "net_ml": net,
        "runner_ml": runner_ml(mould),
    }
    if product.kind == "foam":  # what it becomes may be typed or tried in a cup: the tin need not say
        figures |= _foam(mould, product, net, inserts, asked)
    else:
        figures["density_g_cm3"] = product.density_g_cm3
        hot = product.kind == "plastisol"
        figures |= (
            _hot(mould, product, net, cavities, asked, scraps)
            if hot
            else _resin(mould, product, net, inserts, asked)
        )
    if asked.get("gap") or asked.get("thick"):
        gap, thick = (
            asked.value("gap", "length", "gap", "mm"),
            asked.value("thick", "length", "thickness", "mm"),
        )
        if gap is None or thick is None:
            raise Refused("gap" if gap is None else "thick", "", "gap and thickness are both needed")
        figures["point"] = exposed(
            gap, thick, (asked.value("squeeze", "percent", "squeeze", "%", 50.0) or 0.0) / 100.0
        )
    return Casting(**{"covers": _covers(mould, inserts), **figures})


def _resin(
    mould: Mould, product: Product, net: float, inserts: tuple[Insert, ...], asked: BatchAsked
) -> dict[str, Any]:
    target, filler = asked.value("density", "density", "density", "g/cm³"), asked.get("filler")
    figures: dict[str, Any] = {}
    if target is not None:
        kind = FILLERS.get(filler or "hollow microspheres")
        if kind is None:
            raise Refused("filler", filler, f"one of {', '.join(FILLERS)}")
        figures = {
            "filling": filling_for(target, product.density_g_cm3, kind.true_g_cm3),
            "filler": kind.name,
            "density_g_cm3": target,
        }
    return figures | _dense_first(
        mould, product, float(figures.get("density_g_cm3", product.density_g_cm3)), inserts, asked
    )


def _dense_first(
    mould: Mould, product: Product, light_g_cm3: float, inserts: tuple[Insert, ...], asked: BatchAsked
) -> dict[str, Any]:
    """A dense mix poured first into the propped mould, under what is cast: resin or foam; empty where none
    is asked for.
    """
    dense = asked.value("dense", "volume", "dense pour", "ml")
    if dense is None:
        for name, words in (("dense_density", "its density"), ("waited", "second pour after")):
            if asked.get(name):
                raise Refused("dense", "", f"say how many ml are poured first, or leave “{words}” empty")
        return {}
    heavy = asked.value("dense_density", "density", "its density", "g/cm³")
    if heavy is None:
        raise Refused("dense_density", "", "say how dense the first pour is")
    prop = asked.value("prop", "angle", "propped at", "°", 15.0) or 0.0
    placed = [(ml, laid_point(mould, at)) for insert in inserts for ml, at in insert.pieces()]
    two = two_pours(mould.lies, pour_up(mould, prop), dense, heavy, light_g_cm3, placed)
    figures: dict[str, Any] = {"prop_deg": prop, "two": two, "uneven_mm": uneven_mm(mould, two)}
    waited = asked.value("waited", "time", "second pour after", "min")
    if waited is not None:
        window = 60.0 * product.recoat_from_h, 60.0 * (product.recoat_to_h or product.demould_h)
        figures["parts"] = bonds(60.0 * waited, *window)
        figures["bonds"] = not figures["parts"]
    return figures


def _foam(
    mould: Mould, product: Product, net: float, inserts: tuple[Insert, ...], asked: BatchAsked
) -> dict[str, Any]:
    liquid = liquid_g_cm3(product)
    free, at = product.free_rise_g_cm3, asked.value("at", "temperature", "temperature", "")
    poured, risen = (
        asked.value("test_g", "mass", "poured in the test", "g"),
        asked.value("test_ml", "volume", "it rose to", "ml"),
    )
    if poured is not None and risen is not None:
        free = foam.FreeRise(poured, risen).density_g_cm3
    if free is None:
        raise Refused(
            "test_g", "", "the tin gives no free rise: pour a little into a cup and type what it rose to"
        )
    if at is not None and poured is None:
        free = foam.at_warmth(free, product.reference_c, at)
    ratio = asked.value("ratio", "number", "expansion ratio", "")
    target = (
        foam.density_of_ratio(ratio, liquid)
        if ratio is not None
        else asked.value("density", "density", "density", "g/cm³", free)
    )
    spread = (asked.value("spread", "percent", "uncertain by", "%", 0.0) or 0.0) / 100.0
    under = _dense_first(mould, product, float(target or free), inserts, asked)
    charge = foam.charge(under["two"].light_ml if under else net, float(target or free), free, liquid, spread)
    shape, up = mould.lies, pour_up(mould)
    low = float((shape.vertices @ up).min())
    mark = (
        level_mm(
            shape,
            up,
            1000.0 * (charge.liquid_ml + inserts_ml(inserts) + (under["two"].dense_ml if under else 0.0)),
        )
        - low
    )
    return under | {"charge": charge, "fill_mark_mm": mark, "density_g_cm3": charge.target_g_cm3}


def _shank(asked: BatchAsked) -> Insert:
    sizes = [asked.value(name, "length", word, "mm", default) for name, word, default in SHANK]
    for (name, _, _), value in zip(SHANK, sizes, strict=True):
        if value is None:
            raise Refused(name, "", "say from where to where the shank lies")
    return shank(*(float(value) for value in sizes if value is not None))


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


def _hot(
    mould: Mould,
    product: Product,
    net: float,
    cavities: int,
    asked: BatchAsked,
    scraps: tuple[plastisol.Scrap, ...],
) -> dict[str, Any]:
    jug = asked.value("jug", "mass", "heated at once", "g", 120.0) or 0.0
    heat = 60.0 * (asked.value("heat", "time", "heating", "min", 6 / 60) or 0.0)
    each = 60.0 * (asked.value("shot", "time", "one shot", "min", 4 / 60) or 0.0)
    shot = plastisol.shot(
        net * cavities, runner_ml(mould) * cavities, product.density_g_cm3, jug, cavities, heat, each
    )
    zones = plastisol.thin_zones(mould.lies, mould.thin_mm)
    colours = plastisol.parse_colours(asked.get("colours"))
    names = [name for name, _ in colours]
    layers = (
        plastisol.layer_says(asked.get("way") or plastisol.GELLED, names, pour_up(mould))
        if len(colours) >= 2
        else ""
    )
    gloss = plastisol.may_gloss(zones, bool(asked.get("gloss_yes"))) if asked.get("gloss") else ""
    return {
        "shot": shot,
        "zones": zones,
        "layers": layers,
        "scrap": plastisol.by_colour(shot.shot_g, colours, scraps),
        "gloss": gloss,
    }


def like_original(design: Design, product: Product, filler: str) -> Match | None:
    """The share of filler, or the foam's density, that makes a casting like the carved original."""
    kind = one_of("filler", filler or "hollow microspheres", FILLERS)
    true = None if product.kind == "foam" else kind.true_g_cm3
    return matched(design, product.density_g_cm3, true)


def height_words(mould: Mould, mark_mm: float) -> str:
    """The fill mark in words."""
    shape, up = mould.lies, pour_up(mould)
    tall = float(np.ptp(shape.vertices @ up))
    return f"liquid stands {mark_mm:.0f} mm high of {tall:.0f} mm"

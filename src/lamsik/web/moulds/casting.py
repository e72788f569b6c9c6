"""What a form asks of a casting, read for the shot of its kind."""

import numpy as np

from lamsik.core.castings import foam, plastisol
from lamsik.core.castings.inserts import Insert, of_design, shank
from lamsik.core.castings.matching import Match, matched
from lamsik.core.castings.shots import (
    PROP_DEG,
    USUAL_FILLER,
    Cast,
    DenseAsked,
    HotAsked,
    MouldShot,
    foam_shot,
    hot_shot,
    resin_shot,
)
from lamsik.core.castings.softbody import Exposed, exposed
from lamsik.core.errors import Refused, one_of
from lamsik.core.mixes.fillers import FILLERS
from lamsik.core.mixes.product import Product, liquid_g_cm3
from lamsik.core.moulds.layout import Mould, pour_up
from lamsik.core.quantities import said
from lamsik.core.shapes.design import Design
from lamsik.web.batches.planning import BatchAsked
from lamsik.web.moulds.usual import usual, usual_h

SHANK = (
    ("shank_from", "hook shank from"),
    ("shank_to", "to"),
    ("shank_up", "over the axis"),
    ("shank_across", "across"),
)


def casting(
    mould: Mould,
    product: Product,
    cavities: int,
    design: Design | None,
    asked: BatchAsked,
    scraps: tuple[plastisol.Scrap, ...] = (),
) -> MouldShot:
    """The shot a form asks for. Raises `Refused` naming the field."""
    inserts = of_design(design) if design and not asked.get("no_inserts") else ()
    if asked.get("shank_from") or asked.get("shank_to"):
        inserts = (*inserts, _shank(asked))
    cast = Cast(mould, product, cavities, inserts)
    if product.kind == "foam":  # what it becomes may be typed or tried in a cup: the tin need not say
        return _foam(cast, asked)
    if product.kind == "plastisol":
        return hot_shot(cast, _hot(asked), scraps, _point(asked))
    target = asked.value("density", "density", "density", "g/cm³")
    return resin_shot(cast, target, asked.get("filler"), _dense(asked), _point(asked))


def _point(asked: BatchAsked) -> Exposed | None:
    if not (asked.get("gap") or asked.get("thick")):
        return None
    gap, thick = asked.value("gap", "length", "gap", "mm"), asked.value("thick", "length", "thickness", "mm")
    if gap is None or thick is None:
        raise Refused("gap" if gap is None else "thick", "", "gap and thickness are both needed")
    squeeze = asked.value("squeeze", "percent", "squeeze", "%", usual("squeeze_percent")) or 0.0
    return exposed(gap, thick, squeeze / 100.0)


def _dense(asked: BatchAsked) -> DenseAsked | None:
    """A dense mix poured first, as asked for; None where none is."""
    dense = asked.value("dense", "volume", "dense pour", "ml")
    if dense is None:
        for name, words in (("dense_density", "its density"), ("waited", "second pour after")):
            if asked.get(name):
                raise Refused("dense", "", f"say how many ml are poured first, or leave “{words}” empty")
        return None
    heavy = asked.value("dense_density", "density", "its density", "g/cm³")
    if heavy is None:
        raise Refused("dense_density", "", "say how dense the first pour is")
    waited = asked.value("waited", "time", "second pour after", "min")
    return DenseAsked(
        dense,
        heavy,
        asked.value("prop", "angle", "propped at", "°", PROP_DEG) or 0.0,
        None if waited is None else 60.0 * waited,
    )


def _foam(cast: Cast, asked: BatchAsked) -> MouldShot:
    product = cast.product
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
        foam.density_of_ratio(ratio, liquid_g_cm3(product))
        if ratio is not None
        else asked.value("density", "density", "density", "g/cm³", free)
    )
    spread = (asked.value("spread", "percent", "uncertain by", "%", 0.0) or 0.0) / 100.0
    return foam_shot(cast, float(free), float(target or free), spread, _dense(asked), _point(asked))


def _hot(asked: BatchAsked) -> HotAsked:
    return HotAsked(
        asked.value("jug", "mass", "heated at once", "g", usual("jug_g")) or 0.0,
        60.0 * (asked.value("heat", "time", "heating", "min", usual_h("heat_min")) or 0.0),
        60.0 * (asked.value("shot", "time", "one shot", "min", usual_h("shot_min")) or 0.0),
        plastisol.parse_colours(asked.get("colours")),
        asked.get("way") or plastisol.GELLED,
        bool(asked.get("gloss")),
        bool(asked.get("gloss_yes")),
    )


def _shank(asked: BatchAsked) -> Insert:
    usually = {"shank_up": 0.0, "shank_across": usual("shank_mm")}
    sizes = [asked.value(name, "length", word, "mm", usually.get(name)) for name, word in SHANK]
    for (name, _), value in zip(SHANK, sizes, strict=True):
        if value is None:
            raise Refused(name, "", "say from where to where the shank lies")
    return shank(*(float(value) for value in sizes if value is not None))


def like_original(design: Design, product: Product, filler: str) -> Match | None:
    """The share of filler, or the foam's density, that makes a casting like the carved original."""
    kind = one_of("filler", filler or USUAL_FILLER, FILLERS)
    true = None if product.kind == "foam" else kind.true_g_cm3
    return matched(design, product.density_g_cm3, true)


def height_words(mould: Mould, mark_mm: float) -> str:
    """The fill mark in words."""
    shape, up = mould.lies, pour_up(mould)
    tall = float(np.ptp(shape.vertices @ up))
    return f"liquid stands {said(mark_mm, 'length', 0)} high of {said(tall, 'length', 0)}"

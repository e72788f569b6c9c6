"""The sentences of a scheme: how long it takes, what is wrong with a layer and what helps, what is done
where.
"""

from collections.abc import Iterable, Sequence

from lamsik.core.paints.cuts import JOINT, LIP, CutPiece
from lamsik.core.paints.dips import Dip
from lamsik.core.paints.fitting import LACKS_ANCHOR, TOO_LARGE
from lamsik.core.paints.job import LayerChange, MatchJob, changes
from lamsik.core.paints.layers import Layer
from lamsik.core.paints.lifts import LIFTS, UNTRIED, WAIT_LONGER
from lamsik.core.paints.odd import (
    BARE_WOOD,
    EYES_LATE,
    HIDES,
    NO_GROUND,
    NO_WHITE,
    NOT_COVERED,
    ON_CLEAR,
    RIM_GATHERS,
    SEALS_PAINT,
    SEAT_GLOSSY,
    Warned,
)
from lamsik.core.paints.roles import SPRAYED
from lamsik.core.paints.rules import COUNT, DIP_STOPS, FEW_COATS, ON_FOIL, SPOILT
from lamsik.core.paints.waiting import waiting_h
from lamsik.core.quantities import counted, plainly, said

SAYS = {
    SEALS_PAINT: "{layer} lies over {other}: it closes the paint in, not the body. Move it under the paint.",
    HIDES: "{layer} covers {other}: little of that colour is left to be seen. Move it under the colours.",
    ON_CLEAR: "{layer} goes on {other}: scuff the clear first, or move it under the clear.",
    NO_GROUND: "{layer} lies under {other}: it has no ground to hold on to. Move the ground under it.",
    NOT_COVERED: (
        "{layer} come after the last clear, which nothing of theirs outlasts: they lift or rub off. Glue"
        " domed ones, or move them under it."
    ),
    ON_FOIL: (
        "{layer} hides {share} of the foil ({other}) and its shine: take a transparent or candy paint there,"
        " leave the flank out, or lay the foil over it."
    ),
    NO_WHITE: "{layer} is dull without white under it: put a white ground or foil under it.",
    LACKS_ANCHOR: (
        "{layer} is placed from the {other}, which this body has not: it lies about the middle. Place it from"
        " the nose, the eye or the tail."
    ),
    TOO_LARGE: "{layer} is larger than this body: most of it lies beside. Make it smaller.",
    RIM_GATHERS: (
        "{layer} are domed and lie under {other}: they are sealed in, and clear gathers at their rim."
        " Brush it thin there and hang it nose up, or glue them on after it, where they can be replaced."
    ),
    SEAT_GLOSSY: (
        "{layer} are glued on {other}, which is smooth: glue springs off it. Scuff the seat once it is hard."
    ),
    EYES_LATE: (
        "{layer} are there already and are masked first: move them under {other}, so that the mask goes on"
        " before it."
    ),
    SPOILT: (
        "{layer} goes all over and reaches the {other}, which it spoils: brush it round there, or put that on"
        " or bag it first."
    ),
    DIP_STOPS: (
        "{layer} is dipped and this body has a {zone}, which no clear may reach: {end} first, stop {depth}"
        " deep (the {zone} begins at {at}, and the liquid climbs). Brush the rest."
    ),
    FEW_COATS: (
        "The paint stands {relief} proud: {coats} of {coat} level it and leave something to rub. {layer}"
        " is too thin for it by itself."
    ),
    LIFTS: (
        "{layer} lifted {other} on a test patch after {hours}: lay a barrier coat between, or take another"
        " chemistry."
    ),
    WAIT_LONGER: "{layer} held on {other} after {hours}, none was tried sooner: wait so long.",
    UNTRIED: (
        "Nobody here has tried {over} over {under} ({layer} on {other}): make a test patch first, and"
        " write it down."
    ),
    BARE_WOOD: "{layer} is see-through and lies on the bare body, which drinks it: seal the body first.",
}
"""By what is wrong."""


FIELDS = {
    "paint.colour": "colour",
    "place.begins.at_percent": "where it begins",
    "place.begins.more_mm": "where it begins",
    "place.ends.at_percent": "where it ends",
    "place.ends.more_mm": "where it ends",
    "place.top.at_percent": "upper edge",
    "place.top.more_mm": "upper edge",
    "place.bottom.at_percent": "lower edge",
    "place.bottom.more_mm": "lower edge",
    "place.count": "how many",
    "place.size_percent": "size",
    "place.size_mm": "size",
    "place.slant_deg": "slant",
    "place.cover_percent": "covers",
    "place.edge_percent": "soft edge",
    "place.side": "side",
    "film_um": "film",
    "wait_h": "wait",
    "window_h": "longest wait",
    "cure_h": "cure",
    "mass_g": "mass",
    "intended": "meant so",
    "by": "how it goes on",
    "eye": "kind of eye",
    "pressure_bar": "air",
    "distance_mm": "distance",
}
"""What a field of a layer is called; others by their own name."""

KINDS = {
    "seal": "seal",
    "primer": "primer",
    "foil": "foil",
    "base": "base",
    "powder": "powder",
    "wrap": "cloth wrap",
    "fade": "fade",
    "band": "band",
    "net": "scale net",
    "scales": "scales, cut",
    "bars": "bars",
    "spots": "spots",
    "veins": "veins",
    "splatter": "splatter",
    "stencil": "stencil",
    "gill": "gill",
    "fin": "fin",
    "lettering": "lettering",
    "signature": "signature and number",
    "glitter": "glitter",
    "eyes": "eyes",
    "clear": "clear",
}
"""What a kind of layer is called."""

SHAPES = {
    "region": "a stretch of the body",
    "bars": "bars",
    "spots": "spots",
    "net": "through a net",
    "scales": "rows of scales",
    "weave": "through a cloth",
    "veins": "veins",
    "splatter": "splatter",
    "stencil": "stencil",
    "disc": "a disc",
    "arc": "a stroke round",
    "letters": "letters",
}
"""What a shape of masks is called."""

PLACES = {
    "begins": "Begins",
    "ends": "Ends",
    "top": "Upper edge",
    "bottom": "Lower edge",
    "count": "How many",
    "size_percent": "Size, of the depth",
    "size_mm": "Size",
    "slant_deg": "Slant",
    "cover_percent": "Covers",
    "edge_percent": "Soft edge",
    "seed": "Throw",
    "outline": "Outline",
    "words": "Letters",
}
"""What a field of a place is called."""
OTHERWISE = {
    ("bars", "size_percent"): "Width, of their pitch",
    ("net", "size_mm"): "Mesh",
    ("scales", "size_mm"): "Scales apart",
    ("weave", "size_mm"): "Threads apart",
    ("disc", "begins"): "Along the body",
    ("arc", "begins"): "Along the body",
    ("letters", "begins"): "Along the body",
    ("disc", "top"): "Round from the back",
    ("arc", "top"): "Round from the back",
    ("letters", "top"): "Round from the back",
}
"""The same where a shape has a word of its own."""


ZONES = {
    "body": "the body",
    "joint": "a joint",
    "pivot": "a pivot",
    "rotor": "a rotor",
    "lip": "the lip",
    "soft tail": "a soft tail",
    "hair": "hair",
    "line tie": "the line tie",
    "hanger": "a hanger",
    "contact": "a contact",
    "eye": "the eyes",
    "eye pit": "the pits of the eyes",
    "kept eye": "the eyes that are kept",
}
"""What a zone of a body is called."""
MAY = {"paint": "paint", "clear": "clear", "brush": "brush", "dip": "dip"}
"""What may be done in a zone."""
MASKS = {
    "tape": "tape it over",
    "plug": "plug the eye with wax or a splinter",
    "bag": "tie it in a bag",
    "grease": "a film of grease on the pin only",
    "off": "take it off, or bag it where it stays",
}
"""How a zone is kept bare."""
CHECKS = {
    "no_runs": "No run, no bare spot, the tail end smooth",
    "ties_clear": "Line ties clear: the ring goes through",
    "hangers_clear": "Hangers clear of paint and clear",
    "pivots_free": "Joints and pivots swing free by their own weight",
    "rotor_spins": "The rotor spins at a breath",
    "contacts_bare": "Contacts bare: it switches off when dry",
    "lip_clean": "The lip clean and see-through, its edge whole",
    "hair_dry": "Hair dry and soft, no clear in it",
    "tail_whole": "The soft tail whole, not swollen",
    "eyes_level": "Eyes level, from the nose and from the back",
    "dip_stopped": "Dipped to its mark and no deeper: no clear in the joint",
}
"""What is looked at before a piece, or a coat that is dipped, counts as finished."""
EYES = {
    "flat": "flat stickers",
    "domed": "domed",
    "moulded": "moulded in",
    "painted": "painted",
    "kept": "kept and masked",
}
"""What kinds of eyes are called."""
EYE_ORDER = {
    "flat": "before the clear, which seals them",
    "domed": "under the clear, which gathers at their rim",
    "moulded": "painted before the clear",
    "painted": "before the clear",
    "kept": "masked before the first coat, bared after the last",
}
"""When eyes of a kind go on."""
GLUED_LATE = "glued on after the clear, so that they can be replaced"
"""When domed ones go on that come last."""
WAYS = {
    "sprayed": "sprayed",
    "brushed": "brushed",
    "dipped": "dipped",
    "set on": "set on",
    "dusted": "dusted",
}
"""How a layer goes on."""


def how(layer: Layer) -> str:
    """How a layer goes on: by what, with how much air, from how far."""
    if layer.by != SPRAYED:
        return WAYS[layer.by]
    air = f"{said(layer.pressure_bar, 'pressure', 1)}" if layer.pressure_bar is not None else ""
    far = f"{said(layer.distance_mm, 'length', 0)} off" if layer.distance_mm is not None else ""
    return ", ".join(filter(None, (WAYS[SPRAYED], air, far)))


def lies(name: str, code: str, version: int, current: int) -> str:
    """Which version of a scheme lies on a body, and whether a newer one is out."""
    if not version:
        return f"{name} ({code})"
    newer = f"; version {current} is out since: press it to lay it anew" if current > version else ""
    return f"{name} ({code}), version {version}{newer}"


def passes(layer: Layer) -> str:
    """In how many passes of which film."""
    if layer.mass_g is not None:
        return f"the pair, {said(layer.mass_g, 'mass', 2)}"
    return f"{layer.passes} × {said(layer.film_um, 'thickness', 0)} dry"


DROP_ML = 0.05


def in_cup(wet_ml: float) -> str:
    """What goes into the cup; empty for what needs none."""
    if not wet_ml:
        return ""
    return "a drop" if wet_ml < DROP_ML else said(wet_ml, "volume", 1 if wet_ml >= 1 else 2)


def cut(one: CutPiece) -> str:
    """What is cut: the stencil of a layer by its name, a mask by what it covers."""
    if one.kind == JOINT:
        return f"Joint at {said(float(one.of), 'length', 0)}"
    return "Lip" if one.kind == LIP else str(one.of)


def job(match: MatchJob | None, layers: Sequence[Layer]) -> str:
    """What a match job holds fast, and how many layers changed so far."""
    if match is None:
        return "Name the sample: all layers are locked then, and you untick those that change."
    gone = [one.was.name for one in changes(match.before, layers) if one.now is None and one.was]
    changed_ = len(changes(match.before, layers)) - len(gone)
    left_out = f", {' and '.join(gone)} left out" if gone else ""
    locked = sum(layer.locked for layer in layers)
    return (
        f"Matched to {match.to}: {changed_} of {len(layers)} layers changed so far{left_out},"
        f" {locked} locked. Unticked ones may change."
    )


def changed(change: LayerChange) -> str:
    """What of a layer is done otherwise, what it was before and what it is now."""
    was, now = change.was, change.now
    if now is None:
        return f"{was.name if was else ''}: left out."
    if was is None:
        return f"{now.name}: new, {_with(now)}, {passes(now)}."
    rows = {
        "paint": (_with(was), _with(now)),
        "film": (passes(was), passes(now)),
        "way": (how(was), how(now)),
        "waits": (waits(was.wait_h, was.window_h, was.scuff), waits(now.wait_h, now.window_h, now.scuff)),
        "name": (f"called {was.name}", now.name),
        "note": (was.note or "no note", now.note or "no note"),
    }
    said_ = [f"{' → '.join(rows[part])}" if part in rows else "it lies elsewhere" for part in change.parts]
    return f"{now.name}: {'; '.join(said_)}."


def _with(layer: Layer) -> str:
    """The paint of a layer; a colour without a name by what it is."""
    return layer.paint.name or f"{layer.paint.kind} {layer.paint.colour}"


def waits(wait_h: float, window_h: float | None, is_scuffed: bool) -> str:
    """What is waited after a layer, and what is done before the next."""
    within = f", next coat before {plainly(window_h, 'time')}" if window_h is not None else ""
    wait = f"wait {plainly(wait_h, 'time')}{within}" if wait_h or within else "no wait"
    return f"{wait}; scuff" if is_scuffed else wait


def dipped(layer: Layer, stop: Dip) -> str:
    """How deep a layer is dipped at most, which end first, and why."""
    end, depth = "nose" if stop.is_nose_first else "tail", said(stop.depth_mm, "length", 0)
    zone, at, climbs = stop.stop.kind, said(stop.stop_mm, "length", 0), said(stop.climbs_mm, "length", 1)
    return (
        f"{layer.name}: {end} first, stop {depth} deep. The {zone} begins at {at}, and the liquid climbs"
        f" {climbs}. Brush the rest."
    )


def place_word(shape: str, name: str) -> str:
    """What a field of a place is called, of a layer in a shape."""
    return OTHERWISE.get((shape, name), PLACES[name])


def fields(names: Sequence[str]) -> str:
    """Fields of a layer in words."""
    return ", ".join(FIELDS.get(name, name) for name in names)


def warnings(layers: Sequence[Layer], about: Iterable[Warned]) -> list[tuple[Warned, str]]:
    """Each finding with its sentence: what is wrong, what helps."""
    of = {layer.key: layer for layer in layers}
    return [(one, _warning(one, of)) for one in about]


def _warning(one: Warned, of: dict[str, Layer]) -> str:
    layer, other = of[one.layer], of.get(one.other)
    end, _, zone = one.other.partition(":")
    figures = {
        name: counted(round(value), "coat") if quantity == COUNT else said(value, quantity, 0)
        for name, value, quantity in one.figures
    }
    return SAYS[one.name].format(
        layer=layer.name,
        other=other.name if other else one.other,
        end=end,
        zone=zone,
        over=layer.paint.chemistry,
        under=other.paint.chemistry if other else "",
        **figures,
    )


def sentence(layers: Sequence[Layer]) -> str:
    """How many layers, and how long they take."""
    if not layers:
        return "No layer yet: add the first."
    hours, count = waiting_h(layers), len(layers)
    return (
        f"{count} {'layer' if count == 1 else 'layers'}, {said(hours, 'time', 0)} of waiting until it"
        " is cured."
    )

"""The card of one weighed thing: what it is in any water, trimming it, the float or the load that goes
with it.
"""

from dataclasses import dataclass, replace
from datetime import date
from typing import Any

from flask import Blueprint, abort, render_template, request
from flask.typing import ResponseReturnValue

from lamsik.core.errors import Refused, named
from lamsik.core.materials import METALS
from lamsik.core.shapes.sources import SAYS, Source
from lamsik.core.units import parse, show
from lamsik.core.water import Water
from lamsik.core.weighing import trim
from lamsik.core.weighing.bydifference import Capacity, capacities
from lamsik.core.weighing.instrument import can_tell, remarks
from lamsik.core.weighing.inwater import InWater, air_buoyancy_g, line_ml, mass_in, mass_in_sd
from lamsik.core.weighing.pair import Bearer, Margin, Turn, margins, turns_at
from lamsik.drawings.scale import float_with_marks, thing_in_water
from lamsik.drawings.svg import Node
from lamsik.store import weighed
from lamsik.store.paging import MOST
from lamsik.store.tables import Instrument, WeighedThing
from lamsik.store.weighed import Weighed
from lamsik.web.shared.db import db, load
from lamsik.web.shared.waters import shop_waters
from lamsik.words import refusals

blueprint = Blueprint("scale_things", __name__, url_prefix="/scale/things")


@dataclass(frozen=True)
class ScaleCard:
    """Everything the card of a weighed thing shows."""

    row: Weighed
    water: Water
    instrument: Instrument | None
    thing: InWater | None
    sentence: str
    figures: tuple[tuple[str, str, str], ...]
    waters: tuple[dict[str, str], ...]
    capacity: tuple[Capacity, ...]
    why: str
    remarks: tuple[str, ...]
    sd_g: float


def card_of(row: Weighed, wanted: Water) -> ScaleCard:
    """The card, marks converted into a wanted water."""
    thing, water = row.in_water, row.water
    instrument = db().get(Instrument, row.instrument_id) if row.instrument_id else None
    capacity, why = (
        capacities(row.sinker_g, row.marks, water, wanted, row.air_g, row.may_be_off_g)
        if row.marks and row.sinker_g
        else ((), "")
    )
    loads = [value for value in (row.air_g, row.water_g, row.sinker_g) if value is not None]
    notes = (
        list(remarks(weighed.scale_of(instrument), max(loads, default=0.0), date.today()))
        if instrument
        else ["which scale it was weighed on is not noted"]
    )
    if thing and not can_tell(thing.water_g, thing.water_sd_g):
        notes.insert(
            0,
            f"{thing.water_g:+.2f} g in water is less than these scales can tell (±"
            f" {2 * thing.water_sd_g:.2f} g)".replace("-", "−"),
        )
    return ScaleCard(
        row,
        water,
        instrument,
        thing,
        _sentence(row, thing, capacity),
        _figures(row, thing),
        _in_waters(thing),
        tuple(capacity),
        why,
        tuple(notes),
        row.may_be_off_g,
    )


def _sentence(row: Weighed, thing: InWater | None, capacity: tuple[Capacity, ...]) -> str:
    if capacity:
        return (
            f"Carries {', '.join(f'{c.measured_g:.2f} g to the {c.mark}' for c in capacity)} in"
            f" {row.water.describe()}."
        )
    if thing is None:
        return (
            f"{row.air_g:.2f} g in air; weigh it in water too and its volume is known."
            if row.air_g is not None
            else "Weigh it in air too and its volume is known."
        )
    moves = (
        f"floats with {thing.lift_g:.2f} g of lift"
        if thing.lift_g > 0
        else f"sinks with {thing.water_g:.2f} g"
    )
    return f"Casts at {thing.air_g:.2f} g and {moves} in {thing.water.describe()}."


def _figures(row: Weighed, thing: InWater | None) -> tuple[tuple[str, str, str], ...]:
    """Label, value, how it came about."""
    figures = (
        [("In air, casting", show(row.air_g, "mass", 2), "As the scale read it.")]
        if row.air_g is not None
        else []
    )
    if thing is None:
        return tuple(figures)
    sd = 2 * thing.water_sd_g
    figures += [
        (
            "In water, sinking",
            show(thing.water_g, "mass", 2),
            f"± {sd:.2f} g (twice its one-sigma); minus is lift.",
        ),
        (
            "Volume",
            f"{thing.volume_ml:.2f} ml",
            f"(air − water) ÷ {thing.water.density_g_cm3:.4f} g/cm³; ± {2 * thing.volume_sd_ml:.2f} ml.",
        ),
        (
            "Mean density",
            f"{thing.density_g_cm3:.3f} g/cm³",
            "Mass ÷ volume: the water in which it would neither float nor sink.",
        ),
        (
            "Carried by the air",
            f"{air_buoyancy_g(thing):.3f} g",
            "Air itself lifts it so much; it matters below 0.01 g and is not taken off.",
        ),
    ]
    if row.line_mm and row.line_under_mm:
        figures.append(
            (
                "Line under water",
                f"{line_ml(row.line_mm, row.line_under_mm):.3f} ml",
                "What the immersed line displaces; its lift is added back.",
            )
        )
    return tuple(figures)


def _in_waters(thing: InWater | None, other: Water | None = None) -> tuple[dict[str, str], ...]:
    """What it weighs in every water of the shop, and in one more."""
    if thing is None:
        return ()
    rows = []
    for water in [*([other] if other else []), *shop_waters()]:
        value, sd = mass_in(thing, water), mass_in_sd(thing, water)
        unsure = not can_tell(value, sd)
        does = "too near to tell" if unsure else ("sinks" if value > 0 else "floats")
        rows.append(
            {
                "water": water.describe(),
                "density": f"{water.density_g_cm3:.4f}",
                "mass": show(value, "mass", 2),
                "sd": f"± {2 * sd:.2f} g",
                "does": does,
            }
        )
    return tuple(rows)


AS_WEIGHED = "as weighed"


@blueprint.get("/<int:key>", endpoint="show")
def thing(key: int) -> ResponseReturnValue:
    """One weighed thing; trimming and pairs as the address asks."""
    kept = load(WeighedThing, key)
    if kept.deleted_at is not None:
        abort(404)
    row = weighed.of(db(), kept)
    asked, problems = request.args.to_dict(), {}
    begun = row.water
    waters = {AS_WEIGHED: begun} | {water.name: water for water in shop_waters() if water != begun}
    chosen = asked.get("water") or AS_WEIGHED
    if chosen not in waters:
        problems["water"] = refusals.says(Refused("water", chosen, named(waters)))
        chosen = AS_WEIGHED
    wanted = waters[chosen]
    card = card_of(row, wanted)
    answers: dict[str, Any] = {}
    if asked.get("other", "").strip():
        try:
            card = replace(card, waters=_in_waters(card.thing, _other_water(asked["other"])))
        except Refused as refused:
            problems["other"] = refusals.says(refused)
    for name, work in (("trim", _trimmed), ("slug", _slug), ("pair", _pair)):
        try:
            answers[name] = work(card, asked, wanted)
        except Refused as refused:
            problems[name] = refusals.says(refused)
    return render_template(
        "scale/card.html",
        card=card,
        row=row,
        wanted=wanted,
        chosen=chosen,
        waters=waters,
        asked=asked,
        answers=answers,
        problems=problems,
        metals=METALS,
        partners=weighed.partners(db(), row, MOST),
        picture=(
            thing_in_water(card.thing, row.kind)
            if card.thing
            else (float_to_marks(card) if card.capacity else None)
        ),
        dust=trim.DUST,
        source=Source(**row.source),
        sources=SAYS,
    ), (422 if problems else 200)


def _other_water(text: str) -> Water:
    """A water as typed: a density, or a temperature of fresh water with its unit."""
    try:
        return Water(f"water of {text.strip()}", measured_g_cm3=parse(text, "density", "other water").value)
    except Refused:
        return Water("fresh water", parse(text, "temperature", "other water").value)


def float_to_marks(card: ScaleCard) -> Node:
    """The float with what it carries to each mark, drawn."""
    return float_with_marks([(c.mark, c.measured_g, c.wanted_g) for c in card.capacity])


def _trimmed(card: ScaleCard, asked: dict[str, str], wanted: Water) -> dict[str, str] | None:
    """What to add or take off for a wanted mass in the wanted water, and the water at which it flips then."""
    text = asked.get("to", "").strip()
    if not text or card.thing is None:
        return None
    target = parse(text, "mass", "mass in water", "g").value
    now_g = mass_in(card.thing, wanted)
    wire = parse(asked["wire"], "length", "wire", "mm").value if asked.get("wire", "").strip() else None
    remedy = trim.to_add(
        target - now_g, asked.get("metal", "lead"), asked.get("where", trim.OUTSIDE), wanted, wire
    )
    verb = "Add" if remedy.mass_g >= 0 else "Take off"
    length = f", {abs(remedy.wire_mm):.0f} mm of {wire:g} mm wire" if remedy.wire_mm is not None else ""
    flip = trim.flips_at(card.thing.air_g, card.thing.volume_ml, remedy)
    small = (
        ""
        if can_tell(target - now_g, mass_in_sd(card.thing, wanted))
        else " That is less than these scales can tell."
    )
    return {
        "says": (
            f"{verb} {abs(remedy.mass_g):.2f} g of {remedy.metal}"
            f" {'outside' if remedy.where == trim.OUTSIDE else 'sealed inside'}{length}.{small}"
        ),
        "why": (
            f"It weighs {show(now_g, 'mass', 2)} in {wanted.describe()}, {show(target, 'mass', 2)} is wanted;"
            f" then it neither floats nor sinks at {flip:.4f} g/cm³."
        ),
    }


def _slug(card: ScaleCard, asked: dict[str, str], wanted: Water) -> dict[str, Any] | None:
    """A slug taken down to a mass: a length off a cylinder, or the next bite of the weigh-and-repeat loop."""
    if not asked.get("slug_mass", "").strip():
        return None
    mass, target = (
        parse(asked.get(name, ""), "mass", name.replace("_", " "), "g").value
        for name in ("slug_mass", "slug_to")
    )
    if asked.get("slug_length", "").strip():
        length = parse(asked["slug_length"], "length", "slug length", "mm").value
        cut = trim.cut_mm(mass, length, target)
        return {"says": f"Take {cut:.1f} mm off the {length:g} mm: {target:.2f} g is left."}
    step = trim.next_cut(mass, target, card.instrument.step_g if card.instrument else 0.1)
    return {"says": step.says[0].upper() + step.says[1:] + "."}


@dataclass(frozen=True)
class PairRow:
    """A float to one of its marks under a load: the water at which the verdict turns, or why that is not
    known, and its margin in every water.
    """

    mark: str
    turn: Turn | None
    why: str
    margins: tuple[Margin, ...]


def _pair(card: ScaleCard, asked: dict[str, str], wanted: Water) -> tuple[PairRow, ...] | None:
    """A float under a load, a row for each of its marks, in every water of the shop."""
    key = asked.get("with", "")
    if not key.isdecimal() or len(key) > 9:
        return None
    kept = db().get(WeighedThing, int(key))
    if kept is None:
        raise Refused("with", key, "one of the weighed things")
    other = weighed.of(db(), kept)
    float_row, load_row = (
        (card.row, other) if card.row.marks or card.row.kind == "float" else (other, card.row)
    )
    thing = load_row.in_water
    if thing is None:
        raise Refused("load", load_row.name, "weigh it in air and in water first")
    return tuple(_pair_row(bearer, thing) for bearer in bearers_of(float_row))


def _pair_row(bearer: Bearer, thing: InWater) -> PairRow:
    try:
        return PairRow(bearer.mark, turns_at(bearer, thing), "", margins(bearer, thing, shop_waters()))
    except Refused as refused:
        return PairRow(bearer.mark, None, refusals.allowed(refused), margins(bearer, thing, [bearer.water]))


def bearers_of(row: Weighed) -> tuple[Bearer, ...]:
    """A weighed float as what carries: to each of its marks, or wholly under. Raises `Refused` where it
    was not weighed in water.
    """
    water, sd = row.water, row.may_be_off_g
    if row.marks and row.sinker_g:
        return tuple(
            Bearer(row.name, row.sinker_g - reading, water, row.air_g, sd * 2**0.5, name)
            for name, reading in row.marks
        )
    thing = row.in_water
    if thing is None or thing.lift_g <= 0:
        raise Refused(
            "float", row.name, "weigh it in water with a sinker first: what it carries is not known"
        )
    return (Bearer(row.name, thing.lift_g, water, row.air_g, thing.water_sd_g, "wholly under"),)

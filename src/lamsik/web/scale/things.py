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
from lamsik.core.quantities import give_or_take, numeral, plainly, read_measure, said, sure
from lamsik.core.shapes.sources import SAYS, Source
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
from lamsik.words.scale import DUST
from lamsik.words.tell import capital, tell

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
        [tell(one) for one in remarks(weighed.scale_of(instrument), max(loads, default=0.0), date.today())]
        if instrument
        else ["which scale it was weighed on is not noted"]
    )
    if thing and not can_tell(thing.water_g, thing.water_sd_g):
        notes.insert(
            0,
            f"{said(thing.water_g, 'mass', sign=True)} in water is less than these scales can tell (±"
            f" {said(2 * thing.water_sd_g, 'mass')})".replace("-", "−"),
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
        refusals.limits_said(why),
        tuple(notes),
        row.may_be_off_g,
    )


def _sentence(row: Weighed, thing: InWater | None, capacity: tuple[Capacity, ...]) -> str:
    if capacity:
        carries = ", ".join(f"{said(c.measured_g, 'mass')} to the {c.mark}" for c in capacity)
        return f"Carries {carries} in {row.water.describe()}."
    if thing is None:
        return (
            f"{said(row.air_g, 'mass')} in air; weigh it in water too and its volume is known."
            if row.air_g is not None
            else "Weigh it in air too and its volume is known."
        )
    moves = (
        f"floats with {said(thing.lift_g, 'mass')} of lift"
        if thing.lift_g > 0
        else f"sinks with {said(thing.water_g, 'mass')}"
    )
    return f"Casts at {said(thing.air_g, 'mass')} and {moves} in {thing.water.describe()}."


def _figures(row: Weighed, thing: InWater | None) -> tuple[tuple[str, str, str], ...]:
    """Label, value, how it came about."""
    figures = (
        [("In air, casting", said(row.air_g, "mass"), "As the scale read it.")]
        if row.air_g is not None
        else []
    )
    if thing is None:
        return tuple(figures)
    figures += [
        (
            "In water, sinking",
            sure(thing.water_g, "mass", thing.water_sd_g),
            f"{give_or_take('mass', thing.water_sd_g, 2.0)} (twice its one-sigma); minus is lift.",
        ),
        (
            "Volume",
            sure(thing.volume_ml, "volume", thing.volume_sd_ml),
            f"(air − water) ÷ {said(thing.water.density_g_cm3, 'density', 4)};"
            f" {give_or_take('volume', thing.volume_sd_ml, 2.0)}.",
        ),
        (
            "Mean density",
            said(thing.density_g_cm3, "density"),
            "Mass ÷ volume: the water in which it would neither float nor sink.",
        ),
        (
            "Carried by the air",
            said(air_buoyancy_g(thing), "mass", 3),
            f"Air itself lifts it so much; it matters below {said(0.01, 'mass')} and is not taken off.",
        ),
    ]
    if row.line_mm and row.line_under_mm:
        figures.append(
            (
                "Line under water",
                said(line_ml(row.line_mm, row.line_under_mm), "volume", 3),
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
                "density": numeral(water.density_g_cm3, "density", 4),
                "mass": sure(value, "mass", sd),
                "sd": give_or_take("mass", sd, 2.0),
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
        dust=DUST,
        source=Source(**row.source),
        sources=SAYS,
    ), (422 if problems else 200)


def _other_water(text: str) -> Water:
    """A water as typed: a density, or a temperature of fresh water with its unit."""
    try:
        return Water(f"water of {text.strip()}", measured_g_cm3=read_measure(text, "density", "other water"))
    except Refused:
        return Water("fresh water", read_measure(text, "temperature", "other water"))


def float_to_marks(card: ScaleCard) -> Node:
    """The float with what it carries to each mark, drawn."""
    return float_with_marks([(c.mark, c.measured_g, c.wanted_g) for c in card.capacity])


def _trimmed(card: ScaleCard, asked: dict[str, str], wanted: Water) -> dict[str, str] | None:
    """What to add or take off for a wanted mass in the wanted water, and the water at which it flips then."""
    text = asked.get("to", "").strip()
    if not text or card.thing is None:
        return None
    target = read_measure(text, "mass", "mass in water")
    now_g = mass_in(card.thing, wanted)
    wire = read_measure(asked["wire"], "length", "wire") if asked.get("wire", "").strip() else None
    remedy = trim.to_add(
        target - now_g, asked.get("metal", "lead"), asked.get("where", trim.OUTSIDE), wanted, wire
    )
    verb = "Add" if remedy.mass_g >= 0 else "Take off"
    length = (
        f", {said(abs(remedy.wire_mm), 'length', 0)} of {plainly(wire or 0.0, 'length')} wire"
        if remedy.wire_mm is not None
        else ""
    )
    flip = trim.flips_at(card.thing.air_g, card.thing.volume_ml, remedy)
    small = (
        ""
        if can_tell(target - now_g, mass_in_sd(card.thing, wanted))
        else " That is less than these scales can tell."
    )
    return {
        "says": (
            f"{verb} {said(abs(remedy.mass_g), 'mass')} of {remedy.metal}"
            f" {'outside' if remedy.where == trim.OUTSIDE else 'sealed inside'}{length}.{small}"
        ),
        "why": (
            f"It weighs {said(now_g, 'mass')} in {wanted.describe()}, {said(target, 'mass')} is wanted;"
            f" then it neither floats nor sinks at {said(flip, 'density', 4)}."
        ),
    }


def _slug(card: ScaleCard, asked: dict[str, str], wanted: Water) -> dict[str, Any] | None:
    """A slug taken down to a mass: a length off a cylinder, or the next bite of the weigh-and-repeat loop."""
    if not asked.get("slug_mass", "").strip():
        return None
    mass, target = (
        read_measure(asked.get(name, ""), "mass", name.replace("_", " ")) for name in ("slug_mass", "slug_to")
    )
    if asked.get("slug_length", "").strip():
        length = read_measure(asked["slug_length"], "length", "slug length")
        cut = trim.cut_mm(mass, length, target)
        return {
            "says": f"Take {said(cut, 'length')} off the {plainly(length, 'length')}:"
            f" {said(target, 'mass')} is left."
        }
    step = trim.next_cut(mass, target, card.instrument.step_g if card.instrument else 0.1)
    return {"says": f"{capital(step.says)}."}


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

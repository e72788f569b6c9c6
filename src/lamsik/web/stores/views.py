"""Stores: hardware, ballast metal, drills, waters, scales and the shop's own settings."""

from collections.abc import Callable
from datetime import date
from typing import Any

from flask import Blueprint, flash, redirect, render_template, request, url_for
from flask.typing import ResponseReturnValue
from flask_wtf import FlaskForm
from sqlalchemy.exc import IntegrityError
from sqlmodel import SQLModel, col, select
from wtforms import IntegerField, SelectField, StringField
from wtforms.validators import DataRequired, Length, NumberRange, Optional

from lamsik.core.errors import Refused, finite_between
from lamsik.core.materials import METALS, PART_MATERIALS
from lamsik.core.moulds import heat as mould_heat
from lamsik.core.quantities import as_typed, kept_or, plainly, read_measure, said
from lamsik.core.route.workdays import NAMES
from lamsik.core.shapes.clearance import clearances
from lamsik.core.trade.figures import FIGURES
from lamsik.core.trade.part_kinds import PART_KINDS
from lamsik.core.trade.step_kinds import STEP_KINDS
from lamsik.store import events, people, pieces, routes, stores
from lamsik.store.tables import Drill, Hardware, Instrument, ShopWater, SlugStock, Typed
from lamsik.web.shared.db import db, load
from lamsik.web.shared.forms import MeasureField, choices, typed_texts
from lamsik.web.stores import days, units
from lamsik.web.stores.usual import beside
from lamsik.words import refusals
from lamsik.words.figures import FIGURES as CALLED
from lamsik.words.route import KINDS as STEPS_CALLED
from lamsik.words.shapes import HOSTS, INSERTS

blueprint = Blueprint("stores", __name__, url_prefix="/stores")

KINDS = {kind.key: kind.word for kind in PART_KINDS.values() if kind.is_put_on}


class HardwareForm(FlaskForm):
    """A part that goes on a body."""

    name = StringField("Name", validators=[DataRequired("Name the part."), Length(max=80)])
    kind = SelectField("Kind", choices=choices(KINDS.items()))
    material = SelectField("Material", choices=choices((m, m) for m in PART_MATERIALS), default="steel")
    count = IntegerField("Weighed together", default=1, validators=[NumberRange(1, 1000, "1 to 1000 parts.")])
    mass = MeasureField("Mass of these", "mass", 0.0, 500.0)
    source = SelectField(
        "The mass is", choices=choices([("label", "from a label"), ("weighed", "weighed here")])
    )
    wire = MeasureField("Wire or diameter", "length", 0.0, 40.0, optional=True)
    shank = MeasureField("Length in the body", "length", 0.0, 600.0, optional=True)
    bore = MeasureField("Bore of a tube", "length", 0.0, 40.0, optional=True)
    pack = IntegerField("In a pack", validators=[Optional(), NumberRange(1, 100000, "1 or more.")])

    def validate(self, extra_validators: Any = None) -> bool:
        """What its fields say by themselves, and what a part of that kind is none without."""
        if not super().validate(extra_validators):
            return False
        kind = PART_KINDS[self.kind.data]
        lacks = [name for name in kind.must_have if not self[name].amount]
        for name in lacks:
            self[name].errors = [f"A {kind.word} is bored and drawn by it: type it."]
        return not lacks


class WeighForm(FlaskForm):
    """A part's own weighing: several together."""

    count = IntegerField(
        "Parts on the scale", default=10, validators=[NumberRange(1, 1000, "1 to 1000 parts.")]
    )
    mass = MeasureField("Mass together", "mass", 0.001, 5000.0)


class SlugForm(FlaskForm):
    """Ballast metal."""

    form = SelectField("Form", choices=choices([("rod", "rod, cut to mass"), ("ball", "ball or shot")]))
    metal = SelectField("Metal", choices=choices((m, m) for m in METALS))
    diameter = MeasureField("Diameter", "length", 0.5, 40.0)


class DrillForm(FlaskForm):
    """A drill size."""

    diameter = MeasureField("Drill", "length", 0.5, 50.0)


class WaterForm(FlaskForm):
    """A named water."""

    name = StringField("Name", validators=[DataRequired("Name the water."), Length(max=80)])
    temperature = MeasureField("Temperature", "temperature", -2.0, 40.0)
    salinity = MeasureField("Practical salinity", "salinity", 0.0, 42.0, default="0 PSU")
    measured = MeasureField("Measured density, if any", "density", 0.95, 1.25, optional=True)


class ScaleForm(FlaskForm):
    """A scale."""

    name = StringField("Name", validators=[DataRequired("Name the scale."), Length(max=80)])
    step = MeasureField("Step", "mass", 0.0001, 100.0)
    span = MeasureField("Reads up to", "mass", 0.1, 50000.0)
    spread = MeasureField("Repeat spread, if known", "mass", 0.0, 100.0, optional=True)
    checked = MeasureField("Checked today with", "mass", 0.0, 50000.0, optional=True)


class LimitsForm(FlaskForm):
    """What the shop holds to when it looks for ballast, names a behaviour and saws: figures of the trade's
    table, its stick.
    """


STICK = ("stick_length", "stick_width", "stick_thick")
LIMITS = ("bench", "bands", "saw", "blades")
"""The settings whose figures stand in that form."""
for _name, _field in {
    **{
        figure.key: MeasureField(CALLED[setting][figure.key], figure.quantity, figure.least, figure.most)
        for setting in LIMITS
        for figure in FIGURES[setting]
    },
    "stick_length": MeasureField("Stick length", "length", 10.0, 6000.0),
    "stick_width": MeasureField("Stick width", "length", 1.0, 600.0),
    "stick_thick": MeasureField("Stick thickness", "length", 1.0, 600.0),
}.items():
    setattr(LimitsForm, _name, _field)


def _hardware(form: HardwareForm) -> Hardware:
    weighed, kind = form.source.data == "weighed", PART_KINDS[form.kind.data]
    return Hardware(
        code=stores.free_code(db()),
        name=form.name.data.strip(),
        kind=form.kind.data,
        mass_g=(form.mass.amount or 0.0) / form.count.data,
        material=form.material.data,
        density_g_cm3=PART_MATERIALS[form.material.data],
        outside_share=kind.outside_share,
        reach_mm=kind.reach_mm,
        weighed=weighed,
        weighed_count=form.count.data if weighed else 0,
        wire_mm=form.wire.amount or 0.0,
        shank_mm=form.shank.amount or 0.0,
        bore_mm=form.bore.amount or 0.0,
        pack_count=form.pack.data or 0,
    )


def _slug(form: SlugForm) -> SlugStock:
    size = form.diameter.amount or 1.0
    nominal = as_typed(form.diameter.data or "", "length")
    name = f"{form.metal.data} {form.form.data} {nominal}"
    return SlugStock(
        code=name,
        name=name,
        form=form.form.data,
        metal=form.metal.data,
        density_g_cm3=METALS[form.metal.data],
        diameter_mm=size,
    )


def _water(form: WaterForm) -> ShopWater:
    return ShopWater(
        name=form.name.data.strip(),
        temperature_c=form.temperature.amount or 0.0,
        salinity_psu=form.salinity.amount or 0.0,
        measured_g_cm3=form.measured.amount,
    )


def _scale(form: ScaleForm) -> Instrument:
    checked = form.checked.amount
    return Instrument(
        name=form.name.data.strip(),
        step_g=form.step.amount or 0.1,
        span_g=form.span.amount or 500.0,
        spread_g=form.spread.amount or 0.0,
        checked_on=date.today() if checked else None,
        checked_g=checked or None,
    )


ADDERS: dict[str, tuple[type[FlaskForm], Callable[..., Typed], str]] = {
    "hardware": (HardwareForm, _hardware, "Part"),
    "slug": (SlugForm, _slug, "Ballast metal"),
    "drill": (DrillForm, lambda form: Drill(diameter_mm=form.diameter.amount), "Drill"),
    "water": (WaterForm, _water, "Water"),
    "scale": (ScaleForm, _scale, "Scale"),
}
"""What can be added: its form, how a row is made of it, what it is called."""

TABLES: dict[str, type[SQLModel]] = {
    "hardware": Hardware,
    "slug": SlugStock,
    "drill": Drill,
    "water": ShopWater,
}


@blueprint.get("")
def index() -> str:
    """Everything the shop has."""
    return _page({})


def _page(
    tried: dict[str, FlaskForm],
    problem: str = "",
    asked: dict[str, str] | None = None,
    days_problem: Refused | None = None,
) -> str:
    forms = {
        name: tried.get(name) or kind(prefix=name, formdata=None) for name, (kind, _, _) in ADDERS.items()
    }
    saw = stores.setting(db(), "saw")
    figures = {
        figure.key: plainly(stores.setting(db(), setting)[figure.key], figure.quantity)
        for setting in LIMITS
        for figure in FIGURES[setting]
    }
    stick = dict(
        zip(
            STICK,
            (plainly(v, "length") for v in saw["stick_mm"]),
            strict=True,
        )
    )
    limits = tried.get("limits") or LimitsForm(
        formdata=None,
        prefix="limits",
        data={
            **figures,
            **stick,
        },
    )
    return render_template(
        "stores/index.html",
        forms=forms,
        limits=limits,
        kinds=KINDS,
        hardware=stores.hardware(db()),
        waters=stores.waters(db()),
        slugs=db().exec(select(SlugStock).order_by(SlugStock.code)).all(),
        drills=db().exec(select(Drill).order_by(col(Drill.diameter_mm))).all(),
        instruments=pieces.instruments(db()),
        weigh=WeighForm(formdata=None),
        inserts=INSERTS,
        hosts=HOSTS,
        problem=problem,
        asked=asked or {},
        clearances=clearances(stores.setting(db(), "clearances")),
        days=days.shown(),
        units=units.shown(),
        weekdays=NAMES,
        days_problem=days_problem,
        heat_limits=mould_heat.limits(stores.setting(db(), "heat")["limits"]),
        margin_c=stores.setting(db(), "heat")["margin_c"],
        beside=beside(),
        step_kinds=STEP_KINDS.values(),
        steps_called=STEPS_CALLED,
        minutes=routes.own_minutes(db()),
        everyone=people.here(db()),
        most_people=people.MOST,
    )


@blueprint.post("/add/<any(hardware, slug, drill, water, scale):what>")
def add(what: str) -> ResponseReturnValue:
    """Add a row; bad input comes back beside its field."""
    kind, make, word = ADDERS[what]
    form = kind(prefix=what)
    if not form.validate_on_submit():
        return _page({what: form}), 422
    try:
        with db().begin_nested():
            row = make(form)
            row.typed = typed_texts(form)
            db().add(row)
    except IntegrityError:
        first = next(iter(form))
        first.errors = [*first.errors, "There is one of that name or size already."]
        return _page({what: form}), 422
    flash(f"{word} added.")
    return redirect(url_for("stores.index", _anchor=what))


@blueprint.post("/remove/<any(hardware, slug, drill, water):what>/<int:key>")
def remove(what: str, key: int) -> ResponseReturnValue:
    """Take a row out of the stock lists; designs keep what they were made with."""
    row = load(TABLES[what], key)
    watched = events.WATCHED[TABLES[what]]
    try:
        stores.take_out(db(), row)
        gone = events.last_of(db(), key, watched.of, watched.part)
        undo = url_for("today_history.take_back", key=gone.id if gone else 0, to=what)
        flash("It is out of the stock; designs keep what they were made with.", f"undo:{undo}")
    except IntegrityError:
        flash("An order still names it; it stays.", "refused")
    return redirect(url_for("stores.index", _anchor=what))


@blueprint.post("/scale/<int:key>/check")
def check_scale(key: int) -> ResponseReturnValue:
    """A scale was checked today with a known mass; how its readings spread, if that was looked at."""
    row = load(Instrument, key)
    try:
        row.checked_g = finite_between(
            "check mass",
            read_measure(request.form.get("mass", ""), "mass", "check mass"),
            0.01,
            row.span_g,
            "g",
        )
        if request.form.get("spread", "").strip():
            row.spread_g = finite_between(
                "spread", read_measure(request.form["spread"], "mass", "spread"), 0.0, row.span_g, "g"
            )
    except Refused as refused:
        return _page({}, f"{row.name}: {refusals.says(refused)}"), 422
    row.checked_on = date.today()
    db().add(row)
    flash(f"{row.name} was checked today with {plainly(row.checked_g, 'mass')}.")
    return redirect(url_for("stores.index", _anchor="scale"))


@blueprint.post("/limits")
def keep_limits() -> ResponseReturnValue:
    """Keep the shop's limits."""
    form = LimitsForm(prefix="limits")
    if not form.validate_on_submit():
        return _page({"limits": form}), 422
    for setting in LIMITS:
        kept = stores.setting(db(), setting)
        stores.put_setting(
            db(),
            setting,
            {one.key: kept_or(form[one.key].amount, kept[one.key], one.quantity) for one in FIGURES[setting]},
        )
    stick = [
        kept_or(form[name].amount, before, "length")
        for name, before in zip(STICK, stores.setting(db(), "saw")["stick_mm"], strict=True)
    ]
    stores.put_setting(db(), "saw", {"stick_mm": stick})
    flash("Kept.")
    return redirect(url_for("stores.index", _anchor="limits"))


@blueprint.post("/weigh/<int:key>")
def weigh(key: int) -> ResponseReturnValue:
    """The shop's own weighing of a part takes the place of its label."""
    row, form = load(Hardware, key), WeighForm()
    if not form.validate_on_submit():
        problems = "; ".join(str(text) for field in form for text in field.errors)
        return _page({}, f"{row.name}: {problems}"), 422
    row.mass_g, row.weighed, row.weighed_count = (
        (form.mass.amount or 0.0) / form.count.data,
        True,
        form.count.data,
    )
    row.typed = {**row.typed, **typed_texts(form)}
    db().add(row)
    flash(f"{row.name} weighs {said(row.mass_g, 'mass', 3)} now, by {row.weighed_count} on the scale.")
    return redirect(url_for("stores.index", _anchor="hardware"))


@blueprint.post("/clearances")
def keep_clearances() -> ResponseReturnValue:
    """Keep the table of clearances by insert and host."""
    sent = {
        f"{insert}|{host}": request.form.get(f"{insert}|{host}", "") for insert in INSERTS for host in HOSTS
    }
    try:
        rows = {
            key: (
                read_measure(
                    text, "length", f"clearance, {INSERTS[key.split('|')[0]]} in {HOSTS[key.split('|')[1]]}"
                )
            )
            for key, text in sent.items()
        }
        now = clearances(stores.setting(db(), "clearances"))
        rows = {key: kept_or(mm, now.at(*key.split("|")), "length") for key, mm in rows.items()}
        clearances(rows)
    except Refused as refused:
        return _page({}, refusals.says(refused), sent), 422
    stores.put_setting(db(), "clearances", rows)
    flash("Clearances kept: drill maps use them from now on.")
    return redirect(url_for("stores.index", _anchor="clearances"))


@blueprint.post("/minutes")
def keep_minutes() -> ResponseReturnValue:
    """Keep how long hands are on each kind of step."""
    sent = {name: text for name, text in request.form.items() if name.startswith("minutes:")}
    try:
        own = {
            kind.key: [
                read_measure(
                    sent.get(f"minutes:{kind.key}:{which}", ""),
                    "minutes",
                    f"{STEPS_CALLED[kind.key]}, {word}",
                )
                for which, word in (("setup", "set-up"), ("each", "each"))
            ]
            for kind in STEP_KINDS.values()
        }
        routes.keep_minutes(db(), own)
    except Refused as refused:
        return _page({}, refusals.says(refused), sent), 422
    flash("Minutes kept: routes of pieces begun from now on have them.")
    return redirect(url_for("stores.index", _anchor="minutes"))


@blueprint.post("/heat")
def keep_heat() -> ResponseReturnValue:
    """Keep what mould materials stand, and how far under it a melt stays; a row left empty goes back to
    what it began with.
    """
    kept, sent = {}, {name: text.strip() for name, text in request.form.items() if name != "csrf_token"}
    try:
        margin = finite_between(
            "margin", read_measure(sent.get("margin_c", ""), "warming", "margin"), 0.0, 100.0, "°C"
        )
        margin = kept_or(margin, stores.setting(db(), "heat")["margin_c"], "warming")
        for name, text in sent.items():
            if name.startswith("limit:") and text:
                kept[name.removeprefix("limit:")] = read_measure(
                    text, "temperature", name.removeprefix("limit:")
                )
        more = sent.get("new_name", "")[:60]
        if more:
            kept[more] = read_measure(sent.get("new_limit", ""), "temperature", more)
        had = mould_heat.limits(stores.setting(db(), "heat")["limits"])
        kept = {name: kept_or(at_c, had.get(name, at_c), "temperature") for name, at_c in kept.items()}
        mould_heat.limits(kept)
    except Refused as refused:
        return _page({}, refusals.says(refused), sent), 422
    stores.put_setting(
        db(), "heat", {"margin_c": margin, "limits": kept} if len(kept) else {"margin_c": margin}
    )
    flash("Kept: pours are held against these from now on.")
    return redirect(url_for("stores.index", _anchor="heat"))


@blueprint.post("/days")
def keep_days() -> ResponseReturnValue:
    """Keep the shop's days, its box bricks, and how it mixes."""
    try:
        days.keep(request.form)
    except Refused as refused:
        return _page({}, days_problem=refused), 422
    flash("Kept.")
    return redirect(url_for("stores.index", _anchor="days"))

"""The weigh bench: anything in air and in water, its card, the table of all that was weighed, CSV in and
out.
"""

from collections.abc import Sequence
from dataclasses import asdict
from datetime import UTC, datetime
from typing import Any

from flask import Blueprint, Response, flash, redirect, render_template, request, url_for
from flask.typing import ResponseReturnValue
from sqlmodel import select

from lamsik.core.errors import Refused, require
from lamsik.core.quantities import read_measure
from lamsik.core.shapes.sources import OWN, SAYS, Source
from lamsik.core.units import CHOICES
from lamsik.core.water import Water
from lamsik.core.weighing.bydifference import MARKS, capacities
from lamsik.core.weighing.inwater import InWater, by_ratio, line_ml
from lamsik.devices.scale_address import serial_ports
from lamsik.drawings.scale import weighing_scenes
from lamsik.formats import weighed_csv
from lamsik.store import documents, events, pieces, stores, weighed
from lamsik.store.tables import Document, Instrument, ShopWater, WeighedThing, now
from lamsik.store.weighed import MASSES, Weighed
from lamsik.web.lan.pairing import is_local
from lamsik.web.scale import port
from lamsik.web.shared import picks, scale
from lamsik.web.shared.db import db, load, sent_row
from lamsik.web.shared.files import as_file
from lamsik.web.shared.lists import asked_page
from lamsik.web.shared.scale import typed_weight
from lamsik.words import refusals
from lamsik.words.scale import REMINDERS

blueprint = Blueprint("scale", __name__, url_prefix="/scale")

MOST_MARKS = 4


@blueprint.get("")
def bench() -> str:
    """The bench and the table of everything weighed; ready for a float that is to be weighed to its marks."""
    named = {name: request.args[name] for name in ("float", "name") if name in request.args}
    return bench_page(asked={"kind": "float", **named} if named.get("float") else {})


def bench_page(
    problem: str = "",
    field: str = "",
    asked: dict[str, str] | None = None,
    connecting: str = "",
    ask_units: Any = None,
    table: str = "",
) -> str:
    """The page, what was typed still in it."""
    text, kind = request.args.get("q", ""), request.args.get("kind", "")
    page = asked_page(weighed.listed(text, kind if kind in weighed.KINDS else ""))
    return render_template(
        "scale/bench.html",
        rows=[_line(row) for row in weighed.of_many(db(), page.rows)],
        page=page,
        q=text,
        kind=kind,
        kinds=weighed.KINDS,
        stages=weighed.STAGES,
        waters=stores.waters(db()),
        marks=MARKS,
        instruments=pieces.instruments(db()),
        scenes=weighing_scenes(),
        problem=problem,
        field=field,
        asked=asked or {},
        connecting=connecting,
        ask_units=ask_units,
        csv=table,
        **scale.board("scale"),
        bauds=port.BAUDS,
        ports=serial_ports(),
        hosts=scale.hosts(),
        own_machine=is_local(),
        sources=SAYS,
        reminders=REMINDERS,
        floats=picks.of("float", picks.sent("float", "float")),
        most_marks=MOST_MARKS,
    )


def _line(row: Weighed) -> dict[str, Any]:
    thing = row.in_water
    return {
        "row": row,
        "air": row.air_g,
        "volume": thing.volume_ml if thing else None,
        "density": thing.density_g_cm3 if thing else None,
        "water": thing.water_g if thing else None,
        "where": row.water.describe() if thing or row.marks else "",
        "marks": row.marks,
    }


@blueprint.post("")
def note() -> ResponseReturnValue:
    """Keep what was weighed; bad input comes back beside its field, nothing else is lost."""
    sent = {name: value.strip() for name, value in request.form.items() if name != "csrf_token"}
    try:
        row = weighed.keep(db(), _row_of(sent))
    except Refused as refused:
        return bench_page(refusals.beside(refused), refused.field, sent), 422
    return redirect(url_for("scale_things.show", key=row.id))


def _row_of(sent: dict[str, str]) -> Weighed:
    """A row of what was typed, checked as a whole."""
    require(bool(sent.get("name")), "name", "", "name what is weighed")
    _known(sent, "kind", "other", weighed.KINDS)
    _known(sent, "stage", "", ("", *weighed.STAGES))
    masses = {name: _mass(sent, name) for name in MASSES}
    require(
        any(value is not None for value in masses.values()) or bool(sent.get("reading_1")),
        "air",
        "",
        "weigh it in air, or in water",
    )
    marks: list[tuple[str, float]] = [
        (sent.get(f"mark_{n}", ""), value)
        for n in range(1, MOST_MARKS + 1)
        if (value := _mass(sent, f"reading_{n}")) is not None
    ]
    water, line = (
        water_asked(sent),
        [
            read_measure(sent[name], "length", name.replace("_", " ")) if sent.get(name) else 0.0
            for name in ("line", "line_under")
        ],
    )
    line_ml(*line)
    instrument = sent_row(Instrument, "instrument", "that scale is not in Stores any more: choose another")
    made_from = sent_row(Document, "float", "that float is not in the shop any more: choose another")
    row = Weighed(
        name=sent["name"][:120],
        kind=sent.get("kind", "other"),
        water=water,
        line_mm=line[0],
        line_under_mm=line[1],
        marks=tuple(marks),
        air_g=masses["air"],
        water_g=masses["water"],
        sinker_g=masses["sinker"],
        both_g=masses["both"],
        stage=sent.get("stage", ""),
        float_id=made_from.id if made_from else None,
        instrument_id=instrument.id if instrument else None,
        sd_g=weighed.scale_of(instrument).sd_g,
        note=sent.get("note", "")[:300],
        source=(
            asdict(Source(sent.get("source", OWN), sent.get("source_note", "")))
            if sent.get("source", OWN) != OWN or sent.get("source_note")
            else {}
        ),
        typed={name: sent[name] for name in (*MASSES, "temperature") if sent.get(name)},
    )
    _check_weighings(row)
    return row


def _known(sent: dict[str, str], field: str, usual: str, known: Sequence[str]) -> None:
    given = sent.get(field, usual)
    require(given in known, field, given, f"one of {', '.join(name for name in known if name)}")


def _check_weighings(row: Weighed) -> None:
    """Weighings that contradict each other, or lack the one they are told from, are refused."""
    if row.both_g is not None or row.marks:
        require(row.sinker_g is not None, "sinker", "", "weigh the sinker alone in water first")
    if row.in_water_g is not None and row.air_g is not None:
        InWater(row.air_g, row.in_water_g, row.water)
    if row.marks:
        capacities(row.sinker_g or 0.0, row.marks, row.water, row.water, row.air_g, row.may_be_off_g)


def _mass(sent: dict[str, str], name: str) -> float | None:
    text = sent.get(name, "")
    return typed_weight(text, name) if text else None


def water_asked(sent: dict[str, str]) -> Water:
    """The water of a form: one of the shop's, or typed by temperature and salinity, as a measured density,
    or as a ratio to fresh.
    """
    way = sent.get("water_by", "shop")
    if way == "measured":
        return Water(
            "measured water",
            measured_g_cm3=read_measure(sent.get("measured", ""), "density", "measured"),
        )
    if way == "ratio":
        fresh = Water("fresh water", read_measure(sent.get("temperature", ""), "temperature", "temperature"))
        return by_ratio(fresh.density_g_cm3, read_measure(sent.get("ratio", ""), "number", "ratio"))
    if way == "typed":
        temperature = read_measure(sent.get("temperature", ""), "temperature", "temperature")
        salinity = read_measure(sent["salinity"], "salinity", "salinity") if sent.get("salinity") else 0.0
        return Water("fresh water" if salinity < 0.5 else "salt water", temperature, salinity)
    waters = {str(row.id): row for row in db().exec(select(ShopWater))}
    if not sent.get("water_id"):
        return stores.water_of(next(iter(waters.values()))) if waters else Water()
    require(
        sent["water_id"] in waters,
        "water_id",
        None,
        "that water is not in Stores: choose"
        f" {', '.join(row.name for row in waters.values()) or 'another way'}",
    )
    return stores.water_of(waters[sent["water_id"]])


@blueprint.get("/things.csv")
def table_out() -> Response:
    """All of it as CSV."""
    return as_file(
        weighed_csv.write([_csv_row(row) for row in _all()]).encode("utf-8"),
        "weighed.csv",
        "text/csv",
    )


def _all() -> list[Weighed]:
    return weighed.of_many(db(), db().exec(weighed.listed()).all())


def _csv_row(row: Weighed) -> dict[str, object]:
    water = row.water
    return {
        "name": row.name,
        "kind": row.kind,
        "air": row.air_g,
        "water": row.water_g,
        "sinker": row.sinker_g,
        "both": row.both_g,
        "temperature": water.temperature_c,
        "salinity": water.salinity_psu,
        "measured": water.measured_g_cm3,
        "line": row.line_mm or None,
        "line under": row.line_under_mm or None,
        "stage": row.stage,
        "note": row.note,
        "marks": weighed_csv.marks_text(row.marks),
        "scale": (
            instrument.name
            if row.instrument_id and (instrument := db().get(Instrument, row.instrument_id))
            else ""
        ),
        "float": design.code if row.float_id and (design := db().get(Document, row.float_id)) else "",
        "weighed at": row.at.isoformat(timespec="seconds") + ("" if row.at.tzinfo else "+00:00"),
        "id": row.id,
    }


@blueprint.post("/things.csv")
def table_in() -> ResponseReturnValue:
    """A table brought in; columns without a unit are asked for first, nothing is kept until all of it is
    good.
    """
    file, text = request.files.get("file"), request.form.get("csv", "")
    data = file.read() if file and file.filename else text.encode("utf-8")
    try:
        rows, missing = weighed_csv.read(
            data,
            {
                name.removeprefix("unit_").replace("_", " "): value
                for name, value in request.form.items()
                if name.startswith("unit_") and value
            },
        )
        if missing:
            return (
                bench_page(
                    ask_units=[(head.name, CHOICES[head.quantity]) for head in missing],
                    table=data.decode("utf-8-sig"),
                ),
                422,
            )
        things = [_imported(row) for row in rows]
    except Refused as refused:
        return bench_page(refusals.says(refused), "csv"), 422
    known = {_likeness(row) for row in _all()}
    fresh = [row for row in things if _likeness(row) not in known]
    for row in fresh:
        weighed.keep(db(), row)
    there = len(things) - len(fresh)
    flash(
        f"{len(fresh)} weighed {'thing' if len(fresh) == 1 else 'things'} brought in."
        + (f" {there} {'was' if there == 1 else 'were'} here already." if there else "")
    )
    return redirect(url_for("scale.bench"))


def _likeness(row: Weighed) -> tuple[object, ...]:
    """What makes two rows the same weighing."""
    grams = tuple(
        round(value, 4) if value is not None else None
        for value in (row.air_g, row.water_g, row.sinker_g, row.both_g)
    )
    return (
        row.name,
        row.kind,
        row.stage,
        grams,
        weighed_csv.marks_text(row.marks),
        row.at.replace(tzinfo=None, microsecond=0),
    )


def _moment(text: object) -> datetime:
    """When a row of a table was weighed; now where it does not say."""
    if not text:
        return now()
    try:
        moment = datetime.fromisoformat(str(text))
    except ValueError as error:
        raise Refused("weighed at", text, "a date such as 2026-04-17 or 2026-04-17T09:30:00+00:00") from error
    return (moment.astimezone(UTC) if moment.tzinfo else moment.replace(tzinfo=UTC)).replace(microsecond=0)


def _imported(row: dict[str, Any]) -> Weighed:
    water = Water(
        "weighed water", row.get("temperature", 15.0), row.get("salinity", 0.0), row.get("measured")
    )
    kind, stage = str(row.get("kind", "other")), str(row.get("stage", ""))
    scale = next((one for one in pieces.instruments(db()) if one.name == row.get("scale")), None)
    thing_weighed = Weighed(
        name=str(row["name"]),
        kind=kind if kind in weighed.KINDS else "other",
        air_g=row.get("air"),
        water_g=row.get("water"),
        sinker_g=row.get("sinker"),
        both_g=row.get("both"),
        water=water,
        line_mm=row.get("line", 0.0),
        line_under_mm=row.get("line under", 0.0),
        stage=stage if stage in weighed.STAGES else "",
        note=str(row.get("note", "")),
        marks=tuple((str(mark), float(reading)) for mark, reading in row.get("marks", [])),
        at=_moment(row.get("weighed at")),
        instrument_id=scale.id if scale else None,
        float_id=next(
            (one.id for one in documents.listed(db(), "float") if one.code == row.get("float")), None
        ),
    )
    if thing_weighed.in_water_g is not None and thing_weighed.air_g is not None:
        InWater(thing_weighed.air_g, thing_weighed.in_water_g, water)
    return thing_weighed


@blueprint.post("/things/<int:key>/source")
def source(key: int) -> ResponseReturnValue:
    """Whose shape it is, and whether what is made from it may be sold."""
    row = load(WeighedThing, key)
    row.source = asdict(Source(request.form.get("source", OWN), request.form.get("source_note", "").strip()))
    db().add(row)
    flash("Kept: moulds, castings and orders made from it say so.")
    return redirect(url_for("scale_things.show", key=key))


@blueprint.post("/things/<int:key>/<any(delete, bring_back):way>")
def put_away(key: int, way: str) -> ResponseReturnValue:
    """Delete a weighed thing, or bring it back."""
    row = load(WeighedThing, key)
    if way == "bring_back" and row.deleted_at is not None:
        events.bring_back(db(), row)
    if way == "delete":
        row.deleted_at = now()
        db().add(row)
        flash(f"{row.name} is deleted.", f"undo:{url_for('scale.put_away', key=key, way='bring_back')}")
        return redirect(url_for("scale.bench"))
    return redirect(url_for("scale_things.show", key=key))

"""The running room: how deep a bait runs, an estimate fitted to logged runs; relative effects first."""

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from flask import Blueprint, flash, redirect, render_template, request, url_for
from flask.typing import ResponseReturnValue

from lamsik.core.errors import Refused
from lamsik.core.quantities import numeral, plainly, said
from lamsik.core.shapes.design import Design
from lamsik.core.tank.line import Line
from lamsik.core.tank.mass import budget
from lamsik.core.tank.running import (
    DepthChange,
    DivingFit,
    Tow,
    Trim,
    changes,
    depth_curve,
    fitted,
    line_shape,
)
from lamsik.documents.body.document import to_design
from lamsik.drawings.charts import PlottedCurve, axis, chart
from lamsik.drawings.svg import Node
from lamsik.drawings.towed import towed
from lamsik.store import documents, observed, orders, tub
from lamsik.store.tables import Document, Observation
from lamsik.web.shared.db import db, load, load_document
from lamsik.web.shared.forms import typed_texts
from lamsik.web.tank.forms import TowAsk, TowForm
from lamsik.words import refusals

blueprint = Blueprint("tank_running", __name__, url_prefix="/tank")


@dataclass(frozen=True)
class RunningRoom:
    """The running room: the estimate in a sentence, what changes it, the pictures, the fit."""

    sentence: str
    basis: str
    changes: tuple[DepthChange, ...]
    section: Node | None
    chart: Node | None
    problem: str


@blueprint.get("/<int:key>/running")
def show(key: int) -> str:
    """How deep it runs: an estimate, relative effects first."""
    return _running(load_document("body", key), TowForm())


def _running(row: Document, log: TowForm) -> str:
    key = row.id or 0
    ask = TowAsk(request.args if request.args else None)
    runs = tub.towed(db(), key)
    design = to_design(documents.content(db(), row))
    room = (
        running_room(design, _tow(ask), runs)
        if not request.args or ask.validate()
        else RunningRoom("Type how it is towed.", "", (), None, None, "")
    )
    return render_template(
        "tank/running.html",
        row=row,
        for_order=orders.waiting_for(db(), key),
        room=room,
        ask=ask,
        log=log,
        runs=runs,
    )


def _tow(ask: TowAsk) -> Tow:
    if not request.args:
        return Tow()
    return Tow(
        ask.speed.amount or 1.0,
        Line(ask.line.amount or 0.28),
        ask.rod.amount or 0.0,
        ask.out.amount or 25.0,
        ask.lead.amount or 0.0,
    )


def running_room(design: Design, tow: Tow, runs: Sequence[tub.TowRun]) -> RunningRoom:
    """Everything the running room shows of a design towed so."""
    mass = budget(design)
    try:
        fit = fitted(design, [tub.run_of(run) for run in runs])
        trim, shape = line_shape(design, mass, tow, fit)
        out = np.linspace(1.0, max(60.0, 2 * tow.line_out_m), 60)
        curve = depth_curve(design, mass, tow, fit, out)
        deep = float(np.interp(tow.line_out_m, out, curve))
        rows = changes(design, tow, fit) if deep > 0 else ()
    except Refused as refused:
        return RunningRoom(
            "No running depth can be estimated.",
            "",
            (),
            None,
            None,
            f"{refused.given}: {refusals.allowed(refused)}.",
        )
    if deep <= 0:
        why = "it has no lip to take it down" if design.lip is None else "so much line does not let it dive"
        return RunningRoom(f"It stays at the surface: {why}.", "", (), None, None, "")
    band = fit.band(design.lip)
    how = (
        f"{plainly(tow.line_out_m, 'distance')} of {plainly(tow.line.diameter_mm, 'length')} line at"
        f" {plainly(tow.speed_m_s, 'pace')}"
        + (f" with {plainly(tow.lead_g, 'mass')} of lead at the bait" if tow.lead_g else "")
    )
    sentence = (
        f"About {said(deep, 'distance')} deep ({numeral(deep * (1 - band), 'distance')} to"
        f" {numeral(deep * (1 + band), 'distance')}) on {how}."
    )
    points = [(run.line_out_m, run.depth_m) for run in runs]
    deepest = max([float(curve.max()) * (1 + band), *(d for _, d in points), 0.5])
    picture = chart(
        "Depth against line out",
        axis("line out from the rod tip", 0, float(out[-1]), "distance"),
        axis("depth", 0, deepest, "distance"),
        [PlottedCurve("estimate", out, curve)],
        (out, curve * (1 - band), curve * (1 + band)),
        points,
        down=True,
    )
    return RunningRoom(
        sentence, _basis(fit, band, trim), rows, towed(design, tow, trim, shape, deep), picture, ""
    )


def _basis(fit: DivingFit, band: float, trim: Trim) -> str:
    source = (
        f"Fitted to {fit.runs} logged run{'s' if fit.runs > 1 else ''} (tension ×"
        f" {said(fit.factor, 'number')})"
        if fit.runs
        else (
            f"An estimate from textbook coefficients (tension × {said(fit.factor, 'number')} for wake and"
            " wobble,"
            " assumed): log one measured depth and the band halves"
        )
    )
    pitch = (
        f"{said(trim.pitch_deg, 'angle', 0, sign=True)}, as was seen,"
        if fit.shift_deg is not None
        else f"about {said(trim.pitch_deg, 'angle', 0, sign=True)} (an estimate: log the pitch you see)"
    )
    return (
        f"{source}. Band ± {said(100 * band, 'percent', 0)}. It runs at {pitch} and pulls"
        f" {said(trim.tension_n * 101.97, 'mass', 0)}"
        " on the line."
    )


@blueprint.post("/<int:key>/running/log")
def log_run(key: int) -> ResponseReturnValue:
    """Keep a run on the line with the depth it ran at."""
    row, form = load_document("body", key), TowForm()
    if not form.validate_on_submit():
        return _running(row, form), 422
    tub.keep_towed(
        db(),
        key,
        form.depth.amount or 0.0,
        revision=row.current,
        line_out_m=form.line_out.amount or 1.0,
        speed_m_s=form.speed.amount or 1.0,
        line_mm=form.line.amount or 0.2,
        rod_m=form.rod.amount or 0.0,
        lead_g=form.lead.amount or 0.0,
        pitch_deg=form.pitch.amount,
        note=(form.note.data or "").strip(),
        typed=typed_texts(form),
    )
    flash("The run is logged; the estimate is fitted to it.")
    return redirect(url_for("tank_running.show", key=key))


@blueprint.post("/towed/<int:run>/<any(take_back, put_back):way>")
def take_back(run: int, way: str) -> ResponseReturnValue:
    """Take a logged run back, or put it back."""
    row = load(Observation, run)
    observed.take_back(db(), row, way == "take_back")
    if way == "take_back":
        flash("The run is taken back.", f"undo:{url_for('tank_running.take_back', run=run, way='put_back')}")
    return redirect(url_for("tank_running.show", key=row.of_id))

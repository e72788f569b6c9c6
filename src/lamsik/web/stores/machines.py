"""Machines and tools: up, down or away, since when, what waits for them, what is done meanwhile. Scales with
their checks stand beside them.
"""

from flask import Blueprint, flash, redirect, render_template, request, url_for
from flask.typing import ResponseReturnValue

from lamsik.core.errors import Refused, require
from lamsik.core.trade.step_kinds import STEP_KINDS
from lamsik.store import machines, pieces
from lamsik.store.tables import Machine, now
from lamsik.web.shared.db import db, load
from lamsik.words.route import KINDS as STEPS_CALLED
from lamsik.words.stock import STATES

blueprint = Blueprint("stores_machines", __name__, url_prefix="/stores/machines")


@blueprint.get("")
def index() -> str:
    """Machines with how each stands."""
    return _page()


def _page(problem: Refused | None = None) -> str:
    rows = machines.listed(db())
    return render_template(
        "stores/machines.html",
        rows=rows,
        waits={row.id: machines.waiting(db(), row) for row in rows if row.state != "up"},
        logs={row.id: machines.log(db(), row) for row in rows},
        instruments=pieces.instruments(db()),
        checks=machines.checks(db()),
        states=STATES,
        steps={key: STEPS_CALLED[key] for key in STEP_KINDS},
        problem=problem,
        asked=request.form,
    )


@blueprint.post("/new")
def new() -> ResponseReturnValue:
    """One more."""
    return _kept(Machine(name=""))


@blueprint.post("/<int:key>/keep")
def keep(key: int) -> ResponseReturnValue:
    """What is known of it, and how it stands now."""
    return _kept(load(Machine, key))


def _kept(row: Machine) -> ResponseReturnValue:
    form = request.form
    try:
        row.name = " ".join(form.get("name", "").split())[:80]
        state = form.get("state", "up")
        require(state in STATES, "state", state, f"one of {', '.join(STATES)}")
        if state != row.state:
            row.state, row.since = state, now()
        row.steps = [key for key in form.getlist("step") if key in STEP_KINDS]
        row.fallback, row.note = form.get("fallback", "").strip()[:1000], form.get("note", "").strip()[:1000]
        machines.named(db(), row)
    except Refused as refused:
        db().rollback()
        return _page(refused), 422
    flash(f"{row.name} is {STATES[row.state]}.")
    return redirect(url_for("stores_machines.index"))


@blueprint.post("/<int:key>/off")
def off(key: int) -> ResponseReturnValue:
    """It is gone; History has the way back."""
    row = load(Machine, key)
    db().delete(row)
    flash(f"{row.name} is off the list; History brings it back.")
    return redirect(url_for("stores_machines.index"))

"""What the shop knows of painting: what holds on what by its own test patches, and its stencils, combs,
nets.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Any

from flask import Blueprint, flash, redirect, render_template, request, url_for
from flask.typing import ResponseReturnValue
from flask_wtf import FlaskForm
from sqlalchemy.exc import IntegrityError
from sqlmodel import SQLModel
from wtforms import SelectField, StringField
from wtforms.validators import DataRequired, Length

from lamsik.core.paints.lifts import NONE, RESULTS
from lamsik.core.paints.paint import CHEMISTRIES, SIDES
from lamsik.core.quantities import plainly
from lamsik.store import events, rights, stores, tried
from lamsik.store.tables import Document, PaintPatch, PaintTool
from lamsik.web.shared import picks
from lamsik.web.shared.db import db, load, load_document, sent_id
from lamsik.web.shared.forms import MeasureField, choices, typed_texts

blueprint = Blueprint("paints_known", __name__, url_prefix="/paints/known")

WET = [one for one in CHEMISTRIES if one != NONE]
TOOLS = ("stencil", "comb", "net", "tape mask")
"""What paint is put on through."""


class PatchForm(FlaskForm):
    """A test patch."""

    under = SelectField("Under", choices=choices((one, one) for one in WET))
    over = SelectField("Over it", choices=choices((one, one) for one in WET))
    after = MeasureField("After", "time", 0.0, 5000.0, default="12 h")
    result = SelectField("It", choices=choices((one, one) for one in RESULTS))
    note = StringField("Which paints, what was seen", validators=[Length(max=200)])


class ToolForm(FlaskForm):
    """A stencil, comb or net."""

    name = StringField("Name", validators=[DataRequired("Name it."), Length(max=80)])
    kind = SelectField("Kind", choices=choices((one, one) for one in TOOLS))
    source = StringField("From", validators=[Length(max=80)])
    side = SelectField("Cut for side", choices=choices((one, one) for one in SIDES))
    hangs = StringField("Where it hangs", validators=[Length(max=80)])
    note = StringField("Note", validators=[Length(max=200)])


FORMS: dict[str, type[FlaskForm]] = {"patch": PatchForm, "tool": ToolForm}
TABLES: dict[str, type[SQLModel]] = {"patch": PaintPatch, "tool": PaintTool}


@dataclass(frozen=True)
class Held:
    """What the patches say of one chemistry over another."""

    text: str
    is_good: bool


@blueprint.get("")
def index() -> str:
    """What lies on what, the log of test patches, and the register of stencils."""
    return _page({})


def _page(sent: dict[str, FlaskForm]) -> str:
    log, tools = tried.logged(db()), tried.tools(db())
    forms = {name: sent.get(name) or form(prefix=name, formdata=None) for name, form in FORMS.items()}
    bodies = {tool.body_id: db().get(Document, tool.body_id) for tool in tools if tool.body_id}
    return render_template(
        "paints/known.html",
        forms=forms,
        log=log,
        tools=tools,
        not_sold={int(key): rights.said(why) for key, why in rights.kept(db(), rights.STENCILS).items()},
        bodies=bodies,
        wet=WET,
        held={(under, over): _held(log, under, over) for under in WET for over in WET},
        designs=picks.of("body"),
    )


def _held(log: Sequence[PaintPatch], under: str, over: str) -> Held | None:
    rows = [row for row in log if (row.under, row.over) == (under, over)]
    if not rows:
        return None
    good = [row.after_h for row in rows if row.result == RESULTS[0]]
    bad = [row for row in rows if row.result != RESULTS[0]]
    texts = [f"held after {plainly(min(good), 'time')}"] if good else []
    texts += [f"{row.result} after {plainly(row.after_h, 'time')}" for row in bad[:1]]
    return Held("; ".join(texts), bool(good) and (not bad or min(good) > max(row.after_h for row in bad)))


@blueprint.post("/add/<any(patch, tool):what>")
def add(what: str) -> ResponseReturnValue:
    """One more; bad input comes back beside its field."""
    form = FORMS[what](prefix=what)
    if not form.validate_on_submit():
        return _page({what: form}), 422
    try:
        with db().begin_nested():
            db().add(_made(what, form))
    except IntegrityError:
        form["name"].errors = [*form["name"].errors, "There is one of that name already."]
        return _page({what: form}), 422
    flash("Noted." if what == "patch" else f"{form['name'].data} is in the register.")
    return redirect(url_for("paints_known.index", _anchor=what))


def _made(what: str, form: FlaskForm) -> SQLModel:
    given: dict[str, Any] = {
        field.short_name: field.data or "" for field in form if field.type in ("StringField", "SelectField")
    }
    if what == "patch":
        return PaintPatch(**given, after_h=form["after"].amount, typed=typed_texts(form))
    chosen = sent_id("tool-body")
    return PaintTool(**given, body_id=load_document("body", chosen).id if chosen else None)


@blueprint.post("/tool/<int:key>/rights")
def tool_rights(key: int) -> ResponseReturnValue:
    """Whether what is painted through a stencil may be sold, and if not whose it is."""
    row = load(PaintTool, key)
    note, may_sell = request.form.get("note", ""), bool(request.form.get("sold"))
    rights.keep(db(), rights.STENCILS, str(row.id), may_sell, note)
    return redirect(url_for("paints_known.index", _anchor="tool"))


@blueprint.post("/remove/<any(patch, tool):what>/<int:key>")
def remove(what: str, key: int) -> ResponseReturnValue:
    """One is taken out; undo brings it back."""
    watched = events.WATCHED[TABLES[what]]
    stores.take_out(db(), load(TABLES[what], key))
    gone = events.last_of(db(), key, watched.of, watched.part)
    undo = url_for("today_history.take_back", key=gone.id if gone else 0, to=what)
    flash("It is taken out.", f"undo:{undo}")
    return redirect(url_for("paints_known.index", _anchor=what))

"""Suppliers: how to reach them, how long they take, what only they have, what went wrong."""

from flask import Blueprint, flash, redirect, render_template, request, url_for
from flask.typing import ResponseReturnValue

from lamsik.core.errors import Refused, require
from lamsik.core.quantities import read_measure
from lamsik.store import suppliers
from lamsik.store.tables import Incident, Supplier
from lamsik.web.shared import keeping
from lamsik.web.shared.db import db, load
from lamsik.web.shared.lists import asked_page, asked_text

blueprint = Blueprint("stores_suppliers", __name__, url_prefix="/stores/suppliers")


@blueprint.get("")
def index() -> str:
    """Whom the shop buys from."""
    return _index()


def _index(problem: Refused | None = None) -> str:
    page = asked_page(suppliers.listed(asked_text()))
    return render_template(
        "stores/suppliers.html",
        page=page,
        lead={row.id: suppliers.lead_time(db(), row) for row in page.rows},
        q=asked_text(),
        problem=problem,
        asked=request.form,
    )


@blueprint.post("/new")
def new() -> ResponseReturnValue:
    """One more."""
    try:
        row = _read(Supplier(name=""))
    except Refused as refused:
        db().rollback()
        return _index(refused), 422
    return redirect(url_for("stores_suppliers.show", key=row.id))


def _read(row: Supplier) -> Supplier:
    form = request.form
    row.name = " ".join(form.get("name", "").split())[:120]
    row.reach, row.note = form.get("reach", "").strip()[:300], form.get("note", "").strip()[:2000]
    days = form.get("lead", "").strip()
    row.lead_days = round(read_measure(days, "days", "days they say")) if days else None
    return suppliers.named(db(), row)


@blueprint.get("/<int:key>")
def show(key: int) -> str:
    """One supplier."""
    return _page(load(Supplier, key))


def _page(row: Supplier, problem: Refused | None = None) -> str:
    return render_template(
        "stores/supplier.html",
        supplier=row,
        lead=suppliers.lead_time(db(), row),
        deliveries=suppliers.deliveries(db(), row),
        only=suppliers.only_theirs(db(), row),
        incidents=suppliers.incidents(db(), row),
        problem=problem,
        asked=request.form,
    )


@blueprint.post("/<int:key>/keep")
def keep(key: int) -> ResponseReturnValue:
    """What is known of them."""
    row = load(Supplier, key)
    try:
        _read(row)
    except Refused as refused:
        db().rollback()
        return _page(load(Supplier, key), refused), 422
    flash("Kept.")
    return redirect(url_for("stores_suppliers.show", key=key))


@blueprint.post("/<int:key>/incident")
def incident(key: int) -> ResponseReturnValue:
    """Something went wrong with what they sent."""
    row, text = load(Supplier, key), request.form.get("text", "").strip()[:1000]
    try:
        require(bool(text), "text", "", "what went wrong, in a line")
    except Refused as refused:
        return _page(row, refused), 422
    db().add(Incident(supplier_id=key, text=text))
    return redirect(url_for("stores_suppliers.show", key=key, _anchor="incidents"))


@blueprint.post("/incident/<int:key>/outcome")
def outcome(key: int) -> ResponseReturnValue:
    """How it ended."""
    row = load(Incident, key)
    row.outcome = request.form.get("outcome", "").strip()[:1000]
    db().add(row)
    return redirect(url_for("stores_suppliers.show", key=row.supplier_id, _anchor="incidents"))


@blueprint.post("/<int:key>/<any(put_away, bring_back):way>")
def put_away(key: int, way: str) -> ResponseReturnValue:
    """Nothing is bought there any more, or it is again."""
    row = load(Supplier, key)
    return keeping.off_the_list(
        row,
        way,
        url_for("stores_suppliers.index"),
        url_for("stores_suppliers.show", key=key),
        url_for("stores_suppliers.put_away", key=key, way="bring_back"),
    )

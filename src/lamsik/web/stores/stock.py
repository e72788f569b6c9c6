"""The stock list: what there is, what of it is promised, what is free; a new item."""

from flask import Blueprint, flash, redirect, render_template, request, url_for
from flask.typing import ResponseReturnValue

from lamsik.core.errors import Refused
from lamsik.core.stock.kinds import ITEM_KINDS
from lamsik.store import ledger
from lamsik.store.tables import StockItem
from lamsik.web.shared.db import db
from lamsik.web.shared.lists import asked_page, asked_text
from lamsik.web.stores import standing
from lamsik.web.stores.item_form import read
from lamsik.words.stock import KINDS, summed_up

blueprint = Blueprint("stores_stock", __name__, url_prefix="/stores/stock")
COLUMNS = {"kind": "Kind", "place": "Place", "minimum": "Least", "supplier": "From", "price": "Price"}
"""Columns that may be left out."""
SHOWN = ("kind", "place", "minimum")


@blueprint.get("")
def index() -> str:
    """What there is, a page of it."""
    return _page()


def _page(problem: Refused | None = None) -> str:
    kind, sort = request.args.get("kind", ""), request.args.get("sort", "name")
    page = asked_page(ledger.listed(asked_text(), kind, sort))
    now = standing.standing()
    ids = [row.id for row, _, _ in page.rows]
    shown = [name for name in request.args.getlist("show") if name in COLUMNS]
    return render_template(
        "stores/stock.html",
        page=page,
        stands=standing.stood(ids, now),
        verdict=summed_up(
            len(now.short), len(now.stopped), len(ledger.under_minimum(db())), standing.ending()
        ),
        is_short=bool(now.short),
        q=asked_text(),
        kind=kind,
        sort=sort if sort in ledger.SORTS else "name",
        kinds=KINDS,
        columns=COLUMNS,
        shown=shown or SHOWN,
        suppliers=ledger.suppliers(db()),
        problem=problem,
        asked=request.form,
    )


@blueprint.post("/new")
def new() -> ResponseReturnValue:
    """Something more is kept count of."""
    kind = request.form.get("kind", "")
    row = StockItem(kind=kind, name="", unit=ITEM_KINDS[kind].unit if kind in ITEM_KINDS else "")
    try:
        read(row)
    except Refused as refused:
        db().rollback()
        return _page(refused), 422
    flash(f"{row.name} is {row.number} in the stores. Count it, or note what came.")
    return redirect(url_for("stores_items.show", key=row.id))

"""The year: what was sold, what the hour earned, what lies unfinished, what was never paid."""

from collections.abc import Sequence
from datetime import date

from flask import Blueprint, render_template, request
from flask.typing import ResponseReturnValue

from lamsik.core.money import Money
from lamsik.core.stock.year import Sale, by, by_month
from lamsik.drawings.months import DESK, PHONE, month_bars
from lamsik.formats import table_csv
from lamsik.store import needs, stores, year
from lamsik.web.shared.db import db, in_short
from lamsik.web.shared.files import as_file
from lamsik.web.stores.costs import currency, told
from lamsik.words.orders import LINES
from lamsik.words.stock import of_year

blueprint = Blueprint("stores_year", __name__, url_prefix="/stores/year")


def _asked() -> int:
    text = request.args.get("year", "")
    is_year = text.isascii() and text.isdigit() and len(text) == 4 and int(text)
    return int(text) if is_year else date.today().year


def _sales(asked: int, is_each: bool = False) -> list[Sale]:
    """What was sold in a year; what its lines take is kept once this is looked at, and not before."""
    sent = year.sent_in(db(), asked, is_each)
    missing = year.untold(db(), sent)
    if missing:
        in_short(lambda session: needs.told(session, missing))
        db().rollback()  # what it read before is of a moment ago
        sent = year.sent_in(db(), asked, is_each)
    return year.sales(db(), sent)


@blueprint.get("")
def index() -> str:
    """One year in pictures and tables."""
    asked = _asked()
    sales = _sales(asked)
    (still_open, unpaid), (many, waiting) = year.unpaid(db()), year.unfinished(db())
    limit = int(stores.setting(db(), "costs")["unfinished"])
    months = by_month(sales)
    total, lines = sum(months), sum(one.lines for one in sales)
    sums = [float(Money(minor, currency()).amount) for minor in months]
    return render_template(
        "stores/year.html",
        year=asked,
        bars=[month_bars(sums, currency(), wide) for wide in (DESK, PHONE)],
        tables=[
            ("By body", by(sales, lambda one: one.body)),
            ("By scheme", by(sales, lambda one: one.scheme or "in none")),
            ("By kind", by(sales, lambda one: LINES[one.kind])),
        ],
        verdict=of_year(asked, told(total), lines, told(still_open), many, limit),
        unpaid=unpaid,
        many=many,
        waiting=waiting,
        limit=limit,
        told=told,
        currency=currency(),
    )


@blueprint.get("/sold.csv")
def as_csv() -> ResponseReturnValue:
    """What was sold in a year, line by line, for the bookkeeper."""
    asked = _asked()
    names: Sequence[str] = (
        "on",
        "order",
        "kind",
        "body",
        "scheme",
        "pieces",
        f"sum [{currency()}]",
        "hours [h]",
    )
    rows = [
        {
            "on": one.on.isoformat(),
            "order": one.order,
            "kind": LINES[one.kind],
            "body": one.body,
            "scheme": one.scheme,
            "pieces": one.pieces,
            names[6]: str(Money(one.minor, currency()).amount),
            names[7]: round(one.hours, 2),
        }
        for one in sorted(_sales(asked, is_each=True), key=lambda one: (one.on, one.order))
    ]
    return as_file(table_csv.write(names, rows), f"year {asked}.csv", "text/csv")

"""A price list: bodies down, schemes across, the price at which the hour earns what it is to."""

from dataclasses import dataclass

from flask import Blueprint, render_template, request, url_for
from flask.typing import ResponseReturnValue

from lamsik.core.errors import Refused
from lamsik.core.money import Money
from lamsik.formats import table_csv
from lamsik.store import costs, documents, stores
from lamsik.store.costs import PricedStores
from lamsik.store.tables import Document
from lamsik.web.shared.db import db
from lamsik.web.shared.files import as_file
from lamsik.web.shared.lists import asked_page

blueprint = Blueprint("stores_prices", __name__, url_prefix="/stores/prices")
MOST_BODIES, MOST_SCHEMES = 8, 3


@dataclass(frozen=True)
class PriceCell:
    """A body in a scheme: its price, or none where it cannot be painted so; where its costs are told."""

    minor: int | None
    link: str


def _schemes() -> list[Document]:
    ids = [
        int(text)
        for text in request.args.getlist("scheme")
        if text.isascii() and text.isdigit() and len(text) < 10
    ]
    rows = [db().get(Document, key) for key in ids[:MOST_SCHEMES]]
    return [row for row in rows if row is not None and row.kind == "scheme"]


def _cell(body: Document, scheme: Document | None, rate: int, shop: PricedStores) -> PriceCell:
    link = url_for("stores_costs.body", key=body.id, scheme=scheme.id if scheme else None)
    try:
        return PriceCell(costs.of_body(db(), body, scheme, 1, shop).costing.price(rate), link)
    except Refused:
        return PriceCell(None, link)


@blueprint.get("")
def index() -> str:
    """A page of bodies with their prices."""
    page = asked_page(documents.matching("body"), MOST_BODIES)
    shop = costs.priced_stores(db())
    schemes, rate = _schemes(), int(stores.setting(db(), "costs")["rate_minor"])
    return render_template(
        "stores/prices.html",
        page=page,
        schemes=schemes,
        known=documents.listed(db(), "scheme", most=200),
        cells={row.id: [_cell(row, one, rate, shop) for one in (None, *schemes)] for row in page.rows},
        rate=Money(rate, _currency()).said,
        currency=_currency(),
        most=MOST_SCHEMES,
    )


def _currency() -> str:
    return str(stores.setting(db(), "shop")["currency"])


@blueprint.get("/list.csv")
def as_csv() -> ResponseReturnValue:
    """The same page as CSV, prices in the currency in their heads."""
    page = asked_page(documents.matching("body"), MOST_BODIES)
    rate, heads = (
        int(stores.setting(db(), "costs")["rate_minor"]),
        ["as drawn", *(row.name for row in _schemes())],
    )
    names = ["code", "name", *(f"{name} [{_currency()}]" for name in heads)]
    rows, shop = [], costs.priced_stores(db())
    for row in page.rows:
        cells = [_cell(row, one, rate, shop).minor for one in (None, *_schemes())]
        sums = [str(Money(minor, _currency()).amount) if minor is not None else "" for minor in cells]
        rows.append(dict(zip(names, [row.code, row.name, *sums], strict=True)))
    return as_file(table_csv.write(names, rows), "prices.csv", "text/csv")

"""A price list: bodies and their sizes down, schemes across, the price at which the hour earns what it is
to.
"""

from dataclasses import dataclass

from flask import Blueprint, render_template, request, url_for
from flask.typing import ResponseReturnValue

from lamsik.core.errors import Refused
from lamsik.core.money import Money
from lamsik.core.quantities import plainly, read_measure
from lamsik.formats import table_csv
from lamsik.store import costs, documents, stores
from lamsik.store.costs import PricedStores
from lamsik.store.paging import Page
from lamsik.store.tables import Document
from lamsik.web.shared.db import db
from lamsik.web.shared.files import as_file
from lamsik.web.shared.lists import asked_page

blueprint = Blueprint("stores_prices", __name__, url_prefix="/stores/prices")
MOST_BODIES, MOST_CELLS, MOST_SCHEMES, MOST_SIZES = 8, 24, 3, 3


@dataclass(frozen=True)
class PriceCell:
    """A body in a scheme: its price, or none where it cannot be painted so; where its costs are told."""

    minor: int | None
    link: str


def _sizes() -> list[tuple[str, float | None]]:
    """As it is drawn, and each length that was asked for, as typed and in mm. Raises `Refused`."""
    asked = [text.strip() for text in request.args.getlist("length") if text.strip()]
    read = [(text, read_measure(text, "length", "a length")) for text in asked[:MOST_SIZES]]
    return [("", None), *((plainly(mm, "length") if text[-1].isdigit() else text, mm) for text, mm in read)]


def _most(sizes: int, schemes: int) -> int:
    """Bodies on a page: what is reckoned for it stays the same, whatever is asked of each."""
    return min(max(MOST_CELLS // (sizes * (schemes + 1)), 1), MOST_BODIES)


def _schemes() -> list[Document]:
    ids = [
        int(text)
        for text in request.args.getlist("scheme")
        if text.isascii() and text.isdigit() and len(text) < 10
    ]
    rows = [db().get(Document, key) for key in ids[:MOST_SCHEMES]]
    return [row for row in rows if row is not None and row.kind == "scheme"]


def _cell(
    body: Document, scheme: Document | None, rate: int, shop: PricedStores, length_mm: float | None
) -> PriceCell:
    link = url_for("stores_costs.body", key=body.id, scheme=scheme.id if scheme else None)
    try:
        return PriceCell(costs.of_body(db(), body, scheme, 1, shop, length_mm).costing.price(rate), link)
    except Refused:
        return PriceCell(None, link)


@dataclass(frozen=True)
class PriceRow:
    """A body at a size: the length as it is read, its prices by scheme."""

    body: Document
    size: str
    cells: list[PriceCell]


@dataclass(frozen=True)
class PriceList:
    """A page of the list: what was asked of it, its rows."""

    page: Page[Document]
    schemes: list[Document]
    rows: list[PriceRow]
    problem: Refused | None


def _told() -> PriceList:
    problem: Refused | None = None
    sizes: list[tuple[str, float | None]] = [("", None)]
    try:
        sizes = _sizes()
    except Refused as refused:
        problem = refused
    schemes, rate = _schemes(), int(stores.setting(db(), "costs")["rate_minor"])
    page = asked_page(documents.matching("body"), _most(len(sizes), len(schemes)))
    shop = costs.priced_stores(db())
    rows = [
        PriceRow(
            body,
            size,
            [_cell(body, one, rate, shop, mm) for one in (None, *schemes)],
        )
        for body in page.rows
        for size, mm in sizes
    ]
    return PriceList(page, schemes, rows, problem)


@blueprint.get("")
def index() -> ResponseReturnValue:
    """A page of bodies with their prices, at the sizes and in the schemes that are asked for."""
    told = _told()
    return render_template(
        "stores/prices.html",
        told=told,
        known=documents.listed(db(), "scheme", most=200),
        rate=Money(int(stores.setting(db(), "costs")["rate_minor"]), _currency()).said,
        currency=_currency(),
        most=MOST_SCHEMES,
        lengths=[*request.args.getlist("length")[:MOST_SIZES], "", "", ""][:MOST_SIZES],
    ), (422 if told.problem else 200)


def _currency() -> str:
    return str(stores.setting(db(), "shop")["currency"])


@blueprint.get("/list.csv")
def as_csv() -> ResponseReturnValue:
    """The same page as CSV, prices in the currency in their heads."""
    told, money = _told(), _currency()
    if told.problem is not None:
        raise told.problem
    heads = ["as drawn", *(row.name for row in told.schemes)]
    names = ["code", "name", "size", *(f"{name} [{money}]" for name in heads)]
    rows = []
    for row in told.rows:
        sums = [str(Money(one.minor, money).amount) if one.minor is not None else "" for one in row.cells]
        cells = [row.body.code, row.body.name, row.size, *sums]
        rows.append(dict(zip(names, cells, strict=True)))
    return as_file(table_csv.write(names, rows), "prices.csv", "text/csv")

"""What is short before work starts: by item, with the orders it stops, what would do, what to buy."""

from collections.abc import Sequence
from dataclasses import dataclass
from urllib.parse import quote

from flask import Blueprint, flash, redirect, render_template, url_for
from flask.typing import ResponseReturnValue
from sqlmodel import col, select

from lamsik.core.errors import Refused, require
from lamsik.core.stock.kinds import GRAMS, MILLILITRES, MILLIMETRES
from lamsik.core.stock.short import StockStand, packs, would_do
from lamsik.core.tank import evaluate
from lamsik.documents.body.document import to_design
from lamsik.documents.rows import Document as Content
from lamsik.formats import table_csv
from lamsik.store import instead, ledger, reserved, stores
from lamsik.store.tables import Document, Order, OrderLine, StockItem, Supplier
from lamsik.web.shared.db import db, load
from lamsik.web.shared.files import as_file
from lamsik.web.stores import standing
from lamsik.web.stores.standing import AllStanding
from lamsik.words import verdict
from lamsik.words.stock import amount, letter, short_by

blueprint = Blueprint("stores_short", __name__, url_prefix="/stores/short")
KIND_OF = {MILLIMETRES: "wood", GRAMS: "compound", MILLILITRES: "paint"}
"""Of what kind an item is that a design calls by name alone, by its unit; of pieces it is `other`."""
MOST_SEEN = 3
"""So many bodies are looked at with a stand-in."""
FIRST_ORDERS, FIRST_LINES = 6, 24
"""So many that wait are named; of the others, how many they are."""


@dataclass(frozen=True)
class Waiting:
    """Orders that wait: the first of them, and how many more."""

    first: tuple[Order, ...]
    more: int


@dataclass(frozen=True)
class ShortItem:
    """An item that is short: how it stands, the orders it stops, what would do, what is to be bought."""

    item: StockItem
    stand: StockStand
    stops: Waiting
    instead: tuple[StockItem, ...]
    packs: int


@blueprint.get("")
def index() -> str:
    """What is short, and what nobody knows."""
    now = standing.standing()
    items = {row.id or 0: row for row in ledger.items(db(), [*now.short, *now.uncounted])}
    unknown = now.reserved.unknown
    waiting = _waiting(now, [*(now.stands[key].stops for key in now.short), *(one.lines for one in unknown)])
    stops = dict(zip(now.short, waiting, strict=False))
    undrawn = now.reserved.undrawn
    return render_template(
        "stores/short.html",
        short=_short(now, items, stops),
        uncounted=[(items[key], now.stands[key]) for key in now.uncounted],
        unknown=[
            (one, KIND_OF.get(one.unit, "other"), orders)
            for one, orders in zip(unknown, waiting[len(stops) :], strict=True)
        ],
        undrawn=reserved.orders_of(db(), undrawn[:FIRST_LINES]),
        more_undrawn=max(len(undrawn) - FIRST_LINES, 0),
        verdict=short_by(len(now.short), len(now.stopped), len(now.uncounted) + len(now.reserved.unknown)),
        later=reserved.later_lines(db()),
    )


def _short(now: AllStanding, items: dict[int, StockItem], stops: dict[int, Waiting]) -> list[ShortItem]:
    rows, instead_of = [], ledger.stand_ins_of(db(), now.short)
    known = standing.stood({row.id or 0 for others in instead_of.values() for row in others}, now)
    for key in sorted(now.short, key=lambda key: items[key].search):
        stand, others = now.stands[key], instead_of[key]
        good = would_do(stand.lacks, {row.id or 0: known[row.id or 0] for row in others})
        rows.append(
            ShortItem(
                items[key],
                stand,
                stops[key],
                tuple(row for one in good for row in others if row.id == one),
                packs(stand.to_buy, items[key].pack),
            )
        )
    return rows


def _waiting(now: AllStanding, stopped: Sequence[tuple[int, ...]]) -> list[Waiting]:
    """By what stops them: the orders of these lines, asked for together."""
    of = [list(dict.fromkeys(now.reserved.lines[line].order for line in lines)) for lines in stopped]
    first = {key for keys in of for key in keys[:FIRST_ORDERS]}
    rows = {row.id or 0: row for row in db().exec(select(Order).where(col(Order.id).in_(first))).all()}
    return [
        Waiting(tuple(rows[key] for key in keys[:FIRST_ORDERS]), max(len(keys) - FIRST_ORDERS, 0))
        for keys in of
    ]


@dataclass(frozen=True)
class SeenWith:
    """A body as it swims with what is short and with the stand-in: sentences, and figures side by side."""

    design: Document
    order: Order
    line: OrderLine
    before: "Swims | None"
    after: "Swims | None"


@dataclass(frozen=True)
class Swims:
    """How a body swims: the verdict, its mass [g], net lift [g], speed [cm/s], attitude [°]."""

    sentence: str
    mass_g: float
    net_g: float
    speed_cm_s: float
    pitch_deg: float


@blueprint.get("/<int:key>/by/<int:other>")
def by(key: int, other: int) -> str:
    """What a stand-in changes."""
    return _by(load(StockItem, key), load(StockItem, other))


def _by(item: StockItem, other: StockItem, problem: Refused | None = None) -> str:
    now = standing.standing()
    stand = now.stands.get(item.id or 0)
    stops = stand.stops if stand else ()
    stopped, seen = reserved.orders_of(db(), stops[:FIRST_LINES]), []
    for order, line in stopped[:MOST_SEEN]:
        drawn = instead.seen(db(), line, item, other)
        if drawn is not None:
            seen.append(SeenWith(drawn.design, order, line, _swims(drawn.before), _swims(drawn.after)))
    return render_template(
        "stores/instead.html",
        item=item,
        other=other,
        stopped=stopped,
        more=len(stops) - len(stopped),
        seen=seen,
        problem=problem,
    )


def _swims(content: Content) -> Swims | None:
    try:
        outcome = evaluate.settle(to_design(content), rules=stores.rules(db()))
    except Refused:
        return None
    told = outcome.verdict
    return Swims(
        verdict.sentence(told),
        outcome.budget.mass_g,
        told.net_g,
        told.speed_cm_s,
        outcome.hanging.free.pitch_deg,
    )


@blueprint.post("/<int:key>/by/<int:other>")
def take(key: int, other: int) -> ResponseReturnValue:
    """A line, or each that is stopped, takes the stand-in."""
    item, row = load(StockItem, key), load(StockItem, other)
    now = standing.standing()
    stand = now.stands.get(key)
    try:
        require(stand is not None and bool(stand.stops), "line", item.name, "a line that waits for it")
        for line in stand.stops if stand is not None else ():
            instead.take(db(), load(OrderLine, line), item, row)
    except Refused as refused:
        db().rollback()
        return _by(load(StockItem, key), load(StockItem, other), refused), 422
    flash(f"{row.name} is taken in the place of {item.name}. Tell the customer where it can be seen.")
    return redirect(url_for("stores_short.index"))


@dataclass(frozen=True)
class ToBuy:
    """A row of the shopping list: the item, how much, in how many packs, from whom."""

    item: StockItem
    amount: float
    packs: int
    supplier: Supplier | None


def _to_buy() -> list[ToBuy]:
    """What is missing for what is promised and below what there should be, by supplier."""
    now = standing.standing()
    under = ledger.under_minimum(db())
    stands = standing.stood({*now.short, *under}, now)
    rows = []
    for item in ledger.items(db(), stands):
        wanted = stands[item.id or 0].to_buy
        if wanted:
            supplier = db().get(Supplier, item.supplier_id) if item.supplier_id else None
            rows.append(ToBuy(item, wanted, packs(wanted, item.pack), supplier))
    return sorted(rows, key=lambda row: (row.supplier.search if row.supplier else "~", row.item.search))


@blueprint.get("/list")
def to_buy() -> str:
    """The shopping list, and a message for each supplier."""
    rows = _to_buy()
    by_supplier: dict[str, list[ToBuy]] = {}
    for row in rows:
        by_supplier.setdefault(row.supplier.name if row.supplier else "", []).append(row)
    shop = str(stores.setting(db(), "shop")["name"])
    letters = {
        name: letter(shop, [(row.item.name, amount(row.amount, row.item.unit), row.packs) for row in of_name])
        for name, of_name in by_supplier.items()
    }
    links = {
        name: f"mailto:?subject={quote(f'Order of {shop}')}&body={quote(text)}"
        for name, text in letters.items()
    }
    return render_template(
        "stores/to_buy.html",
        by_supplier=by_supplier,
        letters=letters,
        links=links,
        later=reserved.later_lines(db()),
    )


@blueprint.get("/list.csv")
def as_csv() -> ResponseReturnValue:
    """The shopping list as CSV, amounts in the unit in their column."""
    rows = [
        {
            "supplier": row.supplier.name if row.supplier else "",
            "number": row.item.number,
            "item": row.item.name,
            "amount": round(row.amount, 3),
            "unit": row.item.unit,
            "packs": row.packs or "",
        }
        for row in _to_buy()
    ]
    text = table_csv.write(("supplier", "number", "item", "amount", "unit", "packs"), rows)
    return as_file(text, "to buy.csv", "text/csv")

"""What a line or a body costs, its price, what the hour earns; when a tool has paid; a family by length."""

from dataclasses import dataclass
from datetime import date, timedelta
from fractions import Fraction
from typing import Any

from flask import Blueprint, flash, redirect, render_template, request, url_for
from flask.typing import ResponseReturnValue

from lamsik.core import money
from lamsik.core.errors import Refused, require
from lamsik.core.money import Money
from lamsik.core.quantities import plainly, read_measure, said
from lamsik.core.stock.costs import breaks_even, by_length, whole
from lamsik.core.stock.shipping import zones
from lamsik.core.tank.mass import budget
from lamsik.documents.body.document import to_design
from lamsik.documents.rows import Document as Content
from lamsik.drawings.money_bar import COLOURS, money_bar
from lamsik.store import costs, documents, stores
from lamsik.store.costs import Costed
from lamsik.store.tables import Document, Order, OrderLine
from lamsik.web.shared.db import db, load, load_document
from lamsik.web.shared.forms import whole as whole_number
from lamsik.web.shared.lists import asked_page
from lamsik.words.route import KINDS as STEPS_CALLED
from lamsik.words.stock import SHARES, earns, pays

blueprint = Blueprint("stores_costs", __name__, url_prefix="/stores/costs")
MOST_RULES, MOST_RATES = 12, 40


def currency() -> str:
    """The shop's money."""
    return str(stores.setting(db(), "shop")["currency"])


def told(minor: float | Fraction) -> str:
    """A sum in the shop's money."""
    return Money(round(minor), currency()).said


@dataclass(frozen=True)
class Priced:
    """Something at a price: what the hour earns, where the money goes, its bar."""

    price: int
    verdict: str
    goes: tuple[tuple[str, str, str], ...]
    bar: Any


def priced(costed: Costed, price: int) -> Priced:
    """What a price does."""
    costing = costed.costing
    hourly = costing.hourly(price)
    goes = costing.goes(price)
    hours = said(costing.hours, "time", 1)
    earned = told(hourly) + " an hour" if hourly is not None else None
    return Priced(
        price,
        earns(told(price), earned, hours),
        tuple((COLOURS[share], SHARES[share], told(minor)) for share, minor in goes.items() if minor),
        money_bar(
            goes, ", ".join(f"{SHARES[share]} {told(minor)}" for share, minor in goes.items() if minor)
        ),
    )


def _asked_price(costed: Costed, own: int | None) -> int:
    """The price that is asked for: typed, for the wanted pay, or what the line says. Raises `Refused`."""
    wanted, price = request.args.get("wanted", "").strip(), request.args.get("price", "").strip()
    if price and request.args.get("way") != "wanted":
        return money.read(price.removesuffix(currency()).strip(), currency()).minor
    rate = money.read(wanted.removesuffix(currency()).strip(), currency()).minor if wanted else None
    if rate is None and own is not None:
        return own
    return costed.costing.price(int(stores.setting(db(), "costs")["rate_minor"]) if rate is None else rate)


def _page(costed: Costed, own: int | None, mass_g: float, together: int, **shown: Any) -> ResponseReturnValue:
    problem, zone = None, request.args.get("zone", "")
    try:
        if zone:
            costed = costs.posted(db(), costed, zone, mass_g, together)
        price = _asked_price(costed, own)
    except Refused as refused:
        problem, price = refused, costed.costing.price(int(stores.setting(db(), "costs")["rate_minor"]))
    rate = int(stores.setting(db(), "costs")["rate_minor"])
    parts = costed.costing.parts
    return render_template(
        "stores/cost.html",
        costed=costed,
        priced=priced(costed, price),
        price=Money(price, currency()).amount,
        wanted=request.args.get("wanted") or Money(rate, currency()).amount,
        parts=[
            (one, told(minor)) for one, minor in zip(parts, whole([one.minor for one in parts]), strict=True)
        ],
        steps=STEPS_CALLED,
        shares=SHARES,
        currency=currency(),
        problem=problem,
        zones=zones(costs.rates(db())) if mass_g else (),
        zone=zone,
        weighs=said(mass_g, "mass", 0) if mass_g else "",
        **shown,
    ), (422 if problem else 200)


@blueprint.get("/line/<int:key>")
def line(key: int) -> ResponseReturnValue:
    """What one of a line costs and what the hour earns at its price."""
    row = load(OrderLine, key)
    order = load(Order, row.order_id)
    with db().no_autoflush:
        costed = costs.of_line(db(), row)
    drawn = db().get(Document, row.design_id or row.like_id or 0)
    mass_g = mass_of(documents.content(db(), drawn)) if drawn is not None and drawn.kind == "body" else 0.0
    return _page(
        costed,
        row.rate_minor,
        mass_g,
        row.quantity,
        title=row.title,
        order=order,
        design=None,
        schemes=(),
        scheme=None,
        count=0,
    )


def mass_of(content: Content) -> float:
    """What a body weighs as it is drawn [g]."""
    return budget(to_design(content)).mass_g


@blueprint.get("/body/<int:key>")
def body(key: int) -> ResponseReturnValue:
    """What one of a body costs, in a scheme, so many together."""
    row = load_document("body", key)
    text = request.args.get("scheme", "")
    scheme = db().get(Document, int(text)) if text.isascii() and text.isdigit() and len(text) < 10 else None
    scheme = scheme if scheme is not None and scheme.kind == "scheme" else None
    many = request.args.get("count", "1")
    count = int(many) if many.isascii() and many.isdigit() and 0 < int(many) <= 500 else 1
    costed = costs.of_body(db(), row, scheme, count)
    return _page(
        costed,
        None,
        mass_of(documents.content(db(), row)),
        count,
        title=row.name,
        order=None,
        design=row,
        schemes=documents.listed(db(), "scheme", most=200),
        scheme=scheme,
        count=count,
    )


@blueprint.get("")
def index() -> str:
    """The shop's own figures, bodies with their prices, when a tool has paid."""
    return _index()


def _index(problem: Refused | None = None, **more: Any) -> str:
    own = stores.setting(db(), "costs")
    return render_template(
        "stores/costs.html",
        page=asked_page(documents.matching("body"), 12),
        own=own,
        rate=Money(int(own["rate_minor"]), currency()).amount,
        fee=Money(int(own["fee_minor"]), currency()).amount,
        packing=Money(int(own["packing_minor"]), currency()).amount,
        rules=[
            {**rule, "duty": Money(int(rule["duty_minor"]), currency()).amount}
            for rule in stores.setting(db(), "taxes")["rules"]
        ],
        rates=[
            {
                **one,
                "up_to": plainly(one["up_to_g"], "mass"),
                "costs": Money(int(one["minor"]), currency()).amount,
            }
            for one in stores.setting(db(), "shipping")["rates"]
        ],
        currency=currency(),
        problem=problem,
        asked=request.form,
        **more,
    )


@blueprint.post("/keep")
def keep() -> ResponseReturnValue:
    """What the hour is to earn, fees, packing, how many bodies may wait."""
    form = request.form
    try:
        costs.keep_settings(
            db(),
            _sum("rate"),
            whole_number(form.get("unfinished", ""), "bodies that may wait", 1, 100_000),
            fee_percent=_percent("fee_percent"),
            fee_minor=_sum("fee"),
            packing_minor=_sum("packing"),
        )
    except Refused as refused:
        db().rollback()
        return _index(refused), 422
    flash("Kept.")
    return redirect(url_for("stores_costs.index"))


def _sum(name: str) -> int:
    text = request.form.get(name, "").strip().removesuffix(currency()).strip()
    return money.read(text, currency()).minor if text else 0


def _percent(name: str) -> float:
    text = request.form.get(name, "").strip().removesuffix("%").replace(",", ".").strip()
    try:
        return float(text) if text else 0.0
    except ValueError as error:
        raise Refused(name, text, "a share in percent, such as 2.5") from error


@blueprint.post("/taxes")
def taxes() -> ResponseReturnValue:
    """The shop's own table of taxes and duties."""
    form, rules = request.form, []
    try:
        for n in range(MOST_RULES):
            name = form.get(f"name_{n}", "").strip()[:80]
            if not name:
                continue
            rules.append(
                {
                    "name": name,
                    "percent": _percent(f"percent_{n}"),
                    "duty_minor": _sum(f"duty_{n}"),
                    "source": form.get(f"source_{n}", "").strip()[:200],
                    "as_of": form.get(f"as_of_{n}", "").strip()[:10],
                }
            )
        costs.keep_taxes(db(), rules)
    except Refused as refused:
        db().rollback()
        return _index(refused), 422
    flash("Kept: prices are reckoned with these from now on.")
    return redirect(url_for("stores_costs.index", _anchor="taxes"))


@blueprint.post("/shipping")
def shipping() -> ResponseReturnValue:
    """The shop's own table of what a way costs."""
    form, rows = request.form, []
    try:
        for n in range(MOST_RATES):
            zone = form.get(f"zone_{n}", "").strip()[:60]
            if zone:
                up_to = read_measure(form.get(f"up_to_{n}", ""), "mass", f"up to, {zone}")
                rows.append(
                    {
                        "zone": zone,
                        "up_to_g": up_to,
                        "minor": _sum(f"costs_{n}"),
                        "as_of": form.get(f"on_{n}", "").strip()[:10],
                    }
                )
        costs.keep_rates(db(), rows)
    except Refused as refused:
        db().rollback()
        return _index(refused), 422
    flash("Kept: a way costs this from now on.")
    return redirect(url_for("stores_costs.index", _anchor="shipping"))


@blueprint.post("/tool")
def tool() -> ResponseReturnValue:
    """Tool or hand: when a mould, a jig or bought tooling has paid."""
    form = request.form
    try:
        hand, with_it = (read_measure(form.get(name, ""), "time", called) for name, called in TIMES.items())
        rate = int(stores.setting(db(), "costs")["rate_minor"])
        paid = breaks_even(_sum("tool"), hand, with_it, rate, _sum("hand_sum"), _sum("with_sum"))
        weekly = read_measure(form.get("weekly", "") or "0", "number", "pieces a week")
        require(0 <= weekly < 10_000, "pieces a week", weekly, "0 to 10000")
    except Refused as refused:
        return _index(refused), 422
    when = ""
    if paid.pieces is not None and weekly:
        weeks = min(paid.pieces / weekly, 5000.0)
        when = (date.today() + timedelta(weeks=weeks)).isoformat()
    return _index(
        paid=pays(
            paid.pieces,
            when,
            plainly(round(paid.freed_h * 60), "minutes"),
            said(paid.frees_h(paid.pieces or 0), "time", 1),
            said(paid.frees_h(52 * weekly), "time", 0) if weekly else "",
        )
    ), 200


TIMES = {"hand_h": "by hand", "with_h": "with the tool"}


@blueprint.post("/family")
def family() -> ResponseReturnValue:
    """A family: fixed and by length from two known sizes."""
    form = request.form
    try:
        lengths = [read_measure(form.get(f"length_{n}", ""), "length", "length") for n in (1, 2)]
        sums = [_sum("sum_1"), _sum("sum_2")]
        of_family = by_length((lengths[0], sums[0]), (lengths[1], sums[1]))
        at = read_measure(form.get("length", ""), "length", "wanted length")
    except Refused as refused:
        return _index(refused), 422
    says = (
        f"{told(of_family.fixed)} and {told(of_family.per_mm * 10)} for each {said(10, 'length')}:"
        f" at {plainly(at, 'length')} {told(of_family.at(at))}."
    )
    return _index(by_size=says), 200

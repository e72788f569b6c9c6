"""What a line or a body costs here: its materials at what they were bought for, hands as planned or as timed,
tools over what they are expected to do, what is kept of its price.
"""

from collections.abc import Collection, Mapping, Sequence
from dataclasses import dataclass, field, replace
from datetime import datetime
from fractions import Fraction
from typing import Any

from sqlmodel import Session, col, func, or_, select

from lamsik.core.errors import finite_between, require
from lamsik.core.route.steps import Route
from lamsik.core.shapes.catalogue import Catalogue
from lamsik.core.stock.costs import PACKING, SHIPPING, Costing, CostPart, Terms, material, shared
from lamsik.core.stock.ledger import BOUGHT
from lamsik.core.stock.shipping import Rate, rate_for
from lamsik.store import as_ordered, documents, moulds, needs, promises, routes, stands, stores
from lamsik.store.claims import Losses
from lamsik.store.ledger import COUNTS
from lamsik.store.moulds import PricedMould
from lamsik.store.needs import Resolved
from lamsik.store.tables import (
    Document,
    Movement,
    OrderLine,
    Piece,
    PieceNeed,
    PieceStep,
    StockItem,
    StockLot,
)

LONGEST_MIN = 600.0
"""A step that was begun and left running longer says nothing of the hands on it."""
MOST_TIMED, MOST_PIECES = 400, 1000
"""So many steps that were timed are looked at, of so many pieces."""
BESIDE = frozenset({"box", "sheet"})
"""Kinds of item that are packing."""


@dataclass(frozen=True)
class UnitPrice:
    """What was paid for so much of an item: minor units, for how much, on which bill or by which list."""

    minor: int
    of: float
    lot: str = ""


def unit_prices(session: Session, items: Collection[StockItem]) -> dict[int, UnitPrice]:
    """The price of each item, of what came last with a price in the shop's currency, else of its pack."""
    currency = str(stores.setting(session, "shop")["currency"])
    ids = [row.id for row in items]
    newest = (
        select(func.max(Movement.id))
        .where(
            col(Movement.item_id).in_(ids),
            Movement.why == BOUGHT,
            COUNTS,
            col(Movement.price_minor).is_not(None),
            col(Movement.currency).in_((currency, "")),
        )
        .group_by(col(Movement.item_id))
    )
    bought = session.exec(select(Movement).where(col(Movement.id).in_(newest))).all()
    lots = select(StockLot.id, StockLot.lot).where(col(StockLot.id).in_([row.lot_id for row in bought]))
    named = dict(session.exec(lots).all())
    prices = {
        row.id or 0: UnitPrice(row.price_minor, row.pack or 1.0)
        for row in items
        if row.price_minor is not None and row.currency in (currency, "")
    }
    return prices | {
        row.item_id: UnitPrice(row.price_minor, row.amount, named.get(row.lot_id, ""))
        for row in bought
        if row.price_minor is not None and row.amount > 0
    }


@dataclass(frozen=True)
class Stage:
    """Hands on a kind of step, of one piece [min]: as it is planned, with its share of the set-up; as it was
    timed at the bench, and how often.
    """

    kind: str
    planned_min: float
    timed_min: float | None = None
    times: int = 0

    @property
    def minutes(self) -> float:
        """What counts: as timed where it was."""
        return self.planned_min if self.timed_min is None else self.timed_min


@dataclass(frozen=True)
class Costed:
    """What one of something costs: the sum, its stages, what it takes that nobody has priced."""

    costing: Costing
    stages: tuple[Stage, ...]
    unpriced: tuple[str, ...] = ()


@dataclass(frozen=True)
class PricedStores:
    """What costs are told from, read once: what designs name as items, losses, prices, what goes with each
    piece or is shared over many.
    """

    items: Resolved
    loss: Losses
    prices: Mapping[int, UnitPrice]
    beside: tuple[StockItem, ...]
    packing_minor: int
    terms: Terms
    moulds: Mapping[int, PricedMould]
    shelf: needs.Shelf
    catalogue: Catalogue
    timed: "dict[int | None, Timed]" = field(default_factory=dict)
    """What was timed on pieces, by their design: looked up once for each."""


Timed = Mapping[str, tuple[float, int]]
"""By kind of step: the mean of what was timed [min], and how often."""


def priced_stores(session: Session) -> PricedStores:
    """The stores with their prices."""
    items = needs.resolved(session)
    every = list(items.by_id.values())
    return PricedStores(
        items,
        Losses(session),
        unit_prices(session, every),
        tuple(item for item in every if item.each_piece > 0 or item.uses > 0),
        int(stores.setting(session, "costs")["packing_minor"]),
        terms(session),
        moulds.priced(session),
        needs.Shelf(session),
        stores.catalogue(session),
    )


@dataclass
class _Told:
    parts: list[CostPart] = field(default_factory=list)
    unpriced: list[str] = field(default_factory=list)


def terms(session: Session) -> Terms:
    """What is kept of a price: the fees of the shop's settings and its own table of taxes."""
    own, rules = stores.setting(session, "costs"), stores.setting(session, "taxes")["rules"]
    return Terms(
        float(own["fee_percent"]),
        int(own["fee_minor"]),
        sum(float(rule["percent"]) for rule in rules),
        sum(int(rule["duty_minor"]) for rule in rules),
    )


def rates(session: Session) -> list[Rate]:
    """The shop's own table of what a way costs."""
    return [
        Rate(one["zone"], one["up_to_g"], one["minor"])
        for one in stores.setting(session, "shipping")["rates"]
    ]


def keep_rates(session: Session, rows: Sequence[Mapping[str, object]]) -> None:
    """The shop's own table of zones and weights. Raises `Refused`."""
    for one in rows:
        Rate(str(one["zone"]), float(str(one["up_to_g"])), int(str(one["minor"])))
    stores.put_setting(session, "shipping", {"rates": [dict(one) for one in rows]})


def posted(session: Session, costed: Costed, zone: str, mass_g: float, count: int) -> Costed:
    """The same with its share of a parcel to a zone: so many of this mass [g] together. Raises `Refused`."""
    rate = rate_for(rates(session), zone, mass_g * count)
    part = CostPart(SHIPPING, zone, Fraction(rate.minor, count))
    return replace(costed, costing=replace(costed.costing, parts=(*costed.costing.parts, part)))


@dataclass(frozen=True)
class MadeSo:
    """How a piece of a line is made, however many are wanted: what it takes, and its route."""

    needs: Sequence[PieceNeed]
    route: Route


MADE_LIKE = (
    "revision_id",
    "design_id",
    "like_id",
    "form",
    "material",
    "length_mm",
    "kind",
    "scheme_id",
    "scheme_version",
    "clears",
    "swaps",
)
"""Lines that have the same of all of these are made alike, however many are wanted."""


def made_so(
    session: Session,
    row: OrderLine,
    shop: PricedStores | None = None,
    known: Sequence[PieceNeed] | None = None,
) -> MadeSo:
    """How a piece of a line is made; what its revision takes may be known."""
    if known is None:
        drawn = row.design_id or row.like_id or 0
        revision = row.revision_id or documents.current_ids(session, [drawn]).get(drawn, 0)
        known = needs.looked_up(session, revision) if revision else []
    route = promises.route_of(session, row, shop.catalogue if shop is not None else None)
    steps = {step.key for step in route}
    is_painted = stands.as_line(row).of.is_painted
    return MadeSo([need for need in known if need.step in steps or is_painted], route)


def of_line(
    session: Session, row: OrderLine, shop: PricedStores | None = None, way: MadeSo | None = None
) -> Costed:
    """What one piece of a line costs; how it is made may be known."""
    way = way or made_so(session, row, shop)
    return of_needs(session, way.needs, way.route, stands.as_line(row).wanted, row, shop)


def of_body(
    session: Session,
    design: Document,
    scheme: Document | None,
    count: int,
    shop: PricedStores | None = None,
    length_mm: float | None = None,
) -> Costed:
    """What one of `count` of a body costs, as it is drawn, in another scheme, at another length [mm]."""
    shop = shop or priced_stores(session)
    row = OrderLine(order_id=0, design_id=design.id, quantity=count)
    if scheme is not None:
        row.scheme_id, row.scheme_version = scheme.id, scheme.current
    drawn = documents.content(session, design)
    sized = drawn if length_mm is None else as_ordered.at_length(session, drawn, length_mm)
    content = as_ordered.dressed(session, sized, row, shop=shop.catalogue)
    route = routes.of_document(session, "body", content)
    if content is drawn:
        known = needs.looked_up(session, documents.revision(session, design).id or 0, shop.shelf)
    else:
        known = needs.of_content(session, content, shop.shelf)
    return of_needs(session, known, route, count, row, shop)


def of_needs(
    session: Session,
    known: Sequence[PieceNeed],
    route: Route,
    count: int,
    row: OrderLine,
    shop: PricedStores | None = None,
) -> Costed:
    """What one of `count` costs that takes this and goes this way."""
    shop, told = shop or priced_stores(session), _Told()
    for need in known:
        _take(told, need, shop.items.for_line(row, need), shop.prices, shop.loss)
    for item in shop.beside:
        _beside(told, item, shop.prices)
    mould = shop.moulds.get(row.design_id or row.like_id or 0)
    if mould is not None:
        told.parts.append(shared(f"{mould.name}, version {mould.version}", mould.minor, mould.castings))
    if shop.packing_minor:
        told.parts.append(CostPart(PACKING, "", material("", 1, shop.packing_minor, 1).minor))
    if row.design_id not in shop.timed:
        shop.timed[row.design_id] = _timed(session, row.design_id)
    stages = _stages(route, count, shop.timed[row.design_id])
    hours = sum(stage.minutes for stage in stages) / 60.0
    costing = Costing(tuple(told.parts), hours, shop.terms)
    return Costed(costing, stages, tuple(dict.fromkeys(told.unpriced)))


def _take(
    told: _Told,
    need: PieceNeed,
    item: StockItem | None,
    prices: Mapping[int, UnitPrice],
    loss: Losses,
) -> None:
    price = prices.get(item.id or 0) if item is not None else None
    if item is None or price is None:
        told.unpriced.append(item.name if item is not None else need.name)
        return
    amount = need.amount if item.unit == need.unit else 1.0
    name = f"{item.name}, lot {price.lot}" if price.lot else item.name
    told.parts.append(material(name, amount, price.minor, price.of, loss.of(item, need.unit)))


def _beside(told: _Told, item: StockItem, prices: Mapping[int, UnitPrice]) -> None:
    price = prices.get(item.id or 0)
    if price is None:
        told.unpriced.append(item.name)
    elif item.uses > 0:
        told.parts.append(shared(item.name, price.minor, item.uses))
    else:
        part = material(item.name, item.each_piece, price.minor, price.of)
        told.parts.append(CostPart(PACKING, part.name, part.minor) if item.kind in BESIDE else part)


def _stages(route: Route, count: int, timed: Timed) -> tuple[Stage, ...]:
    planned: dict[str, float] = {}
    for step in route:
        planned[step.kind] = planned.get(step.kind, 0.0) + step.each_min + step.setup_min / max(count, 1)
    many = {kind: sum(step.kind == kind for step in route) for kind in planned}
    return tuple(
        Stage(kind, minutes, timed[kind][0] * many[kind], timed[kind][1])
        if kind in timed
        else Stage(kind, minutes)
        for kind, minutes in planned.items()
    )


OF_STEP: tuple[Any, ...] = (
    PieceStep.step,
    PieceStep.hands_min,
    PieceStep.begun_at,
    PieceStep.done_at,
    Piece.route_id,
)
"""What says how long hands were on a step: read as columns, hundreds for each body."""


def _timed(session: Session, design_id: int | None) -> Timed:
    """What was timed on the last pieces of a design, those that were begun last in front."""
    last = (
        select(Piece.id)
        .where(Piece.design_id == design_id, col(Piece.deleted_at).is_(None))
        .order_by(col(Piece.id).desc())
        .limit(MOST_PIECES)
    )
    query = (
        select(*OF_STEP)
        .join(Piece)
        .where(
            col(Piece.id).in_(last),
            or_(col(PieceStep.begun_at).is_not(None), col(PieceStep.hands_min).is_not(None)),
            col(PieceStep.done_at).is_not(None),
            PieceStep.reason == "",
        )
        .order_by(col(Piece.id).desc(), col(PieceStep.id).desc())
        .limit(MOST_TIMED)
    )
    rows = session.exec(query).all() if design_id is not None else []
    ways = routes.by_id(session, {one.route_id for one in rows})
    kinds = {key: {step.key: step.kind for step in route} for key, route in ways.items()}
    minutes: dict[str, list[float]] = {}
    for one in rows:
        kind = kinds.get(one.route_id, {}).get(one.step, "")
        taken = _hands_on(one.hands_min, one.begun_at, one.done_at)
        if kind and taken is not None:
            minutes.setdefault(kind, []).append(taken)
    return {kind: (sum(all_of) / len(all_of), len(all_of)) for kind, all_of in minutes.items()}


def _hands_on(typed_min: float | None, begun: datetime | None, done: datetime | None) -> float | None:
    """How long hands were on a step [min], as typed or by its clock; None where that says nothing."""
    if typed_min is not None or begun is None or done is None:
        return typed_min
    taken = (done - begun).total_seconds() / 60.0
    return taken if 0 < taken <= LONGEST_MIN else None


def keep_settings(session: Session, rate_minor: int, unfinished: int, **kept: float) -> None:
    """What the hour is to earn, the limit of unfinished bodies, fees and packing. Raises `Refused`."""
    finite_between("fee_percent", kept["fee_percent"], 0.0, 90.0, "%")
    finite_between("unfinished", unfinished, 1, 100_000)
    stores.put_setting(session, "costs", {"rate_minor": rate_minor, "unfinished": unfinished, **kept})
    terms(session)


def keep_taxes(session: Session, rules: Sequence[Mapping[str, object]]) -> None:
    """The shop's own table of taxes and duties, each with where it is from and as of when. Raises `Refused`
    for one without.
    """
    for rule in rules:
        require(bool(rule["name"]), "name", "", "what it is called")
        require(
            bool(rule["source"]) and bool(rule["as_of"]),
            "source",
            rule["name"],
            "who says so, and as of when",
        )
        finite_between("percent", rule["percent"], 0.0, 90.0, "%")
    stores.put_setting(session, "taxes", {"rules": [dict(rule) for rule in rules]})
    terms(session)

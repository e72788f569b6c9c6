"""A year of the shop: what went out, what it earned, what lies unfinished, what was never paid."""

from collections.abc import Mapping, Sequence
from contextlib import suppress
from dataclasses import dataclass
from datetime import date
from fractions import Fraction
from typing import Any

from sqlalchemy import ColumnElement, String, literal, type_coerce
from sqlmodel import Session, col, func, select

from lamsik.core.errors import Refused
from lamsik.core.orders.lines import LineTerms
from lamsik.core.orders.terms import NOTHING, Share, less
from lamsik.core.stock.costs import whole
from lamsik.core.stock.year import Sale
from lamsik.store import costs, documents, needs, pieces
from lamsik.store.paging import MOST
from lamsik.store.tables import Customer, Document, Order, OrderLine, Piece, PieceStep

MOST_NAMED = 6
BODY, COAT = "carve", "coat:"


@dataclass(frozen=True, slots=True)
class SentLine:
    """A line that went out whole, or some that are the same in all that counts.

    Args:
        key, order: its id, and its order's.
        number, on: of the order; the day of its last parcel or step.
        discount: what was taken off the sum of the order.
        title: what it is called.
        terms: what counts of it.
        agreed, drawn: the revision that was agreed, and the document it is drawn in; 0 where there is none.
        body, scheme: the documents it is named by.
        like: lines of which this is the same are made alike, however many are wanted.
        many: how many such lines there are.
    """

    key: int
    order: int
    number: str
    on: date
    discount: Share
    title: str
    terms: LineTerms
    agreed: int
    drawn: int
    body: int | None
    scheme: int | None
    like: tuple[object, ...]
    many: int = 1


SAME = (
    OrderLine.title,
    OrderLine.quantity,
    OrderLine.per_set,
    OrderLine.rate_minor,
    OrderLine.lump_minor,
    Order.discount_percent,
    Order.discount_minor,
    *(getattr(OrderLine, name) for name in costs.MADE_LIKE if name != "swaps"),
    type_coerce(OrderLine.swaps, String).label("swaps"),
)
"""What lines have in common that brought the same and cost the same."""
OF_LINE: tuple[Any, ...] = (OrderLine.id, OrderLine.order_id, Order.number, Order.gone_on, *SAME)


def sent_in(session: Session, year: int, is_each: bool = False) -> list[SentLine]:
    """The lines of orders that went out whole in a year, the last in front: each of them, or those of a month
    that are the same in all that counts as one; a line of an order with a discount is always by itself.
    """
    taken_off = col(Order.discount_percent).is_not(None) | col(Order.discount_minor).is_not(None)
    last_first = col(Order.gone_on).desc(), col(OrderLine.id).desc()
    each = _gone(_asked(*OF_LINE, literal(1).label("many")), year).order_by(*last_first)
    if is_each:
        return [_sent(row) for row in session.exec(each).mappings()]
    alike = func.substr(Order.gone_on, 1, 7), func.json_array(*SAME)  # one text: less to sort than its parts
    counted = _asked(func.min(OrderLine.id).label("first"), func.count().label("many"))
    of_month = _gone(counted, year).where(~taken_off).group_by(*alike).subquery()
    together = _asked(*OF_LINE, of_month.c.many).join(of_month, of_month.c.first == OrderLine.id)
    queries = each.where(taken_off), together.order_by(*last_first)
    return [_sent(row) for query in queries for row in session.exec(query).mappings()]


def _asked(*columns: Any) -> Any:
    """Of lines and their orders."""
    return select(*columns).join(Order, col(Order.id) == OrderLine.order_id)


def _gone(query: Any, year: int) -> Any:
    """Of those that went out whole in a year."""
    return query.where(
        col(Order.gone_on).between(date(year, 1, 1), date(year, 12, 31)),
        col(Order.deleted_at).is_(None),
        col(OrderLine.deleted_at).is_(None),
    )


def _sent(row: Mapping[str, Any]) -> SentLine:
    percent, minor = row["discount_percent"], row["discount_minor"]
    prices = row["rate_minor"], row["lump_minor"]
    return SentLine(
        row["id"],
        row["order_id"],
        row["number"],
        row["gone_on"],
        NOTHING if percent is None and minor is None else Share(percent, minor),
        row["title"],
        LineTerms(row["kind"], row["quantity"], row["per_set"], row["clears"], *prices),
        row["revision_id"] or 0,
        row["design_id"] or row["like_id"] or 0,
        row["design_id"],
        row["scheme_id"],
        tuple(row[name] for name in costs.MADE_LIKE),
        row["many"],
    )


def untold(session: Session, sent: Sequence[SentLine]) -> set[int]:
    """The revisions of these lines whose needs are not kept yet."""
    wanted = {*_made_of(session, sent).values()} - {0}
    return wanted - needs.known(session, wanted).keys()


def _made_of(session: Session, sent: Sequence[SentLine]) -> dict[int, int]:
    """The revision that each of these lines is made of, by the lines' ids; 0 where there is none."""
    current = documents.current_ids(session, {one.drawn for one in sent if not one.agreed})
    return {one.key: one.agreed or current.get(one.drawn, 0) for one in sent}


def sales(session: Session, sent: Sequence[SentLine]) -> list[Sale]:
    """What was sold, as it was asked for; what one costs is reckoned once for all that is made alike."""
    named = {key for one in sent for key in (one.body, one.scheme)}
    names = dict(
        session.exec(select(Document.id, Document.name).where(col(Document.id).in_(named - {None}))).all()
    )
    shop, made_of = costs.priced_stores(session), _made_of(session, sent)
    takes = needs.known(session, {*made_of.values()} - {0})
    ways: dict[tuple[object, ...], costs.MadeSo] = {}
    known: dict[tuple[object, ...], costs.Costed | None] = {}
    told, paid = [], _less_discount(sent)
    for one in sent:
        costed = *one.like, one.terms.quantity, one.terms.per_set
        if costed not in known:
            known[costed] = None
            row = session.get_one(OrderLine, one.key)
            with suppress(Refused):
                if one.like not in ways:
                    ways[one.like] = costs.made_so(session, row, shop, takes.get(made_of[one.key]))
                known[costed] = costs.of_line(session, row, shop, ways[one.like])
        told.append(_sale(one, names, known[costed], paid[one.key]))
    return told


def _less_discount(sent: Sequence[SentLine]) -> dict[int, int]:
    """What each line brought: its price, with its share of what was taken off its order's sum."""
    brought = {one.key: one.terms.price_minor or 0 for one in sent}
    of_order: dict[int, list[SentLine]] = {}
    for one in sent:
        if one.discount.is_any:
            of_order.setdefault(one.order, []).append(one)
    for rows in of_order.values():
        agreed = [brought[one.key] for one in rows]
        total = sum(agreed)
        left = less(total, rows[0].discount) or 0
        parts = whole([Fraction(price * left, total) if total else Fraction(0) for price in agreed])
        brought |= {one.key: part for one, part in zip(rows, parts, strict=True)}
    return brought


def _sale(one: SentLine, names: dict[int | None, str], costed: costs.Costed | None, minor: int) -> Sale:
    pieces, total = one.terms.wanted * one.many, minor * one.many
    left, hours = Fraction(total), 0.0
    if costed is not None:
        left, hours = costed.costing.left(total, pieces), costed.costing.hours * pieces
    body = names.get(one.body, "") or one.title
    scheme = names.get(one.scheme, "")
    return Sale(one.on, one.number, body, scheme, one.terms.kind, pieces, total, left, hours, one.many)


@dataclass(frozen=True)
class Unpaid:
    """What a customer still owes: how much in minor units, for how many orders, the first of them."""

    customer: Customer
    minor: int
    many: int
    orders: Sequence[Order]


def unpaid(session: Session) -> tuple[int, list[Unpaid]]:
    """What is agreed and not paid in full: the sum [minor units], and who owes most of it."""
    owed = col(Order.owed_minor).is_not(None), col(Order.deleted_at).is_(None)
    of_customer = func.sum(func.coalesce(Order.owed_minor, 0))
    query = select(Order.customer_id, of_customer, func.count(), func.sum(of_customer).over())
    query = (
        query.where(*owed)
        .group_by(col(Order.customer_id))
        .order_by(of_customer.desc(), col(Order.customer_id))
    )
    rows = session.exec(query.limit(MOST)).all()
    owing = select(Customer).where(col(Customer.id).in_([key for key, *_ in rows]))
    customers = {row.id: row for row in session.exec(owing).all()}
    first = func.row_number().over(partition_by=col(Order.customer_id), order_by=col(Order.id))
    counted = select(Order.id, first.label("nth")).where(*owed, col(Order.customer_id).in_(customers))
    named = counted.subquery()
    listed = select(Order).join(named, col(Order.id) == named.c.id).where(named.c.nth <= MOST_NAMED)
    orders: dict[int, list[Order]] = {}
    for order in session.exec(listed.order_by(col(Order.id))).all():
        orders.setdefault(order.customer_id or 0, []).append(order)
    told = [Unpaid(customers[key], minor, many, orders[key]) for key, minor, many, _ in rows]
    return rows[0][3] if rows else 0, sorted(told, key=lambda one: (-one.minor, one.customer.search))


def unfinished(session: Session) -> tuple[int, Sequence[Piece]]:
    """Bodies that are made and wait for paint, no coat of colour begun on them: how many, and the first."""
    is_coat = col(PieceStep.step).startswith(COAT, autoescape=True)
    waits = (*pieces.GOING, _ended(col(PieceStep.step) == BODY), ~_ended(is_coat))
    many = session.exec(select(func.count()).select_from(Piece).where(*waits)).one()
    return many, session.exec(select(Piece).where(*waits).order_by(col(Piece.id)).limit(MOST)).all()


def _ended(is_step: ColumnElement[bool]) -> ColumnElement[bool]:
    """Whether such a step of a piece is done or left out."""
    ended = col(PieceStep.piece_id) == Piece.id, col(PieceStep.done_at).is_not(None), is_step
    return select(PieceStep.id).where(*ended).correlate(Piece).exists()

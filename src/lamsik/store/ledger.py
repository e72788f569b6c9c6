"""The ledger of the stores: items, what moves them, and what there is: the sum of what moved."""

from collections.abc import Collection, Sequence
from dataclasses import dataclass
from datetime import datetime
from typing import Any

from sqlalchemy import ScalarSelect
from sqlmodel import Session, col, func, select

from lamsik.core.errors import Refused, require
from lamsik.core.stock import ledger
from lamsik.core.stock.kinds import FINEST, ITEM_KINDS
from lamsik.core.stock.ledger import BOUGHT, CORRECTED, COUNTED, RETURNED, USED, WASTED
from lamsik.store.events import WHO
from lamsik.store.search import fold, pattern
from lamsik.store.tables import Document, MouldMade, Movement, StandIn, StockItem, StockLot, Supplier, now

COUNTS = col(Movement.undone_at).is_(None)
"""Whether a movement counts."""


@dataclass(frozen=True)
class Cause:
    """What made an amount change: a batch, a piece, a line, by its row."""

    of: str = ""
    of_id: int | None = None


BY_HAND = Cause()


def item_of(session: Session, of: str, of_id: int | None, part: str = "") -> StockItem | None:
    """The item that something of the shop is in the ledger."""
    query = select(StockItem).where(StockItem.of == of, StockItem.of_id == of_id, StockItem.part == part)
    return session.exec(query).first()


def named(session: Session, row: StockItem) -> StockItem:
    """An item as it is kept: with its unit, what a search finds it by, and a number for its label. Raises
    `Refused` for one without a name or of no kind.
    """
    row.name = " ".join(row.name.split())
    require(0 < len(row.name) <= 120, "name", row.name, "a name of 1 to 120 letters")
    require(row.kind in ITEM_KINDS, "kind", row.kind, f"one of {', '.join(ITEM_KINDS)}")
    row.unit = row.unit or ITEM_KINDS[row.kind].unit
    session.add(row)
    session.flush()
    row.number = row.number or f"S{row.id:04d}"
    row.search = fold(f"{row.name} {row.number} {row.place} {row.material}")
    session.add(row)
    session.flush()
    return row


def held(session: Session, item_id: int | None, lot_id: int | None = None) -> float:
    """What there is of an item, or of a lot of it, by the books."""
    query = select(func.coalesce(func.sum(Movement.amount), 0.0)).where(Movement.item_id == item_id, COUNTS)
    if lot_id is not None:
        query = query.where(Movement.lot_id == lot_id)
    return float(session.exec(query).one())


def is_counted(session: Session, item_id: int | None) -> bool:
    """Whether anyone ever counted or bought an item."""
    query = select(Movement.id).where(Movement.item_id == item_id, COUNTS)
    return session.exec(query.limit(1)).first() is not None


def counted_at(session: Session, item_id: int | None, lot_id: int | None) -> datetime | None:
    """When an item, or its lot, was last counted."""
    query = select(func.max(Movement.at)).where(
        Movement.item_id == item_id, Movement.lot_id == lot_id, Movement.why == COUNTED, COUNTS
    )
    return session.exec(query).one()


def move(
    session: Session,
    item: StockItem,
    why: str,
    amount: float,
    lot: StockLot | None = None,
    cause: Cause = BY_HAND,
    **more: Any,
) -> Movement:
    """Keep a change of what there is; a count says what was found. Raises `Refused`: see
    `core.stock.ledger.change`.
    """
    if lot is not None:
        require(lot.item_id == item.id, "lot", lot.lot, "a lot of this very item")
    there = held(session, item.id, lot.id if lot is not None else None)
    signed = ledger.change(why, amount, there, item.unit)
    at = more.pop("at", None) or now()
    ledger.require_after_count(at, counted_at(session, item.id, lot.id if lot is not None else None))
    return _kept(
        session,
        Movement(
            item_id=item.id or 0,
            lot_id=lot.id if lot is not None else None,
            amount=signed,
            why=why,
            counted=amount if why == COUNTED else None,
            at=at,
            person_id=session.info.get(WHO),
            of=cause.of,
            of_id=cause.of_id,
            **more,
        ),
        lot,
    )


def by_hand(
    session: Session, item: StockItem, why: str, amount: float, lot: StockLot | None = None, **more: Any
) -> Movement:
    """A change that someone notes. Raises `Refused`, too, for a paint, whose pots its own page has, and where
    lots of the item are open and it is not said of which.
    """
    _not_in_pots(item)
    is_of_lot = lot is not None or why == BOUGHT or not any(one.left > 0 for one in lots(session, item.id))
    require(is_of_lot, "lot", item.name, "one of its lots: each is counted and used by itself")
    return move(session, item, why, amount, lot, **more)


def _not_in_pots(item: StockItem) -> None:
    require(item.of != "paint", "lot", item.name, "its pots: they are counted on the page of the paint")


def _kept(session: Session, row: Movement, lot: StockLot | None) -> Movement:
    session.add(row)
    session.flush()
    if lot is not None:
        session.expire(lot, ["left", "received", "price_minor"])
    return row


def use(session: Session, item: StockItem, amount: float, cause: Cause) -> None:
    """Work took so much, out of lots that are open first, then out of the oldest, then of what is of no lot.
    Where the books had less there was more than they said, and that is noted, too.
    """
    for lot in sorted(lots(session, item.id), key=lambda one: (one.opened_on is None, one.id or 0)):
        of_lot = min(lot.left, amount)
        if of_lot > FINEST:
            move(session, item, USED, of_lot, lot, cause)
            amount -= of_lot
    if amount <= FINEST:
        return
    taken, beside = ledger.used(amount, held(session, item.id))
    if beside > 0:
        move(session, item, CORRECTED, beside, None, cause, note="more was there than the books said")
    move(session, item, USED, taken, None, cause)


def unused(session: Session, cause: Cause) -> None:
    """What a cause used was not used after all: its movements no longer count."""
    rows = select(Movement).where(Movement.of == cause.of, Movement.of_id == cause.of_id, COUNTS)
    for row in session.exec(rows).all():
        row.undone_at = now()
        _kept(session, row, _lot_of(session, row))


def undo(session: Session, row: Movement) -> None:
    """A movement no longer counts. Raises `Refused` where what it brought is used already, where something
    else made it, and before a count.
    """
    require(row.undone_at is None, "movement", row.why, "it is taken back already")
    require(not row.of, "movement", row.why, "what work used is taken back at its bench")
    item, lot = session.get_one(StockItem, row.item_id), _lot_of(session, row)
    _not_in_pots(item)
    ledger.require_undoable(row.amount, held(session, row.item_id, row.lot_id), item.unit)
    if row.why != COUNTED:
        ledger.require_after_count(row.at, counted_at(session, row.item_id, row.lot_id))
    row.undone_at = now()
    if lot is not None and row.why == WASTED:
        lot.gone_at = None
        session.add(lot)
    _kept(session, row, lot)


def redo(session: Session, row: Movement) -> None:
    """A movement counts again. Raises `Refused` where that takes more than there is."""
    require(row.undone_at is not None, "movement", row.why, "it counts already")
    item, lot = session.get_one(StockItem, row.item_id), _lot_of(session, row)
    _not_in_pots(item)
    ledger.require_undoable(-row.amount, held(session, row.item_id, row.lot_id), item.unit)
    row.undone_at = None
    _kept(session, row, lot)


def _lot_of(session: Session, row: Movement) -> StockLot | None:
    return session.get(StockLot, row.lot_id) if row.lot_id is not None else None


def draw(session: Session, lot: StockLot, grams: float, cause: Cause) -> None:
    """Take so much out of a lot. Raises `Refused` instead of going below nothing."""
    move(session, session.get_one(StockItem, lot.item_id), USED, grams, lot, cause)


def give_back(session: Session, lot: StockLot, grams: float, cause: Cause) -> None:
    """So much was not used after all, and is back in its lot."""
    move(session, session.get_one(StockItem, lot.item_id), RETURNED, grams, lot, cause)


def bring(
    session: Session, lot: StockLot, amount: float, price_minor: int | None = None, **more: Any
) -> None:
    """A new lot came with so much in it."""
    session.add(lot)
    session.flush()
    item = session.get_one(StockItem, lot.item_id)
    move(session, item, BOUGHT, amount, lot, price_minor=price_minor, **more)


def count(session: Session, lot: StockLot, amount: float) -> None:
    """A lot was counted or weighed: so much is in it."""
    move(session, session.get_one(StockItem, lot.item_id), COUNTED, amount, lot)


def gone(session: Session, lot: StockLot) -> None:
    """A lot is gone, and what was left in it with it."""
    session.flush()
    if lot.left > 0:
        move(session, session.get_one(StockItem, lot.item_id), WASTED, lot.left, lot, note="gone")
    lot.gone_at = now()
    session.add(lot)
    session.flush()


SORTS = {"name": (StockItem.search,), "kind": (StockItem.kind, StockItem.search), "place": (StockItem.place,)}


def left_of_item() -> ScalarSelect[float]:
    """What there is of an item, within a question for items."""
    counts = Movement.item_id == StockItem.id, COUNTS
    query = select(func.coalesce(func.sum(Movement.amount), 0.0)).where(*counts)
    return query.correlate(StockItem).scalar_subquery()


def listed(text: str = "", kind: str = "", sort: str = "name") -> Any:
    """The question for items with what there is of each and whether anyone ever counted it."""
    known = select(Movement.id).where(Movement.item_id == StockItem.id, COUNTS).correlate(StockItem).exists()
    query = select(StockItem, left_of_item().label("left"), known.label("is_known"))
    query = query.where(col(StockItem.deleted_at).is_(None))
    if text:
        query = query.where(col(StockItem.search).like(pattern(text), escape="\\"))
    if kind:
        query = query.where(StockItem.kind == kind)
    return query.order_by(*SORTS.get(sort, SORTS["name"]), col(StockItem.id))


def movements(item_id: int | None) -> Any:
    """The question for what moved an item, the newest first."""
    return (
        select(Movement)
        .where(Movement.item_id == item_id)
        .order_by(col(Movement.at).desc(), col(Movement.id).desc())
    )


def lots(session: Session, item_id: int | None) -> Sequence[StockLot]:
    """The lots of an item that are not gone, the oldest first."""
    query = select(StockLot).where(StockLot.item_id == item_id, col(StockLot.gone_at).is_(None))
    return session.exec(query.order_by(col(StockLot.id))).all()


def stand_ins(session: Session, item_id: int | None) -> Sequence[StockItem]:
    """What will do for an item; each of two will do for the other."""
    return stand_ins_of(session, [item_id or 0])[item_id or 0]


def stand_ins_of(session: Session, ids: Collection[int]) -> dict[int, list[StockItem]]:
    """What will do for each of these items, by name."""
    either = col(StandIn.item_id).in_(ids) | col(StandIn.other_id).in_(ids)
    both = [(row.item_id, row.other_id) for row in session.exec(select(StandIn).where(either)).all()]
    named = {key for pair in both for key in pair}
    here = {row.id: row for row in items(session, named) if row.deleted_at is None}
    of: dict[int, list[StockItem]] = {key: [] for key in ids}
    for one, other in [*both, *((other, one) for one, other in both)]:
        if one in of and other in here and here[other] not in of[one]:
            of[one].append(here[other])
    return {key: sorted(rows, key=lambda row: row.search) for key, rows in of.items()}


def pair(session: Session, one: StockItem, other: StockItem, note: str = "") -> None:
    """Each of two items will do for the other. Raises `Refused` for an item and itself, and twice."""
    require(one.id != other.id, "stand_in", other.name, "another item")
    if other.unit != one.unit:
        raise Refused("stand_in", other.name, "an item that is counted the same way")
    require(other not in stand_ins(session, one.id), "stand_in", other.name, "it is one already")
    session.add(StandIn(item_id=one.id or 0, other_id=other.id or 0, note=note))
    session.flush()


def pairs(session: Session, one: int, other: int) -> Sequence[StandIn]:
    """The rows that say that two items stand in for each other."""
    both = (one, other)
    query = select(StandIn).where(col(StandIn.item_id).in_(both), col(StandIn.other_id).in_(both))
    return session.exec(query).all()


MOST_ALIKE = 300


def alike(session: Session, row: StockItem) -> Sequence[StockItem]:
    """Other items of a kind that are counted the same way, by name: what might stand in for it."""
    query = select(StockItem).where(
        StockItem.kind == row.kind,
        StockItem.unit == row.unit,
        StockItem.id != row.id,
        col(StockItem.deleted_at).is_(None),
    )
    return session.exec(query.order_by(StockItem.search).limit(MOST_ALIKE)).all()


def suppliers(session: Session) -> Sequence[Supplier]:
    """Whom the shop buys from, by name."""
    query = select(Supplier).where(col(Supplier.deleted_at).is_(None))
    return session.exec(query.order_by(Supplier.search).limit(MOST_ALIKE)).all()


def lots_named(session: Session, rows: Sequence[Movement]) -> Sequence[StockLot]:
    """The lots of some movements, gone or not."""
    ids = {row.lot_id for row in rows if row.lot_id is not None}
    return session.exec(select(StockLot).where(col(StockLot.id).in_(ids))).all()


def items(session: Session, ids: Collection[int]) -> Sequence[StockItem]:
    """These items, by name."""
    return session.exec(select(StockItem).where(col(StockItem.id).in_(ids)).order_by(StockItem.search)).all()


def under_minimum(session: Session) -> Sequence[int]:
    """The items of which there is less than there should be."""
    query = select(StockItem.id).where(
        StockItem.minimum > 0, col(StockItem.deleted_at).is_(None), left_of_item() < StockItem.minimum
    )
    return [key or 0 for key in session.exec(query).all()]


def numbered(session: Session, number: str) -> StockItem | None:
    """The item with this number on its label, however it was typed: `S0012`, `s12`."""
    digits = number.strip().upper().removeprefix("S")
    if not (digits.isascii() and digits.isdigit() and len(digits) < 10):
        return None
    return session.exec(select(StockItem).where(StockItem.number == f"S{int(digits):04d}")).first()


def places(session: Session) -> Sequence[str]:
    """Where things lie, by name."""
    here = select(StockItem.place).where(StockItem.place != "", col(StockItem.deleted_at).is_(None))
    of_lots = select(StockLot.place).where(StockLot.place != "", col(StockLot.gone_at).is_(None))
    return sorted({*session.exec(here.distinct()).all(), *session.exec(of_lots.distinct()).all()})


@dataclass(frozen=True)
class OnShelf:
    """What lies in a place and is counted by itself: an item, or one of its lots."""

    item: StockItem
    lot: StockLot | None
    held: float | None


def on_shelf(session: Session, place: str) -> list[OnShelf]:
    """What lies in one place, by name: of an item with lots each that is open, where it lies itself or where
    its item does.
    """
    here = col(StockItem.deleted_at).is_(None)
    lying = (StockLot.place == place) | ((StockLot.place == "") & (StockItem.place == place))
    query = select(StockLot, StockItem).join(StockItem).where(col(StockLot.gone_at).is_(None), here)
    rows = session.exec(query.where(lying).order_by(col(StockLot.id)).limit(MOST_ALIKE)).all()
    told = [OnShelf(item, lot, lot.left) for lot, item in rows]
    has_lots = select(StockLot.item_id).where(col(StockLot.gone_at).is_(None))
    alone = select(StockItem).where(StockItem.place == place, col(StockItem.id).not_in(has_lots), here)
    items = session.exec(alone.order_by(StockItem.search).limit(MOST_ALIKE)).all()
    held = held_of(session, [row.id for row in items])
    told += [OnShelf(row, None, held.get(row.id or 0)) for row in items]
    return sorted(told, key=lambda one: (one.item.search, one.lot.id or 0 if one.lot is not None else 0))


def held_of(session: Session, ids: Collection[int | None]) -> dict[int, float]:
    """What there is of each of these items; of one that nobody ever counted there is no entry."""
    sums = select(Movement.item_id, func.sum(Movement.amount)).where(col(Movement.item_id).in_(ids), COUNTS)
    return {key: float(total) for key, total in session.exec(sums.group_by(col(Movement.item_id))).all()}


def numbered_first(session: Session, most: int) -> Sequence[StockItem]:
    """Items by name, so many."""
    here = select(StockItem).where(col(StockItem.deleted_at).is_(None))
    return session.exec(here.order_by(StockItem.search).limit(most)).all()


def lots_open(session: Session, most: int) -> Sequence[tuple[StockLot, StockItem]]:
    """Lots that are not gone with their items, the newest first."""
    query = select(StockLot, StockItem).join(StockItem).where(col(StockLot.gone_at).is_(None))
    return session.exec(query.order_by(col(StockLot.id).desc()).limit(most)).all()


def moulds(session: Session, most: int) -> Sequence[tuple[MouldMade, Document]]:
    """Moulds that are in use with their designs, the newest first."""
    query = select(MouldMade, Document).join(Document).where(col(MouldMade.retired_at).is_(None))
    return session.exec(query.order_by(col(MouldMade.id).desc()).limit(most)).all()

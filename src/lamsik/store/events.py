"""The event log: what is done to the shop's rows is written down as the database takes it, in the same
transaction, by this one door. Nobody has to remember to tell it.
"""

from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from datetime import date, datetime
from secrets import token_hex
from typing import Any

from pydantic import TypeAdapter
from sqlalchemy import event, insert, inspect
from sqlalchemy.orm import Session as AnySession
from sqlmodel import Session, SQLModel, col, func, select
from sqlmodel.sql.expression import SelectOfScalar

from lamsik.core.errors import require
from lamsik.store.tables import (
    Batch,
    CustodyItem,
    Customer,
    CustomerWord,
    Document,
    Drill,
    Hardware,
    Incident,
    Instrument,
    LogEntry,
    Machine,
    Message,
    MouldMade,
    Movement,
    Observation,
    Order,
    OrderChange,
    OrderLine,
    PaintPatch,
    PaintTool,
    Paper,
    Parcel,
    Payment,
    Person,
    Piece,
    PieceStep,
    Pour,
    Promise,
    ShopWater,
    SlugStock,
    StandIn,
    StockItem,
    StockLot,
    Supplier,
    WeighedThing,
    now,
)

DERIVED = frozenset({"search", "stand", "queue", "gone_on", "owed_minor"})
"""Columns that are told from others: they are not written down."""
FOLLOWED = frozenset({"merged_into_id", "erased_at"})
"""Columns whose change moves other rows as well: it is not undone by itself."""
WHO = "person"
"""Under this name a session knows who works with it."""
ACT = "act"
"""And under this what is done with it in one go."""


@dataclass(frozen=True)
class Watched:
    """What the rows of a table belong to.

    Args:
        of: the word for that; empty where each row says it itself.
        by: the column that names it.
        part: what such a row is of it.
        back: whether a change of it can be taken back by itself.
        says: the column that says which it is: kept with every change.
        told: columns that are told from others here: they are not written down.
    """

    of: str
    by: str = "id"
    part: str = ""
    back: bool = False
    says: str = ""
    told: frozenset[str] = frozenset()


WATCHED: dict[type[SQLModel], Watched] = {
    Piece: Watched("piece"),
    PieceStep: Watched("piece", "piece_id", "step", back=True, says="step"),
    Observation: Watched("", "of_id", "observed", says="what"),
    Pour: Watched("pour"),
    Batch: Watched("batch"),
    Order: Watched("order", told=frozenset({"title", "quantity", "price_minor"})),
    OrderLine: Watched("order", "order_id", "line", told=frozenset({"title"})),
    OrderChange: Watched("order", "order_id", "change"),
    Promise: Watched("order", "order_id", "promise", back=True),
    Parcel: Watched("order", "order_id", "parcel", says="number"),
    Paper: Watched("order", "order_id", "paper", says="number", told=frozenset({"html"})),
    Message: Watched("customer", "customer_id", "message"),
    Payment: Watched("order", "order_id", "payment", back=True),
    Customer: Watched("customer", back=True),
    CustodyItem: Watched("customer", "customer_id", "custody", says="number"),
    CustomerWord: Watched("customer", "customer_id", "word", back=True),
    Document: Watched("document"),
    MouldMade: Watched("document", "mould_id", "made"),
    WeighedThing: Watched("thing"),
    StockItem: Watched("stock"),
    StockLot: Watched("stock", "item_id", "lot", says="lot"),
    Movement: Watched("stock", "item_id", "movement", says="why"),
    StandIn: Watched("stock", "item_id", "stand-in", back=True),
    Supplier: Watched("item", part="supplier", back=True, says="name"),
    Machine: Watched("item", part="machine", back=True, says="name"),
    Incident: Watched("item", part="incident", back=True),
    Hardware: Watched("item", part="part", back=True, says="name"),
    SlugStock: Watched("item", part="ballast", back=True, says="name"),
    Drill: Watched("item", part="drill", back=True),
    ShopWater: Watched("item", part="water", back=True, says="name"),
    PaintPatch: Watched("item", part="patch", back=True),
    PaintTool: Watched("item", part="stencil", back=True, says="name"),
    Instrument: Watched("item", part="scale", back=True, says="name"),
    Person: Watched("person"),
}
TABLES = {(watched.of, watched.part): table for table, watched in WATCHED.items() if watched.of}


def told(value: Any) -> Any:
    """A value of a column as the log keeps it."""
    return value.isoformat() if isinstance(value, date | datetime) else value


def columns(table: type[SQLModel]) -> list[str]:
    """The columns of a table that are written down."""
    told = DERIVED | WATCHED[table].told
    return [name for name in table.model_fields if name not in told]


def state_of(row: SQLModel) -> dict[str, Any]:
    """All of a row that is written down."""
    return {name: told(getattr(row, name)) for name in columns(type(row))}


@event.listens_for(AnySession, "after_flush")
def _write(session: AnySession, _context: Any) -> None:
    act = session.info.setdefault(ACT, token_hex(4))
    rows = [
        {"at": now(), "person_id": session.info.get(WHO), "act": act, **one}
        for kind in (_made, _changed, _gone)
        for one in kind(session)
    ]
    if rows:
        session.connection().execute(insert(LogEntry), rows)


@event.listens_for(AnySession, "after_commit")
@event.listens_for(AnySession, "after_rollback")
def _done(session: AnySession) -> None:
    session.info.pop(ACT, None)


def _made(session: AnySession) -> Iterator[dict[str, Any]]:
    for row in session.new:
        if type(row) in WATCHED:
            yield {**_named(row), "before": None, "after": state_of(row)}


def _changed(session: AnySession) -> Iterator[dict[str, Any]]:
    for row in session.dirty:
        if type(row) not in WATCHED:
            continue
        before, after = {}, {}
        for name in columns(type(row)):
            history = inspect(row).attrs[name].history
            was = told(history.deleted[0]) if history.deleted else None
            if history.added and was != told(history.added[0]):
                before[name], after[name] = was, told(history.added[0])
        if after:
            says = WATCHED[type(row)].says
            which = {says: told(getattr(row, says))} if says else {}
            yield {**_named(row), "before": {**which, **before}, "after": {**which, **after}}


def _gone(session: AnySession) -> Iterator[dict[str, Any]]:
    for row in session.deleted:
        if type(row) in WATCHED:
            yield {**_named(row), "before": state_of(row), "after": None}


def _named(row: SQLModel) -> dict[str, Any]:
    watched = WATCHED[type(row)]
    return {
        "of": watched.of or getattr(row, "of"),  # noqa: B009 (only such a table has one)
        "of_id": getattr(row, watched.by),
        "part": watched.part,
        "row_id": getattr(row, "id"),  # noqa: B009 (not every table of SQLModel has one)
    }


def listed(of: str = "", of_id: int | None = None, person_id: int | None = None) -> SelectOfScalar[LogEntry]:
    """The question for events, the newest first: all of them, those of a kind, of one thing, by someone."""
    query = select(LogEntry)
    if of:
        query = query.where(LogEntry.of == of)
    if of_id is not None:
        query = query.where(LogEntry.of_id == of_id)
    if person_id is not None:
        query = query.where(LogEntry.person_id == person_id)
    return query.order_by(col(LogEntry.at).desc(), col(LogEntry.id).desc())


State = dict[tuple[str, int], dict[str, Any]]
"""By part and row: the values."""


def rebuilt(session: Session, of: str, of_id: int) -> State:
    """What a piece, a pour, a batch … and its parts are now, by the log alone."""
    state: State = {}
    events = session.exec(
        select(LogEntry).where(LogEntry.of == of, LogEntry.of_id == of_id).order_by(col(LogEntry.id))
    ).all()
    for one in events:
        key = one.part, one.row_id
        if one.after is None:
            state.pop(key, None)
        else:
            state[key] = {**state.get(key, {}), **one.after}
    return state


def can_take_back(one: LogEntry) -> bool:
    """Whether this kind of change can be undone by itself: nothing else follows from it."""
    table = TABLES.get((one.of, one.part))
    if table is None:
        return False
    if set(one.after or ()) & FOLLOWED:
        return False
    put_away = one.after is not None and set(one.after) == {"deleted_at"}
    ticked_again = table is PieceStep and one.after is None  # that asks what stands against it, at its bench
    return put_away or (WATCHED[table].back and not ticked_again)


def take_back(session: Session, one: LogEntry) -> SQLModel | None:
    """Undo an event: its row is as it was before; None where there is no row then.

    Raises:
        Refused: it is none that is undone by itself, or the row was changed since.
        IntegrityError: something stands on it, or its name is taken.
    """
    require(can_take_back(one), "event", one.of, "this is gone back on at its own bench")
    table = TABLES[one.of, one.part]
    row = session.get(table, one.row_id)
    is_now = state_of(row) if row is not None else None
    held = {name: is_now.get(name) for name in one.after} if is_now is not None and one.after else is_now
    require(held == one.after, "event", "changed since", "undo what came after it first")
    with session.begin_nested():
        if row is None:
            row = table(**_values(table, one.before or {}))
            session.add(row)
        elif one.before is None:
            session.delete(row)
            return None
        else:
            for name, value in _values(table, one.before).items():
                setattr(row, name, value)
            session.add(row)
    return row


def bring_back(session: Session, row: SQLModel) -> None:
    """A row that was put away is there again, by what the log says of that; one put away before there was a
    log simply is.
    """
    watched = WATCHED[type(row)]
    away = listed(watched.of).where(
        LogEntry.part == watched.part,
        LogEntry.row_id == getattr(row, "id"),  # noqa: B009 (not every table of SQLModel has one)
        func.json_extract(LogEntry.after, "$.deleted_at").is_not(None),
    )
    one = session.exec(away.limit(1)).first()
    if one is None:
        setattr(row, "deleted_at", None)  # noqa: B010 (as above)
        session.add(row)
    else:
        take_back(session, one)


def _values(table: type[SQLModel], kept: Mapping[str, Any]) -> dict[str, Any]:
    """Values of the log as the columns take them; what is told from others begins anew."""
    fields = table.model_fields
    return {
        name: TypeAdapter(fields[name].annotation or Any).validate_python(value)
        for name, value in kept.items()
    }


def last_of(session: Session, row_id: int, of: str, part: str = "") -> LogEntry | None:
    """The newest event of a row."""
    query = listed(of).where(LogEntry.part == part, LogEntry.row_id == row_id)
    return session.exec(query.limit(1)).first()

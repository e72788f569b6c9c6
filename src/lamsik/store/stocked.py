"""What the shop has elsewhere is in the ledger as well: parts, ballast metal, drills and stencils become
items as the database takes them; nobody has to remember to add them.
"""

from collections.abc import Callable
from dataclasses import dataclass
from typing import Any

from sqlalchemy import event, insert, select, update
from sqlalchemy.orm import Session as AnySession
from sqlmodel import SQLModel, col

from lamsik.core.quantities import METRIC, plainly, saying
from lamsik.core.stock.kinds import GRAMS, ITEM_KINDS, PIECES
from lamsik.core.stock.ledger import COUNTED
from lamsik.store.search import fold
from lamsik.store.tables import Drill, Hardware, Movement, PaintTool, SlugStock, StockItem, now


@dataclass(frozen=True)
class Stocked:
    """How the rows of a table are items: the word they are known by, their kind, what they are called."""

    of: str
    kind: str
    called: Callable[[Any], str]
    pack: Callable[[Any], float] = lambda _row: 0.0
    unit: Callable[[Any], str] = lambda _row: ""


def drill_name(row: Drill) -> str:
    """What a drill is called: as its size was typed, or in millimetres."""
    with saying(METRIC):
        return f"Drill {row.typed.get('diameter') or plainly(row.diameter_mm, 'length')}"


STOCKED: dict[type[SQLModel], Stocked] = {
    Hardware: Stocked("hardware", "part", lambda row: row.name, lambda row: float(row.pack_count)),
    SlugStock: Stocked(
        "slug",
        "metal",
        lambda row: row.name,
        unit=lambda row: PIECES if row.form == "ball" else GRAMS,
    ),
    Drill: Stocked("drill", "drill", drill_name),
    PaintTool: Stocked("stencil", "stencil", lambda row: row.name),
}


@event.listens_for(AnySession, "after_flush")
def _follow(session: AnySession, _context: Any) -> None:
    for row in session.new:
        if type(row) in STOCKED:
            keep(session.connection(), row)
    for row in session.dirty:
        if type(row) in STOCKED:
            _renamed(session.connection(), row)


def _renamed(connection: Any, row: Any) -> None:
    how = STOCKED[type(row)]
    mine = (col(StockItem.of) == how.of) & (col(StockItem.of_id) == row.id)
    connection.execute(update(StockItem).where(mine).values(name=how.called(row)))


def keep(connection: Any, row: Any) -> None:
    """A row is an item of the ledger from now on; one that was there already is again. A drill or a stencil
    is there once.
    """
    how = STOCKED[type(row)]
    mine = (col(StockItem.of) == how.of) & (col(StockItem.of_id) == row.id)
    if connection.execute(select(col(StockItem.id)).where(mine)).first() is not None:
        connection.execute(update(StockItem).where(mine).values(deleted_at=None))
        return
    kind, name = ITEM_KINDS[how.kind], how.called(row)
    row_made = connection.execute(
        insert(StockItem).values(
            kind=kind.key,
            name=name,
            of=how.of,
            of_id=row.id,
            unit=how.unit(row) or kind.unit,
            pack=how.pack(row),
        )
    )
    key = row_made.inserted_primary_key[0]
    number = f"S{key:04d}"
    connection.execute(
        update(StockItem)
        .where(col(StockItem.id) == key)
        .values(number=number, search=fold(f"{name} {number}"))
    )
    if not kind.is_used_up:
        counted = {"item_id": key, "amount": 1.0, "counted": 1.0, "why": COUNTED, "at": now()}
        connection.execute(insert(Movement).values(counted))

"""The ledger of what there is: items, their lots, every movement; suppliers, machines, stand-ins."""

from datetime import date, datetime
from typing import Any, ClassVar

from sqlalchemy import JSON, Index, UniqueConstraint, inspect, text
from sqlalchemy.orm import column_property
from sqlmodel import Field, SQLModel, case, col, func, select

from lamsik.store.tables.shared import Typed, now


class Supplier(SQLModel, table=True):
    """Whom the shop buys from; `lead_days` is what they say, deliveries teach better."""

    id: int | None = Field(default=None, primary_key=True)
    name: str = Field(unique=True)
    search: str = Field(default="", index=True)
    reach: str = ""
    lead_days: int | None = None
    note: str = ""
    deleted_at: datetime | None = None


class StockItem(Typed, table=True):
    """Something the shop keeps count of, of a kind in `ITEM_KINDS`, in that kind's unit: pieces, g, ml, mm.

    `of`, `of_id` and `part` name what it is elsewhere: a part of the catalogue, a paint, a part of a product.
    `pack` is how much is bought at once for `price_minor`; `minimum` how much there should be;
    `each_piece` how many go with every piece that is made; a tool with `uses` is shared over so many.
    `number` stands on its label.
    """

    __tablename__ = "item"
    __table_args__ = (
        UniqueConstraint("of", "of_id", "part"),
        Index("item_by_name", "search", "id", sqlite_where=text("deleted_at IS NULL")),
    )
    id: int | None = Field(default=None, primary_key=True)
    number: str = Field(default="", index=True)
    kind: str = Field(index=True)
    name: str
    search: str = ""
    unit: str = "piece"
    of: str = ""
    of_id: int | None = None
    part: str = ""
    pack: float = 0.0
    minimum: float = 0.0
    each_piece: float = 0.0
    uses: int = 0
    place: str = ""
    supplier_id: int | None = Field(default=None, foreign_key="supplier.id", index=True)
    price_minor: int | None = None
    currency: str = ""
    tax_percent: float | None = None
    density_g_cm3: float | None = None
    material: str = Field(default="", index=True)
    note: str = ""
    deleted_at: datetime | None = None


class StockLot(Typed, table=True):
    """A lot of an item: a tub of one part of a product, a pot, a box with a number of its own; dates, when it
    was stirred; scrap has a colour and heats. What came [in the item's unit], what is left and what was paid
    are the sums of its movements.
    """

    __tablename__ = "lot"

    id: int | None = Field(default=None, primary_key=True)
    item_id: int = Field(foreign_key="item.id", index=True)
    product_id: int | None = Field(default=None, foreign_key="document.id", index=True)
    part: str = ""
    lot: str
    place: str = ""
    opened_on: date | None = None
    expires_on: date | None = None
    stirred_at: datetime | None = None
    colour: str = ""
    heats: int = 0
    note: str = ""
    at: datetime = Field(default_factory=now)
    gone_at: datetime | None = None

    left: ClassVar[float]
    received: ClassVar[float]
    price_minor: ClassVar[int | None]


class Movement(SQLModel, table=True):
    """One change of what there is: so much [in the item's unit], more or less, why, and what caused it (`of`
    and `of_id`: a batch, a piece, a line). A count keeps what was `counted`. One that is undone stays and no
    longer counts.
    """

    __table_args__ = (
        Index("movement_sum", "item_id", "undone_at", "amount"),
        Index("movement_of", "of", "of_id"),
        Index("movement_of_lot", "lot_id", "undone_at", "amount"),
    )
    id: int | None = Field(default=None, primary_key=True)
    item_id: int = Field(foreign_key="item.id")
    lot_id: int | None = Field(default=None, foreign_key="lot.id")
    amount: float
    why: str
    counted: float | None = None
    at: datetime = Field(default_factory=now)
    person_id: int | None = Field(default=None, foreign_key="person.id")
    of: str = ""
    of_id: int | None = None
    price_minor: int | None = None
    currency: str = ""
    supplier_id: int | None = Field(default=None, foreign_key="supplier.id", index=True)
    ordered_on: date | None = None
    note: str = ""
    undone_at: datetime | None = None


class StandIn(SQLModel, table=True):
    """Two items of which each will do for the other."""

    __tablename__ = "stand_in"
    __table_args__ = (UniqueConstraint("item_id", "other_id"),)
    id: int | None = Field(default=None, primary_key=True)
    item_id: int = Field(foreign_key="item.id")
    other_id: int = Field(foreign_key="item.id", index=True)
    note: str = ""


class PieceNeed(SQLModel, table=True):
    """What one piece of a revision takes, told from it once: so much of something at a step. A revision that
    takes nothing has one row of nothing.
    """

    __tablename__ = "need"
    id: int | None = Field(default=None, primary_key=True)
    revision_id: int = Field(foreign_key="revision.id", index=True)
    of: str = ""
    key: str = ""
    name: str = ""
    amount: float = 0.0
    unit: str = "piece"
    step: str = ""


class Machine(SQLModel, table=True):
    """A machine or tool that work depends on: up, down or away, since when, and what is done then."""

    id: int | None = Field(default=None, primary_key=True)
    name: str = Field(unique=True)
    state: str = "up"
    since: datetime = Field(default_factory=now)
    steps: list[Any] = Field(default_factory=list, sa_type=JSON)
    fallback: str = ""
    note: str = ""


class Incident(SQLModel, table=True):
    """What went wrong with a delivery or a lot, and how it ended."""

    id: int | None = Field(default=None, primary_key=True)
    supplier_id: int = Field(foreign_key="supplier.id", index=True)
    lot_id: int | None = Field(default=None, foreign_key="lot.id")
    text: str
    outcome: str = ""
    at: datetime = Field(default_factory=now)


def _of_lot(value: Any) -> Any:
    counts = Movement.lot_id == StockLot.id, col(Movement.undone_at).is_(None)
    return column_property(select(value).where(*counts).correlate_except(Movement).scalar_subquery())


_bought = col(Movement.why) == "bought"
for _name, _value in {
    "left": func.coalesce(func.sum(Movement.amount), 0.0),
    "received": func.coalesce(func.sum(case((_bought, Movement.amount), else_=0.0)), 0.0),
    "price_minor": func.sum(Movement.price_minor),
}.items():
    inspect(StockLot).add_property(_name, _of_lot(_value))

"""Who orders, and what."""

from datetime import date, datetime
from typing import Any

from sqlalchemy import JSON, Index, text
from sqlmodel import Field, SQLModel

from lamsik.core.materials import USUAL_WOOD
from lamsik.core.trade.behaviours import USUAL
from lamsik.store.tables.shared import Typed, now


class Customer(SQLModel, table=True):
    """Someone who orders; `facts` by the keys of `CUSTOMER_FACTS`. One that was double is put away and names
    whom it was merged into, with the orders and words it had; of one that was erased nothing is known.
    """

    id: int | None = Field(default=None, primary_key=True)
    name: str
    search: str = Field(index=True)
    facts: dict[str, Any] = Field(default_factory=dict, sa_type=JSON)
    merged_into_id: int | None = Field(default=None, foreign_key="customer.id", index=True)
    merged: dict[str, Any] = Field(default_factory=dict, sa_type=JSON)
    erased_at: datetime | None = None
    deleted_at: datetime | None = None


class CustomerWord(Typed, table=True):
    """What a customer wrote or said, of an order or of none."""

    __tablename__ = "customer_word"
    id: int | None = Field(default=None, primary_key=True)
    customer_id: int = Field(foreign_key="customer.id", index=True)
    order_id: int | None = Field(default=None, foreign_key="shop_order.id")
    text: str
    at: datetime = Field(default_factory=now)


class Order(Typed, table=True):
    """An enquiry or order; one line in this first release: a bait in a scheme, a quantity, a wish.

    `stand` is told from what is agreed and made (`stands`), never typed, and `queue` sorts: open before
    shipped, then by due date. `scheme_version` is the one that was ordered: later ones leave it as it is.
    """

    __tablename__ = "shop_order"
    __table_args__ = (
        Index("order_by_design", "design_id", "queue"),
        Index("order_queue", "queue", sqlite_where=text("deleted_at IS NULL")),
        Index("order_by_stand", "stand", "queue", sqlite_where=text("deleted_at IS NULL")),
    )
    id: int | None = Field(default=None, primary_key=True)
    number: str = Field(unique=True)
    customer_id: int = Field(foreign_key="customer.id", index=True)
    title: str
    search: str = Field(index=True)
    quantity: int = 1
    length_mm: float | None = None
    form: str = "slim"
    material: str = USUAL_WOOD
    scheme_id: int | None = Field(default=None, foreign_key="document.id", index=True)
    scheme_version: int = 0
    behaviour: str = USUAL
    pitch_deg: float = 0.0
    water_id: int | None = Field(default=None, foreign_key="water.id")
    due_on: date | None = None
    placed_at: datetime = Field(default_factory=now)
    quoted_at: datetime | None = None
    accepted_at: datetime | None = None
    declined_at: datetime | None = None
    cancelled_at: datetime | None = None
    design_id: int | None = Field(default=None, foreign_key="document.id")
    price_minor: int | None = None
    shipping_minor: int | None = None
    currency: str = "EUR"
    note: str = ""
    stand: str = "enquiry"
    queue: str = ""
    deleted_at: datetime | None = None


class Payment(Typed, table=True):
    """Money that came for an order, or went back: below nothing. In minor units of the order's currency."""

    id: int | None = Field(default=None, primary_key=True)
    order_id: int = Field(foreign_key="shop_order.id", index=True)
    paid_on: date
    minor: int
    how: str = ""
    note: str = ""


class CustodyItem(Typed, table=True):
    """Something of a customer's that is here: what it is and how it came, what was taken off it, when it went
    back. It is no stock.
    """

    __tablename__ = "custody"
    id: int | None = Field(default=None, primary_key=True)
    number: str = Field(unique=True)
    customer_id: int = Field(foreign_key="customer.id", index=True)
    order_id: int | None = Field(default=None, foreign_key="shop_order.id", index=True)
    kind: str
    what: str
    condition: str = ""
    weight_g: float | None = None
    genuine: str = ""
    genuine_by: str = ""
    eyes: str = ""
    electronics: str = ""
    place: str = ""
    bag: list[Any] = Field(default_factory=list, sa_type=JSON)
    received_on: date
    due_back_on: date | None = None
    returned_on: date | None = None
    written_off: str = ""
    search: str = Field(default="", index=True)

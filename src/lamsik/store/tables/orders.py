"""Who orders, and what."""

from datetime import date, datetime
from typing import Any

from sqlalchemy import JSON, Index, text
from sqlmodel import Field, SQLModel

from lamsik.core.materials import USUAL_WOOD
from lamsik.core.trade.behaviours import USUAL
from lamsik.store.tables.shared import Typed, now


class Customer(SQLModel, table=True):
    """Someone who orders; `facts` by the keys of `CUSTOMER_FACTS`."""

    id: int | None = Field(default=None, primary_key=True)
    name: str
    search: str = Field(index=True)
    facts: dict[str, Any] = Field(default_factory=dict, sa_type=JSON)


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
    accepted_at: datetime | None = None
    design_id: int | None = Field(default=None, foreign_key="document.id")
    price_minor: int | None = None
    currency: str = "EUR"
    note: str = ""
    stand: str = "enquiry"
    queue: str = ""
    deleted_at: datetime | None = None

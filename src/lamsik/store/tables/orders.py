"""Who orders, and what."""

from datetime import date, datetime
from typing import Any

from sqlalchemy import JSON, Index, UniqueConstraint, text
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


IS_OWED = "owed_minor IS NOT NULL AND deleted_at IS NULL"
"""Of an order: whether there is anything to be paid."""


class Order(SQLModel, table=True):
    """An enquiry or order of a customer; what is wanted are its lines.

    `stand` is told from what is agreed and made (`stands`), never typed, and `queue` sorts: open before
    shipped, then by due date; `gone_on` is the day all of it was gone,
    `owed_minor` what is agreed and not paid. `title`, `quantity` and `price_minor`
    are told from the lines, the price with its discount taken off. A discount and a deposit are percent or
    a sum.
    """

    __tablename__ = "shop_order"
    __table_args__ = (
        Index("order_queue", "queue", sqlite_where=text("deleted_at IS NULL")),
        Index("order_by_stand", "stand", "queue", sqlite_where=text("deleted_at IS NULL")),
        Index("order_gone", "gone_on", sqlite_where=text("gone_on IS NOT NULL")),
        Index("order_owed", "customer_id", "owed_minor", sqlite_where=text(IS_OWED)),
    )
    id: int | None = Field(default=None, primary_key=True)
    number: str = Field(unique=True)
    customer_id: int = Field(foreign_key="customer.id", index=True)
    title: str = ""
    search: str = Field(default="", index=True)
    quantity: int = 0
    price_minor: int | None = None
    due_on: date | None = None
    placed_at: datetime = Field(default_factory=now)
    quoted_at: datetime | None = None
    accepted_at: datetime | None = None
    declined_at: datetime | None = None
    cancelled_at: datetime | None = None
    shipping_minor: int | None = None
    discount_percent: float | None = None
    discount_minor: int | None = None
    discount_why: str = ""
    deposit_percent: float | None = None
    deposit_minor: int | None = None
    currency: str = "EUR"
    note: str = ""
    stand: str = "enquiry"
    queue: str = ""
    gone_on: date | None = None
    owed_minor: int | None = None
    deleted_at: datetime | None = None


class OrderLine(Typed, table=True):
    """One line of an order, of a kind in `LINE_KINDS`: what of it, how many, at which price.

    `scheme_version` is the one that was ordered and `revision_id` the body that was: later ones leave both as
    they are. `agreed` is what was said yes to. `custody_id` is what of the customer's it is done to,
    `like_id` the body it is like at another size, `piece_id` the one of stock that is sold, kept for them
    until `kept_until`. `swaps` are items that are used in the place of what is short.
    """

    __tablename__ = "order_line"
    __table_args__ = (Index("line_of_design", "design_id", "deleted_at", "order_id", "quantity", "per_set"),)
    id: int | None = Field(default=None, primary_key=True)
    order_id: int = Field(foreign_key="shop_order.id", index=True)
    kind: str = "made"
    title: str = ""
    quantity: int = 1
    per_set: int = 1
    clears: int | None = None
    form: str = "slim"
    length_mm: float | None = None
    material: str = USUAL_WOOD
    scheme_id: int | None = Field(default=None, foreign_key="document.id", index=True)
    scheme_version: int = 0
    behaviour: str = USUAL
    pitch_deg: float = 0.0
    water_id: int | None = Field(default=None, foreign_key="water.id")
    design_id: int | None = Field(default=None, foreign_key="document.id")
    revision_id: int | None = Field(default=None, foreign_key="revision.id")
    like_id: int | None = Field(default=None, foreign_key="document.id")
    custody_id: int | None = Field(default=None, foreign_key="custody.id", index=True)
    piece_id: int | None = Field(default=None, index=True)  # a piece names its line: not both ways
    kept_until: datetime | None = None
    old_paint: str = ""
    rate_minor: int | None = None
    lump_minor: int | None = None
    picked_at: datetime | None = None
    note: str = ""
    agreed: dict[str, Any] = Field(default_factory=dict, sa_type=JSON)
    swaps: dict[str, int] = Field(default_factory=dict, sa_type=JSON)
    deleted_at: datetime | None = None


class OrderChange(SQLModel, table=True):
    """A change of a line after it was agreed: what it was and would be, by column, and what the customer said
    to it: `yes`, `no`, or nothing yet.
    """

    __tablename__ = "order_change"
    id: int | None = Field(default=None, primary_key=True)
    order_id: int = Field(foreign_key="shop_order.id", index=True)
    line_id: int = Field(foreign_key="order_line.id")
    before: dict[str, Any] = Field(default_factory=dict, sa_type=JSON)
    after: dict[str, Any] = Field(default_factory=dict, sa_type=JSON)
    asked_at: datetime = Field(default_factory=now)
    answer: str = ""
    answered_at: datetime | None = None
    word: str = ""


class Promise(SQLModel, table=True):
    """A day that was promised for an order, and why that day; the newest counts."""

    id: int | None = Field(default=None, primary_key=True)
    order_id: int = Field(foreign_key="shop_order.id", index=True)
    due_on: date
    why: str = ""
    at: datetime = Field(default_factory=now)


class Parcel(Typed, table=True):
    """What goes out together. Its weight is `weight_g` off the scale; an estimate until it was weighed."""

    id: int | None = Field(default=None, primary_key=True)
    order_id: int = Field(foreign_key="shop_order.id", index=True)
    number: str = Field(unique=True)
    box: str = ""
    box_g: float | None = None
    weight_g: float | None = None
    tracking: str = ""
    sent_on: date | None = None


class ParcelItem(SQLModel, table=True):
    """What lies in a parcel: a piece, so many of a line of parts, or something of the customer's."""

    __tablename__ = "parcel_item"
    id: int | None = Field(default=None, primary_key=True)
    parcel_id: int = Field(foreign_key="parcel.id", index=True)
    piece_id: int | None = Field(default=None, foreign_key="piece.id", unique=True)
    custody_id: int | None = Field(default=None, foreign_key="custody.id")
    line_id: int | None = Field(default=None, foreign_key="order_line.id", index=True)
    count: int = 1


class Paper(SQLModel, table=True):
    """A paper as it was issued: it is never changed, the database refuses it; a counter-document names the
    one it `cancels`. `n` counts the papers of a kind without gaps.
    """

    __table_args__ = (UniqueConstraint("kind", "n"),)
    id: int | None = Field(default=None, primary_key=True)
    order_id: int = Field(foreign_key="shop_order.id", index=True)
    kind: str
    n: int
    number: str = Field(unique=True)
    issued_at: datetime = Field(default_factory=now)
    cancels_id: int | None = Field(default=None, foreign_key="paper.id", unique=True)
    html: str
    digest: str


class Message(SQLModel, table=True):
    """A letter to a customer or from one. `state`: waiting, sent, failed (`problem` says why), copied, or
    came.
    """

    id: int | None = Field(default=None, primary_key=True)
    customer_id: int = Field(foreign_key="customer.id", index=True)
    order_id: int | None = Field(default=None, foreign_key="shop_order.id", index=True)
    about: str = ""
    address: str = ""
    subject: str = ""
    text: str = ""
    state: str = "waiting"
    problem: str = ""
    tries: int = 0
    mail_id: str = Field(default="", index=True)
    at: datetime = Field(default_factory=now)


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

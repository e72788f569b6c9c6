"""The tables of a shop. Masses in grams, lengths in millimetres, money in minor units, times in UTC."""

from datetime import UTC, date, datetime
from typing import Any

from sqlalchemy import JSON, Column, Index, UniqueConstraint, text
from sqlmodel import Field, SQLModel


def now() -> datetime:
    """This moment in UTC, to the second."""
    return datetime.now(UTC).replace(microsecond=0)


class Typed(SQLModel):
    """A row that keeps measures as they were typed, by field, beside their values."""

    typed: dict[str, str] = Field(default_factory=dict, sa_type=JSON)


class Customer(SQLModel, table=True):
    """Someone who orders."""

    id: int | None = Field(default=None, primary_key=True)
    name: str
    search: str = Field(index=True)
    contact: str = ""
    note: str = ""


class ShopWater(Typed, table=True):
    """A named water of the shop."""

    __tablename__ = "water"

    id: int | None = Field(default=None, primary_key=True)
    name: str = Field(unique=True)
    temperature_c: float
    salinity_psu: float = 0.0
    measured_g_cm3: float | None = None


class Document(SQLModel, table=True):
    """A design (`kind` body) or a paint scheme (`kind` scheme): a name and its current revision."""

    __table_args__ = (Index("document_here", "kind", "search", sqlite_where=text("deleted_at IS NULL")),)
    id: int | None = Field(default=None, primary_key=True)
    kind: str = Field(index=True)
    code: str = Field(index=True)
    name: str
    search: str = Field(index=True)
    current: int = 1
    deleted_at: datetime | None = None


class Revision(SQLModel, table=True):
    """One saved state of a document; never changed once written.

    `parent` is what it was made from; one made `beside` is for a single piece and no step of redo. An old one
    is kept
    `packed`, as what differs from revision `packed_on`, and its `content` stands empty: `documents.ready`
    makes it whole.
    """

    __table_args__ = (UniqueConstraint("document_id", "number"), Index("revision_saved", "saved_at", "id"))
    id: int | None = Field(default=None, primary_key=True)
    document_id: int = Field(foreign_key="document.id", index=True)
    number: int
    parent: int | None = None
    saved_at: datetime = Field(default_factory=now)
    note: str = ""
    name: str = ""
    beside: bool = False
    content: dict[str, Any] = Field(sa_column=Column(JSON, nullable=False))
    packed: bytes | None = None
    packed_on: int | None = Field(default=None, foreign_key="revision.id")


class Card(SQLModel, table=True):
    """The small picture of a revision, and the look it was drawn in."""

    revision_id: int = Field(foreign_key="revision.id", primary_key=True)
    look: str
    svg: str


class Order(Typed, table=True):
    """An enquiry or order; one line in this first release: a bait in a scheme, a quantity, a wish.

    `stand` is told from what is agreed and made (`stands`), never typed, and `queue` sorts: open before
    shipped, then by due date.
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
    material: str = "basswood"
    scheme_id: int | None = Field(default=None, foreign_key="document.id")
    behaviour: str = "slow rise"
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


class Piece(SQLModel, table=True):
    """One bait made, with its own number; remembers the revision it is made from. `stand` is told from its
    steps (`stands`).
    """

    __table_args__ = (
        Index(
            "piece_going", "order_id", "id", sqlite_where=text("stand != 'shipped' AND deleted_at IS NULL")
        ),
    )
    id: int | None = Field(default=None, primary_key=True)
    number: str = Field(unique=True)
    design_id: int = Field(foreign_key="document.id", index=True)
    revision_id: int = Field(foreign_key="revision.id")
    order_id: int | None = Field(default=None, foreign_key="shop_order.id", index=True)
    started_at: datetime = Field(default_factory=now)
    note: str = ""
    search: str = Field(default="", index=True)
    pour_id: int | None = Field(default=None, foreign_key="pour.id", index=True)
    cavity: str = ""
    stand: str = "making"
    deleted_at: datetime | None = None


class SentForm(SQLModel, table=True):
    """A form that was answered: its one-time key, and where the answer led; sent again it leads there and
    does nothing more.
    """

    key: str = Field(primary_key=True)
    sent_at: datetime = Field(default_factory=now, index=True)
    answer: str = ""


class StepDone(SQLModel, table=True):
    """A step of a piece that is ticked off, or left out for a reason."""

    __table_args__ = (UniqueConstraint("piece_id", "step"),)
    id: int | None = Field(default=None, primary_key=True)
    piece_id: int = Field(foreign_key="piece.id", index=True)
    step: str
    done_at: datetime = Field(default_factory=now)
    reason: str = ""


class Instrument(Typed, table=True):
    """A scale: its step and span [g], how its readings spread [g], when and with what mass [g] it was last
    checked.
    """

    id: int | None = Field(default=None, primary_key=True)
    name: str = Field(unique=True)
    step_g: float
    span_g: float
    checked_on: date | None = None
    spread_g: float = 0.0
    checked_g: float | None = None


class Weighing(SQLModel, table=True):
    """A reading: of the whole piece after a stage, of one part, or of the piece held under in a water. The
    newest of a target counts.
    """

    __table_args__ = (Index("weighing_in_water", "piece_id", sqlite_where=text("target LIKE 'water:%'")),)
    id: int | None = Field(default=None, primary_key=True)
    piece_id: int = Field(foreign_key="piece.id", index=True)
    target: str
    mass_g: float
    text: str
    instrument_id: int = Field(foreign_key="instrument.id")
    at: datetime = Field(default_factory=now)
    undone_at: datetime | None = None
    water: dict[str, Any] = Field(default_factory=dict, sa_type=JSON)


class Hardware(Typed, table=True):
    """A catalogue part; lips carry a plate's size instead of a mass.

    `pack_count` is how many come in a pack, `weighed_count` how many lay on the scale together when it was
    weighed.
    """

    id: int | None = Field(default=None, primary_key=True)
    code: str = Field(unique=True)
    name: str
    kind: str
    mass_g: float = 0.0
    density_g_cm3: float = 7.85
    outside_share: float = 1.0
    reach_mm: float = 0.0
    weighed: bool = False
    width_mm: float | None = None
    length_mm: float | None = None
    thickness_mm: float | None = None
    angle_deg: float | None = None
    material: str = "steel"
    wire_mm: float = 0.0
    shank_mm: float = 0.0
    bore_mm: float = 0.0
    outline: str = "round"
    pack_count: int = 0
    weighed_count: int = 0


class SlugStock(Typed, table=True):
    """Ballast metal at hand."""

    id: int | None = Field(default=None, primary_key=True)
    code: str = Field(unique=True)
    name: str
    form: str
    metal: str
    density_g_cm3: float
    diameter_mm: float


class Drill(Typed, table=True):
    """A drill size on the bench [mm]."""

    id: int | None = Field(default=None, primary_key=True)
    diameter_mm: float = Field(unique=True)


class TimedRun(Typed, table=True):
    """A rise or sink timed in the tub: distance [m], time [s], and the net lift [g] if it was weighed in
    water.
    """

    id: int | None = Field(default=None, primary_key=True)
    design_id: int = Field(foreign_key="document.id", index=True)
    way: str = "rise"
    distance_m: float
    seconds: float
    net_g: float | None = None
    at: datetime = Field(default_factory=now)
    undone_at: datetime | None = None


class TowRun(Typed, table=True):
    """A run on the line: line out [m], speed [m/s], line [mm], rod tip height [m], lead on the bait [g],
    and what was seen: depth [m], pitch [°].
    """

    id: int | None = Field(default=None, primary_key=True)
    design_id: int = Field(foreign_key="document.id", index=True)
    revision: int = 1
    line_out_m: float
    speed_m_s: float
    line_mm: float
    rod_m: float
    depth_m: float
    lead_g: float = 0.0
    pitch_deg: float | None = None
    note: str = ""
    at: datetime = Field(default_factory=now)
    undone_at: datetime | None = None


class Weighed(Typed, table=True):
    """Anything weighed in air, and in water if it was: what the scale read, on which scale, in which water,
    when.

    A floater is held under by a sinker: `sinker_g` is the sinker alone in water, `both_g` with the floater on
    it. `marks` are the readings with a float pulled down to each, lowest first. `stage` says in which state a
    float was weighed.
    """

    id: int | None = Field(default=None, primary_key=True)
    name: str
    search: str = Field(index=True)
    kind: str = Field(default="other", index=True)
    air_g: float | None = None
    water_g: float | None = None
    sinker_g: float | None = None
    both_g: float | None = None
    marks: list[Any] = Field(default_factory=list, sa_type=JSON)
    water: dict[str, Any] = Field(default_factory=dict, sa_type=JSON)
    line_mm: float = 0.0
    line_under_mm: float = 0.0
    stage: str = ""
    float_id: int | None = Field(default=None, foreign_key="document.id", index=True)
    instrument_id: int | None = Field(default=None, foreign_key="instrument.id")
    at: datetime = Field(default_factory=now)
    note: str = ""
    source: dict[str, Any] = Field(default_factory=dict, sa_type=JSON)
    deleted_at: datetime | None = None


class SkinMesh(SQLModel, table=True):
    """A mesh a body was brought in as, in shares of its size, packed; named by the digest of its data."""

    digest: str = Field(primary_key=True)
    name: str
    faces: int
    data: bytes


class Tracing(SQLModel, table=True):
    """A photo being traced: the digest of the picture as shown, and how far the maker has got with it."""

    id: int | None = Field(default=None, primary_key=True)
    name: str
    digest: str
    width_px: int
    height_px: int
    state: dict[str, Any] = Field(default_factory=dict, sa_type=JSON)
    at: datetime = Field(default_factory=now)


class Family(SQLModel, table=True):
    """A design in several lengths and materials, less the combinations left out."""

    design_id: int = Field(foreign_key="document.id", primary_key=True)
    lengths_mm: list[float] = Field(default_factory=list, sa_type=JSON)
    materials: list[str] = Field(default_factory=list, sa_type=JSON)
    excluded: list[str] = Field(default_factory=list, sa_type=JSON)


class ShopTub(Typed, table=True):
    """A tub of one part of a product: its lot, what came and what is left [g], dates, when it was stirred;
    scrap has a colour and heats.
    """

    __tablename__ = "tub"

    id: int | None = Field(default=None, primary_key=True)
    product_id: int = Field(foreign_key="document.id", index=True)
    part: str
    lot: str
    received_g: float
    left_g: float
    price_minor: int | None = None
    opened_on: date | None = None
    expires_on: date | None = None
    stirred_at: datetime | None = None
    colour: str = ""
    heats: int = 0
    note: str = ""
    at: datetime = Field(default_factory=now)
    gone_at: datetime | None = None


class Batch(Typed, table=True):
    """A mix: what it is for, what was planned, and the grams actually weighed with the tub each came from."""

    __table_args__ = (Index("batch_by_product", "product_id", "state", "id"),)
    id: int | None = Field(default=None, primary_key=True)
    product_id: int = Field(foreign_key="document.id", index=True)
    purpose: str
    mould_id: int | None = Field(default=None, foreign_key="document.id", index=True)
    made_id: int | None = Field(default=None, foreign_key="mould_made.id")
    pour_id: int | None = Field(default=None, foreign_key="pour.id", index=True)
    plan: dict[str, Any] = Field(default_factory=dict, sa_type=JSON)
    weighed: list[Any] = Field(default_factory=list, sa_type=JSON)
    at_c: float = 20.0
    state: str = Field(default="weighing", index=True)
    at: datetime = Field(default_factory=now)
    mixed_at: datetime | None = None
    note: str = ""


class Clock(SQLModel, table=True):
    """A clock that runs: pot life, gel, demould, cure; where it leads; stopped once someone saw to it."""

    __table_args__ = (Index("clock_running", "ends_at", sqlite_where=text("stopped_at IS NULL")),)
    id: int | None = Field(default=None, primary_key=True)
    name: str
    kind: str
    started_at: datetime = Field(default_factory=now)
    ends_at: datetime
    link: str = ""
    batch_id: int | None = Field(default=None, foreign_key="batch.id", index=True)
    stopped_at: datetime | None = None


class MouldMade(Typed, table=True):
    """A mould that was really made: the version of its design, its cavities with their state, what it is
    of.
    """

    __tablename__ = "mould_made"
    id: int | None = Field(default=None, primary_key=True)
    mould_id: int = Field(foreign_key="document.id", index=True)
    revision: int
    version: int
    material: str = ""
    lot: str = ""
    release: str = ""
    cavities: list[Any] = Field(default_factory=list, sa_type=JSON)
    made_at: datetime = Field(default_factory=now)
    retired_at: datetime | None = None
    note: str = ""


class Pour(Typed, table=True):
    """A guided pour, which is a shot of a mould: the step it is at, what is ticked, and what came out of
    each cavity.
    """

    __table_args__ = (Index("pour_open", "id", sqlite_where=text("finished_at IS NULL")),)
    id: int | None = Field(default=None, primary_key=True)
    made_id: int = Field(foreign_key="mould_made.id", index=True)
    product_id: int = Field(foreign_key="document.id")
    shot: int
    purge: bool = False
    step: str = "prepare"
    ticks: list[Any] = Field(default_factory=list, sa_type=JSON)
    plan: dict[str, Any] = Field(default_factory=dict, sa_type=JSON)
    castings: list[Any] = Field(default_factory=list, sa_type=JSON)
    at_c: float = 20.0
    order_id: int | None = Field(default=None, foreign_key="shop_order.id")
    at: datetime = Field(default_factory=now)
    poured_at: datetime | None = None
    finished_at: datetime | None = None
    failed: bool = False
    note: str = ""


class Setting(SQLModel, table=True):
    """One of the shop's own settings."""

    key: str = Field(primary_key=True)
    value: dict[str, Any] = Field(sa_column=Column(JSON, nullable=False))

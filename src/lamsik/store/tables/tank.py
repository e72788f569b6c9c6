"""What was timed and towed."""

from datetime import datetime

from sqlmodel import Field

from lamsik.store.tables.shared import Typed, now


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

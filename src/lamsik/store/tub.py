"""Runs in the tub and on the line: timed rises and sinks, towed runs; taken back, never deleted."""

from collections.abc import Sequence
from dataclasses import dataclass, fields
from typing import Any

from sqlmodel import Session

from lamsik.core.tank.line import Line
from lamsik.core.tank.running import Run, Tow
from lamsik.store import observed
from lamsik.store.tables import Observation

WAYS, TOW = ("rise", "sink"), "tow"


@dataclass(frozen=True)
class TimedRun:
    """A rise or sink timed in the tub: distance [m], time [s], and the net lift [g] if it was weighed in
    water.
    """

    id: int
    way: str
    seconds: float
    distance_m: float
    net_g: float | None = None


@dataclass(frozen=True)
class TowRun:
    """A run on the line: line out [m], speed [m/s], line [mm], rod tip height [m], lead on the bait [g],
    and what was seen: depth [m], pitch [°].
    """

    id: int
    depth_m: float
    line_out_m: float
    speed_m_s: float
    line_mm: float
    rod_m: float
    lead_g: float = 0.0
    pitch_deg: float | None = None
    note: str = ""
    revision: int = 1


def keep_timed(session: Session, design_id: int, way: str, seconds: float, **more: Any) -> Observation:
    """Keep a timed rise or sink of a design; `more` are its conditions, and texts as typed."""
    return _keep(session, design_id, way, seconds, more)


def keep_towed(session: Session, design_id: int, depth_m: float, **more: Any) -> Observation:
    """Keep how deep a design ran; `more` are its conditions, and texts as typed."""
    return _keep(session, design_id, TOW, depth_m, more)


def _keep(session: Session, design_id: int, what: str, value: float, more: dict[str, Any]) -> Observation:
    apart = {name: more.pop(name) for name in ("typed", "at") if name in more}
    return observed.keep(session, observed.DOCUMENT, design_id, what, value, conditions=more, **apart)


def timed(session: Session, design_id: int) -> tuple[TimedRun, ...]:
    """A design's timed rises and sinks, the oldest first."""
    rows = observed.of(session, observed.DOCUMENT, design_id, *WAYS)
    return tuple(TimedRun(row.id or 0, row.what, row.value, **_known(TimedRun, row)) for row in rows)


def towed(session: Session, design_id: int) -> Sequence[TowRun]:
    """A design's runs on the line, the oldest first."""
    rows = observed.of(session, observed.DOCUMENT, design_id, TOW)
    return [TowRun(row.id or 0, row.value, **_known(TowRun, row)) for row in rows]


def _known(kind: type, row: Observation) -> dict[str, Any]:
    names = {field.name for field in fields(kind)}
    return {name: value for name, value in row.conditions.items() if name in names}


def run_of(row: TowRun) -> Run:
    """A logged run as the core reckons with it."""
    return Run(
        Tow(row.speed_m_s, Line(row.line_mm), row.rod_m, row.line_out_m, row.lead_g),
        row.depth_m,
        row.pitch_deg,
    )

"""Runs in the tub and on the line: timed rises and sinks, towed runs; taken back, never deleted."""

from collections.abc import Sequence

from sqlmodel import Session, col, select

from lamsik.core.tank.line import Line
from lamsik.core.tank.running import Run, Tow
from lamsik.store.tables import TimedRun, TowRun


def timed(session: Session, design_id: int) -> tuple[TimedRun, ...]:
    """A design's timed rises and sinks, the oldest first."""
    query = select(TimedRun).where(TimedRun.design_id == design_id, col(TimedRun.undone_at).is_(None))
    return tuple(session.exec(query.order_by(col(TimedRun.id))).all())


def towed(session: Session, design_id: int) -> Sequence[TowRun]:
    """A design's runs on the line, the oldest first."""
    query = select(TowRun).where(TowRun.design_id == design_id, col(TowRun.undone_at).is_(None))
    return session.exec(query.order_by(col(TowRun.id))).all()


def run_of(row: TowRun) -> Run:
    """A logged run as the core reckons with it."""
    return Run(
        Tow(row.speed_m_s, Line(row.line_mm), row.rod_m, row.line_out_m, row.lead_g),
        row.depth_m,
        row.pitch_deg,
    )

"""What was read and timed: one door to keep an observation, and to take it back; nothing is deleted."""

from collections.abc import Collection, Sequence
from typing import Any

from sqlmodel import Session, col, select

from lamsik.core.weighing.instrument import Scale
from lamsik.store.events import WHO
from lamsik.store.tables import Instrument, Observation, now

PIECE, DOCUMENT, THING = "piece", "document", "thing"
"""What is observed."""


def keep(session: Session, of: str, of_id: int, what: str, value: float, **more: Any) -> Observation:
    """Keep a figure that was seen, with who stands at the bench, and how far its scale may now be off.

    Args:
        session: the shop's.
        of, of_id: what was looked at.
        what: which figure of it.
        value: in its stored unit.
        more: spread, text as typed, instrument, conditions.
    """
    instrument = session.get(Instrument, more.get("instrument_id") or 0)
    if instrument is not None:
        more = {"spread": scale_of(instrument).sd_g, **more}
    row = Observation(of=of, of_id=of_id, what=what, value=value, person_id=session.info.get(WHO), **more)
    session.add(row)
    session.flush()
    return row


def scale_of(instrument: Instrument) -> Scale:
    """An instrument as the core knows it."""
    return Scale(
        instrument.name,
        instrument.step_g,
        instrument.span_g,
        instrument.spread_g,
        instrument.checked_on,
        instrument.checked_g,
    )


def of(session: Session, of: str, of_id: int, *whats: str) -> Sequence[Observation]:
    """What was seen of something and not taken back, the oldest first."""
    query = select(Observation).where(
        Observation.of == of,
        Observation.of_id == of_id,
        col(Observation.what).in_(whats),
        col(Observation.undone_at).is_(None),
    )
    return session.exec(query.order_by(col(Observation.id))).all()


def of_many(session: Session, of: str, ids: Collection[int]) -> dict[int, list[Observation]]:
    """All that was seen of some things and not taken back, by thing, the oldest first."""
    query = select(Observation).where(
        Observation.of == of, col(Observation.of_id).in_(ids), col(Observation.undone_at).is_(None)
    )
    by_thing: dict[int, list[Observation]] = {}
    for row in session.exec(query.order_by(col(Observation.id))).all():
        by_thing.setdefault(row.of_id, []).append(row)
    return by_thing


def take_back(session: Session, row: Observation, back: bool = True) -> None:
    """It does not count any more, or counts again."""
    row.undone_at = now() if back else None
    session.add(row)
    session.flush()

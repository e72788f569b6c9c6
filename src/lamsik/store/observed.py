"""What was read and timed: one door to keep an observation, and to take it back; nothing is deleted."""

from collections.abc import Sequence
from typing import Any

from sqlmodel import Session, col, select

from lamsik.store.events import WHO
from lamsik.store.tables import Observation, now

PIECE, DOCUMENT = "piece", "document"
"""What is observed."""


def keep(session: Session, of: str, of_id: int, what: str, value: float, **more: Any) -> Observation:
    """Keep a figure that was seen, with who stands at the bench.

    Args:
        session: the shop's.
        of, of_id: what was looked at.
        what: which figure of it.
        value: in its stored unit.
        more: spread, text as typed, instrument, conditions.
    """
    row = Observation(of=of, of_id=of_id, what=what, value=value, person_id=session.info.get(WHO), **more)
    session.add(row)
    session.flush()
    return row


def of(session: Session, of: str, of_id: int, *whats: str) -> Sequence[Observation]:
    """What was seen of something and not taken back, the oldest first."""
    query = select(Observation).where(
        Observation.of == of,
        Observation.of_id == of_id,
        col(Observation.what).in_(whats),
        col(Observation.undone_at).is_(None),
    )
    return session.exec(query.order_by(col(Observation.id))).all()


def take_back(session: Session, row: Observation, back: bool = True) -> None:
    """It does not count any more, or counts again."""
    row.undone_at = now() if back else None
    session.add(row)
    session.flush()

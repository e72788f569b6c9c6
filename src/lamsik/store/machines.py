"""Machines and tools: how each stands, since when, and which pieces wait for it; when scales were checked."""

from collections.abc import Sequence

from sqlmodel import Session, col, func, select

from lamsik.core.errors import Refused, require
from lamsik.store import events, pieces, routes
from lamsik.store.tables import Instrument, LogEntry, Machine, Piece

MOST_PIECES, MOST_LINES = 400, 12


def listed(session: Session) -> Sequence[Machine]:
    """All of them, by name."""
    return session.exec(select(Machine).order_by(func.lower(Machine.name))).all()


def named(session: Session, row: Machine) -> None:
    """A machine as it is kept. Raises `Refused` for one without a name, or named like another."""
    require(bool(row.name), "name", "", "what it is called")
    with session.no_autoflush:
        same = select(Machine).where(func.lower(Machine.name) == row.name.lower(), Machine.id != row.id)
        if session.exec(same).first() is not None:
            raise Refused("name", row.name, "a name that no other machine has")
    session.add(row)
    session.flush()


def waiting(session: Session, row: Machine) -> list[Piece]:
    """The pieces on the bench whose next step needs a machine."""
    going = session.exec(select(Piece).where(*pieces.GOING).order_by(col(Piece.id)).limit(MOST_PIECES)).all()
    ways, ended = routes.of_many(session, going), routes.ended(session, going)
    waits = []
    for piece in going:
        left = [step for step in ways[piece.id or 0] if step.key not in ended[piece.id or 0]]
        if left and left[0].kind in row.steps:
            waits.append(piece)
    return waits


def log(session: Session, row: Machine) -> Sequence[LogEntry]:
    """When a machine went down, away or up, the newest first."""
    query = events.listed("item").where(LogEntry.part == "machine", LogEntry.row_id == row.id)
    told = query.where(func.json_extract(LogEntry.after, "$.state").is_not(None))
    return session.exec(told.limit(MOST_LINES)).all()


def checks(session: Session) -> dict[int, Sequence[LogEntry]]:
    """When each scale was checked and with what, the newest first."""
    query = events.listed("item").where(LogEntry.part == "scale")
    told = query.where(func.json_extract(LogEntry.after, "$.checked_on").is_not(None))
    keys = session.exec(select(Instrument.id)).all()
    return {
        key or 0: session.exec(told.where(LogEntry.row_id == key).limit(MOST_LINES)).all() for key in keys
    }

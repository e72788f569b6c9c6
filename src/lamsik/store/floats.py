"""Floats of the shop: their documents, shot tables, and what finished ones taught their family."""

from contextlib import suppress

from sqlmodel import Session, col, select

from lamsik.core.errors import Refused
from lamsik.core.floats.shotting import NOMINAL_TABLE, ShotTable
from lamsik.documents.shots.document import table_of
from lamsik.store import documents, references, weighed
from lamsik.store.tables import Drill, WeighedThing
from lamsik.store.weighed import Weighed


def tables(session: Session, former: bool = False) -> dict[str, ShotTable]:
    """The shop's shot tables by name, but for what cannot be read; the nominal sizes where it has none. By
    their former names too, if asked: a float goes on with a table that was renamed.
    """
    rows = documents.listed(session, "shots")
    contents = documents.contents(session, rows)
    by_name = {}
    for row in rows:
        with suppress(Refused, KeyError, TypeError):  # it must not take every float along
            by_name[row.name] = table_of(contents[row.id or 0])
    if former:
        once = references.former_names(session, rows).items()
        by_name |= {name: by_name[called] for name, called in once if called in by_name}
    return by_name or {NOMINAL_TABLE.name: NOMINAL_TABLE}


def drills_mm(session: Session) -> tuple[float, ...]:
    """The drills at hand [mm]."""
    return tuple(session.exec(select(Drill.diameter_mm).order_by(col(Drill.diameter_mm))).all())


MOST_TAUGHT = 200
"""The newest finished floats that teach: the shop's hand is as it is now."""


def finished(session: Session) -> list[Weighed]:
    """The newest finished floats that were weighed by difference, in the order they were weighed."""
    query = weighed.listed().where(col(WeighedThing.float_id).is_not(None), weighed.read(weighed.MARK))
    rows = weighed.of_many(session, session.exec(query.limit(MOST_TAUGHT)).all())
    return [one for one in reversed(rows) if one.sinker_g]

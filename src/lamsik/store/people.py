"""The people of a shop: one to five names, no passwords."""

from collections.abc import Sequence

from sqlmodel import Session, col, select

from lamsik.core.errors import require
from lamsik.store.search import fold
from lamsik.store.tables import Person, now

MOST = 5
"""Names a shop has at most."""
LONGEST = 40


def here(session: Session) -> Sequence[Person]:
    """Who works in the shop, as they came."""
    return session.exec(select(Person).where(col(Person.gone_at).is_(None)).order_by(col(Person.id))).all()


def names(session: Session) -> dict[int, str]:
    """The name of everyone who works or worked here, by id."""
    return {row.id or 0: row.name for row in session.exec(select(Person)).all()}


def named(session: Session, name: str, row: Person | None = None) -> Person:
    """Someone new, or someone by another name.

    Raises:
        Refused: no name, one that is taken, or one more than a shop has.
    """
    name = " ".join(name.split())[:LONGEST]
    others = [one for one in here(session) if row is None or one.id != row.id]
    require(bool(name), "name", name, "type a name: it stands beside what was done")
    taken = any(fold(one.name) == fold(name) for one in others)
    require(not taken, "name", name, "that name is taken: add a letter, so that the two can be told apart")
    require(len(others) < MOST, "people", len(others), f"a shop has at most {MOST} names")
    person = row or Person(name=name)
    person.name = name
    session.add(person)
    session.flush()
    return person


def leaves(session: Session, row: Person) -> None:
    """Someone does not work here any more; what they did keeps their name."""
    row.gone_at = now()
    session.add(row)
    session.flush()

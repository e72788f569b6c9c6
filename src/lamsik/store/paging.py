"""One page of a list: what a page costs does not grow with the shop."""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Any, Generic, TypeAlias, TypeVar

from sqlmodel import Session
from sqlmodel.sql.expression import Select, SelectOfScalar

Row = TypeVar("Row")

Query: TypeAlias = "SelectOfScalar[Row] | Select[Any, Any]"
"""A question that finds rows."""

MOST = 48
"""Rows or cards on one page."""


@dataclass(frozen=True)
class Page(Generic[Row]):
    """Rows of a list, which page of it they are (from 1), and whether more follow."""

    rows: Sequence[Row]
    number: int
    more: bool

    @property
    def alone(self) -> bool:
        """Whether this is all there is."""
        return self.number == 1 and not self.more


def page(session: Session, query: "Query[Row]", number: int = 1, most: int = MOST) -> Page[Row]:
    """The page of that number of what a question finds."""
    rows: Sequence[Any] = session.exec(query.offset((number - 1) * most).limit(most + 1)).all()
    return Page(rows[:most], number, len(rows) > most)

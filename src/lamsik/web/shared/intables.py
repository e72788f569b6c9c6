"""A drawing in words: what is seen on it, in tables, for who does not see it or wants it read aloud."""

from dataclasses import dataclass

from lamsik.web.shared.facts import Fact


@dataclass(frozen=True)
class ToldTable:
    """One kind of thing on a drawing: what each column is, and a row for each thing, its name first."""

    key: str
    heading: str
    columns: tuple[str, ...]
    rows: tuple[tuple[str, ...], ...]


@dataclass(frozen=True)
class InTables:
    """The verdict, what is on the drawing kind by kind, the figures beside it."""

    sentence: str
    tables: tuple[ToldTable, ...]
    facts: tuple[Fact, ...]

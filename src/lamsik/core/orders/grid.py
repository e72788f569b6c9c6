"""Many lines at once: a table of bodies down and schemes across, a number in each cell, one for each size."""

import csv
from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from lamsik.core.errors import require, rule
from lamsik.core.findings import Finding, finding
from lamsik.core.orders.lines import MOST_PIECES

Cell = tuple[str, str]
"""A body and a scheme, by their codes."""
MOST_CELLS, MOST_TEXT = 6000, 200_000
LEFT_OUT = "x"
"""What is typed into a cell of two that are not made together."""


@dataclass(frozen=True)
class Table:
    """A table that was pasted: numbers by cell, cells that are left out, and what of it cannot be read."""

    cells: Mapping[Cell, int]
    left_out: frozenset[Cell]
    problems: tuple[Finding, ...]


def number(text: str) -> int | None:
    """The number in a cell; 0 in an empty one, None where it is no number of pieces."""
    text = text.strip()
    if text in ("", "-", "–"):
        return 0
    if not text.isascii() or not text.isdigit() or len(text) > len(str(MOST_PIECES)):
        return None
    return int(text) if int(text) <= MOST_PIECES else None


def read(text: str, bodies: Mapping[str, str], schemes: Mapping[str, str]) -> Table:
    """A table as a spreadsheet gives it: schemes in its first row, a body at the head of each other.

    Args:
        text: its rows; columns apart by tabs, semicolons or commas.
        bodies, schemes: by every name and code they may be called by, in small letters: their code.

    Raises:
        Refused: too long a text, or one with no table in it.
    """
    require(len(text) <= MOST_TEXT, "table", len(text), rule("at-most-characters", most=MOST_TEXT))
    rows = _rows(text)
    require(len(rows) > 1 and len(rows[0]) > 1, "table", text[:40], rule("table-with-heads"))
    cells: dict[Cell, int] = {}
    left_out: set[Cell] = set()
    problems: list[Finding] = []
    heads = [schemes.get(one.strip().casefold(), "") for one in rows[0][1:]]
    for said, code in zip(rows[0][1:], heads, strict=True):
        if said.strip() and not code:
            problems.append(finding("no-scheme-called", name=said.strip()[:60]))
    for at, row in enumerate(rows[1:], start=2):
        body = bodies.get(row[0].strip().casefold(), "")
        if not body:
            problems.append(finding("no-body-called", name=row[0].strip()[:60], row=at))
            continue
        for code, typed in zip(heads, row[1:], strict=False):
            many = number(typed)
            if code and typed.strip().casefold() == LEFT_OUT:
                left_out.add((body, code))
            elif many is None:
                problems.append(finding("no-number-there", name=typed.strip()[:40], row=at))
            elif code and many:
                cells[body, code] = cells.get((body, code), 0) + many
    return Table(cells, frozenset(left_out), tuple(problems))


def _rows(text: str) -> Sequence[Sequence[str]]:
    """Rows with something in them, split by the sign that the first one has most of."""
    lines = [line for line in text.lstrip("\ufeff").splitlines() if line.strip(" \t;,")]
    if not lines:
        return []
    apart = max("\t;,", key=lines[0].count)
    return list(csv.reader(lines, delimiter=apart))

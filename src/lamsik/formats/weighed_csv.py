"""The shop's weighed things as CSV, in and out: a unit in every column's name; a column without one is
asked for.
"""

import csv
import io
from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from lamsik.core import units
from lamsik.core.errors import Refused, require
from lamsik.core.quantities import file_size
from lamsik.formats.sniff import kind_of

MOST_BYTES, MOST_ROWS = 2_000_000, 5_000
COLUMNS: dict[str, str] = {
    "name": "",
    "kind": "",
    "air": "mass",
    "water": "mass",
    "sinker": "mass",
    "both": "mass",
    "temperature": "temperature",
    "salinity": "salinity",
    "measured": "density",
    "line": "length",
    "line under": "length",
    "stage": "",
    "note": "",
    "marks": "",
    "scale": "",
    "float": "",
    "weighed at": "",
    "id": "",
}
"""What a column may hold, and its quantity; texts have none. `marks` are `ring 23.00 g; tip 21.00 g`,
`weighed at` is ISO 8601 in UTC, `float` a design's code.
"""

FORMULA = ("=", "+", "-", "@")
"""What a sheet would take for the beginning of a formula; tabs and returns, which it would skip, are
written as blanks.
"""

WRITTEN = {"mass": "g", "temperature": "°C", "salinity": "PSU", "density": "g/cm³", "length": "mm"}
NO_UNIT_NEEDED = ("salinity",)


@dataclass(frozen=True)
class CsvHead:
    """A column: what it holds, its quantity, its unit; an empty unit has to be asked for."""

    name: str
    quantity: str
    unit: str


def write(rows: Sequence[Mapping[str, object]]) -> str:
    """The rows as CSV text, numbers as they are, with the unit in each column's name."""
    out = io.StringIO()
    writer = csv.writer(out, lineterminator="\n")
    writer.writerow(
        [f"{name} [{WRITTEN[quantity]}]" if quantity else name for name, quantity in COLUMNS.items()]
    )
    for row in rows:
        writer.writerow(["" if row.get(name) is None else _plain(row[name]) for name in COLUMNS])
    return out.getvalue()


def _plain(value: object) -> str:
    text = (
        f"{value:.6g}"
        if isinstance(value, float)
        else " ".join(str(value).splitlines()).replace("\t", " ").strip()
    )
    return (
        f"'{text}"
        if isinstance(value, str)
        and (text.startswith(FORMULA) or (text[:1] == "'" and text[1:].startswith(FORMULA)))
        else text
    )


def marks_text(marks: Sequence[Sequence[object]]) -> str:
    """Marks as one cell."""
    return "; ".join(f"{name} {float(str(grams)):.6g} g" for name, grams in marks)


def marks_of(text: str, line: str) -> list[tuple[str, float]]:
    """Marks out of one cell. Raises `Refused` naming the line."""
    marks = []
    for cell in (part.strip() for part in text.split(";") if part.strip()):
        name, _, grams = cell.rstrip().removesuffix("g").strip().rpartition(" ")
        require(
            bool(name), f"{line}, marks", cell[:30], "marks are written such as `ring 23.00 g; tip 21.00 g`"
        )
        marks.append((name.strip()[:40], units.parse(f"{grams} g", "mass", f"{line}, marks").value))
    return marks


def read(data: bytes, asked: Mapping[str, str]) -> tuple[list[dict[str, object]], list[CsvHead]]:
    """Rows by column, and the columns whose unit has to be asked for (then there are no rows).

    Args:
        data: UTF-8 CSV, by comma, semicolon or tab.
        asked: units answered for, by column.

    Raises:
        Refused: no text, no name column, an unknown column, or a cell that cannot be read, with its line.
    """
    require(len(data) <= MOST_BYTES, "csv", file_size(len(data)), f"at most {file_size(MOST_BYTES)}")
    try:
        text = data.decode("utf-8-sig")
    except UnicodeDecodeError as error:
        raise Refused("csv", kind_of(data), "save it as UTF-8 text") from error
    require(
        "\0" not in text and bool(text.strip()),
        "csv",
        text[:20],
        "text with a first line of column names is needed",
    )
    first = text.splitlines()[0]
    mark = max(",;\t", key=first.count)
    table = list(csv.reader(io.StringIO(text), delimiter=mark))
    require(len(table) <= MOST_ROWS + 1, "csv", f"{len(table)} rows", f"at most {MOST_ROWS} rows")
    heads = [_head(cell, asked) for cell in table[0]]
    require(
        any(head.name == "name" for head in heads),
        "csv",
        first[:60],
        f"a column “name” is needed; others are {', '.join(COLUMNS)}",
    )
    missing = [head for head in heads if head.quantity and not head.unit]
    if missing:
        return [], missing
    rows = [
        _row(cells, heads, number)
        for number, cells in enumerate(table[1:], start=2)
        if any(cell.strip() for cell in cells)
    ]
    return rows, []


def _head(cell: str, asked: Mapping[str, str]) -> CsvHead:
    """`air [g]`, `air g`, `air (g)` or `air`."""
    plain = " ".join(cell.replace("[", " ").replace("]", " ").replace("(", " ").replace(")", " ").split())
    name = max(
        (known for known in COLUMNS if plain.lower() == known or plain.lower().startswith(f"{known} ")),
        key=len,
        default="",
    )
    if not name:
        raise Refused("csv", cell[:40], f"unknown column; known are {', '.join(COLUMNS)}")
    quantity, unit = COLUMNS[name], plain[len(name) :].strip()
    if quantity and not unit:
        unit = asked.get(name, "PSU" if name in NO_UNIT_NEEDED else "")
    return CsvHead(name, quantity, unit)


def _row(cells: Sequence[str], heads: Sequence[CsvHead], number: int) -> dict[str, object]:
    values: dict[str, object] = {}
    for head, cell in zip(heads, cells, strict=False):
        text = cell.strip()
        if not text:
            continue
        if not head.quantity:
            values[head.name] = (
                text[1:] if text[:1] == "'" and text[1:].lstrip("'").startswith(FORMULA) else text
            )[:400]
            continue
        try:
            values[head.name] = units.parse(
                f"{text} {head.unit}", head.quantity, f"line {number}, {head.name}"
            ).value
        except Refused as refused:
            raise Refused(f"line {number}, {head.name}", text[:20], refused.allowed) from refused
    if not values.get("name"):
        raise Refused(f"line {number}", ", ".join(cells)[:40], "a name is needed")
    wet = any(values.get(name) is not None for name in ("water", "both", "marks"))
    require(
        not wet or "temperature" in values or "measured" in values,
        f"line {number}, temperature",
        "",
        "say how warm its water was, or its measured density",
    )
    if values.get("marks"):
        values["marks"] = marks_of(str(values["marks"]), f"line {number}")
    return values

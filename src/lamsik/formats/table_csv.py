"""Plain tables as CSV, out and in: names in the first row, a unit in the name of every measure."""

import csv
import io
from collections.abc import Mapping, Sequence

from lamsik.core.errors import Refused, require
from lamsik.core.quantities import file_size

MOST_BYTES, MOST_ROWS = 4_000_000, 20_000
FORMULA = ("=", "+", "-", "@")
"""What a sheet would take for the beginning of a formula."""


def write(names: Sequence[str], rows: Sequence[Mapping[str, object]]) -> str:
    """The rows as CSV text; what is not there is empty."""
    out = io.StringIO()
    writer = csv.writer(out, lineterminator="\n")
    writer.writerow(names)
    for row in rows:
        writer.writerow(["" if row.get(name) is None else plain(row[name]) for name in names])
    return out.getvalue()


def plain(value: object) -> object:
    """A value as a sheet may take it: no text begins a formula, tabs and returns are blanks."""
    if not isinstance(value, str):
        return value
    text = value.replace("\t", " ").replace("\r", " ")
    return f"'{text}" if text.startswith(FORMULA) else text


def _read(text: str) -> str:
    """A cell as it was before `plain`."""
    return text[1:] if text.startswith(tuple(f"'{one}" for one in FORMULA)) else text


def read(data: bytes, needed: Sequence[str]) -> list[dict[str, str]]:
    """The rows of a CSV by the names in its first row, each with its line as `line`.

    Raises:
        Refused: too large, no text, a name twice, a name that is needed and not there, too many rows.
    """
    require(len(data) <= MOST_BYTES, "file", file_size(len(data)), f"at most {file_size(MOST_BYTES)}")
    try:
        text = data.decode("utf-8-sig")
    except UnicodeDecodeError as error:
        raise Refused("file", "", "a CSV in UTF-8: save it so") from error
    delimiter = ";" if text.partition("\n")[0].count(";") > text.partition("\n")[0].count(",") else ","
    lines = [
        row for row in csv.reader(io.StringIO(text), delimiter=delimiter) if any(cell.strip() for cell in row)
    ]
    require(len(lines) > 1, "file", "", "a row of names, and a row for each item under it")
    require(len(lines) <= MOST_ROWS + 1, "file", len(lines), f"at most {MOST_ROWS} rows at once")
    names = [name.strip() for name in lines[0]]
    twice = {name for name in names if name and names.count(name) > 1}
    require(not twice, "file", ", ".join(sorted(twice)), "each column once")
    for name in needed:
        require(name in names, "file", ", ".join(names), f"a column called {name}")
    return [
        {"line": str(n), **dict(zip(names, (_read(cell.strip()) for cell in row), strict=False))}
        for n, row in enumerate(lines[1:], start=2)
    ]

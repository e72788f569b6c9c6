"""What is typed into a document, as text by path in the shop's unit."""

from collections.abc import Iterator
from typing import Any

from lamsik.documents.typed import quantity_of
from lamsik.words.quantities import plainly, said

COUNTS = (".count", ".passes")
"""What is counted: shown without decimals."""

AS_TYPED = (".figure",)
"""What a tin says: shown with no more digits than it has."""


def fields(document: Any, unit: str) -> dict[str, str]:
    """Every typed number of the document as text in the shop's unit, by path."""
    return {path: _rounded(path, value, unit) for path, value in leaves(document)}


def as_typed(document: Any, unit: str) -> dict[str, str]:
    """The same with no more and no fewer digits than were typed: what is read off a tin or a gauge, 45 min as
    0.75 h and not 0.8.
    """
    return {path: _exact(path, value, unit) for path, value in leaves(document)}


def leaves(document: Any, path: str = "") -> Iterator[tuple[str, Any]]:
    """Numbers and texts of a document by path; rows of a list are named by their key."""
    if isinstance(document, dict):
        for name, value in document.items():
            if name != "typed":
                yield from leaves(value, f"{path}.{name}" if path else name)
    elif isinstance(document, list):
        for row in document:
            if isinstance(row, dict) and "key" in row:
                yield from leaves(row, f"{path}.{row['key']}")
    elif isinstance(document, int | float | str) and not isinstance(document, bool):
        yield path, document


def _rounded(path: str, value: float | str, unit: str) -> str:
    if isinstance(value, str):
        return value
    if path.endswith(AS_TYPED):
        return f"{value:g}"
    return said(value, quantity_of(path), unit, 0 if path.endswith(COUNTS) else None)


def _exact(path: str, value: float | str, unit: str) -> str:
    quantity = quantity_of(path)
    inches = quantity == "length" and unit == "in"
    if isinstance(value, str) or quantity == "number" or inches:
        return _rounded(path, value, unit)
    return plainly(round(value, 3), quantity)

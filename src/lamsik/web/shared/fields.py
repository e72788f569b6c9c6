"""What is typed into a document, as text by path in the shop's units."""

from collections.abc import Iterator
from typing import Any

from lamsik.core.quantities import plainly, said, stands
from lamsik.documents.typed import quantity_of

COUNTS = (".count", ".passes")
"""What is counted: shown without decimals."""

AS_TYPED = (".figure", ".lightness", ".red", ".yellow", ".drops", "price")
"""What a tin or a reader says: shown with no more digits than it has."""


def fields(document: Any) -> dict[str, str]:
    """Every number of the document as it was typed, else as text in the shop's units, by path."""
    return {path: _typed(document, path, value) or _rounded(path, value) for path, value in leaves(document)}


def as_typed(document: Any) -> dict[str, str]:
    """The same with no more and no fewer digits than were typed: what is read off a tin or a gauge, 45 min as
    0.75 h and not 0.8.
    """
    return {path: _typed(document, path, value) or _exact(path, value) for path, value in leaves(document)}


def _typed(document: Any, path: str, value: float | str) -> str:
    """What was typed there, as long as that is what it holds; without a unit it would be another's."""
    text = document.get("typed", {}).get(path, "") if isinstance(value, int | float) else ""
    return text if text and stands(text, float(value), quantity_of(path)) else ""


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


def _rounded(path: str, value: float | str) -> str:
    if isinstance(value, str):
        return value
    if path.endswith(AS_TYPED):
        return plainly(value, "number")
    return said(value, quantity_of(path), 0 if path.endswith(COUNTS) else None)


def _exact(path: str, value: float | str) -> str:
    quantity = quantity_of(path)
    if isinstance(value, str) or quantity == "number":
        return _rounded(path, value)
    return plainly(round(value, 3), quantity)

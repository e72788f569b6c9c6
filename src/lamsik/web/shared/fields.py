"""What is typed into a document, as text by path in the shop's unit."""

from typing import Any

from lamsik.documents.typed import quantity_of
from lamsik.words.quantities import said

COUNTS = (".count", ".passes")
"""What is counted: shown without decimals."""

AS_TYPED = (".figure",)
"""What a tin says: shown with no more digits than it has."""


def fields(document: Any, unit: str, path: str = "") -> dict[str, str]:
    """Every typed number of the document as text in the shop's unit, by path."""
    names: dict[str, str] = {}
    if isinstance(document, dict):
        for name, value in document.items():
            if name != "typed":
                names |= fields(value, unit, f"{path}.{name}" if path else name)
    elif isinstance(document, list):
        for row in document:
            if isinstance(row, dict) and "key" in row:
                names |= fields(row, unit, f"{path}.{row['key']}")
    elif isinstance(document, int | float) and not isinstance(document, bool):
        kind = quantity_of(path)
        digits = 0 if path.endswith(COUNTS) else None
        plain = path.endswith(AS_TYPED)
        names[path] = f"{document:g}" if plain else said(document, kind, unit, digits)
    elif isinstance(document, str):
        names[path] = document
    return names

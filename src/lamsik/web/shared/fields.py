"""What is typed into a document, as text by path in the shop's unit."""

from typing import Any

from lamsik.core.units import show
from lamsik.documents.typed import quantity_of

DIGITS = {
    "length": 1,
    "mass": 2,
    "volume": 2,
    "density": 3,
    "temperature": 1,
    "angle": 1,
    "thickness": 0,
    "time": 1,
    "speed": 1,
    "salinity": 1,
    "percent": 1,
    "distance": 1,
    "pace": 1,
    "seconds": 1,
    "number": 2,
}
"""Digits shown after the point, by quantity."""


def fields(document: Any, unit: str, path: str = "") -> dict[str, str]:
    """Every typed number of the document as text in the shop's unit, by path."""
    found: dict[str, str] = {}
    if isinstance(document, dict):
        for name, value in document.items():
            if name != "typed":
                found |= fields(value, unit, f"{path}.{name}" if path else name)
    elif isinstance(document, list):
        for row in document:
            if isinstance(row, dict) and "key" in row:
                found |= fields(row, unit, f"{path}.{row['key']}")
    elif isinstance(document, int | float) and not isinstance(document, bool):
        kind = quantity_of(path)
        found[path] = show(
            document, kind, _digits(path, kind), unit if kind == "length" and unit == "in" else None
        )
    elif isinstance(document, str):
        found[path] = document
    return found


def _digits(path: str, kind: str) -> int:
    return 0 if path.endswith(".count") else DIGITS[kind]

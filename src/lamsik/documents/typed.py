"""A measure that an edit sets: typed as text, or a number a handle was dragged to; which quantity it is."""

from collections.abc import Mapping
from typing import Any

from lamsik.core.errors import finite_between
from lamsik.core.quantities import as_typed, read_measure

Edit = Mapping[str, Any]
"""One edit of a document: `do`, and what it is done with."""

FARTHEST = 1e6

QUANTITY_BY_ENDING = {
    "_g_cm3": "density",
    "_cm_s": "speed",
    "_m_s": "pace",
    "_percent": "percent",
    "_s": "seconds",
    "_min": "minutes",
    "_days": "days",
    "_m": "distance",
    "_deg": "angle",
    "_mm": "length",
    "_um": "thickness",
    "_psu": "salinity",
    "_c": "temperature",
    "_g": "mass",
    "_h": "time",
    "_bar": "pressure",
    "_ml": "volume",
}
"""Which quantity a field holds, by the unit at the end of its name; others are plain numbers."""


def word(edit: Mapping[str, Any], name: str, otherwise: str = "") -> str:
    """A text that an edit names something by; anything that is no text names nothing."""
    value = edit.get(name, otherwise)
    return value if isinstance(value, str) else ""


def amount(edit: Mapping[str, Any], kind: str, path: str) -> float:
    """The value in the stored unit of its kind; a bare text is read in the unit its field shows. Raises
    `Refused` for what is no measure.
    """
    if "value" in edit:
        return finite_between(path, edit["value"], -FARTHEST, FARTHEST)
    return read_measure(word(edit, "text"), kind, path)


def note_typed(document: dict[str, Any], edit: Mapping[str, Any], path: str) -> None:
    """What was typed stands as typed, in a kind that keeps it; what was dragged has no text of its own."""
    if "typed" not in document:
        return
    if "value" in edit or is_empty(edit):
        document["typed"].pop(path, None)
    else:
        document["typed"][path] = as_typed(word(edit, "text"), quantity_of(path))[:40]


def is_empty(edit: Mapping[str, Any]) -> bool:
    """Whether an edit clears its field."""
    return "value" not in edit and not word(edit, "text").strip()


def quantity_of(path: str) -> str:
    """The quantity of a field path: `body.length_mm` holds a length."""
    return next((kind for ending, kind in QUANTITY_BY_ENDING.items() if path.endswith(ending)), "number")

"""What the core says of figures given to it, and how far each may go before it refuses: as recorded.

A case is one function or kind of value with arguments that are good. Each of its numbers is tried a fifth
smaller and a quarter larger, and is then pushed until it is refused, both ways. `python -m tests.recorded`
records anew; the difference is for the commit to explain.
"""

import json
from collections.abc import Callable, Iterator, Mapping
from dataclasses import fields, is_dataclass
from datetime import date, datetime, timedelta
from inspect import unwrap
from pathlib import Path
from typing import Any

import numpy as np

from lamsik.core.errors import Refused
from lamsik.core.findings import Finding
from lamsik.core.shapes.polyhedra import measures
from lamsik.core.shapes.skins import Mesh
from lamsik.words import refusals
from lamsik.words.tell import tell
from tests.recorded.cases import CASES

CORE = Path(__file__).parent / "core.jsonl"
FAR = 1e9
BY_NAME = {"Base", "Body", "Budget", "Curve", "Design", "Float", "Hull", "Mould", "Outcome", "Vessel"}
"""What is given and not found: inside of a result named only."""
TIMES = (0.8, 1.25)


def flat(value: Any) -> Any:
    """A value as it is recorded: its fields and what it says of itself, numbers to six digits."""
    if isinstance(value, np.ndarray):
        return [*value.shape, flat(float(value.sum())), flat(float(np.abs(value).sum()))]
    if isinstance(value, bool | str | None):
        return value
    if isinstance(value, int | float | np.number):
        return float(f"{float(value):.6g}") if np.isfinite(value) else str(float(value))
    if isinstance(value, datetime | date | timedelta):
        return str(value)
    if isinstance(value, Finding):
        return tell(value)
    if isinstance(value, Mesh):
        return flat(measures(value))
    if is_dataclass(value):
        inner = [(name, one, type(one).__name__) for name, one in said_by(value)]
        return {name: kind if kind in BY_NAME else flat(one) for name, one, kind in inner}
    if isinstance(value, Mapping):
        return {str(key): flat(one) for key, one in value.items()}
    if isinstance(value, set | frozenset):
        return sorted(map(str, value))
    return (
        [flat(one) for one in value] if isinstance(value, list | tuple | Iterator) else type(value).__name__
    )


def said_by(value: Any) -> Iterator[tuple[str, Any]]:
    """Fields and properties of a value, by name; what is true `of` its kind stands in a table."""
    for field in fields(value):
        if not field.name.startswith("_"):
            yield field.name, getattr(value, field.name)
    for name in sorted(dir(type(value))):
        if name[0] != "_" and name != "of" and isinstance(getattr(type(value), name), property):
            yield name, getattr(value, name)


def outcome(make: Callable[..., Any], given: Mapping[str, Any]) -> Any:
    """What comes of it, or the refusal."""
    try:
        return flat(make(**given))
    except Refused as refused:
        return f"refused: {refusals.says(refused)}"


def is_taken(make: Callable[..., Any], given: Mapping[str, Any]) -> bool:
    try:
        make(**given)
    except Refused:
        return False
    return True


def edge(make: Callable[..., Any], given: Mapping[str, Any], name: str, far: float) -> str:
    """How far a number may go this way: the last that is taken, to six digits; open where all are."""
    whole = isinstance(given[name], int)

    def takes(number: float) -> bool:
        return is_taken(make, {**given, name: int(number) if whole else number})

    if takes(far):
        return "open"
    why = outcome(make, {**given, name: int(far) if whole else far})
    good, bad = float(given[name]), far
    for _ in range(90):
        middle = (good + bad) / 2
        if whole:
            middle = float(round(middle))
        good, bad = (middle, bad) if takes(middle) else (good, middle)
        if abs(bad - good) <= (1 if whole else 1e-9 * max(abs(good), 1e-3)):
            break
    at = float(f"{good:.6g}")
    return f"{at:g}, beyond {why}" if takes(at) else f"up to {at:g}, then {why}"


def numbers(given: Mapping[str, Any]) -> list[str]:
    return [name for name, one in given.items() if isinstance(one, int | float) and not isinstance(one, bool)]


def told(name: str) -> dict[str, Any]:
    """All that is recorded of a case."""
    make, figures = CASES[name]
    given = figures()
    good = outcome(make, given)
    if isinstance(good, str) and good.startswith("refused"):
        return {"of": name, "good": good}
    tried = {
        f"{number} × {times}": outcome(make, {**given, number: type(given[number])(given[number] * times)})
        for number in numbers(given)
        for times in TIMES
    }
    limits = {
        number: [edge(make, given, number, -FAR), edge(make, given, number, FAR)]
        for number in numbers(given)
        if isinstance(make, type) or "finite_between" in unwrap(make).__code__.co_names
    }
    return {"of": name, "good": good, "tried": tried, "limits": limits}


def recorded_core() -> dict[str, dict[str, Any]]:
    """By name of the case, what was recorded."""
    rows = [json.loads(line) for line in CORE.read_text(encoding="utf-8").splitlines()]
    return {row["of"]: row for row in rows}

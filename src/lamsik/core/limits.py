"""Limits of a field, said once, in its type: they are held where a value is made, and the published schema of
a document takes them from there.

    mass_g: Annotated[float, Between(0, 500, "g", "mass of the slug")]
    kind: Annotated[str, one_of("wire", "shank")]

    def __post_init__(self) -> None:
        held(self, "hardware.")
"""

from collections.abc import Callable
from dataclasses import dataclass, fields
from typing import Annotated, Any, get_args, get_origin, get_type_hints

from annotated_types import MaxLen

from lamsik.core.errors import Refused, finite_between, named

Name = Annotated[str, MaxLen(200)]
"""A name as a maker writes it."""
JsonSchema = dict[str, Any]


@dataclass(frozen=True, slots=True)
class Between:
    """A finite number within [low, high], its unit, and what it is."""

    low: float
    high: float
    unit: str = ""
    says: str = ""

    def __get_pydantic_json_schema__(self, core: Any, handler: Callable[[Any], JsonSchema]) -> JsonSchema:
        """Asked for by name where a schema is made."""
        said = {name: text for name, text in (("unit", self.unit), ("description", self.says)) if text}
        return handler(core) | {"minimum": self.low, "maximum": self.high} | said


@dataclass(frozen=True, slots=True)
class OneOf:
    """One of some words."""

    words: tuple[str, ...]

    def __get_pydantic_json_schema__(self, core: Any, handler: Callable[[Any], JsonSchema]) -> JsonSchema:
        """Asked for by name where a schema is made."""
        return {"enum": list(self.words)}


@dataclass(frozen=True, slots=True)
class Pattern:
    """A text of a pattern, at most so long."""

    pattern: str
    least: int = 0
    most: int = 0

    def __get_pydantic_json_schema__(self, core: Any, handler: Callable[[Any], JsonSchema]) -> JsonSchema:
        """Asked for by name where a schema is made."""
        sizes = {"minLength": self.least, "maxLength": self.most}
        return (
            handler(core) | {name: size for name, size in sizes.items() if size} | {"pattern": self.pattern}
        )


@dataclass(frozen=True, slots=True)
class Says:
    """What a field is, where no limit says it."""

    says: str

    def __get_pydantic_json_schema__(self, core: Any, handler: Callable[[Any], JsonSchema]) -> JsonSchema:
        """Asked for by name where a schema is made."""
        return handler(core) | {"description": self.says}


Key = Annotated[str, Pattern("^[a-zA-Z0-9_-]+$", 1, 40)]
"""The key of a row of a document."""


def one_of(*words: str) -> OneOf:
    """The words a text may be."""
    return OneOf(words)


def held(value: Any, where: str = "") -> None:
    """Hold every field of a value to the limits of its type; None passes where the type lets it.

    Raises:
        Refused: naming the field as `where` and its name.
    """
    for name, limits in _limits(type(value)):
        given = getattr(value, name)
        if isinstance(limits, OneOf):
            if given not in limits.words:
                raise Refused(f"{where}{name}", given, named(limits.words))
        elif type(given) in PLAIN and limits.low <= given <= limits.high:
            continue  # a search makes values by the thousand
        elif given is not None:
            finite_between(f"{where}{name}", given, limits.low, limits.high, limits.unit)


PLAIN = (float, int)
_KNOWN: dict[type, tuple[tuple[str, Between | OneOf], ...]] = {}


def _limits(of: Any) -> tuple[tuple[str, Between | OneOf], ...]:
    if of in _KNOWN:
        return _KNOWN[of]
    hints = get_type_hints(of, include_extras=True)
    _KNOWN[of] = tuple(
        (field.name, limits)
        for field in fields(of)
        for limits in _said(hints[field.name])
        if isinstance(limits, Between | OneOf)
    )
    return _KNOWN[of]


def _said(hint: Any) -> tuple[Any, ...]:
    """What is said with a type, also with one of several that a field may have."""
    if get_origin(hint) is Annotated:
        return tuple(hint.__metadata__)
    return tuple(said for one in get_args(hint) if get_origin(one) is Annotated for said in one.__metadata__)

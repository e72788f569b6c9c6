"""Values of the core made from what a document holds of them."""

from dataclasses import asdict, is_dataclass
from functools import lru_cache
from typing import Any

from pydantic import TypeAdapter, ValidationError

from lamsik.core.errors import Refused


def value_of(kind: Any, row: Any) -> Any:
    """The value of this type that a checked part of a document describes: a row, a list of rows, or None.

    Raises:
        Refused: what the value itself refuses, or the field that is not of its kind.
    """
    try:
        return _maker(kind).validate_python(row, extra="forbid")
    except ValidationError as error:
        first = error.errors()[0]
        refused = first.get("ctx", {}).get("error")
        if isinstance(refused, Refused):
            raise refused from None
        field = ".".join(str(step) for step in first["loc"])
        raise Refused(field, first["input"], first["msg"].lower()) from None


@lru_cache(maxsize=64)
def _maker(kind: Any) -> TypeAdapter[Any]:
    return TypeAdapter(kind)


def row_of(value: Any) -> Any:
    """What a document keeps of a value: its fields, a list of them, or itself."""
    if isinstance(value, tuple):
        return [row_of(one) for one in value]
    return asdict(value) if is_dataclass(value) and not isinstance(value, type) else value

"""Values of the core made from what a document holds of them."""

from collections.abc import Collection, Mapping
from dataclasses import MISSING, asdict, fields, is_dataclass
from functools import lru_cache
from typing import Any, get_type_hints

from pydantic import TypeAdapter, ValidationError

from lamsik.core.errors import Refused, Rule, require, rule


def value_of(kind: Any, row: Any, where: str = "") -> Any:
    """The value of this type that a checked part of a document describes: a row, a list of rows, a figure, or
    None; `where` it stands.

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
        field = ".".join(filter(None, (where, *(str(step) for step in first["loc"]))))
        raise Refused(field, *_broken(first["type"], first["input"])) from None


def core_of(kind: Any, document: Mapping[str, Any], **beside: Any) -> Any:
    """The core's value of this type whose fields a document holds beside its own; `beside` are fields of it
    that come from elsewhere. Raises `Refused`, as `value_of`.
    """
    hints, given = _hints(kind), {*document, *beside}
    for one in fields(kind):
        begins = one.default is not MISSING or one.default_factory is not MISSING
        require(begins or one.name in given, one.name, None, rule("needed"))
    names = [one.name for one in fields(kind) if one.name in document and one.name not in beside]
    return kind(**{name: value_of(hints[name], document[name], name) for name in names}, **beside)


def with_core(document: Mapping[str, Any], value: Any, besides: Collection[str] = ()) -> dict[str, Any]:
    """The document with all fields of a core's value but these."""
    names = [one.name for one in fields(value) if one.name not in besides]
    return {**document, **{name: row_of(getattr(value, name)) for name in names}}


KINDS = {
    "float": "a number",
    "int": "a whole number",
    "string": "a text",
    "bool": "true or false",
    "tuple": "a list",
    "list": "a list",
    "dataclass": "an object",
}
"""What is needed, by the first word of what is wrong."""


def _broken(what: str, given: Any) -> tuple[Any, Rule]:
    """What was given and the rule it breaks, of a field that is not of its kind."""
    if what == "unexpected_keyword_argument":
        return given, rule("no-field")
    if what.startswith("missing"):
        return None, rule("needed")
    kind = KINDS.get(what.partition("_")[0])
    return given, rule("of-kind", kinds=kind) if kind else rule("schema")


@lru_cache(maxsize=32)
def _hints(kind: Any) -> dict[str, Any]:
    return get_type_hints(kind, include_extras=True)


@lru_cache(maxsize=256)
def _maker(kind: Any) -> TypeAdapter[Any]:
    return TypeAdapter(kind)


def row_of(value: Any) -> Any:
    """What a document keeps of a value: its fields, a list of them, or itself."""
    if isinstance(value, tuple | list):
        return [row_of(one) for one in value]
    if isinstance(value, dict):
        return {name: row_of(one) for name, one in value.items()}
    return row_of(asdict(value)) if is_dataclass(value) and not isinstance(value, type) else value

"""Rows of plain values, as files and tables keep them, for dataclasses: just the fields of a class, each
of its kind.
"""

from collections.abc import Mapping
from dataclasses import MISSING, fields
from types import NoneType
from typing import Any, get_args, get_type_hints

from lamsik.core.errors import Refused, finite_between, require

MOST_TEXT = 160


def checked_row(row: Any, of: type, where: str = "", besides: tuple[str, ...] = ()) -> dict[str, Any]:
    """The row if it has just the fields of a dataclass: texts, yes or no, finite numbers; fields with a
    default may lack.

    Args:
        row: what a file or a page sent.
        of: the dataclass it shall become.
        where: what the messages call it.
        besides: fields that are read elsewhere.

    Raises:
        Refused: naming the field, what was given, what is allowed.
    """
    if not isinstance(row, Mapping):
        raise Refused(where or "row", row, "an object is needed")
    known = {field.name: field for field in fields(of) if field.name not in besides}
    extra = sorted(set(row) - set(known) - set(besides))
    require(
        not extra,
        f"{where}.{extra[0]}".strip(".") if extra else where,
        None,
        f"unknown field; known are {', '.join(known)}",
    )
    found, hints = {}, get_type_hints(of)
    for name, field in known.items():
        path = f"{where}.{name}".strip(".")
        if name not in row:
            require(
                field.default is not MISSING or field.default_factory is not MISSING,
                path,
                None,
                "this field is needed",
            )
            continue
        found[name] = _value(path, row[name], hints[name])
    return found


def _value(path: str, value: Any, hint: Any) -> Any:
    kinds = get_args(hint) or (hint,)
    if value is None and NoneType in kinds:
        return None
    if str in kinds:
        require(
            isinstance(value, str) and len(value) <= MOST_TEXT,
            path,
            value,
            f"a text of at most {MOST_TEXT} characters is needed",
        )
        return value
    if bool in kinds:
        require(isinstance(value, bool), path, value, "true or false")
        return value
    return finite_between(path, value, -1e6, 1e6)

"""What pages of documents bind, as documented values: panels made by one function each, rows, and the edits
that a page offers.

A view is a dataclass of panels; a panel's fields are the names that templates and modules of its page read
(`static/js/shared/bind.js`), so they stand side by side in what is sent. A panel that is None is not computed
this time: what the page shows of it stays.
"""

import json
from collections.abc import Mapping
from dataclasses import dataclass, fields, is_dataclass
from typing import Any, get_args, get_origin, get_type_hints


class Panel:
    """A part of a view: its fields are names of the page."""


@dataclass(frozen=True)
class Head(Panel):
    """What every page of a document has.

    `fields` is every typed figure as text, by its path in the document; `settled` whether all was computed;
    `near` where a drag begins to look (pitch_deg, roll_deg, draft_mm), None where it needs no such thing;
    `sentence` the verdict in one; `selected` what each choice stands at.
    """

    fields: Mapping[str, str]
    settled: bool
    near: Mapping[str, float] | None
    sentence: str
    selected: Mapping[str, str]


@dataclass(frozen=True)
class Said:
    """A row that is a sentence."""

    key: str
    says: str


@dataclass(frozen=True, kw_only=True)
class Removable:
    """A row of the document with its way off: the edit, and what its button is called."""

    key: str
    remove: str
    remove_says: str


@dataclass(frozen=True)
class RowField:
    """A field of a row: its path in the document, and what it is called for who does not see the table."""

    path: str
    says: str


def change(do: str, /, **what: Any) -> dict[str, Any]:
    """An edit of a document, as the engine takes it (see `documents.engine`)."""
    return {"do": do, **what}


def edit(do: str, /, **what: Any) -> str:
    """An edit as a button or a choice of a page carries it; in a choice "$" stands for the option's value and
    "$n" for that as a number.
    """
    return json.dumps(change(do, **what))


def plain(view: Any) -> dict[str, Any]:
    """A view or a row, a dataclass, as it is sent: dictionaries, lists, texts and numbers; panels side by
    side, those that are None left out.
    """
    values: dict[str, Any] = {}
    for name, is_panel in _names(type(view)):
        one = getattr(view, name)
        if not is_panel:
            values[name] = _sent(one)
        elif one is not None:
            values |= plain(one)
    return values


def _sent(value: Any) -> Any:
    if is_dataclass(value):
        return plain(value)
    return [_sent(one) for one in value] if isinstance(value, list | tuple) else value


_known: dict[type, tuple[tuple[str, bool], ...]] = {}


def _names(of: type) -> tuple[tuple[str, bool], ...]:
    """Field names of a dataclass, and whether each holds a panel."""
    if of not in _known:
        hints = get_type_hints(of)
        _known[of] = tuple((one.name, panel_of(hints[one.name]) is not None) for one in fields(of))
    return _known[of]


def panel_of(hint: Any) -> type[Panel] | None:
    """The panel that a field of this type holds, if any."""
    kinds = [one for one in (hint, *get_args(hint)) if isinstance(one, type) and get_origin(one) is None]
    return next((one for one in kinds if issubclass(one, Panel)), None)

"""What a page is sent of its view: whatever it has already is named instead of sent again.

A value of some size goes out once with its name, `{"#": name, "v": value}`, and afterwards as its name alone,
`{"=": name}`; a wide table of fields goes out as pieces, `{"*": [piece, …]}`, of which only those with a
change have to. A name is the digest of the value, so nobody keeps what a page was sent before: the page says
what it has. `shared/lean.js` reads it.
"""

import hashlib
import json
from base64 import b64encode
from collections.abc import Collection, Mapping, Sequence
from itertools import islice
from json.encoder import encode_basestring
from typing import Any

WORTH = 120
"""Smaller values [characters] are sent as they are: their name would be hardly shorter."""
WIDE, PIECE = 24, 8
"""A table of more fields than this goes out in pieces of so many."""
MOST_NAMES = 4_000
"""Names that a page may say it has."""


def lean(value: Any, has: Collection[str] = frozenset()) -> Any:
    """The value as it is sent to a page that has the values of these names."""
    return _lean(value, has)[0]


def names(sent: object) -> frozenset[str]:
    """What a page says it has; nothing where it says anything else."""
    if not isinstance(sent, list) or len(sent) > MOST_NAMES:
        return frozenset()
    return frozenset(name for name in sent if isinstance(name, str))


def _lean(value: Any, has: Collection[str]) -> tuple[Any, str]:
    """What is sent, and the text that tells values apart (the name, for a large one)."""
    if isinstance(value, Mapping):
        if "tag" in value and "children" in value:
            return _node(value, has)
        if len(value) > WIDE:
            return _pieces(value, has)
        return _named({key: _lean(one, has) for key, one in value.items()}, has)
    if isinstance(value, Sequence) and not isinstance(value, str):
        return _row([_lean(one, has) for one in value], has)
    return value, encode_basestring(value) if isinstance(value, str) else repr(value)


def _named(parts: dict[str, tuple[Any, str]], has: Collection[str]) -> tuple[Any, str]:
    text = "{" + ",".join(f"{key}:{told}" for key, (_, told) in parts.items()) + "}"
    return _sent({key: one for key, (one, _) in parts.items()}, text, has)


def _row(parts: list[tuple[Any, str]], has: Collection[str]) -> tuple[Any, str]:
    return _sent([one for one, _ in parts], "[" + ",".join(told for _, told in parts) + "]", has)


def _pieces(value: Mapping[str, Any], has: Collection[str]) -> tuple[Any, str]:
    fields, pieces = iter(value.items()), []
    while piece := dict(islice(fields, PIECE)):
        pieces.append(_named({key: _lean(one, has) for key, one in piece.items()}, has))
    return {"*": [one for one, _ in pieces]}, "*" + ",".join(told for _, told in pieces)


def _node(value: Mapping[str, Any], has: Collection[str]) -> tuple[Any, str]:
    """A node of a drawing: its attributes are texts and are told apart in one go."""
    parts = [(child, child) if isinstance(child, str) else _node(child, has) for child in value["children"]]
    text = json.dumps([value["tag"], value["attrs"], [told for _, told in parts]])
    return _sent(
        {"tag": value["tag"], "attrs": value["attrs"], "children": [one for one, _ in parts]}, text, has
    )


def _sent(value: Any, text: str, has: Collection[str]) -> tuple[Any, str]:
    if len(text) < WORTH:
        return value, text
    name = b64encode(hashlib.blake2b(text.encode(), digest_size=6).digest()).decode()
    return ({"=": name} if name in has else {"#": name, "v": value}), name

"""A paint scheme as a document: ordered coats, how it begins, its edits; as a file `lamsik-scheme`."""

from collections.abc import Mapping
from dataclasses import asdict
from typing import Any

from lamsik.core.errors import Refused, one_of, require
from lamsik.core.paints.coats import ROLES, Coat
from lamsik.core.paints.layers import KINDS
from lamsik.core.rows import checked_row
from lamsik.documents.engine import Edit, Kind
from lamsik.documents.rows import Document, free_key, row_of
from lamsik.documents.typed import word

FORMAT, VERSION = "lamsik-scheme", 1
MOST_COATS = 40
BEGINS = ("seal", "primer", "base", "fade", "eyes", "clear")
"""The coats of a new scheme."""


def blank(name: str) -> Document:
    """A new scheme: seal, primer, base, fade, eyes and one clear to start from."""
    return {"name": name, "coats": [_start(role, f"{role}1") for role in BEGINS]}


def _start(role: str, key: str) -> Document:
    return asdict(Coat(key=key, role=role, **KINDS[role].start))


def coats_of(content: Mapping[str, Any]) -> tuple[Coat, ...]:
    """The coats a scheme describes. Raises `Refused` where one cannot be."""
    return tuple(Coat(**row) for row in content["coats"])


def read(document: Mapping[str, Any]) -> tuple[Coat, ...]:
    """The coats of a scheme that is wholly checked. Raises `Refused`."""
    name = document.get("name")
    require(isinstance(name, str) and 0 < len(name.strip()) <= 120, "name", name, "give the scheme a name")
    coats = coats_of(document)
    keys = [coat.key for coat in coats]
    require(len(set(keys)) == len(keys), "coats", keys, "each key once")
    return coats


def checked(document: Any) -> Document:
    """The document as it is, if it is a scheme in all its fields. Raises `Refused`."""
    require(isinstance(document, dict), "document", None, "an object is needed")
    rows, typed = document.get("coats"), document.get("typed", {})
    extra = sorted(set(document) - {"name", "coats", "typed"})
    require(not extra, extra[0] if extra else "", None, "unknown field; known are name, coats, typed")
    require(isinstance(typed, dict), "typed", None, "an object is needed")
    if not isinstance(rows, list) or len(rows) > MOST_COATS:
        raise Refused("coats", rows, f"a list of at most {MOST_COATS}")
    for n, row in enumerate(rows, start=1):
        checked_row(row, Coat, f"coat {n}")
        require(isinstance(row.get("count", 0), int), f"coat {n}.count", row.get("count"), "a whole number")
    read(document)
    found: Document = document
    return found


def brought_in(found: Any) -> Document:
    """A document of what a file holds. Raises `Refused` naming what is wrong."""
    if not isinstance(found, dict) or found.get("format") != FORMAT or found.get("version") != VERSION:
        raise Refused("format", found, f"a {FORMAT} document of version {VERSION} is needed")
    document = checked({name: value for name, value in found.items() if name not in ("format", "version")})
    return {"name": str(document["name"]).strip(), "coats": [asdict(coat) for coat in read(document)]}


def filed(document: Document) -> Document:
    """What its file holds."""
    return {"format": FORMAT, "version": VERSION, "name": document["name"], "coats": document["coats"]}


def _before_set(document: Document, path: str, text: str, _shop: None) -> None:
    document.setdefault("typed", {})
    if path.startswith("coats.") and path.rpartition(".")[2] in ("key", "role"):
        raise Refused(path, text, "a coat keeps its kind: take it off and put another on")


def _measured(document: Document, path: str, before: Document, _shop: None) -> Document:
    """The longest wait is never shorter than the least."""
    group, _, rest = path.partition(".")
    if group == "coats" and rest.endswith(".wait_h"):
        coat = row_of(document, "coats", rest.partition(".")[0])
        if coat["window_h"] is not None:
            coat["window_h"] = max(coat["window_h"], coat["wait_h"])
    return document


def _add(document: Document, edit: Edit, _shop: None) -> Document:
    """One more coat of a role, after the last that usually lies under it."""
    role, rows = word(edit, "role"), document["coats"]
    one_of("role", role, KINDS)
    order = ROLES.index(role)
    at = max((n for n, row in enumerate(rows, start=1) if ROLES.index(row["role"]) <= order), default=0)
    rows.insert(at, _start(role, free_key(rows, role)))
    return document


def _up(document: Document, edit: Edit, _shop: None) -> Document:
    """A coat under the one that lies beneath it."""
    row, rows = row_of(document, "coats", edit.get("key")), document["coats"]
    at = max(rows.index(row) - 1, 0)
    rows.remove(row)
    rows.insert(at, row)
    return document


SCHEME: Kind[None, tuple[Coat, ...]] = Kind(
    name="scheme",
    stem="S",
    format=FORMAT,
    version=VERSION,
    most_bytes=100_000,
    brought_in=brought_in,
    filed=filed,
    value=lambda document, _edit, _shop: read(document),
    acts={"add": _add, "up": _up},
    groups=("coats",),
    texts=("name", "colour", "note"),
    empties=("window_h", "mass_g"),
    whole=("count",),
    before_set=_before_set,
    measured=_measured,
)

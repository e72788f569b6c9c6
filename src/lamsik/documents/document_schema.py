"""The published form of a kind of document: its JSON Schema, made from its types and kept beside them, is
what documents and single fields are checked with.
"""

import json
from collections.abc import Callable, Collection, Mapping
from dataclasses import MISSING, dataclass, fields, is_dataclass
from functools import cached_property, lru_cache, partial
from importlib.resources import files
from math import isfinite
from pathlib import Path
from types import NoneType
from typing import Any, get_args, get_type_hints

import jsonschema_rs
from jsonschema import Draft202012Validator
from jsonschema.exceptions import best_match

from lamsik.core.errors import Refused, require, rule
from lamsik.documents.rows import Document
from lamsik.documents.schemas import Schema, refusal_of, schema_of
from lamsik.documents.values import row_of

PLAIN = (str, int, float, bool, NoneType)


@dataclass
class DocumentSchema:
    """A kind of document as it is published.

    Args:
        room: the package that keeps the schema.
        of: the type of the document.
        format, version: what it says it is.
        may_lack: fields (`Class.field`) that documents of this version were written without before they were
            thought of: they are given their default as they are read.
        in_a_file: fields that only its file has.
        raised: a document of an earlier version as one of this; anything else as it is.
    """

    room: str
    of: type
    format: str
    version: int
    may_lack: Collection[str] = ()
    in_a_file: Collection[str] = ()
    raised: Callable[[Document], Document] = lambda document: document

    @property
    def file(self) -> str:
        """What the schema's file is called."""
        return f"{self.format.removeprefix('lamsik-')}.schema.json"

    @cached_property
    def schema(self) -> Schema:
        """The JSON Schema, as it is published; made here while it is not."""
        try:
            text = files(self.room).joinpath(self.file).read_text(encoding="utf-8")
        except (ModuleNotFoundError, FileNotFoundError):
            return self.made()
        loaded: Schema = json.loads(text)
        return loaded

    def made(self) -> Schema:
        """The same, made from the types."""
        what = self.format.removeprefix("lamsik-")
        lacking = {*self.may_lack, *(f"{self.of.__name__}.{name}" for name in self.in_a_file)}
        return schema_of(self.of, f"Lamsik {what} document, version {self.version}", lacking)

    def write(self, under: Path) -> None:
        """Write the schema beside its types, so that no start has to make it."""
        text = json.dumps(self.made(), indent=1, ensure_ascii=False)
        (under / Path(*self.room.split(".")) / self.file).write_text(f"{text}\n", encoding="utf-8")

    @cached_property
    def _validator(self) -> Draft202012Validator:
        return Draft202012Validator(self.schema)

    @cached_property
    def _glance(self) -> jsonschema_rs.Draft202012Validator:
        """Says fifty times as quickly that a document is good; what is wrong with one, the other says."""
        return jsonschema_rs.Draft202012Validator(self.schema)

    def brought_up(self, document: Any) -> Any:
        """A document of an earlier version, or one that lacks what it may, as a whole one of this; anything
        else as it is.
        """
        if not isinstance(document, dict):
            return document
        return _completed(self.raised(document), _gaps(self.of, frozenset(self.may_lack)))

    def checked(self, document: Any) -> Document:
        """The document as one of this version, if it follows the schema.

        Raises:
            Refused: the first offending field.
        """
        said = document.get("format") if isinstance(document, dict) else document
        if said != self.format:
            raise Refused("format", said, rule("a-document", format=self.format))
        for name in self.in_a_file:
            require(name not in document, name, None, rule("only-in-a-file"))
        try:
            document = self.brought_up(document)
        except RecursionError as error:
            raise Refused("document", None, rule("plain-value")) from error
        version = document.get("version")
        require(version == self.version, "version", version, rule("just-so", value=self.version))
        try:
            json.dumps(document, allow_nan=False)
        except (TypeError, ValueError, RecursionError) as error:
            raise Refused(_odd(document), None, rule("plain-value")) from error
        wrong = None if self._is_good(document) else best_match(self._validator.iter_errors(document))
        if wrong is not None:
            raise refusal_of(wrong)
        result: Document = document
        return result

    def _is_good(self, document: Document) -> bool:
        try:
            return self._glance.is_valid(document)
        except ValueError:  # it cannot read it, as a text of half a sign
            return False

    def check_field(self, path: str, value: Any) -> None:
        """Check one field's value by its place in the schema; rows of a list are named by their key
        (`ballast.b1.x_mm`).

        Much quicker than the whole document, for the many small edits of a drag. Raises `Refused`.
        """
        here: Any = self.schema
        for step in path.split("."):
            here = here["items"] if "items" in here else here.get("properties", {}).get(step, {})
        error = best_match(Draft202012Validator(here).iter_errors(value))
        if error is not None:
            raise refusal_of(error, path)


def _odd(value: Any, path: str = "document") -> str:
    """Where in a document something stands that no file can hold: no number, or nothing a file knows."""
    rows = value.items() if isinstance(value, dict) else enumerate(value) if isinstance(value, list) else ()
    for name, one in rows:
        here = f"{path}.{name}".removeprefix("document.")
        if isinstance(one, dict | list):
            odd = _odd(one, here)
            if odd != here:
                return odd
        elif (isinstance(one, float) and not isfinite(one)) or not isinstance(one, PLAIN):
            return here
    return path


def with_frame(form: str, version: int) -> Callable[[Document], Document]:
    """Documents that the shop kept before they said what they are."""
    return lambda document: {"format": form, "version": version, **document}


def with_default(of: type) -> set[str]:
    """Every field (`Class.field`) of a type and of the types in it that begins with something."""
    names = {f"{of.__name__}.{name}" for name in _begins(of)}
    for within in _parts(of).values():
        names |= with_default(within)
    return names


@dataclass(frozen=True)
class _Gaps:
    """Where documents may lack something: how each field begins that a part of one may be without, and the
    parts in it that have such fields.
    """

    begins: Mapping[str, Callable[[], Any]]
    parts: "Mapping[str, _Gaps]"


@lru_cache(maxsize=64)
def _gaps(of: type, may_lack: frozenset[str]) -> _Gaps:
    within = {name: _gaps(one, may_lack) for name, one in _parts(of).items()}
    return _Gaps(
        {name: begin for name, begin in _begins(of).items() if f"{of.__name__}.{name}" in may_lack},
        {name: gaps for name, gaps in within.items() if gaps.begins or gaps.parts},
    )


def _completed(part: Any, gaps: _Gaps) -> Any:
    """A part of a document with what it may lack, as its type begins it; what lacks nothing is as it was."""
    if isinstance(part, list):
        return [_completed(row, gaps) for row in part]
    if not isinstance(part, dict):
        return part
    completed = {name: part[name] if name in part else begin() for name, begin in gaps.begins.items()} | part
    for name, within in gaps.parts.items():
        if name in completed:
            completed[name] = _completed(completed[name], within)
    return completed


@lru_cache(maxsize=64)
def _begins(of: type) -> dict[str, Callable[[], Any]]:
    """What each field of a class begins with, where that is said."""
    begins: dict[str, Callable[[], Any]] = {}
    for one in fields(of):
        if one.default is not MISSING:
            begins[one.name] = partial(row_of, one.default)
        elif one.default_factory is not MISSING:
            begins[one.name] = partial(_begun, one.default_factory)
    return begins


def _begun(make: Callable[[], Any]) -> Any:
    return row_of(make())


@lru_cache(maxsize=64)
def _parts(of: type) -> dict[str, type]:
    """Fields of a class that hold values of another, or lists of them; what is written beside has its own."""
    hints = get_type_hints(of, include_extras=True)
    classes = {one.name: _class_in(hints[one.name]) for one in fields(of)}
    return {name: within for name, within in classes.items() if within is not None}


def _class_in(hint: Any) -> type | None:
    if isinstance(hint, type) and is_dataclass(hint):
        return hint
    return next((inner for one in get_args(hint) if (inner := _class_in(one)) is not None), None)

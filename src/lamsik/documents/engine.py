"""The one engine that edits documents of every kind: an edit is done or refused, never half."""

from collections.abc import Callable, Mapping
from dataclasses import dataclass, field
from typing import Any, Generic, Literal, TypeVar, cast

from lamsik.core.errors import Refused, named, require, rule
from lamsik.documents.document_schema import DocumentSchema
from lamsik.documents.rows import Document, copied, holder_of, row_of
from lamsik.documents.typed import Edit, amount, is_empty, note_typed, quantity_of, word

LOCKED = rule("layer-locked")
"""What is locked changes only after a confirmation that names it."""
Shop = TypeVar("Shop")
Value = TypeVar("Value")


def _as_it_is(document: Document, *_: Any) -> Document:
    return document


@dataclass(frozen=True)
class Reference:
    """A field in which a document names another.

    Args:
        path: the field, `master.body_id`.
        kind: of what is named there.
        by: which of its marks stands there.
    """

    path: str
    kind: str
    by: Literal["code", "name", "id"] = "code"


@dataclass(frozen=True)
class Kind(Generic[Shop, Value]):
    """What a kind of document says of itself, once.

    Args:
        name: what rows of it are called in the database.
        stem: the letter its codes begin with.
        schema: what its documents are checked with: format, version, fields, how older ones are raised.
        most_bytes: the largest file that is brought in.
        begins: a whole new document, of what the kind asks for.
        read: a document of what a file holds, where more is asked of it than that it follows the schema and
            has a value. Raises `Refused`.
        value: the core's value of a document after an edit, with what the shop has. Raises `Refused` for what
            is not allowed.
        refers: its fields that name other documents.
        tags: its fields by which it is found beside its name.
        filed: what its file holds of a document.
        acts: its special edits by name; `set`, `flag` and `remove` are the engine's.
        groups: its lists of rows that can be taken off.
        singles: its parts that there is one of, and that can be taken off.
        texts: fields that hold a text, by the last name of their path.
        empties: fields that may be empty, by the last name or the whole of their path.
        never_empty: paths that may not, whatever their last name.
        whole: fields that hold a whole number.
        flags: fields that are yes or no.
        before_set: looks at a path before it is set: what may not be set is refused.
        chosen: what follows from a text that was set.
        measured: what follows from a figure that was set; gets what held it as it was.
        removed: what goes along with a row that was taken off.
        locked: the name of what is locked and an edit would change, empty where there is none: it changes
            only after a confirmation that names it (`though` of the edit).
    """

    name: str
    stem: str
    schema: DocumentSchema
    most_bytes: int
    begins: Callable[..., Document]
    value: Callable[[Document, Edit, Shop], Value]
    refers: tuple[Reference, ...] = ()
    tags: tuple[str, ...] = ()
    read: Callable[[Any], Document] | None = None
    filed: Callable[[Document], Document] = _as_it_is
    acts: Mapping[str, Callable[[Document, Edit, Shop], Document]] = field(default_factory=dict)
    groups: tuple[str, ...] = ()
    singles: tuple[str, ...] = ()
    texts: tuple[str, ...] = ()
    empties: tuple[str, ...] = ()
    never_empty: tuple[str, ...] = ()
    whole: tuple[str, ...] = ()
    flags: tuple[str, ...] = ()
    before_set: Callable[[Document, str, str, Shop], None] = lambda *_: None
    chosen: Callable[[Document, str, Shop], Document] = _as_it_is
    measured: Callable[[Document, str, Document, Shop], Document] = _as_it_is
    removed: Callable[[Document, str, Document], Document] = _as_it_is
    locked: Callable[[Document, Edit], str] = lambda *_: ""

    @property
    def format(self) -> str:
        """What its files say they are."""
        return self.schema.format

    @property
    def version(self) -> int:
        """The version its files say they are of."""
        return self.schema.version

    def brought_in(self, content: Any) -> Document:
        """A checked document of what a file holds, raised to this version. Raises `Refused`."""
        if self.read is not None:
            return self.read(content)
        document = self.schema.checked(content)
        self.value(document, {}, cast(Shop, None))
        return document

    @property
    def edits(self) -> tuple[str, ...]:
        """Everything an edit of it can do, by name."""
        return tuple(dict.fromkeys((*COMMON, *self.acts)))


def applied(kind: Kind[Shop, Value], document: Document, edit: Edit, shop: Shop) -> tuple[Document, Value]:
    """The document after one edit `{"do": …}`, and the core's value of it.

    Raises:
        Refused: unknown edit, unreadable text, or a value that is not allowed; the document is as it was.
    """
    name = edit.get("do")
    if not isinstance(name, str) or name not in kind.edits:
        raise Refused("do", name, named(kind.edits))
    locked = kind.locked(document, edit)
    require(not locked or edit.get("though") == locked, word(edit, "path") or "layers", locked, LOCKED)
    act = kind.acts.get(name)
    own = copied(document)
    changed = act(own, edit, shop) if act else COMMON[name](kind, own, edit, shop)
    try:  # it knows limits that follow from other fields: it is asked before the schema
        value = kind.value(changed, edit, shop)
    except Refused as refused:
        path = word(edit, "path")
        if path and f".{path}".endswith(f".{refused.field}"):
            raise Refused(path, refused.given, refused.allowed) from None
        _held(kind, changed, edit)
        raise
    _held(kind, changed, edit)
    return changed, value


def _held(kind: Kind[Any, Any], document: Document, edit: Edit) -> None:
    """Hold a changed document to its schema: of one that set a field only that is checked, for the many of a
    drag.
    """
    if edit["do"] in ("set", "flag"):
        path = word(edit, "path")
        holder, leaf = holder_of(document, path)
        kind.schema.check_field(path, holder[leaf])
    else:
        kind.schema.checked(document)


def apply(kind: Kind[Shop, Value], document: Document, edit: Edit, shop: Shop) -> Document:
    """The document after one edit; `Refused` as `applied`."""
    return applied(kind, document, edit, shop)[0]


def _set(kind: Kind[Shop, Value], document: Document, edit: Edit, shop: Shop) -> Document:
    """A text, a choice or a figure, as it was typed or dragged."""
    path, text = word(edit, "path"), word(edit, "text").strip()
    kind.before_set(document, path, text, shop)
    holder, leaf = holder_of(document, path)
    if leaf in kind.texts:
        holder[leaf] = text
        return kind.chosen(document, path, shop)
    before = dict(holder)
    if path not in kind.never_empty and (leaf in kind.empties or path in kind.empties) and is_empty(edit):
        holder[leaf] = None
        note_typed(document, edit, path)
        return kind.measured(document, path, before, shop)
    quantity = quantity_of(path)
    figure = amount(edit, quantity, path)
    require(leaf not in kind.whole or figure.is_integer(), path, text or figure, rule("whole"))
    holder[leaf] = int(figure) if leaf in kind.whole else figure
    note_typed(document, edit, path)
    return kind.measured(document, path, before, shop)


def _flag(kind: Kind[Shop, Value], document: Document, edit: Edit, shop: Shop) -> Document:
    """Yes or no."""
    holder, leaf = holder_of(document, word(edit, "path"))
    require(
        leaf in kind.flags and isinstance(edit.get("on"), bool),
        "path",
        leaf,
        rule("flag", flags=tuple(kind.flags)),
    )
    holder[leaf] = edit["on"]
    return document


def _remove(kind: Kind[Shop, Value], document: Document, edit: Edit, shop: Shop) -> Document:
    """A row taken off, with what goes along."""
    group, key = word(edit, "group"), word(edit, "key")
    known = (*kind.groups, *kind.singles)
    require(group in known, "group", group, named(known))
    if group in kind.singles:
        single = document[group] or {}
        document[group] = None
        return kind.removed(document, group, single)
    row = row_of(document, group, key)
    document[group] = [one for one in document[group] if one is not row]
    return kind.removed(document, group, row)


COMMON: Mapping[str, Callable[[Kind[Any, Any], Document, Edit, Any], Document]] = {
    "set": _set,
    "flag": _flag,
    "remove": _remove,
}
"""What can be done to a document of any kind."""

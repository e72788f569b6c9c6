"""Designs and schemes with their revisions: saving, undo, redo, deleting and bringing back."""

from collections.abc import Collection, Sequence
from typing import Any

from sqlalchemy.orm import defer
from sqlmodel import Session, col, func, select
from sqlmodel.sql.expression import SelectOfScalar

from lamsik.core.errors import Refused
from lamsik.documents.registry import KINDS
from lamsik.store import history, paint_stock
from lamsik.store.search import fold, pattern
from lamsik.store.tables import Document, Revision


class Stale(Refused):
    """The document was changed elsewhere since it was loaded. A form that can show again what was typed
    says so beside it.
    """

    def __init__(self, says: str) -> None:
        super().__init__(
            "",
            "",
            "it was changed elsewhere meanwhile: what you typed is still here; keep it again to put it over"
            " that",
        )
        self.args, self.elsewhere = (says,), says

    def __str__(self) -> str:
        """Which revision came between."""
        return self.elsewhere


def create(session: Session, kind: str, code: str, content: dict[str, Any], note: str = "") -> Document:
    """A new document with its first revision."""
    name = str(content["name"])
    row = Document(kind=kind, code=code, name=name, search=_found_by(kind, code, content))
    session.add(row)
    session.flush()
    session.add(Revision(document_id=_id(row), number=1, content=content, note=note))
    session.flush()
    paint_stock.follow(session, row, content)
    return row


def _found_by(kind: str, code: str, content: dict[str, Any]) -> str:
    """What a search finds it by: its name, its code, its tags."""
    tags = " ".join(str(content.get(tag) or "") for tag in KINDS[kind].tags)
    return fold(f"{content['name']} {code} {tags}")


def begin(session: Session, kind: str, content: dict[str, Any], note: str = "") -> Document:
    """A new document of a kind under the next free code of it."""
    return create(session, kind, next_code(session, kind, KINDS[kind].stem), content, note)


def new(session: Session, kind: str, note: str = "", /, **asked: Any) -> Document:
    """A new document as its kind begins one, of what that asks for. Raises `Refused`."""
    return begin(session, kind, KINDS[kind].begins(**asked), note)


def _id(row: Document) -> int:
    assert row.id is not None
    return row.id


def next_code(session: Session, kind: str, stem: str) -> str:
    """The next free code of a kind: `B-013` after twelve bodies, deleted ones included."""
    count = session.exec(select(func.count()).select_from(Document).where(Document.kind == kind)).one()
    return f"{stem}-{count + 1:03d}"


def matching(kind: str, text: str = "") -> SelectOfScalar[Document]:
    """The question for documents of a kind that are not deleted, by name; only those matching `text` if
    given.
    """
    query = select(Document).where(Document.kind == kind, col(Document.deleted_at).is_(None))
    if text:
        query = query.where(col(Document.search).like(pattern(text), escape="\\"))
    return query.order_by(Document.search, col(Document.id))


def listed(session: Session, kind: str, text: str = "", most: int | None = None) -> Sequence[Document]:
    """Documents of a kind by name, all of them unless the list ends somewhere: of what there can be many
    of, it does.
    """
    return session.exec(matching(kind, text).limit(most)).all()


def content(session: Session, row: Document) -> dict[str, Any]:
    """The document's current content."""
    return revision(session, row).content


def currents(session: Session, rows: Sequence[Document]) -> dict[int, Revision]:
    """The current revision of many documents by their id, in one query."""
    query = select(Revision).join(
        Document, (col(Revision.document_id) == Document.id) & (col(Revision.number) == Document.current)
    )
    current = session.exec(query.where(col(Document.id).in_([row.id for row in rows]))).all()
    history.ready(session, current)
    return {r.document_id: r for r in current}


def contents(session: Session, rows: Sequence[Document]) -> dict[int, dict[str, Any]]:
    """The current content of many documents by id."""
    return {key: row.content for key, row in currents(session, rows).items()}


def content_at(session: Session, revision_id: int) -> dict[str, Any]:
    """The content of the revision of that id."""
    row = session.get_one(Revision, revision_id)
    history.ready(session, [row])
    return row.content


class Missing(LookupError):
    """A revision that is not there."""


def revisions(row: Document) -> SelectOfScalar[Revision]:
    """The question for all revisions of a document, the newest first; those made beside for one piece
    included. They are not made whole, and what they hold is not read with them.
    """
    listed = select(Revision).where(Revision.document_id == row.id).order_by(col(Revision.number).desc())
    return listed.options(*(defer(col(one)) for one in (Revision.content, Revision.packed)))  # type: ignore[arg-type]


def revision(session: Session, row: Document, number: int | None = None) -> Revision:
    """A revision of the document, the current one unless numbered."""
    query = select(Revision).where(Revision.document_id == row.id, Revision.number == (number or row.current))
    kept = session.exec(query).first()
    if kept is None:
        raise Missing(f"revision {number or row.current} of {row.name}")
    history.ready(session, [kept])
    return kept


def current_ids(session: Session, ids: Collection[int | None]) -> dict[int, int]:
    """The current revision of each of these documents, by their ids."""
    is_current = (col(Revision.document_id) == Document.id) & (col(Revision.number) == Document.current)
    query = select(Revision.document_id, Revision.id).join(Document, is_current)
    rows = session.exec(query.where(col(Document.id).in_({*ids} - {None}))).all()
    return {document: revision or 0 for document, revision in rows}


def save(session: Session, row: Document, new: dict[str, Any], base: int, note: str = "") -> Revision:
    """Keep a new state as a revision made from `base`. Raises `Stale` if `base` is not the current one."""
    session.refresh(row)
    if base != row.current:
        raise Stale(f"revision {row.current} was saved elsewhere after revision {base}")
    current = revision(session, row)
    if current.content == new:
        return current
    last = session.exec(select(func.max(Revision.number)).where(Revision.document_id == row.id)).one()
    saved = Revision(document_id=_id(row), number=(last or 0) + 1, parent=row.current, content=new, note=note)
    session.add(saved)
    row.current, row.name = saved.number, str(new["name"])
    row.search = _found_by(row.kind, row.code, new)
    session.add(row)
    session.flush()
    paint_stock.follow(session, row, new)
    if saved.number % history.PACK_EVERY == 0:
        history.pack(session, row)
    return saved


def undo(session: Session, row: Document) -> bool:
    """Go back to what the current revision was made from; False at the first."""
    parent = revision(session, row).parent
    return _move(session, row, parent)


def redo(session: Session, row: Document) -> bool:
    """Go forward to the newest revision made from the current one; False if there is none."""
    query = select(func.max(Revision.number)).where(
        Revision.document_id == row.id,
        Revision.parent == row.current,
        col(Revision.beside).is_(False),
    )
    return _move(session, row, session.exec(query).one())


def _move(session: Session, row: Document, number: int | None) -> bool:
    if number is None:
        return False
    row.current = number
    content = revision(session, row).content
    row.name, row.search = str(content["name"]), _found_by(row.kind, row.code, content)
    session.add(row)
    session.flush()
    paint_stock.follow(session, row, content)
    return True


def branch(session: Session, row: Document, new: dict[str, Any], parent: int, note: str) -> Revision:
    """A revision beside the current one: for one piece, without changing the design for others."""
    last = session.exec(select(func.max(Revision.number)).where(Revision.document_id == row.id)).one()
    branched = Revision(
        document_id=_id(row), number=(last or 0) + 1, parent=parent, content=new, note=note, beside=True
    )
    session.add(branched)
    session.flush()
    return branched


def coded(session: Session, kind: str, code: str) -> Document | None:
    """The document of a kind with this code, if it is there."""
    return session.exec(matching(kind).where(Document.code == code)).first()

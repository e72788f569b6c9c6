"""Which documents name which, by what their kinds say of themselves."""

from collections.abc import Sequence
from typing import Any

from sqlmodel import Session, col, func, select

from lamsik.documents.engine import Reference
from lamsik.documents.registry import KINDS
from lamsik.store import documents
from lamsik.store.tables import Document, Revision

NAME = func.json_extract(Revision.content, "$.name")


def naming(session: Session, row: Document) -> list[Document]:
    """The documents that are not deleted and name this one as they are now, by kind and name."""
    return [
        other
        for kind in KINDS.values()
        for reference in kind.refers
        if reference.kind == row.kind
        for other in _naming(session, row, kind.name, reference)
    ]


def _naming(session: Session, row: Document, kind: str, reference: Reference) -> Sequence[Document]:
    at = func.json_extract(Revision.content, f"$.{reference.path}")
    marks: list[Any] = [getattr(row, reference.by)]
    if reference.by == "name":
        marks = [*_names(session, [row])]
    current = (col(Revision.document_id) == Document.id) & (col(Revision.number) == Document.current)
    return session.exec(documents.matching(kind).join(Revision, current).where(at.in_(marks))).all()


def former_names(session: Session, rows: Sequence[Document]) -> dict[str, str]:
    """What documents were called once, each with what it is called now: the last to leave a name has it; a
    name that one has now is not former.
    """
    now = {row.id: row.name for row in rows}
    return {name: now[key] for name, key in _names(session, rows).items() if name not in now.values()}


def _names(session: Session, rows: Sequence[Document]) -> dict[str, int]:
    """Every name that these ever had, and whose it was last."""
    query = select(NAME, Revision.document_id).where(col(Revision.document_id).in_([row.id for row in rows]))
    return {name: key for name, key in session.exec(query.order_by(col(Revision.id))).all() if name}

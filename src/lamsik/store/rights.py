"""What may be sold: a shape, what is cast of it, a scheme or a stencil not for sale is on no order."""

from typing import Any

from sqlmodel import Session, col, select

from lamsik.core.errors import require
from lamsik.core.shapes.sources import MOST_NOTE, NOT_FOR_SALE, Source
from lamsik.store import documents, moulds, stores
from lamsik.store.search import fold
from lamsik.store.tables import Document, PaintTool

SCHEMES, STENCILS = "schemes", "stencils"


def why_not(session: Session, document_id: int | None) -> str:
    """Why what is made from a document may be on no order; empty where it may."""
    row = session.get(Document, document_id) if document_id else None
    if row is None:
        return ""
    if row.kind == "body":
        return moulds.not_for_sale(session, {"body_id": row.id}) or _cut_for(session, row.id or 0)
    if row.kind == "scheme":
        return of_scheme(session, row.code)
    said = documents.content(session, row).get("source") or {}
    return "" if Source(**said).may_sell else Source(**said).describe()


def of_scheme(session: Session, code: str) -> str:
    """Why a scheme may be on no order, by its code: it is not for sale, or it has a layer that is called as a
    stencil that is not; empty where it may.
    """
    held = kept(session, SCHEMES)
    if code in held:
        return said(held[code])
    stencils = _stencils(session)
    row = documents.coded(session, "scheme", code) if stencils else None
    layers = documents.content(session, row)["layers"] if row is not None else []
    for layer in layers:
        for tool, why in stencils:
            if fold(str(layer.get("name", ""))) == fold(tool.name):
                return f"{said(why)} (the stencil {tool.name})"
    return ""


def _cut_for(session: Session, body_id: int) -> str:
    """Why a body may be on no order for a stencil that was cut for it."""
    for tool, why in _stencils(session):
        if tool.body_id == body_id:
            return f"{said(why)} (the stencil {tool.name})"
    return ""


def said(why: str) -> str:
    """Why something is not for sale, in words."""
    return Source(NOT_FOR_SALE, why).describe()


def _stencils(session: Session) -> list[tuple[PaintTool, str]]:
    held = kept(session, STENCILS)
    rows = (
        session.exec(select(PaintTool).where(col(PaintTool.id).in_([int(key) for key in held]))).all()
        if held
        else ()
    )
    return [(row, held[str(row.id)]) for row in rows]


def kept(session: Session, what: str) -> dict[str, Any]:
    """What of the shop's schemes, or stencils, is not for sale, and why: by code, or by id."""
    why_by_key: dict[str, Any] = stores.setting(session, "not_sold")[what]
    return why_by_key


def keep(session: Session, what: str, key: str, may_sell: bool, note: str) -> None:
    """A scheme or a stencil may be sold, or not and why. Raises `Refused` for too long a reason."""
    require(len(note) <= MOST_NOTE, "note", f"{len(note)} letters", f"at most {MOST_NOTE} letters")
    held = {one: why for one, why in kept(session, what).items() if one != key}
    if not may_sell:
        held[key] = note.strip()
    stores.put_setting(session, "not_sold", {**stores.setting(session, "not_sold"), what: held})

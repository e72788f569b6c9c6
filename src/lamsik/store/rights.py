"""What may be sold: a shape, what is cast of it, or a scheme that is not for sale is on no order."""

from typing import Any

from sqlmodel import Session

from lamsik.core.errors import require
from lamsik.core.shapes.sources import MOST_NOTE, NOT_FOR_SALE, Source
from lamsik.store import documents, moulds, stores
from lamsik.store.tables import Document


def why_not(session: Session, document_id: int | None) -> str:
    """Why what is made from a document may be on no order; empty where it may."""
    row = session.get(Document, document_id) if document_id else None
    if row is None:
        return ""
    if row.kind == "body":
        return moulds.not_for_sale(session, {"body_id": row.id})
    if row.kind == "scheme":
        return of_scheme(session, row.code)
    said = documents.content(session, row).get("source") or {}
    return "" if Source(**said).may_sell else Source(**said).describe()


def of_scheme(session: Session, code: str) -> str:
    """Why a scheme may be on no order, by its code; empty where it may."""
    held: dict[str, Any] = stores.setting(session, "not_sold")["schemes"]
    return Source(NOT_FOR_SALE, held[code]).describe() if code in held else ""


def keep_scheme(session: Session, row: Document, may_sell: bool, note: str) -> None:
    """A scheme may be sold, or not and why. Raises `Refused` for too long a reason."""
    require(len(note) <= MOST_NOTE, "note", f"{len(note)} letters", f"at most {MOST_NOTE} letters")
    others = {
        key: why for key, why in stores.setting(session, "not_sold")["schemes"].items() if key != row.code
    }
    held = others if may_sell else {**others, row.code: note.strip()}
    stores.put_setting(session, "not_sold", {"schemes": held})

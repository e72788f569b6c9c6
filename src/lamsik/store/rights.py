"""What may be sold: a shape, a mould's, a scheme or a stencil that is not for sale is on no order."""

from sqlmodel import Session

from lamsik.core.shapes.sources import NOT_FOR_SALE, Source
from lamsik.store import documents, moulds
from lamsik.store.tables import Document


def why_not(session: Session, document_id: int | None) -> str:
    """Why what is made from a document may be on no order; empty where it may."""
    row = session.get(Document, document_id) if document_id else None
    if row is None:
        return ""
    if row.kind == "body":
        return moulds.not_for_sale(session, {"body_id": row.id})
    said = documents.content(session, row).get("source") or {}
    if isinstance(said, str):
        return Source(said).describe() if said == NOT_FOR_SALE else ""
    return "" if Source(**said).may_sell else Source(**said).describe()

"""Copies, and deleting that can be undone: designs, floats, moulds, products, schemes and orders are put
away, not destroyed.
"""

from flask import Blueprint, flash, redirect, url_for
from flask.typing import ResponseReturnValue

from lamsik.store import documents, stands
from lamsik.store.tables import Document, Order, Piece, now
from lamsik.web.shared.db import db, load_document


def put_away(
    row: Document | Order | Piece, way: str, gone_to: str, back_to: str, undo: str
) -> ResponseReturnValue:
    """Delete the row with a notice that carries its undo, or bring it back."""
    row.deleted_at = now() if way == "delete" else None
    db().add(row)
    if isinstance(row, Piece):
        stands.anew(db(), row)
    if way != "delete":
        return redirect(back_to)
    flash(f"{row.name if isinstance(row, Document) else row.number} is deleted.", f"undo:{undo}")
    return redirect(gone_to)


def keep_documents(blueprint: Blueprint, kind: str, index: str, page: str, stem: str = "") -> None:
    """Give a bench the routes `put_away` and, with a stem for the codes of copies, `copy` of its documents.

    Args:
        blueprint: the bench's; its documents are at `/<key>`.
        kind: the kind of document.
        index: endpoint of the list that is shown once one is gone.
        page: endpoint of a document's own page.
        stem: letter of its codes; none, no copies.
    """
    undo = f"{blueprint.name}.put_away"

    @blueprint.post("/<int:key>/<any(delete, bring_back):way>", endpoint="put_away")
    def _put_away(key: int, way: str) -> ResponseReturnValue:
        row = load_document(kind, key, deleted=True)
        return put_away(
            row, way, url_for(index), url_for(page, key=key), url_for(undo, key=key, way="bring_back")
        )

    if not stem:
        return

    @blueprint.post("/<int:key>/copy", endpoint="copy")
    def _copy(key: int) -> ResponseReturnValue:
        content = documents.content(db(), load_document(kind, key))
        made = documents.create(
            db(),
            kind,
            documents.next_code(db(), kind, stem),
            {**content, "name": f"{content['name']} copy"[:120]},
        )
        return redirect(url_for(page, key=made.id))

"""Deleting that can be undone: designs, schemes and orders are put away, not destroyed."""

from flask import flash, redirect
from flask.typing import ResponseReturnValue

from lamsik.store.tables import Document, Order, now
from lamsik.web.shared.db import db


def put_away(row: Document | Order, way: str, gone_to: str, back_to: str, undo: str) -> ResponseReturnValue:
    """Delete the row with a notice that carries its undo, or bring it back."""
    row.deleted_at = now() if way == "delete" else None
    db().add(row)
    if way != "delete":
        return redirect(back_to)
    flash(f"{row.name if isinstance(row, Document) else row.number} is deleted.", f"undo:{undo}")
    return redirect(gone_to)

"""Copies, files in and out, and deleting that can be undone, once for all kinds of document; orders and
pieces are put away in the same way.
"""

from collections.abc import Callable
from typing import Any

from flask import Blueprint, flash, redirect, render_template, request, url_for
from flask.typing import ResponseReturnValue

from lamsik.documents.registry import KINDS
from lamsik.formats import document_file
from lamsik.store import documents, events, references, stands
from lamsik.store.paging import Page
from lamsik.store.tables import Document, Order, Piece, Revision, StockItem, Supplier, now
from lamsik.web.shared import whole
from lamsik.web.shared.db import db, load_document, sent_base
from lamsik.web.shared.files import as_file, named
from lamsik.web.shared.lists import asked_page

MOST_REVISIONS = 24
"""Revisions on one page."""


def put_away(
    row: Document | Order | Piece, way: str, gone_to: str, back_to: str, undo: str
) -> ResponseReturnValue:
    """Delete the row with a notice that carries its undo, or bring it back."""
    if way == "delete":
        row.deleted_at = now()
        db().add(row)
    elif row.deleted_at is not None:
        events.bring_back(db(), row)
    if isinstance(row, Piece):
        stands.anew(db(), row)
    if way != "delete":
        return redirect(back_to)
    flash(
        f"{row.name if isinstance(row, Document) else row.number} is deleted.{_used_by(row)}", f"undo:{undo}"
    )
    return redirect(gone_to)


def off_the_list(
    row: StockItem | Supplier, way: str, gone_to: str, back_to: str, undo: str, stays: str = ""
) -> ResponseReturnValue:
    """Take the row off its list with a notice that carries its undo, or put it back on."""
    row.deleted_at = now() if way == "put_away" else None
    db().add(row)
    if way == "bring_back":
        return redirect(back_to)
    flash(f"{row.name} is off the list{stays}.", f"undo:{undo}")
    return redirect(gone_to)


def _used_by(row: Document | Order | Piece) -> str:
    """Who names a document that is deleted."""
    names = [one.name for one in references.naming(db(), row)] if isinstance(row, Document) else []
    if not names:
        return ""
    more = f" and {len(names) - 1} more" if len(names) > 1 else ""
    return f" {names[0]}{more} {'use' if more else 'uses'} it."


def file_text(row: Document) -> str:
    """The file of a document: its kind's own JSON."""
    return document_file.write(KINDS[row.kind], documents.content(db(), row))


def keep_documents(
    blueprint: Blueprint,
    kind: str,
    index: str,
    page: str,
    file: Callable[[Document], str] = file_text,
    copies: bool = True,
    opens: str = "",
) -> None:
    """Give a bench the routes `put_away`, `export`, `copy`, `revisions` and `go_back` of its documents.

    Args:
        blueprint: the bench's; its documents are at `/<key>`.
        kind: the kind of document.
        index: endpoint of the list that is shown once one is gone.
        page: endpoint of a document's own page.
        file: what its file holds.
        copies: whether one can be copied.
        opens: endpoint that shows one revision, where there is one.
    """
    undo = f"{blueprint.name}.put_away"

    @blueprint.post("/<int:key>/<any(delete, bring_back):way>", endpoint="put_away")
    def _put_away(key: int, way: str) -> ResponseReturnValue:
        row = load_document(kind, key, deleted=True)
        return put_away(
            row, way, url_for(index), url_for(page, key=key), url_for(undo, key=key, way="bring_back")
        )

    @blueprint.get(f"/<int:key>/{kind}.json", endpoint="export")
    def _export(key: int) -> ResponseReturnValue:
        row = load_document(kind, key)
        return as_file(file(row), f"{named(row)}.json", "application/json")

    @blueprint.get("/<int:key>/revisions", endpoint="revisions")
    def _revisions(key: int) -> str:
        row = load_document(kind, key)
        return render_template(
            "shared/revisions.html",
            row=row,
            page=revisions_page(row),
            back=url_for(page, key=key),
            go_back=f"{blueprint.name}.go_back",
            opens=opens,
        )

    @blueprint.post("/<int:key>/revisions/<int:number>", endpoint="go_back")
    def _go_back(key: int, number: int) -> ResponseReturnValue:
        return gone_back(load_document(kind, key), number, url_for(page, key=key))

    if not copies:
        return

    @blueprint.post("/<int:key>/copy", endpoint="copy")
    def _copy(key: int) -> ResponseReturnValue:
        content = documents.content(db(), load_document(kind, key))
        copied = documents.begin(db(), kind, {**content, "name": f"{content['name']} copy"[:120]})
        return redirect(url_for(page, key=copied.id))


def revisions_page(row: Document) -> Page[Revision]:
    """The revisions of a document that are on the page asked for, the newest first."""
    return asked_page(documents.revisions(row), MOST_REVISIONS)


def gone_back(row: Document, number: int, to: str) -> ResponseReturnValue:
    """Make an earlier revision the newest again; nothing between is lost."""
    revision = documents.revision(db(), row, number)
    documents.save(db(), row, revision.content, sent_base(row), f"back to revision {number}")
    flash(f"Revision {number} is current again. Undo brings back what was.")
    return redirect(to)


def brought_in(
    kind: str, show: Callable[[Document], object], fits: Callable[[dict[str, Any]], object] | None = None
) -> Document:
    """The document of the file that was sent, kept once all that its page shows was computed.

    Args:
        kind: the kind of document.
        show: computes what its page shows.
        fits: looks at its content before it is kept.

    Raises:
        Refused: it is none, or cannot be shown; nothing is kept then.
    """
    sent = request.files.get("file")
    content = document_file.read(KINDS[kind], sent.read() if sent else b"")
    if fits is not None:
        fits(content)
    note = f"brought in from {sent.filename if sent else 'a file'}"[:120]
    return whole.kept_if_shown(lambda: documents.begin(db(), kind, content, note), show)

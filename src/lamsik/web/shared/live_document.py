"""The live exchange of kinds of document whose edits need little of the shop: schemes, products, blades,
paints. Edits in, what the page shows out; saving, undo, redo. The same talk as for bodies (see bodies/live.py
for the fields).
"""

from collections.abc import Callable
from dataclasses import dataclass
from typing import Any

from flask import Blueprint
from flask.typing import ResponseReturnValue

from lamsik.documents.engine import apply
from lamsik.documents.registry import KINDS
from lamsik.store import documents
from lamsik.store.tables import Document
from lamsik.web.shared import exchange
from lamsik.web.shared.db import db, load_document
from lamsik.web.shared.exchange import Content, State


@dataclass(frozen=True)
class Looking:
    """How a page looks at its document: two words of its own, and whether something is being dragged."""

    looks: str = ""
    facing: str = ""
    is_moving: bool = False


def exchanged(
    blueprint: Blueprint,
    kind: str,
    bench: str,
    view: Callable[[Content, Looking], State],
    shop: Callable[[], Any] = lambda: None,
) -> Callable[[Document], State]:
    """Give a bench the routes `live` and `step_back` of its documents.

    Args:
        blueprint: the bench's; its documents are at `/<key>`.
        kind: the kind of document.
        bench: what its pages call themselves.
        view: the computed part of the state of a document, as it is looked at.
        shop: what its edits take from the shop.

    Returns:
        What gives the whole state of a saved document, as its page starts with it.
    """
    of = KINDS[kind]

    def current(row: Document) -> dict[str, Any]:
        document = documents.content(db(), row)
        return {
            "id": row.id,
            "code": row.code,
            "bench": bench,
            "root": blueprint.url_prefix,
            "base": row.current,
            "saved": True,
            "document": document,
            "view": view(document, Looking()),
            "errors": [],
        }

    @blueprint.post("/<int:key>/live", endpoint="live")
    def _live(key: int) -> ResponseReturnValue:
        row, asked = load_document(kind, key), exchange.asked_for()
        sight = Looking(
            str(asked.get("looks") or ""), str(asked.get("facing") or ""), not exchange.is_settled(asked)
        )
        answer = exchange.shown(
            of.schema.checked(asked.get("document")),
            exchange.edits_of(asked),
            lambda content, edit: apply(of, content, edit, shop()),
            lambda content: view(content, sight),
        )
        return exchange.answer(asked, row, *answer)

    @blueprint.post("/<int:key>/<any(undo, redo):way>", endpoint="step_back")
    def _step_back(key: int, way: str) -> ResponseReturnValue:
        return exchange.step(load_document(kind, key), way, current)

    return current

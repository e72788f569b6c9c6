"""The live exchange that pages of documents have in common: edits in, refusals beside them, saving, undo
and redo.
"""

from collections.abc import Callable, Mapping
from typing import Any

from flask import jsonify, request
from flask.typing import ResponseReturnValue

from lamsik.core.errors import Refused, finite_between
from lamsik.documents.engine import LOCKED
from lamsik.store import documents
from lamsik.store.tables import Document
from lamsik.web.shared import lean
from lamsik.web.shared.db import db, in_short
from lamsik.words import refusals

MOST_EDITS = 200
Content = dict[str, Any]
State = dict[str, Any]


def asked_for() -> State:
    """The request's object. Raises `Refused` for anything else."""
    asked = request.get_json()
    if not isinstance(asked, dict):
        raise Refused("request", type(asked).__name__, "an object is needed")
    return asked


def edits_of(asked: Mapping[str, Any]) -> list[State]:
    """The edits that were sent. Raises `Refused` unless they are a list of objects, and not too many."""
    edits = asked.get("edits") or []
    if (
        not isinstance(edits, list)
        or not all(isinstance(edit, dict) for edit in edits)
        or len(edits) > MOST_EDITS
    ):
        raise Refused("edits", type(edits).__name__, f"a list of at most {MOST_EDITS} objects is needed")
    return edits


def edited(
    document: Content, edits: list[State], apply: Callable[[Content, State], Content]
) -> tuple[Content, list[State]]:
    """The document with the edits that could be made, and the refusals of the others."""
    refused: list[State] = []
    for edit in edits:
        try:
            document = apply(document, edit)
        except Refused as error:
            refused.append(errors_of(error, str(edit.get("path", ""))) | _asked(error, edit))
    return document, refused


def _asked(error: Refused, edit: State) -> State:
    """What is asked where a refused edit may be confirmed: the words of the button, and the edit it sends."""
    if error.allowed != LOCKED:
        return {}
    return {
        "asks": f"{error.given} is locked, so that it stays as it is while others change.",
        "ask": f"Change {error.given} all the same",
        "edit": {**edit, "though": error.given},
    }


def shown(
    document: Content,
    edits: list[State],
    apply: Callable[[Content, State], Content],
    view: Callable[[Content], State],
) -> tuple[Content, list[State], State]:
    """The document after the edits, their refusals, and what the page shows of it; edits that leave nothing
    to show are refused too.

    Raises:
        Refused: the document as it was sent cannot be shown.
    """
    changed, refused = edited(document, edits, apply)
    try:
        return changed, refused, view(changed)
    except Refused as error:
        if not edits:
            raise
        return document, [*refused, errors_of(error, str(edits[-1].get("path", "")))], view(document)


def errors_of(error: Refused, path: str = "") -> dict[str, str]:
    """A refusal as the screens show it beside the field that was edited; where another than that is wrong
    it is named. Its lengths are in the shop's unit.
    """
    own = not path or path.endswith(error.field)
    return {
        "field": path or error.field,
        "message": refusals.beside(error) if own else refusals.says(error),
        "says": refusals.says(error),
    }


def base_of(asked: Mapping[str, Any]) -> int:
    """The revision the sent document was loaded from."""
    return int(finite_between("base", asked.get("base", 0), 0, 1e9))


def is_settled(asked: Mapping[str, Any]) -> bool:
    """Whether everything is to be computed: a drag is a preview."""
    return asked.get("mode") != "drag"


def answer(
    asked: Mapping[str, Any], row: Document, document: Content, refused: list[State], view: State
) -> ResponseReturnValue:
    """Save if asked for, and what the page shows; a drag leaves the document on the page as it was picked
    up.
    """
    save, base = bool(asked.get("save")), base_of(asked)
    if save:
        base = in_short(
            lambda session: documents.save(session, session.get_one(Document, row.id), document, base).number
        )
    said: State = {"base": base, "saved": save, "errors": refused, "view": sent(view, asked)}
    return jsonify(said | {"document": document} if is_settled(asked) else said)


def sent(view: State, asked: Mapping[str, Any]) -> State:
    """A view as it goes to the page: what the page says it has is named only."""
    if "has" not in asked:
        return view
    has = lean.names(asked["has"])
    return {key: lean.lean(value, has) for key, value in view.items()}


def step(row: Document, way: str, current: Callable[[Document], State]) -> ResponseReturnValue:
    """Undo or redo one revision, of the one that the page names, and answer with the state it brings."""
    asked = request.get_json(silent=True) or {}
    named = base_of(asked)
    if named and named != row.current:
        raise documents.Stale(f"revision {row.current} is current by now, not {named}")
    moved = documents.undo(db(), row) if way == "undo" else documents.redo(db(), row)
    problems = [] if moved else [{"field": "", "message": f"Nothing to {way}."}]
    now_current = current(row)
    return jsonify(
        {**now_current, "view": sent(now_current["view"], asked), "moved": moved, "errors": problems}
    )

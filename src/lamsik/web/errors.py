"""Errors as pages in the app's look, or as one JSON shape, logged with an id the user sees."""

import logging
import secrets

from flask import Flask, Response, jsonify, make_response, render_template, request
from sqlalchemy.exc import OperationalError
from werkzeug.exceptions import HTTPException

from lamsik.core.errors import Refused
from lamsik.store.documents import Stale
from lamsik.web.shared.db import rollback_session

log = logging.getLogger("lamsik")

NEXT = {
    400: "Go back and try again; if it was a form, open its page anew.",
    403: "Open the shop on its own machine.",
    404: "It may have been deleted: look in Today, or search for it above.",
    405: "Use the buttons on the page.",
    413: "Photos up to 25 MB, meshes and body files up to 60 MB and anything else up to 2 MB can be brought in.",
    429: "Wait a minute, then try again.",
    507: "Free some disk space, then repeat the last step. What was saved before is whole.",
}


def install(app: Flask) -> None:
    """Register the handlers."""
    app.register_error_handler(HTTPException, _http)
    app.register_error_handler(Refused, _refused)
    app.register_error_handler(Stale, _stale)
    app.register_error_handler(OperationalError, _database)
    app.register_error_handler(Exception, _unexpected)


def wants_json() -> bool:
    """Whether the caller is a script of ours or another program."""
    return request.is_json or request.accept_mimetypes.best == "application/json"


def answer(status: int, message: str, refused: Refused | None = None) -> Response:
    """The error in the shape the caller wants; logs it and carries its id."""
    rollback_session()
    mark = secrets.token_hex(4)
    log.log(logging.ERROR if status >= 500 else logging.INFO, "%s %s %s: %s [%s]", status, request.method, request.path, message, mark)
    if wants_json():
        body = {"message": message, "field": refused.field if refused else None, "allowed": refused.allowed if refused else None, "id": mark}
        return make_response(jsonify(error=body), status)
    return make_response(render_template("shared/error.html", status=status, message=message, next=NEXT.get(status, "Go back and try again."), mark=mark), status)


def _http(error: HTTPException) -> Response:
    if error.code is not None and 300 <= error.code < 400:
        return make_response(error.get_response())
    plain = {404: "There is nothing at this address.", 405: "This address does not take that.", 413: "That is too large."}
    return answer(error.code or 500, plain.get(error.code or 500, error.description or "Something went wrong."))


def _refused(error: Refused) -> Response:
    return answer(422, error.says, error)


def _stale(error: Stale) -> Response:
    return answer(409, f"This was changed elsewhere meanwhile: {error}. Reload the page and make the last change again.")


def _database(error: OperationalError) -> Response:
    log.exception("database")
    if "full" in str(error).lower() or "disk i/o" in str(error).lower():
        return answer(507, "The disk is full.")
    return answer(503, "The shop's database is busy or cannot be read.")


def _unexpected(error: Exception) -> Response:
    log.exception("unexpected")
    return answer(500, "Something went wrong in the program. Nothing that was saved is lost.")

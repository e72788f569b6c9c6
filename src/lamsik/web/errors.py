"""Errors as pages in the app's look, or as one JSON shape, logged with an id the user sees."""

import errno
import logging
import secrets

from flask import Flask, Response, g, jsonify, make_response, render_template, request, session
from sqlalchemy.exc import IntegrityError, OperationalError, SQLAlchemyError
from werkzeug.exceptions import HTTPException

from lamsik.core.errors import Refused
from lamsik.store.documents import Missing, Stale
from lamsik.web.shared.db import keep, rollback_session
from lamsik.web.shared.once import remember
from lamsik.web.shared.whole import WAYS, Broken, way_out
from lamsik.words import refusals

log = logging.getLogger("lamsik")

NEXT = {
    400: "Go back and try again; if it was a form, open its page anew.",
    403: "Open the shop on its own machine.",
    404: "It may have been deleted: look in Today, or search for it above.",
    405: "Use the buttons on the page.",
    413: (
        "Photos up to 25 MB, drawings up to 10 MB, body files up to 60 MB, meshes up to 110 MB and anything"
        " else up to 2 MB can be brought in."
    ),
    429: "Wait a minute, then try again.",
    503: (
        "Wait a moment and repeat the last step: something else writes to the shop, or its folder cannot be"
        " written."
    ),
    507: "Free some disk space, then repeat the last step. What was saved before is whole.",
}


def install(app: Flask) -> None:
    """Register the handlers."""
    app.register_error_handler(HTTPException, _http)
    app.register_error_handler(Refused, _refused)
    app.register_error_handler(Stale, _stale)
    app.register_error_handler(Missing, _missing)
    app.register_error_handler(OperationalError, _database)
    app.register_error_handler(IntegrityError, _not_there)
    app.register_error_handler(OSError, _files)
    app.register_error_handler(Exception, _unexpected)


def wants_json() -> bool:
    """Whether the caller is a script of ours or another program."""
    return request.is_json or request.accept_mimetypes.best == "application/json"


def answer(status: int, message: str, refused: Refused | None = None) -> Response:
    """The error in the shape the caller wants; logs it and carries its id."""
    rollback_session()
    g.failed = True  # the page that says so asks the database for nothing
    mark = secrets.token_hex(4)
    log.log(
        logging.ERROR if status >= 500 else logging.INFO,
        "%s %s %s: %s [%s]",
        status,
        request.method,
        request.path,
        message,
        mark,
    )
    if wants_json():
        body = {
            "message": message,
            "field": refused.field if refused else None,
            "allowed": refusals.allowed(refused) if refused else None,
            "id": mark,
        }
        return make_response(jsonify(error=body), status)
    return make_response(
        render_template(
            "shared/error.html",
            status=status,
            message=message,
            next=NEXT.get(status, "Go back and try again."),
            mark=mark,
        ),
        status,
    )


def _http(error: HTTPException) -> Response:
    if error.code is not None and 300 <= error.code < 400:
        return make_response(error.get_response())
    plain = {
        404: "There is nothing at this address.",
        405: "This address does not take that.",
        413: "That is too large.",
    }
    return answer(
        error.code or 500, plain.get(error.code or 500, error.description or "Something went wrong.")
    )


def _refused(error: Refused) -> Response:
    broken = way_out(error)
    return _broken(broken) if broken else answer(422, refusals.says(error), error)


def _broken(broken: Broken) -> Response:
    """A document's own page that cannot be shown: what is wrong with it, its file, its deletion."""
    log.warning("%s %s cannot be shown", broken.row.kind, broken.row.code, exc_info=True)
    rollback_session()
    g.failed = True
    own, file, away = WAYS[broken.row.kind]
    return make_response(render_template("shared/broken.html", broken=broken, file=file, away=away), 422)


def _stale(error: Stale) -> Response:
    return answer(
        409,
        f"This was changed elsewhere meanwhile: {error.elsewhere}. Reload the page and make the last change"
        " again.",
    )


def _missing(error: Missing) -> Response:
    return answer(404, f"There is no {error}.")


def _not_there(error: IntegrityError) -> Response:
    """Between the look and the save another page took away what is named; the database keeps itself whole."""
    log.exception("integrity", exc_info=error)
    return answer(
        409, "It names something that is not in the shop any more. Reload the page and choose again."
    )


def _database(error: OperationalError) -> Response:
    log.exception("database")
    says = str(error.orig).lower()
    if "full" in says or "disk i/o" in says:
        return answer(507, "The disk is full.")
    if "readonly" in says or "read-only" in says or "unable to open" in says:
        return answer(
            503,
            "The shop's folder cannot be written: its disk is read-only, or its files belong to someone"
            " else.",
        )
    if "locked" in says or "busy" in says:
        return answer(503, "The shop is busy: something else is writing to it.")
    return answer(503, "The shop's database cannot be read.")


def _files(error: OSError) -> Response:
    """A file of the shop that cannot be written or read: the same words as for its database."""
    if error.errno in (errno.ENOSPC, errno.EDQUOT):
        log.exception("files")
        return answer(507, "The disk is full.")
    if error.errno in (errno.EROFS, errno.EACCES, errno.EPERM):
        log.exception("files")
        return answer(
            503,
            "The shop's folder cannot be written: its disk is read-only, or its files belong to someone"
            " else.",
        )
    return _unexpected(error)


def committed(response: Response) -> Response:
    """The response, once what it did is kept; else the error, and nothing that was to be said about it."""
    try:
        remember(response)
        keep(response)
    except OperationalError as error:
        session.pop("_flashes", None)
        return _database(error)
    except SQLAlchemyError as error:
        session.pop("_flashes", None)
        return _unexpected(error)
    return response


def _unexpected(error: Exception) -> Response:
    broken = None if wants_json() else way_out(error)
    if broken:
        return _broken(broken)
    log.exception("unexpected")
    return answer(500, "Something went wrong in the program. Nothing that was saved is lost.")

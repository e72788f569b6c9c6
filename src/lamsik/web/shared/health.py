"""Whether the shop is up: for scripts."""

from flask import Blueprint, current_app, jsonify
from flask.typing import ResponseReturnValue
from sqlalchemy.exc import SQLAlchemyError

from lamsik import __version__
from lamsik.store.database import is_current

blueprint = Blueprint("health", __name__)


@blueprint.get("/healthz")
def healthz() -> ResponseReturnValue:
    """200 when the database is reachable and migrated, else 503."""
    try:
        current = is_current(current_app.extensions["engine"])
    except SQLAlchemyError:
        return jsonify(status="database unreachable", version=__version__), 503
    return jsonify(status="ok" if current else "not migrated", version=__version__), 200 if current else 503

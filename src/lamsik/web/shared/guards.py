"""What no address has to think of: ids that no row can have, JSON where a form is meant, text that no
field can hold.
"""

from flask import Flask, abort, request
from werkzeug.exceptions import BadRequest
from werkzeug.routing import IntegerConverter

TAKES_JSON = (
    "shapes_bring.mesh_body",
    "shapes_trace.outline",
    "tank_live.answers",
    "tank_live.trials",
    "tank_live.pictures",
)
"""Endpoints that take an object, beside the live exchange of every kind of document (`live` and `step_back`
of a bench); to all others only an empty one may be sent, as a press of a button.
"""

MOST_DEPTH = 60
"""Lists in lists deeper than this are no document of ours."""


class Id(IntegerConverter):
    """A row's id, as far as the database counts."""

    regex = r"\d{1,18}"


def install(app: Flask) -> None:
    """Before any route is made."""
    app.url_map.converters["int"] = Id
    app.before_request(_check)


def _check() -> None:
    if request.method != "POST":
        return
    if request.is_json:
        _check_json()
    elif any("\x00" in text or _is_torn(text) for text in (*request.form.values(), *request.form)):
        abort(400, "That text holds characters that cannot be kept.")


def _check_json() -> None:
    try:
        sent = request.get_json()
    except (BadRequest, RecursionError, ValueError):
        abort(400, "That is no JSON that can be read.")
    if not isinstance(sent, dict):
        abort(400, "An object is needed.")
    if sent and not _takes_json(request.endpoint or ""):
        abort(415, "This address takes a form.")
    if _depth(sent) > MOST_DEPTH or "\\u0000" in request.get_data(as_text=True):
        abort(400, "That is no document of ours.")


def _depth(value: object) -> int:
    """How many lists and objects lie in one another."""
    deep, level = 0, [value]
    while level and deep <= MOST_DEPTH:
        deep += 1
        level = [
            inner
            for one in level
            if isinstance(one, dict | list)
            for inner in (one.values() if isinstance(one, dict) else one)
        ]
    return deep


def _is_torn(text: str) -> bool:
    return any("\ud800" <= letter <= "\udfff" for letter in text)


def _takes_json(endpoint: str) -> bool:
    return endpoint.endswith((".live", ".step_back")) or endpoint in TAKES_JSON

"""What this request says its quantities in: as the page was made that asks, else as this browser wants it,
else as the shop does.
"""

from flask import Flask, g, request

from lamsik.core.quantities import METRIC, UnitChoice, choice_of, choose, coded
from lamsik.store import stores
from lamsik.web.shared.db import db

FIELD = "units_said"
"""In a form: the units its fields show, so that a bare number means what stood beside it."""

HEADER = "Lamsik-Units"
"""The same, of a page that asks by script."""

COOKIE = "units"
"""What a guest's browser wants, whatever the shop has."""


def install(app: Flask) -> None:
    """Choose before every request."""
    app.before_request(_choose)
    app.teardown_request(lambda error: choose(METRIC))


def shops() -> UnitChoice:
    """The shop's own choice."""
    return choice_of(stores.setting(db(), "units"))


def _choose() -> None:
    if request.endpoint == "static" or g.get("failed"):
        return
    said = request.headers.get(HEADER, "") or request.form.get(FIELD, "") if request.method == "POST" else ""
    choose(coded(said) or coded(request.cookies.get(COOKIE, "")) or shops())

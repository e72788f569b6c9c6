"""A client on a demo shop or an empty one; forms are sent with their token as a browser would."""

import re
from functools import cache

import pytest
from jinja2 import FileSystemBytecodeCache

from lamsik.store.database import FILE_NAME
from lamsik.web.app import create_app
from lamsik.web.lan.pairing import Pairings
from tests.shops import movable, moved

COMPILED = FileSystemBytecodeCache()
"""Templates compiled once for all the shops of all workers; what was changed since is compiled anew."""


class Page:
    """An answer whose text is read as a browser shows it: any space is one space."""

    @property
    def text(self):
        text = self.get_data(as_text=True)
        return " ".join(text.split()) if self.mimetype == "text/html" else text


class Visitor:
    """A browser without JavaScript: keeps the token of the last page."""

    def __init__(self, app, **environment):
        self.http = app.test_client()
        self.http.response_wrapper = type("Shown", (Page, self.http.response_wrapper), {})
        self.environment = environment
        self._token = ""

    def token(self, page):
        """The token that forms are sent with: a browser keeps that of its last page."""
        if not self._token:
            self._token = re.search(r'name="csrf-token" content="([^"]+)"', self.get(page).text).group(1)
        return self._token

    def was_here(self, before):
        """Has the cookie and the token of one that was here before."""
        name = self.http.application.config["SESSION_COOKIE_NAME"]
        self.http.set_cookie(name, before.http.get_cookie(name).value)
        self._token = before.token("/mixes/clocks")

    def get(self, url, **more):
        return self.http.get(url, environ_base=self.environment, **more)

    def post(self, url, data=None, page="/mixes/clocks", **more):
        return self.http.post(
            url, data={"csrf_token": self.token(page), **(data or {})}, environ_base=self.environment, **more
        )

    def send(self, url, body, page="/mixes/clocks"):
        return self.http.post(
            url, json=body, headers={"X-CSRFToken": self.token(page)}, environ_base=self.environment
        )


@pytest.fixture(scope="session")
def application(tmp_path_factory):
    """The application, put together once for a worker: its routes take longer to build than most tests to
    run. So do its questions to the database, which an engine keeps: it opens the shop that is visited.
    """
    app = create_app(tmp_path_factory.mktemp("first"))
    app.jinja_env.bytecode_cache = COMPILED

    engine = app.extensions["engine"]
    movable(engine)
    yield app
    engine.dispose()


@cache
def earlier(app):
    """The first that visits, whose cookie and token hold for those after it: one key signs them."""
    visitor = Visitor(app)
    visitor.token("/mixes/clocks")
    return visitor


def visit(app, home, monkeypatch):
    """The application on another shop, and who was here before."""
    before = earlier(app)
    moved(app.extensions["engine"], home / FILE_NAME)
    monkeypatch.setitem(app.config, "HOME", home)
    monkeypatch.setitem(app.extensions, "pairings", Pairings(home))
    visitor = Visitor(app)
    visitor.was_here(before)
    return visitor


@pytest.fixture
def demo(demo_home, application, monkeypatch):
    yield visit(application, demo_home, monkeypatch)
    application.extensions["engine"].dispose()


@pytest.fixture
def empty(stocked_home, application, monkeypatch):
    yield visit(application, stocked_home, monkeypatch)
    application.extensions["engine"].dispose()

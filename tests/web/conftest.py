"""A client on a demo shop or an empty one; forms are sent with their token as a browser would."""

import atexit
import re
import shutil
import tempfile

import pytest
from jinja2 import FileSystemBytecodeCache

from lamsik.store.database import open_database, session_of
from lamsik.store.starter import stock
from lamsik.web.app import create_app
from lamsik.web.lan.pairing import Pairings

_FOLDER = tempfile.mkdtemp(prefix="lamsik-templates-")
atexit.register(shutil.rmtree, _FOLDER, ignore_errors=True)
COMPILED = FileSystemBytecodeCache(_FOLDER)
"""Templates compiled once for all the shops of a test run's worker."""


class Visitor:
    """A browser without JavaScript: keeps the token of the last page."""

    def __init__(self, app, **environment):
        self.http = app.test_client()
        self.environment = environment

    def get(self, url, **more):
        return self.http.get(url, environ_base=self.environment, **more)

    def post(self, url, data=None, page="/mixes/clocks", **more):
        token = re.search(r'name="csrf-token" content="([^"]+)"', self.get(page).text).group(1)
        return self.http.post(url, data={"csrf_token": token, **(data or {})}, environ_base=self.environment, **more)

    def send(self, url, body, page="/mixes/clocks"):
        token = re.search(r'name="csrf-token" content="([^"]+)"', self.get(page).text).group(1)
        return self.http.post(url, json=body, headers={"X-CSRFToken": token}, environ_base=self.environment)


@pytest.fixture(scope="session")
def application(tmp_path_factory):
    """The application, put together once for a worker: its routes take longer to build than most tests to run."""
    app = create_app(tmp_path_factory.mktemp("first"))
    app.jinja_env.bytecode_cache = COMPILED
    yield app
    app.extensions["engine"].dispose()


def visit(app, home, monkeypatch):
    """The application on another shop."""
    monkeypatch.setitem(app.config, "HOME", home)
    monkeypatch.setitem(app.extensions, "engine", open_database(home))
    monkeypatch.setitem(app.extensions, "pairings", Pairings(home))
    return Visitor(app)


@pytest.fixture
def demo(demo_home, application, monkeypatch):
    yield visit(application, demo_home, monkeypatch)
    application.extensions["engine"].dispose()


@pytest.fixture
def empty(tmp_path, application, monkeypatch):
    visitor = visit(application, tmp_path / "empty", monkeypatch)
    with session_of(application.extensions["engine"]) as session:
        stock(session)
    yield visitor
    application.extensions["engine"].dispose()

"""A client on a demo shop or an empty one; forms are sent with their token as a browser would."""

import re

import pytest

from lamsik.store.database import session_of
from lamsik.store.starter import stock
from lamsik.web.app import create_app


class Visitor:
    """A browser without JavaScript: keeps the token of the last page."""

    def __init__(self, app, **environment):
        self.http = app.test_client()
        self.environment = environment

    def get(self, url, **more):
        return self.http.get(url, environ_base=self.environment, **more)

    def post(self, url, data=None, page="/", **more):
        token = re.search(r'name="csrf-token" content="([^"]+)"', self.get(page).text).group(1)
        return self.http.post(url, data={"csrf_token": token, **(data or {})}, environ_base=self.environment, **more)

    def send(self, url, body, page="/"):
        token = re.search(r'name="csrf-token" content="([^"]+)"', self.get(page).text).group(1)
        return self.http.post(url, json=body, headers={"X-CSRFToken": token}, environ_base=self.environment)


@pytest.fixture
def demo(demo_home):
    app = create_app(demo_home)
    yield Visitor(app)
    app.extensions["engine"].dispose()


@pytest.fixture
def empty(tmp_path):
    app = create_app(tmp_path / "empty")
    with session_of(app.extensions["engine"]) as session:
        stock(session)
    yield Visitor(app)
    app.extensions["engine"].dispose()

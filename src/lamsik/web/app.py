"""The application, put together in a fixed order."""

from pathlib import Path

from flask import Flask
from flask_wtf import CSRFProtect

from lamsik.store.database import open_database
from lamsik.web import cards, errors, security
from lamsik.web.benches import BENCHES
from lamsik.web.bodies import live as bodies
from lamsik.web.lan.certificate import Certificate
from lamsik.web.shared import context, guards, health, once, packing, photos, rules, static, units, wide
from lamsik.web.shared.db import close_session


def create_app(
    home: Path, lan: bool = False, port: int = 5151, certificate: Certificate | None = None
) -> Flask:
    """The application on the shop in `home`, created or migrated; `lan` lets paired tablets in, by
    `certificate` where the way is encrypted.
    """
    app = Flask(__name__, static_folder=None)
    rules.install(app)
    app.config.update(security.settings(home, lan, port, certificate))
    app.extensions["engine"] = open_database(home)
    security.make_room(app)
    CSRFProtect(app)
    security.install(app)
    guards.install(app)
    app.extensions["benches"] = BENCHES
    for blueprint in (bodies.blueprint, *(pages for bench in BENCHES for pages in bench.blueprints)):
        app.register_blueprint(blueprint)
    app.register_blueprint(photos.blueprint)
    app.register_blueprint(health.blueprint)
    cards.install(app)
    packing.install(app)
    static.install(app)
    wide.install(app)
    once.install(app)
    units.install(app)
    app.after_request(errors.committed)
    app.teardown_appcontext(close_session)
    errors.install(app)
    context.install(app)
    return app

"""Small pictures of designs and schemes: drawn once for each revision and kept with it, under an address
that never changes.
"""

import hashlib
import logging
from functools import lru_cache
from pathlib import Path
from typing import Any

from flask import Blueprint, Flask, Response
from sqlalchemy.exc import SQLAlchemyError
from sqlmodel import Session

from lamsik import drawings
from lamsik.drawings.svg import markup, node
from lamsik.store import documents, history
from lamsik.store.tables import Card, Document, Revision
from lamsik.web.shared import cards
from lamsik.web.shared.db import db, in_short, load
from lamsik.web.shared.static import for_ever

blueprint = Blueprint("cards", __name__, url_prefix="/cards")
log = logging.getLogger("lamsik")

DRAWN_BY = Path(drawings.__file__).parent
NOTHING = markup(
    node(
        "svg",
        node("path", d="M4 16H76", stroke="#52616E", stroke_dasharray="3 3"),
        viewBox="0 0 80 32",
        xmlns="http://www.w3.org/2000/svg",
    )
)
"""What stands for a picture that cannot be drawn; the page of the document says why."""


@lru_cache(maxsize=1)
def look() -> str:
    """Of all that draws: what was drawn by other code is drawn anew."""
    hashed = hashlib.sha256()
    for path in sorted(DRAWN_BY.glob("*.py")):
        hashed.update(path.read_bytes())
    return hashed.hexdigest()[:16]


def install(app: Flask) -> None:
    """The routes, with the look of the pictures in every address."""
    app.register_blueprint(blueprint)
    app.url_defaults(_looking)


def _looking(endpoint: str, values: dict[str, Any]) -> None:
    if endpoint.startswith("cards."):
        values.setdefault("looks", look())


@blueprint.get("/<looks>/<int:key>.svg")
def card(looks: str, key: int) -> Response:
    """The small side view of a body, or a scheme on the reference shape, of one revision."""
    kept = db().get(Card, key)
    if kept is not None and kept.look == look():
        return _sent(kept.svg, looks)
    row = load(Revision, key)
    history.ready(db(), [row])
    kind = db().get_one(Document, row.document_id).kind
    try:
        svg = cards.picture(kind, row.content)
    except Exception:
        log.warning("the card of revision %s cannot be drawn", key, exc_info=True)
        return _sent(NOTHING, "")
    _keep(key, svg)
    return _sent(svg, looks)


def _keep(key: int, svg: str) -> None:
    """Keep it beside the revision; a shop that takes nothing more is shown its cards all the same."""

    def work(session: Session) -> None:
        session.merge(Card(revision_id=key, look=look(), svg=svg))

    try:
        in_short(work)
    except SQLAlchemyError:
        log.info("a card is not kept", exc_info=True)


@blueprint.get("/<looks>/<int:scheme>/on/<int:body>.svg")
def swatch(looks: str, scheme: int, body: int) -> Response:
    """A body in a scheme, by their revisions."""
    shape, paint = (documents.content_at(db(), load(Revision, key).id or 0) for key in (body, scheme))
    try:
        return _sent(cards.dressed(shape, paint), looks)
    except Exception:
        log.warning("revision %s cannot be drawn in scheme %s", body, scheme, exc_info=True)
        return _sent(NOTHING, "")


def _sent(svg: str, looks: str) -> Response:
    response = Response(svg, mimetype="image/svg+xml")
    if looks == look():
        for_ever(response)
    return response

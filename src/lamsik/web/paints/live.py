"""The scheme page's live exchange: edits in, the painted bait out."""

from flask import Blueprint

from lamsik.store import shelf
from lamsik.web.paints.state import view
from lamsik.web.shared.db import db
from lamsik.web.shared.live_document import exchanged

blueprint = Blueprint("paints_live", __name__, url_prefix="/paints")
current = exchanged(blueprint, "scheme", "paints", view, lambda: shelf.as_paints(db()))
"""The whole state of a saved scheme."""

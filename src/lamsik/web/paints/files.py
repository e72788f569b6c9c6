"""Schemes as pictures: four views at true size, layers as named outlines, the solid to turn in the hand; on
the reference bait or a body.
"""

from dataclasses import replace

from flask import Blueprint, jsonify, request
from flask.typing import ResponseReturnValue

from lamsik.core.shapes.design import Design
from lamsik.documents.body.document import to_design
from lamsik.documents.schemes.document import layers_of
from lamsik.drawings.scheme_file import layers_svg, picture
from lamsik.drawings.svg import markup
from lamsik.store import documents, skins
from lamsik.store.tables import Document
from lamsik.web.paints import hand
from lamsik.web.shared.cards import reference
from lamsik.web.shared.db import db, load_document
from lamsik.web.shared.files import as_file, named

blueprint = Blueprint("paints_files", __name__, url_prefix="/paints")


def _scheme(key: int) -> tuple[Document, Design]:
    row = load_document("scheme", key)
    return row, replace(reference(layers_of(documents.content(db(), row))), name=row.name)


def _body(key: int) -> tuple[Document, Design]:
    row = load_document("body", key)
    content = documents.content(db(), row)
    skins.ready(db(), [content])
    return row, to_design(content)


@blueprint.get("/<int:key>/picture.png", endpoint="picture", defaults={"of": "scheme"})
@blueprint.get("/on/<int:key>/picture.png", endpoint="picture_on", defaults={"of": "body"})
def four_views(key: int, of: str) -> ResponseReturnValue:
    """Left, right, back and belly as one picture, 300 points to the inch."""
    row, design = OF[of](key)
    return as_file(picture(design), f"{named(row)}.png", "image/png")


@blueprint.get("/<int:key>/layers.svg", endpoint="layers", defaults={"of": "scheme"})
@blueprint.get("/on/<int:key>/layers.svg", endpoint="layers_on", defaults={"of": "body"})
def outlines(key: int, of: str) -> ResponseReturnValue:
    """Each layer a named group of its outlines, in millimetres."""
    row, design = OF[of](key)
    return as_file(str(markup(layers_svg(design))), f"{named(row, 'layers')}.svg", "image/svg+xml")


@blueprint.get("/<int:key>/hand.json", endpoint="hand", defaults={"of": "scheme"})
@blueprint.get("/on/<int:key>/hand.json", endpoint="hand_on", defaults={"of": "body"})
def in_the_hand(key: int, of: str) -> ResponseReturnValue:
    """The solid that the page turns: points, faces, pictures of its skin; up to a layer that is named."""
    _, design = OF[of](key)
    return jsonify(hand.sent(design, request.args.get("upto", "")))


OF = {"scheme": _scheme, "body": _body}

"""Schemes, steps of a scheme, or painted bodies beside each other; two of one outline also over each other,
with a wipe between.
"""

import re
from dataclasses import dataclass, replace

from flask import Blueprint, Response, abort, render_template, request, url_for

from lamsik.core.shapes.design import Design
from lamsik.documents.body.document import to_design
from lamsik.documents.schemes.document import layers_of
from lamsik.drawings.scheme import Shown, scheme_view
from lamsik.drawings.svg import Node, markup
from lamsik.store import documents, skins
from lamsik.store.tables import Document
from lamsik.web.shared import picks
from lamsik.web.shared.cards import reference
from lamsik.web.shared.db import db

blueprint = Blueprint("paints_beside", __name__, url_prefix="/paints/beside")

MOST = 4
"""Pictures on one page."""
TOKEN = re.compile(r"([sb])([0-9]{1,9})(?:-([0-9]{1,2}))?")
"""A scheme or a body by its id, and how many of its layers are on."""


@dataclass(frozen=True)
class SchemeBeside:
    """One of the pictures: what asks for it, what it is called, how many layers it has and shows."""

    token: str
    name: str
    code: str
    layers: int
    upto: int
    drawn: Node
    address: str


@blueprint.get("")
def index() -> str:
    """What was chosen beside each other."""
    tokens = [one for one in request.args.getlist("show") if one][:MOST]
    on = request.args.get("on", "")
    shown = [one for token in tokens if (one := _beside(token, on)) is not None]
    boxes = {one.drawn["attrs"]["viewBox"] for one in shown}
    return render_template(
        "paints/beside.html",
        shown=shown,
        wipes=len(shown) == 2 and len(boxes) == 1,
        on=on,
        schemes=picks.of("scheme"),
        bodies=picks.of("body"),
        most=MOST,
    )


@blueprint.get("/<token>.svg")
def picture(token: str) -> Response:
    """One of the pictures, by itself: its own names do not meet those of another."""
    shown = _beside(token, request.args.get("on", ""))
    if shown is None:
        abort(404)
    return Response(str(markup(shown.drawn)), mimetype="image/svg+xml")


def _beside(token: str, on: str) -> SchemeBeside | None:
    read = TOKEN.fullmatch(token)
    row = db().get(Document, int(read[2])) if read else None
    if read is None or row is None or row.deleted_at is not None:
        return None
    if row.kind != {"s": "scheme", "b": "body"}[read[1]]:
        return None
    whole = _design(row, on)
    upto = min(int(read[3]), len(whole.layers)) if read[3] else len(whole.layers)
    design = replace(whole, layers=whole.layers[:upto], name=row.name)
    address = url_for("paints_beside.picture", token=token, on=on or None)
    return SchemeBeside(
        token,
        row.name,
        row.code,
        len(whole.layers),
        upto,
        scheme_view(_like(design, whole), Shown()),
        address,
    )


def _like(design: Design, whole: Design) -> Design:
    """A design with fewer layers, seen from as many sides as the whole one: its last layers weigh nothing and
    cover nothing.
    """
    hidden = [replace(one, place=replace(one.place, cover_percent=0.0)) for one in whole.layers]
    late = [one for one in hidden[len(design.layers) :] if one.mass_g is None]
    return replace(design, layers=(*design.layers, *late))


def _design(row: Document, on: str) -> Design:
    """A scheme on the body that was asked for, else on the reference bait; a body in its own paint."""
    if row.kind == "body":
        return _body(row)
    layers = layers_of(documents.content(db(), row))
    body = db().get(Document, int(on)) if on.isascii() and on.isdigit() and len(on) < 10 else None
    if body is None or body.kind != "body" or body.deleted_at is not None:
        return reference(layers)
    return replace(_body(body), layers=layers)


def _body(row: Document) -> Design:
    content = documents.content(db(), row)
    skins.ready(db(), [content])
    return to_design(content)

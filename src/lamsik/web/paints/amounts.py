"""How much paint a set of pieces of a body takes: of each paint, of each pigment of what is mixed."""

from flask import Blueprint, render_template, request
from flask.typing import ResponseReturnValue

from lamsik.core.errors import Refused, finite_between
from lamsik.core.paints.amounts import LOSS, Needed, needed
from lamsik.core.quantities import plainly, read_measure
from lamsik.documents.body.document import to_design
from lamsik.store import documents, orders, shelf, skins
from lamsik.web.shared.db import db, load_document
from lamsik.words import refusals

blueprint = Blueprint("paints_amounts", __name__, url_prefix="/paints/on")
MOST_PIECES = 1000


@blueprint.get("/<int:key>/amounts")
def show(key: int) -> ResponseReturnValue:
    """What so many pieces take of each paint, what is in the pots, what must be bought."""
    row = load_document("body", key)
    content = documents.content(db(), row)
    skins.ready(db(), [content])
    rows: tuple[Needed, ...] = ()
    usual = {"pieces": "1", "loss": plainly(100 * LOSS, "percent")}
    asked = {name: request.args.get(name, text) for name, text in usual.items()}
    problem, field = "", ""
    try:
        pieces = finite_between("pieces", read_measure(asked["pieces"], "number", "pieces"), 1, MOST_PIECES)
        loss = finite_between("loss", read_measure(asked["loss"], "percent", "loss"), 0, 300, "%")
        recipes = {one.code: match.parts for one, match in shelf.matches(db())}
        rows = needed(to_design(content), int(pieces), loss / 100.0, dict(shelf.shelf(db())), recipes)
    except Refused as refused:
        problem, field = refusals.says(refused), refused.field
    return render_template(
        "paints/amounts.html",
        row=row,
        for_order=orders.waiting_for(db(), key),
        rows=rows,
        asked=asked,
        problem=problem,
        field=field,
    ), (422 if problem else 200)

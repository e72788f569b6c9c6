"""How much paint a set of pieces of a body takes: of each paint, of each pigment of what is mixed."""

from flask import Blueprint, render_template, request
from flask.typing import ResponseReturnValue

from lamsik.core.errors import Refused
from lamsik.core.paints.amounts import Needed
from lamsik.store import documents, orders, paint_mixes, skins
from lamsik.web.paints.mixing import asked_amounts, usual_loss
from lamsik.web.shared.db import db, load_document
from lamsik.words import paint_mixes as words
from lamsik.words import refusals

blueprint = Blueprint("paints_amounts", __name__, url_prefix="/paints/on")


@blueprint.get("/<int:key>/amounts")
def show(key: int) -> ResponseReturnValue:
    """What so many pieces take of each paint, what is in the pots, what must be bought."""
    row = load_document("body", key)
    content = documents.content(db(), row)
    skins.ready(db(), [content])
    rows: tuple[Needed, ...] = ()
    asked = {name: request.args.get(name, text) for name, text in (("pieces", "1"), ("loss", usual_loss()))}
    problem, field = "", ""
    try:
        _, rows = asked_amounts(content, asked)
    except Refused as refused:
        problem, field = refusals.says(refused), refused.field
    return render_template(
        "paints/amounts.html",
        row=row,
        for_order=orders.waiting_for(db(), key),
        rows=rows,
        asked=asked,
        learned=words.learned(paint_mixes.loss(db()), paint_mixes.stays(db())),
        problem=problem,
        field=field,
    ), (422 if problem else 200)

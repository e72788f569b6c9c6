"""A recipe mixed for a set of pieces, or for a first look: begun here, weighed or dropped in the guide of
Mixes.
"""

from collections.abc import Mapping, Sequence
from typing import Any

from flask import Blueprint, flash, redirect, request, url_for
from flask.typing import ResponseReturnValue

from lamsik.core.errors import Refused, finite_between
from lamsik.core.paints.amounts import MOST_PIECES, Amount, Needed, amount, needed
from lamsik.core.paints.mixture import Dropped
from lamsik.core.paints.shelf import ShelfPaint
from lamsik.core.quantities import plainly, read_measure
from lamsik.documents.body.document import to_design
from lamsik.store import documents, paint_mixes, pours, shelf, skins, stores
from lamsik.store.tables import Batch, Document
from lamsik.web.shared.db import db, load_document
from lamsik.words import refusals

blueprint = Blueprint("paints_mixing", __name__, url_prefix="/paints")
MOST_ML = 2000.0


def asked_amounts(content: dict[str, Any], texts: Mapping[str, str]) -> tuple[int, tuple[Needed, ...]]:
    """How many pieces are asked for, and what they take of each paint. Raises `Refused` naming the field."""
    pieces = finite_between("pieces", read_measure(texts["pieces"], "number", "pieces"), 1, MOST_PIECES)
    loss = finite_between("loss", read_measure(texts["loss"], "percent", "loss"), 0, 300, "%")
    recipes = {one.code: match.parts for one, match in shelf.matches(db())}
    shares = paint_mixes.stays_shares(db())
    rows = needed(to_design(content), int(pieces), loss / 100.0, dict(shelf.shelf(db())), recipes, shares)
    return int(pieces), rows


def usual_loss() -> str:
    """What stays in cup and brush as it is typed."""
    return plainly(round(100.0 * paint_mixes.loss(db()).value), "percent")


@blueprint.post("/on/<int:key>/mix")
def for_pieces(key: int) -> ResponseReturnValue:
    """Begin to weigh what so many pieces take of a paint."""
    row = load_document("body", key)
    back = url_for("paints_amounts.show", key=key)
    content = documents.content(db(), row)
    skins.ready(db(), [content])
    code = request.form.get("code", "")
    texts = {"pieces": request.form.get("pieces", "1"), "loss": request.form.get("loss", usual_loss())}
    try:
        pieces, rows = asked_amounts(content, texts)
        one = next((one for one in rows if one.paint.code == code and one.pigments), None)
        if one is None:
            raise Refused(
                "code", code, "a paint of the shelf, or a colour as it is mixed, that this body takes"
            )
        many = "piece" if pieces == 1 else "pieces"
        purpose = f"{one.paint.name} for {pieces} {many} of {row.name}"
        beside = {"design_id": key, "pieces": pieces, "by": one.by}
        return _begin(code, one.amount, purpose, beside)
    except Refused as refused:
        flash(f"Nothing is mixed. {refusals.says(refused)}", "refused")
        return redirect(back)


@blueprint.post("/match/<int:key>/mix")
def for_a_look(key: int) -> ResponseReturnValue:
    """Begin to weigh so much of a colour as it is mixed."""
    row = load_document("match", key)
    try:
        ml = read_measure(request.form.get("ml", ""), "volume", "volume")
        finite_between("volume", ml, 0.1, MOST_ML, "ml")
        match = next((match for one, match in shelf.matches(db()) if one.id == key), None)
        paints = dict(shelf.shelf(db()))
        parts = [(one.code, int(one.drops)) for one in match.parts if one.drops] if match else []
        lacking = [code for code, _ in parts if code not in paints]
        if not parts or lacking:
            raise Refused("recipe", ", ".join(lacking), "take a recipe of paints on the shelf first")
        whole = amount(ml, 1, [(code, drops, paints[code].drop_ml) for code, drops in parts], 0.0)
        return _begin(row.code, whole, f"{row.name}, to look at", {"by": ""})
    except Refused as refused:
        flash(f"Nothing is mixed. {refusals.says(refused)}", "refused")
        return redirect(url_for("paints_match.show", key=key))


def _begin(code: str, whole: Amount, purpose: str, beside: Mapping[str, Any]) -> ResponseReturnValue:
    of = _mixed(code)
    scale, room = stores.setting(db(), "scale"), stores.setting(db(), "mixing")
    step = float(scale["step_g"] if scale["url"] else room["step_g"])
    plan = paint_mixes.planned(of.name, _dropped(whole.drops, dict(shelf.shelf(db()))), step, **beside)
    batch = Batch(product_id=of.id or 0, purpose=purpose[:120], plan=plan, at_c=float(room["room_c"]))
    pours.begin_weighing(db(), batch)
    return redirect(url_for("mixes.batch", key=batch.id))


def _mixed(code: str) -> Document:
    rows = [documents.coded(db(), kind, code) for kind in paint_mixes.KINDS]
    row = next((one for one in rows if one is not None), None)
    if row is None:
        raise Refused("code", code, "a paint of the shelf, or a colour as it is mixed")
    return row


def _dropped(drops: Sequence[tuple[str, int]], paints: Mapping[str, ShelfPaint]) -> list[Dropped]:
    return [Dropped(code, paints[code], count) for code, count in drops]

"""Photos on any page: taken with the tablet's camera or brought in, several at once."""

from flask import Blueprint, Response, flash, redirect, request
from flask.typing import ResponseReturnValue

from lamsik.core.errors import Refused
from lamsik.core.quantities import counted
from lamsik.formats import photo
from lamsik.store import photos
from lamsik.store.tables import Photo, now
from lamsik.web.shared.db import db, load
from lamsik.words import refusals

blueprint = Blueprint("photos", __name__, url_prefix="/photos")
LONGEST_PX, SMALL_PX = 2000, 360
"""What is kept of a photo, and what a page shows of it."""
AT_ONCE = 12


def photos_of(of: str, of_id: int) -> dict[str, object]:
    """What the photos on a page show."""
    return {
        "photos": photos.taken(db(), of, of_id),
        "photos_of": (of, of_id),
        "photo_mb": photos.stored_bytes(db()) / 1e6,
        "photo_budget_mb": photos.BUDGET / 1e6,
    }


@blueprint.post("/<any(custody, order, piece):of>/<int:of_id>")
def bring(of: str, of_id: int) -> ResponseReturnValue:
    """Photos of a thing; one that is none is named, the others are kept."""
    load(photos.OF[of], of_id)
    sent = [one for one in request.files.getlist("photo") if one.filename]
    wrong = [] if sent else ["no photo was chosen"]
    if len(sent) > AT_ONCE:
        wrong, sent = [f"{len(sent)} at once: at most {AT_ONCE}"], []
    kept = 0
    for one in sent:
        try:
            upright, _, _ = photo.apart(one.read())
            jpeg, wide, high = photo.shrunk(upright, LONGEST_PX)
            photos.keep(db(), of, of_id, jpeg, (wide, high))
            kept += 1
        except Refused as refused:
            wrong.append(f"{one.filename}: {refusals.says(refused)}")
    if kept:
        flash(f"{counted(kept, 'photo')} kept.")
    if wrong:
        flash(f"Not kept. {' '.join(wrong)}", "refused")
    return redirect(_back())


def _back() -> str:
    """The page it was sent from, of this shop only."""
    to = request.values.get("back", "")
    return to if to.startswith("/") and not to.startswith("//") else "/"


@blueprint.get("/<int:key>.jpg")
def whole(key: int) -> Response:
    """A photo as it is kept."""
    return Response(photos.jpeg_of(db(), load(Photo, key)), mimetype="image/jpeg")


@blueprint.get("/<int:key>/small.jpg")
def small(key: int) -> Response:
    """The same as a page shows it."""
    jpeg, _, _ = photo.shrunk(photos.jpeg_of(db(), load(Photo, key)), SMALL_PX, 78)
    return Response(jpeg, mimetype="image/jpeg")


@blueprint.post("/<int:key>/<any(delete, bring_back):way>")
def put_away(key: int, way: str) -> ResponseReturnValue:
    """Take a photo off its page, or back onto it."""
    row = load(Photo, key)
    row.deleted_at = now() if way == "delete" else None
    db().add(row)
    if way == "delete":
        flash("The photo is taken off.", f"undo:/photos/{key}/bring_back?back={_back()}")
    return redirect(_back())

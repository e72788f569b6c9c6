"""A look off a photo: marks on its card and on the bait or the swatch, read, taken. The photo is not kept."""

from typing import Any

from flask import Blueprint, flash, jsonify, redirect, render_template, request, url_for
from flask.typing import ResponseReturnValue

from lamsik.core.errors import Refused, finite_between
from lamsik.core.paints.colour import hex_of_lab
from lamsik.core.paints.lab import Lab
from lamsik.core.paints.photographed import GREY_CARD, Spot, read_photo
from lamsik.core.paints.shelf import PHOTO
from lamsik.core.quantities import read_measure, said
from lamsik.formats import photo
from lamsik.web.paints.looks import PAGES, PARTS, read_into
from lamsik.web.shared.db import load_document

blueprint = Blueprint("paints_photo", __name__, url_prefix="/paints/photo/<any(paint, match):kind>/<int:key>")
SEEN_APART = 3.0
"""Points that lie so far from their middle may be of two colours."""


@blueprint.get("")
def show(kind: str, key: int) -> str:
    """The photo, its marks, what was read."""
    row = load_document(kind, key)
    return render_template(
        "paints/photo.html",
        row=row,
        kind=kind,
        page=url_for(PAGES[kind], key=key),
        parts=PARTS[kind],
        card=GREY_CARD,
    )


@blueprint.post("")
def read(kind: str, key: int) -> ResponseReturnValue:
    """Read the marks of a photo; what is wrong with its light is said."""
    load_document(kind, key)
    sent = request.files.get("photo")
    picture, wide, high = photo.apart(sent.read() if sent else b"")
    card, points = _marks(request.form.get("marks", ""), (wide, high))
    known = (_light("white"), _light("grey"), _light("black"))
    look = read_photo(photo.pixels(picture), card, points, known)
    more = (
        f" Its points lie up to ΔE {said(look.apart, 'number', 1)} apart: are they all of one colour?"
        if look.apart > SEEN_APART
        else ""
    )
    return jsonify(
        says=f"{look.look.said}, in the light of a lamp of {said(look.lamp_k, 'number', 0)} K.{more}",
        look={"lightness": look.look.lightness, "red": look.look.red, "yellow": look.look.yellow},
        colour=hex_of_lab(look.look.row),
    )


def _light(name: str) -> Lab:
    """How light a patch of the card is."""
    return Lab(finite_between(name, read_measure(request.form.get(name, ""), "number", name), 0.0, 100.0))


def _marks(text: str, size: tuple[int, int]) -> tuple[list[Spot], list[Spot]]:
    """Marks of the card and on the bait, sent as shares of the photo, in its pixels. Raises `Refused` for
    what is no place.
    """
    try:
        sent = request.json_module.loads(text)
        return _spots(sent["card"], size), _spots(sent["points"], size)
    except (ValueError, TypeError, KeyError, IndexError) as error:
        raise Refused("marks", text[:40], "the page's marks cannot be read: reload it") from error


def _spots(rows: Any, size: tuple[int, int]) -> list[Spot]:
    shares = [[finite_between("marks", one, -1.0, 2.0) for one in row[:2]] for row in rows[:40]]
    return [(share[0] * size[0], share[1] * size[1]) for share in shares]


@blueprint.post("/take")
def take(kind: str, key: int) -> ResponseReturnValue:
    """What was read is the look of a part of the document."""
    row = load_document(kind, key)
    look = {
        name: finite_between(name, read_measure(request.form.get(name, ""), "number", name), -128.0, 128.0)
        for name in ("lightness", "red", "yellow")
    }
    part = request.form.get("part", "")
    read_into(row, part, Lab(**look), PHOTO, "off a photo")
    flash(f"Taken off the photo: {PARTS[kind][part]}.")
    return redirect(url_for(PAGES[kind], key=key))

"""Tracing a photo: marks for scale and ends, the outline found, corrected by hand, made a body."""

from functools import lru_cache
from pathlib import Path
from typing import Any

import numpy as np
from flask import Blueprint, Response, flash, jsonify, redirect, render_template, request, url_for
from flask.typing import ResponseReturnValue
from numpy.typing import NDArray

from lamsik.core.errors import Refused
from lamsik.core.materials import BODY_MATERIALS
from lamsik.core.quantities import read_measure, said
from lamsik.core.shapes.curves import Array
from lamsik.core.shapes.outlining import lines_of, width_line
from lamsik.core.shapes.tracing import Marks, corners, frame, straightened, trace
from lamsik.documents.body.lines import with_lines
from lamsik.drawings.paper import SHEETS
from lamsik.formats import photo
from lamsik.store import documents, pictures, stores
from lamsik.store.tables import Tracing
from lamsik.web.shapes.bring import finite_pair, fresh, keep, typed_width
from lamsik.web.shared.db import db, load, load_document
from lamsik.words import refusals

MOST_CORRECTED = 400
MARKS = ("by", "ruler", "sheet", "nose", "tail", "on", "ruler_mm", "sheet_width", "sheet_height", "flip")
"""What the page sends of the marks; kept when an outline was found, so that a reload begins there."""

blueprint = Blueprint("shapes_trace", __name__, url_prefix="/shapes/trace")


@lru_cache(maxsize=2)
def _pixels(shop: Path, digest: str) -> NDArray[np.uint8]:
    return photo.pixels(pictures.get(shop, digest))


@blueprint.get("/<int:key>")
def show(key: int) -> str:
    """The photo with its marks."""
    row = load(Tracing, key)
    onto, lost = row.state.get("onto") or 0, ""
    try:
        pictures.get(pictures.folder_of(db()), row.digest)
    except Refused as refused:
        lost = refusals.beside(refused)
    return render_template(
        "shapes/trace.html",
        row=row,
        lost=lost,
        onto=load_document("body", onto) if onto else None,
        materials=BODY_MATERIALS,
        begun=row.state.get("marks"),
        sheet=SHEETS[stores.setting(db(), "saw")["paper"]],
    )


@blueprint.get("/<int:key>/picture.jpg")
def picture(key: int) -> Response:
    """The photo itself."""
    return Response(pictures.get(pictures.folder_of(db()), load(Tracing, key).digest), mimetype="image/jpeg")


@blueprint.post("/<int:key>/outline")
def outline(key: int) -> ResponseReturnValue:
    """Trace the outline with the marks sent; the points to correct come back in the picture's pixels."""
    row, sent = load(Tracing, key), request.get_json()
    marks = marks_of(sent)
    traced = trace(_pixels(pictures.folder_of(db()), row.digest), marks)
    lines, points = traced.lines, np.round(corners(traced), 1).tolist()
    row.state = {**row.state, "marks": {name: sent[name] for name in MARKS if name in sent}}
    db().add(row)
    return jsonify(
        points=points,
        length=said(lines.length_mm, "length"),
        depth=said(lines.depth_mm, "length"),
        drawn=traced.drawn,
        pixel=said(traced.mm_per_pixel, "length", 2),
    )


def marks_of(sent: Any) -> Marks:
    """The marks the page sends, in picture pixels; lengths as typed."""
    if not isinstance(sent, dict):
        raise Refused("marks", type(sent).__name__, "an object is needed")
    ruler, sheet = sent.get("ruler"), sent.get("sheet")
    pairs = [finite_pair("ruler", p) for p in ruler] if isinstance(ruler, list) else []
    corners = [finite_pair("sheet", p) for p in sheet] if isinstance(sheet, list) else []
    by_sheet = sent.get("by") == "sheet"
    on, nose, tail = (
        finite_pair(name, sent[name]) if sent.get(name) is not None else None
        for name in ("on", "nose", "tail")
    )
    if by_sheet and len(corners) == 4:
        sizes = tuple(_length(sent.get(name), name) for name in ("sheet_width", "sheet_height"))
        return Marks(
            sheet=(corners[0], corners[1], corners[2], corners[3]),
            sheet_mm=(sizes[0], sizes[1]),
            on=on,
            nose=nose,
            tail=tail,
            flip=bool(sent.get("flip")),
        )
    if not by_sheet and len(pairs) == 2:
        return Marks(
            ruler=(pairs[0], pairs[1]),
            ruler_mm=_length(sent.get("ruler_mm"), "ruler"),
            on=on,
            nose=nose,
            tail=tail,
            flip=bool(sent.get("flip")),
        )
    raise Refused(
        "scale",
        None,
        "mark the four corners of the sheet" if by_sheet else "mark two points on a ruler in the picture",
    )


def _length(text: object, name: str) -> float:
    return read_measure(str(text or ""), "length", name.replace("_", " "))


@blueprint.post("/<int:key>/body")
def body(key: int) -> ResponseReturnValue:
    """Make a body of the corrected outline, or give it to the body it was traced for."""
    row, marks = load(Tracing, key), marks_of(_sent_marks())
    points = _corrected()
    flat = straightened(frame(marks)(points), marks)
    onto, as_top = int(row.state.get("onto") or 0), request.form.get("as") == "top"
    base = (
        documents.content(db(), load_document("body", onto))
        if onto
        else fresh(request.form.get("name", "").strip() or row.name)
    )
    lines = lines_of(flat)
    content = (
        with_lines(base, None, width_line(flat)) if as_top else with_lines(base, lines, None, _width(onto))
    )
    traced_body = keep(content, f"{'top' if as_top else 'side'} traced from {row.name}", onto)
    return jsonify(url=url_for("shapes.edit", key=traced_body.id))


def _width(onto: int) -> float | None:
    typed = typed_width()
    if typed is None and onto:
        return float(documents.content(db(), load_document("body", onto))["body"]["width_mm"])
    return typed


def _sent_marks() -> Any:
    marks = request.form.get("marks", "")
    try:
        return request.json_module.loads(marks)
    except ValueError as error:
        raise Refused("marks", marks[:40], "the page's marks cannot be read: reload it") from error


def _corrected() -> Array:
    text = request.form.get("points", "")
    try:
        sent = request.json_module.loads(text)
    except ValueError as error:
        raise Refused("points", text[:40], "trace the outline first") from error
    if not isinstance(sent, list) or not 8 <= len(sent) <= MOST_CORRECTED:
        raise Refused(
            "points",
            len(sent) if isinstance(sent, list) else text[:40],
            f"8 to {MOST_CORRECTED} points: trace the outline first",
        )
    return np.array([finite_pair("points", pair) for pair in sent])


@blueprint.post("/<int:key>/delete")
def delete(key: int) -> ResponseReturnValue:
    """The photo and its marks go for good; a body that was made of it stays."""
    row = load(Tracing, key)
    db().delete(row)
    flash(f"The tracing of {row.name} is deleted.")
    return redirect(url_for("shapes_bring.index"))

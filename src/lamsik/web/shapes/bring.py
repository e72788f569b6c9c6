"""Bringing a shape in: body files, drawings, photos to trace, meshes. Nothing is kept until all of it is
good.
"""

import json
import math
from collections.abc import Callable
from typing import Any

from flask import Blueprint, Response, abort, flash, jsonify, redirect, render_template, request, url_for
from flask.typing import ResponseReturnValue
from sqlmodel import col, select

from lamsik.core.errors import Refused
from lamsik.core.materials import BODY_MATERIALS, USUAL_WOOD, body_material
from lamsik.core.quantities import read_measure
from lamsik.core.shapes.design import host_of
from lamsik.core.shapes.meshing import AXES, Checked, measured, turned
from lamsik.core.shapes.outlining import lines_of, width_line
from lamsik.core.shapes.tracing import warm
from lamsik.core.water import Water
from lamsik.documents.blades.document import BLADE, is_blade
from lamsik.documents.body.document import to_design
from lamsik.documents.body.lines import blank, with_lines, with_mesh
from lamsik.documents.rows import Document as Content
from lamsik.drawings.body import mesh_views
from lamsik.formats import body_file, dxf, photo, stl, svg_outlines
from lamsik.formats.outlines import Outlines
from lamsik.store import documents, pictures, skins
from lamsik.store.tables import Document, Tracing
from lamsik.web.bodies.live import current
from lamsik.web.shapes.blades import all_of
from lamsik.web.shared import jobs, whole
from lamsik.web.shared.cards import card
from lamsik.web.shared.db import db, load_document, sent_base, sent_id
from lamsik.web.shared.jobs import Job
from lamsik.words import refusals
from lamsik.words.tell import tell

blueprint = Blueprint("shapes_bring", __name__, url_prefix="/shapes/bring-in")

MOST_BEGUN = 4
"""Photos still being traced that the page offers to go on with."""

READERS: dict[str, Callable[[bytes], Outlines]] = {"svg": svg_outlines.read, "dxf": dxf.read}


@blueprint.get("")
def index() -> str:
    """The ways in."""
    return _page()


def _page(problem: str = "", what: str = "") -> str:
    onto = request.values.get("onto", "")
    row = load_document("body", int(onto)) if onto.isdecimal() and len(onto) < 10 else None
    begun = (
        db()
        .exec(select(Tracing.id, Tracing.name, Tracing.at).order_by(col(Tracing.id).desc()).limit(MOST_BEGUN))
        .all()
    )
    return render_template(
        "shapes/bring.html",
        onto=row,
        problem=problem,
        what=what,
        materials=BODY_MATERIALS,
        units=stl.UNITS_MM,
        axes=AXES,
        begun=begun,
    )


@blueprint.post("")
def drawing() -> ResponseReturnValue:
    """A body file, or the outlines of an SVG or DXF; what is wrong with the file is said beside it."""
    sent = request.files.get("file")
    name, data = ((sent.filename or "a file"), sent.read()) if sent else ("no file", b"")
    onto = sent_id("onto")
    try:
        ending = name.rsplit(".", 1)[-1].lower()
        drawing_read = READERS[ending](data) if ending in READERS else None
        own = drawing_read.document if drawing_read else _json(data)
        if is_blade(own) and not onto:
            return _keep_blade(own, name)
        row = keep(
            _of_outlines(drawing_read, name, onto) if drawing_read else _of_body_file(data),
            f"brought in from {name}",
            onto,
        )
    except Refused as refused:
        return _page(f"{name} cannot be brought in. {refusals.says(refused)}", "drawing"), 422
    flash(f"{row.name} is brought in as {row.code}.")
    return redirect(url_for("shapes.edit", key=row.id))


def _json(data: bytes) -> Any:
    """What a small JSON file holds; None where it is none."""
    try:
        return json.loads(data) if len(data) <= BLADE.most_bytes else None
    except (ValueError, RecursionError):
        return None


def _keep_blade(blade: Content, name: str) -> ResponseReturnValue:
    """A blade brought in from its own file or DXF."""
    content = BLADE.brought_in(blade)
    row = whole.kept_if_shown(
        lambda: documents.begin(
            db(),
            "blade",
            content,
            note=f"brought in from {name}",
        ),
        all_of,
    )
    flash(f"{row.name} is brought in as {row.code}.")
    return redirect(url_for("shapes_blades.edit", key=row.id))


def _of_body_file(data: bytes) -> Content:
    content, packed, mesh = body_file.opened(data)
    if mesh is not None:
        skins.keep(db(), mesh, str(content["body"]["mesh"]["name"]), packed)
    skins.ready(db(), [content])
    return content


def _of_outlines(outlines: Outlines, name: str, onto: int) -> Content:
    """A document from outlines: our own as it was, else their lines on a new body or on the one asked for."""
    if outlines.document is not None and not onto:
        skins.ready(db(), [outlines.document])
        return outlines.document
    base = documents.content(db(), load_document("body", onto)) if onto else fresh(name)
    return with_lines(
        base,
        lines_of(outlines.side),
        width_line(outlines.top) if outlines.top is not None else None,
        typed_width(),
    )


def typed_width() -> float | None:
    """The width typed beside the file [mm], None if empty."""
    text = request.form.get("width", "").strip()
    return read_measure(text, "length", "width") if text else None


def fresh(name: str) -> Content:
    """A new document of the material asked for, named after a file."""
    wood = body_material(request.form.get("material", USUAL_WOOD))
    stem = name.replace("\\", "/").rsplit("/", 1)[-1].rsplit(".", 1)[0].strip()[:120] or "Brought in"
    return blank(stem, host_of(wood), Water())


def keep(content: Content, note: str, onto: int = 0) -> Document:
    """Keep a whole, checked document: as a new design, or as the next revision of one."""
    to_design(content)
    if onto:
        row = load_document("body", onto)
        documents.save(db(), row, content, sent_base(row), note)
        return row
    return whole.kept_if_shown(
        lambda: documents.begin(db(), "body", content, note=note),
        _all_of,
    )


def _all_of(row: Document) -> object:
    """All that the bench shows of a body."""
    return (
        card(documents.content(db(), row), "x"),
        current(row, "shapes", settled=True),
        current(row, "tank", settled=True),
    )


@blueprint.post("/photo")
def photo_in() -> ResponseReturnValue:
    """A photo to trace."""
    sent = request.files.get("photo")
    name, data = ((sent.filename or "a photo"), sent.read()) if sent else ("no file", b"")
    try:
        picture, wide, high = photo.apart(data)
    except Refused as refused:
        return _page(f"{name} cannot be traced. {refusals.says(refused)}", "photo"), 422
    warm()
    row = Tracing(
        name=name[:120],
        digest=pictures.put(pictures.folder_of(db()), picture),
        width_px=wide,
        height_px=high,
        state={"onto": sent_id("onto")},
    )
    db().add(row)
    db().flush()
    return redirect(url_for("shapes_trace.show", key=row.id))


@blueprint.post("/mesh")
def mesh_in() -> ResponseReturnValue:
    """A mesh: read and checked beside the request; the page asks how far it is."""
    sent = request.files.get("mesh")
    if sent is None:
        raise Refused("mesh", "no file", "choose an STL file")
    name, data = sent.filename or "a mesh", sent.read()

    def work(job: Job) -> tuple[Checked, str]:
        return stl.read(data, job.step), name

    return jsonify(job=jobs.start(name, work).key)


def _job(key: str) -> Job:
    job = jobs.get(key)
    if job is None:
        abort(404)
    return job


@blueprint.get("/mesh/<key>")
def mesh_state(key: str) -> Response:
    """How far the reading is; once it is read, what it measures in the file's own unit."""
    job = _job(key)
    answer: dict[str, Any] = {"share": job.share, "says": job.says, "done": job.done, "problem": job.problem}
    if job.done and not job.problem:
        mesh, _ = job.result
        answer |= {
            "size": [round(v, 4) for v in mesh.size],
            "faces": len(mesh.mesh.faces),
            "notes": [tell(one) for one in mesh.notes],
            "picture": mesh_views(mesh.mesh),
        }
    return jsonify(answer)


@blueprint.post("/mesh/<key>/drop")
def mesh_drop(key: str) -> Response:
    """Stop reading, or forget what was read."""
    jobs.drop(key)
    return jsonify(ok=True)


@blueprint.post("/mesh/<key>/body")
def mesh_body(key: str) -> ResponseReturnValue:
    """Make a body of a read mesh: unit, nose and back are the maker's to say."""
    job = _job(key)
    if not job.done or job.problem:
        raise Refused("mesh", job.says, "wait until it is read")
    asked = request.get_json()
    mesh, name = job.result
    unit = str(asked.get("unit"))
    if unit not in stl.UNITS_MM:
        raise Refused("unit", asked.get("unit"), f"say in which unit the file is: {', '.join(stl.UNITS_MM)}")
    body = measured(turned(mesh.mesh, str(asked.get("nose")), str(asked.get("up")), stl.UNITS_MM[unit]))
    wood = body_material(str(asked.get("material") or "printed resin"))
    stem = name.rsplit(".", 1)[0].strip()[:120] or "Mesh"
    content = blank(stem, host_of(wood), Water())
    content = with_mesh(content, body, skins.keep(db(), body.shares, name), name)
    row = keep(content, f"brought in from {name}, in {unit}")
    jobs.drop(key)
    return jsonify(url=url_for("shapes.edit", key=row.id))


def finite_pair(name: str, sent: object) -> tuple[float, float]:
    """Two finite numbers of a list."""
    if (
        not isinstance(sent, list)
        or len(sent) != 2
        or not all(isinstance(v, int | float) and not isinstance(v, bool) and math.isfinite(v) for v in sent)
    ):
        raise Refused(name, sent, "a pair of numbers is needed")
    return float(sent[0]), float(sent[1])

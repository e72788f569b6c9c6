"""All of the shop taken along in open formats: made beside the request, its progress shown, then a ZIP."""

import io
import tempfile
import zipfile
from pathlib import Path

from flask import Blueprint, Response, abort, current_app, jsonify, render_template, request, url_for
from flask.typing import ResponseReturnValue
from sqlmodel import Session

from lamsik.core.quantities import file_size
from lamsik.store import folder
from lamsik.web.shared import jobs, printing
from lamsik.web.shared.db import db
from lamsik.web.shared.files import as_file

blueprint = Blueprint("stores_everything", __name__, url_prefix="/stores/everything")
NAME = "the whole shop"


@blueprint.get("")
def index() -> str:
    """What is taken along, and how it is brought back."""
    return render_template("stores/everything.html")


@blueprint.post("")
def begin() -> Response:
    """Begin to write it."""
    app, base = current_app._get_current_object(), request.url_root  # type: ignore[attr-defined]

    def work(job: jobs.Job) -> bytes:
        with app.test_request_context(base_url=base), Session(app.extensions["engine"]) as session:
            return _zipped(session, job)

    return jsonify(job=jobs.start(NAME, work).key)


def _zipped(session: Session, job: jobs.Job) -> bytes:
    with tempfile.TemporaryDirectory() as work:
        place = Path(work) / "shop"
        folder.export(session, place, _pdf(), job.step)
        out = io.BytesIO()
        with zipfile.ZipFile(out, "w", zipfile.ZIP_DEFLATED) as whole:
            for path in sorted(place.rglob("*")):
                if path.is_file():
                    whole.write(path, path.relative_to(place).as_posix())
    return out.getvalue()


def _pdf() -> folder.PaperPdf | None:
    """What makes a PDF of a paper, where the system's libraries for it are there."""
    try:
        printing.pdf("<p></p>")
    except printing.CannotPrint:
        return None
    make: folder.PaperPdf = current_app.extensions["paper pdf"]
    return make


@blueprint.get("/due.ics")
def due() -> ResponseReturnValue:
    """What is due as a calendar."""
    return as_file(folder.due(db()), "due.ics", "text/calendar")


@blueprint.get("/<job_key>")
def show(job_key: str) -> Response:
    """How far it is; where it is taken along once it is there."""
    job = _job(job_key)
    answer = {"share": job.share, "says": job.says, "done": job.done, "problem": job.problem}
    if job.done and not job.problem:
        answer["url"] = url_for("stores_everything.take", job_key=job_key)
        answer["size"] = file_size(len(job.result))
    return jsonify(answer)


def _job(job_key: str) -> jobs.Job:
    job = jobs.get(job_key)
    if job is None:
        abort(404)
    return job


@blueprint.post("/<job_key>/drop")
def drop(job_key: str) -> Response:
    """Stop writing it, or forget it."""
    jobs.drop(job_key)
    return jsonify(ok=True)


@blueprint.get("/<job_key>.zip")
def take(job_key: str) -> ResponseReturnValue:
    """All of it."""
    job = _job(job_key)
    if job.result is None:
        abort(404)
    return as_file(job.result, "lamsik shop.zip", "application/zip")

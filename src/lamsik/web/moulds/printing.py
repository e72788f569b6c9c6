"""Halves to print: worked out beside the request with its progress asked for, then taken as STL."""

from flask import Blueprint, Response, abort, jsonify, render_template, url_for
from flask.typing import ResponseReturnValue

from lamsik.core.errors import Refused
from lamsik.core.moulds.halves import Printed, Sum, printed_halves
from lamsik.core.moulds.layout import box
from lamsik.core.quantities import said
from lamsik.documents.moulds.document import to_mould
from lamsik.drawings.solid import line_view
from lamsik.formats import stl
from lamsik.store import documents
from lamsik.web.moulds.shop import master_of
from lamsik.web.shared import jobs
from lamsik.web.shared.db import db, load_document
from lamsik.web.shared.files import as_file, named
from lamsik.web.shared.jobs import Job
from lamsik.words.moulds import PROGRESS
from lamsik.words.tell import tell

blueprint = Blueprint("moulds_print", __name__, url_prefix="/moulds")

Halves = tuple[tuple[Printed, ...], Sum]


@blueprint.get("/<int:key>/halves")
def show(key: int) -> str:
    """What will be printed, and the button that works it out."""
    row = load_document("mould", key)
    content = documents.content(db(), row)
    mould = to_mould(content, master_of(content["master"]))
    return render_template("moulds/halves.html", row=row, mould=mould, box=box(mould))


@blueprint.post("/<int:key>/halves")
def start(key: int) -> ResponseReturnValue:
    """Begin working the halves out."""
    row = load_document("mould", key)
    content = documents.content(db(), row)
    mould = to_mould(content, master_of(content["master"]))

    def work(job: Job) -> Halves:
        return printed_halves(mould, lambda share, what: job.step(share, PROGRESS.get(what, what)))

    return jsonify(job=jobs.start(f"{row.name}, revision {row.current}", work).key)


def _job(key: str) -> Job:
    job = jobs.get(key)
    if job is None:
        abort(404)
    return job


@blueprint.get("/<int:key>/halves/<job_key>")
def state(key: int, job_key: str) -> Response:
    """How far it is; once done, each half with its note and where to take it."""
    job = _job(job_key)
    answer: dict[str, object] = {
        "share": job.share,
        "says": job.says,
        "done": job.done,
        "problem": job.problem,
    }
    if job.done and not job.problem:
        parts, total = job.result
        answer |= {
            "parts": [
                {
                    "name": part.name,
                    "volume": said(part.volume_ml, "volume", 1),
                    "note": tell(part.note),
                    "faces": len(part.mesh.faces),
                    "picture": line_view(part.mesh, part.name),
                    "url": url_for("moulds_print.take", key=key, job_key=job_key, number=n),
                }
                for n, part in enumerate(parts)
            ],
            "sum": _sum_words(total),
        }
    return jsonify(answer)


@blueprint.post("/<int:key>/halves/<job_key>/drop")
def drop(key: int, job_key: str) -> Response:
    """Stop working it out, or forget it."""
    jobs.drop(job_key)
    return jsonify(ok=True)


@blueprint.get("/<int:key>/halves/<job_key>/<int:number>.stl")
def take(key: int, job_key: str, number: int) -> Response:
    """One half as an STL file."""
    row, job = load_document("mould", key), _job(job_key)
    if not job.done or job.problem:
        raise Refused("halves", job.says, "wait until they are worked out")
    parts, _ = job.result
    if number >= len(parts):
        abort(404)
    part = parts[number]
    return as_file(
        stl.write(part.mesh, f"Lamsik {row.code} {part.name} mm"), f"{named(row, part.name)}.stl", "model/stl"
    )


def _sum_words(total: Sum) -> str:
    parts = (
        f"Halves {said(total.halves_ml, 'volume', 1)}, hollow {said(total.hollow_ml, 'volume', 1)}, play"
        " at the keys"
        f" {said(total.play_ml, 'volume')}"
    )
    return (
        f"{parts}: the block's {said(total.block_ml, 'volume', 1)}, off by"
        f" {said(100 * total.off, 'percent', 3)}."
    )

"""Backups by page: what there is and what is in each, one made now, checked, taken along, put back; one a
day by itself.
"""

from dataclasses import dataclass
from datetime import datetime
from pathlib import Path

from flask import Blueprint, abort, current_app, flash, redirect, render_template, request, send_file, url_for
from flask.typing import ResponseReturnValue

from lamsik.core.errors import Refused, finite_between
from lamsik.store import backup, stores
from lamsik.web.shared.db import db, rollback_session
from lamsik.words import refusals

blueprint = Blueprint("stores_backups", __name__, url_prefix="/stores/backups")


@dataclass(frozen=True)
class BackupLine:
    """A backup as it is listed: its file, when it was made, how large it is, what is in it or why it is
    none.
    """

    name: str
    at: datetime
    mega: float
    says: str
    good: bool


def home() -> Path:
    """Where the shop's data lies."""
    return Path(current_app.config["HOME"])


@blueprint.get("")
def index() -> ResponseReturnValue:
    """All backups in the shop's own folder, the newest first, each looked into."""
    return _page()


def _page(problem: str = "") -> ResponseReturnValue:
    lines = [_line(path) for path in backup.made(home())]
    return render_template(
        "stores/backups.html",
        lines=lines,
        plan=stores.setting(db(), "backups"),
        folder=home() / backup.FOLDER,
        problem=problem,
    ), (422 if problem else 200)


def _line(path: Path) -> BackupLine:
    at, mega = datetime.fromtimestamp(path.stat().st_mtime), path.stat().st_size / 1e6
    try:
        return BackupLine(path.name, at, mega, backup.look_into(path).says, True)
    except Refused as refused:
        return BackupLine(path.name, at, mega, refusals.allowed(refused), False)


def _named(name: str) -> Path:
    """One of the listed files; 404 for anything else."""
    return next((path for path in backup.made(home()) if path.name == name), None) or abort(404)


@blueprint.post("/make")
def make() -> ResponseReturnValue:
    """One more, now; looked into before it counts."""
    rollback_session()
    kept = backup.make(home(), datetime.now())
    flash(
        f"{kept.name} is made and can be put back: {backup.look_into(kept).says}. Copy it to another disk"
        " too."
    )
    return redirect(url_for("stores_backups.index"))


@blueprint.get("/<name>")
def take(name: str) -> ResponseReturnValue:
    """The file itself, for another disk."""
    return send_file(_named(name), as_attachment=True, download_name=name)


@blueprint.post("/<name>/restore")
def put_back(name: str) -> ResponseReturnValue:
    """The shop as it was then; what is there now is kept beside."""
    path = _named(name)
    if not request.form.get("sure"):
        return _page(
            f"Tick that the shop shall be as in {name}: what was noted since is then only in the copy that is"
            " kept."
        )
    rollback_session()  # the lock is the copying's now
    kept = backup.restore(home(), path)
    flash(f"The shop is as in {name}." + (f" What was there before is kept as {kept.name}." if kept else ""))
    return redirect(url_for("stores_backups.index"))


@blueprint.post("/plan")
def plan() -> ResponseReturnValue:
    """Whether one is made a day, and how many are kept."""
    try:
        text = request.form.get("keep", "")
        keep = int(
            finite_between("how many", int(text) if text.isdecimal() and len(text) < 5 else text, 1, 400)
        )
    except Refused as refused:
        return _page(refusals.says(refused))
    stores.put_setting(db(), "backups", {"daily": bool(request.form.get("daily")), "keep": keep})
    flash("Kept.")
    return redirect(url_for("stores_backups.index"))

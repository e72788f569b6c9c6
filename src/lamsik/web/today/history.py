"""The shop's history: who did what to which piece, pour, batch, order, design or part, and when; what can be
taken back by itself is taken back here.
"""

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass
from datetime import datetime
from itertools import groupby
from typing import Any

from flask import Blueprint, abort, flash, redirect, render_template, request, url_for
from flask.typing import ResponseReturnValue
from sqlalchemy.exc import IntegrityError
from sqlmodel import SQLModel, col, select

from lamsik.core.errors import Refused
from lamsik.formats.json_text import json_text
from lamsik.store import events, mixes, people, routes, stands, used
from lamsik.store.tables import (
    Batch,
    Customer,
    Document,
    LogEntry,
    MouldMade,
    Order,
    Person,
    Piece,
    PieceStep,
    Pour,
    StockItem,
    WeighedThing,
)
from lamsik.web.shared.db import db, load
from lamsik.web.shared.files import as_file
from lamsik.web.shared.lists import asked_page
from lamsik.web.shared.progress import waits_at
from lamsik.web.shared.whole import WAYS
from lamsik.words import events as words
from lamsik.words import refusals
from lamsik.words.castings import TITLES

blueprint = Blueprint("today_history", __name__, url_prefix="/history")


@dataclass(frozen=True)
class HistoryLine:
    """What was done to one thing by one person at one moment: where it is, what it is called."""

    at: datetime
    by: str
    name: str
    link: str
    said: tuple[str, ...]
    back: int | None


@blueprint.get("")
def index() -> str:
    """Everything that was done, the newest first; of a kind, of one thing, or by someone if asked."""
    of = request.args.get("of", "")
    of = of if of in words.OF else ""
    of_id, by = _whole(request.args.get("id", "")) if of else None, _whole(request.args.get("by", ""))
    page = asked_page(events.listed(of, of_id, by))
    return render_template(
        "today/history.html",
        lines=_lines(page.rows),
        page=page,
        kinds=words.OF,
        everyone=people.names(db()),
        of=of,
        of_id=of_id,
        by=by,
    )


@blueprint.get(
    "/<any(piece, pour, batch, order, customer, document, thing, stock, item, person):of>/<int:key>.json"
)
def export(of: str, key: int) -> ResponseReturnValue:
    """Everything that was done to one thing, as a file, and what it is by that."""
    entries = list(reversed(db().exec(events.listed(of, key)).all()))
    if not entries:
        abort(404)
    names = people.names(db())
    told = [
        {
            "at": one.at.isoformat(),
            "by": names.get(one.person_id or 0, ""),
            "part": one.part,
            "row": one.row_id,
            "before": one.before,
            "after": one.after,
        }
        for one in entries
    ]
    state = [
        {"part": part, "row": row, "values": values}
        for (part, row), values in events.rebuilt(db(), of, key).items()
    ]
    text = json_text({"format": "lamsik-history/1", "of": of, "id": key, "events": told, "state": state})
    return as_file(text, f"{of} {key} history.json", "application/json")


def _whole(text: str) -> int | None:
    return int(text) if text.isascii() and text.isdigit() and len(text) < 10 else None


def _lines(rows: Sequence[LogEntry]) -> list[HistoryLine]:
    """Entries as lines: what was done to one thing in one go stands together."""
    names, called = people.names(db()), _called(rows)
    lines = []
    for _, group in groupby(rows, key=lambda row: (row.of, row.of_id, row.act or row.id)):
        done = list(group)
        name, link, steps = called.get((done[0].of, done[0].of_id), (words.OF.get(done[0].of, ""), "", {}))
        if done[0].of in ("item", "person"):
            name = str((done[0].after or {}).get("name") or (done[0].before or {}).get("name") or name)
        begun = any(row.before is None and not row.part for row in done)
        told = [
            row for row in reversed(done) if row.part or not begun or row.before is None
        ]  # what was set as it began is no news
        said = [words.said(row.of, row.part, row.before, row.after, steps) for row in told]
        back = done[0].id if len(done) == 1 and events.can_take_back(done[0]) else None
        by = names.get(done[0].person_id or 0, "")
        if any(said):
            lines.append(HistoryLine(done[0].at, by, name, link, tuple(filter(None, said)), back))
    return lines


Called = dict[tuple[str, int], tuple[str, str, Mapping[str, str]]]
"""By what events are of: its name, its page, the names of its steps."""


def _called(rows: Sequence[LogEntry]) -> Called:
    """The things that some events are of, each kind asked for once."""
    called: Called = {}
    for of, (table, tell) in THINGS.items():
        ids = {row.of_id for row in rows if row.of == of}
        named = select(table).where(col(getattr(table, "id")).in_(ids))  # noqa: B009
        for one in db().exec(named).all() if ids else []:
            called[of, getattr(one, "id")] = tell(one)  # noqa: B009
    return called


def _piece(row: Piece) -> tuple[str, str, Mapping[str, str]]:
    steps = {step.key: str(step.name) for step in routes.of(db(), row)}
    return row.number, url_for("pieces.show", key=row.id), steps


def _pour(row: Pour) -> tuple[str, str, Mapping[str, str]]:
    of = db().get_one(Document, db().get_one(MouldMade, row.made_id).mould_id).name
    return f"Shot {row.shot} of {of}", url_for("moulds_pour.show", key=row.id), TITLES


def _document(row: Document) -> tuple[str, str, Mapping[str, str]]:
    page = url_for(WAYS[row.kind][0], key=row.id) if row.deleted_at is None else ""
    return row.name, page, {}


THINGS: dict[str, tuple[type[SQLModel], Callable[[Any], tuple[str, str, Mapping[str, str]]]]] = {
    "piece": (Piece, _piece),
    "pour": (Pour, _pour),
    "batch": (Batch, lambda row: (row.purpose, url_for("mixes.batch", key=row.id), {})),
    "order": (Order, lambda row: (row.number, url_for("orders.show", key=row.id), {})),
    "customer": (Customer, lambda row: (row.name, url_for("orders_customers.show", key=row.id), {})),
    "document": (Document, _document),
    "thing": (WeighedThing, lambda row: (row.name, url_for("scale_things.show", key=row.id), {})),
    "stock": (StockItem, lambda row: (row.name, url_for("stores_items.show", key=row.id), {})),
    "person": (Person, lambda row: (row.name, "", {})),
}


@blueprint.post("/<int:key>/take-back")
def take_back(key: int) -> ResponseReturnValue:
    """Undo one event; what cannot be is said and stays."""
    one = load(LogEntry, key)
    try:
        events.take_back(db(), one)
        _followed(one)
        flash("It is as it was before.")
    except Refused as refused:
        flash(f"It stays. {refusals.says(refused)}", "refused")
    except IntegrityError:
        flash("It stays: something else has its name by now, or stands on it.", "refused")
    to = request.args.get("to", "")
    page = LISTS.get(to)
    return redirect(url_for(page, _anchor=to) if page else url_for(".index"))


LISTS = {
    **dict.fromkeys(("hardware", "slug", "drill", "water"), "stores.index"),
    **dict.fromkeys(("patch", "tool"), "paints_known.index"),
}
"""Lists whose notices carry this undo, and the page each is on."""


def _followed(one: LogEntry) -> None:
    """Where its piece and its order stand is told anew."""
    piece = db().get(Piece, one.of_id) if one.of == "piece" else None
    order = db().get(Order, one.of_id) if one.of == "order" else None
    if piece is not None:
        if events.TABLES[one.of, one.part] is PieceStep:
            step = (one.after or one.before or {})["step"]
            mixes.stop_linked(db(), waits_at(piece, step))
            used.anew(db(), piece, step)
        stands.anew(db(), piece)
    if order is not None:
        stands.order_anew(db(), order)

"""The Paints bench: schemes of ordered coats, on a reference silhouette and on a design's own."""

from typing import Any

from flask import Blueprint, redirect, render_template, request, url_for
from flask.typing import ResponseReturnValue

from lamsik.core.errors import Refused
from lamsik.core.paints.coats import ROLES, Coat
from lamsik.core.units import parse
from lamsik.documents.engine import apply
from lamsik.documents.schemes.document import SCHEME, blank, coats_of, read
from lamsik.drawings.body import paint_view
from lamsik.store import documents, orders
from lamsik.web.bodies.live import current
from lamsik.web.shared import keeping, whole
from lamsik.web.shared.cards import reference
from lamsik.web.shared.db import db, load_document, sent_base
from lamsik.web.shared.lists import asked_page, asked_text

blueprint = Blueprint("paints", __name__, url_prefix="/paints")
keeping.keep_documents(blueprint, "scheme", "paints.index", "paints.edit", copies=False)

_ENDINGS = {"film_um": "thickness", "wait_h": "time", "window_h": "time"}


@blueprint.get("")
def index() -> str:
    """All schemes, painted."""
    page = asked_page(documents.found("scheme", asked_text()))
    found = documents.currents(db(), page.rows)
    cards, broken = whole.shown_of(
        page.rows, lambda row: (row, coats_of(found[row.id or 0].content), found[row.id or 0].id)
    )
    return render_template("paints/index.html", cards=cards, broken=broken, page=page, q=asked_text())


@blueprint.post("/new")
def new() -> ResponseReturnValue:
    """A new scheme: seal, primer, base, fade, eyes and one clear to start from."""
    row = documents.begin(db(), "scheme", blank("New scheme"))
    return redirect(url_for("paints.edit", key=row.id))


@blueprint.get("/<int:key>")
def edit(key: int) -> str:
    """One scheme's coats, in order."""
    row = load_document("scheme", key)
    return _page(key, documents.content(db(), row), {})


def _page(key: int, content: dict[str, Any], problems: dict[str, str]) -> str:
    row = load_document("scheme", key)
    shown = documents.content(db(), row) if problems else content
    return render_template(
        "paints/edit.html",
        row=row,
        content=content,
        problems=problems,
        roles=ROLES,
        picture=paint_view(reference(coats_of(shown))),
    )


@blueprint.post("/<int:key>")
def save(key: int) -> ResponseReturnValue:
    """Keep the scheme as a new version; bad figures come back beside their field."""
    row = load_document("scheme", key)
    old = documents.content(db(), row)
    content, problems = _read(old)
    do, _, which = request.form.get("do", "").partition(":")
    if problems:
        return _page(key, content, problems), 422
    acts = {"add": {"role": which}, "remove": {"group": "coats", "key": which}, "up": {"key": which}}
    if do in acts:
        content = apply(SCHEME, content, {"do": do, **acts[do]}, None)
    read(content)
    try:
        documents.save(db(), row, content, sent_base(row))
    except documents.Stale as stale:
        return _page(key, content, {"name": stale.says}), 422
    return redirect(url_for("paints.edit", key=key))


def _read(old: dict[str, Any]) -> tuple[dict[str, Any], dict[str, str]]:
    """The scheme as typed; problems by field name. Fields that were not sent keep their value."""
    problems: dict[str, str] = {}
    typed: dict[str, str] = dict(old.get("typed", {}))
    name = request.form.get("name", old["name"]).strip()
    if not name:
        problems["name"] = "Give the scheme a name."
    rows = []
    for coat in old["coats"]:
        row = dict(coat)
        for field in ("name", "colour", "film_um", "wait_h", "count"):
            sent = request.form.get(f"{coat['key']}.{field}")
            if sent is not None:
                _read_field(row, coat["key"], field, sent.strip(), problems)
                if field in _ENDINGS and row[field] != coat[field]:
                    typed[f"{coat['key']}.{field}"] = sent.strip()
        rows.append(row)
    return {"name": name, "coats": rows, "typed": typed}, problems


def _read_field(row: dict[str, Any], key: str, field: str, text: str, problems: dict[str, str]) -> None:
    old = row[field]
    try:
        if field in _ENDINGS:
            row[field] = parse(text, _ENDINGS[field], field, "µm" if field == "film_um" else "h").value
        elif field == "count":
            row[field] = int(parse(text, "number", field).value)
        else:
            row[field] = text
        if field == "wait_h" and row["window_h"] is not None:
            row["window_h"] = max(row["window_h"], row["wait_h"])
        Coat(**row)
    except Refused as error:
        row[field] = old if field == "colour" else text
        problems[f"{key}.{field}"] = error.beside


@blueprint.get("/on/<int:key>")
def on_design(key: int) -> str:
    """A design in its scheme: pick one, change films, leave coats out."""
    row = load_document("body", key)
    page = asked_page(documents.found("scheme", asked_text()))
    found, body = documents.currents(db(), page.rows), documents.revision(db(), row)
    swatches = [
        (scheme, url_for("cards.swatch", scheme=found[scheme.id or 0].id, body=body.id))
        for scheme in page.rows
    ]
    return render_template(
        "paints/on_design.html",
        row=row,
        for_order=orders.waiting_for(db(), key),
        state=current(row, "paints"),
        swatches=swatches,
        page=page,
    )

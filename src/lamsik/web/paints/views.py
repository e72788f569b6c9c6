"""The Paints bench: schemes of ordered coats, on a reference silhouette and on a design's own."""

from dataclasses import asdict
from typing import Any

from flask import Blueprint, redirect, render_template, request, url_for
from flask.typing import ResponseReturnValue

from lamsik.core.errors import Refused
from lamsik.core.paints.coats import ROLES, Coat
from lamsik.core.units import parse
from lamsik.drawings.body import paint_view
from lamsik.store import documents, orders
from lamsik.web.bodies.live import current
from lamsik.web.shared import keeping, whole
from lamsik.web.shared.cards import coats_of, reference
from lamsik.web.shared.db import db, load_document, sent_base
from lamsik.web.shared.lists import asked_page, asked_text

blueprint = Blueprint("paints", __name__, url_prefix="/paints")
keeping.keep_documents(blueprint, "scheme", "paints.index", "paints.edit")

STARTS: dict[str, dict[str, Any]] = {
    "seal": {
        "name": "Seal, thinned epoxy",
        "colour": "#D9C08C",
        "film_um": 35.0,
        "density_g_cm3": 1.12,
        "wait_h": 12.0,
        "caution": "epoxy",
    },
    "primer": {
        "name": "White primer",
        "colour": "#F4F2EC",
        "film_um": 30.0,
        "density_g_cm3": 1.45,
        "wait_h": 2.0,
    },
    "base": {"name": "Base", "colour": "#D8DEE0", "film_um": 15.0, "wait_h": 1.0},
    "fade": {
        "name": "Back fade",
        "colour": "#3B5B45",
        "film_um": 12.0,
        "cover_share": 0.5,
        "reach_share": 0.55,
        "wait_h": 1.0,
    },
    "bars": {
        "name": "Bars",
        "colour": "#22332B",
        "film_um": 10.0,
        "cover_share": 0.2,
        "reach_share": 0.6,
        "count": 7,
        "wait_h": 1.0,
    },
    "spots": {
        "name": "Spots",
        "colour": "#A8281E",
        "film_um": 10.0,
        "cover_share": 0.08,
        "count": 9,
        "wait_h": 1.0,
    },
    "eyes": {
        "name": "Eyes, 5 mm",
        "colour": "#E8C33A",
        "film_um": 0.0,
        "density_g_cm3": 1.3,
        "mass_g": 0.06,
        "reach_share": 0.26,
        "wait_h": 0.0,
        "caution": "",
    },
    "clear": {
        "name": "Clear, slow epoxy",
        "colour": "#FFFFFF",
        "film_um": 120.0,
        "density_g_cm3": 1.12,
        "wait_h": 24.0,
        "window_h": 36.0,
        "caution": "epoxy",
    },
}
"""What a new coat of a role starts with; every figure is the maker's to change."""

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


def coat_start(role: str, taken: set[str]) -> dict[str, Any]:
    """A new coat of a role with a free key."""
    if role not in STARTS:
        raise Refused("role", role, f"one of {', '.join(ROLES)}")
    key = next(f"{role}{n}" for n in range(1, 200) if f"{role}{n}" not in taken)
    return asdict(Coat(key=key, role=role, **STARTS[role]))


@blueprint.post("/new")
def new() -> ResponseReturnValue:
    """A new scheme: seal, primer, base, fade, eyes and one clear to start from."""
    rows = [coat_start(role, set()) for role in ("seal", "primer", "base", "fade", "eyes", "clear")]
    row = documents.create(
        db(), "scheme", documents.next_code(db(), "scheme", "S"), {"name": "New scheme", "coats": rows}
    )
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
    if do == "add":
        coat = coat_start(which, {c["key"] for c in content["coats"]})
        content["coats"].insert(_place(content["coats"], which), coat)
    if do == "remove":
        content["coats"] = [c for c in content["coats"] if c["key"] != which]
    if do == "up":
        at = next((i for i, c in enumerate(content["coats"]) if c["key"] == which), 0)
        content["coats"][max(at - 1, 0) : at + 1] = reversed(content["coats"][max(at - 1, 0) : at + 1])
    coats_of(content)
    try:
        documents.save(db(), row, content, sent_base(row))
    except documents.Stale as stale:
        return _page(key, content, {"name": stale.says}), 422
    return redirect(url_for("paints.edit", key=key))


def _place(rows: list[dict[str, Any]], role: str) -> int:
    """After the last coat that usually lies under this role."""
    order = ROLES.index(role)
    return max((i + 1 for i, row in enumerate(rows) if ROLES.index(row["role"]) <= order), default=0)


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

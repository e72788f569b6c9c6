"""The Floats bench: all floats, one float in its water, shot tables, does this water need a slider."""

from flask import Blueprint, redirect, render_template, request, url_for
from flask.typing import ResponseReturnValue

from lamsik.core.errors import Refused
from lamsik.core.floats.design import KINDS, Float
from lamsik.core.floats.learning import advice, fit
from lamsik.core.floats.parts import KINDS as PART_KINDS
from lamsik.core.floats.rating import loading_g
from lamsik.core.floats.shotting import pull_to
from lamsik.core.floats.slider import SliderAnswer, slider
from lamsik.core.materials import BODY_MATERIALS, METALS
from lamsik.core.quantities import read_measure
from lamsik.core.water import Water
from lamsik.documents.floats.document import to_float
from lamsik.documents.rows import Document as Content
from lamsik.documents.shots.document import SHOTS
from lamsik.documents.shots.document import table_of as read_table
from lamsik.drawings.floats import thumbnail
from lamsik.drawings.svg import Node
from lamsik.store import documents, floats, routes
from lamsik.store.tables import Document
from lamsik.web.floats import shots
from lamsik.web.floats.live import current
from lamsik.web.floats.shop import finished, shop_of
from lamsik.web.floats.state import table_of
from lamsik.web.shared import keeping, whole
from lamsik.web.shared.db import db, load_document
from lamsik.web.shared.lists import asked_page, asked_text
from lamsik.web.shared.waters import shop_waters
from lamsik.words import refusals
from lamsik.words.floats import FORMS

blueprint = Blueprint("floats", __name__, url_prefix="/floats")

MOST_SCHEMES = 200
"""Schemes that a float is offered."""
keeping.keep_documents(blueprint, "float", "floats.index", "floats.edit")


@blueprint.get("")
def index() -> ResponseReturnValue:
    """All floats, drawn; the shot tables; the question of the slider."""
    return _page()


def _page(problem: str = "") -> ResponseReturnValue:
    page = asked_page(documents.matching("float", asked_text()))
    contents = documents.contents(db(), page.rows)
    cards, broken = whole.shown_of(page.rows, lambda row: _card(row, contents[row.id or 0]))
    rows = documents.listed(db(), "shots")
    sizes = documents.contents(db(), rows)
    tables, lost = whole.shown_of(rows, lambda row: (row, read_table(sizes[row.id or 0]))[0])
    answer, wrong = _slider()
    return render_template(
        "floats/index.html",
        page=page,
        cards=cards,
        broken=broken,
        kinds=KINDS,
        q=request.args.get("q", ""),
        problem=problem,
        tables=tables,
        lost=lost,
        answer=answer,
        slider_problem=wrong,
        asked=request.args,
    ), (422 if problem or wrong else 200)


def _card(row: Document, content: Content) -> tuple[Document, Float, Node, float]:
    design = to_float(content)
    return row, design, thumbnail(design), pull_to(design)


def _slider() -> tuple[SliderAnswer | None, str]:
    if not request.args.get("depth", "").strip():
        return None, ""
    try:
        depth, rod = (read_measure(request.args.get(name, ""), "distance", name) for name in ("depth", "rod"))
        return slider(depth, rod), ""
    except Refused as refused:
        return None, refusals.says(refused)


@blueprint.post("/new")
def new() -> ResponseReturnValue:
    """A float of a kind to begin from."""
    kind = request.form.get("kind", "")
    water = next((w for w in shop_waters() if w.salinity_psu < 0.5), Water())
    shots = next(iter(floats.tables(db())))
    row = documents.new(
        db(), "float", "first drawing", name=f"New {kind}", kind=kind, water=water, shots=shots
    )
    return redirect(url_for("floats.edit", key=row.id))


@blueprint.post("/bring-in")
def bring_in() -> ResponseReturnValue:
    """A file of a float or of a table of sizes brought in."""
    try:
        if _is_of_sizes():
            table = keeping.brought_in("shots", shots.current)
            return redirect(url_for("floats_shots.show", key=table.id))
        row = keeping.brought_in("float", _all_of)
    except Refused as refused:
        return _page(refusals.says(refused))
    return redirect(url_for("floats.edit", key=row.id))


def _is_of_sizes() -> bool:
    sent = request.files.get("file")
    if sent is None:
        return False
    data = sent.read(SHOTS.most_bytes)
    sent.seek(0)
    return f'"{SHOTS.format}"'.encode() in data


def _all_of(row: Document) -> object:
    """All that the bench shows of a float."""
    return _card(row, documents.content(db(), row)), current(row)


@blueprint.get("/<int:key>")
def edit(key: int) -> str:
    """One float: standing in its water, its parts, what it carries."""
    row = load_document("float", key)
    return render_template(
        "floats/edit.html",
        row=row,
        state=current(row),
        materials=(*BODY_MATERIALS, *METALS),
        forms=FORMS,
        part_kinds=PART_KINDS,
        kinds=KINDS,
        waters=shop_waters(),
        tables=floats.tables(db()),
        schemes=documents.listed(db(), "scheme", most=MOST_SCHEMES),
        route=routes.of_document(db(), "float", documents.content(db(), row)),
    )


@blueprint.get("/<int:key>/learned")
def learned(key: int) -> str:
    """The family's finished floats: computed, measured, what the fit makes of it, what to do with each."""
    row = load_document("float", key)
    content = documents.content(db(), row)
    design, shop = to_float(content), shop_of()
    rows = finished(design.family)
    fitted = fit([(one.computed_g, one.measured_g) for one in rows])
    table = table_of(content, shop)
    lines = [
        (
            one,
            fitted.predict(one.computed_g),
            advice(one.measured_g, _nominal(one.computed_g), table, one.design.water, loading_g(one.design)),
        )
        for one in rows
    ]
    return render_template(
        "floats/learned.html",
        row=row,
        design=design,
        lines=lines,
        fit=fitted,
        now=pull_to(design),
        after=fitted.predict(pull_to(design)),
    )


def _nominal(computed_g: float) -> float:
    """The rating a float was made for: to the tenth of a gram."""
    return round(computed_g, 1)

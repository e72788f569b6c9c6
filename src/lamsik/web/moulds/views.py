"""The Moulds bench: all moulds, a new one of a body, a weighed thing or a measured block, and its layout."""

import json
from dataclasses import asdict
from typing import Any

from flask import Blueprint, redirect, render_template, request, url_for
from flask.typing import ResponseReturnValue
from markupsafe import Markup

from lamsik.core.errors import Refused
from lamsik.core.moulds.masters import BOX, Master
from lamsik.core.moulds.pull import KINDS
from lamsik.core.quantities import kept_as_said, read_measure
from lamsik.core.shapes.sources import OWN, SAYS, Source
from lamsik.documents.moulds.document import (
    master_of,
    of_body,
    of_weighed,
    to_mould,
)
from lamsik.documents.moulds.edits import MOULD
from lamsik.documents.rows import Document as Content
from lamsik.drawings.mould import thumbnail
from lamsik.drawings.svg import markup
from lamsik.formats import document_file
from lamsik.store import documents, mixes, moulds, pours, weighed
from lamsik.store.paging import MOST
from lamsik.store.tables import Document, MouldMade, WeighedThing, now
from lamsik.web.batches.clocks import views_of
from lamsik.web.moulds.live import current
from lamsik.web.moulds.shop import master_of as master_here
from lamsik.web.moulds.shop import shop_of
from lamsik.web.shared import keeping, picks, whole
from lamsik.web.shared.db import db, load, load_document, sent_id
from lamsik.web.shared.lists import asked_page, asked_text
from lamsik.words import refusals
from lamsik.words.moulds import PULLS, VENTS

blueprint = Blueprint("moulds", __name__, url_prefix="/moulds")


def _file(row: Document) -> str:
    """The mould's file, its body in it."""
    content = documents.content(db(), row)
    block = dict(content["master"])
    if block["kind"] == "body":
        block |= {"document": moulds.body_content(db(), block), "body_id": None, "revision": None}
    return document_file.write(MOULD, {**content, "master": block})


keeping.keep_documents(blueprint, "mould", "moulds.index", "moulds.edit", _file)


@blueprint.get("")
def index() -> ResponseReturnValue:
    """All moulds, drawn; pours under way; what to begin from."""
    return _page()


def _row(row: Document, content: dict[str, Any]) -> tuple[Any, ...]:
    mould = to_mould(content, master_here(content["master"]))
    versions = moulds.versions(db(), row.id or 0)
    return (
        row,
        mould,
        _card(json.dumps(content, sort_keys=True), mould.master),
        versions[0] if versions else None,
        len(moulds.alive(versions[0])) if versions else 0,
    )


def _page(problem: str = "", way: str = "") -> ResponseReturnValue:
    page = asked_page(documents.matching("mould", asked_text()))
    contents = documents.contents(db(), page.rows)
    cards, broken = whole.shown_of(page.rows, lambda row: _row(row, contents[row.id or 0]))
    going = []
    for pour in pours.going(db()):
        made_row = load(MouldMade, pour.made_id)
        going.append((pour, load(Document, made_row.mould_id)))
    return render_template(
        "moulds/index.html",
        cards=cards,
        broken=broken,
        page=page,
        bodies=picks.of("body", picks.sent("body", "body")),
        things=weighed.sized(db(), MOST),
        going=going,
        problem=problem,
        way=way,
        sources=SAYS,
        asked=request.form,
        q=request.args.get("q", ""),
        clocks=views_of(mixes.running(db())),
        now=now(),
    ), (422 if problem else 200)


@kept_as_said(64)
def _card(text: str, master: Master) -> Markup:
    """The small plan of a mould, kept by its content and its master."""
    return markup(thumbnail(to_mould(json.loads(text), master)))


@blueprint.post("/new/<any(body, weighed, box):way>")
def new(way: str) -> ResponseReturnValue:
    """A mould of a body, of a thing weighed in water, or of a block measured by hand."""
    try:
        block, master = _begun(way)
        row = documents.new(db(), "mould", "first layout", block=block, master=master)
    except Refused as refused:
        db().rollback()
        return _page(refusals.says(refused), way)
    return redirect(url_for("moulds.edit", key=row.id))


def _begun(way: str) -> tuple[Content, Master]:
    if way == "body":
        row = load_document("body", sent_id("body"))
        return of_body(row.name, row.id or 0, row.current, documents.content(db(), row))
    sizes = [
        read_measure(request.form.get(name, ""), "length", name) for name in ("length", "width", "depth")
    ]
    if way == "weighed":
        thing_row = weighed.of(db(), load(WeighedThing, sent_id("thing")))
        thing = thing_row.in_water
        if thing is None or thing_row.air_g is None:
            raise Refused(
                "thing", thing_row.name, "weigh it in air and in water first: its volume comes from there"
            )
        return of_weighed(
            thing_row.name,
            thing_row.id,
            thing_row.air_g,
            thing.volume_ml,
            (sizes[0], sizes[1], sizes[2]),
            thing_row.source or None,
        )
    mass = request.form.get("mass", "").strip()
    block = {
        "kind": BOX,
        "name": request.form.get("name", "").strip()[:120] or "Master",
        "length_mm": sizes[0],
        "width_mm": sizes[1],
        "depth_mm": sizes[2],
        "volume_ml": _optional("volume", "volume"),
        "mass_g": read_measure(mass, "mass", "mass") if mass else None,
        "demouldings": None,
        "source": asdict(
            Source(request.form.get("source", OWN), request.form.get("source_note", "").strip())
        ),
    }
    return block, master_of(block)


def _optional(name: str, quantity: str) -> float | None:
    text = request.form.get(name, "").strip()
    return read_measure(text, quantity, name) if text else None


@blueprint.post("/bring-in")
def bring_in() -> ResponseReturnValue:
    """A mould file brought in; its body stays in its file."""
    try:
        row = keeping.brought_in("mould", lambda row: (_row(row, documents.content(db(), row)), current(row)))
    except Refused as refused:
        return _page(refusals.says(refused), "file")
    return redirect(url_for("moulds.edit", key=row.id))


@blueprint.get("/<int:key>")
def edit(key: int) -> str:
    """One mould: its plan, section, and how it is poured."""
    row = load_document("mould", key)
    shop = shop_of(key, documents.content(db(), row)["master"])
    products = {code: product for code, (_, product) in shop.products.items()}
    return render_template(
        "moulds/edit.html",
        row=row,
        state=current(row, shop),
        kinds=KINDS,
        pulls=PULLS,
        products=products,
        vent_shapes=VENTS,
    )

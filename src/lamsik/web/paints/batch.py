"""Several pieces painted together: which, and their batch card."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from functools import cached_property
from typing import Any

from flask import Blueprint, render_template, request, url_for
from flask.typing import ResponseReturnValue

from lamsik.core.errors import Refused
from lamsik.core.paints.dips import stop_of
from lamsik.core.paints.kinds import SIGNATURE
from lamsik.core.paints.layers import Layer
from lamsik.core.paints.loads import Load
from lamsik.core.paints.roles import SPRAYED
from lamsik.core.paints.spraying import Cup, cups
from lamsik.core.paints.zones import zones_on
from lamsik.core.quantities import counted, said
from lamsik.core.route.batches import PaintedTogether, batched
from lamsik.core.route.steps import COAT, step_kind_of
from lamsik.core.shapes.design import Design
from lamsik.store import paint_mixes, pieces, routes, skins
from lamsik.store.tables import Document, Order, Piece
from lamsik.web.shared import paper
from lamsik.web.shared.cards import design_of
from lamsik.web.shared.db import db
from lamsik.web.shared.lists import asked_page
from lamsik.web.shared.progress import stands
from lamsik.web.shared.schemes import scheme_said
from lamsik.words import cautions as cautions_said
from lamsik.words import paints
from lamsik.words.route import CHECKLISTS

blueprint = Blueprint("paints_batch", __name__, url_prefix="/paints/batch")

MOST_PIECES = 40
"""Pieces on one batch card."""
MOST_LISTED = 24


@dataclass(frozen=True)
class LoadRow:
    """A load: its paint, how it goes on, when at the earliest, what is done on which pieces, what is looked
    at.
    """

    order: int
    paint: str
    colour: str
    how: str
    takes: str
    begins: str
    pieces: tuple[tuple[str, tuple[str, ...]], ...]
    wait: str
    checks: tuple[str, ...]


@dataclass(frozen=True)
class PieceOn:
    """A piece on the card: its number, what it is, its scheme, the order it is for, its layers still to
    do.
    """

    piece: Piece
    row: Document
    design: Design
    order: Order | None
    scheme: str
    layers: tuple[Layer, ...]
    stays: Mapping[str, float]

    @cached_property
    def cups(self) -> tuple[Cup, ...]:
        """The same as they are done."""
        left = {layer.key for layer in self.layers}
        return tuple(cup for cup in cups(self.design, self.stays) if cup.layer.key in left)


@blueprint.get("")
def choose() -> str:
    """The pieces at work that have paint to come, to be ticked."""
    page = asked_page(pieces.going("body"), MOST_LISTED)
    rows = list(zip(_on(page.rows), stands(page.rows), strict=True))
    return render_template("paints/batch.html", rows=rows, page=page, asked=set(_asked()))


@blueprint.get("/card")
def card() -> str:
    """The batch card on screen, as it prints."""
    return render_template("paints/batch_card.html", **_card(), screen=True)


@blueprint.get("/card.pdf")
def card_pdf() -> ResponseReturnValue:
    """The batch card as PDF."""
    instead = url_for("paints_batch.card", piece=_asked())
    return paper.as_printed("paints/batch_card.html", _card(), "batch card", instead)


def _asked() -> list[int]:
    texts = request.args.getlist("piece")
    return list(dict.fromkeys(int(one) for one in texts if one.isascii() and one.isdigit() and len(one) < 10))


def _card() -> dict[str, Any]:
    rows = [row for key in _asked() if (row := db().get(Piece, key)) is not None and row.deleted_at is None]
    on = [one for one in _on(rows) if one.row.kind == "body" and one.layers]
    if not on:
        raise Refused("pieces", len(rows), "tick at least one piece that has paint to come")
    if len(on) > MOST_PIECES:
        raise Refused("pieces", len(on), f"at most {MOST_PIECES} on one card: make two")
    batch = batched([one.cups for one in on], routes.own_minutes(db()))
    return {
        "on": on,
        "asked": [one.piece.id for one in on],
        "sums": _sums(on, batch),
        "loads": [_load(on, load, n) for n, load in enumerate(batch.plan.loads, start=1)],
        "missed": [
            f"{on[piece].piece.number}: {on[piece].cups[layer].layer.name} waits longer than it may; scuff it"
            " before the next."
            for piece, layer in batch.plan.missed
        ],
        "cautions": cautions_said.all_of(
            dict.fromkeys(
                cup.layer.paint.caution for one in on for cup in one.cups if cup.layer.paint.caution
            )
        ),
        "defer": cautions_said.DEFER,
        "paper": paper.sheet(),
        "wide": paper.needs_japanese(*(one.design.name for one in on)),
    }


def _on(rows: Sequence[Piece]) -> list[PieceOn]:
    contents, done = pieces.documents_of(db(), rows), routes.ended(db(), rows)
    put_on = routes.painted(db(), rows)
    skins.ready(db(), [dict(one) for one in contents.values()])
    on: list[PieceOn] = []
    called: dict[tuple[str, int], str] = {}
    designs: dict[int, Design] = {}
    stays = paint_mixes.stays_shares(db())
    for piece in rows:
        row = db().get_one(Document, piece.design_id)
        if row.kind == "body":
            key = piece.revision_id
            if key not in designs:
                designs[key] = design_of(contents[key])
            design = designs[key]
            order = db().get(Order, piece.order_id) if piece.order_id else None
            asked, ended = put_on[piece.id or 0], done[piece.id or 0]
            left = tuple(
                layer for layer in design.layers if layer.key in asked and f"{COAT}{layer.key}" not in ended
            )
            scheme = design.scheme, design.scheme_version
            if scheme not in called:
                called[scheme] = scheme_said(design)
            on.append(PieceOn(piece, row, design, order, called[scheme], left, stays))
    return on


def _sums(on: Sequence[PieceOn], batch: PaintedTogether) -> str:
    layers = sum(len(one.cups) for one in on)
    proven = "no order has fewer" if batch.plan.is_best else "a good order; there may be one with fewer"
    return (
        f"{counted(len(on), 'piece')}, {counted(layers, 'layer')}: {counted(batch.loads, 'load')} and"
        f" {counted(batch.changes, 'change')} of colour instead of {batch.alone} loads piece by piece,"
        f" {batch.saved} saved; {proven}."
    )


def _load(on: Sequence[PieceOn], load: Load, order: int) -> LoadRow:
    done = [(on[piece], on[piece].cups[layer]) for piece, layer in load.tasks]
    first = done[0][1]
    paint = first.layer.paint
    kind = f"{paint.kind}, {paint.chemistry}" if first.needs_cup else paints.KINDS[first.layer.kind]
    airs = dict.fromkeys(paints.how(cup.layer) for _, cup in done)
    names = dict.fromkeys(cup.layer.name for _, cup in done)
    waits = dict.fromkeys(paints.waits(cup.wait_h, cup.window_h, cup.layer.scuff) for _, cup in done)
    return LoadRow(
        order=order,
        paint=f"{paint.name}, {kind}" if paint.name else f"{', '.join(names)}: {kind}",
        colour=paint.colour,
        how="; ".join(airs) if first.layer.by == SPRAYED else paints.WAYS[first.layer.by],
        takes=paints.in_cup(sum(cup.wet_ml for _, cup in done)),
        begins=f"+ {said(load.begins_min / 60.0, 'time', 1)}" if load.begins_min else "at once",
        pieces=_by_what([(one.piece.number, _done_on(one, cup)) for one, cup in done]),
        wait="; ".join(waits),
        checks=tuple(
            dict.fromkeys(text for _, cup in done for text in CHECKLISTS.get(step_kind_of(cup.layer), ()))
        ),
    )


def _by_what(rows: Sequence[tuple[str, str]]) -> tuple[tuple[str, tuple[str, ...]], ...]:
    """What is done, once, with the numbers of the pieces it is done on."""
    kinds = dict.fromkeys(what for _, what in rows)
    return tuple((what, tuple(number for number, its in rows if its == what)) for what in kinds)


def _done_on(one: PieceOn, cup: Cup) -> str:
    """What is done on one piece: the layer, in how many passes; how deep it goes in, what it is signed
    with.
    """
    layer = cup.layer
    dip = stop_of(layer, zones_on(one.design), one.design.body.length_mm)
    if dip is not None:
        return f"{paints.dipped(layer, dip)} {paints.passes(layer)}"
    signed = f", number {one.piece.number}" if layer.kind == SIGNATURE else ""
    return f"{layer.name}, {paints.passes(layer)}{signed}"

"""Doing it: the finish map of a body, what is masked, in which order, how deep it may be dipped, what is
looked at in the end; the spray card of a piece.
"""

from collections.abc import Iterable, Mapping
from dataclasses import dataclass, replace
from typing import Any

from flask import Blueprint, abort, render_template, url_for
from flask.typing import ResponseReturnValue

from lamsik.core.paints.adjusting import resolved
from lamsik.core.paints.cuts import cuts_of
from lamsik.core.paints.dips import stop_of
from lamsik.core.paints.eyes import EYE_KINDS
from lamsik.core.paints.job import changes
from lamsik.core.paints.kinds import SIGNATURE
from lamsik.core.paints.lifts import Patch
from lamsik.core.paints.roles import CLEARS, FITTED
from lamsik.core.paints.rules import ruled
from lamsik.core.paints.spraying import STAYS_SHARE, Cup, cups
from lamsik.core.paints.zones import MAY, FinishZone, checks_of, masked, zones_on
from lamsik.core.route.steps import step_kind_of
from lamsik.core.shapes.design import Design
from lamsik.documents.body.document import to_design
from lamsik.documents.schemes.document import job_of
from lamsik.drawings.finish import finish_map, hung
from lamsik.drawings.svg import Node
from lamsik.store import documents, orders, paint_mixes, pieces, routes, skins, tried
from lamsik.store.tables import Document, Order, Piece
from lamsik.web.bodies.paints_state import patches
from lamsik.web.shared import paper
from lamsik.web.shared.db import db, load, load_document
from lamsik.web.shared.schemes import scheme_said
from lamsik.words import cautions as cautions_said
from lamsik.words import paints
from lamsik.words.route import CHECKLISTS

blueprint = Blueprint("paints_doing", __name__, url_prefix="/paints")


@dataclass(frozen=True)
class ZoneRow:
    """A zone of the map: its number there, what it is, what may be done, how it is kept bare."""

    number: int
    says: str
    name: str
    may: tuple[str, ...]
    mask: str


@dataclass(frozen=True)
class CupRow:
    """A layer as it is done: what goes into the cup, how it goes on, what is waited and looked at."""

    order: int
    name: str
    colour: str
    paint: str
    how: str
    passes: str
    takes: str
    wait: str
    note: str
    checks: tuple[str, ...]
    cautions: tuple[str, ...]


@dataclass(frozen=True)
class DipView:
    """A dip that must stop: the body as it hangs, and in words."""

    picture: Node
    says: str


@dataclass(frozen=True)
class Doing:
    """All that is done of a body's paint."""

    zones: tuple[ZoneRow, ...]
    map: Node
    cups: tuple[CupRow, ...]
    eyes: tuple[str, ...]
    dips: tuple[DipView, ...]
    checks: tuple[str, ...]
    warnings: tuple[str, ...]


def doing(
    design: Design, tried_here: list[Patch], number: str = "", stays: Mapping[str, float] = STAYS_SHARE
) -> Doing:
    """What is done of a design's paint, in words and pictures; of a piece also the `number` it is signed
    with; `stays` is what of a paint is known to stay on a body, by how it goes on.
    """
    zones = zones_on(design)
    return Doing(
        zones=tuple(_zone(zone, number) for number, zone in enumerate(zones)),
        map=finish_map(design, zones),
        cups=_once(_cup(design, zones, cup, n, number) for n, cup in enumerate(cups(design, stays), start=1)),
        eyes=tuple(
            f"{one.name}: {paints.EYES[one.eye]}, {_turn(design, n)}."
            for n, one in enumerate(design.layers)
            if one.does == FITTED
        ),
        dips=tuple(_dips(design, zones)),
        checks=tuple(paints.CHECKS[check] for check in checks_of(zones)),
        warnings=tuple(says for _, says in paints.warnings(design.layers, ruled(design, tried_here))),
    )


def _turn(design: Design, n: int) -> str:
    """When eyes go on that are the n-th layer."""
    layer = design.layers[n]
    is_last = any(one.does == CLEARS for one in design.layers[:n])
    return paints.GLUED_LATE if layer.is_glued_late and is_last else paints.EYE_ORDER[layer.eye]


def _sentences(*texts: str) -> str:
    """Texts one after the other, each ended."""
    return " ".join(text if text.endswith((".", "!")) else f"{text}." for text in texts if text)


def _once(rows: Iterable[CupRow]) -> tuple[CupRow, ...]:
    """Each caution in full where it is first met; further on, where that is."""
    first: dict[str, int] = {}
    shown = []
    for row in rows:
        texts = tuple(f"as with {first[text]}" if text in first else text for text in row.cautions)
        for text in row.cautions:
            first.setdefault(text, row.order)
        shown.append(replace(row, cautions=texts))
    return tuple(shown)


def _zone(zone: FinishZone, number: int) -> ZoneRow:
    may = tuple(paints.MAY[one] for one in MAY if one in zone.of.may)
    return ZoneRow(number, paints.ZONES[zone.kind], zone.name, may, paints.MASKS.get(zone.of.mask, ""))


def _dips(design: Design, zones: tuple[FinishZone, ...]) -> list[DipView]:
    views = []
    for layer in design.layers:
        dip = stop_of(layer, zones, design.body.length_mm)
        if dip is not None:
            views.append(DipView(hung(design, dip), paints.dipped(layer, dip)))
    return views


def _cup(design: Design, zones: tuple[FinishZone, ...], cup: Cup, order: int, number: str) -> CupRow:
    layer, paint = cup.layer, cup.layer.paint
    signed = f"its number: {number}" if number and layer.kind == SIGNATURE else ""
    kind = paints.EYES[layer.eye] if layer.does == FITTED else f"{paint.kind}, {paint.chemistry}"
    dip = stop_of(layer, zones, design.body.length_mm)
    checks = (*CHECKLISTS.get(step_kind_of(layer), ()), *(("Seat scuffed",) if layer.is_glued_late else ()))
    return CupRow(
        order=order,
        name=layer.name,
        colour=paint.colour,
        paint=f"{paint.name}, {kind}" if paint.name else kind,
        how=paints.how(layer),
        passes=paints.passes(layer),
        takes=paints.in_cup(cup.wet_ml),
        wait=paints.waits(cup.wait_h, cup.window_h, layer.scuff),
        note=_sentences(signed, layer.note, paints.dipped(layer, dip) if dip else "", layer.intended),
        checks=checks,
        cautions=cautions_said.all_of((paint.caution,) if paint.caution else ()),
    )


@blueprint.get("/on/<int:key>/doing")
def on_design(key: int) -> str:
    """The finish map of a body, masks, order, dips and the final checklist."""
    row = load_document("body", key)
    content = documents.content(db(), row)
    skins.ready(db(), [content])
    design = to_design(content)
    return render_template(
        "paints/doing.html",
        row=row,
        for_order=orders.waiting_for(db(), key),
        design=design,
        shown=doing(design, patches(), stays=paint_mixes.stays_shares(db())),
        tools=tried.tools_for(db(), key),
        cuts=[(one.key, paints.cut(one)) for one in cuts_of(design)],
        may=paints.MAY,
        is_there=[one for one in design.layers if one.does == FITTED and EYE_KINDS[one.eye].is_there],
        masks=len(masked(zones_on(design))),
    )


@blueprint.get("/piece/<int:key>/card")
def card(key: int) -> str:
    """The spray card of a piece on screen, as it prints."""
    return render_template("paints/spray_card.html", **_card(key), screen=True)


@blueprint.get("/piece/<int:key>/card.pdf")
def card_pdf(key: int) -> ResponseReturnValue:
    """The spray card of a piece as PDF."""
    shown, instead = _card(key), url_for("paints_doing.card", key=key)
    return paper.as_printed("paints/spray_card.html", shown, f"{shown['piece'].number} spray card", instead)


def _changed(design: Design) -> tuple[str, tuple[str, ...]]:
    """What the scheme of a design is being matched to, and what of it is done otherwise than before."""
    row = documents.coded(db(), "scheme", design.scheme) if design.scheme else None
    job = job_of(documents.content(db(), row)) if row is not None else None
    if job is None:
        return "", ()
    before = resolved(job.before, design.adjustments)
    return job.to, tuple(paints.changed(one) for one in changes(before, design.layers))


def _card(key: int) -> dict[str, Any]:
    piece = load(Piece, key)
    row = db().get_one(Document, piece.design_id)
    if row.kind != "body":
        abort(404)
    content = dict(pieces.document_of(db(), piece))
    skins.ready(db(), [content])
    whole, put_on = to_design(content), routes.painted(db(), [piece])[key]
    design = replace(whole, layers=tuple(one for one in whole.layers if one.key in put_on))
    order = db().get(Order, piece.order_id) if piece.order_id else None
    return {
        "piece": piece,
        "row": row,
        "order": order,
        "changed": _changed(whole),
        "design": design,
        "scheme": scheme_said(design),
        "shown": doing(design, patches(), piece.number, paint_mixes.stays_shares(db())),
        "defer": cautions_said.DEFER,
        "paper": paper.sheet(),
        "wide": paper.needs_japanese(design.name, *(one.name + one.note for one in design.layers)),
    }

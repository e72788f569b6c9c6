"""The Pieces bench: each bait made, its steps and weighings, its card, and all that is unweighed."""

from flask import Blueprint, abort, flash, redirect, render_template, request, url_for
from flask.typing import ResponseReturnValue

from lamsik.core.errors import Refused, named, require
from lamsik.core.orders.lines import LINE_KINDS
from lamsik.core.quantities import counted, kept_as_said, read_measure
from lamsik.core.route.repaint import OLD_PAINT, TOUCHED
from lamsik.core.shapes.design import Design
from lamsik.core.tank.mass import SIZED_AT, Measured, budget, unweighed
from lamsik.core.tank.parts import Part
from lamsik.core.water import Water
from lamsik.core.weighing.inwater import with_sinker
from lamsik.documents.body.document import with_design
from lamsik.documents.body.edits import BODY
from lamsik.documents.engine import apply
from lamsik.drawings import card as drawings
from lamsik.drawings.tank import default_view, scene
from lamsik.store import custody, documents, moved, order_lines, pieces, rights, routes, stores
from lamsik.store import stands as stands_of
from lamsik.store.tables import CustodyItem, Document, Instrument, Order, OrderLine, Piece, Revision
from lamsik.web.bodies.tank_facts import budget_rows, tank_facts
from lamsik.web.pieces import others
from lamsik.web.pieces.bench import PieceView, view
from lamsik.web.pieces.learned import learn_faces
from lamsik.web.pieces.steps import asked_of
from lamsik.web.shared import keeping, paper
from lamsik.web.shared.cards import design_of
from lamsik.web.shared.db import db, load, sent_id
from lamsik.web.shared.forms import whole
from lamsik.web.shared.lists import asked_page, asked_text
from lamsik.web.shared.photos import photos_of
from lamsik.web.shared.progress import stands
from lamsik.web.shared.scale import as_weighed, board, typed_weight
from lamsik.words import refusals
from lamsik.words.route import CHECKLISTS
from lamsik.words.verdict import sentence

blueprint = Blueprint("pieces", __name__, url_prefix="/pieces")

MOST_UNWEIGHED = 24
"""Pieces on one page of all that is unweighed."""


@blueprint.get("")
def index() -> str:
    """All pieces, the newest first, with the step each is at."""
    page = asked_page(pieces.listed(asked_text()))
    rows = [_line(piece, stand) for piece, stand in zip(page.rows, stands(page.rows), strict=True)]
    return render_template("pieces/index.html", rows=rows, page=page, q=asked_text())


def _line(piece: Piece, stands_at: tuple[str, int, int]) -> tuple[Piece, Document | None, str, int]:
    name, done, count = stands_at
    return piece, db().get(Document, piece.design_id), name, round(100 * done / max(count, 1))


@blueprint.post("/start")
def start() -> ResponseReturnValue:
    """Start a piece of a design, for an order or for stock; a float or a blade is made for stock."""
    row = load(Document, sent_id("design"))
    if row.kind not in routes.BUILT or row.deleted_at is not None:
        abort(404)
    line = _line_of(row, request.form.get("repaint", ""))
    order = load(Order, line.order_id) if line else None
    if line and row.kind != LINE_KINDS[line.kind].of:
        raise Refused("design", row.name, "what its line is of: others are made for stock")
    why = order_lines.why_not(db(), line, row.id) if line else ""
    why_paint = rights.why_not(db(), line.scheme_id) if line else ""
    if order and (why or why_paint):
        what = f"the shape is {why}" if why else f"its scheme is {why_paint}"
        flash(f"No piece is started for {order.number}: {what}.", "refused")
        return redirect(url_for("orders.show", key=order.id))
    repaint = request.form.get("repaint", "") or (order_lines.work_of(line) if line else "")
    if repaint:
        require(repaint in (*OLD_PAINT, *TOUCHED), "repaint", repaint, named(OLD_PAINT))
        require(row.kind == "body", "design", row.name, "a bait: only that is painted anew by a scheme")
    piece = pieces.start(db(), row, line, repaint)
    made_as = load(Revision, piece.revision_id)
    otherwise = " It is made as ordered, not as it is drawn now." if order and made_as.beside else ""
    whose = f"for {order.number}" if order else "for stock"
    flash(f"{piece.number} is started from {row.name}, {whose}.{otherwise}")
    return redirect(url_for("pieces.show", key=piece.id))


def _theirs(piece: Piece) -> CustodyItem | None:
    """What of the customer's the piece is, by its line."""
    line = db().get(OrderLine, piece.line_id) if piece.line_id else None
    return db().get(CustodyItem, line.custody_id) if line is not None and line.custody_id else None


def _line_of(row: Document, repaint: str) -> OrderLine | None:
    """The line a piece is for: the one that is named, else one that waits for such a piece."""
    if sent_id("line"):
        return load(OrderLine, sent_id("line"))
    line = order_lines.waiting_for(db(), row.id or 0)
    is_such = line is not None and order_lines.work_of(line) == repaint
    return line if is_such else None


@blueprint.get("/<int:key>")
def show(key: int) -> str:
    """The bench page of one piece; what stands against ticking a step is asked beside it."""
    return _page(load(Piece, key))


def _page(piece: Piece, error: dict[str, str] | None = None) -> str:
    row = db().get_one(Document, piece.design_id)
    shown = view(piece) if row.kind == "body" else others.view(piece, row)
    common = {
        "shown": shown,
        "instruments": pieces.instruments(db()),
        "error": error or {},
        "asks": None if error else asked_of(piece, shown.rows, request.args.get("ask", "")),
        **board(f"piece {piece.id}"),
        **photos_of("piece", piece.id or 0),
        "theirs": _theirs(piece),
        "took": moved.took(db(), piece),
    }
    if not isinstance(shown, PieceView):
        return render_template("pieces/other.html", sized_at=(), **common)
    looks = default_view(shown.outcome)
    return render_template(
        "pieces/show.html",
        checklists=CHECKLISTS,
        picture=scene(shown.outcome, looks, handles=False),
        facts=tank_facts(shown.outcome, looks),
        budget=budget_rows(shown.outcome.budget.parts),
        verdict=sentence(shown.outcome.verdict),
        planned=sentence(shown.planned.verdict),
        sized_at=SIZED_AT,
        lent=custody.of_order(db(), shown.piece.order_id) if shown.piece.order_id else (),
        **common,
    )


@blueprint.post("/<int:key>/weigh")
def weigh(key: int) -> ResponseReturnValue:
    """Keep what the scale says; a bad text comes back in its place with what is allowed."""
    piece = load(Piece, key)
    target, text = request.form.get("target", ""), request.form.get("mass", "")
    try:
        instrument = db().get(Instrument, sent_id("instrument"))
        if instrument is None:
            raise Refused("instrument", request.form.get("instrument"), "pick a scale; add one in Stores")
        if target.startswith(f"{pieces.WATER}:"):
            held, water = _held_under()
            pieces.weigh(db(), piece, target, held, text.strip(), instrument, water)
            learn_faces()
        else:
            kind, _, part = target.partition(":")
            if kind == pieces.PART and part not in _parts_of(piece):
                raise Refused("target", part, "this piece has no such part: open its page anew")
            pieces.weigh(db(), piece, target, typed_weight(text, "mass"), as_weighed(text), instrument)
    except Refused as refused:
        sent = {name: request.form.get(name, "") for name in ("sinker", "temperature")}
        return _page(
            piece, {**sent, "target": target, "text": text, "message": refusals.beside(refused)}
        ), 422
    return redirect(url_for("pieces.show", key=key, _anchor="bench"))


def _parts_of(piece: Piece) -> set[str]:
    """The parts of a bait that may be weighed by themselves."""
    is_body = db().get_one(Document, piece.design_id).kind == "body"
    return {part.key for part in view(piece).outcome.budget.parts} if is_body else set()


def _bait(key: int) -> Piece:
    """A piece that is a bait: only of those there are a card and advice. Raises `Refused`."""
    piece = load(Piece, key)
    row = db().get_one(Document, piece.design_id)
    if row.kind != "body":
        raise Refused("piece", piece.number, f"a bait: {row.name} has its drawings on its own page")
    return piece


def _held_under() -> tuple[float, Water]:
    """What a blank weighs held under [g], negative where it floats, and the fresh water of the tub: read
    with a sinker, or by itself where it sinks.
    """
    both = typed_weight(request.form.get("mass", ""), "under water")
    sinker = request.form.get("sinker", "").strip()
    warm = read_measure(request.form.get("temperature", ""), "temperature", "water temperature")
    return with_sinker(both, typed_weight(sinker, "sinker")) if sinker else both, Water("fresh water", warm)


@blueprint.post("/<int:key>/take-back/<int:weighing>")
def take_back(key: int, weighing: int) -> ResponseReturnValue:
    """Undo a reading."""
    pieces.take_back(db(), load(Piece, key), weighing)
    learn_faces()
    return redirect(url_for("pieces.show", key=key, _anchor="bench"))


@blueprint.post("/<int:key>/<any(delete, bring_back):way>")
def put_away(key: int, way: str) -> ResponseReturnValue:
    """A piece made by mistake goes, or comes back; its number is not given again."""
    piece = load(Piece, key)
    return keeping.put_away(
        piece,
        way,
        url_for("pieces.index"),
        url_for("pieces.show", key=key),
        url_for("pieces.put_away", key=key, way="bring_back"),
    )


@blueprint.post("/<int:key>/use-advice")
def use_advice(key: int) -> ResponseReturnValue:
    """Make this piece with the ballast advised for its weighed blank; the design itself stays."""
    piece = _bait(key)
    shown = view(piece)
    if shown.advice.design is None:
        raise Refused("advice", "none", f"weigh the {shown.design.host.blank} first")
    revision = load(Revision, piece.revision_id)
    changed = with_design(dict(pieces.document_of(db(), piece)), shown.advice.design)
    piece.revision_id = (
        documents.branch(
            db(), shown.row, changed, revision.number, f"ballast for {piece.number} as weighed"
        ).id
        or 0
    )
    routes.follow(db(), piece)
    stands_of.anew(db(), piece)
    flash("The piece now takes the advised ballast; its card is renewed.")
    return redirect(url_for("pieces.show", key=key))


@blueprint.post("/<int:key>/coats")
def coats(key: int) -> ResponseReturnValue:
    """This piece gets so many coats of clear; its design and the other pieces stay as they are."""
    piece = _bait(key)
    row = db().get_one(Document, piece.design_id)
    count = whole(request.form.get("count", ""), "coats of clear", 0, 12)
    edit = {"do": "clear", "count": count}
    changed = apply(BODY, dict(pieces.document_of(db(), piece)), edit, stores.catalogue(db()))
    revision = load(Revision, piece.revision_id)
    note = f"{counted(count, 'coat')} of clear for {piece.number}"
    piece.revision_id = documents.branch(db(), row, changed, revision.number, note).id or 0
    routes.follow(db(), piece)
    stands_of.anew(db(), piece)
    flash(f"{piece.number} now gets {counted(count, 'coat')} of clear; its steps and dates follow.")
    return redirect(url_for("pieces.show", key=key, _anchor="bench"))


@blueprint.get("/unweighed")
def unweighed_list() -> str:
    """Everything in pieces at work that no scale has seen."""
    page = asked_page(pieces.going("body"), MOST_UNWEIGHED)
    readings, contents, rows = (
        pieces.readings_of(db(), [piece.id or 0 for piece in page.rows]),
        pieces.documents_of(db(), page.rows),
        [],
    )
    for piece in page.rows:
        design = design_of(contents[piece.revision_id])
        rows.append((piece, design, _not_seen(design, pieces.measured(readings.get(piece.id or 0, {})))))
    return render_template("pieces/unweighed.html", rows=rows, page=page)


@kept_as_said(256)
def _not_seen(design: Design, measured: Measured) -> tuple[Part, ...]:
    """Parts no scale has seen, kept by the design and what was weighed."""
    return unweighed(budget(design, measured).parts)


@blueprint.get("/<int:key>/card")
def card(key: int) -> str:
    """The bench card on screen, as it prints."""
    return render_template("pieces/card.html", **_card(view(_bait(key))), screen=True)


@blueprint.get("/<int:key>/card.pdf")
def card_pdf(key: int) -> ResponseReturnValue:
    """The bench card as PDF, true to size."""
    shown = view(_bait(key))
    name, instead = f"{shown.piece.number} bench card", url_for("pieces.card", key=key)
    return paper.as_printed("pieces/card.html", _card(shown), name, instead)


PAPERS = {
    "Letter": (("Letter", 232.0), ("Tabloid", 384.0), ("Broadsheet", 1e9)),
    "": (("A4", 250.0), ("A3", 380.0), ("A2", 1e9)),
}
"""Papers of the card and the longest body that lies on each [mm], where the shop prints on Letter, and
elsewhere.
"""


def card_paper(length_mm: float, shops: str) -> str:
    """The smallest paper that a body lies on in full size, of the family the shop prints on."""
    return next(paper for paper, most in PAPERS.get(shops, PAPERS[""]) if length_mm <= most)


def _card(shown: PieceView) -> dict[str, object]:
    design = shown.design
    return {
        "shown": shown,
        "wide": paper.needs_japanese(
            design.name, design.host.name, *(x.name + x.note for x in design.layers)
        ),
        "paper": card_paper(design.body.length_mm, stores.setting(db(), "saw")["paper"]),
        "side": drawings.side_template(design),
        "top": drawings.top_template(design),
        "cuts": drawings.sections(design),
        "check": drawings.check_ruler()[0],
        "check_says": drawings.check_ruler()[1],
        "drill": drawings.drill_map(design),
        "budget": budget_rows(shown.outcome.budget.parts),
        "facts": tank_facts(shown.outcome, default_view(shown.outcome)),
    }

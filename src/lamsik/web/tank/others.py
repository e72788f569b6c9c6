"""Another design or piece to compare with, by a short name in the address: `d12` a design, `p45` a piece."""

from dataclasses import dataclass

from flask import abort

from lamsik.core.tank import evaluate
from lamsik.core.tank.evaluate import Outcome
from lamsik.core.tank.mass import NOTHING, Measured
from lamsik.documents.body.document import to_design
from lamsik.store import documents, pieces, stores
from lamsik.store.tables import Document, Piece
from lamsik.web.shared import picks
from lamsik.web.shared.db import db, load, load_document
from lamsik.web.shared.picks import Picks


@dataclass(frozen=True)
class Other:
    """What is compared with: its name, and how it comes out; a piece with what the scale said of it."""

    name: str
    outcome: Outcome


def outcome_of(row: Document, settled: bool = True) -> Outcome:
    """How a saved design comes out."""
    return _evaluated(documents.content(db(), row), NOTHING, settled)


def _evaluated(content: dict[str, object], measured: Measured, settled: bool) -> Outcome:
    rules, design = stores.rules(db()), to_design(content)
    return evaluate.settle(design, measured, rules) if settled else evaluate.drag(design, measured, rules)


def other(name: str, settled: bool = True) -> Other | None:
    """What a short name stands for; None for no name, 404 for one that is nothing."""
    if not name:
        return None
    kind, number = name[:1], name[1:]
    if kind not in "dp" or not (number.isascii() and number.isdigit() and len(number) < 10):
        abort(404)
    if kind == "d":
        row = load_document("body", int(number))
        return Other(row.name, outcome_of(row, settled))
    piece = load(Piece, int(number))
    if db().get_one(Document, piece.design_id).kind != "body":
        abort(404)
    measured = pieces.measured(pieces.readings(db(), piece))
    return Other(
        f"piece {piece.number}", _evaluated(dict(pieces.document_of(db(), piece)), measured, settled)
    )


def choices(but: int, chosen: str, held: Other | None) -> Picks:
    """Designs and the newest pieces to choose from; what is chosen among them."""
    return picks.of("bait", (chosen, held.name) if held else None, but=f"d{but}")

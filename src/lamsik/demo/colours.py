"""Puts the invented shop's paints on the shelf, its mixed swatches and the colours it was asked for."""

from typing import Any

from sqlmodel import Session

from lamsik.core.paints.lab import Lab
from lamsik.core.paints.shelf import READER, Pot, ShelfPaint
from lamsik.core.paints.swatch import Swatch
from lamsik.core.paints.wanted import RecipePart, WantedColour
from lamsik.demo import schemes
from lamsik.demo.scenario_colours import JOBS, MIXED, OFF_THE_SHELF, SHELF, SOLVENT
from lamsik.documents.engine import apply
from lamsik.documents.matches.document import begun as wanted
from lamsik.documents.paints.document import begun
from lamsik.documents.schemes.document import SCHEME
from lamsik.store import documents, shelf


def build(session: Session) -> None:
    """Paints first: mixes name them by their codes."""
    codes = {}
    for row in SHELF:
        paint = _paint(row)
        codes[paint.name] = documents.begin(session, "paint", begun(paint)).code
    for name, parts, look, seen in MIXED:
        recipe = tuple(RecipePart(f"r{n}", codes[of], float(drops)) for n, (of, drops) in enumerate(parts, 1))
        match = WantedColour(name, Lab(*look), READER, parts=recipe, is_seen=True, seen=Lab(*seen))
        documents.begin(session, "match", wanted(match))
    for name, look, note in JOBS:
        documents.begin(session, "match", wanted(WantedColour(name, Lab(*look), READER, note=note)))
    _scheme(session)


def _scheme(session: Session) -> None:
    """A scheme that is painted off the shelf."""
    name, rows, paints = OFF_THE_SHELF
    content = schemes.content(name, rows)
    known = shelf.as_paints(session)
    for key, of in paints:
        code = next(code for code, one in known.items() if one.name.startswith(of))
        content = apply(SCHEME, content, {"do": "shelf", "key": key, "code": code}, known)
    documents.begin(session, "scheme", content)


def _paint(row: tuple[Any, ...]) -> ShelfPaint:
    name, kind, white, black, film, solids, price, left = row
    chemistry, drop = ("solvent", 0.04) if kind in SOLVENT else ("water", 0.05)
    return ShelfPaint(
        name,
        kind,
        chemistry,
        Swatch(Lab(*white), Lab(*black), float(film)),
        READER,
        float(solids),
        drop_ml=drop,
        price=price,
        caution="solvent",
        thinner="water and a drop of medium" if chemistry == "water" else "its own, see the sheet",
        pots=(Pot("p1", f"{name[:2].upper()}{int(film)}{int(solids)}", float(left)),),
    )

"""Edits of the Tank: what is wanted, in which water, ballast answers, allowances, trial weights, what-ifs."""

from collections.abc import Callable
from dataclasses import asdict, replace

from lamsik.core.errors import Refused, finite_between, named, one_of, rule
from lamsik.core.shapes.allowances import KINDS, START_G, Allowance
from lamsik.core.shapes.ballast_holes import BALLS, Slug
from lamsik.core.shapes.catalogue import Catalogue
from lamsik.core.shapes.hardware import SEATS, Item
from lamsik.core.shapes.inside import Cavity, PouredEnd
from lamsik.core.shapes.scaling import scaled
from lamsik.core.shapes.trial import BELLY, TrialWeight
from lamsik.core.trade.behaviours import BEHAVIOURS
from lamsik.documents.adding import adding, taking
from lamsik.documents.body import paint
from lamsik.documents.body.document import to_design, want_row, with_design
from lamsik.documents.rows import Document, free_key, take
from lamsik.documents.typed import Edit, word

DENSE_RESIN_G_CM3 = 1.6


def _ballast(document: Document, edit: Edit, catalogue: Catalogue) -> Document:
    """Put a ballast answer on: its holes, pours and cavities replace those there were, or come beside
    them.
    """
    if not any(edit.get(name) is not None for name in ("holes", "pours", "cavities")):
        raise Refused("holes", None, rule("some-ballast"))
    for group, name in (("ballast", "holes"), ("pours", "pours"), ("cavities", "cavities")):
        rows = edit.get(name) or []
        if not isinstance(rows, list) or not all(isinstance(row, dict) for row in rows):
            raise Refused(name, rows, rule("a-list-of-rows"))
        if edit.get("beside"):
            kept = document[group]
            for row in rows:
                kept.append({**row, "key": free_key(kept, group[0])})
            rows = kept
        document[group] = rows
    if edit.get("beside"):  # the trial weights come off when their answer goes in
        document["trials"] = []
    return document


def _hold(document: Document, edit: Edit, catalogue: Catalogue) -> Document:
    """Switch a water in which the behaviour must hold too on or off."""
    water = asdict(take(catalogue.waters, edit.get("name"), "water"))
    rows = document["want"]["waters"]
    left = [row for row in rows if row["name"] != water["name"]]
    document["want"]["waters"] = left if len(left) < len(rows) else [*rows, water]
    return document


def _want(document: Document, edit: Edit, catalogue: Catalogue) -> Document:
    name = word(edit, "behaviour")
    if name not in BEHAVIOURS:
        raise Refused("want.behaviour", name, named(BEHAVIOURS))
    was = to_design(document).want
    by = was.by if name == "floats" or was.by != "freeboard" else "speed"
    usual = BEHAVIOURS[name]
    document["want"] = want_row(
        replace(was, behaviour=name, speed_cm_s=usual.speed_cm_s, by=by, net_percent=usual.share_percent)
    )
    return document


def _pose(document: Document, edit: Edit, catalogue: Catalogue) -> Document:
    """Level, nose down or tail down, by degrees."""
    degrees = finite_between("want.pitch_deg", edit.get("deg"), -80.0, 80.0, "°")
    document["want"] = want_row(replace(to_design(document).want, pitch_deg=degrees))
    return document


def _allowance(document: Document, edit: Edit, catalogue: Catalogue, key: str) -> Allowance:
    kind = word(edit, "kind")
    one_of("kind", kind, KINDS)
    scale = (document["body"]["length_mm"] / 90.0) ** 2
    mass = round(START_G[kind] * scale, 2)
    return Allowance(key, kind, KINDS[kind], mass, round(0.3 * mass, 2))


def _trial(document: Document, edit: Edit, catalogue: Catalogue, key: str) -> TrialWeight:
    return TrialWeight(key, word(edit, "place") or BELLY, round(0.5 * document["body"]["length_mm"], 1), 1.0)


def _pour(document: Document, edit: Edit, catalogue: Catalogue, key: str) -> PouredEnd:
    length = document["body"]["length_mm"]
    return PouredEnd(key, "dense resin", DENSE_RESIN_G_CM3, round(0.7 * length, 1), length)


def _cavity(document: Document, edit: Edit, catalogue: Catalogue, key: str) -> Cavity:
    slug: Slug = take(catalogue.slugs, edit.get("code"), "code")
    if slug.form != BALLS:
        raise Refused("code", slug.name, rule("balls-in-a-cavity"))
    place, up = round(0.5 * document["body"]["length_mm"], 1), round(slug.diameter_mm / 2 + 2.5, 1)
    return Cavity(key, slug, 1, place, up)


def _scale(document: Document, edit: Edit, catalogue: Catalogue) -> Document:
    factor = finite_between("percent", edit.get("percent"), 30.0, 300.0, "%") / 100.0
    changed = with_design(document, scaled(to_design(document), factor))
    changed["typed"] = {path: text for path, text in changed["typed"].items() if not path.endswith("_mm")}
    return changed


def _hooks(document: Document, edit: Edit, catalogue: Catalogue) -> Document:
    """Every hook swapped for another size."""
    item: Item = take(catalogue.items, edit.get("code"), "code")
    if item.kind != "hook":
        raise Refused("code", item.name, rule("hook"))
    for row in document["hardware"]:
        if row["kind"] == "hook":
            row.update(asdict(item))
    return document


def _tie(document: Document, edit: Edit, catalogue: Catalogue) -> Document:
    """Move the line tie to another seat; on the lip and along the body it also has a place."""
    seat = word(edit, "seat")
    if seat not in SEATS:
        raise Refused("seat", seat, named(SEATS))
    row = next((row for row in document["hardware"] if row["kind"] == "line_tie"), None)
    if row is None:
        raise Refused("seat", seat, rule("tie-first"))
    length = document["body"]["length_mm"]
    row["seat"], row["x_mm"] = (
        seat,
        {"nose": 0.0, "tail": length, "lip": 2.0}.get(seat, round(0.15 * length, 1)),
    )
    return document


def _drag(document: Document, edit: Edit, catalogue: Catalogue) -> Document:
    """A drag coefficient timed in the tub."""
    document["drag"], document["drag_source"] = finite_between("drag", edit.get("value"), 0.05, 10.0), "timed"
    return document


EDITS: dict[str, Callable[[Document, Edit, Catalogue], Document]] = {
    "ballast": _ballast,
    "water": taking("water", "waters", "name", "water"),
    "hold": _hold,
    "want": _want,
    "pose": _pose,
    "allow": adding("allowances", "a", _allowance),
    "trial": adding("trials", "t", _trial),
    "pour": adding("pours", "p", _pour),
    "cavity": adding("cavities", "c", _cavity),
    "clear": paint.clears,
    "scale": _scale,
    "hooks": _hooks,
    "tie": _tie,
    "drag": _drag,
}
"""The Tank's edits by name."""

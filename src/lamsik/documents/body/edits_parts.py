"""Edits that put parts on a body and take them off: hardware, lip, slugs."""

from dataclasses import asdict, replace
from math import radians, sin

from lamsik.core.errors import Refused, finite_between, named, rule
from lamsik.core.shapes.ballast_holes import BALLS, Hole, Slug
from lamsik.core.shapes.body import station
from lamsik.core.shapes.catalogue import Catalogue
from lamsik.core.shapes.hardware import SEATS, Item, Lip, Placement
from lamsik.core.trade.part_kinds import PART_KINDS
from lamsik.documents.adding import adding
from lamsik.documents.body.document import hardware_row, to_design
from lamsik.documents.rows import Document, holder_of, row_of, take
from lamsik.documents.typed import Edit, word

CLEAR_OF_TIE_MM, LEAST_INSET_MM = 2.4, 3.0
"""A slot stops this far under the axis, where a line tie's screw runs, but is never shallower than this
[mm].
"""


def hang(document: Document, edit: Edit, catalogue: Catalogue) -> Document:
    """A part from the catalogue onto a seat, or onto the first free eye."""
    item: Item = take(catalogue.items, edit.get("code"), "code")
    return adding("hardware", item.kind.replace("_", ""), _hung)(document, edit, catalogue)


def _hung(document: Document, edit: Edit, catalogue: Catalogue, key: str) -> Document:
    item: Item = take(catalogue.items, edit.get("code"), "code")
    seat, length = word(edit, "seat") or "belly", document["body"]["length_mm"]
    if seat not in SEATS:
        raise Refused("seat", seat, named(SEATS))
    place = finite_between("x_mm", edit.get("x_mm") or 0.42 * length, 0.0, 600.0, "mm")
    x = {"nose": 0.0, "tail": length, "lip": 2.0}.get(seat, place)
    hung_on = _free_eye(document["hardware"], item) if item.of.hangs_on else None
    return hardware_row(Placement(key, item, seat, x, hung_on))


def _free_eye(rows: list[Document], item: Item) -> str:
    """The first eye nothing hangs on, of the kinds that it hangs on."""
    taken = {row["hung_on"] for row in rows}
    free = [
        row["key"]
        for wanted in item.of.hangs_on
        for row in rows
        if row["kind"] == wanted and row["key"] not in taken
    ]
    if not free:
        words = (PART_KINDS[kind].word for kind in item.of.hangs_on)
        raise Refused("hung_on", item.kind, rule("free-eye", kinds=" or ".join(words)))
    return str(free[0])


def swap(document: Document, edit: Edit, catalogue: Catalogue) -> Document:
    """Another catalogue part in the place of one."""
    item: Item = take(catalogue.items, edit.get("code"), "code")
    row, _ = holder_of(document, f"hardware.{edit.get('key')}.mass_g")
    row.update(asdict(item))
    return document


def removed(document: Document, group: str, row: Document) -> Document:
    """What goes along with a part that was taken off: what hangs on it, what was tried on it; a joint takes
    the material of a segment that is no more.
    """
    if group == "lip":  # a tie cannot stay on a lip that is gone
        for other in document["hardware"]:
            if other["seat"] == "lip":
                other["seat"], other["x_mm"] = "nose", 0.0
    if group == "hardware":
        gone = {row["key"]}
        for _ in range(3):
            gone |= {other["key"] for other in document["hardware"] if other["hung_on"] in gone}
        document["hardware"] = [other for other in document["hardware"] if other["key"] not in gone]
        document["trials"] = [other for other in document["trials"] if other["place"] not in gone]
    if group == "joints":  # segments are counted from the nose
        left = {f"s{n}" for n in range(1, len(document["joints"]) + 2)} if document["joints"] else set()
        document["segments"] = [other for other in document["segments"] if other["key"] in left]
    return document


def lip(document: Document, edit: Edit, catalogue: Catalogue) -> Document:
    """Fit a lip from the catalogue behind the nose."""
    plate: Lip = take(catalogue.lips, edit.get("code"), "code")
    x = round(0.075 * document["body"]["length_mm"], 1)
    here = station(to_design(document).body, x)
    below = (here.middle_mm - here.bottom_mm - CLEAR_OF_TIE_MM) / max(sin(radians(plate.angle_deg)), 0.2)
    document["lip"] = asdict(
        replace(plate, x_mm=x, inset_mm=round(min(max(below, LEAST_INSET_MM), plate.inset_mm), 1))
    )
    return document


def pair(document: Document, edit: Edit, catalogue: Catalogue) -> Document:
    """A hole as a mirrored pair beside the middle, or a pair as one hole on it; its metal stays as much,
    whole balls in each.
    """
    row = row_of(document, "ballast", word(edit, "key"))
    row["beside_mm"] = 0.0 if row.get("beside_mm") else round(row["drill_mm"] / 2 + 1.0, 1)
    slug = Slug(**row["slug"])
    if slug.form == BALLS:
        count = 2 if row["beside_mm"] else 1
        row["mass_g"] = count * max(round(row["mass_g"] / count / slug.ball_g), 1) * slug.ball_g
    return document


def _slug(document: Document, edit: Edit, catalogue: Catalogue, key: str) -> Hole:
    """A plain start for dragging."""
    slug: Slug = take(catalogue.slugs, edit.get("code"), "code")
    mass = round(slug.ball_g if slug.form == BALLS else 1.0, 2)
    return Hole(key, slug, mass, 0.5 * document["body"]["length_mm"], slug.diameter_mm)


slug = adding("ballast", "b", _slug)
"""One more slug on the belly."""

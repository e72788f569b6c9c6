"""The drawing of a mould in words: cavities, keys, vents, wells, and where air stays."""

from flask import Blueprint, render_template

from lamsik.core.moulds.advice import Look, look
from lamsik.core.moulds.layout import Mould, box, key_places
from lamsik.core.quantities import numeral, said
from lamsik.documents.moulds.document import to_mould
from lamsik.store import documents
from lamsik.web.moulds.shop import master_of
from lamsik.web.shared.db import db, load_document
from lamsik.web.shared.facts import Fact
from lamsik.web.shared.intables import InTables, ToldTable
from lamsik.words.moulds import HALVES, VENTS, verdict

blueprint = Blueprint("moulds_inwords", __name__, url_prefix="/moulds")


@blueprint.get("/<int:key>/words")
def show(key: int) -> str:
    """The drawing of a mould, told."""
    row = load_document("mould", key)
    content = documents.content(db(), row)
    mould = to_mould(content, master_of(content["master"]))
    return render_template("moulds/inwords.html", row=row, told=in_words(mould))


def in_words(mould: Mould) -> InTables:
    """What the drawing shows of a mould: places in its plan, from the corner of the box, and in a cavity from
    the middle of the master.
    """
    seen = look(mould)
    return InTables(verdict(mould, seen), _tables(mould, seen), _facts(mould, seen))


def _tables(mould: Mould, seen: Look) -> tuple[ToldTable, ...]:
    in_plan = ("Along the box", "Across the box")
    in_cavity = ("Along the master", "Across it", "Over its middle")
    return (
        ToldTable(
            "cavities",
            "Cavities",
            ("Cavity", *in_plan, "Turned"),
            tuple(
                (spot.key[1:], *_places(spot.x_mm, spot.y_mm), said(spot.turn_deg, "angle", 0))
                for spot in mould.cavities
            ),
        ),
        ToldTable(
            "air",
            "Where air stays",
            ("Place", *in_cavity, "Air"),
            tuple(
                (str(n), *_places(*point.place_mm, sign=True), said(point.trapped_ml, "volume"))
                for n, point in enumerate(seen.points, 1)
            ),
        ),
        ToldTable(
            "vents",
            "Vents of a cavity",
            ("Vent", *in_cavity, "Wide"),
            tuple(
                (
                    f"{n}, {VENTS[vent.shape].split(',')[0]}",
                    *_places(vent.x_mm, vent.y_mm, vent.z_mm, sign=True),
                    said(vent.across_mm, "length"),
                )
                for n, vent in enumerate(mould.vents, 1)
            ),
        ),
        ToldTable(
            "keys",
            "Keys",
            ("Key", *in_plan),
            tuple((str(n), *_places(x, y)) for n, (x, y) in enumerate(key_places(mould), 1)),
        ),
        ToldTable(
            "wells",
            "Wells",
            ("Well", *in_plan, "Across", "Deep"),
            tuple(
                (str(n), *_places(well.x_mm, well.y_mm, well.across_mm, well.deep_mm))
                for n, well in enumerate(mould.wells, 1)
            ),
        ),
    )


def _places(*places_mm: float, sign: bool = False) -> tuple[str, ...]:
    return tuple(said(place, "length", sign=sign) for place in places_mm)


def _facts(mould: Mould, seen: Look) -> tuple[Fact, ...]:
    walls = box(mould)
    long, wide = (numeral(side, "length", 0) for side in (walls.length_mm, walls.width_mm))
    return (
        Fact(
            "box",
            "Box inside",
            f"{long} × {wide} × {said(walls.high_mm, 'length', 0)}",
            "Long, wide, high.",
        ),
        *(
            Fact(
                half.name, HALVES[half.name].capitalize(), said(half.pour_ml, "volume", 0), "Mould material."
            )
            for half in seen.halves
        ),
        Fact(
            "undercut",
            "Leans in",
            said(100 * seen.features.undercut_share, "percent"),
            "Of its outline, under the halves.",
        ),
    )

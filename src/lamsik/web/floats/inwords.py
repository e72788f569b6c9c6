"""The drawing of a float in words: its parts from the foot up, its marks and what it carries to each."""

from flask import Blueprint, render_template

from lamsik.core.floats.design import Float
from lamsik.core.floats.parts import mass_g
from lamsik.core.floats.rating import ratings
from lamsik.core.floats.shotting import pull_to
from lamsik.core.quantities import said, sure
from lamsik.documents.floats.document import checked, to_float
from lamsik.store import documents
from lamsik.web.floats.state import carries, float_facts
from lamsik.web.shared.db import db, load_document
from lamsik.web.shared.intables import InTables, ToldTable
from lamsik.words.floats import FORMS

blueprint = Blueprint("floats_inwords", __name__, url_prefix="/floats")


@blueprint.get("/<int:key>/words")
def show(key: int) -> str:
    """The drawing of a float, told."""
    row = load_document("float", key)
    design = to_float(checked(documents.content(db(), row)))
    return render_template("floats/inwords.html", row=row, told=in_words(design))


def in_words(design: Float) -> InTables:
    """What the drawing shows of a float."""
    return InTables(
        carries(design, pull_to(design)),
        (
            ToldTable(
                "parts",
                "Its parts, from the foot up",
                ("Part", "Form", "Begins over the foot", "Long", "Thickest", "Mass"),
                tuple(
                    (
                        part.name,
                        FORMS[part.form],
                        said(part.foot_mm, "length"),
                        said(part.length_mm, "length"),
                        said(part.diameter_mm, "length"),
                        said(mass_g(part), "mass"),
                    )
                    for part in sorted(design.parts, key=lambda part: part.foot_mm)
                ),
            ),
            ToldTable(
                "marks",
                "Its marks, and what it carries to each",
                ("Mark", "Over the foot", "On the line", "With its own loading"),
                tuple(
                    (
                        rating.mark,
                        said(rating.height_mm, "length"),
                        sure(rating.line_g, "mass", rating.sd_g),
                        sure(rating.total_g, "mass", rating.sd_g),
                    )
                    for rating in ratings(design)
                ),
            ),
        ),
        tuple(float_facts(design)),
    )

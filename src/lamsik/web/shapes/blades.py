"""Sheet-metal blades: strip, bends, cup, holes, whether the snaps swing, and the bending template."""

from flask import Blueprint, Response, redirect, render_template, url_for
from flask.typing import ResponseReturnValue

from lamsik.core.materials import METALS
from lamsik.core.shapes.blades import SNAPS, Blade
from lamsik.core.shapes.sources import SAYS, Source
from lamsik.documents.blades.document import BLADE, blade_of, content_of
from lamsik.drawings import blade as drawn
from lamsik.drawings.paper import sheets
from lamsik.drawings.svg import Node
from lamsik.formats import dxf
from lamsik.store import documents, routes, stores
from lamsik.store.tables import Document
from lamsik.web.shapes.blade_live import current
from lamsik.web.shared import keeping, printing, whole
from lamsik.web.shared.db import db, load_document
from lamsik.web.shared.files import as_file, as_pdf, named
from lamsik.web.shared.lists import asked_page, asked_text
from lamsik.words.cautions import caution

blueprint = Blueprint("shapes_blades", __name__, url_prefix="/shapes/blades")
keeping.keep_documents(blueprint, "blade", "shapes_blades.index", "shapes_blades.edit")


MEASURES = {
    "nose_mm": "Nose to the bend",
    "rear_mm": "Bend to the rear",
    "width_mm": "Width",
    "thickness_mm": "Thickness",
    "nose_deg": "Nose bend, up",
    "radius_mm": "Inside radius",
    "cup_mm": "Cup, from the edge",
    "left_deg": "Cup left, down",
    "right_deg": "Cup right, down",
}
HOLES = {"edge_mm": "From the end", "diameter_mm": "Across", "wire_mm": "Snap wire", "bow_mm": "Snap bow"}
"""What is asked of each hole."""


@blueprint.get("")
def index() -> str:
    """All blades, drawn."""
    page = asked_page(documents.matching("blade", asked_text()))
    contents = documents.contents(db(), page.rows)
    cards, broken = whole.shown_of(page.rows, lambda row: _card(row, blade_of(contents[row.id or 0])))
    return render_template("shapes/blades.html", cards=cards, broken=broken, page=page, q=asked_text())


def _card(row: Document, blade: Blade) -> tuple[Document, Blade, Node]:
    return row, blade, drawn.picture(blade)


def all_of(row: Document) -> None:
    """All that a blade's page shows, computed and thrown away."""
    blade = blade_of(documents.content(db(), row))
    drawn.picture(blade)
    drawn.layers(blade)
    drawn.templates(blade)


@blueprint.post("/new")
def new() -> ResponseReturnValue:
    """A new blade to begin from."""
    row = documents.new(db(), "blade")
    return redirect(url_for("shapes_blades.edit", key=row.id))


@blueprint.get("/<int:key>")
def edit(key: int) -> str:
    """One blade: its strip, bends, cup and holes, drawn as they are typed."""
    row = load_document("blade", key)
    return render_template(
        "shapes/blade.html",
        row=row,
        state=current(row),
        measures=MEASURES,
        holes=HOLES,
        snaps=SNAPS,
        metals=list(METALS),
        sources=SAYS,
        caution=caution("metal_dust"),
        route=routes.of_document(db(), "blade", documents.content(db(), row)),
    )


@blueprint.get("/<int:key>/template.pdf")
def pdf(key: int) -> ResponseReturnValue:
    """The bending template at true size."""
    row = load_document("blade", key)
    blade = blade_of(documents.content(db(), row))
    paper = stores.setting(db(), "saw")["paper"]
    pack = {
        "paper": paper,
        "sheets": sheets(
            drawn.templates(blade), paper, f"{row.code} {blade.name}, revision {row.current}{_flag(blade)}"
        ),
    }
    try:
        data = printing.pdf(render_template("shapes/pack_print.html", pack=pack, row=row))
    except printing.CannotPrint as error:
        return (
            render_template(
                "shared/error.html",
                status=501,
                message=str(error),
                next="The flat strip can be taken as DXF meanwhile.",
                mark="",
            ),
            501,
        )
    return as_pdf(data, named(row, "bending"))


def _flag(blade: Blade) -> str:
    """What a sheet says where the shape is not its maker's own to sell."""
    source = Source(blade.source, blade.source_note)
    return "" if source.may_sell else f"; {source.describe()}"


@blueprint.get("/<int:key>/flat.dxf")
def flat(key: int) -> Response:
    """The flat strip for a cutter: outline, holes, bend line."""
    row = load_document("blade", key)
    blade = blade_of(documents.content(db(), row))
    return as_file(
        dxf.write(drawn.layers(blade), BLADE.filed(content_of(blade))), f"{named(row)}.dxf", "image/vnd.dxf"
    )

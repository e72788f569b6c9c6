"""Sheet-metal blades: strip, bends, cup, holes, whether the snaps swing, and the bending template."""

from flask import Blueprint, Response, flash, redirect, render_template, request, url_for
from flask.typing import ResponseReturnValue
from flask_wtf import FlaskForm
from wtforms import SelectField, StringField
from wtforms.validators import DataRequired, Length

from lamsik.core.cautions import caution
from lamsik.core.errors import Refused
from lamsik.core.materials import METALS
from lamsik.core.shapes.blades import SNAPS, STARTING_BLADE, Blade, SnapHole, remarks, swing
from lamsik.core.shapes.sources import OWN, SAYS, Source
from lamsik.documents.blades.document import BLADE, blade_of, content_of
from lamsik.drawings import blade as drawn
from lamsik.drawings.paper import sheets
from lamsik.drawings.svg import Node
from lamsik.formats import dxf
from lamsik.store import documents, stores
from lamsik.store.tables import Document
from lamsik.web.shared import keeping, printing, whole
from lamsik.web.shared.db import db, load_document, sent_base
from lamsik.web.shared.files import as_file, as_pdf, named
from lamsik.web.shared.forms import MeasureField, choices
from lamsik.words import refusals

blueprint = Blueprint("shapes_blades", __name__, url_prefix="/shapes/blades")
keeping.keep_documents(blueprint, "blade", "shapes_blades.index", "shapes_blades.edit", copies=False)


class BladeForm(FlaskForm):
    """A blade as bent."""

    name = StringField("Name", validators=[DataRequired("Name the blade."), Length(max=80)])
    metal = SelectField("Metal", choices=choices((m, m) for m in METALS))
    nose_mm = MeasureField("Nose to the bend", "length", 3, 200)
    rear_mm = MeasureField("Bend to the rear", "length", 3, 300)
    width_mm = MeasureField("Width", "length", 2, 100)
    thickness_mm = MeasureField("Thickness", "length", 0.2, 4)
    nose_deg = MeasureField("Nose bend, up", "angle", -90, 90)
    radius_mm = MeasureField("Inside radius", "length", 0, 20)
    cup_mm = MeasureField("Cup, from the edge", "length", 0, 40)
    left_deg = MeasureField("Cup left, down", "angle", -90, 90)
    right_deg = MeasureField("Cup right, down", "angle", -90, 90)
    front_edge_mm = MeasureField("Front hole from the end", "length", 0.5, 40)
    front_diameter_mm = MeasureField("Front hole", "length", 0.5, 20)
    front_wire_mm = MeasureField("Front snap wire", "length", 0.2, 5)
    front_bow_mm = MeasureField("Front snap bow", "length", 0.5, 40)
    rear_edge_mm = MeasureField("Rear hole from the end", "length", 0.5, 40)
    rear_diameter_mm = MeasureField("Rear hole", "length", 0.5, 20)
    rear_wire_mm = MeasureField("Rear snap wire", "length", 0.2, 5)
    rear_bow_mm = MeasureField("Rear snap bow", "length", 0.5, 40)
    source = SelectField("Source", choices=choices(SAYS.items()), default=OWN)
    source_note = StringField("Note on it", validators=[Length(max=300)])


def _of_form(form: BladeForm) -> Blade:
    plain = {name: getattr(form, name).amount for name in drawn.MEASURES}
    holes = tuple(
        SnapHole(
            key, *(getattr(form, f"{key}_{part}_mm").amount for part in ("edge", "diameter", "wire", "bow"))
        )
        for key in SNAPS
    )
    return Blade(
        name=form.name.data.strip(),
        metal=form.metal.data,
        holes=holes,
        source=form.source.data,
        source_note=(form.source_note.data or "").strip(),
        **plain,
    )


def _filled(blade: Blade) -> BladeForm:
    data: dict[str, str] = {
        "name": blade.name,
        "metal": blade.metal,
        "source": blade.source,
        "source_note": blade.source_note,
    }
    data |= {
        name: f"{getattr(blade, name):g} {'°' if name.endswith('_deg') else 'mm'}" for name in drawn.MEASURES
    }
    data |= {
        f"{hole.key}_{part}_mm": f"{getattr(hole, f'{part}_mm'):g} mm"
        for hole in blade.holes
        for part in ("edge", "diameter", "wire", "bow")
    }
    return BladeForm(formdata=None, data=data)


@blueprint.get("")
def index() -> str:
    """All blades, drawn."""
    rows = documents.listed(db(), "blade")
    contents = documents.contents(db(), rows)
    cards, broken = whole.shown_of(rows, lambda row: _card(row, blade_of(contents[row.id or 0])))
    return render_template("shapes/blades.html", cards=cards, broken=broken)


def _card(row: Document, blade: Blade) -> tuple[Document, Blade, Node]:
    return row, blade, drawn.picture(blade)


def all_of(row: Document) -> None:
    """All that a blade's page shows, computed and thrown away."""
    blade = blade_of(documents.content(db(), row))
    _filled(blade)
    drawn.picture(blade)
    drawn.layers(blade)
    drawn.templates(blade)


@blueprint.post("/new")
def new() -> ResponseReturnValue:
    """A new blade to begin from."""
    row = documents.begin(db(), "blade", content_of(STARTING_BLADE))
    return redirect(url_for("shapes_blades.edit", key=row.id))


@blueprint.route("/<int:key>", methods=["GET", "POST"])
def edit(key: int) -> ResponseReturnValue:
    """One blade; what is kept is the next revision."""
    row = load_document("blade", key)
    blade = blade_of(documents.content(db(), row))
    form = BladeForm() if request.method == "POST" else _filled(blade)
    status = 200
    if request.method == "POST":
        try:
            if not form.validate_on_submit():
                raise Refused("", "", "")
            documents.save(db(), row, content_of(_of_form(form)), sent_base(row))
            return redirect(url_for("shapes_blades.edit", key=key))
        except Refused as refused:
            status = 422
            if refused.field or refusals.allowed(refused):
                form.name.errors = [*form.name.errors, refusals.says(refused)]
    return (
        render_template(
            "shapes/blade.html",
            row=row,
            blade=blade,
            form=form,
            source=Source(blade.source, blade.source_note),
            picture=drawn.picture(blade),
            remarks=remarks(blade),
            caution=caution("metal_dust"),
            swings=[(hole, swing(blade, hole)) for hole in blade.holes],
        ),
        status,
    )


@blueprint.post("/<int:key>/<any(undo, redo):way>")
def step(key: int, way: str) -> ResponseReturnValue:
    """One revision back or forward."""
    row = load_document("blade", key)
    if sent_base(row) != row.current:
        raise documents.Stale(f"revision {row.current} is current by now")
    moved = documents.undo(db(), row) if way == "undo" else documents.redo(db(), row)
    if not moved:
        flash(f"Nothing to {way}.")
    return redirect(url_for("shapes_blades.edit", key=key))


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

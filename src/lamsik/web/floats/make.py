"""Making floats: families with cut list and drill map, profiles to turn, labels to print, live-bait cut
lists.
"""

from collections.abc import Callable
from dataclasses import replace
from typing import Any

from flask import Blueprint, Response, flash, redirect, render_template, request, url_for
from flask.typing import ResponseReturnValue

from lamsik.core.errors import Refused, finite_between, require
from lamsik.core.floats import livebait
from lamsik.core.floats.design import Float
from lamsik.core.floats.inverse import DIAMETER, LENGTH, LOADING, Option, PartCut, family, main_body, options
from lamsik.core.floats.labels import Label
from lamsik.core.floats.rating import ON_THE_LINE, TOTAL, capacity_g, loading_g
from lamsik.core.materials import FLOAT_WOODS, METALS
from lamsik.core.quantities import counted, plainly, read_measure, read_planned, unit_of
from lamsik.core.route.others import body_of, construction_of
from lamsik.core.shapes.clearance import clearances, drill_for
from lamsik.core.shapes.design import Host
from lamsik.core.shapes.drawn_layers import DrawnLayer
from lamsik.core.units import convert
from lamsik.core.water import Water
from lamsik.documents.floats.document import to_float, with_float
from lamsik.drawings import floats as drawn
from lamsik.drawings.labels import label_sheet
from lamsik.drawings.paper import SHEETS, Sheet, sheets
from lamsik.drawings.svg import markup
from lamsik.formats import dxf
from lamsik.store import documents, floats, stores
from lamsik.store.tables import Document
from lamsik.web.floats.shop import finished, last_stages, measured_in
from lamsik.web.shared import printing
from lamsik.web.shared.db import db, load_document
from lamsik.web.shared.files import as_file, as_pdf, named
from lamsik.web.shared.waters import shop_waters
from lamsik.words import refusals
from lamsik.words.cautions import caution
from lamsik.words.floats import missed as missed_loads

blueprint = Blueprint("floats_make", __name__, url_prefix="/floats")

BY = (LENGTH, DIAMETER, LOADING)


def _masses(text: str) -> list[float]:
    return [
        read_planned(part.strip(), "mass", "loads")
        for part in text.replace(";", ",").split(",")
        if part.strip()
    ]


def _lengths(text: str, name: str) -> list[float]:
    return [
        read_measure(part.strip(), "length", name)
        for part in text.replace(";", ",").split(",")
        if part.strip()
    ]


@blueprint.get("/<int:key>/sizes")
def sizes(key: int) -> ResponseReturnValue:
    """From loads to sizes: a family with its cut list, or one load over the dowels in stock."""
    row, asked = load_document("float", key), request.args
    design = to_float(documents.content(db(), row))
    cuts: tuple[PartCut, ...] = ()
    choices: tuple[Option, ...] = ()
    problem, missed = "", ""
    try:
        if asked.get("loads", "").strip():
            sized = family(design, _masses(asked["loads"]), asked.get("by", LENGTH))
            cuts, missed = sized.cuts, missed_loads(sized)
        if asked.get("wanted", "").strip():
            dowels = _lengths(asked.get("dowels", ""), "dowels") or list(stores.setting(db(), "dowels")["mm"])
            wanted = read_planned(asked["wanted"], "mass", "load")
            woods = [one for one in asked.getlist("wood") if one in FLOAT_WOODS] or list(FLOAT_WOODS)
            choices = options(design, wanted, dowels, woods)
    except Refused as refused:
        problem = refusals.says(refused)
    return render_template(
        "floats/sizes.html",
        row=row,
        design=design,
        cuts=cuts,
        options=choices,
        problem=problem,
        missed=missed,
        asked=asked,
        by=BY,
        woods=FLOAT_WOODS,
        dowels=[plainly(mm, "length") for mm in stores.setting(db(), "dowels")["mm"]],
        body=main_body(design) if any(p.kind == "body" for p in design.parts) else None,
        drill=_drill(design),
        cautions=[caution("blades"), caution("wood_dust")],
        query=request.query_string.decode("ascii", "ignore"),
    ), (422 if problem or (missed and not cuts) else 200)


@blueprint.post("/<int:key>/sizes")
def make(key: int) -> ResponseReturnValue:
    """Make designs of their own from a family."""
    row = load_document("float", key)
    content = documents.content(db(), row)
    design = to_float(content)
    sized = family(design, _masses(request.form.get("loads", "")), request.form.get("by", LENGTH))
    require(bool(sized.cuts), "loads", None, missed_loads(sized).rstrip("."))
    for cut in sized.cuts:
        name = f"{design.name} {plainly(cut.load_g, 'mass')}"[:120]
        documents.begin(
            db(),
            "float",
            with_float({**content, "typed": {}}, replace(cut.design, name=name)),
            note=f"from {row.code}",
        )
    many = f"{len(sized.cuts)} {'float' if len(sized.cuts) == 1 else 'floats'}"
    flash(f"{many} made from {row.name}. {missed_loads(sized)}".strip())
    return redirect(url_for("floats.index"))


@blueprint.post("/dowels")
def keep_dowels() -> ResponseReturnValue:
    """Keep the dowels at hand."""
    dowels = sorted(
        {
            round(finite_between("dowel", mm, 1.0, 60.0, "mm"), 2)
            for mm in _lengths(request.form.get("dowels", ""), "dowels")
        }
    )
    if not 1 <= len(dowels) <= 40:
        raise Refused("dowels", request.form.get("dowels", ""), "1 to 40 diameters, apart by commas")
    stores.put_setting(db(), "dowels", {"mm": dowels})
    flash(f"{counted(len(dowels), 'dowel')} at hand now.")
    back = request.form.get("float", "")
    return redirect(
        url_for("floats_make.sizes", key=int(back))
        if back.isdecimal() and len(back) < 10
        else url_for("floats.index")
    )


def _pdf(row: Document, pages: tuple[Sheet, ...], paper: str, name: str) -> ResponseReturnValue:
    try:
        data = printing.pdf(
            render_template("shapes/pack_print.html", pack={"paper": paper, "sheets": pages}, row=row)
        )
    except printing.CannotPrint as error:
        return (
            render_template(
                "shared/error.html",
                status=501,
                message=str(error),
                next="The sheets can be taken as SVG meanwhile.",
                mark="",
            ),
            501,
        )
    return as_pdf(data, name)


def _profile_sheets(row: Document, paper: str) -> tuple[Sheet, ...]:
    """The float, and every one of the family asked for, at true size."""
    design, loads = to_float(documents.content(db(), row)), _masses(request.args.get("loads", ""))
    if not loads:
        return sheets(drawn.profile_drawings(design), paper, _title(row))
    sized = family(design, loads, request.args.get("by", LENGTH))
    require(bool(sized.cuts), "loads", None, missed_loads(sized).rstrip("."))
    cuts = sized.cuts
    rows = [drawn.cut_list_drawing(cuts, _drill(design))]
    rows += [
        replace(drawing, title=f"{plainly(cut.load_g, 'mass')}: {drawing.title}")
        for cut in cuts
        for drawing in drawn.profile_drawings(cut.design)
    ]
    return sheets(rows, paper, _title(row))


def _title(row: Document) -> str:
    return f"{row.code} {row.name}, revision {row.current}"


def _drill(design: Float) -> Callable[[float], float]:
    """The drill at hand for a stem of so many millimetres in the body of a float."""
    host = Host("the body", body_of(design).density_g_cm3, 0.0, construction_of(design))
    wider, drills = clearances(stores.setting(db(), "clearances")).of("stem", host), floats.drills_mm(db())
    return lambda stem_mm: drill_for(stem_mm, wider, drills)


def _paper() -> str:
    paper = request.args.get("paper", stores.setting(db(), "saw")["paper"])
    if paper not in SHEETS:
        raise Refused("paper", paper, f"one of {', '.join(SHEETS)}")
    return str(paper)


@blueprint.get("/<int:key>/profile.pdf")
def profile_pdf(key: int) -> ResponseReturnValue:
    """The turning profiles at true size."""
    row, paper = load_document("float", key), _paper()
    return _pdf(row, _profile_sheets(row, paper), paper, named(row, "profile"))


@blueprint.get("/<int:key>/profile-<int:number>.svg")
def profile_svg(key: int, number: int) -> ResponseReturnValue:
    """One sheet of the profiles as SVG."""
    row = load_document("float", key)
    pages = _profile_sheets(row, _paper())
    if not 1 <= number <= len(pages):
        raise Refused("sheet", number, f"1 to {len(pages)}")
    return as_file(
        str(markup(pages[number - 1].svg())).encode("utf-8"),
        f"{named(row, f'profile {number}')}.svg",
        "image/svg+xml",
    )


@blueprint.get("/<int:key>/profile.dxf")
def profile_dxf(key: int) -> Response:
    """The outlines of the parts, lying, for a cutter or a copying lathe."""
    row = load_document("float", key)
    design = to_float(documents.content(db(), row))
    return as_file(
        dxf.write([DrawnLayer("SIDE", tuple(drawn.flat_outlines(design)))]),
        f"{named(row)}.dxf",
        "image/vnd.dxf",
    )


DRAWN_LABELS = 12
"""So many labels of a drawing, where nobody says how many; of a float that was weighed one."""


def labels_of(row: Document, asked: dict[str, str]) -> tuple[Label, ...]:
    """The labels asked for: from the computed rating, or one for each weighed float of this design."""
    design = to_float(documents.content(db(), row))
    basis, mark = asked.get("basis", ""), asked.get("mark", design.wanted_mark)
    water = next((w for w in shop_waters() if w.name == asked.get("water", design.water.name)), design.water)
    tip = next((part.name.split(",")[0] for part in design.parts if part.kind in ("tip", "antenna")), "")
    own = loading_g(design) if basis == TOTAL else 0.0
    typed = asked.get("count", "").strip() or ("1" if asked.get("from") == "measured" else str(DRAWN_LABELS))
    count = int(finite_between("how many", int(typed) if typed.isdecimal() else typed, 1, 60))
    if asked.get("from") == "measured":
        rows = last_stages(
            [one for one in finished(design.family) if one.row.float_id == row.id and one.mark == mark]
        )
        if not rows:
            raise Refused(
                "measured",
                mark,
                "no finished float of this design was weighed to this mark: weigh one, or print the computed"
                " rating",
            )
        return tuple(
            Label(one.row.name, measured_in(one, water) + own, basis, mark, water, tip, True)
            for one in rows
            for _ in range(count)
        )
    grams = capacity_g(design, design.mark(mark).height_mm, water) + own
    return tuple(Label(design.name, grams, basis, mark, water, tip) for _ in range(count))


@blueprint.get("/<int:key>/labels")
def labels(key: int) -> ResponseReturnValue:
    """Rating labels, as they will be printed; a rating without its basis is refused."""
    row, asked = load_document("float", key), request.args.to_dict()
    design = to_float(documents.content(db(), row))
    problem, sheet = "", None
    if asked:
        try:
            sheet = label_sheet(labels_of(row, asked), _paper())
        except Refused as refused:
            problem = refusals.says(refused)
    return render_template(
        "floats/labels.html",
        drawn_labels=DRAWN_LABELS,
        row=row,
        design=design,
        asked=asked,
        problem=problem,
        sheet=sheet,
        bases=(ON_THE_LINE, TOTAL),
        waters=shop_waters(),
        papers=SHEETS,
        query=request.query_string.decode("ascii", "ignore"),
    ), (422 if problem else 200)


@blueprint.get("/<int:key>/labels.pdf")
def labels_pdf(key: int) -> ResponseReturnValue:
    """The sheet of labels as PDF."""
    row, paper = load_document("float", key), _paper()
    return _pdf(
        row, (label_sheet(labels_of(row, request.args.to_dict()), paper),), paper, named(row, "labels")
    )


@blueprint.get("/<int:key>/labels.svg")
def labels_svg(key: int) -> Response:
    """The sheet of labels as SVG."""
    row = load_document("float", key)
    return as_file(
        str(markup(label_sheet(labels_of(row, request.args.to_dict()), _paper()).svg())).encode("utf-8"),
        f"{named(row, 'labels')}.svg",
        "image/svg+xml",
    )


BUILD = {
    "foam_mm": ("Foam, outside", 30.0),
    "foam_bore_mm": ("Foam, bore", 8.0),
    "pipe_mm": ("Pipe, outside", 8.0),
    "pipe_bore_mm": ("Pipe, bore", 6.0),
    "cap_mm": ("Cap depth", 6.0),
    "saw_mm": ("Saw loss", 1.0),
}
STICKS = {"foam_stick": ("Foam stick", 1000.0), "pipe_stick": ("Pipe stick", 2000.0)}
SIZES_MM, LOAD_G = (60.0, 80.0, 100.0), 15.0
SPLIT = {
    "counts": "4, 6, 4",
    "fixed": "1.20",
    "per_mm": "0.015",
    "load_is": "pull",
    "metal": "lead",
    "tests": "",
}


@blueprint.get("/live-bait")
def live_bait() -> ResponseReturnValue:
    """Live-bait floats of foam on a pipe: cut list, capacities flooded and sealed, cost, what tests say
    together.
    """
    asked: dict[str, str] = {
        **{name: plainly(start, "length") for name, (_, start) in (BUILD | STICKS).items()},
        "sizes": ", ".join(plainly(length, "length") for length in SIZES_MM),
        "load": plainly(LOAD_G, "mass"),
        **SPLIT,
        **request.args.to_dict(),
    }
    problem, answer = "", None
    try:
        answer = _live_bait(asked)
    except Refused as refused:
        problem = refusals.says(refused)
    return render_template(
        "floats/live_bait.html", asked=asked, fields=BUILD, answer=answer, problem=problem, metals=METALS
    ), (422 if problem else 200)


def _live_bait(asked: dict[str, str]) -> dict[str, Any]:
    allowances = tuple(_lengths(asked.get("allowances", ""), "cap allowance"))
    measures: dict[str, Any] = {
        name: read_measure(asked[name], "length", label) for name, (label, _) in BUILD.items()
    }
    build = livebait.Build(**measures, cap_allowances_mm=allowances)
    lengths = _lengths(asked["sizes"], "foam lengths")
    counts = [
        int(finite_between("how many", int(c) if c.strip().isdecimal() else c, 1, 1000))
        for c in asked["counts"].split(",")
    ]
    counts = (counts * len(lengths))[: len(lengths)] if len(counts) in (1, len(lengths)) else counts
    if len(counts) != len(lengths):
        raise Refused("how many", asked["counts"], f"one number for each of the {len(lengths)} lengths")
    sticks = [read_measure(asked[name], "length", label) for name, (label, _) in STICKS.items()]
    fixed, each = (100 * read_measure(asked[name], "number", name) for name in ("fixed", "per_mm"))
    cost = livebait.Cost(fixed, each / convert(1.0, unit_of("length"), "mm"))
    water = next((w for w in shop_waters() if w.salinity_psu < 0.5), Water())
    rows: list[dict[str, Any]] = []
    for line in livebait.cut_list(build, list(zip(lengths, counts, strict=True)), sticks[0], sticks[1]):
        rig = livebait.as_float(build, line.foam_mm, water=water)
        sealed, flooded = (capacity_g(rig, rig.top_mm, flooded=way) for way in (False, True))
        rows.append(
            {"line": line, "sealed": sealed, "flooded": flooded, "cost": f"{cost.of(line.foam_mm) / 100:.2f}"}
        )
    metal = asked["metal"] if asked["metal"] in METALS else "lead"
    sinks = 1 - water.density_g_cm3 / METALS[metal]
    typed = read_measure(asked["load"], "mass", "load")
    load, in_air = (typed, typed / sinks) if asked["load_is"] == "pull" else (typed * sinks, typed)
    tests = _tests(asked["tests"])
    together = livebait.consistent(tests, build, water) if tests else None
    for row in rows:
        row["margin"] = row["sealed"] - load
    return {
        "rows": rows,
        "drills": build.drills,
        "load": load,
        "metal": metal,
        "in_air": in_air,
        "water": water,
        "together": together,
    }


def _tests(text: str) -> list[tuple[float, float]]:
    """Tests such as `60 mm 21 g, 80 mm 30 g`."""
    rows = []
    for part in text.replace(";", ",").split(","):
        words = part.split()
        if not words:
            continue
        middle = next((at for at, word in enumerate(words) if word.endswith("mm") or word == "mm"), 0)
        length, load = " ".join(words[: middle + 1]), " ".join(words[middle + 1 :])
        rows.append(
            (
                read_measure(length, "length", "test length"),
                read_measure(load, "mass", f"capacity at {length}"),
            )
        )
    return rows

"""Making it: the print pack on paper, outlines and meshes for machines, the block it is cut from."""

from dataclasses import dataclass, replace
from typing import Any

import numpy as np
from flask import Blueprint, Response, abort, render_template, request
from flask.typing import ResponseReturnValue

from lamsik.core.errors import Refused, finite_between
from lamsik.core.quantities import place, plainly, read_measure, said
from lamsik.core.route.steps import body_cautions
from lamsik.core.shapes import polyhedra
from lamsik.core.shapes.body import section_outline, side_outline, top_outline
from lamsik.core.shapes.clashes import clashes
from lamsik.core.shapes.clearance import clearances
from lamsik.core.shapes.design import Design
from lamsik.core.shapes.drawn_layers import DrawnLayer
from lamsik.core.shapes.drillings import Drilling, drillings, slot_words
from lamsik.core.shapes.hardware import lip_outline
from lamsik.core.shapes.shells import shell_meshes, whole_shell
from lamsik.core.shapes.solid import segments, solid
from lamsik.core.shapes.space import hollow_outlines
from lamsik.core.shapes.stock import block, cutting
from lamsik.documents.body.document import to_design
from lamsik.documents.rows import Document as Content
from lamsik.drawings import pack
from lamsik.drawings.paper import SHEETS, Sheet, sheets
from lamsik.drawings.svg import Node, markup, node, path
from lamsik.formats import dxf, stl, svg_outlines
from lamsik.store import documents, orders, stores
from lamsik.store.tables import Document
from lamsik.web.shared import printing
from lamsik.web.shared.db import db, load_document
from lamsik.web.shared.files import as_file, as_pdf, named
from lamsik.words import refusals
from lamsik.words.cautions import CAUTIONS, DEFER
from lamsik.words.shapes import GRAIN, NO_GRAIN
from lamsik.words.tell import tell

blueprint = Blueprint("shapes_make", __name__, url_prefix="/shapes")

FINE, ROUND = 180, 128
"""Stations and points round of an exported mesh."""

MOST_STATIONS = 12


@dataclass(frozen=True)
class Pack:
    """What is printed of a design: paper, stations [mm], holes, sheets."""

    design: Design
    paper: str
    stations_mm: tuple[float, ...]
    holes: tuple[Drilling, ...]
    sheets: tuple[Sheet, ...]


def _asked(row: Document, asked: dict[str, str]) -> Pack:
    """The pack as the address asks for it. Raises `Refused` for a paper or stations that cannot be."""
    design = to_design(documents.content(db(), row))
    saw = stores.setting(db(), "saw")
    paper = asked.get("paper", saw["paper"])
    if paper not in SHEETS:
        raise Refused("paper", paper, f"one of {', '.join(SHEETS)}")
    at = stations_of(design, asked.get("stations", "25 % 50 % 75 %"))
    bench = stores.bench(db())
    table = clearances(stores.setting(db(), "clearances"))
    holes = drillings(design, table, bench.drills_mm)
    drawn = pack.drawings(design, holes, at, tell(slot_words(design, table)))
    return Pack(
        design, paper, at, holes, sheets(drawn, paper, f"{row.code} {design.name}, revision {row.current}")
    )


def stations_of(design: Design, text: str) -> tuple[float, ...]:
    """Stations from text: `20 45 70 mm`, `1 1/2 in`, or shares `25 % 50 %`, apart by commas, semicolons or
    blanks.
    """
    rows, length = [], design.body.length_mm
    parts = [
        part.strip()
        for part in (
            text.replace(";", ",").replace("%", "%,").replace("mm", "mm,").replace("in", "in,").split(",")
        )
        if part.strip()
    ]
    for part in [
        piece
        for station in parts
        for piece in (station.split() if station.replace(" ", "").replace(".", "").isdigit() else [station])
    ]:
        value = (
            read_measure(part, "percent", "stations") * length / 100
            if "%" in part
            else read_measure(part, "length", "stations")
        )
        rows.append(finite_between("stations", value, 0.01 * length, 0.99 * length, "mm"))
    if not 1 <= len(rows) <= MOST_STATIONS:
        raise Refused(
            "stations",
            text,
            f"1 to {MOST_STATIONS} stations, such as 25 % 50 % 75 %, or {plainly(20.0, 'length')}"
            f" {plainly(45.0, 'length')}",
        )
    return tuple(sorted(rows))


@blueprint.get("/<int:key>/pack")
def show(key: int) -> ResponseReturnValue:
    """The pack on screen, sheet by sheet, and everything that can be taken away."""
    row = load_document("body", key)
    problem, asked = "", request.args.to_dict()
    try:
        asked_pack, stock = _asked(row, asked), _stock(row, asked)
    except Refused as refused:  # the page with its standard settings, what is wrong beside them
        problem = refusals.says(refused)
        asked_pack, stock = _asked(row, {}), _stock(row, {})
    design = asked_pack.design
    return render_template(
        "shapes/pack.html",
        row=row,
        for_order=orders.waiting_for(db(), key),
        pack=asked_pack,
        stock=stock,
        papers=SHEETS,
        problem=problem,
        query=request.query_string.decode("ascii", "ignore") if not problem else "",
        asked=asked,
        segments=segments(design.body),
        accuracy=accuracy(design),
        hollow=hollow_words(design),
        clashes=clashes(design, stores.rules(db()).wall_mm),
        cautions=_cautions(design),
        saw=stores.setting(db(), "saw"),
    ), (422 if problem else 200)


def _cautions(design: Design) -> list[str]:
    """One paragraph: blades, and what the making of this body brings."""
    return [" ".join([*(CAUTIONS[key] for key in dict.fromkeys(("blades", *body_cautions(design)))), DEFER])]


def _stock(row: Document, asked: dict[str, str]) -> dict[str, Any]:
    """Block, waste, sticks and grain, as the address or the shop's settings have it."""
    saw, design = stores.setting(db(), "saw"), to_design(documents.content(db(), row))

    def typed(name: str, standard: float, low: float, high: float) -> float:
        text = asked.get(name, "").strip()
        return finite_between(name, read_measure(text, "length", name) if text else standard, low, high, "mm")

    spare, kerf = typed("spare", saw["block_spare_mm"], 0.0, 50.0), typed("kerf", saw["kerf_mm"], 0.0, 20.0)
    stick = tuple(
        typed(name, value, 1.0, 6000.0)
        for name, value in zip(("stick_length", "stick_width", "stick_thick"), saw["stick_mm"], strict=True)
    )
    wood = design.host.construction == "wood"
    return {
        "block": block(design.body, spare),
        "cutting": cutting(design.body, (stick[0], stick[1], stick[2]), kerf, spare),
        "stick": stick,
        "spare": spare,
        "kerf": kerf,
        "grain": GRAIN if wood else NO_GRAIN,
        "wood": wood,
    }


def accuracy(design: Design) -> str:
    """How near the exported mesh is to the body as drawn."""
    if design.body.skin is not None:
        return "The mesh as it was brought in."
    faces = len(polyhedra.surface(design.body, FINE, ROUND).faces)
    return (
        f"{faces} triangles; its volume is {said(_short(design) * 100, 'percent', 3)} less than the curve's."
    )


def _short_words(design: Design) -> str:
    return (
        "As brought in"
        if design.body.skin is not None
        else f"{said(_short(design) * 100, 'percent', 3)} less than drawn"
    )


def _short(design: Design) -> float:
    """By what share the mesh is smaller than the body as drawn."""
    return abs(
        1.0
        - polyhedra.measures(polyhedra.surface(design.body, FINE, ROUND)).volume_mm3
        / solid(replace(design.body, joints=())).volume_mm3
    )


@blueprint.get("/<int:key>/pack.pdf")
def pdf(key: int) -> ResponseReturnValue:
    """The pack as PDF, true to size."""
    row = load_document("body", key)
    try:
        data = printing.pdf(
            render_template("shapes/pack_print.html", pack=_asked(row, request.args.to_dict()), row=row)
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
    return as_pdf(data, named(row, "pack"))


@blueprint.get("/<int:key>/sheet-<int:number>.svg")
def sheet(key: int, number: int) -> Response:
    """One sheet of the pack as SVG, true to size."""
    row = load_document("body", key)
    asked_sheets = _asked(row, request.args.to_dict()).sheets
    if not 1 <= number <= len(asked_sheets):
        abort(404)
    drawn = carrying(asked_sheets[number - 1].svg(), documents.content(db(), row))
    return as_file(_svg_file(drawn), f"{named(row, f'sheet {number}')}.svg", "image/svg+xml")


def carrying(root: Node, content: Content) -> Node:
    """A drawing whose outlines are named and which carries the document they were drawn from, so that it
    can be brought in again.
    """
    named: dict[str, Node] = {}

    def walk(here: Node | str) -> Node | str:
        if isinstance(here, str):
            return here
        word = str(here["attrs"].get("data-outline", ""))
        copied = {**here, "children": [walk(child) for child in here["children"]]}
        if word and word not in named:
            copied["attrs"] = {**here["attrs"], "id": word}
            named[word] = copied
        return copied

    carried = walk(root)
    assert not isinstance(carried, str)
    paths = [str(outline["attrs"]["d"]) for outline in named.values()]
    return {
        **carried,
        "children": [
            node("metadata", svg_outlines.own_metadata(content, paths), id=svg_outlines.OURS),
            *carried["children"],
        ],
    }


def _svg_file(root: Node) -> bytes:
    return ('<?xml version="1.0" encoding="UTF-8"?>\n' + str(markup(root))).encode("utf-8")


@blueprint.get("/<int:key>/outlines.svg")
def outlines(key: int) -> Response:
    """Side and top outline in true millimetres, for a drawing program; it can be brought in again
    unchanged.
    """
    row = load_document("body", key)
    content = documents.content(db(), row)
    return as_file(_svg_file(outline_drawing(content)), f"{named(row, 'outlines')}.svg", "image/svg+xml")


def outline_drawing(content: Content) -> Node:
    """The outlines as an SVG that carries the document they were drawn from."""
    body = to_design(content).body
    side, top = side_outline(body, pack.FINE), top_outline(body, pack.FINE)
    high, low, half = float(side[:, 1].max()), float(side[:, 1].min()), float(top[:, 1].max())
    height = high - low + 2 * half + 20
    paths = [path(side), path(top + [0.0, low - half - 10.0])]
    line = {"fill": "none", "stroke": "#16283A", "stroke_width": 0.2}
    design, inside = to_design(content), []
    inside += [
        node("path", d=path(row, close=False), id=f"cut-{n}", **line)
        for n, row in enumerate(pack.cut_lines(design), start=1)
    ]
    if design.lip is not None:
        inside.append(node("path", d=path(pack.slot_outline(design)), id="slot", **line))
    inside += [
        node("path", d=path(row), id=f"hollow-{n}", **line)
        for n, row in enumerate(hollow_outlines(design), start=1)
    ]
    return node(
        "svg",
        node("title", f"{content['name']}: outlines in millimetres"),
        node("metadata", svg_outlines.own_metadata(content, paths), id=svg_outlines.OURS),
        node("path", d=paths[0], id="side", **line),
        node("path", d=paths[1], id="top", **line),
        *inside,
        viewBox=f"-5 {-high - 5:.2f} {body.length_mm + 10:.2f} {height:.2f}",
        width=f"{body.length_mm + 10:.2f}mm",
        height=f"{height:.2f}mm",
        xmlns="http://www.w3.org/2000/svg",
    )


@blueprint.get("/<int:key>/outlines.dxf")
def drawing(key: int) -> Response:
    """Outlines, sections, lip and holes for a cutter, each on its layer."""
    row = load_document("body", key)
    content = documents.content(db(), row)
    return as_file(
        dxf.write(layers(_asked(row, request.args.to_dict())), content), f"{named(row)}.dxf", "image/vnd.dxf"
    )


def layers(drawn: Pack) -> list[DrawnLayer]:
    """The pack as layers: SIDE, TOP below it, SECTIONS beside, each with its station; saw CUTS, the lip's
    SLOT and STATIONS on the side; LIP, HOLES, HOLLOW.
    """
    design = drawn.design
    side, top = side_outline(design.body, pack.FINE), top_outline(design.body, pack.FINE)
    below = float(side[:, 1].min()) - float(top[:, 1].max()) - 10.0
    rows = [DrawnLayer("SIDE", (side,)), DrawnLayer("TOP", (top + [0.0, below],))]
    cuts, words, x = [], [], design.body.length_mm + 15.0
    for at in drawn.stations_mm:
        section = section_outline(design.body, at, 160)
        half = float(section[:, 0].max())
        cuts.append(section + [x + half, 0.0])
        words.append((x, float(section[:, 1].min()) - 5.0, place(at)))
        x += 2 * half + 10.0
    rows.append(DrawnLayer("SECTIONS", tuple(cuts), words=tuple(words)))
    rows.append(
        DrawnLayer("STATIONS", lines=tuple(pack.station_line(design, at) for at in drawn.stations_mm))
    )
    if design.body.joints:
        across = [
            np.array([[at, below - reach], [at, below + reach]]) for at, reach in pack.cuts_from_above(design)
        ]
        rows.append(DrawnLayer("CUTS", lines=(*pack.cut_lines(design), *across)))
    if design.lip is not None:
        rows.append(DrawnLayer("SLOT", (pack.slot_outline(design),)))
        rows.append(DrawnLayer("LIP", (lip_outline(design.lip, 96) + [design.body.length_mm + 20.0, below],)))
    if design.shell is not None:
        rows.append(DrawnLayer("HOLLOW", hollow_outlines(design)))
    holes = tuple(
        (hole.x_mm, below + y, hole.drill_mm)
        for hole in drawn.holes
        if hole.face in ("belly", "back")
        for y in ((-hole.beside_mm, hole.beside_mm) if hole.beside_mm else (0.0,))
    )
    return [*rows, DrawnLayer("HOLES", circles=holes)]


@blueprint.get("/<int:key>/body.stl")
def mesh(key: int) -> Response:
    """The uncut body as a mesh, its hollow taken out."""
    row = load_document("body", key)
    design = to_design(documents.content(db(), row))
    return as_file(
        stl.write(
            whole_shell(design, FINE, ROUND), f"{row.code} whole {_made(design)}, mm. {_short_words(design)}"
        ),
        f"{named(row)}.stl",
        "model/stl",
    )


@blueprint.get("/<int:key>/segment-<int:number>.stl")
def segment_mesh(key: int, number: int) -> Response:
    """One segment as a mesh, its saw faces closed, its part of the hollow taken out."""
    row = load_document("body", key)
    design = to_design(documents.content(db(), row))
    meshes = shell_meshes(design, FINE, ROUND) if design.body.joints else ()
    if not 1 <= number <= len(meshes):
        abort(404)
    title = f"{row.code} segment {number} of {len(meshes)}, {_made(design)}, mm"
    return as_file(
        stl.write(meshes[number - 1], title), f"{named(row, f'segment {number}')}.stl", "model/stl"
    )


def _made(design: Design) -> str:
    return f"shell, wall {plainly(design.shell.wall_mm, 'length')}" if design.shell else "body"


def hollow_words(design: Design) -> str:
    """What is said of a hollow body beside its files: its wall, how much material it takes, what a closed
    hollow needs; empty where it is solid.
    """
    if design.shell is None:
        return ""
    whole = polyhedra.measures(polyhedra.surface(design.body, FINE, ROUND)).volume_ml
    left = polyhedra.measures(whole_shell(design, FINE, ROUND)).volume_ml
    around = (
        f", {plainly(design.shell.around_mm, 'length')} round what sits inside"
        if design.shell.around_mm
        else ""
    )
    fill = "" if design.shell.is_empty else f" It is filled with {design.shell.fill} afterwards."
    return (
        f"Hollow: the files hold the shell, wall {plainly(design.shell.wall_mm, 'length')}{around}:"
        f" {said(left, 'volume', 1)} of"
        f" material instead of {said(whole, 'volume', 1)}.{fill} A closed hollow printed in liquid resin"
        " keeps the resin:"
        " let it out through a hole, plug it after."
    )

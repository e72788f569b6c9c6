"""Every kind of file that leaves, read back and measured by a library that is not ours."""

import csv
import io
import json
import math
import shutil
import sqlite3
from contextlib import closing
from dataclasses import replace

import ezdxf
import numpy as np
import pypdfium2
import pytest
import svgelements
import trimesh
from ezdxf.path import make_path
from jsonschema import Draft202012Validator
from PIL import Image

from lamsik.core.quantities import INCHES, place, saying
from lamsik.core.shapes.clearance import Clearances
from lamsik.core.shapes.drillings import drillings
from lamsik.core.shapes.hollow import Shell
from lamsik.core.shapes.joints import Joint
from lamsik.core.shapes.polyhedra import measures, surface
from lamsik.core.shapes.shells import hollow_mesh, shell_meshes, whole_shell
from lamsik.core.shapes.solid import solid
from lamsik.core.shapes.space import space_of
from lamsik.documents.body.document import to_design
from lamsik.documents.body.shape import BODY_SCHEMA
from lamsik.drawings.raster import address
from lamsik.formats import stl
from lamsik.store import documents, stores
from lamsik.store.database import session_of
from lamsik.store.tables import Document
from lamsik.web.pieces.views import card_paper
from lamsik.web.shared import printing
from lamsik.web.shared.printing import spelled
from tests import demo_rows as shop
from tests.bodies import bait
from tests.web.test_shapes import document, live

RATTLER, EEL, RUNNER, LONGEST = shop.PRINT_RATTLER, shop.SPLIT_EEL, shop.FERRY_RUNNER, shop.TIDE_BELL


def read_stl(data: bytes) -> trimesh.Trimesh:
    found = trimesh.load(io.BytesIO(data), file_type="stl")
    assert found.is_watertight and found.is_winding_consistent
    return found


def bodies(shop):
    with session_of(shop.http.application.extensions["engine"]) as session:
        return [row.id for row in documents.listed(session, "body")]


class TestStl:
    def test_of_every_body_is_watertight_without_a_triangle_of_no_area_and_as_large_as_the_body(self, demo):
        for key in bodies(demo):
            data = demo.get(f"/shapes/{key}/body.stl").data
            corners = np.frombuffer(
                data, dtype=[("n", "<f4", 3), ("p", "<f4", (3, 3)), ("s", "<u2")], offset=84
            )["p"].astype(float)
            areas = (
                np.linalg.norm(np.cross(corners[:, 1] - corners[:, 0], corners[:, 2] - corners[:, 0]), axis=1)
                / 2
            )
            found, design = read_stl(data), to_design(document(demo, key))
            assert areas.min() > 0 and found.extents[0] == pytest.approx(design.body.length_mm, rel=1e-4)
            hollow = sum(piece.volume_mm3 for piece in space_of(design).left_hollow) if design.shell else 0.0
            uncut = sum(part.volume_mm3 for part in [solid(design.body)]) + kerfs(design)
            assert found.volume == pytest.approx(uncut - hollow, rel=4e-3), key

    def test_segments_lie_one_behind_the_other(self, demo):
        design = to_design(document(demo, EEL))
        parts = [
            read_stl(demo.get(f"/shapes/{EEL}/segment-{n}.stl").data)
            for n in range(1, len(design.body.joints) + 2)
        ]
        assert demo.get(f"/shapes/{EEL}/segment-9.stl").status_code == 404
        assert sum(part.volume for part in parts) == pytest.approx(solid(design.body).volume_mm3, rel=3e-3)
        assert [part.centroid[0] for part in parts] == sorted(part.centroid[0] for part in parts)

    @pytest.mark.parametrize(
        "title", ["B-001 whole body, mm. " + "long " * 40, "Köder für Hecht, mm", "x" * 200, ""]
    )
    def test_its_header_ends_at_a_word(self, title):
        data = stl.write(surface(bait().body, 12, 8), title)
        said = data[:80].rstrip().decode("ascii")
        assert title.encode("ascii", "replace").decode().startswith(said) and len(data) > 84
        assert (
            len(title) < 80 or " " not in title or title.encode("ascii", "replace").decode()[len(said)] == " "
        )

    def test_a_hollow_leaves_as_its_shell(self, demo):
        solid_ml = read_stl(demo.get(f"/shapes/{RUNNER}/body.stl").data).volume
        live(
            demo,
            {"do": "hollow", "on": True},
            {"do": "set", "path": "shell.wall_mm", "text": "1.6 mm"},
            {"do": "set", "path": "shell.around_mm", "text": "0 mm"},
            save=True,
            base=document_base(demo, RUNNER),
            key=RUNNER,
        )
        shell = demo.get(f"/shapes/{RUNNER}/body.stl").data
        assert (
            read_stl(shell).volume < 0.65 * solid_ml
            and b"shell, wall 1.6 mm" in shell[:80]
            and read_stl(shell).body_count == 2
        )
        page = demo.get(f"/shapes/{RUNNER}/pack").text
        assert (
            "Hollow: the files hold the shell, wall 1.6 mm" in page
            and "mm wall into the hollow" in page
            and "the hollow is drawn dashed" in page
        )


def document_base(shop, key):
    with session_of(shop.http.application.extensions["engine"]) as session:
        return session.get_one(Document, key).current


def kerfs(design):
    return (
        measures(surface(design.body, 240, 160)).volume_mm3 - solid(design.body).volume_mm3
        if design.body.joints
        else 0.0
    )


class TestShell:
    """The hollow's mesh against the account of space, which adds up columns."""

    @pytest.mark.parametrize("wall", [1.2, 2.5, 4.0])
    def test_the_hollow_is_as_large_as_the_account_says(self, wall):
        design = bait(shell=Shell(wall))
        assert measures(hollow_mesh(design.body, wall)).volume_mm3 == pytest.approx(
            sum(p.volume_mm3 for p in space_of(design).hollow), rel=2e-3
        )

    def test_no_wall_is_thinner_than_asked(self):
        design = bait(shell=Shell(2.0), lip=None, ballast=())
        inner = hollow_mesh(design.body, 2.0)
        outer = surface(design.body, 240, 160)
        away = np.abs(
            trimesh.proximity.closest_point(
                trimesh.Trimesh(outer.vertices, outer.faces), inner.vertices[::37]
            )[1]
        )
        assert away.min() > 1.97 and np.median(away) < 2.02

    @pytest.mark.parametrize("slant", [0.0, 20.0])
    def test_a_joint_closes_it_and_walls_stand_round_what_sits_inside(self, slant):
        whole = bait(shell=Shell(1.6, around_mm=1.2))
        body = measures(surface(whole.body, 240, 160)).volume_mm3
        assert body - measures(whole_shell(whole, 240, 160)).volume_mm3 == pytest.approx(
            sum(p.volume_mm3 for p in space_of(whole).left_hollow), rel=5e-3
        )
        plain = bait(shell=Shell(1.6), lip=None, ballast=(), hardware=())
        jointed = replace(plain, body=replace(plain.body, joints=(Joint("j1", 40.0, slant, 1.2),)))
        parts = shell_meshes(jointed, 240, 160)
        solids = sum(trimesh.Trimesh(part.vertices, part.faces).volume for part in parts)
        assert solid(jointed.body).volume_mm3 - solids == pytest.approx(
            sum(p.volume_mm3 for p in space_of(jointed).hollow), rel=4e-3
        )
        assert all(trimesh.Trimesh(part.vertices, part.faces).is_watertight for part in parts)

    def test_a_hole_says_where_it_comes_into_the_hollow(self):
        """From the belly through the wall square to the skin, along the axis through what the wall leaves
        solid at the ends.
        """
        screws = tuple(
            replace(placed, item=replace(placed.item, wire_mm=0.9, shank_mm=14.0))
            for placed in bait().hardware
        )
        table, hollow = Clearances(), bait(shell=Shell(2.0, around_mm=1.5), hardware=screws)
        rows = {
            hole.face: hole for hole in drillings(hollow, table, (1.0, 6.0)) if "g lead" not in hole.purpose
        }
        assert rows["belly"].through_mm == pytest.approx(2.0, abs=0.08)
        inside = hollow_mesh(hollow.body, 2.0).vertices[:, 0]
        assert rows["nose"].through_mm is None or rows["nose"].through_mm == pytest.approx(
            inside.min(), abs=0.4
        )
        assert (
            next(hole for hole in drillings(hollow, table, (1.0, 6.0)) if "g lead" in hole.purpose).through_mm
            is None
        )  # it has a wall of its own
        assert next(
            hole
            for hole in drillings(bait(shell=Shell(2.0), hardware=screws), table, (1.0, 6.0))
            if "g lead" in hole.purpose
        ).through_mm == pytest.approx(2.0, abs=0.08)
        assert all(hole.through_mm is None for hole in drillings(bait(hardware=screws), table, (1.0, 6.0)))


class TestDrawings:
    def test_dxf_holds_all_that_is_sawn_and_its_reach(self, demo):
        drawing = ezdxf.read(
            io.StringIO(demo.get(f"/shapes/{EEL}/outlines.dxf?stations=29.75+mm,+37.25+mm").text)
        )
        design, space = to_design(document(demo, EEL)), drawing.modelspace()
        by = {
            name: list(space.query(f'*[layer=="{name}"]'))
            for name in ("SIDE", "TOP", "SECTIONS", "STATIONS", "CUTS", "SLOT", "LIP", "HOLES")
        }
        assert drawing.units == ezdxf.units.MM and all(by.values())
        side = np.array([(p.x, p.y) for p in make_path(by["SIDE"][0]).flattening(0.01)])
        assert np.ptp(side[:, 0]) == pytest.approx(design.body.length_mm, abs=0.01) and np.ptp(
            side[:, 1]
        ) == pytest.approx(design.body.depth_mm, abs=0.02)
        assert [entity.dxf.text for entity in by["SECTIONS"] if entity.dxftype() == "TEXT"] == [
            "29.75 mm",
            "37.25 mm",
        ]
        assert sorted(round(entity[0][0], 3) for entity in by["STATIONS"]) == [29.75, 37.25]
        assert len(by["CUTS"]) == 4 * len(design.body.joints)
        slot = np.array([point[:2] for point in by["SLOT"][0]])
        assert np.linalg.norm(slot[0] - slot[3]) == pytest.approx(design.lip.thickness_mm, rel=1e-3)
        low, high = drawing.header["$EXTMIN"], drawing.header["$EXTMAX"]
        assert (
            low[0] <= side[:, 0].min()
            and high[0] >= side[:, 0].max()
            and math.isfinite(high[1])
            and high[0] < 1000
        )

    def test_svg_is_true_to_size_with_cuts_and_slot(self, demo):
        data = demo.get(f"/shapes/{EEL}/outlines.svg").data
        found = {
            element.id: element
            for element in svgelements.SVG.parse(io.BytesIO(data)).elements()
            if getattr(element, "id", None)
        }
        design = to_design(document(demo, EEL))
        left, top, right, low = found["side"].bbox()
        assert (right - left) / 96 * 25.4 == pytest.approx(design.body.length_mm, abs=0.05) and {
            "top",
            "slot",
            "cut-1",
            "cut-2",
        } <= set(found)
        assert low > top

    def test_pdfs_have_their_paper(self, demo):
        for url, size in (
            (f"/shapes/{RUNNER}/pack.pdf?paper=A4", (210, 297)),
            (f"/shapes/{RUNNER}/pack.pdf?paper=Letter", (215.9, 279.4)),
            (f"/pieces/{shop.PIECE_FERRY_RUNNER_90}/card.pdf", (297, 210)),
        ):
            page = pypdfium2.PdfDocument(demo.get(url).data)[0]
            assert sorted(page.get_size()) == pytest.approx(sorted(mm / 25.4 * 72 for mm in size), abs=1.0)

    def test_a_shop_on_letter_has_its_card_on_letter(self, demo):
        with session_of(demo.http.application.extensions["engine"]) as session:
            stores.put_setting(session, "saw", {**stores.setting(session, "saw"), "paper": "Letter"})
        page = pypdfium2.PdfDocument(demo.get(f"/pieces/{shop.PIECE_FERRY_RUNNER_90}/card.pdf").data)[0]
        assert page.get_size() == pytest.approx((11 * 72, 8.5 * 72), abs=1.0)
        assert [card_paper(mm, "Letter") for mm in (200, 240, 500)] == [
            "Letter",
            "Tabloid",
            "Broadsheet",
        ] and card_paper(240, "A3") == "A4"

    def test_every_sheet_of_a_long_body_lists_its_own_holes(self, demo):
        live(
            demo,
            {"do": "set", "path": "body.length_mm", "text": "480 mm"},
            save=True,
            base=document_base(demo, RUNNER),
            key=RUNNER,
        )
        pages = [
            page.get_textpage().get_text_range()
            for page in pypdfium2.PdfDocument(demo.get(f"/shapes/{RUNNER}/pack.pdf?paper=A4").data)
        ]
        text = "\n".join(pages)
        parts = text.count("Drill map, part")
        assert parts >= 2 and text.count(": list") >= 2
        for n in range(1, parts - text.count(": list") + 1):
            [sheet] = [page for page in pages if f"Drill map, part {n} of 2: lay" in page]
            assert (
                f"Drill map, part {n} of 2: list" in sheet
                and "drill" in sheet.split(f"part {n} of 2: list")[1]
            )


class TestPlainText:
    def test_json_follows_its_schema_and_says_no_noise(self, demo):
        for key in bodies(demo):
            text = demo.get(f"/shapes/{key}/body.json").text
            Draft202012Validator(BODY_SCHEMA.schema).validate(json.loads(text))
            assert "0000000" not in text and "9999999" not in text

    def test_csv_is_read_by_any_reader(self, demo):
        rows = list(csv.DictReader(io.StringIO(demo.get("/scale/things.csv").data.decode("utf-8-sig"))))
        assert len(rows) > 3 and all(None not in row and row["name"] for row in rows)

    def test_a_backup_is_a_database(self, demo, tmp_path):
        demo.post(
            "/backups/make" if demo.get("/backups").status_code == 200 else "/stores/backups/make",
            page="/mixes/clocks",
        )
        [file] = (demo.http.application.config["HOME"] / "backups").glob("*.sqlite3")
        with closing(sqlite3.connect(file)) as found:
            assert found.execute("PRAGMA integrity_check").fetchone() == ("ok",)
            picture = found.execute("SELECT data FROM picture_file").fetchone()[0]
        assert Image.open(io.BytesIO(picture)).size[0] > 100


def test_files_are_named_by_code_and_name(demo):
    for url, name in (
        (f"/shapes/{RUNNER}/body.stl", "B-001 Ferry runner 90.stl"),
        (f"/shapes/{RUNNER}/outlines.dxf", "B-001 Ferry runner 90.dxf"),
        (f"/shapes/{RUNNER}/body.json", "B-001 Ferry runner 90.json"),
        (f"/floats/{shop.TENCH_ANTENNA_2_5_G}/float.json", "F-002 Tench antenna 2.5 g.json"),
    ):
        assert f'filename="{name}"' in demo.get(url).headers["Content-Disposition"]
    live(
        demo,
        {"do": "set", "path": "name", "text": 'Hecht/Ködér "8" 🐟'},
        save=True,
        base=document_base(demo, RUNNER),
        key=RUNNER,
    )
    told = demo.get(f"/shapes/{RUNNER}/body.json").headers["Content-Disposition"]
    assert (
        told.isascii()
        and 'filename="B-001 Hecht Koder 8.json"' in told
        and told.endswith("filename*=UTF-8''B-001%20Hecht%20K%C3%B6d%C3%A9r%208%20%F0%9F%90%9F.json")
    )


@pytest.mark.parametrize(
    ("text", "says"),
    [
        ("Perch 🐟", "Perch (fish)"),
        ("Ködér 90", "Ködér 90"),
        ("鱒", "鱒"),
        ("👍🏽 ok", "(thumbs up sign) ok"),
        ("3 → 4", "3 to 4"),
        ("≈ 5 g", "about 5 g"),
    ],
)
def test_what_no_font_of_ours_can_write_is_spelled_on_paper(text, says):
    assert spelled(text) == says


@pytest.mark.parametrize(
    ("mm", "says"),
    [
        (29.75, "29.75 mm"),
        (37.25, "37.25 mm"),
        (32.5, "32.5 mm"),
        (40.0, "40.0 mm"),
        (23.200000000000003, "23.2 mm"),
        (10.004, "10.0 mm"),
        (10.006, "10.01 mm"),
    ],
)
def test_a_place_keeps_what_holes_are_apart(mm, says):
    assert place(mm) == says
    with saying(INCHES):
        assert abs(25.4 * float(place(mm).removesuffix(" in")) - mm) < 0.013  # to the thousandth


def test_a_picture_that_a_drawing_carries_is_on_paper():
    red = np.full((60, 60, 3), (200, 0, 0), dtype=np.uint8)
    image = f'<image href="{address(red)}" width="9" height="9"/>'
    drawn = f'<svg viewBox="0 0 9 9" width="30mm" height="30mm">{image}</svg>'
    page = pypdfium2.PdfDocument(printing.pdf(f"<html><body>{drawn}</body></html>"))[0]
    shown = np.asarray(page.render().to_pil().convert("RGB")).astype(int)
    assert (shown[..., 0] - shown[..., 1] > 120).sum() > 1000


def test_a_paper_is_set_after_the_machine_cleared_what_is_temporary():
    page = '<link rel="stylesheet" href="css/print-fonts.css"><p>Perch</p>'
    before = pypdfium2.PdfDocument(printing.pdf(page))[0].get_textpage().get_text_range()
    shutil.rmtree(printing._fonts()._folder)
    again = pypdfium2.PdfDocument(printing.pdf(page))[0].get_textpage().get_text_range()
    assert before == again == "Perch"

"""Meshes and photos as bytes: STL of both kinds round-trips, photos are normalised, whatever is broken is
named.
"""

import io
import json
import re
import shutil
import sys
import zlib
from hashlib import sha256

import numpy as np
import pytest
import trimesh
from PIL import Image, ImageFile

from lamsik.core.errors import Refused
from lamsik.core.shapes import polyhedra, skins
from lamsik.core.shapes.forms import FORMS, body_from
from lamsik.core.shapes.meshing import measured, turned
from lamsik.core.shapes.outlining import lines_of
from lamsik.core.shapes.solid import solid
from lamsik.core.tank import evaluate
from lamsik.documents.body.document import to_design
from lamsik.documents.body.lines import blank, with_lines, with_mesh
from lamsik.formats import body_file, dxf, photo, stl, svg_outlines, upright
from lamsik.formats.json_text import tidied
from lamsik.store.skins import pack
from lamsik.words.verdict import sentence
from tests.bodies import box_mesh
from tests.documents.test_body import HOST, document
from tests.refusing import refusing

EGG = trimesh.creation.icosphere(subdivisions=3).apply_scale([45, 8, 10])


def as_body(checked):
    made = measured(turned(checked.mesh, "-x", "+z", 1.0))
    packed = pack(made.shares)
    digest = sha256(packed).hexdigest()
    content = with_mesh(blank("Egg", HOST, to_design(document()).water), made, digest, "egg.stl")
    skins.keep(digest, made.shares)
    return content, packed


class TestStl:
    @pytest.mark.parametrize("kind", ["stl", "stl_ascii"])
    def test_binary_and_text_are_the_same_body(self, kind):
        data = EGG.export(file_type=kind)
        found = stl.read(data if isinstance(data, bytes) else data.encode())
        assert len(found.mesh.faces) == len(EGG.faces) and len(found.mesh.vertices) == len(EGG.vertices)
        assert polyhedra.measures(found.mesh).volume_mm3 == pytest.approx(EGG.volume, rel=1e-5)

    def test_a_body_exported_and_brought_in_measures_the_same(self):
        body = body_from(FORMS["slim"], 90, 19, 15)
        again = stl.read(stl.write(polyhedra.surface(body, 180, 128), "B-001 whole body, mm"))
        made = measured(turned(again.mesh, "-x", "+z", 1.0))
        assert (
            made.body.length_mm == pytest.approx(90, abs=1e-3)
            and made.body.depth_mm == pytest.approx(19, abs=0.01)
            and made.body.width_mm == pytest.approx(15, abs=0.01)
        )
        content, _ = as_body(again)
        found = to_design(content).body
        assert solid(found).volume_mm3 == pytest.approx(solid(body).volume_mm3, rel=1e-3)
        once_more = stl.read(stl.write(polyhedra.surface(found), "again"))
        assert polyhedra.measures(once_more.mesh).volume_mm3 == pytest.approx(
            solid(found).volume_mm3, rel=1e-6
        )

    def test_a_mesh_gets_a_verdict_like_any_other_body(self):
        content, _ = as_body(stl.read(EGG.export(file_type="stl")))
        outcome = evaluate.settle(to_design(content))
        assert (
            outcome.solid.volume_ml == pytest.approx(EGG.volume / 1000, rel=2e-3)
            and outcome.surface
            and "Floats" in sentence(outcome.verdict)
        )

    def test_it_tells_how_far_it_is(self):
        told = []
        stl.read(EGG.export(file_type="stl"), lambda share, says: told.append((share, says)))
        assert [share for share, _ in told] == sorted(share for share, _ in told) and any(
            "1280 triangles" in says for _, says in told
        )

    def test_the_header_says_what_it_is_and_never_begins_like_text(self):
        data = stl.write(box_mesh(10, 10, 10), "solid block, mm " + "x" * 200)
        assert (
            data[:80].decode().startswith("solid block")
            and len(data) == 84 + 50 * 12
            and len(stl.read(data).mesh.faces) == 12
        )

    @pytest.mark.parametrize(
        ("data", "says"),
        [
            (b"", "empty or cut short"),
            (b"x" * 300, "cut short, or no STL|triangles"),
            (EGG.export(file_type="stl")[:-600], "cut short"),
            (b"\x00" * 84, "cut short, or no STL"),
            (
                b"solid x\nfacet normal 0 0 1\n outer loop\n vertex 0 0 zero\n",
                "no STL file that can be read|triangles",
            ),
            (b"\0" * 80 + (3_000_000).to_bytes(4, "little"), "at most 2000000"),
            (b"solid nothing\nendsolid facet", "triangles|no STL"),
        ],
        ids=["empty", "noise", "short", "zeros", "words", "many", "hollow words"],
    )
    def test_what_is_wrong_is_said(self, data, says):
        with refusing(says):
            stl.read(data)

    def test_a_coordinate_that_is_no_number_is_named(self):
        data = bytearray(EGG.export(file_type="stl"))
        data[84 + 12 : 84 + 16] = np.float32("nan").tobytes()
        with refusing("no number"):
            stl.read(bytes(data))

    def test_a_hole_is_said_with_its_place(self):
        open_egg = trimesh.Trimesh(EGG.vertices, EGG.faces[1:])
        with refusing(r"not watertight: there is a hole near \("):
            stl.read(open_egg.export(file_type="stl"))


class TestBodyFileWithMesh:
    def test_the_mesh_travels_with_its_document(self):
        content, packed = as_body(stl.read(EGG.export(file_type="stl")))
        text = body_file.write(content, packed)
        again, mesh = body_file.read(text.encode())
        assert again == tidied(content) and len(skins.mesh_of_bytes(body_file.inflated(mesh)).faces) == len(
            EGG.faces
        )
        changed = json.loads(text) | {"mesh_data": "AAAA"}
        with refusing("not the one the body names"):
            body_file.read(json.dumps(changed).encode())
        packed = pack(stl.read(EGG.export(file_type="stl")).mesh)
        content["body"]["mesh"]["digest"] = sha256(packed).hexdigest()
        with refusing("not in shares of length, width and depth"):
            body_file.opened(body_file.write(content, packed).encode())

    @pytest.mark.parametrize(
        "data",
        [b'{"mesh_data": 5}', b'{"mesh_data": "%%%"}', b'["mesh_data"]', b" " * 61_000_000],
        ids=["number", "no base64", "list", "large"],
    )
    def test_what_is_no_body_file_is_refused(self, data):
        with pytest.raises(Refused):
            body_file.read(data)

    @pytest.mark.parametrize("data", [b"not packed", b""])
    def test_a_mesh_that_is_none_is_refused(self, data):
        with pytest.raises(Refused):
            skins.mesh_of_bytes(body_file.inflated(data))

    def test_a_small_file_cannot_unpack_to_a_flood(self):
        with refusing("unpacks to more"):
            body_file.inflated(zlib.compress(b"\0" * 3_000_000), most=1_000_000)


def photographed(kind="JPEG", size=(800, 600), mode="RGB", **more):
    kept = io.BytesIO()
    Image.new(mode, size, (200, 190, 180) if mode == "RGB" else 1).save(kept, kind, **more)
    return kept.getvalue()


class TestPhoto:
    @pytest.mark.parametrize("kind", ["JPEG", "PNG", "WEBP", "TIFF", "BMP"])
    def test_every_kind_becomes_an_upright_jpeg(self, kind):
        data, wide, high = upright.normalised(photographed(kind))
        assert (
            (wide, high) == (800, 600)
            and data[:2] == b"\xff\xd8"
            and photo.pixels(data).shape == (600, 800, 3)
        )

    def test_a_turned_photo_is_set_upright_and_the_cameras_notes_are_dropped(self):
        notes = Image.Exif()
        notes[274], notes[270] = 6, "at the harbour"
        data, wide, high = upright.normalised(photographed(exif=notes))
        assert (wide, high) == (600, 800) and b"harbour" not in data

    def test_a_large_photo_is_made_workable(self):
        _, wide, high = upright.normalised(photographed(size=(6000, 3000)))
        assert max(wide, high) == upright.LONGEST_PX and wide == 2 * high

    @pytest.mark.parametrize(
        ("data", "says"),
        [
            (b"", "no picture"),
            (b"<svg/>", "no picture"),
            (lambda: photographed()[:900], "no picture"),
            (b"GIF89a" + b"\0" * 99, "no picture"),
            (b"x" * 25_000_001, "at most 25 MB"),
            (lambda: photographed(size=(40, 40)), "at least 60 pixels"),
            (lambda: photographed("PNG", (9000, 9000), "1"), "million pixels"),
        ],
        ids=["empty", "svg", "short", "gif", "heavy", "tiny", "huge"],
    )
    def test_what_is_no_photo_is_refused(self, data, says, monkeypatch):
        monkeypatch.setattr(ImageFile, "LOAD_TRUNCATED_IMAGES", True)  # as it is once something was printed
        with refusing(says):
            upright.normalised(data() if callable(data) else data)

    def test_apart_it_comes_out_the_same_and_what_does_not_fit_is_refused(self, monkeypatch):
        kept = upright.normalised(photographed())
        assert photo.apart(photographed()) == kept
        for data in (b"", photographed()[:900], photographed("PNG", (9000, 9000), "1")):
            with pytest.raises(Refused) as said:
                photo.apart(data)
            assert said.value.allowed
            with refusing(re.escape(said.value.allowed)):
                upright.normalised(data)
        monkeypatch.setattr(sys, "executable", shutil.which("false"))
        with refusing("more memory"):
            photo.apart(photographed())

    def test_the_largest_that_is_taken_fits(self):
        largest = photographed("PNG", (7000, 7000))
        picture, wide, high = photo.apart(largest)
        assert max(wide, high) == upright.LONGEST_PX and Image.open(io.BytesIO(picture)).size == (wide, high)


def test_a_path_of_far_too_many_points_is_refused_before_anything_is_built():
    path = "M" + " ".join(f"{n % 977},{n % 733}" for n in range(300_000)) + "Z"
    with refusing("a path of 600000 numbers"):
        svg_outlines.read(f'<svg xmlns="http://www.w3.org/2000/svg"><path d="{path}"/></svg>'.encode())
    rows = "".join(f" 10\n{n % 977}.0\n 20\n{n % 733}.0\n" for n in range(400_000))
    with refusing("400000 points"):
        dxf.read(f"  0\nSECTION\n  2\nENTITIES\n  0\nLWPOLYLINE\n{rows}  0\nENDSEC\n  0\nEOF\n".encode())


class TestLinesDocument:
    BOX = np.array([(0, -10), (90, -10), (90, 10), (0, 10)], dtype=float)

    def test_an_outline_without_a_top_is_as_wide_as_typed_or_a_share_of_its_depth(self):
        lines = lines_of(self.BOX)
        plain, typed = (
            to_design(with_lines(blank("Box", HOST, to_design(document()).water), lines, None, width)).body
            for width in (None, 12.0)
        )
        assert (
            plain.width_mm == pytest.approx(16, abs=0.1)
            and typed.width_mm == pytest.approx(12, abs=0.1)
            and plain.length_mm == 90
        )

    def test_new_lines_keep_what_is_on_the_body_in_proportion(self):
        content = document()
        content["hardware"] = [{**row, "x_mm": 45.0} for row in content["hardware"]]
        longer = with_lines(content, lines_of(self.BOX * [1.2, 1.0]), None, None)
        assert longer["body"]["length_mm"] == pytest.approx(108) and longer["material"] == content["material"]

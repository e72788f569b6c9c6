"""The Shapes bench on the wire: drawing, bringing in, revisions, joints, family, blades, the print pack
and what machines get.
"""

import errno
import io
import json
import os
import re

import numpy as np
import pypdfium2
import pytest
import trimesh
from PIL import Image

from lamsik.core.shapes.solid import kerf_ml, segments, solid
from lamsik.documents.body.document import to_design
from lamsik.formats import body_file
from tests import demo_rows as shop
from tests.formats.test_meshes_and_photos import EGG, photographed
from tests.lean import state
from tests.until import until

BAIT, POPPER = shop.FERRY_RUNNER, shop.SKIFF_POPPER


def document(shop, key=BAIT):
    return body_file.read(shop.get(f"/shapes/{key}/body.json").data)[0]


def live(shop, *edits, key=BAIT, **more):
    return shop.send(
        f"/designs/{key}/live",
        {"bench": "shapes", "document": document(shop, key), "edits": list(edits), **more},
    ).json


def sent(data, name, **fields):
    return {"file": (io.BytesIO(data), name), **fields}


def opened(shop, answer):
    assert answer.status_code == 302, answer.text
    return int(re.search(r"/shapes/(\d+)", answer.headers["Location"]).group(1))


class TestDrawing:
    @pytest.mark.parametrize(
        ("looks", "handle"),
        [
            ("lines", "point.top.3"),
            ("sizes", "body.depth_mm"),
            ("parts", "hardware."),
            ("nonsense", "point.top.3"),
        ],
    )
    def test_each_way_of_pulling(self, demo, looks, handle):
        assert handle in json.dumps(live(demo, looks=looks)["view"]["picture"])

    @pytest.mark.parametrize("seat", ["nose", "belly", "back", "tail", "lip", "flank", "inside"])
    def test_a_tie_is_drawn_wherever_it_sits(self, demo, seat):
        assert live(demo, {"do": "tie", "seat": seat})["errors"] == []

    def test_the_station_moves_the_section(self, demo):
        near, far = (live(demo, station=x)["view"] for x in (10.0, 35.0))
        assert (
            near["station"] == "10.0 mm"
            and "section at 10 mm" in json.dumps(near["picture"])
            and near["picture"] != far["picture"]
        )
        assert live(demo, station="1 in")["view"]["station"] == "25.4 mm"

    def test_a_bad_point_is_answered_and_the_rest_is_kept(self, demo):
        answer = live(
            demo,
            {"do": "point", "line": "top", "index": 3, "value_mm": -90.0},
            {"do": "set", "path": "body.width_mm", "text": "16 mm"},
        )
        assert (
            "top must stay above the bottom" in answer["errors"][0]["message"]
            and answer["document"]["body"]["width_mm"] == 16
        )

    def test_scaling_asks_for_hardware_anew(self, demo):
        rows = live(demo, {"do": "resize", "by": "factor", "text": "1.35"})["anew"]
        hook = next(row for row in rows if "Treble" in row["name"])
        assert next(o["name"] for o in hook["options"] if o["near"]) == "Treble hook size 4" and any(
            row["edit"]["do"] == "swap_lip" for row in rows
        )

    def test_clashes_are_said_with_their_distance_and_drawn(self, demo):
        found = live(demo, {"do": "set", "path": "ballast.b1.x_mm", "text": "36 mm"})["view"]
        assert (
            found["any_clash"]
            and "hanger" in json.dumps(found["clashes"]).lower()
            and "clash" in json.dumps(found["picture"])
        )

    def test_segments_each_get_a_verdict_and_their_material(self, demo):
        found = live(demo, {"do": "joint"}, {"do": "segment_material", "key": "s2", "name": "balsa"})["view"]
        assert [row["name"] for row in found["segments"]] == ["Segment 1", "Segment 2"] and all(
            "12 °C fresh water" in row["says"] for row in found["segments"]
        )
        assert (
            found["segments"][1]["materials"][0]["name"] == "balsa"
            and "In the chain afloat" in found["segments"][0]["chain"]
        )
        assert (
            "2 × " not in found["segments"][1]["holds"]
            and "Treble hook" in found["segments"][1]["holds"]
            and " rod" in found["segments"][0]["holds"]
        )

    def test_a_print_is_told_which_metal_sinks_it(self, demo):
        edits = [
            {"do": "material", "name": "printed resin"},
            {"do": "hollow", "on": True},
            {"do": "cavity", "code": "steel ball 6 mm"},
            {"do": "set", "path": "want.behaviour", "text": "sinks"},
        ]
        found = live(demo, *edits)["view"]
        assert [row["metal"] for row in found["metals"]] == ["steel", "brass", "lead", "tungsten"] and all(
            " g" in row["water"] for row in found["metals"]
        )

    def test_a_thin_printed_hinge_is_told_off(self, demo):
        found = live(
            demo,
            {"do": "joint", "kind": "hinge"},
            {"do": "set", "path": "joints.j1.hinge_mm", "text": "0.4 mm"},
        )["view"]
        assert "under 0.8 mm it fails early" in json.dumps(found["clashes"])

    def test_the_source_travels_to_piece_card_and_order(self, demo):
        live(
            demo,
            {"do": "set", "path": "source.kind", "text": "not_for_sale"},
            {"do": "set", "path": "source.note", "text": "after a museum piece"},
            key=24,
            save=True,
            base=2,
        )
        piece = demo.post("/pieces/start", {"design": str(shop.WEED_TADPOLE)}).headers["Location"]
        for url in (f"/shapes/{shop.WEED_TADPOLE}/compare", piece, f"{piece}/card"):
            assert "ot for sale: after a museum piece" in demo.get(url).text, url


class TestBringIn:
    def test_a_drawing_becomes_a_body(self, demo):
        box = (
            b'<svg xmlns="http://www.w3.org/2000/svg" width="100mm" height="60mm" viewBox="0 0 100 60"><path'
            b' d="M0 10 C0 0 80 0 90 10 C80 20 0 20 0 10z"/></svg>'
        )
        key = opened(
            demo, demo.post("/shapes/bring-in", sent(box, "eel.svg", material="balsa", width="9 mm"))
        )
        body = document(demo, key)["body"]
        assert (round(body["length_mm"], 1), round(body["width_mm"], 1)) == (90.0, 9.0) and document(
            demo, key
        )["material"]["name"] == "balsa"

    @pytest.mark.parametrize("way", ["body.json", "outlines.svg", "outlines.dxf", "sheet-1.svg"])
    @pytest.mark.parametrize("key", [BAIT, 25, 17])
    def test_what_is_exported_comes_back_with_its_numbers_unchanged(self, demo, way, key):
        data = demo.get(f"/shapes/{key}/{way}").data
        again = opened(demo, demo.post("/shapes/bring-in", sent(data, f"again.{way.rsplit('.', 1)[1]}")))
        assert document(demo, again) == document(demo, key)

    def test_a_blade_comes_back_as_json_and_dxf(self, demo):
        made = demo.post("/shapes/blades/new").headers["Location"]
        for way in ("blade.json", "flat.dxf"):
            data = demo.get(f"{made}/{way}").data
            again = demo.post("/shapes/bring-in", sent(data, f"x.{way.rsplit('.', 1)[1]}")).headers[
                "Location"
            ]
            assert (
                "blades/" in again
                and demo.get(f"{again}/blade.json").data == demo.get(f"{made}/blade.json").data
            )

    @pytest.mark.parametrize(
        ("data", "name", "says"),
        [
            (b"", "", "no file"),
            (b"{}", "x.json", "Format: "),
            (b"not a drawing", "x.svg", "no SVG file"),
            (b"<svg><script/></svg>", "x.svg", "script"),
            (b"zzz", "x.dxf", "no DXF"),
            (
                (
                    b'<svg xmlns="http://www.w3.org/2000/svg" width="10000mm" height="6000mm" viewBox="0 0'
                    b' 100 60"><rect width="99" height="9"/></svg>'
                ),
                "x.svg",
                "5 to 600 mm",
            ),
            (b'{"format": "lamsik-blade", "version": 3}', "x.json", "must be 1"),
        ],
    )
    def test_a_bad_file_is_answered_in_its_place_and_nothing_is_kept(self, demo, data, name, says):
        before = demo.get("/shapes").text.count("<li>")
        answer = demo.post("/shapes/bring-in", sent(data, name))
        assert answer.status_code == 422 and says in answer.text and 'id="drawing-problem"' in answer.text
        assert demo.get("/shapes").text.count("<li>") == before

    def test_outlines_onto_a_body_are_its_next_revision(self, demo):
        data = demo.get(f"/shapes/{shop.FERRY_RUNNER_110}/outlines.svg").data
        assert opened(demo, demo.post("/shapes/bring-in", sent(data, "longer.svg", onto="15"))) == 15
        found = document(demo, 15)
        assert found["body"]["length_mm"] == pytest.approx(110, abs=0.05) and found["hardware"][1][
            "x_mm"
        ] == pytest.approx(36 * 110 / 90, abs=0.05)
        assert len(found["ballast"]) == len(document(demo, 16)["ballast"]) or found["ballast"]


class TestMesh:
    def read(self, shop, data, name="egg.stl"):
        token = re.search(r'name="csrf-token" content="([^"]+)"', shop.get("/").text).group(1)
        job = shop.http.post(
            "/shapes/bring-in/mesh",
            data={"mesh": (io.BytesIO(data), name)},
            headers={"X-CSRFToken": token, "Accept": "application/json"},
        ).json["job"]
        return job, until(lambda: shop.get(f"/shapes/bring-in/mesh/{job}").json, lambda state: state["done"])

    def test_from_file_to_body_to_verdict(self, demo):
        job, state = self.read(demo, EGG.export(file_type="stl"))
        assert state["faces"] == 1280 and state["size"] == pytest.approx([90, 16, 20], rel=0.02)
        asked = {"unit": "mm", "nose": "-x", "up": "+z", "material": "printed resin"}
        assert (
            "say in which unit"
            in demo.send(f"/shapes/bring-in/mesh/{job}/body", {**asked, "unit": ""}).json["error"]["message"]
        )
        assert (
            "across the nose"
            in demo.send(f"/shapes/bring-in/mesh/{job}/body", {**asked, "up": "+x"}).json["error"]["message"]
        )
        assert (
            "is the unit right"
            in demo.send(f"/shapes/bring-in/mesh/{job}/body", {**asked, "unit": "m"}).json["error"]["message"]
        )
        key = int(demo.send(f"/shapes/bring-in/mesh/{job}/body", asked).json["url"].rsplit("/", 1)[1])
        found = live(demo, key=key)
        assert "sinks" in found["view"]["sentence"] and found["view"]["is_mesh"]
        assert (
            "its size can be changed"
            in live(demo, {"do": "point", "line": "top", "index": 2, "value_mm": 3.0}, key=key)["errors"][0][
                "message"
            ]
        )
        assert all(
            "mesh" in why for why in found["view"]["why_not"].values()
        )  # greyed out, and refused by whatever way they come
        for edit in (
            {"do": "set", "path": "body.upper_exponent", "text": "3"},
            {"do": "widest", "on": True},
            {"do": "turned", "on": True},
            {"do": "mirror", "how": "ends"},
        ):
            assert (
                live(demo, edit, key=key)["errors"]
                and live(demo, edit, key=key)["document"]["body"] == document(demo, key)["body"]
            )
        assert not any(live(demo)["view"]["why_not"].values())
        assert "Turned" in live(demo, {"do": "turned", "on": True})["view"]["why_not"]["lines"]
        assert solid(to_design(document(demo, key)).body).volume_ml == pytest.approx(
            EGG.volume / 1000, rel=2e-3
        )
        for url in (f"/tank/{key}", f"/shapes/{key}/pack", f"/tank/{key}/stability"):
            assert demo.get(url).status_code == 200
        again = opened(
            demo, demo.post("/shapes/bring-in", sent(demo.get(f"/shapes/{key}/body.json").data, "egg.json"))
        )
        assert document(demo, again) == document(demo, key)

    @pytest.mark.parametrize(
        ("data", "says"),
        [
            (trimesh.Trimesh(EGG.vertices, EGG.faces[2:]).export(file_type="stl"), "not watertight"),
            (b"hello there, no mesh", "no STL file"),
        ],
    )
    def test_a_bad_mesh_is_named_and_nothing_is_kept(self, demo, data, says):
        job, state = self.read(demo, data)
        assert says in state["problem"]
        assert demo.send(f"/shapes/bring-in/mesh/{job}/body", {"unit": "mm"}).status_code == 422

    def test_inside_out_is_put_right_and_said(self, demo):
        _, state = self.read(demo, trimesh.Trimesh(EGG.vertices, EGG.faces[:, ::-1]).export(file_type="stl"))
        assert "turned inside out" in state["notes"][0]

    def test_a_dropped_job_is_gone(self, demo):
        job, _ = self.read(demo, EGG.export(file_type="stl"))
        demo.send(f"/shapes/bring-in/mesh/{job}/drop", {})
        assert demo.get(f"/shapes/bring-in/mesh/{job}").status_code == 404


def a_cutout():
    picture = np.full((600, 900, 3), 235, dtype=np.uint8)
    y, x = np.mgrid[:600, :900]
    picture[((x - 450) / 300) ** 2 + ((y - 300) / 70) ** 2 < 1] = (60, 50, 40)
    kept = io.BytesIO()
    Image.fromarray(picture).save(kept, "PNG")
    return kept.getvalue()


class TestTrace:
    MARKS = {
        "by": "ruler",
        "ruler": [[150, 560], [750, 560]],
        "ruler_mm": "100 mm",
        "nose": [150, 300],
        "tail": [750, 300],
        "on": [450, 300],
        "flip": False,
    }

    def begun(self, shop, data=None, **fields):
        return shop.post(
            "/shapes/bring-in/photo", {"photo": (io.BytesIO(data or a_cutout()), "cutout.png"), **fields}
        ).headers["Location"]

    def test_from_photo_to_body(self, demo):
        page = self.begun(demo)
        found = demo.send(f"{page}/outline", self.MARKS).json
        assert (
            float(found["length"].split()[0]) == pytest.approx(100, abs=0.4)
            and 8 <= len(found["points"]) <= 80
            and not found["drawn"]
        )
        made = demo.post(
            f"{page}/body",
            {
                "marks": json.dumps(self.MARKS),
                "points": json.dumps(found["points"]),
                "name": "Cut-out",
                "material": "red cedar",
                "width": "",
            },
        )
        body = document(demo, int(made.json["url"].rsplit("/", 1)[1]))["body"]
        assert body["depth_mm"] == pytest.approx(140 / 6, abs=0.4) and body["width_mm"] == pytest.approx(
            0.8 * body["depth_mm"], abs=0.1
        )

    def test_the_marks_are_there_again_after_a_reload_and_it_is_offered_to_go_on(self, demo):
        page = self.begun(demo)
        demo.send(f"{page}/outline", self.MARKS)
        assert (
            '"ruler_mm": "100 mm"' in demo.get(page).text
            and "cutout.png" in demo.get("/shapes/bring-in").text
        )

    def test_a_picture_that_was_lost_is_said_so_and_the_rest_goes_on(self, demo):
        page, home = self.begun(demo), demo.http.application.config["HOME"]
        assert demo.get(f"{page}/picture.jpg").data[:2] == b"\xff\xd8"
        for path in (home / "pictures").glob("??/*"):
            path.unlink()
        assert "not in the shop" in demo.get(page).text and demo.get(f"{page}/picture.jpg").status_code == 422
        assert "restore a backup" in demo.send(f"{page}/outline", self.MARKS).json["error"]["message"]
        assert demo.get("/shapes/bring-in").status_code == 200

    @pytest.mark.parametrize(("number", "status"), [(errno.ENOSPC, 507), (errno.EROFS, 503)])
    def test_a_picture_that_cannot_be_written_says_why(self, demo, monkeypatch, number, status):
        def refuse(*_):
            raise OSError(number, os.strerror(number))

        monkeypatch.setattr("lamsik.store.pictures.put", refuse)
        answer = demo.post("/shapes/bring-in/photo", {"photo": (io.BytesIO(a_cutout()), "cutout.png")})
        assert answer.status_code == status and "Something went wrong" not in answer.text

    def test_a_second_photo_gives_the_top(self, demo):
        page = self.begun(demo, onto="15")
        points = demo.send(f"{page}/outline", self.MARKS).json["points"]
        demo.post(
            f"{page}/body", {"marks": json.dumps(self.MARKS), "points": json.dumps(points), "as": "top"}
        )
        after = document(demo, 15)["body"]
        assert after["length_mm"] == 90 and after["width_mm"] == pytest.approx(140 / 6, abs=0.4)

    @pytest.mark.parametrize(
        ("change", "says"),
        [
            ({"ruler_mm": "long"}, "Ruler: long; type a length"),
            ({"ruler_mm": ""}, "Ruler: type a length"),
            ({"ruler": [[0, 0]]}, "two points on a ruler"),
            ({"by": "sheet"}, "four corners"),
            ({"ruler": [[0, 0], [1, 1]]}, "further apart"),
            ({"ruler": [["a", 0], [1, 1]]}, "pair of numbers"),
            ({"on": [1]}, "pair of numbers"),
            ({"ruler_mm": "10 m"}, "3000 mm"),
            ({"ruler_mm": "2 mm"}, "is the scale right"),
        ],
    )
    def test_marks_that_give_no_scale_are_answered(self, demo, change, says):
        answer = demo.send(f"{self.begun(demo)}/outline", {**self.MARKS, **change})
        assert answer.status_code == 422 and says in answer.json["error"]["message"]

    @pytest.mark.parametrize(
        "points",
        [
            "",
            "[]",
            "[[1,2]]",
            '"x"',
            "[[1,2,3],[4]]",
            json.dumps([[1, 2]] * 500),
            json.dumps([[0, float("nan")]] * 9),
        ],
    )
    def test_points_that_are_no_outline_are_answered(self, demo, points):
        answer = demo.post(
            f"{self.begun(demo)}/body", {"marks": json.dumps(self.MARKS), "points": points, "name": "x"}
        )
        assert answer.status_code == 422

    @pytest.mark.parametrize(
        ("data", "says"),
        [
            (b"<svg/>", "no picture"),
            (photographed()[:500], "no picture"),
            (photographed(size=(30, 30)), "at least 60"),
        ],
    )
    def test_no_picture_is_answered_in_its_place(self, demo, data, says):
        answer = demo.post("/shapes/bring-in/photo", {"photo": (io.BytesIO(data), "x.jpg")})
        assert answer.status_code == 422 and says in answer.text and 'id="photo-problem"' in answer.text

    def test_a_photo_of_50_mb_is_refused_with_the_limit(self, demo):
        token = re.search(r'name="csrf-token" content="([^"]+)"', demo.get("/").text).group(1)
        head = (
            b'--b\r\nContent-Disposition: form-data; name="photo"; filename="x.jpg"\r\nContent-Type:'
            b" image/jpeg\r\n\r\n\xff\xd8"
        )
        with demo.http.post(
            "/shapes/bring-in/photo",
            data=head + b"x" * 50_000_000 + b"\r\n--b--\r\n",
            content_type="multipart/form-data; boundary=b",
            headers={"X-CSRFToken": token},
        ) as answer:
            assert answer.status_code == 422 and "at most 25 MB" in answer.text


class TestRooms:
    def test_revisions_are_named_and_compared_with_their_numbers(self, demo):
        page = f"/shapes/{shop.MUDLARK}/compare"
        assert (
            "Lip: 20.0 mm wide" in demo.get(f"{page}?a=2&b=3").text
            or "ip:" in demo.get(f"{page}?a=2&b=3").text
        )
        demo.post(
            f"/shapes/{shop.MUDLARK}/revisions/2/name", {"name": "  as sold in   June ", "a": "2", "b": "3"}
        )
        found = demo.get(f"{page}?a=2&b=4").text
        assert (
            "as sold in June" in found
            and found.count("<svg") >= 3
            and re.search(
                r"Mass in air</th>\s*<td>[\d.]+ g</td>\s*<td>[\d.]+ g</td>\s*<td>[+−][\d.]+ g", found
            )
        )

    def test_two_cuts_beside_each_other_and_the_other_taken(self, demo):
        page = f"/shapes/{shop.FERRY_RUNNER}/joints"
        assert "One piece: no joint yet" in demo.get(page).text
        assert "cuts go from nose to tail" in demo.get(f"{page}?x=200+mm").text
        demo.post(page, {"x": "50 mm", "slant": "10°", "kerf": "1 mm", "kind": "pin"})
        body = to_design(document(demo)).body
        assert (body.joints[0].x_mm, body.joints[0].kind) == (50, "pin") and sum(
            s.volume_ml for s in segments(body)
        ) + kerf_ml(body) == pytest.approx(10.52, abs=0.01)
        assert demo.get(page).text.count("Segments 1 and 2") == 2

    def test_a_family_with_one_left_out_and_one_made(self, demo):
        page = f"/shapes/{shop.FERRY_RUNNER}/family"
        demo.post(page, {"lengths": "70 mm, 3 1/2 in, 120", "materials": ["balsa", "red cedar"]})
        assert demo.get(page).text.count("Make a design") == 6
        demo.post(f"{page}/leave", {"member": "70|balsa"})
        assert "5 of 6" in demo.get(page).text
        key = opened(demo, demo.post(f"{page}/make", {"member": "120|red cedar"}))
        made = document(demo, key)
        assert made["body"]["length_mm"] == pytest.approx(120) and made["material"]["name"] == "red cedar"

    @pytest.mark.parametrize(
        ("lengths", "woods", "says"),
        [
            ("wide", ["balsa"], "type a length"),
            ("", ["balsa"], "1 to 8 lengths"),
            ("70 mm", [], "1 to 6 materials"),
            ("10 m", ["balsa"], "600 mm"),
        ],
    )
    def test_a_family_that_cannot_be(self, demo, lengths, woods, says):
        answer = demo.post(f"/shapes/{shop.FERRY_RUNNER}/family", {"lengths": lengths, "materials": woods})
        assert answer.status_code == 422 and says in answer.text

    def test_a_blade_is_bent_drilled_and_judged_as_it_is_typed(self, demo):
        page = demo.post("/shapes/blades/new").headers["Location"]

        def typed(path, text, **more):
            held = state(demo, page)
            edits = [{"do": "set", "path": path, "text": text, **more}]
            sent = {"document": held["document"], "base": held["base"], "edits": edits, "save": True}
            return demo.send(f"{page}/live", sent).get_json()

        was = state(demo, page)
        for path, text in (
            ("metal", "brass"),
            ("holes.front.diameter_mm", "1.2 mm"),
            ("holes.rear.edge_mm", "2 mm"),
            ("right_deg", "5°"),
        ):
            answer = typed(path, text)
        view = state(demo, page)["view"]
        assert [row["says"] for row in view["swings"]] == [
            "Front snap: restricted",
            "Rear snap: tears out",
        ] and all(row["bad"] for row in view["swings"])
        assert "runs to one side" in view["remarks"][0]["says"]
        assert view["sentence"].startswith("Front snap is restricted; rear snap tears out. ")
        assert view["sentence"].endswith(" g of brass.") and view["picture"] != was["view"]["picture"]
        bad = typed("cup_mm", "9.5 mm")
        assert "half the width" in bad["errors"][0]["message"] and bad["base"] == answer["base"]
        typed("source", "not_for_sale"), typed("source_note", "after a found one")
        flagged = state(demo, page)["view"]
        assert flagged["not_for_sale"] and "after a found one" in flagged["shape_from"]
        assert typed("width_mm", "1/2 in")["base"] > answer["base"]
        assert state(demo, page)["view"]["fields"]["width_mm"] == "1/2 in"
        assert typed("thickness_mm", "0.75 mm")["view"]["fields"]["thickness_mm"] == "0.75 mm"
        while state(demo, page)["base"] != was["base"]:
            demo.send(f"{page}/undo", {"base": state(demo, page)["base"]})
        assert state(demo, page)["document"] == was["document"]
        assert (
            demo.get(f"{page}/template.pdf").data[:4] == b"%PDF"
            and b"BENDS" in demo.get(f"{page}/flat.dxf").data
        )


class TestPack:
    def bars(self, page):
        """Widths [mm] of the filled bars at the foot of a PDF page."""
        found = []
        for shape in page.get_objects(filter=(pypdfium2.raw.FPDF_PAGEOBJ_PATH,), max_depth=4):
            left, bottom, right, top = shape.get_bounds()
            if 1.5 < (top - bottom) / 72 * 25.4 < 2.5 and bottom / 72 * 25.4 < 40:
                found.append((right - left) / 72 * 25.4)
        return sorted(found)

    @pytest.mark.parametrize("paper", ["A4", "Letter", "A3"])
    def test_the_check_bars_are_true_in_the_pdf(self, demo, paper):
        made = pypdfium2.PdfDocument(demo.get(f"/shapes/{BAIT}/pack.pdf?paper={paper}").data)
        wide = {"A4": 210, "Letter": 215.9, "A3": 297}[paper]
        assert made[0].get_size()[0] / 72 * 25.4 == pytest.approx(wide, abs=0.2)
        bars = self.bars(made[0])
        assert bars == pytest.approx([50.0, 50.8], abs=0.2)

    def test_what_is_longer_than_the_paper_goes_over_several_sheets_with_register_marks(self, demo):
        live(demo, {"do": "resize", "by": "length", "text": "400 mm"}, save=True, base=2)
        page = demo.get(f"/shapes/{BAIT}/pack").text
        assert "part 1 of 2: lay the crosses over each other" in page and page.count('class="register"') >= 4
        assert (
            len(pypdfium2.PdfDocument(demo.get(f"/shapes/{BAIT}/pack.pdf").data))
            == page.count(" as SVG</a>")
            > 1
        )

    def test_it_holds_what_saw_and_drill_need(self, demo):
        page = demo.get(f"/shapes/{BAIT}/pack?stations=20+mm+1%2F2+in,+50+%25").text
        for says in (
            "Side template",
            "Top template",
            "Section 20.0 mm",
            "Section 12.7 mm",
            "Section 45.0 mm",
            "Drill map",
            "pilot hole, smaller than the screw",
            "Slot angle",
            "90° to the axis",
            "Grain along",
        ):
            assert says in page, says
        assert (
            re.search(r"drill [\d.]+ mm, [\d.]+ mm deep", page)
            and "go to waste" in page.replace("goes", "go")
            and "1.5 mm kerf" in page
        )

    @pytest.mark.parametrize(
        ("query", "says"),
        [
            ("paper=A9", "A4, Letter, A3"),
            ("stations=soon", "type a length"),
            ("stations=", "1 to 12"),
            ("kerf=-3", "0 to 20"),
            ("stick_width=NaN", "stick_width"),
        ],
    )
    def test_bad_wishes_are_answered_beside_the_standard_pack(self, demo, query, says):
        answer = demo.get(f"/shapes/{BAIT}/pack?{query}")
        assert answer.status_code == 422 and says in answer.text and "Side template" in answer.text

    def test_meshes_of_the_whole_and_of_each_segment(self, demo):
        live(demo, {"do": "joint"}, save=True, base=2)
        body = to_design(document(demo)).body
        volumes = [
            trimesh.load(io.BytesIO(demo.get(f"/shapes/{BAIT}/{name}.stl").data), file_type="stl").volume
            for name in ("body", "segment-1", "segment-2")
        ]
        assert volumes[1] + volumes[2] + 1000 * kerf_ml(body) == pytest.approx(volumes[0], rel=2e-3)
        assert demo.get(f"/shapes/{BAIT}/segment-3.stl").status_code == 404
        assert "triangles; its volume is 0.0" in demo.get(f"/shapes/{BAIT}/pack").text


class TestStores:
    def test_a_scale_is_checked_with_a_mass(self, demo):
        assert demo.post("/stores/scale/1/check", {"mass": "200 g", "spread": "0.05 g"}).status_code == 302
        assert "with 200 g" in demo.get("/stores").text and "± 0.1 g" in demo.get("/stores").text
        assert demo.post("/stores/scale/1/check", {"mass": "9 kg"}).status_code == 422

    def test_clearances_are_kept_and_used_by_the_drill_map(self, demo):
        page = demo.get("/stores").text
        fields = {
            name.replace("&#124;", "|"): value
            for name, value in re.findall(
                r'<input class="[^"]*" name="([a-z]+\|[a-z ]+)"[^>]*value="([^"]*)"', page
            )
        }
        assert len(fields) == 30
        assert "drill 0.7 mm" in demo.get(f"/shapes/{BAIT}/pack").text
        sizes = f"/floats/{shop.BREAM_WAGGLER}/sizes?loads=3+g"
        before = re.findall(r"[\d.]+ mm", demo.get(sizes).text)
        wider = {"screw|soft wood": "0.1 mm", "stem|soft wood": "1.2 mm", "stem|hard wood": "1.2 mm"}
        demo.post("/stores/clearances", {**fields, **wider})
        assert before != re.findall(r"[\d.]+ mm", demo.get(sizes).text)
        assert (
            "drill 1 mm" in demo.get(f"/shapes/{BAIT}/pack").text
            and "clearance hole, glue it in" in demo.get(f"/shapes/{BAIT}/pack").text
        )
        bad = demo.post("/stores/clearances", {**fields, "screw|foam": "9 mm"})
        assert (
            bad.status_code == 422
            and "−3 to 3 mm" in bad.text.replace("-3", "−3")
            and 'value="9 mm"' in bad.text
        )

    def test_parts_weighed_by_the_ten(self, demo):
        key = re.search(r"/stores/weigh/(\d+)|/stores/hardware/(\d+)/weigh", demo.get("/stores").text)
        url = key.group(0)
        demo.post(url, {"count": "10", "mass": "1.4 g"})
        assert "0.14 g" in demo.get("/stores").text and "weighed, 10" in demo.get("/stores").text
        assert demo.post(url, {"count": "0", "mass": "1 g"}).status_code == 422

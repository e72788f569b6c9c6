"""Float documents and their edits, weighed things as CSV: round trips, refusals that name the field,
nothing half changed.
"""

import csv
import io
import json
from dataclasses import replace

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from lamsik.core.errors import Refused
from lamsik.core.floats.design import KINDS
from lamsik.core.floats.shotting import pull_to
from lamsik.core.paints.layers import begun
from lamsik.core.paints.other_skins import laid_on_other, skin_of_float
from lamsik.core.paints.place import Along, Place
from lamsik.core.water import Water
from lamsik.documents import engine
from lamsik.documents.floats.document import blank, layers_of, tips, to_float, with_float
from lamsik.documents.floats.edits import FLOAT, Shop
from lamsik.formats import weighed_csv
from tests.kinds import float_edit as apply
from tests.kinds import float_file as loads
from tests.kinds import float_text as dumps
from tests.refusing import refusing

FRESH, SEA = Water("fresh water", 14.0), Water("sea water", 10.0, 35.0)
WATERS = {"fresh water": FRESH, "sea water": SEA}


def antenna():
    return blank("Antenna", "antenna", FRESH)


def edited(*edits, document=None):
    found = document or antenna()
    for edit in edits:
        found = apply(found, edit, WATERS)
    return found


@pytest.mark.parametrize("kind", KINDS)
def test_every_kind_round_trips_and_carries_something(kind):
    found = blank("Float", kind, FRESH)
    assert loads(dumps(found).encode()) == found and with_float(found, to_float(found)) == found
    assert pull_to(to_float(found)) > 0.5 and found["family"] == kind


class TestEdits:
    def test_a_longer_body_carries_what_stands_on_it_and_its_marks(self):
        after = to_float(edited({"do": "set", "path": "parts.body.length_mm", "text": "55 mm"}))
        assert (
            after.part("antenna").foot_mm == pytest.approx(115)
            and after.part("stem").length_mm == pytest.approx(115)
            and after.mark("ring").height_mm == pytest.approx(170)
        )

    def test_a_pulled_point_makes_the_profile_the_makers_own(self):
        found = edited({"do": "point", "line": "body", "index": 3, "x_mm": 8.0, "value_mm": 90.0})
        body = to_float(found).part("body")
        assert (
            body.form == "own"
            and body.diameter_mm == pytest.approx(16)
            and body.points[3][1] == pytest.approx(1.0)
        )
        more = edited({"do": "add_point", "line": "body"}, document=found)
        assert len(to_float(more).part("body").points) == len(body.points) + 1
        assert len(
            to_float(edited({"do": "drop_point", "line": "body", "index": 2}, document=more))
            .part("body")
            .points
        ) == len(body.points)

    def test_sizing_reaches_the_load(self):
        assert pull_to(to_float(edited({"do": "size", "text": "3.2 g", "by": "length"}))) == pytest.approx(
            3.2, abs=3e-3
        )

    def test_a_scheme_paints_it_by_what_its_bands_and_its_tip_weigh(self):
        tip = replace(begun("base", "tip"), place=Place(ends=Along(more_mm=40.0)))
        layers = (tip, begun("band", "b"), begun("eyes", "e"), begun("clear", "c"))
        stock = Shop(WATERS, schemes={"S-1": layers, "S-2": (tip,)}, versions={"S-1": 3})
        typed = edited({"do": "set", "path": "paint_g", "text": "3 g"})
        painted = engine.apply(FLOAT, typed, {"do": "scheme", "code": "S-1"}, stock)
        on = {layer.key: one.mass_g for layer, one in laid_on_other(layers, skin_of_float(to_float(typed)))}
        assert painted["paint_g"] == pytest.approx(on["tip"] + on["b"], abs=1e-4)
        assert painted["varnish_g"] == pytest.approx(on["c"], abs=1e-4) and "paint_g" not in painted["typed"]
        bare = engine.apply(FLOAT, painted, {"do": "scheme", "code": "S-2"}, stock)
        assert bare["varnish_g"] == 0.0 and 0 < bare["paint_g"] < painted["paint_g"]
        assert (painted["scheme"], painted["scheme_version"]) == ("S-1", 3) and layers_of(painted) == layers
        by_hand = engine.apply(FLOAT, painted, {"do": "scheme", "code": "-"}, stock)
        assert (by_hand["scheme"], by_hand["layers"]) == ("", []) and by_hand["paint_g"] == painted["paint_g"]

    def test_parts_marks_tips_materials_water_and_weighed_masses(self):
        found = edited(
            {"do": "add", "group": "parts", "kind": "loading"},
            {"do": "add", "group": "marks"},
            {"do": "add", "group": "tips", "kind": "tip"},
            {"do": "material", "key": "body", "name": "paulownia"},
            {"do": "water", "name": "sea water"},
            {"do": "set", "path": "parts.stem.mass_g", "text": "0.4 g"},
            {"do": "flag", "path": "parts.loading1.inside", "on": True},
            {"do": "set", "path": "wanted_mark", "text": "shoulder"},
            {"do": "remove", "group": "parts", "key": "antenna"},
        )
        design = to_float(found)
        assert (
            design.water == SEA
            and design.part("stem").mass_g == 0.4
            and design.part("loading1").inside
            and design.part("body").density_g_cm3 == pytest.approx(0.285)
        )
        assert (
            len(tips(found)) == 4
            and len(design.marks) == 3
            and all(part.kind != "antenna" for part in design.parts)
        )

    REFUSED = [
        ({"do": "fly"}, "do"),
        ({"do": "set", "path": "parts.body.length_mm", "text": "wide"}, "parts.body.length_mm"),
        ({"do": "set", "path": "parts.keel.length_mm", "text": "3 mm"}, "parts.keel.length_mm"),
        ({"do": "set", "path": "parts.body.length_mm", "text": "10 m"}, "body.length_mm"),
        ({"do": "set", "path": "water.temperature_c", "text": "12"}, "water.temperature_c"),
        ({"do": "set", "path": "parts.body.form", "text": "square"}, "body.form"),
        ({"do": "set", "path": "name", "text": " "}, "name"),
        ({"do": "set", "path": "marks.m1.height_mm", "text": "900 mm"}, "mark shoulder"),
        ({"do": "point", "line": "body", "index": 99}, "index"),
        ({"do": "point", "line": "keel", "index": 1}, "parts"),
        ({"do": "drop_point", "line": "body", "index": 0}, "index"),
        ({"do": "add", "kind": "sail"}, "kind"),
        ({"do": "remove", "group": "parts", "key": "x"}, "parts"),
        ({"do": "material", "key": "body", "name": "cheese"}, "material"),
        ({"do": "flag", "path": "name", "on": True}, "path"),
        ({"do": "water", "name": "lava"}, "water"),
        ({"do": "size", "text": "900 g"}, "load"),
        ({"do": "size", "text": "3"}, "none"),
        ({"do": "add_point", "line": "x"}, "parts"),
        ({"do": "scheme", "code": "S-9"}, "scheme"),
    ]

    @pytest.mark.parametrize(("edit", "field"), [row for row in REFUSED if row[1] != "none"])
    def test_what_cannot_be_is_refused_by_field_and_changes_nothing(self, edit, field):
        document = antenna()
        before = json.dumps(document)
        with pytest.raises(Refused) as refusal:
            apply(document, edit, WATERS)
        assert refusal.value.field.endswith(field) and json.dumps(document) == before

    def test_every_edit_is_tried_above(self):
        assert {edit["do"] for edit, _ in self.REFUSED} >= set(FLOAT.edits)

    @settings(max_examples=60)
    @given(
        st.text(max_size=24),
        st.sampled_from(
            ["parts.body.length_mm", "parts.stem.diameter_mm", "varnish_g", "marks.m1.height_mm"]
        ),
    )
    def test_any_text_gives_a_sound_float_or_a_refusal(self, text, path):
        try:
            json.dumps(apply(antenna(), {"do": "set", "path": path, "text": text}, WATERS), allow_nan=False)
        except Refused as refusal:
            assert refusal.allowed


@pytest.mark.parametrize("data", [b"", b"[]", b"{" * 5000, b"x" * 300_000, b'{"format": "lamsik-body"}'])
def test_bytes_that_are_no_float_are_refused(data):
    with pytest.raises(Refused):
        loads(data)


class TestCsv:
    ROWS = [
        {
            "name": "Spoon, 18 g",
            "kind": "bait",
            "air": 18.43,
            "water": 15.98,
            "temperature": 12.0,
            "salinity": 0.0,
            "note": "bought",
        },
        {"name": "=cmd()", "kind": "other", "air": 2.0},
    ]

    def test_out_and_in_again(self):
        text = weighed_csv.write(self.ROWS)
        assert "air [g]" in text.splitlines()[0] and "'=cmd()" in text
        rows, missing = weighed_csv.read(text.encode(), {})
        assert (
            missing == []
            and rows[0]["air"] == 18.43
            and rows[0]["temperature"] == 12.0
            and rows[0]["name"] == "Spoon, 18 g"
            and rows[1]["name"] == "=cmd()"
        )

    @pytest.mark.parametrize(
        "name", ["=1+1", "-2+3", "+4", "@sum", "\tTab", "\rReturn", "'quoted", "'=1", "’tis plain", "-"]
    )
    def test_no_cell_is_a_formula_and_every_text_comes_back_as_it_was(self, name):
        text = weighed_csv.write([{"name": f"x{name}", "note": name, "air": -1.5}])
        cell = list(csv.reader(io.StringIO(text)))[1][list(weighed_csv.COLUMNS).index("note")]
        assert not cell.startswith((*weighed_csv.FORMULA, "\t", "\r"))
        rows, _ = weighed_csv.read(text.encode(), {})
        assert rows[0]["note"] == name.strip() and rows[0]["air"] == -1.5

    def test_marks_come_back_and_water_without_a_warmth_is_asked_for(self):
        text = weighed_csv.write(
            [
                {
                    "name": "Float",
                    "marks": weighed_csv.marks_text([["ring, red", 23.0], ["tip", 21.25]]),
                    "temperature": 14.0,
                }
            ]
        )
        assert weighed_csv.read(text.encode(), {})[0][0]["marks"] == [("ring, red", 23.0), ("tip", 21.25)]
        with refusing("line 2, temperature.*how warm"):
            weighed_csv.read(b"name,air [g],water [g]\nA,5,3\n", {})

    def test_a_column_without_a_unit_is_asked_for(self):
        data = "Name;air;temperature [°F]\nA;1/2;54\n".encode()
        rows, missing = weighed_csv.read(data, {})
        assert rows == [] and [head.name for head in missing] == ["air"]
        rows, missing = weighed_csv.read(data, {"air": "oz"})
        assert (
            missing == []
            and rows[0]["air"] == pytest.approx(14.1747, rel=1e-4)
            and rows[0]["temperature"] == pytest.approx(12.22, abs=0.01)
        )


def test_a_mark_keeps_its_key_when_another_goes_and_one_comes():
    document = blank("F", "stick", Water())
    for edit in (
        {"do": "add", "group": "marks"},
        {"do": "remove", "group": "marks", "key": "m1"},
        {"do": "add", "group": "marks"},
    ):
        document = apply(document, edit, {})
    before = {row["key"]: (row["name"], row["height_mm"]) for row in document["marks"]}
    keys = {mark.name: mark.key for mark in to_float(document).marks}
    assert keys == {name: key for key, (name, _) in before.items()} and len(set(keys.values())) == 3
    key = keys["tip"]
    moved = apply(document, {"do": "set", "path": f"marks.{key}.height_mm", "text": "140 mm"}, {})
    changed = [row["name"] for row in moved["marks"] if (row["name"], row["height_mm"]) != before[row["key"]]]
    assert changed == ["tip"]
    sized = apply(moved, {"do": "size", "text": "3 g", "by": "diameter"}, {})
    assert {row["key"]: row["name"] for row in sized["marks"]} == {
        row["key"]: row["name"] for row in moved["marks"]
    }


def test_a_float_says_whose_shape_it_is():
    document = apply(
        blank("F", "stick", Water()), {"do": "set", "path": "source.kind", "text": "not_for_sale"}, {}
    )
    assert document["source"] == {"kind": "not_for_sale", "note": ""}
    with refusing("own, licensed, described, not_for_sale"):
        apply(document, {"do": "set", "path": "source.kind", "text": "borrowed"}, {})

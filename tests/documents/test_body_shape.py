"""Edits of the shape: points, mirroring, scaling, joints and segments, hollow and turned bodies."""

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from lamsik.core.errors import Refused, rule
from lamsik.core.shapes.body import side_outline
from lamsik.core.shapes.curves import phi_of_share
from lamsik.core.shapes.solid import segments, solid
from lamsik.documents.body.document import to_design
from lamsik.documents.body.shape import BODY_SCHEMA
from tests.documents.test_body import SHOP, full
from tests.kinds import body_edit as apply
from tests.refusing import refusing


def edited(*edits, document=None):
    found = document or full()
    for edit in edits:
        found = apply(found, edit, SHOP)
    return found


def body(*edits, document=None):
    return to_design(edited(*edits, document=document)).body


class TestPoints:
    def test_a_point_pulled_up_makes_it_deeper_there_and_the_depth_follows(self):
        before = full()["body"]
        share, value = before["top_shares"][4]
        after = edited({"do": "point", "line": "top", "index": 4, "value_mm": 14.0})
        assert after["body"]["depth_mm"] > before["depth_mm"] and "body.depth_mm" not in after["typed"]
        assert to_design(after).body.top.at(phi_of_share(np.array([share])))[0] == pytest.approx(14.0)
        assert after["body"]["bottom_shares"][3][1] * after["body"]["depth_mm"] == pytest.approx(
            before["bottom_shares"][3][1] * before["depth_mm"]
        )

    def test_a_typed_point_is_read_in_its_unit(self):
        after = edited(
            {"do": "point", "line": "half_width", "index": 4, "x_text": "7/8 in", "value_text": "3/8 in"}
        )["body"]
        assert [
            after["half_width_shares"][4][0] * after["length_mm"],
            after["half_width_shares"][4][1] * after["width_mm"],
        ] == pytest.approx([22.225, 9.525])

    def test_points_do_not_pass_their_neighbours_and_ends_stay_at_the_ends(self):
        after = edited(
            {"do": "point", "line": "top", "index": 4, "x_mm": 500.0},
            {"do": "point", "line": "top", "index": 0, "x_mm": 40.0, "value_mm": 1.5},
        )["body"]
        assert after["top_shares"][4][0] < after["top_shares"][5][0] and after["top_shares"][0][0] == 0.0
        BODY_SCHEMA.checked({**full(), "body": after})

    @settings(max_examples=40)
    @given(st.sampled_from(["top", "bottom", "half_width"]), st.floats(2.0, 88.0))
    def test_a_point_put_in_leaves_the_line_where_it_was(self, line, x):
        before = body()
        try:
            after = body({"do": "add_point", "line": line, "x_mm": x})
        except Refused as refusal:
            assert refusal.allowed == rule("point-there")
            return
        at = phi_of_share(np.array([x / before.length_mm]))
        assert getattr(after, line).at(at) == pytest.approx(getattr(before, line).at(at), abs=1e-6)
        assert len(getattr(after, line).shares) == len(getattr(before, line).shares) + 1
        assert solid(after).volume_ml == pytest.approx(solid(before).volume_ml, rel=0.02)

    def test_put_in_and_taken_off_again(self):
        before = full()
        after = edited({"do": "add_point", "line": "top", "x_mm": 50.0})
        at = next(i for i, p in enumerate(after["body"]["top_shares"]) if abs(p[0] * 90 - 50.0) < 1e-6)
        back = edited({"do": "drop_point", "line": "top", "index": at}, document=after)["body"]["top_shares"]
        assert np.array(back) == pytest.approx(np.array(before["body"]["top_shares"]), abs=2e-3)

    def test_the_widest_line_gets_points_of_its_own_that_change_the_section(self):
        flat = edited({"do": "widest", "on": True})
        assert solid(to_design(flat).body).centroid_mm == pytest.approx(solid(body()).centroid_mm, abs=0.05)
        low = body(
            {"do": "point", "line": "widest", "index": 2, "value_mm": -6.0},
            {"do": "point", "line": "widest", "index": 3, "value_mm": -6.0},
            document=flat,
        )
        assert solid(low).centroid_mm[2] < solid(body()).centroid_mm[2] - 0.3
        assert body({"do": "widest", "on": False}, document=flat).widest is None

    @pytest.mark.parametrize(
        ("reach_share", "exponent"), [(0.5, 1.0), (2**-0.5, 2.0), (2**-0.25, 4.0), (0.999, 12.0), (0.1, 1.0)]
    )
    def test_the_sections_diagonal_sets_the_exponent(self, reach_share, exponent):
        half = float(body().half_width.at(phi_of_share(np.array([0.4])))[0])
        after = edited({"do": "exponent", "half": "upper", "x_mm": 36.0, "reach_mm": reach_share * half})
        assert (
            after["body"]["upper_exponent"] == pytest.approx(exponent, abs=0.02)
            and after["body"]["lower_exponent"] == full()["body"]["lower_exponent"]
        )


class TestWhole:
    def test_mirrored_bodies(self):
        alike = body({"do": "mirror", "how": "belly"})
        phi = np.linspace(0, np.pi, 21)
        assert alike.bottom.at(phi) == pytest.approx(-alike.top.at(phi))
        turned = body({"do": "mirror", "how": "ends"})
        assert turned.top.at(phi) == pytest.approx(body().top.at(np.pi - phi)) and solid(
            turned
        ).volume_mm3 == pytest.approx(solid(body()).volume_mm3)
        assert side_outline(
            body({"do": "mirror", "how": "ends"}, {"do": "mirror", "how": "ends"})
        ) == pytest.approx(side_outline(body()))

    @pytest.mark.parametrize(
        ("by", "text", "factor"),
        [
            ("length", "135 mm", 1.5),
            ("length", "4 1/2 in", 1.27),
            ("factor", "0.8", 0.8),
            ("volume", None, 2 ** (1 / 3)),
        ],
    )
    def test_scaled_by_length_factor_or_volume(self, by, text, factor):
        before = to_design(full())
        text = text or f"{2 * solid(before.body).volume_ml:.4f} ml"
        after = to_design(edited({"do": "resize", "by": by, "text": text}))
        assert solid(after.body).volume_ml == pytest.approx(
            factor**3 * solid(before.body).volume_ml, rel=1e-4
        )
        assert [p.x_mm for p in after.hardware if p.seat == "belly"] == pytest.approx(
            [factor * p.x_mm for p in before.hardware if p.seat == "belly"], rel=1e-4
        )
        assert [p.item for p in after.hardware] == [
            p.item for p in before.hardware
        ] and after.lip.width_mm == before.lip.width_mm

    def test_a_turned_body_is_round_and_is_drawn_by_one_line(self):
        found = edited({"do": "turned", "on": True})
        made = to_design(found).body
        phi = np.linspace(0, np.pi, 33)
        assert made.top.at(phi) == pytest.approx(made.half_width.at(phi)) and made.depth_mm == pytest.approx(
            made.width_mm
        )
        x = made.length_mm * (1 - np.cos(np.linspace(0, np.pi, 2001))) / 2
        radius = made.half_width.at(np.linspace(0, np.pi, 2001))
        assert solid(made).volume_mm3 == pytest.approx(np.trapezoid(np.pi * radius**2, x), rel=1e-4)
        with refusing("a turned body has one line"):
            edited({"do": "point", "line": "top", "index": 2, "value_mm": 3.0}, document=found)
        free = body({"do": "turned", "on": False}, document=found)
        assert solid(free).volume_mm3 == pytest.approx(solid(made).volume_mm3, rel=1e-6)

    def test_a_shell_keeps_its_wall_when_its_filling_is_changed(self):
        found = edited(
            {"do": "hollow", "on": True},
            {"do": "set", "path": "shell.wall_mm", "text": "1.5 mm"},
            {"do": "hollow", "on": True, "fill": "rigid foam"},
        )
        assert found["shell"] == {"wall_mm": 1.5, "fill_g_cm3": 0.25, "fill": "rigid foam", "around_mm": 2.0}
        assert edited({"do": "hollow", "on": False}, document=found)["shell"] is None


class TestJoints:
    def test_a_joint_goes_into_the_longest_segment_and_segments_take_a_material(self):
        found = edited(
            {"do": "joint"},
            {"do": "joint", "kind": "pin"},
            {"do": "segment_material", "key": "s3", "name": "balsa"},
        )
        places = [row["x_mm"] for row in found["joints"]]
        assert places == sorted(places) and len(segments(to_design(found).body)) == 3
        assert {row["key"]: row["material"]["name"] for row in found["segments"]} == {"s3": "balsa"}
        assert edited({"do": "segment_material", "key": "s3", "name": ""}, document=found)["segments"] == []

    def test_taking_a_joint_away_takes_the_materials_of_what_is_gone(self):
        found = edited({"do": "joint"}, {"do": "segment_material", "key": "s2", "name": "balsa"})
        assert edited({"do": "remove", "group": "joints", "key": "j1"}, document=found)["segments"] == []

    def test_another_form_starts_in_one_piece(self):
        found = edited({"do": "joint"}, {"do": "hollow", "on": True}, {"do": "form", "form": "stubby"})
        assert found["joints"] == [] and found["shell"] is None

"""The mass budget, and weighings in the place of assumptions."""

from dataclasses import replace

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from lamsik.core.paints.laid import laid
from lamsik.core.paints.layers import Layer
from lamsik.core.paints.paint import Paint
from lamsik.core.paints.place import Anchors, Place
from lamsik.core.shapes.design import Host
from lamsik.core.shapes.hardware import eye_of, lip_point
from lamsik.core.shapes.solid import solid
from lamsik.core.tank.mass import Measured, budget, unweighed
from lamsik.core.tank.parts import ASSUMED, LABEL, SHARED, STAGES, WEIGHED
from tests.bodies import bait, ellipsoid, homogeneous


def part(mass, key):
    return next(p for p in mass.parts if p.key == key)


def test_a_bare_body_is_density_times_volume_at_its_centroid():
    body = ellipsoid(90, 14, 20)
    mass = budget(homogeneous(body, 0.42))
    assert mass.mass_g == pytest.approx(0.42 * solid(body).volume_ml)
    assert mass.g_mm == pytest.approx((45, 0, 0), abs=1e-6)
    assert mass.displaced_ml == pytest.approx(solid(body).volume_ml)


def test_the_sums_are_the_parts():
    mass = budget(bait())
    assert mass.mass_g == pytest.approx(sum(p.mass_g for p in mass.parts))
    assert mass.g_mm[0] == pytest.approx(sum(p.mass_g * p.at_mm[0] for p in mass.parts) / mass.mass_g)
    assert mass.up_to("rigged") == pytest.approx(mass.mass_g)
    assert mass.up_to("carved") == pytest.approx(part(mass, "host").mass_g)


def test_a_hole_removes_wood_its_filler_adds_and_the_slug_displaces_nothing():
    with_slug, without = budget(bait()), budget(bait(ballast=()))
    hole = bait().ballast[0]
    assert with_slug.mass_g - without.mass_g == pytest.approx(
        hole.mass_g + hole.filler_g - 0.42 * hole.hole_ml, abs=0.005
    )
    assert with_slug.displaced_ml == pytest.approx(without.displaced_ml)


def test_outside_parts_displace_by_their_own_density():
    mass = budget(bait())
    assert part(mass, "k1").outside_ml == pytest.approx(0.48 / 7.85)
    assert part(mass, "h1").outside_ml == pytest.approx(0.11 * 0.4 / 7.85)
    lip = bait().lip
    # 22 mm of plate, 6 in the slot; wider than the nose, so that some of it stands out beside the slot
    assert lip.whole_g / 1.2 * 16 / 22 < part(mass, "lip").outside_ml < lip.whole_g / 1.2
    assert part(mass, "lip").outside_ml + part(mass, "cut:lip").cut_ml == pytest.approx(lip.whole_g / 1.2)


def test_hooks_act_at_the_eye_they_hang_from():
    design = bait()
    assert eye_of(design.hardware, design.body, design.hardware[5]) == eye_of(
        design.hardware, design.body, design.hardware[1]
    )


def test_a_lip_at_a_small_angle_lies_along_the_axis():
    flat, steep = bait().lip, replace(bait().lip, angle_deg=80)
    body = bait().body
    assert lip_point(body, flat, 16)[0] < lip_point(body, steep, 16)[0]
    assert lip_point(body, flat, 16)[2] > lip_point(body, steep, 16)[2]


def test_a_layer_weighs_film_times_passes_times_area_times_density():
    body = bait().body
    whole = solid(body).area_mm2
    clear = Layer("c", "clear", "Clear", Paint(density_g_cm3=1.12), film_um=40, passes=3)
    half = replace(clear, place=Place(cover_percent=50.0))
    on = laid(half, body, Anchors())
    assert (on.area_mm2, on.film_ml, on.mass_g) == pytest.approx(
        (whole / 2, whole / 2 * 0.12e-3, whole / 2 * 0.12e-3 * 1.12), rel=1e-6
    )
    one_side = laid(replace(half, place=Place(cover_percent=50.0, side="left")), body, Anchors())
    assert one_side.mass_g == pytest.approx(on.mass_g / 2)
    eyes = laid(Layer("e", "eyes", "Eyes", Paint(density_g_cm3=1.2), mass_g=0.06), body, Anchors())
    assert (eyes.mass_g, eyes.film_ml) == pytest.approx((0.06, 0.05))


def test_a_weighed_blank_gives_the_woods_density():
    planned = budget(bait())
    mass = budget(bait(), Measured((("carved", 5.8, 0.03),)))
    assert part(mass, "host").mass_g == pytest.approx(5.8, abs=0.02)
    assert mass.host_density_g_cm3 == pytest.approx(5.8 / solid(bait().body).volume_ml, rel=0.01)
    assert part(mass, "cut:b1").mass_g / part(planned, "cut:b1").mass_g == pytest.approx(
        mass.host_density_g_cm3 / 0.42
    )
    assert part(mass, "host").status == WEIGHED
    assert mass.sd_g < planned.sd_g


def test_a_stage_corrects_only_what_came_since_the_last():
    one = budget(bait(), Measured((("carved", 4.9, 0.003),)))
    two = budget(bait(), Measured((("carved", 4.9, 0.003), ("sealed", 5.2, 0.003))))
    assert part(two, "host").mass_g == pytest.approx(part(one, "host").mass_g)
    assert part(two, "coat:seal1").mass_g == pytest.approx(0.3, abs=0.01)
    assert part(two, "coat:seal1").film_ml == pytest.approx(0.3 / 1.25, abs=0.01)
    assert part(two, "coat:seal1").status == WEIGHED


def test_parts_weighed_together_share_by_their_uncertainty():
    planned = budget(bait())
    mass = budget(
        bait(),
        Measured(
            (
                ("carved", planned.up_to("carved"), 0.003),
                ("ballasted", planned.up_to("ballasted") + 0.2, 0.003),
            )
        ),
    )
    assert mass.up_to("ballasted") == pytest.approx(planned.up_to("ballasted") + 0.2, abs=0.01)
    grew = {p.key: p.mass_g - part(planned, p.key).mass_g for p in mass.parts}
    assert grew["glue"] > grew["h1"] > 0
    assert part(mass, "glue").status == SHARED
    assert part(mass, "k1").status == LABEL and part(mass, "coat:clear1").status == ASSUMED


@settings(max_examples=30)
@given(st.lists(st.sampled_from(STAGES), unique=True, min_size=1), st.floats(0.9, 1.15))
def test_whatever_is_weighed_the_last_weighing_is_met(stages, factor):
    planned = budget(bait())
    readings = tuple((s, planned.up_to(s) * factor, 0.001) for s in stages)
    mass = budget(bait(), Measured(readings))
    last = max(stages, key=STAGES.index)
    assert mass.up_to(last) == pytest.approx(planned.up_to(last) * factor, abs=0.02)
    assert all(p.mass_g >= 0 for p in mass.parts if not p.key.startswith("cut:"))


def test_a_part_weighed_alone_is_taken_as_read():
    mass = budget(bait(), Measured(parts=(("k1", 0.61, 0.003),)))
    assert part(mass, "k1").mass_g == 0.61 and part(mass, "k1").status == WEIGHED
    assert part(mass, "k1").outside_ml == pytest.approx(0.61 / 7.85)
    weighed_stick = budget(bait(), Measured(parts=(("host", 6.0, 0.01),)))
    assert part(weighed_stick, "host").mass_g == pytest.approx(6.0)


def test_a_scale_that_contradicts_itself_is_doubted():
    mass = budget(bait(), Measured((("carved", 4.6, 0.03), ("sealed", 4.1, 0.03))))
    assert any("less than what was on it" in doubt for doubt in mass.doubts)
    exact = bait(
        hardware=(),
        lip=None,
        ballast=(),
        layers=(),
        glue_g=0,
        host=Host("basswood", 0.42, 0.0, source="weighed"),
    )
    assert any("weigh again" in doubt for doubt in budget(exact, Measured((("carved", 9.0, 0.01),))).doubts)


def test_the_unweighed_list_begins_with_the_least_certain():
    mass = budget(bait())
    rows = unweighed(mass.parts)
    assert rows[0].key == "host"
    assert [r.sd_g for r in rows] == sorted((r.sd_g for r in rows), reverse=True)
    assert not any(r.key.startswith("cut:") for r in rows)
    after = unweighed(budget(bait(), Measured((("carved", 4.9, 0.03),))).parts)
    assert "host" not in {r.key for r in after} and len(after) == len(rows) - 1

"""The line against its closed forms, the towed bait, and a factor recovered from made-up runs."""

from dataclasses import replace

import numpy as np
import pytest

from lamsik.core.tank.line import Line, Shape, depths_m, hang
from lamsik.core.tank.mass import budget
from lamsik.core.tank.running import (
    DivingFit,
    Run,
    Tow,
    assumed_fit,
    changes,
    depth,
    depth_curve,
    fitted,
    munk_factor,
    plate_coefficient,
    trim,
)
from lamsik.words.tell import tell
from tests.bodies import bait

ALONG = np.linspace(0, 40, 81)


def test_without_weight_and_friction_the_line_follows_the_asinh():
    line = Line(0.3, 1.0, 1.2, 0.0)
    tension, angle, rho = 0.6, np.radians(50), 1.0
    shape = hang(line, 1.4, rho, tension, angle, ALONG)
    ratio = 0.5 * 1000 * rho * 1.2 * 0.3e-3 * 1.4**2 / tension
    cot = 1 / np.tan(angle) + ratio * ALONG
    np.testing.assert_allclose(1 / np.tan(shape.angle_rad), cot, rtol=1e-5)
    np.testing.assert_allclose(
        shape.height_m, (np.arcsinh(cot) - np.arcsinh(1 / np.tan(angle))) / ratio, atol=1e-4
    )
    np.testing.assert_allclose(shape.tension_n, tension, rtol=1e-6)


def test_without_drag_it_is_a_catenary():
    line = Line(0.8, 7.85, 0.0, 0.0)
    weight = 3.4432e-3 * 9.80665  # a metre of steel wire, 0.5027 mm², 6.85 g/cm³ more than the water
    shape = hang(line, 1.0, 1.0, 0.5, np.radians(10), ALONG)
    np.testing.assert_allclose(
        shape.tension_n * np.cos(shape.angle_rad), 0.5 * np.cos(np.radians(10)), rtol=1e-5
    )
    a = 0.5 * np.cos(np.radians(10)) / weight
    start = np.tan(np.radians(10))
    np.testing.assert_allclose(
        shape.height_m, a * (np.sqrt(1 + (start + ALONG / a) ** 2) - np.sqrt(1 + start**2)), atol=1e-4
    )


def test_the_line_in_the_air_is_taken_off():
    straight = Shape(
        ALONG, ALONG * 0.5, ALONG * 0.866, np.full_like(ALONG, np.radians(30)), np.ones_like(ALONG)
    )
    np.testing.assert_allclose(
        depths_m(straight, np.array([2.0, 20.0]), 2.0), [0.0, 0.5 * (20 - 4)], atol=1e-9
    )
    np.testing.assert_allclose(depths_m(straight, np.array([20.0]), 0.0), [10.0], atol=1e-9)


@pytest.mark.parametrize("aspect", [0.5, 1.0, 2.0])
def test_a_plate_across_the_flow_and_along_it(aspect):
    assert plate_coefficient(np.pi / 2, aspect) == pytest.approx(1.17)
    assert plate_coefficient(0.0, aspect) == 0
    assert plate_coefficient(-0.4, aspect) == -plate_coefficient(0.4, aspect)


@pytest.mark.parametrize(("fineness", "published"), [(1.0, 0.0), (2.0, 0.493), (4.99, 0.836), (9.97, 0.939)])
def test_a_spheroids_couple_as_lamb_tabulates_it(fineness, published):
    # Lamb gives k1 and k2: 0.5 and 0.5 for a sphere; 0.209 and 0.702; 0.059 and 0.895; 0.021 and 0.960
    assert munk_factor(fineness) == pytest.approx(published, abs=1.5e-3)


def test_a_lip_across_stays_shallow_and_a_long_one_dives_deepest_near_the_axis():
    def deep(angle, length, width):
        design = bait(lip=replace(bait().lip, angle_deg=angle, length_mm=length, width_mm=width))
        return depth(design, budget(design), Tow(), 0.5)

    short, long = ([deep(angle, *size) for angle in (20, 40, 60, 80)] for size in ((12, 14), (30, 20)))
    assert (
        short[3] < short[2] < max(short) and long == sorted(long, reverse=True) and long[0] > 1.5 * max(short)
    )


def test_the_bait_rests_where_its_moment_vanishes_and_pulls_down_on_the_line():
    found = trim(bait(), budget(bait()), 1.0)
    assert -40 < found.pitch_deg < 0 and found.down_n > 0 and 0 < found.angle_deg < 90
    assert trim(bait(), budget(bait()), 1.5).tension_n > found.tension_n


def test_what_everybody_knows_of_running_depth_holds():
    design, mass = bait(), budget(bait())
    out = np.linspace(2, 60, 30)
    curve = depth_curve(design, mass, Tow(), 0.6, out)
    assert (np.diff(curve) >= -1e-9).all() and curve[-1] < 60
    thick = depth_curve(design, mass, replace(Tow(), line=Line(0.4)), 0.6, out)
    high = depth_curve(design, mass, replace(Tow(), rod_m=3.0), 0.6, out)
    assert (thick[5:] < curve[5:]).all() and (high[5:] < curve[5:]).all()
    assert curve[10] == pytest.approx(
        depth(design, mass, replace(Tow(), line_out_m=float(out[10])), 0.6), abs=0.02
    )


def test_a_factor_is_recovered_from_runs_and_narrows_the_band():
    design, mass = bait(), budget(bait())
    tows = [Tow(line_out_m=out, speed_m_s=speed) for out, speed in ((20.0, 1.0), (35.0, 1.2), (50.0, 0.8))]
    runs = [Run(tow, depth(design, mass, tow, 0.37)) for tow in tows]
    found = fitted(design, runs)
    assert found.factor == pytest.approx(0.37, rel=0.01) and found.runs == 3
    assert (
        found.band(design.lip)
        < DivingFit(0.4, 1, 0.0).band(design.lip)
        < assumed_fit(design).band(design.lip)
    )
    bands = [
        assumed_fit(bait(lip=lip)).band(lip)
        for lip in (replace(bait().lip, angle_deg=angle) for angle in (10, 20, 40, 85))
    ]
    assert (
        bands[0] == 0.25
        and bands == sorted(bands)
        and bands[-1] == pytest.approx(0.5, abs=0.01)
        and assumed_fit(bait(lip=None)).band(None) == 0.5
    )


@pytest.mark.parametrize("size", [(10, 8), (14, 12), (14, 16), (20, 30)])
@pytest.mark.parametrize("tow", [Tow(), Tow(1.5, Line(0.25), 0.5, 40.0)])
def test_with_every_degree_further_across_it_runs_shallower_and_never_by_a_jump(size, tow):
    deep = []
    for angle in range(10, 86):
        design = bait(lip=replace(bait().lip, angle_deg=float(angle), width_mm=size[0], length_mm=size[1]))
        deep.append(depth(design, budget(design), tow, assumed_fit(design)))
    falls = np.diff(np.log(deep))
    assert falls.max() < 0 and falls.min() > np.log(0.96)


def test_the_pitch_that_was_seen_is_the_pitch_it_runs_at():
    design, mass = bait(), budget(bait())
    for seen in (-34.0, -20.0, -9.0):
        fit = fitted(design, [Run(Tow(), 1.4, seen)])
        assert trim(design, mass, 1.0, fit.shift_deg).pitch_deg == pytest.approx(seen, abs=0.02)
        assert depth(design, mass, Tow(), fit) == pytest.approx(1.4, rel=0.01)
    assert fitted(design, [Run(Tow(), 1.4)]).shift_deg is None


def test_lead_on_the_line_is_not_taken_for_the_baits_own_pull():
    design, mass = bait(), budget(bait())
    leaded = Tow(lead_g=8.0)
    run = Run(leaded, depth(design, mass, leaded, 0.5))
    assert run.depth_m > 1.5 * depth(design, mass, Tow(), 0.5)
    assert fitted(design, [run]).factor == pytest.approx(0.5, rel=0.01)
    assert (
        fitted(design, [replace(run, tow=Tow())]).factor > 0.9
    )  # as it came out when the lead stood in the note only


def test_changes_come_largest_first_and_name_lip_and_tie():
    found = changes(bait(), Tow(), assumed_fit(bait()))
    sizes = [abs(np.log(row.factor)) for row in found]
    assert sizes == sorted(sizes, reverse=True)
    names = " ".join(tell(row.name) for row in found)
    assert "Lip" in names and "Tie on the lip" in names and "thicker" in names
    assert next(r for r in found if tell(r.name) == "10 m more line out").factor > 1

"""Castings against closed forms: foam charges, two pours, plastisol, inserts, matching, plans over working
days, the guided run.
"""

import re
from dataclasses import replace
from datetime import date, datetime, time, timedelta
from math import pi

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from lamsik.core.castings import foam, plastisol, pouring
from lamsik.core.castings.born import Born, as_cast
from lamsik.core.castings.dense_rear import bonds, two_pours, uneven_mm
from lamsik.core.castings.gates import Curing, gate
from lamsik.core.castings.inserts import (
    Insert,
    cover_says,
    covers_mm,
    inserts_ml,
    level_mm,
    net_ml,
    of_design,
    shank,
)
from lamsik.core.castings.matching import matched
from lamsik.core.castings.softbody import exposed
from lamsik.core.castings.throughput import Cycle, Making, plan, shots_needed
from lamsik.core.errors import Refused
from lamsik.core.moulds import masters
from lamsik.core.moulds.layout import pour_up
from lamsik.core.route.workdays import Workdays
from lamsik.core.shapes.skins import Mesh
from lamsik.core.tank import evaluate
from lamsik.core.tank.mass import budget
from lamsik.store.starter_mixes import STARTERS
from lamsik.words import refusals
from lamsik.words.castings import TITLES
from lamsik.words.castings import event as planned
from lamsik.words.tell import tell
from tests.bodies import bait, box_mesh, ellipsoid
from tests.core.moulds.test_moulds import MASTER, mould

UP = np.array([0.0, 0.0, 1.0])


class TestFoam:
    def test_the_charge_its_overpack_and_what_an_open_mould_loses(self):
        found = foam.charge(40.0, 0.25, 0.16, 1.14)
        assert (
            found.grams == pytest.approx(10.0)
            and found.liquid_ml == pytest.approx(10 / 1.14)
            and found.overpack == pytest.approx(0.25 / 0.16)
        )
        assert (
            found.overflow_ml == pytest.approx(10 / 0.16 - 40) and found.lid and "close the lid" in found.says
        )
        assert not foam.charge(40.0, 0.16, 0.16, 1.14).lid

    @given(st.floats(1, 500), st.floats(0.1, 0.3), st.floats(0.0, 0.3), st.floats(1.0, 3.0))
    def test_an_uncertain_rise_gives_a_range_around_the_charge_unless_it_is_packed(
        self, ml, free, spread, pack
    ):
        found = foam.charge(ml, free * pack, free, 1.14, spread)
        assert found.low_g <= found.grams * (1 + 1e-12) <= found.high_g * (1 + 1e-12)
        assert found.high_g == pytest.approx(found.grams * (1.0 if found.lid else 1 + spread)) and (
            not found.lid or found.low_g == found.grams
        )

    def test_a_test_of_ones_own_gives_density_and_ratio(self):
        test = foam.FreeRise(20.0, 125.0)
        assert test.density_g_cm3 == pytest.approx(0.16) and foam.density_of_ratio(
            test.ratio(1.14), 1.14
        ) == pytest.approx(0.16)
        assert foam.at_warmth(0.16, 20, 30) < 0.16 < foam.at_warmth(0.16, 20, 10)


class TestInserts:
    def test_a_wire_takes_its_cylinder_off_the_cavity(self):
        wire = Insert("w", "wire", (0, 0, 0), (50, 0, 0), 2.0, 1.2)
        assert wire.ml == pytest.approx(pi * 50 / 1000) and net_ml(20.0, (wire,)) == pytest.approx(
            20 - wire.ml
        )
        assert covers_mm(Mesh(box_mesh(60, 20, 20).vertices, box_mesh(60, 20, 20).faces), wire) < 10
        with pytest.raises(Refused, match="one of the inserts is wrong"):
            net_ml(0.1, (wire,))

    def test_a_designs_slugs_and_wire_are_inserts(self):
        design = bait()
        found = of_design(design)
        slug = next(row for row in found if row.kind == "ballast")
        assert slug.ml == pytest.approx(4.2 / 11.34) and slug.mass_g == 4.2
        assert sum(row.kind == "wire" for row in found) == 3 and inserts_ml(found) == pytest.approx(
            sum(row.ml for row in found)
        )

    def test_a_hook_shank_is_covered_by_what_lies_over_it(self):
        egg = MASTER.mesh  # 80 × 24 × 30 mm, its axis at z = 0: flanks 12 mm off at the middle
        laid = shank(35.0, 45.0, 0.0, 1.6)
        assert laid.ml == pytest.approx(pi * 0.64 * 10 / 1000) and laid.mass_g == pytest.approx(
            laid.ml * 7.85
        )
        said = [tell(cover_says(mm)) for mm in (-0.01, 0.99, 1.0)]
        assert said == ["it stands out of the casting", "too little: it may show", "covered"]
        assert covers_mm(egg, laid) == pytest.approx(12 * (1 - (5 / 40) ** 2) ** 0.5 - 0.8, abs=0.25)
        assert (
            covers_mm(egg, shank(35.0, 45.0, 14.6, 1.6))
            < 0
            < covers_mm(egg, shank(35.0, 45.0, 12.0, 1.6))
            < 2.5
        )
        standing = Insert(
            "b", "ballast", (40, 0, -13.0), (40, 0, -3.0), 5.0, 4.0
        )  # a rod over 2 mm of belly, its rim nearer to the flanks
        assert 0.5 < covers_mm(egg, standing) < 2.0
        with pytest.raises(Refused, match="behind where it begins"):
            shank(40.0, 20.0, 0.0, 1.0)

    @given(st.floats(0.02, 0.98))
    @settings(max_examples=20)
    def test_the_level_of_a_box_is_its_share_of_the_height(self, share):
        assert level_mm(box_mesh(60, 20, 20), UP, share * 24000) == pytest.approx(-10 + 20 * share, abs=1e-3)


class TestTwoPours:
    def test_the_centre_of_mass_of_two_slabs(self):
        found = two_pours(box_mesh(60, 20, 20), UP, 6.0, 1.6, 0.8)
        assert (found.dense_g, found.light_g, found.level_mm) == pytest.approx((9.6, 14.4, -5.0), abs=1e-3)
        assert found.centre_mm == pytest.approx((30, 0, (9.6 * -7.5 + 14.4 * 2.5) / 24), abs=1e-3)

    def test_propped_it_runs_to_the_low_end(self):
        tilt = np.radians(20)
        found = two_pours(box_mesh(60, 20, 20), np.array([np.sin(tilt), 0, np.cos(tilt)]), 6.0, 1.6, 0.8)
        assert found.centre_mm[0] < 30 and found.mass_g == pytest.approx(24.0, abs=1e-3)

    @pytest.mark.parametrize("tilt", [0.0, 15.0, 35.0])
    def test_what_lies_in_it_is_filled_by_neither_pour(self, tilt):
        """Against cells: the cavity in little boxes, the lowest of those that no insert takes are the
        dense mix's.
        """
        up = np.array([np.sin(np.radians(tilt)), 0.0, np.cos(np.radians(tilt))])
        box = box_mesh(60, 20, 20)
        rods = (
            Insert("w", "wire", (2.0, 0.0, -6.0), (58.0, 0.0, -6.0), 6.0, 1.0),
            Insert("s", "ballast", (15.0, 0.0, -4.0), (15.0, 0.0, 7.0), 7.0, 4.0),
        )
        found = two_pours(box, up, 6.0, 1.6, 0.8, [piece for rod in rods for piece in rod.pieces(24)])
        step = 0.5
        grid = np.stack(
            np.meshgrid(
                *(np.arange(a + step / 2, b, step) for a, b in ((0, 60), (-10, 10), (-10, 10))), indexing="ij"
            ),
            axis=-1,
        ).reshape(-1, 3)
        wire = (grid[:, 1] ** 2 + (grid[:, 2] + 6) ** 2 < 9) & (np.abs(grid[:, 0] - 30) < 28)
        slug = ((grid[:, 0] - 15) ** 2 + grid[:, 1] ** 2 < 12.25) & (np.abs(grid[:, 2] - 1.5) < 5.5)
        free = grid[~(wire | slug)]
        free = free[np.argsort(free @ up, kind="stable")]
        count = round(6000 / step**3)
        assert found.dense_ml == 6.0 and found.dense_ml + found.light_ml == pytest.approx(
            24.0 - sum(rod.ml for rod in rods)
        )
        weights = np.where(np.arange(len(free)) < count, 1.6, 0.8)
        assert found.level_mm == pytest.approx(float(free[count - 1] @ up), abs=0.7)
        assert found.centre_mm == pytest.approx(tuple((weights @ free / weights.sum()).tolist()), abs=0.35)

    @pytest.mark.parametrize(
        ("pull", "up"),
        [
            ("back", (np.sin(0.4), 0.0, np.cos(0.4))),
            ("belly", (np.sin(0.4), 0.0, -np.cos(0.4))),
            ("side", (np.sin(0.4), -np.cos(0.4), 0.0)),
            ("nose", (-np.cos(0.4), 0.0, np.sin(0.4))),
        ],
    )
    def test_what_is_born_of_them_has_its_centre_of_mass_where_they_lay(self, pull, up):
        """Against points drawn in the body's own frame, the lowest of them dense, shrinkage and all."""
        length, width, depth, dense = 80.0, 24.0, 30.0, 6.0
        body = ellipsoid(length, width, depth)
        lies = replace(
            mould(master=masters.of_body("egg", body, 9.0), pull=pull), shrink_percent=1.0, stand="flat"
        )
        two = two_pours(lies.lies, pour_up(lies, float(np.degrees(0.4))), dense, 1.6, 0.8)
        drawn = np.random.default_rng(3).uniform(-1.0, 1.0, (400_000, 3))
        points = drawn[(drawn**2).sum(axis=1) < 1.0] * (length / 2, width / 2, depth / 2) + (length / 2, 0, 0)
        points = points[np.argsort(points @ np.asarray(up))]
        share = dense / (two.dense_ml + two.light_ml)
        weights = np.where(np.arange(len(points)) < share * len(points), 1.6, 0.8)
        shift = uneven_mm(lies, two)
        carved = replace(bait(), body=body, hardware=(), ballast=(), layers=(), lip=None, glue_g=0.0)
        density = two.mass_g / (two.dense_ml + two.light_ml)
        cast = as_cast(carved, Born("Two mixes", "resin", density, uneven_mm=shift))
        assert budget(cast).g_mm == pytest.approx(weights @ points / weights.sum(), abs=0.12)

    @pytest.mark.parametrize(
        ("dense_ml", "density", "says"), [(30.0, 1.6, "the cavity holds 24.00"), (5.0, 0.7, "must be denser")]
    )
    def test_what_does_not_go_in_is_refused(self, dense_ml, density, says):
        with pytest.raises(Refused, match=says):
            two_pours(box_mesh(60, 20, 20), UP, dense_ml, density, 0.8)

    @pytest.mark.parametrize(
        ("gap", "says"), [(5, "too soon: wait 10 min"), (30, ""), (90, "30 min too late")]
    )
    def test_the_bond_has_its_window(self, gap, says):
        assert tell(bonds(gap, 15, 60)).startswith(says) and bool(bonds(gap, 15, 60)) == bool(says)


class TestPlastisol:
    def test_shots_of_a_jug_and_pieces_an_hour(self):
        found = plastisol.shot(30.0, 3.0, 1.05, 120.0, 3, 6.0, 4.0)
        assert (
            found.shot_g == pytest.approx(34.65)
            and found.shots_per_jug == 3
            and found.pieces_per_hour == pytest.approx(60 * 9 / 18)
        )
        with pytest.raises(Refused, match="heat more"):
            plastisol.shot(30.0, 3.0, 1.05, 40.0, 3, 6.0, 4.0)

    def test_zones_thinner_than_the_limit_are_found_and_ask_before_the_heat_gun(self):
        shape = mould().lies
        zones = plastisol.thin_zones(shape, 16.0)
        assert [zone.from_mm < 40 for zone in zones] == [True, False] and all(
            zone.thinnest_mm < 16 for zone in zones
        )
        at = zones[0].to_mm  # an ellipsoid's section is thinner than 16 of 24 mm where s(1 − s) < (16/24)²/4
        assert 24 * 2 * ((at / 80) * (1 - at / 80)) ** 0.5 == pytest.approx(16, abs=1.2)
        assert (
            "rounds it off" in tell(plastisol.may_gloss(zones, False))
            and plastisol.may_gloss(zones, True) is None
            and plastisol.may_gloss((), False) is None
        )
        assert plastisol.thin_zones(shape, 0.2) == ()

    @pytest.mark.parametrize(
        ("up", "down"),
        [
            ((0, 0, 1.0), "lower flank"),
            ((1.0, 0, 0), "nose"),
            ((0, 1.0, 0), "belly"),
            ((0, -1.0, 0), "back"),
            ((-1.0, 0, 0), "tail"),
        ],
    )
    def test_the_heavier_pigment_sinks_to_what_is_down(self, up, down):
        assert plastisol.sinks_to(np.array(up)) == down
        assert down in plastisol.layer_says(
            plastisol.HOT, ["pearl", "black"], np.array(up)
        ) and "skin over" in tell(plastisol.layer_says(plastisol.GELLED, ["pearl", "black"], UP))

    def test_scrap_of_its_colour_only_and_not_too_often_heated(self):
        heap = [
            plastisol.Scrap("pearl", 10, 2),
            plastisol.Scrap("pearl", 15, 1),
            plastisol.Scrap("black", 99, 0),
            plastisol.Scrap("pearl", 50, 3),
        ]
        used, new = plastisol.from_scrap(40.0, "pearl", heap)
        assert [(s.grams, s.heats) for s in used] == [(15, 1), (10, 2)] and new == 15

    def test_the_point_that_stands_out(self):
        assert (
            exposed(12, 9, 0.5).squeezed_mm == pytest.approx(7.5)
            and "shows at rest" in exposed(12, 9, 0.5).says
        )
        assert "stays 2.0 mm under" in exposed(5, 14, 0.5).says


@pytest.mark.parametrize("filler", [0.15, None])
def test_a_casting_like_the_carved_original_has_its_mass_and_g(filler):
    design = bait()
    found = matched(design, 1.05, filler)
    assert (
        found is not None and found.mass_g == pytest.approx(found.original_g, abs=0.02) and found.off_mm < 0.3
    )
    assert found.mass_g == pytest.approx(evaluate.drag(found.design).budget.mass_g)


DAYS = Workdays(closed=(date(2027, 3, 3),))
MONDAY = datetime(2027, 3, 1, 9, 0)


class TestWorkdays:
    @given(st.datetimes(datetime(2027, 1, 1), datetime(2027, 12, 1)), st.integers(1, 480))
    def test_work_lies_within_one_open_day_and_not_before_it_was_asked(self, at, minutes):
        start = DAYS.fits(at, timedelta(minutes=minutes))
        end = start + timedelta(minutes=minutes)
        assert (
            start >= at
            and start.date() == end.date()
            and DAYS.is_open(start.date())
            and time(9) <= start.time()
            and end.time() <= time(17)
        )


class TestPlan:
    def test_cures_cross_nights_hands_do_not_and_the_second_half_waits_for_a_working_day(self):
        found = plan(
            6,
            MONDAY + timedelta(days=20),
            datetime(2027, 3, 1, 15, 0),
            Cycle(15, 16.0, 10, 3, 1.0),
            DAYS,
            Making(2, 60, 16.0),
            True,
        )
        at = {planned(one): one for one in found.events}
        assert at["pour half 1 of the mould"].start == datetime(2027, 3, 1, 15, 0)
        assert at["pour half 2 of the mould"].start == datetime(2027, 3, 2, 9, 0)  # cured at 8 in the morning
        assert at["purge shot"].start == datetime(2027, 3, 4, 9, 0)  # the third is closed
        assert all(DAYS.is_open(event.start.date()) for event in found.events)
        assert (
            found.shots == 2
            and found.events[-1].good == 6
            and found.by_date == 6
            and found.reached == found.events[-1].ready
        )

    def test_after_hours_the_maker_goes_on_at_once(self):
        asked = (
            6,
            MONDAY + timedelta(days=20),
            datetime(2027, 3, 1, 15, 0),
            Cycle(15, 16.0, 10, 3, 1.0),
            DAYS,
            Making(2, 60, 3.0),
            True,
        )
        late = plan(*asked[:4], replace(DAYS, after_hours=True), *asked[5:])
        assert late.events[1].start == datetime(2027, 3, 1, 19, 0) and late.reached < plan(*asked).reached

    @given(st.integers(1, 60), st.integers(1, 6), st.floats(0.4, 1.0), st.floats(0, 30))
    @settings(max_examples=40)
    def test_it_makes_as_many_as_are_wanted_in_order(self, wanted, cavities, good, cure):
        found = plan(wanted, MONDAY + timedelta(days=9), MONDAY, Cycle(10, cure, 5, cavities, good), DAYS)
        assert (
            found.shots == shots_needed(wanted, Cycle(10, cure, 5, cavities, good))
            and found.events[-1].good == wanted
        )
        assert all(a.ready <= b.start for a, b in zip(found.events, found.events[1:], strict=False))
        assert (found.by_date >= wanted) == (found.reached <= MONDAY + timedelta(days=9))

    def test_without_a_living_cavity_there_is_no_plan(self):
        with pytest.raises(Refused, match="no cavity is alive"):
            Cycle(10, 1, 5, 0)


class TestSession:
    RESIN = STARTERS[0]

    def test_nothing_time_boxed_starts_before_everything_is_ticked(self):
        ticks = pouring.checklist(self.RESIN, replace(mould(), tilt_deg=20.0), 3)
        assert {"stirred", "inserts", "caution", "laid out", "level"} <= {tick.key for tick in ticks} and any(
            "propped at 20°" in tick.says for tick in ticks
        )
        with pytest.raises(Refused, match="tick first"):
            pouring.all_laid_out(ticks, frozenset({"level"}))
        pouring.all_laid_out(ticks, frozenset(tick.key for tick in ticks))

    def test_the_whole_walk_passes_every_step_and_ends_where_nothing_can_happen(self):
        stand, walked = pouring.Stand(pouring.PREPARE), [pouring.PREPARE]
        for event in ("begin weighing", "mix", "pour", "demould", "take out", "count"):
            stand = pouring.after(stand, event)
            walked.append(stand.step)
        assert walked == list(pouring.ORDER) and stand == pouring.Stand(pouring.DONE, pouring.POURED)
        assert not any(pouring.can(stand, event) for event in pouring.HAPPENINGS)

    @pytest.mark.parametrize("event", pouring.HAPPENINGS)
    def test_what_happens_leads_to_a_known_state_or_is_refused_in_words(self, event):
        cups = ("", "weighing", "mixed", "poured", "failed", "dropped")
        for step in (pouring.ALONE, *TITLES):
            for cup in cups:
                stand = pouring.Stand(step, cup)
                if pouring.can(stand, event):
                    found = pouring.after(stand, event)
                    assert found.step in (pouring.ALONE, *TITLES) and found.cup in cups
                    assert (found.step == pouring.ALONE) == (step == pouring.ALONE)
                else:
                    with pytest.raises(
                        Refused, match=re.escape(refusals.limits_said(pouring.HAPPENINGS[event].refusal))
                    ):
                        pouring.after(stand, event)

    def test_hot_and_pressed_work_have_their_own_ticks(self):
        hot = pouring.checklist(STARTERS[4], mould(kind="press"))
        assert {"dry", "pressing"} <= {tick.key for tick in hot}
        assert MASTER.stands_in is False


class TestColours:
    SCRAPS = (
        plastisol.Scrap("pearl", 15.0, 1),
        plastisol.Scrap("black", 4.0, 0),
        plastisol.Scrap("red", 90.0, 0),
    )

    def test_each_colour_takes_its_own_share_from_its_own_scrap(self):
        pearl, black = plastisol.by_colour(
            40.0, plastisol.parse_colours("pearl 70 %, black 30%"), self.SCRAPS
        )
        assert (pearl.grams, pearl.new_g, black.grams, black.new_g) == pytest.approx((28.0, 13.0, 12.0, 8.0))
        assert [one.colour for one in black.scraps] == ["black"] and [
            share for _, share in plastisol.parse_colours("a, b, c")
        ] == pytest.approx([1 / 3] * 3)


class TestGates:
    NOW = datetime(2027, 3, 1, 12, 0)

    @pytest.mark.parametrize(
        ("demould_h", "cured_h", "hot", "way", "says"),
        [
            (2, 26, False, "refused", "not before 14:00"),
            (-1, 26, False, "asks", "14:00 on Tue 2 Mar"),
            (-1, 26, True, "refused", "full cure: not before 14:00 on Tue"),
            (-9, -1, True, "free", ""),
            (None, None, True, "free", ""),
        ],
    )
    def test_a_mould_is_cast_in_when_it_is_set_and_hot_only_when_it_is_cured(
        self, demould_h, cured_h, hot, way, says
    ):
        after = [
            None if hours is None else self.NOW + timedelta(hours=hours) for hours in (demould_h, cured_h)
        ]
        found = gate(Curing(*after), self.NOW, hot)
        assert found.way == way and says in tell(found.says)


def test_a_trimmed_cavity_yields_what_it_yields_and_a_new_mould_begins_with_a_purge():
    start, days = datetime(2027, 3, 1, 9), Workdays()
    whole, worn = Cycle(10, 0.5, 5, 4, 0.9), Cycle(10, 0.5, 5, 4, 0.9, worth=2.5)
    assert shots_needed(18, whole) == 5 and shots_needed(18, worn) == 8
    assert plan(18, start + timedelta(days=9), start, worn, days).shots == 8
    first = plan(4, start + timedelta(days=9), start, whole, days, purge=True)
    assert planned(first.events[0]) == "purge shot" and first.shots == 2
    with pytest.raises(Refused, match="next to nothing"):
        Cycle(10, 0.5, 5, 4, 0.9, worth=0.0)

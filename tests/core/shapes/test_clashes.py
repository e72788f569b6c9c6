"""What runs into what inside a body, and by how much."""

from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from lamsik.core.shapes.ballast_holes import Hole
from lamsik.core.shapes.clashes import Rod, clashes, nearest
from lamsik.core.shapes.forms import FORMS, body_from
from lamsik.core.shapes.hardware import Item, Placement
from lamsik.words.tell import tell
from tests.bodies import LEAD_ROD, TIE, TUNGSTEN, bait, homogeneous

RATTLE = Item("rattle", "rattle", "rattle", 0.85, 2.2, 0.0, material="glass", wire_mm=5.0, shank_mm=18.0)


class TestClashes:
    def design(self, *hardware, ballast=()):
        return replace(
            homogeneous(body_from(FORMS["slim"], 90, 20, 15), 0.4), hardware=hardware, ballast=ballast
        )

    def test_two_holes_too_near_are_shown_with_their_distance(self):
        holes = (Hole("b1", LEAD_ROD, 1.0, 40, 5.0), Hole("b2", LEAD_ROD, 1.0, 45.6, 5.0))
        (found,) = clashes(self.design(ballast=holes), 2.0)
        assert found.gap_mm == pytest.approx(0.6, abs=0.1) and "between it and" in found.says

    def test_a_rattle_in_the_way_of_a_hole_and_one_that_breaks_out(self):
        hole = Hole("b1", LEAD_ROD, 2.0, 40, 5.0)
        found = clashes(self.design(Placement("r", RATTLE, "inside", 42), ballast=(hole,)), 2.0)
        assert any("runs into" in c.says for c in found)
        out = clashes(self.design(Placement("r", RATTLE, "inside", 80)), 2.0)
        assert tell(out[0].says) == "rattle breaks out of the body" and out[0].gap_mm < 0

    def test_a_sound_bait_has_none_and_a_screw_may_be_near_the_skin(self):
        assert clashes(bait(), 2.0) == ()
        assert (
            clashes(self.design(Placement("t", replace(TIE, wire_mm=0.9, shank_mm=16.0), "nose")), 2.0) == ()
        )

    @settings(max_examples=60)
    @given(st.lists(st.floats(-50, 50), min_size=8, max_size=8), st.floats(0, 9), st.floats(0, 9))
    def test_the_nearest_points_are_nearest(self, n, aside, beside):
        one, other = (
            Rod("a", "a", (n[0], n[1]), (n[2], n[3]), 0.0, beside_mm=aside),
            Rod("b", "b", (n[4], n[5]), (n[6], n[7]), 0.0, beside_mm=beside),
        )
        _, _, gap = nearest(one, other)
        steps = np.linspace(0, 1, 60)[:, None]
        p, q = (np.array(r.mouth) + steps * (np.array(r.end) - np.array(r.mouth)) for r in (one, other))
        flat = np.hypot(*(p[:, None] - q[None]).transpose(2, 0, 1)).min()
        sampled = np.hypot(flat, aside - beside)
        assert gap <= sampled + 1e-9 and sampled - gap < 4.0

    def test_a_pair_passes_a_screw_to_both_sides_and_nothing_passes_a_saw_cut(self):
        tie = Placement("t", replace(TIE, wire_mm=0.9, shank_mm=50.0), "nose")
        pair = Hole("b1", TUNGSTEN, 0.5, 35.0, 4.0, beside_mm=3.5)
        deep = replace(pair, mass_g=5.2)  # past the screw's height
        assert clashes(self.design(tie, ballast=(deep,)), 1.1) == ()
        (near,) = clashes(self.design(tie, ballast=(replace(deep, beside_mm=2.9),)), 1.1)
        assert near.gap_mm == pytest.approx(2.9 - 2.0 - 0.45)
        sawn = bait(hardware=(), ballast=(replace(pair, x_mm=10.0, beside_mm=2.6),))
        assert any(tell(clash.says).endswith("runs into the lip slot") for clash in clashes(sawn, 1.1))

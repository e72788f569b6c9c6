"""Moulds against closed forms: halves of boxes less ellipsoids, keys, slanted partings, vents of humps,
undercuts, solids to print.
"""

from dataclasses import replace
from math import atan, degrees, pi, sqrt

import manifold3d
import numpy as np
import pytest
import trimesh
from hypothesis import given, settings
from hypothesis import strategies as st
from scipy import ndimage

from lamsik.core.errors import Refused
from lamsik.core.moulds import masters
from lamsik.core.moulds.advice import look
from lamsik.core.moulds.faults import FAULTS, MasterUse, tallies
from lamsik.core.moulds.funnels import feed_ml, feeds
from lamsik.core.moulds.geometry import middle_cut, seen, solid_of
from lamsik.core.moulds.halves import printed_halves
from lamsik.core.moulds.heat import heat, level_error_mm, limit_of, limits, shrinkage
from lamsik.core.moulds.layout import (
    CavitySpot,
    Keys,
    Mould,
    Vent,
    Well,
    arranged,
    box,
    cap_mm3,
    cavity_ml,
)
from lamsik.core.moulds.masters import Master
from lamsik.core.moulds.press import pressed
from lamsik.core.moulds.pull import best_parting, choices, features
from lamsik.core.moulds.silicone import Bricks, Saved, clay_ml, halves, lift, walls_of
from lamsik.core.moulds.tight import tight_places
from lamsik.core.moulds.touching import touch
from lamsik.core.moulds.vents import fewest_vents, high_points, up_of
from lamsik.core.shapes.polyhedra import measures, thinned
from lamsik.core.shapes.skins import Mesh
from lamsik.core.trade.vent_shapes import VENT_SHAPES
from lamsik.words import faults as faults_said
from lamsik.words.moulds import verdict
from lamsik.words.tell import tell
from tests.bodies import box_mesh, ellipsoid, straight

L, W, D = 80.0, 24.0, 30.0
VOLUME = pi / 6 * L * W * D
MASTER = masters.of_body("egg", ellipsoid(L, W, D), 9.0)


def mould(**changes) -> Mould:
    count = changes.pop("count", 1)
    first = Mould("m", changes.pop("master", MASTER), cavities=(CavitySpot("c1", 500.0, 500.0),))
    return replace(
        arranged(replace(first, **{k: v for k, v in changes.items() if k in ("pull", "kind")}), count),
        **changes,
    )


def solid(made: manifold3d.Manifold) -> Mesh:
    raw = made.to_mesh()
    return masters.welded(
        Mesh(np.asarray(raw.vert_properties, dtype=float)[:, :3], np.asarray(raw.tri_verts, dtype=np.int64))
    )


class TestMasters:
    @given(st.floats(20, 120), st.floats(6, 40), st.floats(6, 40), st.floats(0.3, 0.95))
    @settings(max_examples=15)
    def test_a_weighed_master_stands_in_with_its_size_and_volume(self, length, width, depth, share):
        volume = length * width * depth * share / 1000
        found = masters.measured("x", length, width, depth, volume)
        assert measures(found.mesh).volume_mm3 == pytest.approx(1000 * volume, rel=1e-6) and found.stands_in
        assert np.ptp(found.mesh.vertices, axis=0) == pytest.approx([length, width, depth], rel=0.02)

    @pytest.mark.parametrize(
        ("volume", "says"),
        [(200.0, "one of the figures is wrong"), (2.0, "measure it again"), (-1.0, "allowed is")],
    )
    def test_a_volume_that_does_not_fit_its_measures_is_refused(self, volume, says):
        with pytest.raises(Refused, match=says):
            masters.measured("x", 100, 20, 25, volume)

    @pytest.mark.parametrize("pull", masters.PULLS)
    def test_it_is_turned_and_not_bent(self, pull):
        laid = masters.laid(MASTER.mesh, pull)
        assert measures(laid).volume_mm3 == pytest.approx(VOLUME, rel=1e-6)
        size = {
            "side": (L, D, W),
            "back": (L, W, D),
            "belly": (L, W, D),
            "nose": (D, W, L),
            "tail": (D, W, L),
        }[pull]
        assert np.ptp(laid.vertices, axis=0) == pytest.approx(size, rel=4e-3)

    def test_made_larger_for_what_shrinks(self):
        assert cavity_ml(mould(shrink_percent=2.0)) == pytest.approx(VOLUME / 1000 / 0.98**3)
        assert measures(mould(shrink_percent=2.0).lies).volume_mm3 == pytest.approx(
            VOLUME / 0.98**3, rel=1e-6
        )


class TestSilicone:
    def test_each_half_is_box_less_half_an_ellipsoid_less_half_the_funnel_and_the_keys(self):
        m = mould(floor_mm=8.0, cover_mm=11.0)
        first, second = halves(m)
        keys = 4 * cap_mm3(4.0, 4.0) / 1000
        area = box(m).area_mm2 / 1000
        assert area == pytest.approx((L + 24) * (D + 24) / 1000, rel=3e-3)
        assert first.pour_ml == pytest.approx(
            area * (W / 2 + 11) - VOLUME / 2000 - feed_ml(m) / 2 + keys, rel=2e-3
        )
        assert second.pour_ml == pytest.approx(
            area * (W / 2 + 8) - VOLUME / 2000 - feed_ml(m) / 2 - keys, rel=2e-3
        )
        assert clay_ml(m) == pytest.approx(second.pour_ml + keys)
        cone = pi * 12 * (3**2 + 3 * 7 + 7**2) / 3000
        assert feed_ml(m) == pytest.approx(cone, rel=1e-3)

    def test_set_on_the_clay_keys_change_sign(self):
        m = mould()
        other = replace(m, keys=replace(m.keys, proud=False))
        for one, two in zip(halves(m), halves(other), strict=True):
            assert one.keys_ml == pytest.approx(-two.keys_ml)
        deeper = replace(m, keys=Keys(second_high_mm=6.0))
        assert halves(deeper)[1].keys_ml == pytest.approx(-4 * cap_mm3(4, 6) / 1000) and halves(deeper)[
            0
        ].keys_ml == pytest.approx(halves(m)[0].keys_ml)

    @pytest.mark.parametrize("share", [-0.6, -0.2, 0.3, 0.7])
    def test_a_parting_off_the_middle_cuts_an_ellipsoid_cap(self, share):
        m = mould(parting_mm=share * W / 2)
        cap = VOLUME * (2 + 3 * share - share**3) / 4  # below the plane
        assert halves(m)[1].master_ml == pytest.approx(cap / 1000, rel=3e-3)
        assert halves(m)[0].master_ml + halves(m)[1].master_ml == pytest.approx(VOLUME / 1000)

    @pytest.mark.parametrize("slant", [-12.0, 5.0, 20.0])
    def test_a_leaning_parting_through_the_middle_halves_it_and_so_does_the_box(self, slant):
        m = mould(slant_deg=slant, floor_mm=30.0, cover_mm=30.0, length_mm=L + 24)
        first, second = halves(m)
        off = m.cavities[0].x_mm - box(m).length_mm / 2
        assert abs(off) < 1e-3
        assert first.master_ml == pytest.approx(second.master_ml, rel=1e-4) and first.box_ml == pytest.approx(
            second.box_ml
        )

    def test_what_the_plain_box_would_have_cost(self):
        saved = Saved(100.0, 70.0, 1.2, 20.0)
        assert saved.wasted_ml == 30.0 and saved.cost == pytest.approx(0.72)

    def test_bricks_courses_and_what_is_short(self):
        walls = walls_of(mould(), Bricks(have=10))
        b = box(mould())
        per = -(-(2 * (b.length_mm + b.width_mm) + 80) // 40)
        assert (
            walls.per_course == per
            and walls.courses == -(-b.high_mm // 12)
            and walls.short == per * walls.courses - 10
        )
        assert walls_of(mould(), Bricks()).short == 0  # not counted, so nothing is called short
        assert (
            not walls_of(mould(), Bricks(strip_high_mm=20, strip_long_mm=100)).strip_high_enough
            and walls_of(mould(), Bricks(strip_high_mm=60, strip_long_mm=2000)).strip_short_mm == 0
        )

    def test_a_light_master_floats_a_heavy_one_stays(self):
        assert lift(mould(), 1.15).net_g == pytest.approx(1.15 * VOLUME / 1000 - 9.0)
        assert "pins" in tell(lift(mould(), 1.15).says)
        heavy = masters.of_body("lead", ellipsoid(L, W, D), 300.0)
        assert lift(mould(master=heavy), 1.15).net_g < 0 and "weigh the master" in tell(
            lift(mould(master=masters.of_body("x", ellipsoid(L, W, D))), 1.15).says
        )


class TestLayout:
    @pytest.mark.parametrize(
        "change", [{}, {"shrink_percent": 3.0}, {"slant_deg": 3.0}, {"floor_mm": 2.0, "cover_mm": 30.0}]
    )
    def test_a_box_typed_in_all_three_dimensions_is_that_box(self, change):
        m = mould(length_mm=150.0, width_mm=60.0, height_mm=40.0, **change)
        assert box(m).volume_ml == pytest.approx(360.0, abs=1e-9) and box(m).high_mm == 40.0
        flat = mould(
            master=masters.measured("plate", 100.0, 20.0, 15.0),
            length_mm=150.0,
            width_mm=60.0,
            height_mm=25.0,
            pull="back",
            **change,
        )
        assert f"{box(flat).volume_ml:.2f}" == "225.00"
        with pytest.raises(Refused, match="lower than what lies in it"):
            replace(m, height_mm=20.0)

    def test_cavities_side_by_side_keep_their_edge(self):
        m = mould(count=3)
        assert tight_places(m) == () and len(feeds(m)) == 3
        near = replace(
            m, cavities=(m.cavities[0], replace(m.cavities[1], y_mm=m.cavities[1].y_mm - 6.0), m.cavities[2])
        )
        assert [(tell(t.what), round(t.distance_mm)) for t in tight_places(near)] == [("cavities 1 and 2", 6)]
        turned = arranged(
            replace(m, cavities=tuple(replace(c, turn_deg=180.0, x_mm=500, y_mm=500) for c in m.cavities)), 2
        )
        assert all(feed.length_mm > 0 for feed in feeds(turned))


class TestUpright:
    """A body with a hump on its back only: whatever way it lies, drawings have up where up is."""

    BODY = manifold3d.Manifold.sphere(1.0, 48).scale((40.0, 8.0, 10.0))
    HUMPED = solid(BODY + manifold3d.Manifold.sphere(6.0, 48).translate((15.0, 0.0, 9.0)))

    @pytest.mark.parametrize("pull", ["back", "belly", "side", "nose"])
    def test_the_shadow_and_the_cut_stand_as_the_mesh_does(self, pull):
        laid = masters.laid(self.HUMPED, pull)
        for axis, (across, upward) in ((1, (0, 2)), (2, (0, 1)), (0, (1, 2))):
            points = np.vstack(seen(laid, axis)[0])
            for way, column in ((across, 0), (upward, 1)):
                assert points[:, column].max() == pytest.approx(laid.vertices[:, way].max(), abs=1e-3)
            top = laid.vertices[np.argmax(laid.vertices[:, upward])]
            assert points[np.argmax(points[:, 1])][0] == pytest.approx(top[across], abs=1.5)
        cut = np.vstack(middle_cut(laid))
        near = laid.vertices[np.abs(laid.vertices[:, 1]) < 0.3]
        assert cut[:, 1].max() == pytest.approx(near[:, 2].max(), abs=0.1)
        assert (
            cut[np.argmax(cut[:, 1])][0] == pytest.approx(near[np.argmax(near[:, 2])][0], abs=1.5)
            if pull in ("back", "nose")
            else True
        )


class TestPull:
    def test_an_ellipsoid_leans_in_by_what_lies_beyond_its_parting(self):
        whole = features(mould().lies)
        assert whole.projected_mm2 == pytest.approx(pi / 4 * L * D, rel=3e-3) and whole.undercut_share < 1e-3
        share = 0.5
        off = features(mould().lies, share * W / 2)
        assert off.undercut_mm2 == pytest.approx(pi / 4 * L * D * share**2, rel=0.12)
        assert best_parting(mould().lies) == pytest.approx(0.0, abs=0.6)

    def test_a_fine_mesh_is_judged_as_it_is_and_not_as_it_was_thinned(self):
        rough = manifold3d.Manifold.sphere(1.0, 160).scale((L / 2, D / 2, W / 2))
        made = solid(rough)
        assert len(made.faces) > masters.MOST_FACES
        fine = Mesh(made.vertices, made.faces)
        m = mould(
            master=Master(
                "fine",
                masters.welded(thinned(fine, 40)),
                VOLUME,
                true_mesh=Mesh(fine.vertices[:, [0, 2, 1]] * [1, 1, -1], fine.faces),
            )
        )
        assert look(m).features.undercut_share < 2e-4 and look(m).choices[0].kind == "two-part"

    def test_the_thinnest_section_and_where(self):
        cone = masters.of_body("cone", straight(100.0, 12.0, 2.0), 1.0)
        found = features(mould(master=cone).lies)
        assert (
            found.thinnest_mm == pytest.approx(2 * (12 - 10 * (found.thinnest_x_mm + 50) / 100), rel=0.01)
            and found.thinnest_x_mm > 30
        )

    def test_every_kind_comes_with_its_reason_and_the_right_one_first(self):
        half = Master("half", solid(solid_of(MASTER.mesh).trim_by_plane((0, 0, 1), 0)), VOLUME / 2)
        flat = features(masters.laid(half.mesh, "back"))
        assert flat.flat == "lower" and choices(flat)[0].kind == "open"
        assert choices(features(mould().lies))[0].kind == "two-part"
        thin = features(mould(master=masters.of_body("leaf", ellipsoid(60, 1.5, 20), 1.0)).lies)
        assert choices(thin)[0].kind == "press" and choices(thin, injector=True)[0].kind == "injection"
        upright = features(mould(pull="nose").lies, 30.0)
        assert choices(upright)[0].kind == "split"
        assert all(row.why for row in choices(upright)) and len(choices(upright)) == 5


def humps(gap: float, radius: float = 10.0, other: float = 10.0) -> Mesh:
    balls = (manifold3d.Manifold.sphere(r, 96) for r in (other, radius))
    return solid(next(balls).translate((-gap / 2, 0, 0)) + next(balls).translate((gap / 2, 0, 0)))


def trapped_by_flooding(balls, up, way_out, step: float = 0.4) -> float:
    """Air that stays in balls run together [ml], by cells: one is trapped when what is over its own height
    and joined to it has no way out.
    """
    axis = np.asarray(up) / np.linalg.norm(up)
    e1 = np.cross(axis, [0.0, 1.0, 0.0])
    e1 /= np.linalg.norm(e1)
    frame = np.stack([e1, np.cross(axis, e1), axis], axis=1)
    turned = [(np.asarray(middle) @ frame, radius) for middle, radius in balls]
    grid = [
        np.arange(min(m[k] - r for m, r in turned) + step / 2, max(m[k] + r for m, r in turned), step)
        for k in range(3)
    ]
    points = np.stack(np.meshgrid(*grid, indexing="ij"), axis=-1)
    inside = np.any([((points - m) ** 2).sum(axis=-1) < r * r for m, r in turned], axis=0)
    filled = np.argwhere(inside)
    i, j, n = filled[np.argmin(((points[tuple(filled.T)] - np.asarray(way_out) @ frame) ** 2).sum(axis=1))]
    trapped = 0
    for k in range(inside.shape[2]):
        parts, _ = ndimage.label(inside[:, :, k:], structure=np.ones((3, 3, 3)))
        layer = parts[:, :, 0]
        trapped += int(((layer > 0) & (layer != (parts[i, j, n - k] if n >= k else -1))).sum())
    return trapped * step**3 / 1000.0


class TestVents:
    R, GAP = 10.0, 14.0

    @pytest.mark.parametrize("radii", [(10.0, 7.0), (7.0, 10.0), (10.0, 9.0)])
    @pytest.mark.parametrize("tilt", [0.0, 20.0, -35.0])
    @pytest.mark.parametrize("where", ["high", "low", "side"])
    def test_what_stays_is_what_flooding_it_cell_by_cell_leaves(self, radii, tilt, where):
        mesh, up = humps(self.GAP, *radii), up_of("flat", tilt)
        tops = [
            np.array([x, 0, 0]) + r * up for x, r in ((self.GAP / 2, radii[0]), (-self.GAP / 2, radii[1]))
        ]
        way_out = {"high": tops[0], "low": tops[1], "side": np.array([self.GAP / 2 + radii[0], 0, 0])}[where]
        got = sum(point.trapped_ml for point in high_points(mesh, up, [tuple(way_out)], 0.0))
        balls = [((self.GAP / 2, 0, 0), radii[0]), ((-self.GAP / 2, 0, 0), radii[1])]
        assert got == pytest.approx(trapped_by_flooding(balls, up, way_out), rel=0.07, abs=0.07)

    def test_below_a_pass_the_lower_humps_air_is_not_counted_again(self):
        mesh = humps(self.GAP, 10.0, 9.0)
        whole = measures(mesh).volume_mm3 / 1000
        points = high_points(mesh, np.array([0.0, 0.0, 1.0]), [], 0.05)
        assert len(points) == 2 and sum(p.trapped_ml for p in points) == pytest.approx(
            whole, rel=1e-3
        )  # no way out at all: every millilitre once

    def test_a_ball_filled_at_its_side_holds_half_of_it(self):
        ball = solid(manifold3d.Manifold.sphere(10.0, 96))
        up = np.array([0.0, 0.0, 1.0])
        assert high_points(ball, up, [(0, 0, 10.0)]) == ()
        (found,) = high_points(ball, up, [(10.0, 0, 0)])
        assert (
            found.trapped_ml == pytest.approx(2 / 3 * pi, rel=0.01)
            and found.rise_mm == pytest.approx(10, rel=0.02)
            and found.place_mm[2] == pytest.approx(10, rel=0.01)
        )

    def test_the_second_hump_holds_what_lies_over_the_pass(self):
        for small in (8.0, 9.0):  # humps of two sizes: which of them traps, and which goes on, is told apart
            at = (self.R**2 - small**2 + self.GAP**2) / (
                2 * self.GAP
            )  # of the meeting ring from the large one's middle
            high = small - sqrt(self.R**2 - at**2)
            (found,) = high_points(
                humps(self.GAP, self.R, small), np.array([0.0, 0.0, 1.0]), [(self.GAP / 2, 0, self.R)]
            )
            assert found.trapped_ml == pytest.approx(pi * high**2 * (3 * small - high) / 3000, rel=0.05)
            assert found.rise_mm == pytest.approx(high, abs=0.1) and found.place_mm[0] == pytest.approx(
                -self.GAP / 2, abs=0.7
            )
            (large,) = high_points(
                humps(self.GAP, self.R, small), np.array([0.0, 0.0, 1.0]), [(-self.GAP / 2, 0, small)]
            )
            over = self.R - small  # above the small one's top, where the air leaves, and down to the pass
            rise = self.R - sqrt(self.R**2 - at**2)
            assert (
                large.place_mm[0] == pytest.approx(self.GAP / 2, abs=0.7)
                and large.rise_mm == pytest.approx(rise, abs=0.1)
                and large.rise_mm > over
            )
            assert large.trapped_ml == pytest.approx(pi * rise**2 * (3 * self.R - rise) / 3000, rel=0.05)

    @pytest.mark.parametrize("tilt", [10.0, 20.0, 30.0])
    def test_tilted_the_lower_hump_holds_a_smaller_cap(self, tilt):
        up = up_of("flat", tilt)  # lifts the +x hump; its top is the way out
        waist = sqrt(self.R**2 - (self.GAP / 2) ** 2) * np.cos(
            np.radians(tilt)
        )  # the ring where the balls meet, its highest point
        low_top = -self.GAP / 2 * np.sin(np.radians(tilt)) + self.R
        high = low_top - waist
        top = (self.GAP / 2 + self.R * up[0], 0.0, self.R * up[2])
        (found,) = high_points(humps(self.GAP), up, [top], 0.05)
        assert found.rise_mm == pytest.approx(high, abs=0.12)
        assert found.trapped_ml == pytest.approx(
            pi * high**2 * (3 * self.R - high) / 3000, rel=0.12, abs=0.003
        )

    def test_tilted_far_enough_it_drains_and_a_bump_below_the_height_is_ignored(self):
        far = degrees(atan(self.GAP / 2 / sqrt(self.R**2 - (self.GAP / 2) ** 2))) + 3
        up = up_of("flat", far)
        top = (self.GAP / 2 + self.R * up[0], 0.0, self.R * up[2])
        assert high_points(humps(self.GAP), up, [top]) == ()
        assert high_points(humps(self.GAP), np.array([0.0, 0.0, 1.0]), [(self.GAP / 2, 0, self.R)], 5.0) == ()

    def test_the_search_finds_a_tilt_without_vents(self):
        found = fewest_vents(humps(self.GAP), "flat", [(self.GAP / 2 + 7.1, 0, 7.1)], step_deg=15)
        assert found[0].vents == 0 and found[0].tilt_deg > 0 and found[-1].vents >= 1

    @pytest.mark.parametrize("shape", VENT_SHAPES)
    def test_a_vent_of_any_shape_is_as_large_as_it_says_and_as_wide_in_the_parting(self, shape):
        vent = Vent("v1", 0.0, 0.0, 0.0, 3.0, shape)
        outline = np.array(vent.section_mm)
        x, y = outline.T
        assert abs(np.dot(x, np.roll(y, -1)) - np.dot(y, np.roll(x, -1))) / 2 == pytest.approx(
            vent.area_mm2, rel=0.012
        )
        assert np.ptp(y) == pytest.approx(3.0) and np.ptp(x) <= 3.0 + 1e-9

    def test_suggested_vents_let_all_air_out(self):
        m = mould(tilt_deg=90.0)
        air = look(m).points
        assert air and "holds air" in verdict(m, look(m)) or "Air stays" in verdict(m, look(m))
        around = replace(
            m,
            tilt_deg=0.0,
            cavities=(m.cavities[0], CavitySpot("c2", m.cavities[0].x_mm, m.cavities[0].y_mm + 60, 180.0)),
        )
        seen_so = look(around)  # upright it drains into its funnel; its neighbour stands on its head
        assert (
            seen_so.points == ()
            and [turn for turn, _ in seen_so.turned] == [180.0]
            and "Turned 180°" in verdict(around, seen_so)
        )
        assert sum(p.trapped_ml for p in seen_so.turned[0][1]) == pytest.approx(cavity_ml(m), rel=0.02)
        vented = replace(m, vents=tuple(Vent(f"v{n}", *p.place_mm) for n, p in enumerate(air)))
        assert look(vented).points == ()


class TestPrinted:
    @pytest.mark.parametrize(
        "change",
        [
            {},
            {"count": 2, "vents": (Vent("v1", 0.0, 15.0, 0.0),), "tilt_deg": 90.0},
            {"slant_deg": 8.0, "floor_mm": 20.0, "cover_mm": 20.0},
            {"keys": Keys(6, gap_mm=0.25, second_high_mm=5.0)},
            {"keys": Keys(4, proud=False)},
            {"keys": Keys(0)},
            {"kind": "press", "wells": (Well("w1", 52.0, 6.0),)},
            {"parting_mm": 3.0},
            {"pull": "back", "stand": "flat", "vents": (Vent("v1", 0.0, 0.0, 14.0),)},
        ],
    )
    def test_halves_are_watertight_and_add_up_with_the_cavity(self, change):
        m = mould(**change)
        steps = []
        parts, total = printed_halves(m, lambda share, says: steps.append(share))
        for part in parts:
            mesh = trimesh.Trimesh(part.mesh.vertices, part.mesh.faces)
            assert mesh.is_watertight and mesh.volume / 1000 == pytest.approx(part.volume_ml, rel=1e-5)
            assert part.mesh.vertices.min() == pytest.approx(0.0, abs=1e-6) and part.note
        assert total.off < 1e-3 and steps == sorted(steps) and steps[-1] > 0.8
        assert total.block_ml == pytest.approx(box(m).volume_ml, rel=1e-6)
        assert (total.play_ml > 0) == (m.keys.gap_mm > 0)

    @pytest.mark.parametrize("slant", [0.0, 8.0, -14.0])
    @pytest.mark.parametrize("proud", [True, False])
    def test_keys_stand_on_the_parting_however_it_leans(self, slant, proud):
        m = mould(slant_deg=slant, floor_mm=30.0, cover_mm=30.0, keys=Keys(4, 8.0, 3.0, proud=proud))
        with_keys, without = (
            printed_halves(replace(m, keys=replace(m.keys, count=count)))[0] for count in (4, 0)
        )
        ball = (4.0**2 + 3.0**2) / 6.0
        high = ball - (ball - 3.0) * np.cos(np.radians(slant))
        keys = 4 * pi * high**2 * (3 * ball - high) / 3000
        for way, one, other in zip((1, -1) if proud else (-1, 1), with_keys, without, strict=True):
            assert one.volume_ml - other.volume_ml == pytest.approx(way * keys, rel=0.01)

    @pytest.mark.parametrize(
        "change",
        [
            {"count": 2},
            {"tilt_deg": 90.0, "vents": (Vent("v1", 0.0, 15.0, 0.0, 4.0),)},
            {"pull": "back", "stand": "flat", "vents": (Vent("v1", 0.0, 0.0, 15.0, 4.0),)},
            *({"tilt_deg": 90.0, "vents": (Vent("v1", 0.0, 15.0, 0.0, 6.0, one),)} for one in VENT_SHAPES),
        ],
    )
    def test_they_agree_with_what_silicone_would_take(self, change):
        m = mould(**change)
        parts, _ = printed_halves(m)
        for part, half in zip(parts, halves(m), strict=True):
            assert part.volume_ml == pytest.approx(half.pour_ml, rel=2e-3)

    def test_an_open_mould_is_one_block_open_on_top(self):
        half = Master("half", solid(solid_of(MASTER.mesh).trim_by_plane((0, 0, 1), 0)), VOLUME / 2)
        m = mould(master=half, kind="open", pull="back", stand="flat")
        (block,), total = printed_halves(m)
        assert total.off < 1e-3 and block.volume_ml == pytest.approx(halves(m)[0].pour_ml, rel=3e-3)
        mesh = trimesh.Trimesh(block.mesh.vertices, block.mesh.faces)
        assert mesh.is_watertight and mesh.euler_number == 2
        top = block.mesh.vertices[:, 2].max()
        assert (
            look(m).points == ()
            and seen(block.mesh)[1] == pytest.approx(box(m).area_mm2, rel=1e-4)
            and top == pytest.approx(box(m).high_mm)
        )

    def test_cavities_in_each_other_and_a_broken_master_are_refused_with_the_place(self):
        m = mould(count=2)
        with pytest.raises(Refused, match="run into each other"):
            printed_halves(
                replace(m, cavities=(m.cavities[0], replace(m.cavities[1], y_mm=m.cavities[0].y_mm + 5)))
            )
        cube = box_mesh(20, 10, 10)
        torn = Mesh(cube.vertices, cube.faces[:-1])
        with pytest.raises(Refused, match=r"broken near \(\d+\.\d, .*\) mm"):
            solid_of(torn)


class TestRest:
    def test_a_press_mould_says_how_much_room_is_missing(self):
        m = mould(kind="press", overfill_ml=20.0, wells=(Well("w1", 52.0, 6.0),))
        found = pressed(m)
        assert found.missing_ml == pytest.approx(
            20 - cap_mm3(5, 4) / 1000 - box(m).area_mm2 * 0.3 / 1000
        ) and "run over" in tell(found.says)
        assert pressed(replace(m, overfill_ml=0.5)).missing_ml == 0 and "Not over-filled" in tell(
            pressed(replace(m, overfill_ml=0.0)).says
        )

    def test_heat_shrinkage_and_level(self):
        assert (
            not heat("printed PLA", 50.0, 172.0).stands
            and heat("silicone", 180.0, 172.0).stands
            and "°F" in tell(heat("silicone", 220.0, 172.0).says)
        )
        over = heat("silicone", 180.0, 177.0)
        assert (
            not over.stands
            and over.over_c == pytest.approx(2.0)
            and "2 °C over what silicone may take: it stands 180 °C, less 5 °C" in tell(over.says)
        )
        assert heat("silicone", 180.0, 177.0, 0.0).stands and heat("silicone", 180.0, 175.0).stands
        unknown = heat("this mould", None, 150.0)
        assert not unknown.stands and unknown.over_c is None and "nobody has said" in tell(unknown.says)
        table = limits({"plaster, dried": 200.0})
        assert (
            limit_of("Plaster, dried", None, table) == 200.0
            and limit_of("silicone", 170.0, table) == 170.0
            and limit_of("wax", None, table) is None
        )
        with pytest.raises(Refused, match="allowed is"):
            limits({"wax": 5.0})
        found = shrinkage(20.0, 1.5, 0.5)
        assert found.shrinks_ml == pytest.approx(20 * (1 - 0.985**3)) and found.short_ml == pytest.approx(
            found.shrinks_ml - 0.5
        )
        assert level_error_mm(100.0, 1.0) == pytest.approx(1.7455, rel=1e-4)

    @pytest.mark.parametrize(
        ("poured", "against", "may", "release"),
        [
            ("addition silicone", "sulphur clay", False, False),
            ("addition silicone", "condensation silicone", False, False),
            ("addition silicone", "addition silicone", True, True),
            ("urethane resin", "condensation silicone", True, False),
            ("epoxy", "metal", True, True),
            ("plastisol", "wood", True, True),
            ("condensation silicone", "metal", True, False),
        ],
    )
    def test_what_may_touch_what(self, poured, against, may, release):
        found = touch(poured, against)
        assert (found.may, found.release) == (may, release) and found.says
        with pytest.raises(Refused, match="one of"):
            touch("cheese", against)

    def test_faults_are_counted_per_casting_and_version(self):
        found = tallies([(1, [["pinholes"], []]), (1, [["pinholes", "short"], []]), (2, [[], []])])
        assert [(t.key, t.count, t.share) for t in found[1]] == [
            ("pinholes", 2, 0.5),
            ("short", 1, 0.25),
        ] and found[2] == ()
        assert tuple(faults_said.FAULTS) == FAULTS
        assert all(fault.causes and fault.remedies for fault in faults_said.FAULTS.values())

    @pytest.mark.parametrize(
        ("expected", "done", "last", "says"),
        [
            (3, 1, False, "2 more"),
            (3, 2, True, "durable copy first"),
            (1, 1, True, "durable copy"),
            (None, 4, False, "not noted"),
        ],
    )
    def test_a_masters_last_demoulding_warns(self, expected, done, last, says):
        use = MasterUse(expected, done)
        assert use.last is last and says in tell(use.says)

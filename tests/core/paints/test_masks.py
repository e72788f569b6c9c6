"""Masks stay on the skin and cover what they say, whatever the body; figures of places mean what they say."""

from dataclasses import replace

import numpy as np
import pytest

from lamsik.core.errors import Refused
from lamsik.core.paints import outlines
from lamsik.core.paints.kinds import KINDS
from lamsik.core.paints.laid import anchors_of, covered, laid
from lamsik.core.paints.layers import begun
from lamsik.core.paints.masks import SHAPES, mask
from lamsik.core.paints.place import OUTLINES, SHAPE_NAMES, Along, Anchors, Place, Round
from lamsik.core.paints.skin import COARSE, FINE, skin_of
from lamsik.core.shapes.solid import solid
from tests.bodies import bait, straight
from tests.core.paints.test_skin import BODIES

TUBE = straight(100, 10, 10)
GIRTH = np.pi * 10
EMPTY = Anchors()
SIDES = ("left", "right")


def taken(place, body, cells=FINE, anchors=EMPTY):
    """Surface [mm²] that a place takes of the sides of a body."""
    skin = skin_of(body, cells)
    masks = mask(place, skin, anchors)
    return sum(float((masks[one.name] * one.area_mm2).sum()) for one in skin.sides if one.name in masks)


def test_every_shape_is_registered_and_every_outline_drawn():
    assert set(SHAPES) == set(SHAPE_NAMES) and set(outlines.SHAPES) == set(OUTLINES)
    assert {kind.start.get("place", Place()).shape for kind in KINDS.values()} == set(SHAPES)


@pytest.mark.parametrize("name", BODIES)
def test_every_kind_stays_on_the_skin_of_every_body(name):
    body = BODIES[name]
    anchors, skin = anchors_of([begun("eyes", "e")], body), skin_of(body, COARSE)
    for kind in KINDS:
        place = begun(kind, "k").place
        for cover in mask(place, skin, anchors).values():
            assert np.isfinite(cover).all() and cover.min() >= 0.0 and cover.max() <= 1.0 + 1e-9
        on = laid(begun(kind, "k"), body, anchors)
        assert 0 < on.share <= 1.0 and on.mass_g > 0
        low, high = skin.sides[0].corners.min(axis=(0, 1)), skin.sides[0].corners.max(axis=(0, 1))
        assert low[0] <= on.at_mm[0] <= high[0] and low[2] <= on.at_mm[2] <= high[2]


STRETCH = Place(begins=Along(at_percent=20.0), ends=Along("tail", -30.0))


@pytest.mark.parametrize("name", BODIES)
@pytest.mark.parametrize("shape", ["net", "weave", "veins", "splatter"])
@pytest.mark.parametrize("share", [15.0, 60.0])
def test_what_shares_the_area_covers_what_it_says(name, shape, share):
    body = BODIES[name]
    where = replace(STRETCH, bottom=Round(at_percent=70.0))
    whole = taken(where, body)
    size = 0.12 * body.length_mm if shape == "veins" else 0.05 * body.length_mm
    part = taken(replace(where, shape=shape, size_mm=size, cover_percent=share), body)
    assert part / whole == pytest.approx(share / 100, abs=0.005)


@pytest.mark.parametrize(
    ("place", "area"),
    [
        (STRETCH, 50 * 2 * GIRTH),
        (replace(STRETCH, bottom=Round(at_percent=40.0)), 50 * 2 * GIRTH * 0.4),
        (replace(STRETCH, top=Round("keel", -25.0)), 50 * 2 * GIRTH * 0.25),
        (replace(STRETCH, edge_percent=60.0), (50 - 0.6 * 50 / 2) * 2 * GIRTH),
        (Place(bottom=Round(at_percent=50.0), edge_percent=50.0), 100 * 2 * GIRTH * 0.5 * 0.75),
        (replace(STRETCH, side="left"), 50 * GIRTH),
        (replace(STRETCH, cover_percent=30.0), 50 * 2 * GIRTH * 0.3),
        (replace(STRETCH, begins=Along(more_mm=12.5), ends=Along(more_mm=20.0)), 7.5 * 2 * GIRTH),
        (replace(STRETCH, bottom=Round(more_mm=6.0)), 50 * 2 * 6.0),
        (
            Place("bars", Along(), Along("tail"), count=5, size_percent=50.0),
            100 * 2 * GIRTH * 0.5 * (1 + 0.25) / 2,
        ),
        (Place("spots", *(Along(at_percent=p) for p in (10, 90)), count=6, size_mm=4.0), 12 * np.pi * 4),
        (Place("disc", Along(at_percent=50.0), top=Round(at_percent=50.0), size_mm=5.0), 2 * np.pi * 6.25),
        (
            Place("stencil", Along(at_percent=50.0), top=Round(at_percent=50.0), size_mm=9.0, outline="star"),
            2 * 81 * outlines.area(outlines.SHAPES["star"]),
        ),
    ],
    ids=lambda value: "" if isinstance(value, float) else value.shape,
)
def test_areas_on_a_tube_are_those_of_the_drawing(place, area):
    for cells in (FINE, COARSE):
        assert taken(place, TUBE, cells) == pytest.approx(area, rel=0.005)


CUT = {"antenna", "jointed", "mesh, jointed"}
"""Bodies too slim for such marks where they lie, and sawn through there."""


@pytest.mark.parametrize("name", sorted(set(BODIES) - CUT))
@pytest.mark.parametrize(
    ("place", "area"),
    [
        (Place("disc", Along(at_percent=45.0), top=Round(at_percent=50.0), size_mm=4.0), np.pi * 4),
        (Place("spots", *(Along(at_percent=p) for p in (30, 60)), count=5, size_mm=3.0), 5 * np.pi * 2.25),
        (
            Place("stencil", Along(at_percent=45.0), top=Round(at_percent=50.0), size_mm=5.0, outline="fin"),
            25 * outlines.area(outlines.SHAPES["fin"]),
        ),
    ],
    ids=["disc", "spots", "stencil"],
)
def test_a_mark_takes_what_it_says_on_every_body_however_coarse_its_cells(name, place, area):
    for cells in (FINE, COARSE):
        on_left = taken(replace(place, side="left"), BODIES[name], cells)
        assert on_left == pytest.approx(area, rel=0.005), cells


def test_a_mark_is_as_large_where_the_body_is_slim_or_deep():
    spot = Place("disc", Along(at_percent=30.0), top=Round(at_percent=45.0), size_mm=4.0)
    areas = [taken(replace(spot, begins=Along(at_percent=at)), bait().body) for at in (12.0, 40.0, 75.0)]
    assert areas == pytest.approx([2 * np.pi * 4] * 3, rel=0.005)


def test_a_place_goes_along_with_its_anchor():
    jointed = BODIES["jointed"]
    at = Anchors(eye_mm=8.0, eye_round=0.4, joints_mm=(40.0, 62.0), hangers_mm=(35.0,))
    stations = {"nose": 0.0, "eye": 8.0, "tail": 90.0, "joint": 40.0, "hanger": 35.0}
    for anchor, x in stations.items():
        assert at.x_mm(Along(anchor, 0.0), 90.0) == x
    assert at.x_mm(Along("eye", 10.0, 2.5), 90.0) == pytest.approx(19.5)
    assert at.x_mm(Along("nose", -20.0), 90.0) == 0.0 and at.x_mm(Along("tail", 20.0), 90.0) == 90.0
    assert at.round_share(Round("eye", 10.0, 3.0), 30.0) == pytest.approx(0.6)
    assert at.round_share(Round("keel", 10.0), 30.0) == 1.0
    assert at.lacks(Place(begins=Along("joint"))) == () == EMPTY.lacks(Place())
    assert EMPTY.lacks(Place(begins=Along("joint"), ends=Along("hanger"))) == ("joint", "hanger")
    gill, eyes = begun("gill", "g"), begun("eyes", "e")
    moved = replace(eyes, place=replace(eyes.place, begins=Along(at_percent=30.0)))
    first, then = (covered(gill.place, jointed, anchors_of([one], jointed)).at_mm[0] for one in (eyes, moved))
    assert then - first == pytest.approx(0.215 * 90, abs=1.0)


def test_one_scheme_fits_a_longer_and_deeper_body():
    short, long = straight(80, 6, 6), straight(160, 12, 12)
    for kind in ("fade", "bars", "band", "foil", "eyes"):
        place = begun(kind, "k").place
        shares = [covered(place, body, EMPTY, FINE).share for body in (short, long)]
        assert shares[0] == pytest.approx(shares[1], rel=0.02), kind


def test_a_layer_weighs_where_it_lies():
    body = bait().body
    assert covered(Place(), body, EMPTY).at_mm == solid(body).area_centroid_mm
    back, belly = (
        covered(Place(**{edge: Round(at_percent=50.0)}), body, EMPTY) for edge in ("bottom", "top")
    )
    assert back.at_mm[2] > 3 > -3 > belly.at_mm[2] and back.share + belly.share == pytest.approx(
        1.0, rel=1e-6
    )
    head = covered(Place(ends=Along(at_percent=25.0)), body, EMPTY)
    assert head.at_mm[0] < 0.2 * body.length_mm
    left, right = (covered(Place(side=side), body, EMPTY) for side in SIDES)
    assert left.at_mm[1] == pytest.approx(-right.at_mm[1]) and left.at_mm[1] < -2
    assert left.share == pytest.approx(0.5)


def test_chance_falls_the_same_way_again_and_another_way_with_another_throw():
    skin = skin_of(bait().body, COARSE)
    place = begun("splatter", "s").place
    once, again, other = (mask(one, skin, EMPTY)["left"] for one in (place, place, replace(place, seed=2)))
    assert (once == again).all() and (once != other).any()


def test_marks_stay_out_of_joints_and_what_lies_all_over_goes_in():
    skin = skin_of(BODIES["jointed"], COARSE)
    assert "j1 fore" in mask(Place(), skin, EMPTY)
    for place in (begun("bars", "b").place, begun("fade", "f").place):
        assert "j1 fore" not in mask(place, skin, EMPTY)
    popper = skin_of(straight(80, 8, 5), COARSE)
    assert mask(begun("fade", "f").place, popper, EMPTY)["nose"].max() == 1.0
    half = mask(Place(side="left"), popper, EMPTY)["nose"]
    assert half.min() == half.max() == 0.5


@pytest.mark.parametrize(
    ("field", "value"),
    [
        ("cover_percent", 101.0),
        ("count", 61),
        ("slant_deg", 90.0),
        ("shape", "blob"),
        ("side", "top"),
        ("outline", "x"),
    ],
)
def test_a_place_that_cannot_be_is_refused(field, value):
    with pytest.raises(Refused, match=field):
        Place(**{field: value})


def test_a_star_is_inside_itself():
    points = outlines.SHAPES["star"]
    assert outlines.distance(points, np.array([0.0]), np.array([0.0]))[0] < 0
    assert outlines.distance(points, np.array([2.0]), np.array([0.0]))[0] == pytest.approx(1.52, abs=0.05)
    grid = np.linspace(-0.6, 0.6, 601)
    for name, outline in outlines.SHAPES.items():
        x, y = np.meshgrid(grid, grid)
        inside = (outlines.distance(outline, x, y) < 0).mean() * 1.2**2
        assert inside == pytest.approx(outlines.area(outline), rel=0.02), name


def test_a_layer_of_a_jointed_bait_lies_on_its_segments():
    jointed = BODIES["jointed"]
    head = covered(Place(ends=Along(at_percent=30.0)), jointed, EMPTY)
    assert [key for key, _, _ in head.segments] == ["s1"]
    fade = covered(begun("fade", "f").place, jointed, EMPTY)
    keys, shares, middles = zip(*fade.segments, strict=True)
    assert keys == ("s1", "s2", "s3") and sum(shares) == pytest.approx(1.0)
    assert np.average(middles, axis=0, weights=shares) == pytest.approx(fade.at_mm)
    assert middles[0][0] < 40 < middles[1][0] < 62 < middles[2][0]
    assert covered(begun("fade", "f").place, bait().body, EMPTY).segments == ()
    assert covered(Place(), jointed, EMPTY).segments == ()


@pytest.mark.parametrize("kind", ["bars", "spots"])
def test_no_marks_are_none(kind):
    place = replace(begun(kind, "k").place, count=0)
    assert covered(place, bait().body, EMPTY).share == 0

"""Skin laid flat: what can be unrolled is exact; stencils take what their layer takes, lie, hold together."""

from dataclasses import replace
from functools import cache

import numpy as np
import pytest
from scipy import ndimage

from lamsik.core.paints.cuts import OVER_MM, cut_of, cuts_of
from lamsik.core.paints.flatten import flattened
from lamsik.core.paints.laid import laid
from lamsik.core.paints.layers import begun
from lamsik.core.paints.masks import mask
from lamsik.core.paints.place import Along, Anchors, Place, Round
from lamsik.core.paints.skin import CLOSE, skin_of
from lamsik.core.paints.stencils import LEAST, MOST, can_be_cut, collar, stencil
from lamsik.core.paints.zones import zones_on
from lamsik.core.shapes.joints import Joint
from tests.bodies import bait
from tests.core.paints.test_skin import BODIES
from tests.refusing import refusing

BODY = bait().body
EYE = Anchors(eye_mm=12.0)
KINDS = ("bars", "spots", "gill", "fin", "stencil", "band", "scales")


@cache
def made(kind, body=BODY):
    return stencil(begun(kind, "k1"), body, EYE)


def grid(count, of):
    u, v = np.meshgrid(np.linspace(0, 1, count), np.linspace(0, 1, count), indexing="ij")
    points = np.stack(of(u, v), -1).reshape(-1, 3)
    a = (np.arange(count - 1)[:, None] * count + np.arange(count - 1)).ravel()
    faces = [(a, a + count, a + count + 1), (a, a + count + 1, a + 1)]
    return points, np.concatenate([np.stack(row, axis=-1) for row in faces])


def area(points):
    x, y = points[:, 0], points[:, 1]
    return float(x @ np.roll(y, -1) - y @ np.roll(x, -1)) / 2


def lengths(points, faces):
    return np.linalg.norm(points[faces] - points[np.roll(faces, 1, axis=1)], axis=-1)


@pytest.mark.parametrize(
    "of",
    [
        lambda u, v: (60 * u, 12 * np.sin(2 * v), 12 * np.cos(2 * v)),
        lambda u, v: (60 * u, (4 + 10 * u) * np.sin(2 * v), (4 + 10 * u) * np.cos(2 * v)),
        lambda u, v: (60 * u, 0 * u, 20 * v),
    ],
    ids=["cylinder", "cone", "plane"],
)
def test_what_can_be_unrolled_comes_out_exact(of):
    points, faces = grid(24, of)
    flat = flattened(points, faces)
    assert lengths(flat.points, flat.faces) == pytest.approx(lengths(points, faces), rel=1e-4)
    assert flat.stretch == pytest.approx(1.0, abs=1e-4)


def test_a_ball_keeps_its_area_and_is_stretched_little():
    points, faces = grid(
        30,
        lambda u, v: (
            20 * np.cos(0.6 + u),
            20 * np.sin(0.6 + u) * np.cos(v),
            20 * np.sin(0.6 + u) * np.sin(v),
        ),
    )
    flat = flattened(points, faces)
    corners = points[faces]
    whole = np.linalg.norm(np.cross(corners[:, 1] - corners[:, 0], corners[:, 2] - corners[:, 0]), axis=1)
    now = sum(area(flat.points[face]) for face in flat.faces)
    assert now == pytest.approx(whole.sum() / 2, rel=1e-6)
    assert 0.95 < flat.stretch.min() < 1 < flat.stretch.max() < 1.06
    moved = flattened(points @ np.linalg.qr(np.random.default_rng(1).normal(size=(3, 3)))[0] + 9.0, faces)
    assert np.sort(moved.stretch.ravel()) == pytest.approx(np.sort(flat.stretch.ravel()), abs=1e-4)


@pytest.mark.parametrize("kind", KINDS)
def test_what_is_cut_out_is_as_large_as_what_the_layer_takes(kind):
    one, layer = made(kind), begun(kind, "k1")
    cut = abs(sum(area(row) for row in one.openings))
    assert cut == pytest.approx(laid(layer, BODY, EYE).area_mm2 / 2, rel=0.15 if kind == "gill" else 0.04)
    assert one.lies and LEAST <= one.least <= one.most <= MOST


@pytest.mark.parametrize("body", BODIES.values(), ids=BODIES)
def test_on_every_body_it_lies_or_is_said_not_to(body):
    one = made("bars", body)
    low, high = one.outline.min(axis=0) - 0.3, one.outline.max(axis=0) + 0.3
    assert all((row >= low).all() and (row <= high).all() for row in one.openings)
    assert len(one.openings) >= 5 and one.lies == (one.least >= LEAST and one.most <= MOST)
    assert one.slits <= 12 and area(one.outline) != 0


def test_islands_are_held_by_bridges_and_none_falls_out():
    ring = replace(
        begun("lettering", "w"),
        place=Place(
            shape="letters",
            begins=Along(at_percent=50.0),
            top=Round(at_percent=50.0),
            size_mm=9.0,
            words="OI",
            side="left",
        ),
    )
    one = stencil(ring, BODY, EYE)
    assert one.bridges == 2 and len(one.openings) == 3  # an O in two halves, an I
    signs = {np.sign(area(row)) for row in one.openings}
    assert len(signs) == 1  # no opening has a piece of card within it


def test_the_twin_is_its_mirror_and_marks_say_where_it_lies():
    one = made("bars")
    twin = one.twin
    assert (one.side, twin.side) == ("left", "right") and twin.twin.outline == pytest.approx(one.outline)
    assert area(twin.outline) == pytest.approx(-area(one.outline)) and one.is_back
    band = made("band")
    assert band.eye is not None and band.outline[:, 0].min() <= band.eye[0] <= band.outline[:, 0].max()
    fin = begun("fin", "f")
    assert stencil(replace(fin, place=replace(fin.place, side="right")), BODY, EYE).side == "right"


@pytest.mark.parametrize("kind", ["base", "net", "splatter", "eyes", "fade", "clear"])
def test_what_has_no_edges_is_not_cut(kind):
    layer = begun(kind, "k1")
    assert not can_be_cut(layer)
    with refusing("marks with edges"):
        stencil(layer, BODY, EYE)


def test_marks_that_lie_beside_the_skin_are_told():
    spot = begun("spots", "s")
    off = replace(spot, place=replace(spot.place, count=0))
    with refusing("marks that lie on the skin"):
        stencil(off, BODY, EYE)


def jointed(at_mm=45.0, slant_deg=0.0):
    design = bait()
    return replace(design, body=replace(design.body, joints=(Joint("j1", at_mm, slant_deg),)))


def test_scales_stand_in_rows_that_take_turns_with_card_between_them():
    one = made("scales")
    assert one.bridges == 0 and len(one.openings) > 40
    middles = np.array([row.mean(axis=0) for row in one.openings if abs(area(row)) > 1.0])
    gaps = np.linalg.norm(middles[:, None] - middles[None], axis=-1) + 99.0 * np.eye(len(middles))
    assert np.median(gaps.min(axis=1)) == pytest.approx(5.0 / np.sqrt(2), rel=0.12)  # the next row, half on
    assert ndimage_count(begun("scales", "k1")) == pytest.approx(
        len(one.openings), abs=3
    )  # none runs into another


def ndimage_count(layer):
    cover = mask(layer.place, skin_of(BODY, CLOSE), EYE)["left"]
    return ndimage.label(cover > 0.5, structure=np.ones((3, 3)))[1]


def test_wider_scales_are_fewer_and_as_large_as_their_area_says():
    fine, wide = (
        replace(begun("scales", "k"), place=replace(begun("scales", "k").place, size_mm=size))
        for size in (4.0, 8.0)
    )
    taken = [laid(one, BODY, EYE).area_mm2 for one in (fine, wide)]
    assert taken[0] == pytest.approx(taken[1], rel=0.1)  # a share of the stretch, however large they are
    assert ndimage_count(fine) > 3 * ndimage_count(wide)


@pytest.mark.parametrize("slant", [0.0, 20.0])
def test_a_joint_is_masked_on_both_sides_from_back_to_keel(slant):
    design = jointed(slant_deg=slant)
    cut = next(one for one in cuts_of(design) if one.kind == "joint")
    named, (left, right) = cut_of(design, cut.key)
    assert (
        named == cut and (left.side, right.side) == ("left", "right") and left.openings == () and left.is_back
    )
    zone = next(one for one in zones_on(design) if one.key == cut.key)
    wide = zone.to_mm - zone.from_mm + 2 * OVER_MM
    reach = np.ptp(left.outline, axis=0)
    assert reach[0] == pytest.approx(wide, rel=0.1) and left.lies
    sheet = skin_of(design.body, CLOSE).sides[0]
    within = (sheet.x_mm[:, 0] > zone.from_mm - OVER_MM) & (sheet.x_mm[:, 0] < zone.to_mm + OVER_MM)
    assert reach[1] == pytest.approx(sheet.girth_mm[within].max(), rel=0.02)  # half the girth
    whole = sheet.girth_mm[within].mean() * wide  # the gap of the joint is covered too
    assert abs(area(left.outline)) == pytest.approx(whole, rel=0.06)


def test_a_joint_where_the_body_is_too_thin_is_told():
    with refusing("marks that lie on the skin"):
        collar(BODY, 0.0, 0.05, EYE)


def test_the_lip_is_taped_as_far_as_it_stands_out_on_both_faces():
    design = bait()
    _, (upper, lower) = cut_of(design, "lip")
    lip = design.lip
    assert (upper.side, lower.side) == ("upper", "lower") and upper.is_nose_left and not lower.is_nose_left
    bare = replace(lip, inset_mm=0.0)
    assert abs(area(upper.outline)) == pytest.approx(bare.plate_ml * 1000.0 / lip.thickness_mm, rel=1e-3)
    assert np.ptp(upper.outline, axis=0) == pytest.approx([lip.length_mm, lip.width_mm], rel=1e-3)
    assert (upper.least, upper.most) == (1.0, 1.0)
    root, tip = upper.outline[:, 0] > lip.length_mm - 0.01, upper.outline[:, 0] < 0.01
    assert np.ptp(upper.outline[root, 1]) > 0.5 * lip.width_mm  # the straight edge, against the body
    assert np.ptp(upper.outline[tip, 1]) < 0.5 * lip.width_mm


def test_what_is_not_there_is_told_and_what_is_is_listed():
    design = replace(bait(), lip=None, layers=(begun("base", "b"), begun("bars", "k")))
    assert [one.key for one in cuts_of(design)] == ["k"]
    for key in ("lip", "joint:j1", "body"):
        with refusing("one of k"):
            cut_of(design, key)
    assert len(cut_of(design, "k")[1]) == 2
    lone = replace(begun("bars", "k"), place=replace(begun("bars", "k").place, side="left"))
    assert len(cut_of(replace(design, layers=(lone,)), "k")[1]) == 1

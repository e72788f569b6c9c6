"""Skin laid flat: what can be unrolled is exact; stencils take what their layer takes, lie, hold together."""

from dataclasses import replace
from functools import cache

import numpy as np
import pytest

from lamsik.core.paints.flatten import flattened
from lamsik.core.paints.laid import laid
from lamsik.core.paints.layers import begun
from lamsik.core.paints.place import Along, Anchors, Place, Round
from lamsik.core.paints.stencils import LEAST, MOST, can_be_cut, stencil
from tests.bodies import bait
from tests.core.paints.test_skin import BODIES
from tests.refusing import refusing

BODY = bait().body
EYE = Anchors(eye_mm=12.0)
KINDS = ("bars", "spots", "gill", "fin", "stencil", "band")


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

"""The solid that is turned in the hand: closed, outward, its colours where its points are."""

from dataclasses import replace

import numpy as np
import pytest

from lamsik.core.paints.laid import anchors_of
from lamsik.core.paints.layers import begun
from lamsik.core.paints.look import looks
from lamsik.core.paints.place import Anchors
from lamsik.core.paints.skin import COARSE, FINE, skin_of
from lamsik.core.paints.solid_skin import hand_solid
from lamsik.core.shapes.joints import Joint
from lamsik.core.shapes.solid import solid
from tests.core.paints.test_skin import BODIES

LAYERS = tuple(begun(kind, kind) for kind in ("primer", "fade", "foil", "eyes", "clear"))


def held(name):
    body = BODIES[name]
    return hand_solid(skin_of(body, COARSE), looks(LAYERS, body, anchors_of(LAYERS, body), COARSE))


@pytest.mark.parametrize("name", ["slim", "popper", "cylinder", "mesh", "slab below"])
def test_it_is_the_body_and_its_faces_look_outward(name):
    made, body = held(name), BODIES[name]
    a, b, c = (made.points[made.faces[:, n]] for n in range(3))
    volume = np.einsum("ij,ij->i", a, np.cross(b, c)).sum() / 6.0
    assert volume == pytest.approx(solid(body).volume_mm3, rel=0.02)
    outward = np.einsum("ij,ij->i", np.cross(b - a, c - a), made.normals[made.faces[:, 0]])
    assert (outward >= -1e-6).mean() > 0.99
    sizes = np.linalg.norm(made.normals, axis=1)
    assert sizes == pytest.approx(np.ones(len(sizes)))
    assert made.faces.max() < len(made.points) < 65536


def test_a_point_has_the_colour_of_its_place():
    made = held("slim")
    high, wide, _ = made.colour.shape
    assert made.shine.shape == made.colour.shape and made.is_glossy
    left = made.points[:, 1] < -1e-6
    assert (made.at[left, 1] <= 0.5 + 1e-9).all() and (
        made.at[~left & (made.points[:, 1] > 1e-6), 1] >= 0.5
    ).all()
    order = np.argsort(made.at[left, 0])
    assert (np.diff(made.points[left][order][:, 0]) > -1.0).all()  # from the nose on
    eye = np.argwhere(made.colour[: high // 2, :, 0].astype(int) - made.colour[: high // 2, :, 2] > 100)
    assert len(eye) and eye[:, 1].mean() / wide < 0.3
    assert (
        made.shine[..., 0].max() == 204 and made.shine[:2, :, 0].max() == 0
    )  # foil on the flank, not the back


def test_saw_cuts_are_dark():
    body = replace(BODIES["slim"], joints=(Joint("j1", 45.0, 0.0, 2.0),))
    painted = looks(LAYERS[:1], body, Anchors(), FINE)
    tones = hand_solid(skin_of(body, FINE), painted).colour.astype(int).sum(axis=2).mean(axis=0)
    dark = np.argwhere(tones < 0.6 * np.median(tones))[:, 0] / len(tones)
    assert 1 <= len(dark) <= 6 and dark == pytest.approx(np.full(len(dark), 0.5), abs=0.02)

"""The Shapes bench: a large mesh from its bytes to a verdict, a photo of 12 megapixels to an outline."""

import hashlib

import numpy as np
import trimesh

from bench.rows import Row, median_ms
from lamsik.core.shapes import skins
from lamsik.core.shapes.clashes import clashes
from lamsik.core.shapes.design import Host
from lamsik.core.shapes.joints import Joint
from lamsik.core.shapes.meshing import measured, turned
from lamsik.core.shapes.solid import segments
from lamsik.core.shapes.tracing import Marks, trace, warm
from lamsik.core.tank import evaluate
from lamsik.core.water import Water
from lamsik.documents.body.document import to_design
from lamsik.documents.body.lines import blank, with_mesh
from lamsik.formats import stl
from lamsik.store.skins import pack
from tests.bodies import bait

WIDE, HIGH = 4000, 3000


def shape_rows() -> list[Row]:
    """Rows of the Shapes bench."""
    sizes = iter([_stl(1.0 + 0.003 * step) for step in range(6)])  # never one it has seen
    photo, marks = (
        _photo(),
        Marks(
            ruler=((500.0, 2800.0), (3500.0, 2800.0)),
            ruler_mm=100.0,
            nose=(500.0, 1500.0),
            tail=(3500.0, 1500.0),
            on=(2000.0, 1500.0),
        ),
    )
    warm()
    cuts = iter(range(1000))
    return [
        Row(
            "STL of 100 000 triangles, bytes to settled verdict",
            1500,
            median_ms(lambda: _verdict(next(sizes)), 5, 1),
        ),
        Row("outline out of a 12 megapixel photo", 2000, median_ms(lambda: trace(photo, marks), 5, 1)),
        Row(
            "segments of a body with two slanted cuts", 60, median_ms(lambda: segments(_cut(next(cuts))), 15)
        ),
        Row("clashes of a bait", 20, median_ms(lambda: clashes.__wrapped__(bait(), 1.0), 15)),
    ]


def _stl(scale: float) -> bytes:
    around, along = 250, 201  # 2 · 250 · 200 = 100 000 triangles
    u, v = np.meshgrid(
        np.linspace(0, 2 * np.pi, around, endpoint=False), np.linspace(0, np.pi, along), indexing="ij"
    )
    points = scale * np.stack(
        [-45 * np.cos(v), 8 * np.sin(v) * np.cos(u), 10 * np.sin(v) * np.sin(u)], axis=-1
    )
    here = np.arange(around)[:, None] * along + np.arange(along - 1)
    beside = np.roll(np.arange(around), -1)[:, None] * along + np.arange(along - 1)
    faces = np.concatenate(
        [
            np.stack([here, beside, beside + 1], -1).reshape(-1, 3),
            np.stack([here, beside + 1, here + 1], -1).reshape(-1, 3),
        ]
    )
    return bytes(trimesh.Trimesh(points.reshape(-1, 3), faces, process=False).export(file_type="stl"))


def _verdict(data: bytes) -> None:
    """From the bytes to every resting position, nothing of it known before."""
    name = hashlib.sha256(data).hexdigest()
    made = measured(turned(stl.read(data).mesh, "-x", "+z", 1.0))
    content = with_mesh(blank("Egg", Host("balsa", 0.16, 0.02, "wood"), Water()), made, name, "egg.stl")
    pack(made.shares)
    skins.keep(name, made.shares)
    misses = evaluate.settle.cache_info().misses
    assert evaluate.settle(to_design(content)).surface, "it floats"
    assert evaluate.settle.cache_info().misses == misses + 1


def _photo() -> np.ndarray:
    y, x = np.mgrid[:HIGH, :WIDE]
    inside = ((x - 2000) / 1500) ** 2 + ((y - 1500) / 350) ** 2 < 1
    noise = np.random.default_rng(2).normal(0, 6, (HIGH, WIDE, 1))
    picture = np.where(inside[..., None], np.array([90, 70, 50]), np.array([225, 222, 214])) + noise
    return np.clip(picture, 0, 255).astype(np.uint8)


def _cut(step: int):
    body = bait().body
    joints = (Joint("j1", 35.0 + 0.01 * step, 12.0), Joint("j2", 62.0, -8.0))
    return type(body)(**{**body.__dict__, "joints": joints})

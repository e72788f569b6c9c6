"""Masters: what a mould is made from. A body revision, a thing weighed in water, a block measured by hand;
turned as it lies in the mould.
"""

from dataclasses import dataclass
from functools import lru_cache
from math import pi

import numpy as np
from scipy.optimize import brentq
from scipy.special import gamma

from lamsik.core.errors import finite_between, require, rule
from lamsik.core.quantities import plainly
from lamsik.core.shapes.body import Body
from lamsik.core.shapes.curves import Array
from lamsik.core.shapes.mesh import body_mesh
from lamsik.core.shapes.polyhedra import joined, measures, segment_meshes, thinned
from lamsik.core.shapes.skins import Mesh, mesh_of
from lamsik.core.shapes.solid import solid
from lamsik.core.shapes.sources import Source

BODY, WEIGHED, BOX = "body", "weighed", "box"
FROM = (BODY, WEIGHED, BOX)
PULLS = ("side", "back", "belly", "nose", "tail")
"""Towards what the upper half is pulled off."""

_TURNS: dict[str, Array] = {
    "side": np.array([[1, 0, 0], [0, 0, 1], [0, -1, 0]], dtype=float),
    "back": np.eye(3),
    "belly": np.array([[1, 0, 0], [0, -1, 0], [0, 0, -1]], dtype=float),
    "nose": np.array([[0, 0, 1], [0, 1, 0], [-1, 0, 0]], dtype=float),
    "tail": np.array([[0, 0, -1], [0, 1, 0], [1, 0, 0]], dtype=float),
}
"""Rotations from the bait's frame (x to the tail, z to the back) to the mould's (z off the lower half)."""


MOST_FACES = 12_000
"""A finer mesh is thinned to compute amounts with."""


@dataclass(frozen=True, eq=False)
class Master:
    """A master in its own frame: closed mesh [mm], true volume [mm³], mass if known [g], where its shape is
    from.

    `stands_in` says that the mesh is a stand-in of the same size and volume: only volumes are to be believed.
    `true_mesh` is what was brought in, where `mesh` was thinned to compute amounts with: what leans in is
    judged on it.
    """

    name: str
    mesh: Mesh
    volume_mm3: float
    mass_g: float | None = None
    source: Source = Source()
    stands_in: bool = False
    true_mesh: Mesh | None = None

    @property
    def volume_ml(self) -> float:
        """True volume [ml]."""
        return self.volume_mm3 / 1000.0


def of_body(name: str, body: Body, mass_g: float | None = None, source: Source | None = None) -> Master:
    """A body as master: its mesh at its true volume."""
    fine = mesh_of(body.skin) if body.skin and not body.joints else None
    true = fine if fine is not None and len(fine.faces) > MOST_FACES else None
    return Master(name, _body_mesh(body), solid(body).volume_mm3, mass_g, source or Source(), true_mesh=true)


@lru_cache(maxsize=32)
def _body_mesh(body: Body) -> Mesh:
    if body.joints:
        mesh = joined(segment_meshes(body, 60, 40))
    elif body.skin:
        mesh = mesh_of(body.skin)
        mesh = thinned(mesh, 64) if len(mesh.faces) > MOST_FACES else mesh
    else:
        mesh = body_mesh(body, 60, 40)
    return _holding(welded(mesh), solid(body).volume_mm3)


def _holding(mesh: Mesh, volume_mm3: float) -> Mesh:
    """The mesh with its sections widened a little so that it holds the true volume; its length stays."""
    middle = (mesh.vertices.max(axis=0) + mesh.vertices.min(axis=0)) / 2
    short = (volume_mm3 / measures(mesh).volume_mm3) ** 0.5
    return Mesh(middle + (mesh.vertices - middle) * np.array([1.0, short, short]), mesh.faces)


def welded(mesh: Mesh) -> Mesh:
    """Corners in one place become one, faces without area go: a mesh fit for cutting."""
    size = float(np.ptp(mesh.vertices, axis=0).max()) or 1.0
    spots = np.round((mesh.vertices - mesh.vertices.min(axis=0)) / (size * 1e-7)).astype(np.int64)
    _, first, back = np.unique(spots, axis=0, return_index=True, return_inverse=True)
    faces = back.reshape(-1)[mesh.faces]
    kept = (faces[:, 0] != faces[:, 1]) & (faces[:, 1] != faces[:, 2]) & (faces[:, 2] != faces[:, 0])
    return Mesh(mesh.vertices[first], faces[kept])


def measured(
    name: str,
    length_mm: float,
    width_mm: float,
    depth_mm: float,
    volume_ml: float | None = None,
    mass_g: float | None = None,
) -> Master:
    """A master of measured size [mm]; with its volume [ml] from the weigh bench a rounded stand-in of that
    volume, without one the block itself.

    Raises:
        Refused: sizes that are none, or a volume that does not fit into them.

    Notes: |x/a|ᵖ + |y/b|ᵖ + |z/c|ᵖ ≤ 1 holds 8abc·Γ(1+1/p)³/Γ(1+3/p); p is found for the volume.
    """
    for what, value in (("length_mm", length_mm), ("width_mm", width_mm), ("depth_mm", depth_mm)):
        finite_between(what, value, 1.0, 600.0, "mm")
    block = length_mm * width_mm * depth_mm
    if volume_ml is None:
        return Master(
            name, _superellipsoid(length_mm, width_mm, depth_mm, 60.0, block), block, mass_g, stands_in=True
        )
    volume = 1000.0 * finite_between("volume_ml", volume_ml, 0.01, 20_000.0, "ml")
    require(
        volume <= 0.995 * block,
        "volume_ml",
        plainly(volume_ml, "volume"),
        rule("block-these", value=block / 1000),
    )
    require(
        volume >= 0.18 * block,
        "volume_ml",
        plainly(volume_ml, "volume"),
        rule("little-block", value=block / 1000),
    )

    def short(p: float) -> float:
        return float(gamma(1 + 1 / p) ** 3 / gamma(1 + 3 / p)) * block - volume

    return Master(
        name,
        _superellipsoid(length_mm, width_mm, depth_mm, float(brentq(short, 1.0, 400.0)), volume),
        volume,
        mass_g,
        stands_in=True,
    )


@lru_cache(maxsize=32)
def _superellipsoid(length: float, width: float, depth: float, p: float, volume: float) -> Mesh:
    """A mesh of rings from nose to tail, z = 0 in the middle, x from 0."""
    rings, around = 33, 40
    polar, turn = np.linspace(0.0, pi, rings), 2 * pi * np.arange(around) / around
    x = -np.cos(polar)
    direction = np.stack(
        np.broadcast_arrays(
            x[:, None], (np.sin(polar)[:, None] * np.cos(turn)), (np.sin(polar)[:, None] * np.sin(turn))
        ),
        axis=-1,
    )
    reach = (np.abs(direction) ** p).sum(axis=-1) ** (-1.0 / p)
    points = (direction * reach[..., None]).reshape(-1, 3) * np.array([length, width, depth]) / 2
    ring, spoke = (v.reshape(-1) for v in np.meshgrid(np.arange(rings - 1), np.arange(around), indexing="ij"))
    a, b = ring * around + spoke, ring * around + (spoke + 1) % around
    faces = np.concatenate(
        [np.stack([a, b, a + around], axis=-1), np.stack([b, b + around, a + around], axis=-1)]
    )
    ellipsoid = welded(Mesh(points, faces[:, ::-1]))
    if measures(ellipsoid).volume_mm3 <= 0:
        ellipsoid = Mesh(ellipsoid.vertices, ellipsoid.faces[:, ::-1])
    ellipsoid = Mesh(ellipsoid.vertices + np.array([length / 2, 0.0, 0.0]), ellipsoid.faces)
    return _holding(ellipsoid, volume)


def shrunk_mesh(mesh: Mesh, percent: float) -> Mesh:
    """The mesh made larger so that what is cast in its mould has the drawn size [% linear shrinkage]."""
    return (
        Mesh(
            mesh.vertices / (1.0 - finite_between("shrink_percent", percent, 0.0, 20.0, "%") / 100.0),
            mesh.faces,
        )
        if percent
        else mesh
    )


def laid(mesh: Mesh, pull: str) -> Mesh:
    """A master's mesh as it lies in the mould: `pull` upward, its middle in the origin."""
    require(pull in PULLS, "pull", pull, rule("one-of", listed=", ".join(PULLS)))
    turned = mesh.vertices @ _TURNS[pull].T
    middle = (turned.max(axis=0) + turned.min(axis=0)) / 2
    return Mesh(turned - middle, mesh.faces)


def laid_at(mesh: Mesh, pull: str, point: Array) -> Array:
    """Where a point beside a mesh lies once the mesh is laid [mm]."""
    turned = mesh.vertices @ _TURNS[pull].T
    return np.asarray(_TURNS[pull] @ point - (turned.max(axis=0) + turned.min(axis=0)) / 2)

"""Bodies brought in as closed meshes: kept once, named by their digest, stretched to the size of the body.

A skin's vertices are shares: x of the length, y of the width, z of the depth. The pool is content-addressed,
so one digest is always the same mesh, whichever shop it came from; `store` fills it before a design is made.
"""

from collections import OrderedDict
from dataclasses import dataclass
from functools import lru_cache

import numpy as np
from numpy.typing import NDArray

from lamsik.core.errors import Refused, rule
from lamsik.core.quantities import file_size
from lamsik.core.shapes.curves import Array

MOST_KEPT = 24


@dataclass(frozen=True, eq=False)
class Mesh:
    """A closed triangle mesh: `vertices` (m, 3) [mm], `faces` (n, 3), outward by the right hand."""

    vertices: Array
    faces: NDArray[np.int64]


@dataclass(frozen=True)
class Skin:
    """A kept mesh at a size [mm]."""

    digest: str
    length_mm: float
    width_mm: float
    depth_mm: float


_POOL: OrderedDict[str, Mesh] = OrderedDict()


def keep(digest: str, shares: Mesh) -> None:
    """Put a mesh in shares into the pool; the one not asked for longest makes room."""
    _POOL[digest] = shares
    _POOL.move_to_end(digest)
    while len(_POOL) > MOST_KEPT:
        _POOL.popitem(last=False)


def is_kept(digest: str) -> bool:
    """Whether the mesh of this digest is at hand."""
    if digest in _POOL:
        _POOL.move_to_end(digest)
    return digest in _POOL


@lru_cache(maxsize=16)
def mesh_of(skin: Skin) -> Mesh:
    """The skin's mesh in mm. Raises `Refused` if this shop does not have it."""
    if skin.digest not in _POOL:
        raise Refused("body.mesh", skin.digest[:12], rule("mesh-body"))
    shares = _POOL[skin.digest]
    return Mesh(shares.vertices * np.array([skin.length_mm, skin.width_mm, skin.depth_mm]), shares.faces)


def mesh_of_bytes(raw: bytes) -> Mesh:
    """The mesh of unpacked bytes. Raises `Refused` where counts and bytes do not fit."""
    if len(raw) < 8 or len(raw) != 8 + 12 * sum(int(n) for n in np.frombuffer(raw[:8], dtype="<u4")):
        raise Refused("mesh_data", file_size(len(raw)), rule("mesh-file"))
    points, faces = (int(n) for n in np.frombuffer(raw[:8], dtype="<u4"))
    vertices = np.frombuffer(raw, dtype="<f4", count=3 * points, offset=8).astype(np.float64).reshape(-1, 3)
    return Mesh(
        vertices,
        np.frombuffer(raw, dtype="<i4", count=3 * faces, offset=8 + 12 * points)
        .astype(np.int64)
        .reshape(-1, 3),
    )

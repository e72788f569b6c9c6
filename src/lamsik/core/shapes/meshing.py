"""Meshes brought in: checked for what is wrong with them, turned nose to the left, measured into the
outlines of a body.
"""

from collections import Counter
from dataclasses import dataclass
from typing import Any

import numpy as np
from numpy.typing import NDArray
from scipy.optimize import brentq
from scipy.sparse import coo_matrix
from scipy.sparse.csgraph import connected_components

from lamsik.core.errors import Refused, require, rule
from lamsik.core.findings import Finding, finding
from lamsik.core.quantities import said
from lamsik.core.shapes.body import Body
from lamsik.core.shapes.curves import Array, Curve, share_of_phi
from lamsik.core.shapes.polyhedra import measures
from lamsik.core.shapes.quadrature import whole
from lamsik.core.shapes.skins import Mesh

MOST_FACES = 2_000_000
AXES = ("+x", "-x", "+y", "-y", "+z", "-z")
STATIONS = 41


@dataclass(frozen=True)
class Checked:
    """A closed mesh in the file's own unit: what was put right on the way in, in words."""

    mesh: Mesh
    notes: tuple[Finding, ...]

    @property
    def size(self) -> tuple[float, float, float]:
        """Extents along x, y, z in the file's unit."""
        span = np.ptp(self.mesh.vertices, axis=0)
        return (float(span[0]), float(span[1]), float(span[2]))


SMALLEST, LARGEST, FARTHEST = 1e-3, 1e5, 1e6
"""Of a mesh in its file's own unit, from metres to micrometres: how far across, and how far from its
origin.
"""


def check(vertices: Array, faces: NDArray[Any]) -> Checked:
    """The mesh if it is watertight and of one piece.

    Raises:
        Refused: naming the fault: numbers that are none, holes with where they are, edges of three faces,
            faces turned
            against each other, several bodies, no volume.
    """
    require(len(faces) >= 4, "stl", f"{len(faces)} triangles", rule("closed-body"))
    require(
        len(faces) <= MOST_FACES,
        "stl",
        f"{len(faces)} triangles",
        rule("triangles-thin", most_faces=MOST_FACES),
    )
    if not np.all(np.isfinite(vertices)):
        where = int(np.nonzero(~np.isfinite(vertices).all(axis=1))[0][0])
        raise Refused("stl", f"corner {where + 1} of {len(vertices)}", rule("coordinate-number"))
    notes: list[Finding] = []
    faces = faces.astype(np.int64)
    require(
        bool(faces.min() >= 0) and bool(faces.max() < len(vertices)),
        "stl",
        None,
        rule("triangle-names"),
    )
    span = float(np.ptp(vertices, axis=0).max())
    require(
        SMALLEST <= span <= LARGEST and float(np.abs(vertices).max()) <= FARTHEST,
        "stl",
        f"{span:.3g} across",
        rule("bait-any"),
    )
    flat = (faces[:, 0] == faces[:, 1]) | (faces[:, 1] == faces[:, 2]) | (faces[:, 2] == faces[:, 0])
    if flat.any():
        notes.append(finding("triangles-left-out", count=int(flat.sum())))
        faces = faces[~flat]
    _refuse_open(vertices, faces)
    _refuse_pieces(len(vertices), faces)
    mesh = Mesh(np.asarray(vertices, dtype=float), faces)
    volume = _signed_volume(mesh)
    if volume < 0:
        notes.append(finding("turned-right-side-out"))
        mesh = Mesh(mesh.vertices, faces[:, ::-1])
    require(abs(volume) > 1e-12, "stl", "no volume", rule("encloses-nothing"))
    return Checked(mesh, tuple(notes))


def _refuse_open(vertices: Array, faces: NDArray[np.int64]) -> None:
    """Every edge belongs to two faces that run along it in opposite ways."""
    count = np.int64(len(vertices))
    edges = np.concatenate([faces[:, [0, 1]], faces[:, [1, 2]], faces[:, [2, 0]]])
    low, high = edges.min(axis=1), edges.max(axis=1)
    keys, first, uses = np.unique(low * count + high, return_index=True, return_counts=True)
    if (uses == 1).any():
        at = first[uses == 1][0]
        spot = (vertices[low[at]] + vertices[high[at]]) / 2
        raise Refused(
            "stl",
            f"{int((uses == 1).sum())} open edges",
            rule("watertight-hole", spot=_spot(spot)),
        )
    if (uses > 2).any():
        at = first[uses > 2][0]
        spot = (vertices[low[at]] + vertices[high[at]]) / 2
        raise Refused(
            "stl",
            finding("edges-of-many-faces", count=int((uses > 2).sum())),
            rule("surfaces-meet", spot=_spot(spot)),
        )
    ways = np.sort(edges[:, 0] * count + edges[:, 1])
    twice = np.nonzero(np.diff(ways) == 0)[0]
    if twice.size:
        spot = vertices[int(ways[twice[0]] // count)]
        raise Refused(
            "stl",
            f"{twice.size} edges",
            rule("faces-turned", spot=_spot(spot)),
        )


def _refuse_pieces(count: int, faces: NDArray[np.int64]) -> None:
    links = coo_matrix(
        (
            np.ones(len(faces) * 2),
            (np.concatenate([faces[:, 0], faces[:, 1]]), np.concatenate([faces[:, 1], faces[:, 2]])),
        ),
        shape=(count, count),
    )
    _, label = connected_components(links, directed=False)
    pieces = Counter(label[faces[:, 0]].tolist())
    if len(pieces) > 1:
        raise Refused(
            "stl",
            f"{len(pieces)} separate bodies",
            rule("body-time"),
        )


def _spot(point: Array) -> str:
    return ", ".join(f"{v:.4g}" for v in point)


def _signed_volume(mesh: Mesh) -> float:
    a, b, c = (mesh.vertices[mesh.faces[:, k]] for k in range(3))
    return float(np.einsum("ij,ij->i", a, np.cross(b, c)).sum()) / 6.0


@dataclass(frozen=True)
class MeshSize:
    """A mesh as a body: the mesh in shares of its size, and a body of its outlines [mm] whose volume is
    the mesh's.
    """

    shares: Mesh
    body: Body


def turned(mesh: Mesh, nose: str, up: str, mm_per_unit: float) -> Mesh:
    """The mesh in mm with its nose towards −x and its back up.

    Args:
        mesh: as in the file.
        nose: the file's axis that points to the nose, one of `AXES`.
        up: the file's axis that points to the back.
        mm_per_unit: the file's unit [mm].
    """
    require(nose in AXES, "axis", nose, rule("one-of", listed=", ".join(AXES)))
    require(up in AXES and up[1] != nose[1], "up", up, rule("axis-across"))
    x, z = -_axis(nose), _axis(up)
    frame = np.array([x, np.cross(z, x), z])
    return Mesh(mesh.vertices @ frame.T * mm_per_unit, mesh.faces)


def _axis(name: str) -> Array:
    return np.asarray((1.0 if name[0] == "+" else -1.0) * np.eye(3)["xyz".index(name[1])])


def measured(mesh: Mesh) -> MeshSize:
    """The mesh [mm], nose to −x, as a body: moved to x = 0, y centred, z = 0 in the middle of its depth.

    Raises `Refused` where it is smaller or larger than a body may be.
    """
    low, high = mesh.vertices.min(axis=0), mesh.vertices.max(axis=0)
    length, width, depth = (float(v) for v in high - low)
    for name, value, least, most in (
        ("length", length, 5.0, 600.0),
        ("width", width, 0.5, 300.0),
        ("depth", depth, 0.5, 300.0),
    ):
        require(
            least <= value <= most,
            name,
            said(value, "length", 2),
            rule("allowed-unit", least=least, most=most),
        )
    placed = mesh.vertices - np.array([low[0], (low[1] + high[1]) / 2, (low[2] + high[2]) / 2])
    shares = Mesh(placed / np.array([length, width, depth]), mesh.faces)
    top, bottom, half, widest = _profiles(Mesh(placed, mesh.faces), length)
    stations = tuple(share_of_phi(np.linspace(0.0, np.pi, STATIONS)).tolist())
    stations = (0.0, *stations[1:-1], 1.0)
    top, bottom, half = (
        _spanning(line, reach) for line, reach in ((top, depth / 2), (-bottom, depth / 2), (half, width / 2))
    )
    curves = [Curve(stations, tuple(line.tolist())) for line in (top, -bottom, half)]
    flat = Curve(stations, tuple(widest.tolist()), False, False)
    exponent = _exponent(length, curves, flat, measures(mesh).volume_mm3)
    return MeshSize(shares, Body(length, curves[0], curves[1], curves[2], exponent, exponent, flat))


def _spanning(line: Array, reach: float) -> Array:
    """The line with its highest point exactly at the body's reach: a peak between stations is not lost."""
    line = np.maximum(line, -reach)
    line[int(np.argmax(line))] = reach
    return line


def _profiles(mesh: Mesh, length: float) -> tuple[Array, Array, Array, Array]:
    """Highest, lowest and widest reach of the mesh's sections, and the height of the widest point, at the
    stations [mm].
    """
    phi = np.linspace(0.0, np.pi, STATIONS)
    x = length * np.clip(share_of_phi(phi), 5e-4, 1 - 5e-4)
    rows = [_section(mesh, float(at)) for at in x]
    top, low, half, widest = (np.array(column) for column in zip(*rows, strict=True))
    return top, np.minimum(low, top), np.maximum(half, 0.0), np.clip(widest, low, top)


def _section(mesh: Mesh, x: float) -> tuple[float, float, float, float]:
    """Top, bottom, half-width and height of the widest point where the plane at x cuts the mesh's edges."""
    side = mesh.vertices[:, 0] > x
    mixed = side[mesh.faces]
    faces = mesh.faces[mixed.any(axis=1) & ~mixed.all(axis=1)]
    edges = np.concatenate([faces[:, [0, 1]], faces[:, [1, 2]], faces[:, [2, 0]]])
    edges = edges[side[edges[:, 0]] != side[edges[:, 1]]]
    if not len(edges):
        return 0.0, 0.0, 0.0, 0.0
    a, b = mesh.vertices[edges[:, 0]], mesh.vertices[edges[:, 1]]
    cut = a + ((x - a[:, 0]) / (b[:, 0] - a[:, 0]))[:, None] * (b - a)
    wide = np.abs(cut[:, 1])
    edge = cut[wide > 0.995 * wide.max(), 2]
    return float(cut[:, 2].max()), float(cut[:, 2].min()), float(np.ptp(cut[:, 1])) / 2, float(edge.mean())


def _exponent(length: float, curves: list[Curve], widest: Curve, volume_mm3: float) -> float:
    """The section exponent with which the outlines hold the mesh's volume: what walls and drills are
    judged by.
    """

    def short(n: float) -> float:
        return whole(Body(length, curves[0], curves[1], curves[2], n, n, widest)).volume_mm3 - volume_mm3

    if short(1.0) >= 0:
        return 1.0
    if short(12.0) <= 0:
        return 12.0
    return float(brentq(short, 1.0, 12.0, xtol=1e-4))

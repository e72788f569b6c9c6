"""The core alone: drag, settled, ballast search, and the wet volume against slicing a mesh."""

from dataclasses import replace
from itertools import cycle

import numpy as np
import trimesh

from bench.rows import Row, median_ms
from lamsik.core.shapes.mesh import body_mesh
from lamsik.core.shapes.solid import solid
from lamsik.core.tank import evaluate
from lamsik.core.tank.ballast import search
from lamsik.core.tank.immersion import immersed_volume
from tests.bodies import BENCH, bait, ellipsoid


def core_rows() -> list[Row]:
    """Rows of the core."""
    return [*_evaluation_rows(), *_volume_rows()]


def _evaluation_rows() -> list[Row]:
    hole = bait().ballast[0]
    holes = tuple(replace(hole, key=f"b{i}", mass_g=1.3, x_mm=24.0 + 8 * i) for i in range(3))
    moved = cycle([bait(ballast=tuple(replace(h, x_mm=h.x_mm + step * 0.3) for h in holes)) for step in range(12)])
    first = evaluate.drag(bait(ballast=holes))
    near = evaluate.Near(first.surface[0].attitude, first.surface[0].draft_mm)
    resized = cycle([bait(ballast=holes, body=replace(bait().body, length_mm=90 + 0.1 * step)) for step in range(40)])
    fresh = (bait(ballast=tuple(replace(h, x_mm=h.x_mm + step * 0.01) for h in holes)) for step in range(100))  # never one it has seen
    return [
        Row("drag: ballast moved (lip, hooks, three holes)", 8, median_ms(lambda: evaluate.drag(next(moved), near=near), 100)),
        Row("drag: body resized", 30, median_ms(lambda: evaluate.drag(next(resized), near=near), 40)),
        Row("settled: every stable position", 400, median_ms(lambda: evaluate.settle(next(fresh)), 9)),
        Row("ballast answers", 400, median_ms(lambda: search(bait(), BENCH), 9)),
    ]


def _volume_rows() -> list[Row]:
    """Ours at 1e-4 of the volume, against trimesh slicing a mesh fine enough for the same error."""
    body, up, d = ellipsoid(90, 14, 20), np.array([0.2, 0.1, 0.9746794]), 9.0
    exact = _cut_ellipsoid(up, d)
    ours = abs(immersed_volume(body, up, d) - exact) / solid(body).volume_mm3
    for size in range(60, 400, 20):
        mesh = body_mesh(body, size, size)
        whole = trimesh.Trimesh(mesh.vertices, mesh.faces)
        error = abs(_sliced(whole, up, d) - exact) / solid(body).volume_mm3
        if error < 1e-4:
            break
    fast, slow = median_ms(lambda: immersed_volume(body, up, d), 50), median_ms(lambda: _sliced(whole, up, d), 3, 1)
    print(f"wet volume: ours {fast:.2f} ms at {ours:.1e}; slicing {len(mesh.faces)} triangles {slow:.0f} ms at {error:.1e} of the volume\n")
    return [Row("wet volume against slicing a mesh, both at 1e-4", 40, slow / fast, "×", more=True)]


def _sliced(whole: trimesh.Trimesh, up: np.ndarray, d: float) -> float:
    return float(trimesh.intersections.slice_mesh_plane(whole, -up, up * d, cap=True).volume)


def _cut_ellipsoid(up: np.ndarray, d: float) -> float:
    axes = np.array([45.0, 7.0, 10.0])
    t = (d - 45.0 * up[0]) / np.linalg.norm(axes * up)
    return float(np.pi * axes.prod() * (1 + t) ** 2 * (2 - t) / 3)

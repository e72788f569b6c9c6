"""The core alone: drag, settled, ballast search, and the wet volume against slicing a mesh."""

from dataclasses import replace

import numpy as np
import trimesh

from bench.rows import Row, median_ms
from lamsik.core.shapes.body import Body
from lamsik.core.shapes.mesh import body_mesh
from lamsik.core.shapes.solid import solid
from lamsik.core.tank import evaluate
from lamsik.core.tank.ballast import search
from lamsik.core.tank.floating import vessel_of_body
from lamsik.core.tank.immersion import fine_hulls, hull_of, wet
from tests.bodies import BENCH, bait


def core_rows() -> list[Row]:
    """Rows of the core."""
    return [*_evaluation_rows(), *_volume_rows()]


def _evaluation_rows() -> list[Row]:
    """Each call gets a design that none had before it: what is kept of the last ones helps none of them."""
    hole = bait().ballast[0]
    holes = tuple(replace(hole, key=f"b{i}", mass_g=1.3, x_mm=24.0 + 8 * i) for i in range(3))
    moved = (bait(ballast=tuple(replace(h, x_mm=h.x_mm + step * 0.03) for h in holes)) for step in range(200))
    first = evaluate.drag(bait(ballast=holes))
    near = evaluate.Near(first.surface[0].attitude, first.surface[0].draft_mm)
    resized = (
        bait(ballast=holes, body=replace(bait().body, length_mm=90 + 0.1 * step)) for step in range(100)
    )
    fresh = (bait(ballast=tuple(replace(h, x_mm=h.x_mm + step * 0.01) for h in holes)) for step in range(100))
    asked = (bait(glue_g=0.2 + 1e-4 * step) for step in range(50))
    return [
        Row(
            "drag: ballast moved (lip, hooks, three holes)",
            8,
            median_ms(lambda: evaluate.drag(next(moved), near=near), 100),
        ),
        Row("drag: body resized", 30, median_ms(lambda: evaluate.drag(next(resized), near=near), 40)),
        Row("settled: every stable position", 200, median_ms(lambda: evaluate.settle(next(fresh)), 9)),
        Row("ballast answers", 400, median_ms(lambda: search(next(asked), BENCH), 9)),
    ]


def _volume_rows() -> list[Row]:
    """Ours at 1e-4 of the volume, with moments and water-plane, against trimesh slicing a mesh of the true
    volume at the same error.
    """
    body, up, d = bait().body, np.array([0.2, 0.1, 0.9746794]), 1.5
    clip = vessel_of_body(body).fair
    exact = _by_richardson(body, up, d)
    ours = abs(clip(up, d).volume - exact) / solid(body).volume_mm3
    for size in range(24, 400, 8):
        scaled = hull_of(body_mesh(body, size, size), solid(body).volume_mm3)
        whole = trimesh.Trimesh(scaled.vertices, scaled.faces)
        error = abs(_sliced(whole, up, d)[0] - exact) / solid(body).volume_mm3
        if error < 1e-4:
            break
    fast, slow = median_ms(lambda: clip(up, d), 50), median_ms(lambda: _sliced(whole, up, d), 9, 1)
    print(
        f"wet part: ours {fast:.2f} ms at {ours:.1e}; slicing {len(scaled.faces)} triangles {slow:.1f} ms at"
        f" {error:.1e} of the volume\n"
    )
    return [
        Row(
            "wet volume and moments of a bait against slicing a mesh of true volume, both at 1e-4",
            12,
            slow / fast,
            "×",
            more=True,
        )
    ]


def _sliced(whole: trimesh.Trimesh, up: np.ndarray, d: float) -> tuple[float, np.ndarray]:
    wet = trimesh.intersections.slice_mesh_plane(whole, -up, up * d, cap=True)
    return float(wet.volume), np.asarray(wet.center_mass)


def _by_richardson(body: Body, up: np.ndarray, d: float) -> float:
    """The wet volume [mm³] by two far finer nested meshes."""
    coarse, fine = fine_hulls(body, 120)
    return float((4.0 * wet(fine, up, d).volume - wet(coarse, up, d).volume) / 3.0)

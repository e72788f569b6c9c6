"""The Moulds bench: a plan from a master of 5 000 triangles, its halves to print, air as it is turned, a
plan of castings.
"""

from dataclasses import replace
from datetime import datetime, timedelta

from bench.rows import Row, median_ms
from lamsik.core.castings.throughput import Cycle, Making, plan
from lamsik.core.moulds import geometry, layout, masters
from lamsik.core.moulds.advice import high_points_of, look
from lamsik.core.moulds.halves import printed_halves
from lamsik.core.moulds.layout import CavitySpot, Mould, arranged
from lamsik.core.moulds.masters import Master
from lamsik.core.moulds.silicone import Bricks, halves, walls_of
from lamsik.core.route.workdays import Workdays
from lamsik.core.shapes.mesh import body_mesh
from lamsik.core.shapes.polyhedra import measures
from tests.bodies import bait

START = datetime(2027, 3, 1, 9)


def mould_rows() -> list[Row]:
    """Rows of the Moulds bench."""
    body = bait().body
    mesh = masters.welded(body_mesh(body, 63, 42))
    assert 4_800 <= len(mesh.faces) <= 5_400, len(mesh.faces)
    master = Master("bait", mesh, measures(mesh).volume_mm3, 9.0)
    four = arranged(Mould("four", master, cavities=(CavitySpot("c1", 500.0, 500.0),)), 4)
    turns = iter(range(10_000))
    return [
        Row("mould plan from a master of 5 000 triangles", 300, median_ms(lambda: _planned(master), 9, 1)),
        Row("STL halves of four cavities", 5000, median_ms(lambda: printed_halves(four), 5, 1)),
        Row(
            "air in a cavity, turned once more",
            100,
            median_ms(lambda: high_points_of(replace(four, tilt_deg=float(next(turns) % 180))), 15),
        ),
        Row("600 castings planned over working days", 200, median_ms(_by_when, 9)),
    ]


def _planned(master: Master) -> None:
    """All of a first layout anew: nothing is remembered."""
    for kept in (layout._lying, geometry.hull, geometry.solid_of, geometry.seen):
        kept.cache_clear()
    mould = arranged(Mould("one", master, cavities=(CavitySpot("c1", 500.0, 500.0),)), 2)
    look(mould)
    halves(mould)
    walls_of(mould, Bricks())


def _by_when() -> None:
    plan(
        600,
        START + timedelta(days=300),
        START,
        Cycle(15, 4.0, 10, 3, 0.95),
        Workdays(),
        Making(2, 60, 16.0),
        True,
    )

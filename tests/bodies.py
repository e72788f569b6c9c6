"""Bodies and designs with known answers, shared by the tests."""

from dataclasses import replace
from typing import Any

import numpy as np

from lamsik.core.paints.layers import Layer, begun
from lamsik.core.shapes.ballast_holes import Hole, Slug
from lamsik.core.shapes.body import Body
from lamsik.core.shapes.curves import Curve
from lamsik.core.shapes.design import Design, Host, Want
from lamsik.core.shapes.forms import FORMS, body_from
from lamsik.core.shapes.hardware import Item, Lip, Placement
from lamsik.core.shapes.skins import Mesh
from lamsik.core.shapes.solid import solid
from lamsik.core.tank.ballast_base import Bench
from lamsik.core.tank.mass import Budget

STEEL = 7.85


def curve(function: Any, count: int = 81, **ends: bool) -> Curve:
    """A curve through many points of a function of the share of length."""
    shares = (1 - np.cos(np.linspace(0, np.pi, count))) / 2
    shares[0], shares[-1] = 0.0, 1.0
    return Curve(tuple(shares), tuple(float(v) for v in function(shares)), **ends)


def coat(kind: str, name: str, density_g_cm3: float, film_um: float) -> Layer:
    """A layer all over, of a paint as the first version knew them."""
    begins = begun(kind, "x")
    paint = replace(begins.paint, colour="#FFFFFF", density_g_cm3=density_g_cm3, caution="solvent")
    how = {name: getattr(begins, name) for name in ("by", "pressure_bar", "distance_mm")}
    return Layer(f"{kind}1", kind, name, paint, film_um=film_um, **how)


def ellipsoid(length: float, width: float, depth: float) -> Body:
    def arch(s):
        return 2 * np.sqrt(np.clip(s * (1 - s), 0, None))

    return Body(
        length,
        curve(lambda s: depth / 2 * arch(s)),
        curve(lambda s: -depth / 2 * arch(s)),
        curve(lambda s: width / 2 * arch(s)),
    )


def straight(length: float, start: float, end: float, n: float = 2.0) -> Body:
    """A cylinder or cone (n = 2) with radii at nose and tail."""
    up, down = Curve((0, 1), (start, end), False, False), Curve((0, 1), (-start, -end), False, False)
    return Body(length, up, down, up, n, n)


def box_mesh(length: float, width: float, height: float) -> Mesh:
    corners = np.array(
        [[x, y, z] for x in (0, length) for y in (-width / 2, width / 2) for z in (-height / 2, height / 2)],
        dtype=float,
    )
    faces = [
        (0, 1, 3),
        (0, 3, 2),
        (4, 6, 7),
        (4, 7, 5),
        (0, 4, 5),
        (0, 5, 1),
        (2, 3, 7),
        (2, 7, 6),
        (0, 2, 6),
        (0, 6, 4),
        (1, 5, 7),
        (1, 7, 3),
    ]
    return Mesh(corners, np.array(faces, dtype=np.int64))


def bare_budget(mass_g: float, g_mm: tuple[float, float, float], hull_ml: float) -> Budget:
    """A budget of nothing but a hull of this mass and centre of gravity."""
    none = np.zeros(0)
    return Budget((), mass_g, 0.0, g_mm, hull_ml, 0.0, 1.0, none, np.zeros((0, 3)), none)


def homogeneous(body: Body, density: float) -> Design:
    return Design("test", "slim", "bait", body, Host("stuff", density, 0.01))


LEAD_ROD = Slug("lead rod 5 mm", "rod", "lead", 11.34, 5.0)
LEAD_ROD_6 = Slug("lead rod 6 mm", "rod", "lead", 11.34, 6.0)
LEAD_BALL = Slug("lead ball 7 mm", "ball", "lead", 11.34, 7.0)
TUNGSTEN = Slug("tungsten rod 4 mm", "rod", "tungsten", 18.0, 4.0)
BENCH = Bench(
    (
        LEAD_ROD,
        Slug("lead rod 6 mm", "rod", "lead", 11.34, 6.0),
        TUNGSTEN,
        LEAD_BALL,
        Slug("steel ball 6 mm", "ball", "steel", 7.85, 6.0),
    ),
    (4.0, 5.0, 5.5, 6.0, 6.5, 7.0, 7.5),
)

TIE = Item("tie", "line tie", "line_tie", 0.14, STEEL, 0.4, 3.0)
HANGER = Item("hgr", "hanger", "hanger", 0.11, STEEL, 0.4, 2.5)
RING = Item("ring", "ring", "ring", 0.05, STEEL)
TREBLE = Item("tre", "treble", "hook", 0.48, STEEL)


def bait(**changes: Any) -> Design:
    """A wooden bait with lip, two trebles, seal, primer and clear; ballast 4.2 g under the shoulder."""
    length = 90.0
    hardware = (
        Placement("tie", TIE, "nose"),
        Placement("h1", HANGER, "belly", 46.0),
        Placement("h2", HANGER, "tail", length),
        Placement("r1", RING, hung_on="h1"),
        Placement("r2", RING, hung_on="h2"),
        Placement("k1", TREBLE, hung_on="r1"),
        Placement("k2", TREBLE, hung_on="r2"),
    )
    layers = (
        coat("seal", "Seal", 1.25, 35),
        coat("primer", "Primer", 1.45, 30),
        coat("clear", "Clear", 1.12, 120),
    )
    design = Design(
        "Bait",
        "slim",
        "bait",
        body_from(FORMS["slim"], length, 19, 15),
        Host("basswood", 0.42, 0.04),
        hardware,
        Lip(14, 16, 1.5, 1.2, 40, 6.8),
        (Hole("b1", LEAD_ROD_6, 4.2, 32.5, 6.0),),
        layers,
        glue_g=0.3,
        want=Want("slow rise", 6.0, 0.0),
    )
    return replace(design, **changes)


def volume_ml(body: Body) -> float:
    return solid(body).volume_ml

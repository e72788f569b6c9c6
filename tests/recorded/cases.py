# ruff: noqa: F401 - the table names them
"""Functions and kinds of value of the core with arguments, of the table `cases.txt`: one a line, what is
given to it as Python says it, of the things named here.
"""

from collections.abc import Callable
from dataclasses import replace
from datetime import date, datetime, time, timedelta
from importlib import import_module
from pathlib import Path
from typing import Any

import numpy as np

from lamsik.core import quantities, units, water
from lamsik.core.castings import (
    born,
    dense_rear,
    foam,
    gates,
    inserts,
    matching,
    plastisol,
    pouring,
    softbody,
    throughput,
)
from lamsik.core.floats import design as float_design
from lamsik.core.floats import inverse, labels, learning, livebait, rating, shotting, slider, standing
from lamsik.core.floats import parts as float_parts
from lamsik.core.mixes import amount, clocks, filler, fillers, layers, overpour, product, tubs
from lamsik.core.moulds import advice as moulding
from lamsik.core.moulds import faults, heat, layout, masters, press, pull, silicone, touching, vents
from lamsik.core.orders import status
from lamsik.core.orders.status import Agreed
from lamsik.core.paints import adjusting
from lamsik.core.paints import layers as paint
from lamsik.core.paints import place as places
from lamsik.core.paints.paint import Paint
from lamsik.core.route import steps, workdays
from lamsik.core.shapes import (
    allowances,
    ballast_holes,
    blades,
    clashes,
    clearance,
    curves,
    design,
    drillings,
    faces,
    family,
    forms,
    hardware,
    hollow,
    inside,
    joints,
    mouths,
    needs,
    outlining,
    polyhedra,
    quadrature,
    scaling,
    solid,
    space,
    stock,
    support,
    tracing,
    trial,
    unbuilt,
)
from lamsik.core.shapes import body as bodies
from lamsik.core.tank import (
    advice,
    attitude,
    ballast,
    ballast_base,
    ballast_binds,
    certainty,
    drilling,
    drops,
    errors_of_making,
    evaluate,
    inertia,
    line,
    mass,
    motion,
    moulded,
    parts,
    printed,
    refit,
    running,
    segments,
    sensitivities,
    stability,
    twins,
    wanted,
)
from lamsik.core.tank import trial as trials
from lamsik.core.weighing import bydifference, instrument, inwater, pair, trim
from tests.bodies import BENCH, LEAD_BALL, LEAD_ROD, bait, box_mesh, ellipsoid, straight

FRESH, SEA = water.Water("lake", 14.0), water.Water("sea", 10.0, 35.0)
RESIN = product.Product(
    "Resin",
    "resin",
    "volume",
    (product.MixPart("A", 1, 1.10), product.MixPart("B", 1, 1.02)),
    pot_life_min=5.0,
    gel_min=8.0,
    demould_h=1.0,
    caution="epoxy",
)
SILICONE = product.Product(
    "Silicone", "silicone", "mass", (product.MixPart("base", 100, 1.20), product.MixPart("catalyst", 4, 0.98))
)
FOAM = product.Product(
    "Foam",
    "foam",
    "mass",
    (product.MixPart("A", 100, 1.06), product.MixPart("B", 110, 1.23)),
    caution="isocyanate",
    free_rise_g_cm3=0.16,
)
GLASS = fillers.Filler("Glass bubbles", 0.15, 0.09)
EGG = masters.of_body("egg", ellipsoid(80.0, 24.0, 30.0), 9.0)
MOULD = layout.arranged(layout.Mould("m", EGG, cavities=(layout.CavitySpot("c1", 500.0, 500.0),)), 2)
STEM = float_parts.FloatPart("stem", "stem", "stem", 120.0, 2.0, 0.6)
PEAR = float_parts.FloatPart("body", "body", "pear", 60.0, 16.0, 0.16, 60.0, form="pear", spread_g_cm3=0.03)
TIP = float_parts.FloatPart("antenna", "antenna", "antenna", 70.0, 1.6, 0.5, 120.0)
FLOAT = float_design.Float(
    "Antenna",
    "antenna",
    (STEM, PEAR, TIP),
    (float_design.Mark("shoulder", 120.0), float_design.Mark("ring", 170.0)),
    FRESH,
    wanted_mark="ring",
)
LOADED = replace(
    FLOAT,
    kind="waggler",
    parts=(
        replace(STEM, length_mm=90.0),
        float_parts.FloatPart("load", "loading", "loading", 18.0, 7.0, 8.4, 0.0),
        float_parts.FloatPart("tube", "tube", "tube", 60.0, 8.0, 0.2, 20.0, bore_mm=6.0, wall_mm=2.0),
        replace(PEAR, foot_mm=80.0, bore_mm=2.0, mass_g=1.4),
        replace(TIP, foot_mm=140.0, length_mm=60.0),
    ),
    marks=(float_design.Mark("ring", 170.0),),
    paint_g=0.1,
)
SHOTS = shotting.ShotTable(
    "Split shot", "anywhere", "nominal", tuple(shotting.Shot(name, grams) for name, grams in shotting.NOMINAL)
)
LEAD = ballast_holes.Slug("Lead rod 6", "rod", "lead", 11.34, 6.0)
STONE = inwater.InWater(20.0, 11.0, FRESH)
DAYS = workdays.Workdays(closed=(date(2027, 3, 3),))
MONDAY = datetime(2027, 3, 1, 9, 0)
CYCLE = throughput.Cycle(20.0, 4.0, 10.0, 4)
CURING = gates.Curing(datetime(2027, 3, 1, 12, 0), datetime(2027, 3, 2, 12, 0))
SLANTED = replace(
    MOULD,
    pull="back",
    stand="flat",
    tilt_deg=8.0,
    slant_deg=3.0,
    vents=(layout.Vent("v1", 10.0, 2.0, 3.0),),
    texts=(layout.Text("t1", "A7"),),
)
PRESS = replace(layout.arranged(replace(MOULD, kind="press"), 1), wells=(layout.Well("w1", 8.0, 30.0),))
TUB = tubs.Tub("t", "A", "L1", 120.0, date(2027, 9, 1), date(2027, 1, 4), datetime(2027, 2, 1, 9, 0))
SCALE = instrument.Scale("s", 0.01, 500.0, 0.02, date(2026, 1, 5), 100.0)
UP = np.array([0.0, 0.6, 0.8])
SCREW = {"wire_mm": 1.4, "shank_mm": 14.0}
WIRED = tuple(
    replace(placed, item=replace(placed.item, **SCREW))
    if placed.item.kind in ("line_tie", "hanger")
    else placed
    for placed in bait().hardware
)
WOOD = bait(
    hardware=(
        *WIRED,
        hardware.Placement(
            "r", hardware.Item("r", "rattle", "rattle", 0.9, 2.0, 0.0, 0.0, **SCREW), "inside", 60.0
        ),
    ),
    ballast=(*bait().ballast, ballast_holes.Hole("b2", LEAD_ROD, 0.8, 52.0, 5.0, beside_mm=3.5)),
    allowances=(allowances.Allowance("a", "glue", "Glue", 0.3, 0.1),),
    trials=(trial.TrialWeight("t", "h1", 40.0, 1.5),),
    want=design.Want("slow rise", 6.0, -3.0, waters=(SEA,)),
)
HINGE = joints.Joint("j", 62.0, 8.0, 2.0, "hinge", 1.0)
JOINTED = replace(WOOD, body=replace(WOOD.body, joints=(HINGE,)), trials=())
PRINT = bait(
    host=design.Host("printed resin", 1.18, 0.02, construction="print"),
    shell=hollow.Shell(1.6),
    cavities=(inside.Cavity("c", LEAD_BALL, 2, 50.0, 4.0),),
    ballast=(),
)
OUTCOME = evaluate.settle(WOOD)
BASE = ballast_base.base_of(replace(WOOD, ballast=()))
TOW = running.Tow(1.2, lead_g=3.0)
TABLE = clearance.clearances({})
DRILLS = (1.0, 1.5, 2.0, 3.0, 4.0, 5.0, 6.0, 6.5)
MOVING = drops.moving(WOOD, 12.0, 900.0)
Case = tuple[Callable[..., Any], Callable[[], dict[str, Any]]]
LINES = Path(__file__).parent / "cases.txt"


def _cases() -> dict[str, Case]:
    """By name (that of the function, numbered where it stands again), the function and what gives it its
    figures: those are made by whoever runs it, not by all that look for tests.
    """
    found: dict[str, Case] = {}
    for text in LINES.read_text(encoding="utf-8").splitlines():
        if text.startswith("> "):
            found[text] = (eval(f"lambda: {text[2:]}", globals()), dict)
        elif text and not text.startswith("#"):
            name, _, given = text.partition(" | ")
            room, _, what = name.rpartition(".")
            times = sum(known.split(" ")[0] == name for known in found)
            made = getattr(import_module(f"lamsik.core.{room}"), what)
            found[f"{name} {times + 1}" if times else name] = (
                made,
                eval(f"lambda: dict({given})", globals()),
            )
    return found


CASES = _cases()

"""Functions and kinds of value of the core with arguments that are good, by the name of their module."""

from collections.abc import Callable
from dataclasses import replace
from datetime import date, datetime
from typing import Any

import numpy as np

from lamsik.core import units, water
from lamsik.core.castings import (
    born,
    dense_rear,
    foam,
    gates,
    inserts,
    matching,
    plastisol,
    session,
    softbody,
    throughput,
)
from lamsik.core.floats import design as float_design
from lamsik.core.floats import inverse, labels, learning, livebait, rating, shotting, slider, standing
from lamsik.core.floats import parts as float_parts
from lamsik.core.mixes import amount, clocks, filler, fillers, layers, overpour, product, recipe, tubs
from lamsik.core.moulds import advice as moulding
from lamsik.core.moulds import faults, heat, layout, masters, press, pull, silicone, touching, vents
from lamsik.core.orders import status
from lamsik.core.paints import coats
from lamsik.core.paints import layout as painted
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
    revisions,
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
    "Split shot", "anywhere", "nominal", tuple(shotting.Shot(name, mass) for name, mass in shotting.NOMINAL)
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
CASES: dict[str, tuple[Callable[..., Any], dict[str, Any]]] = {}


def case(make: Callable[..., Any], **given: Any) -> None:
    room = make.__module__.removeprefix("lamsik.core.")
    name = f"{room}.{make.__qualname__}"
    while name in CASES:
        name += "'"
    CASES[name] = (make, given)


# fmt: off
# Castings
case(softbody.exposed, gap_mm=12.0, thickness_mm=9.0, squeeze=0.5)
case(softbody.exposed, gap_mm=5.0, thickness_mm=14.0, squeeze=0.3)
case(dense_rear.bonds, gap_min=20.0, from_min=10.0, to_min=40.0)
case(dense_rear.two_pours, mesh=EGG.mesh, up=UP, dense_ml=8.0, dense_g_cm3=1.8, light_g_cm3=0.9)
case(foam.FreeRise, poured_g=20.0, risen_ml=120.0, at_c=21.0)
case(foam.density_of_ratio, ratio=8.0, liquid_g_cm3=1.14)
case(foam.at_warmth, free_rise_g_cm3=0.16, reference_c=20.0, at_c=15.0)
case(foam.charge, net_ml=40.0, target_g_cm3=0.3, free_rise_g_cm3=0.16, liquid_g_cm3=1.14, spread=0.1)
case(inserts.Insert, key="i1", kind="wire", start_mm=(0.0, 0.0, 0.0), end_mm=(60.0, 0.0, 0.0), across_mm=1.2,
     mass_g=0.5)
case(inserts.shank, from_mm=5.0, to_mm=60.0, up_mm=2.0, across_mm=1.1)
case(plastisol.shot, casting_ml=12.0, runner_ml=3.0, density_g_cm3=1.05, jug_g=200.0, cavities=6,
     heat_min=8.0, shot_min=3.0)
case(plastisol.thin_zones, mesh=EGG.mesh, limit_mm=12.0)
case(plastisol.from_scrap, wanted_g=90.0, colour="clay", scraps=(plastisol.Scrap("clay", 40.0, 1),
     plastisol.Scrap("clay", 80.0, 4), plastisol.Scrap("red", 50.0, 1)))
case(plastisol.by_colour, shot_g=80.0, colours=(("clay", 60.0), ("red", 40.0)), scraps=(plastisol.Scrap("red",
     50.0, 1),))
case(throughput.Cycle, before_min=20.0, cure_h=4.0, after_min=10.0, cavities=4, yield_share=0.9, worth=3.0)
case(throughput.shots_needed, wanted=30, cycle=CYCLE)
case(throughput.plan, wanted=30, by=datetime(2027, 3, 12, 17, 0), start=MONDAY, cycle=CYCLE, days=DAYS)
# Floats
case(float_parts.FloatPart, key="body", kind="body", name="body", length_mm=60.0, diameter_mm=16.0,
     density_g_cm3=0.16, foot_mm=10.0, bore_mm=3.0, wall_mm=5.0, mass_g=2.0)
for seen in (float_parts.outer_ml, float_parts.bore_ml, float_parts.mass_g, float_parts.centre_mm):
    case(seen, part=replace(PEAR, bore_mm=3.0))
case(float_design.Float, name="x", kind="antenna", parts=(STEM, PEAR), paint_g=0.2, varnish_g=0.1,
     film_g_cm3=1.2)
for seen in (float_design.own_mass_g, float_design.gravity_mm, rating.loading_g, rating.sd_g, rating.ratings,
     inverse.main_body, inverse.check_foot):
    case(seen, design=FLOAT)
    case(seen, design=LOADED)
case(rating.curve, design=LOADED, count=12)
case(shotting.antenna_under_mm, design=LOADED, height_mm=165.0)
case(shotting.pull_to, design=LOADED)
case(standing.standing, design=LOADED, line_g=1.0)
case(inverse.sensitivity, design=LOADED)
case(inverse.family, design=FLOAT, loads_g=(2.0, 4.0))
case(rating.capacity_g, design=FLOAT, height_mm=150.0)
case(rating.response_mm, design=FLOAT, height_mm=150.0)
case(rating.settles_at_mm, design=FLOAT, line_g=2.0)
case(rating.changes, design=FLOAT, waters=(FRESH, SEA))
case(inverse.sensitivity, design=FLOAT, dowels_mm=(1.5, 2.0, 3.0))
case(inverse.resized, design=FLOAT, length_mm=70.0, diameter_mm=18.0, density_g_cm3=0.2)
case(inverse.sized, design=FLOAT, wanted_g=4.0)
case(inverse.options, design=FLOAT, wanted_g=4.0, dowels_mm=(14.0, 16.0, 18.0), woods=("balsa",))
case(inverse.protrusion_mm, part=PEAR, bore_mm=2.0, wall_mm=1.0)
case(standing.standing, design=FLOAT, line_g=3.0)
case(standing.metacentric_mm, design=FLOAT, line_g=3.0)
case(shotting.Shot, name="BB", mass_g=0.4, density_g_cm3=11.34)
case(shotting.shotting, pull_g=2.5, table=SHOTS, water=FRESH, telltale="No 8")
case(shotting.telltale_lift, design=FLOAT, line_g=4.5, shot=shotting.Shot("No 8", 0.06))
case(shotting.antenna_under_mm, design=FLOAT, height_mm=150.0)
case(slider.slider, depth_m=6.0, rod_m=4.0, over_bottom_m=0.3)
case(slider.slider, depth_m=2.0, rod_m=4.0, over_bottom_m=0.3)
case(labels.Label, name="Antenna", grams=2.5, basis=labels.ON_THE_LINE, mark="ring", water=FRESH)
case(learning.fit, pairs=((2.0, 2.1), (3.0, 3.05), (4.0, 4.3), (5.0, 5.2)))
case(learning.advice, measured_g=2.7, nominal_g=2.5, table=SHOTS, water=FRESH, loading_g=1.0)
case(livebait.Build, foam_mm=30.0, foam_bore_mm=8.0, pipe_mm=8.0, pipe_bore_mm=6.0, cap_mm=6.0, saw_mm=1.0)
case(livebait.per_stick, stick_mm=1000.0, piece_mm=80.0, saw_mm=1.0)
case(livebait.cut_list, build=livebait.Build(), sizes=((60.0, 4), (80.0, 6)), foam_stick_mm=1000.0,
     pipe_stick_mm=2000.0)
case(livebait.as_float, build=livebait.Build(), foam_length_mm=80.0)
case(livebait.consistent, tests=((60.0, 20.0), (80.0, 29.0)), build=livebait.Build(), water=FRESH)
# Mixes
case(product.MixPart, name="A", figure=100.0, density_g_cm3=1.1)
case(product.Product, name="P", kind="resin", basis="mass", parts=RESIN.parts, tolerance_percent=3.0,
     pot_life_min=5.0, gel_min=8.0, demould_h=1.0, cure_h=24.0, reference_c=20.0, recoat_from_h=2.0,
     recoat_to_h=12.0, open_days=180.0, stir_s=60.0, shrink_percent=1.0, cured_g_cm3=1.08, heat_limit_c=80.0,
     process_c=150.0)
for seen in (product.mass_shares, product.liquid_g_cm3, product.ratio_text, product.keepable):
    for of in (RESIN, SILICONE, FOAM):
        case(seen, product=of)
case(amount.MixJob, net_ml=40.0, sprue_ml=6.0, loss=0.05)
for of in (RESIN, SILICONE, FOAM):
    case(amount.weighed_out, product=of, total_g=63.0, step_g=0.5)
    case(amount.least_g, product=of, step_g=0.1)
    case(amount.ratio_error, product=of, grams=(50.0, 46.0))
    case(amount.poured_g_cm3, product=of)
case(amount.learned_loss, pairs=((40.0, 42.0), (60.0, 64.0)))
case(amount.used_g, planned_g=60.0, weighed_g=63.0, left_g=4.0)
case(amount.rounded, grams=12.34, step_g=0.5)
case(clocks.at_temperature, time=10.0, reference_c=20.0, at_c=14.0)
case(filler.filling_for, density_g_cm3=0.8, resin_g_cm3=1.08, filler_g_cm3=0.15)
case(fillers.Filler, name="f", true_g_cm3=0.15, bulk_g_cm3=0.09)
case(fillers.filled, product=RESIN, total_ml=60.0, density_g_cm3=0.8, filler=GLASS)
case(fillers.pigment_g, total_g=60.0, percent=2.0)
case(fillers.pigment_g, total_g=60.0, drops=12.0)
case(layers.layered, product=RESIN, total_g=60.0, shares=(("back", 0.6), ("belly", 0.4)), step_g=0.1,
     at_c=18.0)
case(overpour.put_right, product=RESIN, grams=(40.0, 30.0), step_g=0.1)
case(overpour.put_right, product=SILICONE, grams=(100.0, 6.0), step_g=0.1, left_g=(20.0, 20.0),
     planned_g=104.0)
case(tubs.drawn, left_g=100.0, grams=30.0, what="A")
# Moulds
case(heat.heat, material="silicone", limit_c=200.0, casting_c=180.0, margin_c=15.0)
case(heat.heat, material="silicone", limit_c=200.0, casting_c=195.0, margin_c=15.0)
case(heat.shrinkage, cavity_ml=12.0, linear_percent=1.0, feed_ml=0.3)
case(heat.level_error_mm, long_mm=120.0, off_deg=2.0)
case(heat.in_both, celsius=180.0)
case(layout.cap_mm3, a_mm=4.0, h_mm=3.0)
case(layout.CavitySpot, key="c", x_mm=20.0, y_mm=3.0, turn_deg=10.0)
case(layout.Funnel, end="tail", neck_mm=6.0, mouth_mm=14.0)
case(layout.Keys, count=4, base_mm=8.0, high_mm=4.0, second_high_mm=5.0, gap_mm=0.2)
case(layout.Vent, key="v", x_mm=20.0, y_mm=3.0, z_mm=2.0, across_mm=1.5)
case(layout.Well, key="w", x_mm=20.0, y_mm=3.0, across_mm=10.0, deep_mm=4.0)
case(layout.Text, key="t", says="A", x_mm=16.0, y_mm=0.0, high_mm=4.0)
case(layout.Mould, name="m", master=EGG, cavities=MOULD.cavities, parting_mm=1.0, slant_deg=2.0, edge_mm=12.0,
     floor_mm=10.0, cover_mm=10.0)
for seen in (layout.box, layout.needed, layout.cavity_ml, layout.feed_ml, layout.feed_mm, layout.key_places,
     layout.tight_places, layout.pour_up, press.pressed, silicone.halves, silicone.clay_ml, silicone.vents_ml,
     silicone.runner_ml):
    case(seen, mould=MOULD)
case(layout.arranged, mould=MOULD, count=4)
case(layout.wall_mm, walls=layout.box(MOULD), x_mm=30.0, y_mm=10.0, dx=0.6, dy=0.8)
case(masters.measured, name="m", length_mm=80.0, width_mm=24.0, depth_mm=30.0, volume_ml=28.0, mass_g=9.0)
case(masters.shrunk_mesh, mesh=EGG.mesh, percent=1.5)
case(pull.features, mesh=EGG.mesh, parting_mm=1.0, slant_deg=2.0)
case(pull.best_parting, mesh=EGG.mesh, slant_deg=0.0)
case(silicone.Bricks, long_mm=40.0, wide_mm=20.0, high_mm=12.0, have=60, strip_high_mm=50.0,
     strip_long_mm=600.0)
case(silicone.walls_of, mould=MOULD, bricks=silicone.Bricks(have=20, strip_high_mm=40.0, strip_long_mm=300.0))
case(silicone.lift, mould=MOULD, silicone_g_cm3=1.15)
case(vents.up_of, stand="tail up", tilt_deg=5.0)
case(vents.high_points, mesh=EGG.mesh, up=UP)
# Paints
case(coats.Coat, key="c", role="base", name="white", film_um=20.0, density_g_cm3=1.25, cover_share=0.8,
     wait_h=1.0, window_h=6.0, reach_share=0.5)
case(coats.dry_volume_ml, coat=coats.Coat("c", "base", "white"), area_mm2=9000.0)
case(coats.dry_mass_g, coat=coats.Coat("c", "base", "white"), area_mm2=9000.0)
for role, seen in (("bars", painted.bars), ("spots", painted.spots), ("eyes", painted.eye)):
    case(seen, body=ellipsoid(110.0, 18.0, 26.0), coat=coats.Coat("c", role, "c", count=6))
# Shapes
case(allowances.Allowance, key="a", kind="glue", name="Glue", mass_g=0.3, spread_g=0.1)
case(ballast_holes.Slug, name="s", form="rod", metal="lead", density_g_cm3=11.34, diameter_mm=6.0)
case(ballast_holes.Hole, key="h", slug=LEAD, mass_g=3.0, x_mm=40.0, drill_mm=6.5, cover_mm=2.0,
     filler_g_cm3=1.2, beside_mm=0.0)
case(blades.SnapHole, key="h", edge_mm=5.0, diameter_mm=3.0, wire_mm=1.0, bow_mm=5.0)
case(design.Host, name="h", density_g_cm3=0.5, spread_g_cm3=0.03, solid_g_cm3=1.2, face_mm=0.3)
case(design.Want, behaviour="slow rise", speed_cm_s=6.0, pitch_deg=2.0, net_percent=2.0, freeboard_mm=4.0)
case(faces.learned_mm, drawn=((20.0, 20.6), (30.0, 30.2), (25.0, 25.9)), start_mm=0.3)
case(hardware.Item, code="h", name="hook", kind="hook", mass_g=2.0, density_g_cm3=7.85, outside_share=1.0,
     reach_mm=20.0, wire_mm=1.2, shank_mm=20.0, bore_mm=0.0)
case(hardware.Item, code="t", name="tube", kind="tube", mass_g=0.4, density_g_cm3=1.4, wire_mm=3.0,
     shank_mm=40.0, bore_mm=2.0)
case(hardware.Lip, width_mm=20.0, length_mm=30.0, thickness_mm=1.5, density_g_cm3=1.2, angle_deg=40.0,
     x_mm=4.0, inset_mm=6.0, mass_g=0.9, square_deg=0.0)
case(hollow.Shell, wall_mm=2.0, fill_g_cm3=0.1, fill="foam", around_mm=1.0)
case(inside.PouredEnd, key="p", name="tail", density_g_cm3=1.8, from_mm=60.0, to_mm=90.0, tilt_deg=5.0)
case(inside.Cavity, key="c", slug=replace(LEAD, form="ball"), count=3, x_mm=40.0, up_mm=2.0, play_mm=0.6)
case(joints.Joint, key="j", x_mm=50.0, slant_deg=10.0, kerf_mm=1.2, kind="hinge", hinge_mm=1.2)
case(scaling.to_volume, design=bait(), volume_ml=30.0)
case(stock.block, body=ellipsoid(110.0, 18.0, 26.0), spare_mm=2.0)
case(stock.cutting, body=ellipsoid(110.0, 18.0, 26.0), stick_mm=(1000.0, 30.0, 40.0), kerf_mm=1.5,
     spare_mm=2.0)
case(tracing.Marks, ruler=((0.0, 0.0), (100.0, 0.0)), ruler_mm=50.0)
case(trial.TrialWeight, key="t", place="belly", x_mm=40.0, mass_g=2.0, density_g_cm3=11.34)
# Tank
case(drops.Drop, distance_m=1.0, seconds=8.0)
case(line.Line, diameter_mm=0.3, density_g_cm3=1.14, normal_drag=1.1, friction=0.02)
case(running.Tow, speed_m_s=1.2, rod_m=1.5, line_out_m=25.0, lead_g=5.0)
case(running.Run, tow=running.Tow(), depth_m=2.0, pitch_deg=-5.0)
# Water, weighing, units
case(water.Water, name="w", temperature_c=12.0, salinity_psu=8.0)
case(water.Water, name="w", measured_g_cm3=1.02)
case(water.density, temperature_c=12.0, salinity_psu=8.0)
case(bydifference.capacities, sinker_g=30.0, readings=(("a", 22.0), ("b", 20.5)), measured=FRESH, wanted=SEA,
     own_air_g=3.0, sd_g=0.02)
case(instrument.Scale, name="s", step_g=0.01, span_g=500.0, spread_g=0.02)
case(instrument.can_tell, difference_g=0.05, sd_g=0.01)
case(inwater.InWater, air_g=20.0, water_g=11.0, water=FRESH, air_sd_g=0.01, water_sd_g=0.02)
case(inwater.line_ml, diameter_mm=0.3, length_mm=120.0)
case(inwater.by_ratio, density_g_cm3=1.0, ratio=1.02)
case(inwater.without_line, reading_g=11.0, line_volume_ml=0.2, water=FRESH)
for seen in (inwater.mass_in, inwater.mass_in_sd):
    case(seen, thing=STONE, other=SEA)
case(inwater.air_buoyancy_g, thing=STONE)
case(inwater.converted_lift, capacity_g=4.0, own_air_g=3.0, measured=FRESH, wanted=SEA)
case(pair.turns_at, bearer=pair.Bearer("f", 10.0, FRESH, 14.0), load=STONE)
case(trim.to_add, change_g=-0.4, metal="lead", where="inside", water=FRESH)
case(trim.to_add, change_g=-0.4, metal="lead", where="outside", water=FRESH, wire_diameter_mm=1.5)
case(trim.flips_at, air_g=20.0, volume_ml=19.0)
case(trim.cut_mm, mass_g=6.0, length_mm=20.0, wanted_g=4.5)
case(trim.next_cut, mass_g=6.0, wanted_g=4.5, step_g=0.05)
case(units.convert, value=3.0, unit="in", to="mm")
case(units.inch_fraction, inches=0.3125)
case(units.place, mm=12.34)
# Bodies and what sits in them
for seen in (bodies.axis_mm, bodies.side_outline, bodies.top_outline, solid.solid, solid.segments,
     solid.kerf_ml,
     polyhedra.surface, inertia.polar_moment_mm5, quadrature.whole, segments.pitch_groups, faces.moved):
    case(seen, body=JOINTED.body)
case(bodies.leaning, body=WOOD.body, x_mm=40.0, slant_deg=10.0)
case(bodies.station, body=WOOD.body, x_mm=30.0)
case(bodies.half_width_at_height, body=WOOD.body, x_mm=30.0, z_mm=2.0)
case(bodies.section_outline, body=WOOD.body, x_mm=30.0)
case(solid.segment, body=WOOD.body, from_mm=20.0, to_mm=50.0)
case(solid.segment_at, body=JOINTED.body, x_mm=70.0, z_mm=1.0)
case(quadrature.half_superellipse_area, a=np.array([4.0]), b=np.array([6.0]), n=2.3)
case(quadrature.half_superellipse_moment, a=np.array([4.0]), b=np.array([6.0]), n=2.3)
case(support.reach_mm, body=WOOD.body, way=np.array([0.6, 0.0, 0.8]))
case(forms.body_from, start=forms.FORMS["slim"], length_mm=90.0, depth_mm=19.0, width_mm=15.0)
case(curves.phi_of_share, share=np.array([0.1, 0.5, 0.9]))
case(outlining.width_line, top=np.array([[0.0, 0.0], [10.0, 4.0], [20.0, 5.0], [30.0, 0.0]]))
case(mouths.mouths, body=WOOD.body, drill_mm=6.0, beside_mm=3.0)
for hole in WOOD.ballast:
    for seen in (ballast_holes.mouth_mm, ballast_holes.slug_height_mm, ballast_holes.hole_height_mm,
         drilling.wall_left_mm):
        case(seen, body=WOOD.body, hole=hole)
    case(drilling.troubles, design=WOOD, hole=hole, wall_mm=2.0)
    case(drilling.net_added_g, hole=hole, host_g_cm3=0.42)
    case(ballast_base.load_height_mm, base=BASE, hole=hole)
case(drilling.walls_left_mm, body=WOOD.body, x_mm=np.array([9.0, 30.0, 52.0, 80.0]), depth_mm=8.0,
     drill_mm=6.0)
case(drilling.walls_left_mm, body=WOOD.body, x_mm=np.array([30.0, 52.0]), depth_mm=6.0, drill_mm=4.0,
     beside_mm=3.5)
case(drilling.depths_mm, body=WOOD.body, x_mm=np.array([9.0, 30.0, 80.0]), drill_mm=6.0, wall_mm=2.0)
case(drilling.obstacles, design=WOOD, gap_mm=1.5)
case(drilling.clear_of_hardware, design=WOOD, x_mm=np.array([10.0, 46.0, 60.0]), drill_mm=6.0)
case(drilling.cavity_wall_mm, body=PRINT.body, cavity=PRINT.cavities[0])
case(drilling.cavity_troubles, design=PRINT, cavity=PRINT.cavities[0], wall_mm=2.0)
case(hardware.lip_outline, lip=WOOD.lip)
case(hardware.lip_point, body=WOOD.body, lip=WOOD.lip, along_mm=8.0)
for placed in WOOD.hardware[:5]:
    case(hardware.eye_of, placements=WOOD.hardware, body=WOOD.body, placement=placed, lip=WOOD.lip)
case(inside.pour_volume_ml, body=WOOD.body, pour=inside.PouredEnd("p", "tail", 1.8, 60.0, 90.0, 5.0))
case(inside.cavity_point, body=PRINT.body, cavity=PRINT.cavities[0])
case(hollow.inside_of, body=PRINT.body, wall_mm=1.6)
case(clearance.drill_for, size_mm=2.8, clearance_mm=0.2, drills=DRILLS)
case(drillings.drillings, design=WOOD, table=TABLE, drills=DRILLS)
case(drillings.slot_words, design=WOOD, table=TABLE)
case(family.members, design=WOOD, lengths_mm=(70.0, 110.0), materials=("balsa",))
case(scaling.with_length, design=WOOD, length_mm=110.0)
case(scaling.scaled, design=WOOD, factor=1.2)
case(revisions.differences, before=WOOD, after=JOINTED)
case(revisions.note, before=WOOD, after=replace(WOOD, lip=None))
for of in (WOOD, JOINTED, PRINT):
    for seen in (space.account, space.space_of, needs.missing, unbuilt.unbuilt, mass.budget, parts.assumed,
         clashes.rods, sensitivities.bare, twins.materials_for):
        case(seen, design=of)
    case(errors_of_making.errors_of, design=of, measured=mass.NOTHING)
    case(clashes.clashes, design=of, wall_mm=2.0)
    case(inertia.roll_inertia_g_mm2, design=of, mass=mass.budget(of))
    case(inertia.added_inertia_g_mm2, design=of, water_g_cm3=1.0)
    case(wanted.target, design=of, mass=mass.budget(of))
    case(wanted.flooded_net_g, design=of, mass=mass.budget(of))
    case(sensitivities.flips, design=of, mass=mass.budget(of))
    case(ballast.search, design=of, bench=BENCH)
    case(running.trim, design=of, mass=mass.budget(of), speed_m_s=1.2)
# What it does in the water
case(attitude.immersed, body_centroid=(45.0, 0.0, 0.5), mass=OUTCOME.budget, water_g_cm3=1.0, tie=(0.0, 0.0,
     0.0))
case(motion.frontal_area_mm2, body=WOOD.body, up=UP)
case(motion.speed_cm_s, net_g=0.4, area_mm2=900.0, water_g_cm3=1.0, drag=0.9)
case(motion.net_for_speed_g, speed=6.0, area_mm2=900.0, water_g_cm3=1.0, drag=0.9)
case(motion.behaviour, speed=6.0)
case(motion.window_cm_s, name="slow rise")
case(inertia.frequency_hz, mass_g=12.0, arm_mm=3.0, inertia_g_mm2=600.0)
case(inertia.nature, frequency=1.6)
case(stability.bg_mm, hanging=OUTCOME.hanging)
case(stability.pendulum, hanging=OUTCOME.hanging, heel_deg=np.array([0.0, 30.0, 90.0]))
case(ballast.missed, net_error_g=0.1, pitch_error_deg=3.0)
for answer in ballast.search(WOOD, BENCH)[:2]:
    case(ballast.removed_g, base=BASE, holes=answer.holes)
case(ballast.what_binds, design=WOOD, bench=BENCH)
case(ballast_binds.binds, base=BASE, net_g=0.3, pitch_deg=0.0, bench=BENCH)
case(moulded.poured_ends, base=BASE, net_g=0.2, bench=BENCH)
case(moulded.cavities_for, base=ballast_base.base_of(replace(PRINT, cavities=())), net_g=0.2, pitch_deg=0.0,
     bench=BENCH)
case(refit.refit, outcome=OUTCOME, bench=BENCH)
case(advice.advise, design=WOOD, measured=mass.Measured(stages=(("carved", 9.0, 0.05),)), bench=BENCH)
case(certainty.certainty, design=WOOD, samples=400)
case(sensitivities.effects, design=WOOD)
case(segments.group_verdicts, design=JOINTED, mass=mass.budget(JOINTED), drag=0.9, bands=motion.Bands())
case(printed.by_metal, design=PRINT, measured=mass.NOTHING)
case(printed.weak_hinges, design=JOINTED, limit_mm=1.2)
case(trials.in_tub, design=WOOD, mass=OUTCOME.budget)
case(trials.pull_g, trial=WOOD.trials[0], water_g_cm3=1.0)
case(trials.replacement, design=WOOD, bench=BENCH)
case(drops.added_mass_kg, design=WOOD, water_g_cm3=1.0)
case(drops.time_s, distance_m=1.0, force_n=0.01, k=0.4, mass_kg=0.02)
MOVING = drops.moving(WOOD, 12.0, 900.0)
case(drops.net_from, drop=drops.Drop(1.0, 8.0), body=MOVING, drag=0.9)
case(drops.drag_from, drop=drops.Drop(1.0, 8.0), body=MOVING, net_g=0.4)
case(drops.together, values=(0.9, 1.0, 1.6), drops=(drops.Drop(1.0, 8.0), drops.Drop(1.0, 8.2),
     drops.Drop(1.0, 4.0)))
case(running.munk_factor, fineness=5.0)
case(running.plate_coefficient, alpha=0.3, aspect=1.2)
case(running.deep_share, lip=WOOD.lip)
case(running.depth, design=WOOD, mass=OUTCOME.budget, tow=TOW, fit=running.assumed_fit(WOOD))
case(running.fitted, design=WOOD, runs=(running.Run(TOW, 1.4), running.Run(running.Tow(1.6), 1.6)))
case(running.changes, design=WOOD, tow=TOW, fit=running.assumed_fit(WOOD))
case(line.hang, line=line.Line(0.3), speed_m_s=1.2, water_g_cm3=1.0, tension_n=3.0, angle_rad=0.3,
     along_m=np.array([1.0, 5.0]))
# What is asked of a casting, a shelf, an order, a route
for now in (datetime(2027, 3, 1, 9, 0), datetime(2027, 3, 1, 20, 0), datetime(2027, 3, 3, 9, 0)):
    case(gates.gate, curing=CURING, now=now, hot=False)
    case(gates.gate, curing=CURING, now=now, hot=True)
case(born.as_cast, design=WOOD, born=born.Born("Resin", "resin", 1.08))
case(born.as_cast, design=WOOD, born=born.Born("Soft", "plastisol", 1.02, inserts=False))
case(inserts.of_design, design=WOOD)
case(inserts.covers_mm, mesh=EGG.mesh, insert=inserts.shank(5.0, 40.0, 2.0, 1.1))
case(inserts.level_mm, mesh=EGG.mesh, up=UP, volume_mm3=9000.0)
case(matching.matched, design=WOOD, cast_g_cm3=1.08, filler_g_cm3=0.15)
for of in (RESIN, SILICONE, FOAM):
    case(session.checklist, product=of, mould=MOULD, inserts=2)
    case(recipe.to_document, product=of)
for given in ("A", "expired"):
    held = TUB if given == "A" else replace(TUB, expires_on=date(2027, 1, 1))
    case(tubs.good_until, tub=held, open_days=60.0)
    case(tubs.remarks, tub=held, open_days=60.0, stir_s=60.0, at=datetime(2027, 2, 20, 9, 0))
    case(tubs.is_expired, tub=held, open_days=60.0, at=date(2027, 2, 20))
case(tubs.choose, tubs=(TUB, replace(TUB, key="u", left_g=20.0)), part="A", grams=50.0, open_days=90.0,
     on=date(2027, 2, 1))
for of in (MOULD, SLANTED, PRESS):
    for seen in (moulding.look, moulding.turns, moulding.high_points_of, layout.box, layout.feeds,
         layout.pour_up, layout.tight_places, silicone.halves, press.pressed):
        case(seen, mould=of)
    case(moulding.sentence, mould=of, seen=moulding.look(of))
case(pull.thinnest, mesh=EGG.mesh)
case(vents.fewest_vents, mesh=EGG.mesh, stand="flat", escapes=())
case(faults.tallies, shots=((1, (("short",), ())), (2, (("short", "pinholes"),))))
case(faults.MasterUse, expected=12, done=10)
case(silicone.Saved, box_ml=200.0, true_ml=140.0, density_g_cm3=1.15, price_per_kg=30.0)
for against in ("sulphur clay", "condensation silicone", "plaster", "printed resin"):
    case(touching.touch, poured="addition silicone", against=against)
for stands in ((), ("open", "done"), ("done", "done", "done")):
    case(status.status, accepted=True, wanted=3, pieces=stands)
for of in (WOOD, PRINT):
    case(steps.steps, design=of)
    case(steps.body_cautions, design=of)
case(instrument.remarks, scale=SCALE, load_g=620.0, today=date(2027, 2, 1))
case(instrument.remarks, scale=SCALE, load_g=120.0, today=date(2026, 1, 9))
case(pair.margins, bearer=pair.Bearer("f", 10.0, FRESH, 14.0, 0.05), load=STONE, waters=(FRESH, SEA))
case(bydifference.capacities, sinker_g=30.0, readings=(("a", 22.0), ("b", 34.0)), measured=FRESH,
     wanted=FRESH, own_air_g=None)
for text in ("1 1/2 in", "12,5", "5/16\"", "½ in", "2 cm"):
    case(units.parse, text=text, quantity="length", default_unit="mm")
for text in ("2 lb 3 oz", "8 gr", "3 oz", "1e9 kg"):
    case(units.parse, text=text, quantity="mass", default_unit="g")
for thing in (straight(80.0, 4.0, 7.0), ellipsoid(60.0, 12.0, 20.0)):
    for seen in (solid.solid, bodies.side_outline, polyhedra.surface, inertia.polar_moment_mm5):
        case(seen, body=thing)
case(polyhedra.measures, mesh=box_mesh(40.0, 12.0, 8.0))

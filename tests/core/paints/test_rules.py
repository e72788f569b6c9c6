"""Doing it: the finish map, how deep a dip goes, how proud paint stands, what lies on what, what a cup
takes.
"""

from dataclasses import replace
from math import pi, radians, sqrt, tan

import pytest

from lamsik.core.errors import Refused
from lamsik.core.paints.dips import meniscus_mm, stops
from lamsik.core.paints.dressed import anchors_on
from lamsik.core.paints.laid import laid
from lamsik.core.paints.layers import begun
from lamsik.core.paints.lifts import Patch, lifting
from lamsik.core.paints.names import read_alike
from lamsik.core.paints.paint import Paint
from lamsik.core.paints.place import Along, Anchors, Place, Round
from lamsik.core.paints.relief import coats_for, relief_um
from lamsik.core.paints.rules import covered_share, ruled
from lamsik.core.paints.spraying import STAYS_SHARE, cups
from lamsik.core.paints.zones import CHECKS, MAY, OF_PARTS, STOPPED, ZONE_KINDS, checks_of, masked, zones_on
from lamsik.core.route.batches import batched
from lamsik.core.route.repaint import repainted
from lamsik.core.route.steps import steps
from lamsik.core.shapes.hardware import Item, Placement
from lamsik.core.shapes.joints import Joint
from lamsik.core.shapes.solid import solid
from lamsik.core.trade.part_kinds import PART_KINDS
from lamsik.core.trade.step_kinds import minutes
from lamsik.drawings.finish import finish_map, hung
from lamsik.drawings.svg import markup
from lamsik.words import paints
from lamsik.words.paints import CHECKS as CHECKS_SAID
from lamsik.words.paints import MASKS, ZONES
from tests.bodies import bait, straight

DIPPED = replace(begun("clear", "dip"), by="dipped")


def jointed(slant_deg=0.0, at_mm=60.0, **more):
    body = replace(bait().body, joints=(Joint("j1", at_mm, slant_deg),))
    return bait(body=body, lip=None, **more)


def part(kind, seat="tail", x_mm=0.0):
    return Placement(f"p_{kind}", Item("c", kind, kind, 1.0, 2.0), seat, x_mm)


def test_every_zone_a_part_makes_is_one_and_every_one_is_said():
    assert set(OF_PARTS.values()) <= set(ZONE_KINDS) and set(OF_PARTS) <= set(PART_KINDS)
    assert set(ZONES) == set(ZONE_KINDS) and set(CHECKS_SAID) == {*CHECKS, STOPPED}
    assert {one.mask for one in ZONE_KINDS.values()} - {""} == set(MASKS)
    assert all(set(one.may) <= set(MAY) for one in ZONE_KINDS.values())


def test_a_finish_map_has_the_body_then_what_is_on_it_from_the_nose_on():
    design = jointed(hardware=(part("rotor", "nose"), part("contact", "belly", 30.0), part("hair")))
    zones = zones_on(design)
    assert [zone.kind for zone in zones] == ["body", "rotor", "contact", "joint", "hair"]
    assert [zone.kind for zone in masked(zones)] == ["rotor", "contact", "hair"]
    assert checks_of(zones) == ("no_runs", "pivots_free", "rotor_spins", "contacts_bare", "hair_dry")
    assert "dip" not in zones[3].of.may and zones[3].of.may and zones[1].of.may == ()
    assert str(markup(finish_map(design, zones))).count("<rect") == len(zones) - 1


def test_a_tie_on_the_lip_is_kept_bare_where_it_sits():
    tie = Placement("tie", bait().hardware[0].item, "lip", 8.0)
    zone = next(one for one in zones_on(bait(hardware=(tie,))) if one.kind == "line tie")
    lip = next(one for one in zones_on(bait(hardware=(tie,))) if one.kind == "lip")
    x, z = (zone.from_mm + zone.to_mm) / 2, (zone.low_mm + zone.high_mm) / 2
    assert lip.from_mm < x < lip.to_mm and lip.low_mm < z < lip.high_mm


@pytest.mark.parametrize(
    ("eye", "late", "kind"),
    [
        ("flat", False, "eye"),
        ("domed", False, "eye"),
        ("domed", True, "eye pit"),
        ("kept", False, "kept eye"),
    ],
)
def test_eyes_make_the_zone_that_their_kind_and_their_turn_asks_for(eye, late, kind):
    eyes, clear = replace(begun("eyes", "e"), eye=eye), begun("clear", "c")
    zones = zones_on(bait(layers=(clear, eyes) if late else (eyes, clear)))
    assert [zone.kind for zone in zones if zone.key.startswith("eyes")] == [kind]


def test_a_dip_stops_short_of_the_joint_by_what_climbs():
    design, kerf = jointed(at_mm=60.0), Joint("j", 1.0).kerf_mm
    nose, tail = stops(zones_on(design), 90.0, 1.12)
    assert nose.is_nose_first and not tail.is_nose_first
    climbs = 1000 * sqrt(2 * 0.035 / (1120 * 9.81))
    assert climbs == pytest.approx(meniscus_mm(1.12)) and 2 < climbs < 3
    assert nose.depth_mm == pytest.approx(60.0 - kerf / 2 - climbs)
    assert tail.depth_mm == pytest.approx(90.0 - 60.0 - kerf / 2 - climbs)


def test_of_a_joint_that_leans_the_end_that_comes_first_counts():
    body, angle = straight(100.0, 8.0, 8.0), 30.0
    design = bait(body=replace(body, joints=(Joint("j1", 50.0, angle, 1.0),)), lip=None, hardware=())
    nose, tail = sorted(stops(zones_on(design), 100.0, 1.0), key=lambda way: not way.is_nose_first)
    reach = 8.0 * tan(radians(angle)) + 0.5 / (sqrt(3) / 2)
    assert nose.stop_mm == pytest.approx(50.0 - reach) and tail.stop_mm == pytest.approx(50.0 - reach)


def test_a_body_that_nothing_stops_goes_in_whole_and_one_that_is_stopped_at_once_does_not():
    assert stops(zones_on(bait()), 90.0, 1.1) == ()
    design = bait(hardware=(part("rotor", "nose"), part("soft_tail")), lip=None)
    assert [way.depth_mm for way in stops(zones_on(design), 90.0, 1.1)] == [0.0, 0.0]


def test_the_step_and_the_rule_say_where_to_stop_and_the_picture_draws_it():
    design = jointed(layers=(*bait().layers, DIPPED))
    (says,) = (text for one, text in paints.warnings(design.layers, ruled(design)) if one.name == "dip_stops")
    depth = stops(zones_on(design), 90.0, DIPPED.paint.density_g_cm3)[0].depth_mm
    assert f"nose first, stop {depth:.0f} mm deep" in says and "Brush the rest" in says
    step = next(one for one in steps(design) if one.key == "coat:dip")
    assert dict(step.says.values)["says"].name == "dip-to"
    drawn = str(markup(hung(design, stops(zones_on(design), 90.0, 1.12)[0])))
    assert f"stop here, {depth:.0f} mm deep" in drawn
    meant = replace(design, layers=(*bait().layers, replace(DIPPED, intended="both halves by themselves")))
    assert not [one for one in ruled(meant) if one.name == "dip_stops"]


@pytest.mark.parametrize(("by", "warns"), [("sprayed", True), ("dipped", True), ("brushed", False)])
@pytest.mark.parametrize("kind", ["hair", "skirt", "soft_tail", "contact"])
def test_clear_all_over_is_warned_of_where_it_spoils_something(by, warns, kind):
    clear = replace(begun("clear", "c"), by=by)
    design = bait(hardware=(part(kind, "belly" if kind == "contact" else "tail", 30.0),), layers=(clear,))
    assert ("spoilt" in [one.name for one in ruled(design)]) is warns


FOIL = begun("foil", "f")


def test_how_much_of_a_foil_an_opaque_layer_hides_is_said_and_a_see_through_one_hides_nothing():
    whole = replace(begun("base", "b"), place=Place())
    body, anchors = bait().body, Anchors()
    assert covered_share(whole.place, FOIL.place, body, anchors) == pytest.approx(1.0)
    assert covered_share(FOIL.place, FOIL.place, body, anchors) > 0.97  # its own rim, cells of it shared
    half = Place(side="left")
    assert covered_share(half, FOIL.place, body, anchors) == pytest.approx(0.5, abs=1e-6)
    (found,) = (
        one for one in ruled(bait(layers=(FOIL, replace(whole, place=half)))) if one.name == "on_foil"
    )
    assert found.figures == (("share", pytest.approx(50.0), "percent"),)
    for layer in (
        replace(whole, paint=Paint(kind="candy")),
        replace(whole, place=Place(bottom=Round(at_percent=10.0))),
    ):
        assert "on_foil" not in [one.name for one in ruled(bait(layers=(FOIL, layer)))]
    assert "on_foil" not in [one.name for one in ruled(bait(layers=(whole, FOIL)))]


def test_edges_stand_as_high_as_what_lies_there_and_coats_level_them():
    body = bait().body
    bars, soft = begun("bars", "b"), replace(begun("fade", "f"), film_um=300.0)
    assert relief_um((soft, begun("base", "g"), begun("clear", "c")), body, Anchors()) == 0.0
    assert relief_um((bars,), body, Anchors()) == pytest.approx(bars.dry_um)
    twice = replace(bars, key="b2", film_um=35.0)
    assert relief_um((bars, soft, twice), body, Anchors()) == pytest.approx(bars.dry_um + 35.0)
    assert [coats_for(h, 60.0) for h in (0.0, 10.0, 11.0, 70.0, 131.0)] == [1, 1, 2, 2, 4]
    assert coats_for(10.0, 0.0) == 0


def test_too_few_coats_for_the_relief_are_counted_and_enough_are_not():
    wrap = replace(begun("bars", "w"), film_um=200.0)
    clear = replace(begun("clear", "c1"), film_um=60.0)
    few = bait(layers=(wrap, clear))
    (found,) = (one for one in ruled(few) if one.name == "few_coats")
    assert dict((name, value) for name, value, _ in found.figures) == {
        "relief": 200.0,
        "coats": 5.0,
        "coat": 60.0,
    }
    assert "5 coats" in dict(paints.warnings(few.layers, [found]))[found]
    enough = bait(layers=(wrap, *(replace(clear, key=f"c{n}") for n in range(5))))
    assert "few_coats" not in [one.name for one in ruled(enough)]


WATER = replace(begun("base", "w"), wait_h=4.0)
EPOXY = begun("clear", "e")


@pytest.mark.parametrize(
    ("patches", "name"),
    [
        ([], "untried"),
        ([Patch("epoxy", "water", 1, "held")], "untried"),
        ([Patch("water", "epoxy", 4, "held")], ""),
        ([Patch("water", "epoxy", 2, "held")], ""),
        ([Patch("water", "epoxy", 12, "held")], "wait_longer"),
        ([Patch("water", "epoxy", 2, "lifted")], "untried"),
        ([Patch("water", "epoxy", 6, "lifted")], "lifts"),
        ([Patch("water", "epoxy", 2, "wrinkled"), Patch("water", "epoxy", 3, "held")], ""),
        ([Patch("water", "epoxy", 2, "wrinkled"), Patch("water", "epoxy", 24, "held")], "wait_longer"),
        ([Patch("water", "epoxy", 48, "lifted"), Patch("water", "epoxy", 3, "held")], "lifts"),
    ],
)
def test_only_the_shops_own_patches_say_what_lies_on_what(patches, name):
    found = lifting((WATER, EPOXY), patches)
    assert [one.name for one in found] == ([name] if name else [])
    assert all((one.layer, one.other) == ("e", "w") for one in found)
    assert lifting((WATER, replace(EPOXY, intended="as always")), patches) == []


def test_what_has_no_chemistry_is_passed_over_and_a_pair_is_named_once():
    foil, more = begun("foil", "f"), replace(WATER, key="w2")
    layers = (WATER, foil, EPOXY, more, replace(EPOXY, key="e2"))
    assert [(one.layer, one.other) for one in lifting(layers, [])] == [("e", "w"), ("w2", "e")]


def test_a_cup_holds_the_dry_film_its_solids_and_what_goes_past():
    design = bait(layers=(begun("base", "b"), begun("eyes", "e"), replace(begun("clear", "c"), wait_h=6.0)))
    base, eyes, clear = cups(design)
    dry_ml = design.layers[0].film_um * 1e-3 * solid(design.body).area_mm2 / 1000.0
    assert base.wet_ml == pytest.approx(dry_ml / 0.35 / STAYS_SHARE["sprayed"])
    assert eyes.wet_ml == 0.0 and not eyes.needs_cup and clear.wait_h == design.layers[2].cure_h
    assert clear.wet_ml == pytest.approx(
        laid(design.layers[2], design.body, anchors_on(design)).film_ml / STAYS_SHARE["brushed"]
    )
    film = pi * 20.0**2  # a flat disc of 40 mm at 10 µm: 12.57 mm³
    assert film * 0.01 / 1000 == pytest.approx(0.01257, rel=1e-3)


def test_pieces_of_several_schemes_share_their_loads():
    one = cups(bait(layers=tuple(begun(kind, f"{kind}1") for kind in ("primer", "base", "eyes", "clear"))))
    other = cups(bait(layers=tuple(begun(kind, f"{kind}1") for kind in ("primer", "bars", "clear"))))
    batch = batched([one, one, other], minutes())
    assert (batch.alone, batch.loads, batch.changes, batch.saved) == (9, 4, 3, 5)
    assert batch.plan.is_best and batch.plan.missed == ()
    primer = batch.plan.loads[0]
    assert [task[0] for task in primer.tasks] == [0, 1, 2]
    assert primer.ends_min == sum(minutes()["prime"]) + 2 * minutes()["prime"][1]


def test_the_route_masks_before_paint_and_ends_with_a_check_of_this_very_piece():
    keys = [step.key for step in steps(bait())]
    assert keys.index("mask") < keys.index("coat:primer1") and keys.index("check") == keys.index("pack") - 1
    assert "mask" not in [step.key for step in steps(bait(lip=None))]
    check = next(step for step in steps(bait()) if step.key == "check")
    assert check.points == checks_of(zones_on(bait())) and "lip_clean" in check.points
    kept = replace(begun("eyes", "k"), eye="kept")
    masked_first = next(
        step for step in steps(bait(lip=None, layers=(kept, *bait().layers))) if step.key == "mask"
    )
    assert masked_first.name.name == "masks-on"


def test_names_that_are_easily_taken_for_one_another():
    assert read_alike("Barred perch", ["Barred perch 2", "Bared Perch", "Roach at dusk"]) == [
        "Bared Perch",
        "Barred perch 2",
    ]
    assert read_alike("Ruffe", ["Roach"]) == []


def test_a_station_from_a_joint_still_lies_on_the_body_the_map_shows():
    band = replace(begun("band", "b"), place=Place(begins=Along("joint", -5.0), ends=Along("joint", 5.0)))
    design = jointed(layers=(band,))
    on = laid(band, design.body, anchors_on(design))
    joint = next(zone for zone in zones_on(design) if zone.kind == "joint")
    assert joint.from_mm < on.at_mm[0] + 1.0 and on.at_mm[0] - 1.0 < joint.to_mm


@pytest.mark.parametrize(("old", "left_out"), [("kept", {"coat:seal1", "coat:primer1"}), ("stripped", set())])
def test_a_repaint_is_weighed_as_it_came_and_goes_through_the_same_doors(old, left_out):
    whole, again = steps(bait()), repainted(bait(), old)
    assert [step.key for step in again] == [
        "came",
        "bared",
        *(step.key for step in whole if step.key not in {"carve", "fit", "tub", *left_out}),
    ]
    assert [step.weigh for step in again[:2]] == ["came", "bared"]
    assert all("paint_dust" in step.cautions for step in again if step.key == "bared")
    assert next(step for step in again if step.key == "check").points == checks_of(zones_on(bait()))
    with pytest.raises(Refused, match="one of kept, stripped"):
        repainted(bait(), "burnt")

"""What is missing, the order of work, cautions, paint layout, order status, scaling."""

from dataclasses import replace

import pytest
from hypothesis import given
from hypothesis import strategies as st

from lamsik.core import cautions
from lamsik.core.castings.born import Born, as_cast
from lamsik.core.errors import Refused
from lamsik.core.materials import BODY_MATERIALS, METALS, body_material
from lamsik.core.orders.status import CLOSED, ENDED, STATUSES, WAYS, Agreed, may_be_said, status, ways
from lamsik.core.route.steps import MAKING, READY, SHIPPED, open_before, stand, steps
from lamsik.core.shapes.design import Host
from lamsik.core.shapes.hardware import Item, Placement
from lamsik.core.shapes.needs import missing
from lamsik.core.shapes.scaling import scaled, with_length
from lamsik.core.tank import evaluate
from lamsik.core.tank.parts import STAGES
from lamsik.words.cautions import CAUTIONS, DEFER, all_of, caution
from lamsik.words.tell import tell
from tests.bodies import STEEL, TREBLE, bait, volume_ml

FOAM = Host("foam board", 0.4, 0.05, "foam")
WIRE = Item("w", "wire", "wire", 0.7, STEEL, 0.1)


def named(design):
    return {need.key for need in missing(design)}


@pytest.mark.parametrize(
    ("changes", "lost"),
    [
        ({}, set()),
        ({"layers": ()}, {"seal", "primer", "clear"}),
        ({"hardware": ()}, {"tie", "hook"}),
        ({"glue_g": 0.0}, {"glue"}),
        ({"ballast": (replace(bait().ballast[0], cover_mm=0.0),)}, {"filler"}),
        ({"hardware": (*bait().hardware[:1], Placement("k9", TREBLE, "belly", 30))}, {"hanger"}),
        ({"host": FOAM}, {"wire"}),
        ({"host": FOAM, "hardware": (*bait().hardware, Placement("w", WIRE))}, set()),
        ({"purpose": "float", "layers": (), "hardware": ()}, {"seal", "clear", "tie"}),
        (
            {
                "host": replace(FOAM, construction="print"),
                "ballast": (replace(bait().ballast[0], cover_mm=0.0),),
            },
            set(),
        ),
    ],
)
def test_what_a_body_cannot_do_without_is_named(changes, lost):
    assert named(bait(**changes)) == lost
    assert all(need.why for need in missing(bait(**changes)))


def test_the_route_follows_the_bench_and_weighs_every_stage_in_order():
    rows = steps(bait())
    keys = [s.key for s in rows]
    assert keys == [
        "carve",
        "coat:seal1",
        "fit",
        "tub",
        "mask",
        "coat:primer1",
        "coat:clear1",
        "rig",
        "swim",
        "check",
        "pack",
        "ship",
    ]
    assert [s.weigh for s in rows if s.weigh] == list(STAGES)
    assert rows[1].wait_h == bait().layers[0].wait_h


@pytest.mark.parametrize("construction", ["wood", "foam", "cast", "print"])
def test_work_that_can_hurt_carries_its_caution(construction):
    rows = {s.key: s for s in steps(bait(host=Host("x", 0.5, 0.1, construction)))}
    assert all_of(rows["carve"].cautions)
    assert any("Lead" in text for text in all_of(rows["fit"].cautions))
    assert any("Hooks" in text for text in all_of(rows["rig"].cautions))


def test_other_metals_bring_their_own_dust():
    slug = replace(bait().ballast[0].slug, metal="tungsten")
    fit = next(s for s in steps(bait(ballast=(replace(bait().ballast[0], slug=slug),))) if s.key == "fit")
    assert "metal_dust" in fit.cautions and "lead" not in fit.cautions


def test_every_caution_defers_to_the_data_sheet():
    assert tuple(CAUTIONS) == cautions.CAUTIONS
    assert all(caution(key).endswith(DEFER) for key in CAUTIONS)
    assert caution("") == caution("unheard of") == ""


@pytest.mark.parametrize(
    ("accepted", "wanted", "pieces", "name"),
    [
        (False, 1, [], "enquiry"),
        (True, 1, [], "accepted"),
        (True, 1, ["making"], "making"),
        (True, 2, ["shipped"], "making"),
        (True, 2, ["shipped", "making"], "making"),
        (True, 2, ["shipped", "ready"], "ready"),
        (True, 2, ["shipped", "shipped"], "shipped"),
    ],
)
def test_where_an_order_stands(accepted, wanted, pieces, name):
    assert status(Agreed(accepted=accepted), [(wanted, pieces)]) == name


@pytest.mark.parametrize(
    ("agreed", "pieces", "name"),
    [
        ({"quoted": True}, [], "quote"),
        ({"quoted": True, "accepted": True}, [], "accepted"),
        ({"declined": True, "quoted": True}, [], "declined"),
        ({"accepted": True, "cancelled": True}, ["making"], "cancelled"),
        ({"accepted": True, "cancelled": True}, ["shipped"], "shipped"),
        ({"accepted": True, "due_minor": 100, "paid_minor": 100}, ["ready"], "ready"),
        ({"accepted": True, "due_minor": 100, "paid_minor": 99}, ["shipped"], "shipped"),
        ({"accepted": True, "due_minor": 100, "paid_minor": 120}, ["shipped"], "closed"),
        ({"accepted": True, "due_minor": 0}, ["shipped"], "closed"),
        ({"accepted": True, "paid_minor": 120}, ["shipped"], "shipped"),  # no price was agreed
    ],
)
def test_what_was_said_and_paid_of_an_order_tells_where_it_stands(agreed, pieces, name):
    assert status(Agreed(**agreed), [(1, pieces)]) == name


@given(
    st.builds(Agreed, *[st.booleans()] * 4, st.none() | st.integers(0, 9), st.integers(-9, 9)),
    st.lists(
        st.tuples(st.integers(1, 3), st.lists(st.sampled_from([MAKING, READY, SHIPPED]), max_size=4)),
        max_size=3,
    ),
    st.randoms(use_true_random=False),
)
def test_the_stage_of_an_order_follows_from_its_facts_whatever_the_order_of_its_lines(agreed, made, chance):
    stage, mixed = status(agreed, made), [(wanted, chance.sample(its, len(its))) for wanted, its in made]
    chance.shuffle(mixed)
    assert status(agreed, mixed) == stage and stage in (*STATUSES, *ENDED)
    if stage in (READY, SHIPPED, CLOSED):
        assert made and all(len(its) >= wanted and MAKING not in its for wanted, its in made)
    for way in WAYS:
        if way not in ways(agreed, stage):
            with pytest.raises(Refused):
                may_be_said(way, agreed, stage)


def test_a_piece_is_shipped_by_all_of_its_steps_and_not_by_the_last():
    route = steps(bait())
    keys = [step.key for step in route]
    assert stand(route, {"ship"}) == "making" == stand(route, set(keys[:-2])) == stand((), set())
    assert stand(route, set(keys[:-1])) == "ready" and stand(route, set(keys)) == "shipped"
    assert [step.key for step in open_before(route, {"carve", "fit"}, "tub")] == ["coat:seal1"]
    assert open_before(route, set(), "carve") == ()


@pytest.mark.parametrize(
    ("kind", "construction", "first", "left_out"),
    [
        ("plastisol", "soft", "Cast the body", {"coat:seal1", "coat:primer1", "coat:clear1"}),
        ("resin", "cast", "Cast the body", {"coat:seal1"}),
        ("foam", "foam", "Cast the body", {"coat:seal1"}),
    ],
)
def test_what_is_born_of_a_pour_is_of_what_was_poured_and_goes_its_way(kind, construction, first, left_out):
    carved = bait()
    cast = as_cast(carved, Born("Soft plastisol", kind, 1.05))
    assert (
        cast.host.construction == construction
        and cast.host.name == "Soft plastisol"
        and cast.host.density_g_cm3 == 1.05
    )
    route = steps(cast)
    assert (
        tell(route[0].name) == first
        and {s.key for s in steps(carved)} - {s.key for s in route} >= left_out
        and "basswood" not in route[0].says
    )
    assert "seal" not in named(cast) and (named(cast) == set() or kind != "plastisol")
    assert all(hole.drill_mm == hole.slug.diameter_mm and hole.filler_g_cm3 == 1.05 for hole in cast.ballast)
    assert all(
        hole.drill_mm == before.drill_mm
        for hole, before in zip(
            as_cast(carved, Born("x", kind, 1.05, False)).ballast, carved.ballast, strict=False
        )
    )


def test_a_soft_casting_weighs_its_plastic_and_sinks():
    cast = as_cast(bait(), Born("Soft plastisol", "plastisol", 1.05, False))
    found = evaluate.drag(cast)
    assert (
        found.budget.mass_g == pytest.approx(1.05 * volume_ml(cast.body), rel=1e-3)
        and found.verdict.net_g < 0
        and not cast.hardware
        and cast.lip is None
    )


def test_a_casting_of_two_densities_is_scaled_with_where_its_mass_lies():
    design = bait()
    uneven = replace(design, host=replace(design.host, uneven_mm=(-4.0, 1.0, -2.0)))
    assert scaled(uneven, 1.5).host.uneven_mm == pytest.approx((-6.0, 1.5, -3.0))
    assert with_length(uneven, 0.5 * design.body.length_mm).host.uneven_mm == pytest.approx((-2.0, 1.0, -2.0))


def test_scaling_keeps_places_in_proportion_and_hardware_in_size():
    longer = with_length(bait(), 180.0)
    assert longer.body.length_mm == 180 and longer.body.depth_mm == pytest.approx(bait().body.depth_mm)
    assert (
        longer.ballast[0].x_mm == pytest.approx(65) and longer.ballast[0].mass_g == bait().ballast[0].mass_g
    )
    assert longer.lip.x_mm == pytest.approx(13.6) and longer.lip.width_mm == bait().lip.width_mm


def test_materials_are_in_the_range_of_real_ones():
    assert all(0.05 < m.density_g_cm3 < 1.3 and m.spread_g_cm3 > 0 for m in BODY_MATERIALS.values())
    assert METALS["tungsten"] > METALS["lead"] > METALS["steel"]
    with pytest.raises(Refused, match="balsa"):
        body_material("adamantium")


def test_only_resin_prints_are_warned_of_uv():
    said = {
        name: next(s for s in steps(bait(host=Host(name, 1.1, 0.03, "print"))) if s.key == "carve").cautions
        for name in ("printed resin", "printed PLA")
    }
    assert said == {"printed resin": ("uv_resin",), "printed PLA": ("print_dust",)}


@pytest.mark.parametrize(
    ("changes", "fitted"),
    [
        ({}, False),
        ({"ballast": bait().ballast}, True),
        ({"lip": bait().lip}, True),
        ({"hardware": bait().hardware[:1]}, True),
        ({"host": bait().host}, True),
    ],
    ids=["bare", "ballast", "lip", "line tie", "wood"],
)
def test_a_soft_casting_has_a_step_for_fitting_only_where_there_is_something_to_fit(changes, fitted):
    bare = {
        "host": Host("soft plastisol", 1.0, 0.02, "soft"),
        "ballast": (),
        "lip": None,
        "hardware": (),
        "layers": (),
    }
    keys = [step.key for step in steps(bait(**(bare | changes)))]
    assert ("fit" in keys) == fitted


def test_only_what_was_agreed_and_holds_is_owed_for():
    terms = Agreed(accepted=True, due_minor=100, paid_minor=40)
    assert terms.owed_minor == 60 and replace(terms, due_minor=None).owed_minor is None
    others = ({"accepted": False}, {"cancelled": True}, {"declined": True}, {"paid_minor": 100})
    assert [replace(terms, **other).owed_minor for other in others] == [None] * 4

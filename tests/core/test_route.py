"""The route as data: what each step says of itself, for every form and way of making."""

import json
from dataclasses import replace

import pytest

from lamsik.core.cautions import of_metals
from lamsik.core.errors import Refused
from lamsik.core.floats import design as floats
from lamsik.core.materials import METALS
from lamsik.core.paints.kinds import KINDS
from lamsik.core.paints.layers import begun
from lamsik.core.route.others import body_of, of_blade, of_float
from lamsik.core.route.steps import content_of, from_content, steps, timed
from lamsik.core.shapes.design import Host
from lamsik.core.trade.step_kinds import STEP_KINDS, minutes
from lamsik.core.water import Water
from lamsik.documents.floats.document import blank, to_float
from lamsik.words.route import told_route
from tests.bodies import bait

WAYS = ("wood", "foam", "cast", "print", "soft")


@pytest.mark.parametrize("construction", WAYS)
def test_a_route_comes_back_from_what_is_kept_of_it(construction):
    layers = tuple(begun(kind, f"{kind}1") for kind in KINDS)
    route = told_route(steps(bait(host=Host("x", 0.5, 0.1, construction), layers=layers)))
    kept = json.loads(json.dumps(content_of(route)))
    assert from_content(kept) == route
    later = [{**row, "of_a_later_version": 1} for row in kept]
    assert from_content(later) == route
    assert len({step.key for step in route}) == len(route)
    assert [step.of.makes_body for step in route] == [True] + [False] * (len(route) - 1)
    assert [step.of.hands_over for step in route] == [False] * (len(route) - 1) + [True]


def test_every_step_has_the_minutes_of_its_kind_and_the_shops_own_come_before_the_tables():
    for step in steps(bait()):
        assert (step.setup_min, step.each_min) == (step.of.setup_min, step.of.each_min)
    seal = next(s for s in steps(bait(), minutes({"seal": (7.5, 1.5)})) if s.kind == "seal")
    assert (seal.setup_min, seal.each_min) == (7.5, 1.5)
    assert timed([seal])[0].setup_min == STEP_KINDS["seal"].setup_min


@pytest.mark.parametrize("own", [{"dance": (1, 1)}, {"seal": (-1, 2)}, {"seal": (1, 601)}])
def test_what_is_no_time_of_a_step_is_refused(own):
    with pytest.raises(Refused, match="one of carve|set-up|each"):
        minutes(own)


def test_what_is_done_together_has_one_key():
    def keys(**changes):
        return {step.key: step.batch_key for step in steps(bait(**changes))}

    green = replace(begun("base", "base1"), name="Any green")
    same, other = (
        replace(green, name="Another name"),
        replace(green, paint=replace(green.paint, colour="#112233")),
    )
    one, two, three = (keys(layers=(layer,))["coat:base1"] for layer in (green, same, other))
    assert one == two != three  # batches are by colour, not by bait
    assert keys()["tub"] == "tub" and keys()["pack"] == keys()["ship"] == ""
    assert keys(host=Host("oak", 0.7, 0.1))["carve"] != keys()["carve"]


@pytest.mark.parametrize(
    ("kind", "step"),
    [
        ("seal", "seal"),
        ("primer", "prime"),
        ("base", "colour"),
        ("bars", "stencil"),
        ("eyes", "eyes"),
        ("clear", "clear"),
    ],
)
def test_each_layer_is_put_on_by_a_step_of_its_own_kind_and_wait(kind, step):
    layer = begun(kind, "one")
    coat = next(s for s in steps(bait(layers=(layer,))) if s.key == "coat:one")
    hard_h = layer.cure_h or layer.wait_h  # of a last clear, its cure
    assert (coat.kind, coat.wait_h, coat.window_h) == (step, hard_h, layer.window_h)
    assert coat.of.resource or kind == "eyes"


@pytest.mark.parametrize("kind", floats.KINDS)
def test_a_float_of_every_kind_has_its_route(kind):
    design = replace(to_float(blank("One", kind, Water())), paint_g=0.1, varnish_g=0.0)
    route = of_float(design)
    kinds = [step.kind for step in route]
    assert kinds[0] in STEP_KINDS and route[0].of.makes_body and kinds[-2:] == ["pack", "ship"]
    assert ("seal" in kinds) == (kinds[0] == "carve") and "colour" in kinds and "clear" not in kinds
    assert f"{body_of(design).density_g_cm3:.2f} g/cm³" in route[0].says


@pytest.mark.parametrize("metal", METALS)
def test_a_blade_is_bent_from_its_metal_with_the_dust_of_that(metal):
    route = of_blade(metal, minutes({"bend": (1.0, 2.0)}))
    assert route[0].setup_min == 1.0 and of_metals({metal})[0] in route[0].cautions
    kept = json.loads(json.dumps(content_of(told_route(route))))
    assert from_content(kept) == told_route(route)

"""Every kind of layer begins, weighs, is drawn and can be put on a scheme; what lies where it should not is
found; what a body needs otherwise lies over its scheme.
"""

import io
from dataclasses import replace

import numpy as np
import pytest
from PIL import Image

from lamsik.core.paints.adjusting import FIELDS, LEFT_OUT, LIKE, Adjustment, resolved
from lamsik.core.paints.eyes import EYE_KINDS
from lamsik.core.paints.fitting import misfits
from lamsik.core.paints.kinds import KINDS
from lamsik.core.paints.laid import laid
from lamsik.core.paints.layers import begun, warned
from lamsik.core.paints.paint import Paint
from lamsik.core.paints.place import Along, Anchors, Place, Round
from lamsik.core.paints.roles import FITTED
from lamsik.core.paints.waiting import waiting_h, waits_h
from lamsik.core.route.steps import steps
from lamsik.core.shapes.mesh import body_mesh
from lamsik.core.tank import evaluate
from lamsik.core.tank.mass import budget
from lamsik.documents.engine import apply
from lamsik.documents.schemes.document import SCHEME, blank, layers_of
from lamsik.drawings import scheme_file
from lamsik.drawings.ink import pen_for
from lamsik.drawings.paint import painted
from lamsik.drawings.scheme_file import layers_svg, picture
from lamsik.words import paints
from tests.bodies import bait, ellipsoid

PEN = pen_for(90.0, 880)


@pytest.mark.parametrize("kind", KINDS.values(), ids=KINDS)
def test_one_begins_weighs_and_is_seen_on_its_side_only(kind):
    layer, body = begun(kind.name, "c1"), bait().body
    assert layer.does == kind.does and (layer.mass_g is not None) is (kind.does == FITTED)
    assert 0 < laid(layer, body, Anchors()).mass_g < 3
    bare, on = (painted(bait(layers=layers), PEN) for layers in ((), (layer,)))
    assert bare != on
    one = replace(layer, place=replace(layer.place, side="right"))
    ground = begun("primer", "p")
    left, right = (painted(bait(layers=(ground, one)), PEN, side=side) for side in ("left", "right"))
    assert left == painted(bait(layers=(ground,)), PEN) and right != painted(
        bait(layers=(ground,)), PEN, side="right"
    )
    rows = layers_of(apply(SCHEME, blank("x"), {"do": "add", "kind": kind.name}, None))
    assert [row.kind for row in rows].count(kind.name) == [row["kind"] for row in blank("x")["layers"]].count(
        kind.name
    ) + 1
    assert kind.name in paints.KINDS


def test_what_is_on_one_side_acts_where_the_skin_of_that_side_does():
    design = bait(body=ellipsoid(90, 20, 14), hardware=(), ballast=(), lip=None, glue_g=0.0)
    mesh = body_mesh(design.body, 400, 300)
    a, b, c = (mesh.vertices[mesh.faces][:, n] for n in range(3))
    areas = np.linalg.norm(np.cross(b - a, c - a), axis=1)
    beside = float(areas @ np.abs((a + b + c)[:, 1]) / 3 / areas.sum())
    layer = begun("base", "b1")
    for side, sign in (("left", -1.0), ("right", 1.0), ("both", 0.0)):
        one = replace(design, layers=(replace(layer, place=Place(side=side)),))
        part = next(p for p in budget(one).parts if p.key == "coat:b1")
        assert part.at_mm[1] == pytest.approx(sign * beside, rel=5e-3)
    heavy = replace(layer, film_um=900.0, place=Place(side="left"))
    lean = evaluate.settle(replace(design, layers=(heavy,))).surface[0].attitude
    assert abs(lean.roll_deg) > 3.0


def test_a_heavy_back_fade_lifts_the_centre_of_mass():
    fade = replace(begun("fade", "f"), film_um=400.0)
    belly = replace(fade, place=Place(top=Round(at_percent=45.0), edge_percent=50.0))
    up, down = (evaluate.settle(bait(layers=(one,))).budget.g_mm[2] for one in (fade, belly))
    assert up > down + 0.2


def _said_so(kind, n):
    """A layer of a kind; of eyes their own kind is named, and a clear may be scuffed."""
    if kind in EYE_KINDS:
        return replace(begun("eyes", f"eyes_{n}"), eye=kind)
    if kind == "scuffed":
        return replace(begun("clear", f"clear_{n}"), scuff=True)
    return begun(kind, f"{kind}_{n}")


@pytest.mark.parametrize(
    ("kinds", "found"),
    [
        ("seal primer base fade eyes clear", []),
        ("primer base seal clear", [("seal_3", "seals_paint", "base_2")]),
        ("seal base primer clear", [("base_2", "no_ground", "primer_3"), ("primer_3", "hides", "base_2")]),
        ("seal primer clear bars clear", [("bars_4", "on_clear", "clear_3")]),
        ("primer base clear eyes", [("eyes_4", "not_covered", "")]),
        ("primer base clear eyes clear", []),
        ("primer base clear domed", [("eyes_4", "seat_glossy", "clear_3")]),
        ("primer base scuffed domed", []),
        ("primer base domed clear", [("eyes_3", "rim_gathers", "clear_4")]),
        ("primer kept base clear", [("eyes_2", "eyes_late", "primer_1")]),
        ("kept primer base clear", []),
        ("base clear", []),
    ],
)
def test_what_lies_where_it_should_not_is_found_and_said(kinds, found):
    layers = tuple(_said_so(kind, n) for n, kind in enumerate(kinds.split(), start=1))
    assert [(one.layer, one.name, one.other) for one in warned(layers)] == found
    for one, says in paints.warnings(layers, warned(layers)):
        assert all(
            layer.name in says for layer in layers if layer.key in (one.layer, one.other)
        ) and says.endswith(".")


def test_a_thin_band_of_primer_hides_nothing():
    band = replace(begun("primer", "p2"), place=Place(cover_percent=30.0))
    assert warned((begun("primer", "p1"), begun("base", "b1"), band)) == ()


SCHEME_OF = tuple(begun(kind, f"{kind}1") for kind in ("seal", "primer", "base", "bars", "clear"))


def test_what_a_body_needs_otherwise_lies_over_its_scheme():
    found = resolved(
        SCHEME_OF,
        [
            Adjustment("base1", "film_um", 33.0),
            Adjustment("bars1", "place.count", 5),
            Adjustment("bars1", "paint.colour", "#112233"),
            Adjustment("seal1", LEFT_OUT, "Seal"),
            Adjustment("clear2", LIKE, "clear1"),
            Adjustment("clear2", "film_um", 60.0),
            Adjustment("gone1", "film_um", 5.0),
            Adjustment("gone2", LIKE, "gone1"),
            Adjustment("primer1", "wait_h", -4.0),  # what cannot be is passed over
        ],
    )
    by_key = {layer.key: layer for layer in found}
    assert list(by_key) == ["primer1", "base1", "bars1", "clear1", "clear2"]
    assert by_key["base1"].film_um == 33.0 and by_key["primer1"] == SCHEME_OF[1]
    assert (by_key["bars1"].place.count, by_key["bars1"].paint.colour) == (5, "#112233")
    assert by_key["clear2"] == replace(SCHEME_OF[-1], key="clear2", film_um=60.0)
    assert resolved(SCHEME_OF, []) == SCHEME_OF


def test_every_field_that_can_be_otherwise_is_one_of_a_layer():
    for name in set(FIELDS) - {LEFT_OUT, LIKE}:
        holder = SCHEME_OF[3]
        for step in name.split("."):
            assert hasattr(holder, step), name
            holder = getattr(holder, step)


CANDY = replace(begun("base", "c"), paint=Paint("#A8281E", kind="candy", covering_percent=12.0))


def test_bright_colours_want_white_and_see_through_ones_a_seal():
    dark = replace(begun("base", "d"), paint=Paint("#16283A"))
    names = [one.name for one in warned((dark, CANDY))]
    assert names == ["no_white"]
    assert warned((begun("primer", "p"), CANDY)) == warned((begun("foil", "f"), CANDY)) == ()
    bare = replace(CANDY, paint=replace(CANDY.paint, kind="transparent"))
    assert [one.name for one in warned((bare,))] == ["bare_wood"]
    meant = replace(CANDY, intended="the customer's own wish")
    assert warned((dark, meant)) == ()


def test_four_coats_are_ready_after_three_recoats_and_one_cure():
    clear = replace(begun("clear", "c"), wait_h=6.0, cure_h=30.0)
    coats = tuple(replace(clear, key=f"c{n}") for n in range(4))
    assert waiting_h(coats) == 3 * 6.0 + 30.0
    assert waits_h((begun("primer", "p"), *coats, begun("eyes", "e"))) == (2.0, 6.0, 6.0, 6.0, 30.0, 0.0)
    unknown = replace(clear, cure_h=None)
    assert waits_h((unknown, unknown)) == (6.0, 6.0) and waiting_h(()) == 0
    assert waits_h((replace(clear, cure_h=2.0),)) == (6.0,)  # it is not hard before the next could go on
    route = {step.key: step.wait_h for step in steps(bait(layers=coats))}
    assert [route[f"coat:c{n}"] for n in range(4)] == [6.0, 6.0, 6.0, 30.0]


def test_what_does_not_fit_a_body_is_found_and_said():
    body = bait().body
    at_joint = replace(begun("band", "b"), place=Place(begins=Along("joint", -5.0), ends=Along("joint", 5.0)))
    leaf = begun("stencil", "s")
    large = replace(leaf, place=replace(leaf.place, size_mm=120.0))
    eye = replace(begun("eyes", "e"), place=replace(begun("eyes", "e").place, size_mm=60.0))
    layers = (at_joint, leaf, large, eye)
    found = list(misfits(layers, body, Anchors()))
    assert [(one.name, one.layer, one.other) for one in found] == [
        ("lacks_anchor", "b", "joint"),
        ("too_large", "s", ""),
        ("too_large", "e", ""),
    ]
    says = [text for _, text in paints.warnings(layers, found)]
    assert "from the joint, which this body has not" in says[0] and "larger than this body" in says[1]
    assert list(misfits(layers[:2], body, Anchors(joints_mm=(40.0,)))) == []
    assert list(misfits((replace(large, intended="wraps round"),), body, Anchors())) == []


def test_letters_are_written_and_can_be_read_from_their_side():
    mark = begun("lettering", "m")
    both = replace(mark, place=replace(mark.place, side="both"))
    left, right = (
        [node for node in nodes(painted(bait(layers=(both,)), PEN, side=side)) if titled(node, "No. 1")]
        for side in ("left", "right")
    )
    assert len(left) == len(right) == 1
    first = [float(one["attrs"]["d"].split()[0][1:]) for one in (left[0], right[0])]
    middle = bait().body.length_mm * 0.7
    assert first[0] < middle - 1 and first[1] > middle + 1  # an N begins where reading does


def test_words_that_there_are_no_strokes_for_are_written_in_type():
    mark = begun("lettering", "m")
    kanji = replace(mark, place=replace(mark.place, words="鮎 1"))
    lines = [node for node in nodes(painted(bait(layers=(kanji,)), PEN)) if node["tag"] == "text"]
    assert [node["children"] for node in lines] == [["鮎 1"]]


def titled(node, words):
    return node["tag"] == "path" and any(
        isinstance(one, dict) and one["tag"] == "title" and one["children"] == [words]
        for one in node["children"]
    )


def nodes(node):
    yield node
    for child in node["children"]:
        if isinstance(child, dict):
            yield from nodes(child)


def test_outlines_of_layers_are_given_for_both_sides_where_they_differ():
    alike, apart = (
        layers_svg(bait(layers=(begun("primer", "p"), replace(begun("bars", "b"), place=place))))
        for place in (begun("bars", "b").place, replace(begun("bars", "b").place, side="left"))
    )
    ids = [
        [node["attrs"].get("id") for node in nodes(root) if node["attrs"].get("id")]
        for root in (alike, apart)
    ]
    assert ids == [["left", "left-p", "left-b"], ["left", "left-p", "left-b", "right", "right-p"]]


def test_a_very_large_body_is_a_picture_at_true_size_with_fewer_points(monkeypatch):
    monkeypatch.setattr(scheme_file, "MOST_POINTS", 4e5)  # the rule of the limit, at a size soon drawn
    body = ellipsoid(600, 120, 280)
    shown = Image.open(io.BytesIO(picture(bait(body=body, hardware=(), ballast=(), lip=None, layers=()))))
    per_inch = shown.info["dpi"][0]
    assert 30 < per_inch < 200 and shown.width / per_inch * 25.4 == pytest.approx(600 + 8, rel=0.01)

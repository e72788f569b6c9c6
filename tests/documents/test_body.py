"""The body document: round trips, edits, refusals that name the field."""

import json
from dataclasses import replace

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from jsonschema import Draft202012Validator

from lamsik.core.errors import Refused
from lamsik.core.paints.layers import Layer
from lamsik.core.quantities import INCHES, saying
from lamsik.core.shapes.catalogue import Catalogue
from lamsik.core.shapes.design import Host, Want
from lamsik.core.shapes.forms import FORMS
from lamsik.core.shapes.hardware import Item, Lip
from lamsik.core.shapes.solid import solid
from lamsik.core.tank import evaluate
from lamsik.core.tank.mass import budget
from lamsik.core.trade.part_kinds import PART_KINDS
from lamsik.core.water import Water
from lamsik.documents.body.before import NEW_IN_2, NEW_WANT_IN_2
from lamsik.documents.body.document import new_document, to_design, with_design
from lamsik.documents.body.shape import BODY_SCHEMA
from lamsik.documents.typed import quantity_of
from lamsik.documents.values import value_of
from lamsik.drawings.cuts import buried
from lamsik.drawings.ink import Pen
from lamsik.drawings.parts import hardware
from tests.bodies import LEAD_BALL, LEAD_ROD, bait
from tests.documents.before import with_coats
from tests.kinds import body_edit as apply
from tests.kinds import body_file as loads
from tests.kinds import body_text as dumps
from tests.refusing import refusing

HOST = Host("basswood", 0.42, 0.04)
SHOP = Catalogue(
    items={
        "tie": Item("tie", "Tie", "line_tie", 0.14, 7.85, 0.4, 3.0),
        "hgr": Item("hgr", "Hanger", "hanger", 0.11, 7.85, 0.4, 2.5),
        "ring": Item("ring", "Ring", "ring", 0.05, 7.85),
        "tre": Item("tre", "Treble", "hook", 0.48, 7.85),
        "big": Item("big", "Big treble", "hook", 1.2, 7.85),
    },
    lips={"lip": Lip(14, 16, 1.5, 1.2, 40, 6)},
    slugs={"lead": LEAD_ROD, "shot": LEAD_BALL},
    waters={"sea": Water("sea", 9, 35)},
    schemes={"S-1": bait().layers},
)


def document(form="slim"):
    return new_document("Test", FORMS[form], HOST, Water(), Want())


def full():
    found = document()
    for edit in (
        {"do": "hang", "code": "tie", "seat": "nose"},
        {"do": "hang", "code": "hgr", "seat": "belly", "x_mm": 46},
        {"do": "hang", "code": "hgr", "seat": "tail"},
        {"do": "hang", "code": "ring"},
        {"do": "hang", "code": "ring"},
        {"do": "hang", "code": "tre"},
        {"do": "hang", "code": "tre"},
        {"do": "lip", "code": "lip"},
        {"do": "slug", "code": "lead"},
        {"do": "scheme", "code": "S-1"},
        {"do": "water", "name": "sea"},
    ):
        found = apply(found, edit, SHOP)
    return found


def test_the_schema_is_a_schema_with_a_unit_in_every_measures_name():
    Draft202012Validator.check_schema(BODY_SCHEMA.schema)

    def numbers(node, name=""):
        if node.get("type") == "number" or node.get("type") == ["number", "null"]:
            yield name
        for key, child in node.get("properties", {}).items():
            yield from numbers(child, key)
        if isinstance(node.get("items"), dict):
            yield from numbers(node["items"], name)

    named = [
        n
        for n in numbers(BODY_SCHEMA.schema)
        if not n.endswith(("_shares", "_share", "_exponent"))
        and n not in ("count", "drag", "lightness", "red", "yellow")
    ]
    assert named and all(quantity_of(n) != "number" for n in named), named


@pytest.mark.parametrize("form", FORMS)
def test_every_form_round_trips(form):
    found = document(form)
    again = loads(dumps(found))
    assert again == found
    assert to_design(again) == to_design(found)


def test_a_full_document_round_trips_and_computes_the_same():
    found = full()
    again = loads(dumps(with_design(found, to_design(found))).encode())
    assert evaluate.drag(to_design(again)).verdict == evaluate.drag(to_design(found)).verdict
    assert [row["hung_on"] for row in again["hardware"]] == [
        None,
        None,
        None,
        "hanger1",
        "hanger2",
        "ring1",
        "ring2",
    ]


def test_a_document_of_version_1_is_read_as_one_of_this():
    old = with_coats(full())
    for name in NEW_IN_2:
        del old[name]
    for holder, names in (
        (old["want"], NEW_WANT_IN_2),
        (old["material"], ["solid_g_cm3"]),
        (old["lip"], ["square_deg"]),
    ):
        for name in names:
            del holder[name]
    old["version"] = 1
    assert loads(json.dumps(old)) == full() and old["version"] == 1


WRONG = [
    ("body.length_mm", "long"),
    ("body.length_mm", -5),
    ("body.length_mm", 1e9),
    ("body.upper_exponent", 0.2),
    ("material.density_g_cm3", 0),
    ("format", "other-body"),
    ("version", 9),
    ("purpose", "boat"),
    ("layers", {}),
    ("water.temperature_c", 99),
    ("want.behaviour", "flies"),
    ("name", ""),
    ("glue_g", None),
]


@pytest.mark.parametrize(("path", "value"), WRONG)
def test_a_wrong_field_is_named_with_what_was_given_and_what_is_allowed(path, value):
    found = full()
    holder = found
    *steps, leaf = path.split(".")
    for step in steps:
        holder = holder[step]
    holder[leaf] = value
    with pytest.raises(Refused) as refusal:
        BODY_SCHEMA.checked(found)
    assert refusal.value.field == path and refusal.value.given == value and refusal.value.allowed


def test_missing_unknown_and_contradicting_fields():
    found = document()
    del found["body"]["length_mm"]
    with refusing(r"body.length_mm: this field is needed"):
        BODY_SCHEMA.checked(found)
    with refusing(r"lenght_mm: .*unknown field"):
        BODY_SCHEMA.checked({**document(), "lenght_mm": 5})
    doubled = full()
    doubled["hardware"].append(doubled["hardware"][0])
    with refusing("each key once"):
        to_design(BODY_SCHEMA.checked(doubled))


@pytest.mark.parametrize(
    "data", [b"", b"not json", b"[1, 2]", b"\xff\xfe", b'{"a": NaN}', b"[" * 100_000, b" " * 2_000_000]
)
def test_bytes_that_are_no_document_are_refused(data):
    with pytest.raises(Refused):
        loads(data)


def test_a_body_of_two_densities_is_a_value_like_any_other():
    """Kept as a list, held as a frozen value: what is computed once is known by its design."""
    uneven = {**full(), "material": {**full()["material"], "uneven_mm": [-2.0, 0.5, -1.0]}}
    design = to_design(loads(dumps(uneven)))
    assert design.host.uneven_mm == (-2.0, 0.5, -1.0) and hash(design) == hash(to_design(uneven))
    assert loads(dumps(with_design(uneven, design)))["material"]["uneven_mm"] == [-2.0, 0.5, -1.0]


class TestEdits:
    def test_a_typed_measure_is_set_and_its_text_kept(self):
        found = apply(document(), {"do": "set", "path": "body.depth_mm", "text": "3/4 in"}, SHOP)
        assert found["body"]["depth_mm"] == pytest.approx(19.05)
        assert found["typed"]["body.depth_mm"] == "3/4 in"

    def test_a_bare_number_takes_the_shown_unit(self):
        with saying(INCHES):
            found = apply(document(), {"do": "set", "path": "body.width_mm", "text": "1/2"}, SHOP)
        assert found["body"]["width_mm"] == pytest.approx(12.7)
        assert found["typed"]["body.width_mm"] == "1/2 in"  # so it says the same in any shop
        assert (
            apply(document(), {"do": "set", "path": "body.width_mm", "text": "14"}, SHOP)["body"]["width_mm"]
            == 14
        )

    def test_a_new_length_takes_everything_along(self):
        before = full()
        after = apply(before, {"do": "set", "path": "body.length_mm", "text": "120 mm"}, SHOP)
        assert after["ballast"][0]["x_mm"] == pytest.approx(before["ballast"][0]["x_mm"] * 120 / 90)
        assert after["lip"]["x_mm"] == pytest.approx(before["lip"]["x_mm"] * 120 / 90)

    def test_rows_are_named_by_their_key(self):
        assert (
            apply(full(), {"do": "set", "path": "ballast.b1.x_mm", "text": "31.5 mm"}, SHOP)["ballast"][0][
                "x_mm"
            ]
            == 31.5
        )

    def test_taking_a_hanger_off_takes_what_hangs_on_it(self):
        found = apply(full(), {"do": "remove", "group": "hardware", "key": "hanger1"}, SHOP)
        assert [row["key"] for row in found["hardware"]] == ["linetie1", "hanger2", "ring2", "hook2"]

    def test_other_edits(self):
        found = full()
        assert apply(found, {"do": "remove", "group": "lip", "key": "lip"}, SHOP)["lip"] is None
        assert (
            apply(found, {"do": "remove", "group": "layers", "key": "seal1"}, SHOP)["layers"][0]["key"]
            == "primer1"
        )
        assert apply(found, {"do": "material", "name": "balsa"}, SHOP)["material"]["density_g_cm3"] == 0.16
        assert (
            apply(found, {"do": "swap", "key": "hook1", "code": "big"}, SHOP)["hardware"][5]["mass_g"] == 1.2
        )
        assert apply(found, {"do": "form", "form": "stubby"}, SHOP)["body"]["length_mm"] == 60
        assert apply(found, {"do": "want", "behaviour": "suspends"}, SHOP)["want"]["speed_cm_s"] == 0
        assert (
            apply(found, {"do": "set", "path": "want.behaviour", "text": "sinks"}, SHOP)["want"]["speed_cm_s"]
            == -20
        )
        assert apply(found, {"do": "slug", "code": "shot"}, SHOP)["ballast"][1]["mass_g"] == pytest.approx(
            2.04, abs=0.01
        )
        assert apply(found, {"do": "ballast", "holes": found["ballast"]}, SHOP)["ballast"] == found["ballast"]
        assert (
            apply(found, {"do": "set", "path": "material.density_g_cm3", "text": "0.39 g/cm³"}, SHOP)[
                "material"
            ]["source"]
            == "typed"
        )

    def test_edits_of_the_tank(self):
        found = full()
        assert apply(found, {"do": "hooks", "code": "big"}, SHOP)["hardware"][6]["mass_g"] == 1.2
        assert [c["key"] for c in apply(found, {"do": "clear", "count": 4}, SHOP)["layers"]][-4:] == [
            "clear1",
            "clear2",
            "clear3",
            "clear4",
        ]
        assert apply(found, {"do": "clear", "count": 0}, SHOP)["layers"][-1]["kind"] == "primer"
        assert apply(found, {"do": "pose", "deg": -8}, SHOP)["want"]["pitch_deg"] == -8
        assert (
            apply(found, {"do": "flag", "path": "want.pierced", "on": True}, SHOP)["want"]["pierced"] is True
        )
        assert (
            apply(found, {"do": "set", "path": "want.roll", "text": "steady"}, SHOP)["want"]["roll"]
            == "steady"
        )
        held = apply(found, {"do": "hold", "name": "sea"}, SHOP)
        assert [w["name"] for w in held["want"]["waters"]] == ["sea"] and apply(
            held, {"do": "hold", "name": "sea"}, SHOP
        )["want"]["waters"] == []
        assert apply(found, {"do": "allow", "kind": "clear"}, SHOP)["allowances"][0][
            "mass_g"
        ] == pytest.approx(0.8)
        assert apply(found, {"do": "pour"}, SHOP)["pours"][0]["to_mm"] == 90
        assert (
            apply(found, {"do": "cavity", "code": "shot"}, SHOP)["cavities"][0]["slug"]["name"]
            == LEAD_BALL.name
        )
        assert apply(found, {"do": "tie", "seat": "lip"}, SHOP)["hardware"][0]["seat"] == "lip"
        timed = apply(found, {"do": "drag", "value": 1.1}, SHOP)
        assert (timed["drag"], timed["drag_source"]) == (1.1, "timed")
        back = apply(timed, {"do": "set", "path": "drag", "text": ""}, SHOP)
        assert (back["drag"], back["drag_source"]) == (None, "shop")

    def test_a_tie_on_a_lip_that_goes_moves_to_the_nose_and_trial_weights_go_with_their_hanger(self):
        found = apply(
            apply(full(), {"do": "tie", "seat": "lip"}, SHOP), {"do": "trial", "place": "hanger1"}, SHOP
        )
        assert (
            apply(found, {"do": "remove", "group": "lip", "key": "lip"}, SHOP)["hardware"][0]["seat"]
            == "nose"
        )
        assert apply(found, {"do": "remove", "group": "hardware", "key": "hanger1"}, SHOP)["trials"] == []

    def test_an_answer_beside_the_ballast_takes_the_trial_weights_off(self):
        found = apply(full(), {"do": "trial"}, SHOP)
        after = apply(
            found, {"do": "ballast", "holes": [{**found["ballast"][0], "x_mm": 20.0}], "beside": True}, SHOP
        )
        assert [row["key"] for row in after["ballast"]] == ["b1", "b2"] and after["trials"] == []

    def test_scaling_keeps_proportions_and_hardware_sizes(self):
        before = full()
        after = apply(before, {"do": "scale", "percent": 120}, SHOP)
        ratio = solid(to_design(after).body).volume_ml / solid(to_design(before).body).volume_ml
        assert ratio == pytest.approx(1.2**3) and after["hardware"][1]["x_mm"] == pytest.approx(46 * 1.2)
        assert after["hardware"][5]["mass_g"] == before["hardware"][5]["mass_g"]

    def test_a_hook_needs_a_free_eye(self):
        with refusing("add one first"):
            apply(document(), {"do": "hang", "code": "tre"}, SHOP)
        with refusing("no free hook hanger"):
            apply(full(), {"do": "hang", "code": "ring"}, SHOP)

    @pytest.mark.parametrize("kind", [kind for kind in PART_KINDS.values() if kind.is_put_on])
    def test_every_kind_of_part_is_put_on_weighs_and_is_drawn(self, kind):
        sizes = {"wire_mm": 2.0, "shank_mm": 9.0, "bore_mm": 1.0}
        item = Item("x", "Part", kind.key, 1.0, 2.0, kind.outside_share, kind.reach_mm, **sizes)
        before = full() if kind.key != "ring" else apply(full(), {"do": "hang", "code": "hgr"}, SHOP)
        before = before if kind.key != "hook" else apply(before, {"do": "hang", "code": "hgr"}, SHOP)
        seat = kind.seats[0] if not kind.bore else "inside"
        edit = {"do": "hang", "code": "x", "seat": seat}
        after = to_design(apply(before, edit, replace(SHOP, items={**SHOP.items, "x": item})))
        placed, bare = after.hardware[-1], to_design(before)
        assert bool(placed.hung_on) is bool(kind.hangs_on) and placed.item.of is kind
        bored = placed.item.pocket_ml * bare.host.density_g_cm3
        assert (placed.item.pocket_ml > 0) is bool(kind.bore)
        assert budget(after).mass_g - budget(bare).mass_g == pytest.approx(1.0 - bored, abs=1e-3)
        drawn = [len(hardware(one, Pen(1.0)) + buried(one, Pen(1.0))) for one in (bare, after)]
        assert (drawn[0] < drawn[1]) is (kind.key != "joint")

    def test_a_hole_becomes_a_pair_and_one_again_with_as_much_metal(self):
        pair = apply(full(), {"do": "pair", "key": "b1"}, SHOP)
        hole, was = to_design(pair).ballast[0], to_design(full()).ballast[0]
        assert (
            hole.count == 2
            and hole.beside_mm >= hole.drill_mm / 2 + 1
            and hole.mass_g == was.mass_g
            and hole.depth_mm < was.depth_mm
        )
        assert to_design(apply(pair, {"do": "pair", "key": "b1"}, SHOP)).ballast[0] == was
        balls = apply(
            apply(document(), {"do": "slug", "code": "shot"}, SHOP), {"do": "pair", "key": "b1"}, SHOP
        )
        assert to_design(balls).ballast[0].each_g == pytest.approx(LEAD_BALL.ball_g)
        with refusing("one of b1"):
            apply(full(), {"do": "pair", "key": "nobody"}, SHOP)

    def test_a_scheme_laid_anew_keeps_what_is_otherwise_here(self):
        edits = (
            {"do": "set", "path": "layers.clear1.film_um", "text": "90 µm"},
            {"do": "set", "path": "layers.primer1.wait_h", "text": "5 h"},
            {"do": "remove", "group": "layers", "key": "seal1"},
            {"do": "clear", "count": 3},
            {"do": "clear", "count": 2},
        )
        found = full()
        for edit in edits:
            found = apply(found, edit, SHOP)
        newer = tuple(replace(layer, note="by brush") for layer in SHOP.schemes["S-1"])
        again = apply(found, {"do": "scheme", "code": "S-1"}, replace(SHOP, schemes={"S-1": newer}))
        rows = [(row["key"], row["film_um"], row["wait_h"], row["note"]) for row in again["layers"]]
        assert rows == [
            ("primer1", 30.0, 5.0, "by brush"),
            ("clear1", 90.0, 1.0, "by brush"),
            ("clear2", 120.0, 1.0, "by brush"),
        ]
        back = apply(again, {"do": "as_in_scheme", "key": "clear1"}, SHOP)
        assert back["layers"][1]["film_um"] == 120.0 and len(back["adjustments"]) == 3
        assert [row["key"] for row in apply(back, {"do": "as_in_scheme", "key": "seal1"}, SHOP)["layers"]][
            0
        ] == "seal1"
        other = apply(back, {"do": "scheme", "code": "S-2"}, replace(SHOP, schemes={"S-2": newer[:1]}))
        assert other["adjustments"] == [] and len(other["layers"]) == 1

    @pytest.mark.parametrize(
        "edit",
        [
            {"do": "set", "path": "layers.primer1.film_um", "text": "9 µm"},
            {"do": "remove", "group": "layers", "key": "primer1"},
        ],
    )
    def test_a_layer_that_its_scheme_locks_stays_as_it_is_on_a_body(self, edit):
        locked = tuple(replace(layer, locked=layer.kind == "primer") for layer in bait().layers)
        shop = replace(SHOP, schemes={"S-1": locked}, versions={"S-1": 4})
        laid = apply(full(), {"do": "scheme", "code": "S-1"}, shop)
        assert laid["scheme_version"] == 4
        with refusing("untick Locked in its scheme first"):
            apply(laid, edit, shop)
        free = {"do": "set", "path": "layers.clear1.film_um", "text": "90 µm"}
        assert apply(laid, free, shop)["layers"][2]["film_um"] == 90.0
        said = {"do": "set", "path": "layers.primer1.intended", "text": "as the last one"}
        assert apply(laid, said, shop)["layers"][1]["intended"] == "as the last one"

    @settings(max_examples=60)
    @given(
        st.text(max_size=30),
        st.sampled_from(["body.length_mm", "ballast.b1.mass_g", "water.temperature_c", "want.pitch_deg"]),
    )
    def test_any_text_gives_a_sound_document_or_a_refusal(self, text, path):
        try:
            json.dumps(apply(full(), {"do": "set", "path": path, "text": text}, SHOP), allow_nan=False)
        except Refused as refusal:
            assert refusal.allowed


@pytest.mark.parametrize(
    ("row", "field", "says"),
    [
        ({"sheen": 3}, "sheen", "no such field"),
        ({"film_um": "thick"}, "film_um", "must be a number"),
        ({"film_um": None}, "film_um", "must be a number"),
        ({"paint": "red"}, "paint", "must be an object"),
        ({"film_um": -1.0}, "film_um", "allowed is 0 to 3000 µm"),
        ({"wait_h": 5.0, "window_h": 2.0}, "window_h", "allowed is 5 to 5000 h"),
    ],
)
def test_a_value_is_made_of_its_own_fields_only_and_says_what_it_refuses(row, field, says):
    with refusing(says) as refused:
        value_of(Layer, {"key": "a", "kind": "base", "name": "x", **row})
    assert refused.value.field == field


def test_what_a_file_of_before_lacks_can_be_set_on_it_like_all_else():
    now = full()
    lacked = ("face_mm", "uneven_mm", "beside_mm")
    old = now | {"material": {name: one for name, one in now["material"].items() if name not in lacked}}
    old["ballast"] = [
        {name: one for name, one in row.items() if name not in lacked} for row in now["ballast"]
    ]
    assert len(old["material"]) < len(now["material"]) and BODY_SCHEMA.checked(old) == now
    after = apply(BODY_SCHEMA.checked(old), {"do": "set", "path": "material.face_mm", "text": "0.4"}, SHOP)
    assert after["material"]["face_mm"] == 0.4

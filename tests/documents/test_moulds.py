"""Mould and product files: what goes out comes back; edits do what they say; what is wrong is named."""

import copy
import json

import pytest

from lamsik.core.moulds.advice import look
from lamsik.core.moulds.layout import box
from lamsik.core.quantities import INCHES, METRIC, saying
from lamsik.documents.moulds import document as mould_document
from lamsik.documents.moulds.document import first_layout, master_of, to_mould
from lamsik.documents.moulds.edits import MOULD
from lamsik.documents.products import document as product_document
from lamsik.formats.json_text import tidied
from lamsik.store.starter_mixes import STARTERS
from tests import kinds
from tests.documents.test_body import full
from tests.kinds import mould_edit as apply
from tests.kinds import mould_file as loads
from tests.kinds import mould_text as dumps
from tests.refusing import refusing

BLOCK = {
    "kind": "box",
    "name": "plug",
    "length_mm": 80.0,
    "width_mm": 20.0,
    "depth_mm": 30.0,
    "volume_ml": 28.0,
    "mass_g": 12.0,
    "demouldings": None,
    "source": {"kind": "own", "note": ""},
}
MASTER = master_of(BLOCK)


def fresh():
    return first_layout(BLOCK, MASTER)


def edited(*edits):
    content = fresh()
    for edit in edits:
        content = apply(content, edit, lambda _: MASTER)
    return content


def test_a_mould_goes_out_and_comes_back_with_its_body():
    content = edited(
        {"do": "arrange", "count": 3},
        {"do": "add", "group": "texts", "says": "AB"},
        {"do": "set", "path": "tilt_deg", "text": "90°"},
        {"do": "vents"},
    )
    assert loads(dumps(content).encode()) == tidied(content) and content["vents"]
    block, master = mould_document.of_body("eel", 7, 2, full())
    own = {
        **first_layout(block, master),
        "master": {**content["master"], **block, "document": full(), "body_id": None, "revision": None},
    }
    assert loads(dumps(own).encode()) == tidied(own) and to_mould(
        own, master
    ).master.volume_ml == pytest.approx(master.volume_ml)


@pytest.mark.parametrize("product", STARTERS, ids=lambda product: product.name)
def test_a_product_goes_out_and_comes_back(product):
    content = product_document.to_document(product)
    assert kinds.product_file(kinds.product_text(content).encode()) == content
    for spoiled, says in (
        ({**content, "basis": ""}, "by mass or by volume"),
        ({**content, "extra": 1}, "unknown field"),
        ({**content, "format": "x"}, "lamsik-product"),
        ({**content, "parts": 3}, "a list"),
    ):
        with refusing(says):
            kinds.product_file(json.dumps(spoiled).encode())


@pytest.mark.parametrize(
    ("spoil", "says"),
    [
        (lambda d: d.update(format="other"), "lamsik-mould"),
        (lambda d: d["master"].update(kind="thought"), "one of"),
        (lambda d: d["master"].update(colour="red"), "known are"),
        (lambda d: d["master"].update(volume_ml=500.0), "one of the figures"),
        (lambda d: d.update(length_mm=20.0), "smaller than what lies in it"),
        (lambda d: d.update(cavities=[]), "1 to 12"),
        (lambda d: d["cavities"].append(dict(d["cavities"][0])), "each key once"),
        (lambda d: d["keys"].update(count=2.5), "whole number"),
        (lambda d: d.update(surprise=1), "unknown field"),
        (lambda d: d.update(casting_c="hot"), "must be a number"),
        (lambda d: d.update(level_deg=90.0), "allowed"),
        (lambda d: d["funnel"].update(end="roof"), "one of"),
        (lambda d: d["master"].update(kind="body"), "not in the file"),
        (lambda d: d.pop("master"), "this field is needed"),
        (lambda d: d.update(cavities=3), "a list"),
    ],
)
def test_what_is_wrong_with_a_file_is_named(spoil, says):
    content = copy.deepcopy(fresh())
    spoil(content)
    with refusing(says):
        loads(json.dumps(content).encode())


def test_json_that_is_none_or_too_long_is_refused():
    for data, says in ((b"{", "JSON"), (b" " * 500_000, "at most")):
        for read in (loads, kinds.product_file):
            with refusing(says):
                read(data)


class TestEdits:
    def test_every_edit_has_a_case_here(self):
        cases = {"set", "arrange", "point", "add", "remove", "vents", "tilt", "parting", "flag", "fit"}
        assert set(MOULD.edits) == cases

    def test_cavities_are_arranged_dragged_added_and_taken_out(self):
        content = edited(
            {"do": "arrange", "count": 2}, {"do": "point", "line": "c1", "x_mm": 54.0, "value_mm": 30.0}
        )
        assert (
            len(content["cavities"]) == 2
            and content["cavities"][0]["x_mm"] == 54.0
            and content["cavities"][0]["y_mm"] == 30.0
        )
        more = apply(content, {"do": "add", "group": "cavities"}, lambda _: MASTER)
        assert [row["key"] for row in more["cavities"]] == ["c1", "c2", "c3"]
        assert box(to_mould(more, MASTER)).width_mm > box(to_mould(content, MASTER)).width_mm
        less = apply(more, {"do": "remove", "group": "cavities", "key": "c2"}, lambda _: MASTER)
        assert [row["key"] for row in less["cavities"]] == ["c1", "c3"]

    def test_the_tilt_with_fewest_vents_is_found_and_high_points_are_vented(self):
        standing = edited({"do": "set", "path": "tilt_deg", "text": "90°"})
        assert look(to_mould(standing, MASTER)).points
        assert not look(to_mould(apply(standing, {"do": "tilt"}, lambda _: MASTER), MASTER)).points
        assert not look(to_mould(apply(standing, {"do": "vents"}, lambda _: MASTER), MASTER)).points

    def test_another_pull_parts_it_anew_and_an_empty_box_size_is_as_needed(self):
        turned = edited(
            {"do": "set", "path": "length_mm", "text": "200 mm"},
            {"do": "set", "path": "pull", "text": "back"},
        )
        assert turned["length_mm"] is None and turned["pull"] == "back"
        sized = edited({"do": "set", "path": "width_mm", "text": "90 mm"}, {"do": "fit"})
        assert (
            sized["width_mm"] is None
            and edited(
                {"do": "set", "path": "width_mm", "text": "90 mm"},
                {"do": "set", "path": "width_mm", "text": ""},
            )["width_mm"]
            is None
        )
        assert edited({"do": "set", "path": "kind", "text": "press"})["stand"] == "flat"


@pytest.mark.parametrize(
    ("choice", "text", "edge_mm"),
    [(METRIC, "12", 12.0), (INCHES, "0.5", 12.7), (INCHES, "12 mm", 12.0), (METRIC, "1/2 in", 12.7)],
)
def test_a_bare_number_is_in_the_unit_the_field_shows(choice, text, edge_mm):
    with saying(choice):
        found = edited({"do": "set", "path": "edge_mm", "text": text})
    assert found["edge_mm"] == pytest.approx(edge_mm)

"""What two revisions of a design are said to differ in."""

from dataclasses import replace

from lamsik.core.shapes.curves import Curve
from lamsik.core.shapes.forms import FORMS, body_from
from lamsik.words.revisions import differences
from tests.bodies import bait


def test_lines_that_were_pulled_are_named_and_a_body_that_only_grew_has_the_same_lines():
    before = bait()
    top = before.body.top
    pulled = Curve(top.shares, (*top.values_mm[:2], top.values_mm[2] + 0.8, *top.values_mm[3:]))
    after = replace(before, body=replace(before.body, top=pulled))
    assert "lines changed" in differences(before, after)
    grown = bait(body=body_from(FORMS["slim"], 99.0, 20.9, 16.5))
    assert "lines changed" not in differences(before, grown)
    assert any(row.startswith("size") for row in differences(before, grown))


def test_nothing_is_said_of_what_is_the_same():
    assert differences(bait(), bait()) == ()

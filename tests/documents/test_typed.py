"""A measure is typed as text or dragged as a number; a number is a number."""

import pytest

from lamsik.core.errors import Refused
from lamsik.core.quantities import INCHES, saying
from lamsik.core.shapes.design import Host, Want
from lamsik.core.shapes.forms import form
from lamsik.core.water import Water
from lamsik.documents.body.document import new_document
from lamsik.documents.floats.document import blank
from lamsik.documents.typed import amount, note_typed
from tests.kinds import body_edit, float_edit

WRONG = ["3", None, True, float("nan"), float("inf"), 10**400, 1e9, [1], {"a": 1}]


@pytest.mark.parametrize("value", WRONG)
def test_what_is_no_number_is_refused_with_its_field(value):
    with pytest.raises(Refused) as refused:
        amount({"value": value}, "length", "body.depth_mm")
    assert refused.value.field == "body.depth_mm"


def test_a_dragged_number_is_in_the_stored_unit_and_leaves_no_typed_text():
    document = {"typed": {"a": "1 in"}}
    with saying(INCHES):
        assert amount({"value": 25.4}, "length", "a") == 25.4
        assert amount({"text": "1"}, "length", "a") == pytest.approx(25.4)
    note_typed(document, {"value": 25.4}, "a")
    assert document["typed"] == {}
    note_typed(document, {"text": " 5/8 in "}, "a")
    assert document["typed"] == {"a": "5/8 in"}


def test_every_kind_of_document_takes_both():
    body = new_document("Slim", form("slim"), Host("basswood", 0.42, 0.04), Water(), Want())
    typed, dragged = (
        body_edit(body, {"do": "set", "path": "body.depth_mm", **given}, None)
        for given in ({"text": "21 mm"}, {"value": 21.0})
    )
    assert (
        typed["body"] == dragged["body"]
        and typed["typed"]["body.depth_mm"] == "21 mm"
        and "body.depth_mm" not in dragged["typed"]
    )
    held = blank("Antenna", "antenna", Water("fresh water", 14.0))
    path = f"parts.{held['parts'][0]['key']}.diameter_mm"
    typed, dragged = (
        float_edit(held, {"do": "set", "path": path, **given}, {})
        for given in ({"text": "9 mm"}, {"value": 9.0})
    )
    assert typed["parts"] == dragged["parts"]
    with pytest.raises(Refused):
        body_edit(body, {"do": "set", "path": "body.depth_mm", "value": -5}, None)

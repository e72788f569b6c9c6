# ruff: noqa: F401 - the table names them
"""Calls that cannot be answered are refused in words: the table `tests/refused/calls.txt`, a call of what is
named here, and what is said.
"""

from pathlib import Path

import pytest

from lamsik.core.errors import Refused
from lamsik.core.floats.labels import Label
from lamsik.core.water import Water
from lamsik.documents import engine
from lamsik.documents.body.edits import BODY
from lamsik.documents.floats.edits import FLOAT
from lamsik.drawings.labels import label_sheet
from lamsik.store import backup, mixes, moulds, pieces
from lamsik.store.tables import Batch, Instrument, MouldMade, Piece
from lamsik.words import refusals
from tests.documents.test_body import document
from tests.documents.test_registry import SAMPLES, SHOPS

TABLE = Path(__file__).parents[1] / "refused/calls.txt"
ROWS = [line.split(" | ") for line in TABLE.read_text(encoding="utf-8").splitlines()]
LABEL = Label("Antenna", 2.5, "on the line", "ring", Water())
SCALE = Instrument(name="kitchen", step_g=0.1, span_g=500.0)


@pytest.mark.parametrize(("call", "says"), ROWS)
def test_what_cannot_be_is_said_in_words(call, says):
    with pytest.raises(Refused) as refused:
        eval(call, globals())  # noqa: S307
    assert says in refusals.says(refused.value)

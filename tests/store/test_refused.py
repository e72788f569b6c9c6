# ruff: noqa: F401 - the table names them
"""Calls that cannot be answered are refused in words: the table `tests/refused/calls.txt`, a call of what is
named here, and what is said.
"""

import sqlite3
import tempfile
from contextlib import closing
from dataclasses import replace
from pathlib import Path

import pytest

from lamsik.core.castings import pouring
from lamsik.core.castings.pouring import Stand
from lamsik.core.errors import Refused
from lamsik.core.floats.labels import Label
from lamsik.core.shapes.hardware import Lip
from lamsik.core.tank import running
from lamsik.core.tank.mass import budget
from lamsik.core.water import Water
from lamsik.documents import engine
from lamsik.documents.body.edits import BODY
from lamsik.documents.floats.edits import FLOAT
from lamsik.drawings.labels import label_sheet
from lamsik.store import backup, mixes, moulds, pieces, pours
from lamsik.store.database import FILE_NAME
from lamsik.store.tables import Batch, Instrument, MouldMade, Piece
from lamsik.web.shared import jobs
from lamsik.words import refusals
from tests.bodies import bait
from tests.documents.test_body import document
from tests.documents.test_registry import SAMPLES, SHOPS

TABLE = Path(__file__).parents[1] / "refused/calls.txt"
ROWS = [line.split(" | ") for line in TABLE.read_text(encoding="utf-8").splitlines()]
LABEL = Label("Antenna", 2.5, "on the line", "ring", Water())
SHOP, DAMAGED = (Path(tempfile.mkdtemp()) / name for name in (FILE_NAME, "damaged.sqlite3"))
for file in (SHOP, DAMAGED):
    with closing(sqlite3.connect(file, isolation_level=None)) as database:
        database.executescript(
            "CREATE TABLE t (a); INSERT INTO t VALUES (NULL); PRAGMA writable_schema = 1;"
            "UPDATE sqlite_schema SET sql = 'CREATE TABLE t (a NOT NULL)'"
        )
SCALE = Instrument(name="kitchen", step_g=0.1, span_g=500.0)


@pytest.mark.parametrize(("call", "says"), ROWS)
def test_what_cannot_be_is_said_in_words(call, says):
    with pytest.raises(Refused) as refused:
        eval(call, globals())  # noqa: S307
    assert says in refusals.says(refused.value)

"""The invented shop has the rows that tests ask for by name."""

import re
import sqlite3
from contextlib import closing

import pytest

from tests import demo_rows

NAMES = {name: key for name, key in vars(demo_rows).items() if name.isupper()}
CALLED = {
    "PIECE": "SELECT name FROM piece JOIN document ON document.id = design_id WHERE piece.id = ?",
    "ORDER": "SELECT title || iif(accepted_at, ' accepted', ' asked') FROM shop_order WHERE id = ?",
    "POUR": "SELECT name || ' shot ' || shot FROM pour JOIN mould_made m ON m.id = made_id"
    " JOIN document d ON d.id = m.mould_id WHERE pour.id = ?",
    "BATCH": "SELECT purpose FROM batch WHERE id = ?",
}
"""How a row of a table is told by its name; any other is a document."""


@pytest.mark.parametrize("name", NAMES)
def test_a_row_is_what_its_name_says(demo_file, name):
    table, _, rest = name.partition("_")
    with closing(sqlite3.connect(demo_file)) as shop:
        ask = CALLED.get(table, "SELECT name FROM document WHERE id = ?")
        ((told,),) = shop.execute(ask, [NAMES[name]]).fetchall()
    words = (rest if table in CALLED else name).split("_")
    called = re.sub(r"\W+", "_", told.upper()).strip("_").split("_")
    assert called[: len(words) - 1] == words[:-1] and words[-1] in called

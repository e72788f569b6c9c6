"""A page costs what it shows, however large the shop: what it asks the database grows with neither pieces
nor orders.
"""

import re
from collections import Counter

import pytest
from sqlalchemy import event

from bench.grown import Size, more
from tests.demo_rows import FERRY_RUNNER
from tests.pages import EVERY
from tests.web.conftest import visit

LARGE = ("piece", "piece_step", "shop_order", "batch", "revision", "weighing", "document", "customer")
"""Tables that grow."""
MORE = (
    "/search?q=grown",
    "/pieces?q=grown",
    "/orders?q=grown",
    "/shapes?q=grown",
    "/pieces?page=5",
    "/orders?page=3",
    "/shapes?page=2",
    f"/tank/{FERRY_RUNNER}/history?page=3",
    "/find/bait?q=grown",
)
MOST_BYTES, MOST_ROWS = 300_000, 900
OF_OPEN_LINES, MOST_OF_OPEN_LINES = ("/stores/short", "/stores/stock", "/stores/year"), 7_000
"""Pages that say what all open lines take, and what all of them owe: the 400 that are due first, however
many there are, and what is worked out of them the first time.
"""


class Asked:
    """What a page asks the database: how many questions, how many rows they gave, and which tables were
    read whole for them.
    """

    def __init__(self, engine):
        self.engine, self.rows, self.whole, self.asking = engine, Counter(), set(), True
        event.listen(engine, "before_cursor_execute", self._asked)

    def _asked(self, connection, _cursor, statement, parameters, _context, _many):
        if not statement.startswith("SELECT") or not self.asking:
            return
        self.asking = False
        found = connection.exec_driver_sql(statement, parameters)
        self.rows[statement.split(" FROM ")[0][:60]] += len(found.all())
        plan = self._planned(connection, statement, parameters)
        limited = "LIMIT" in statement
        self.whole |= {
            line
            for line in plan
            if re.fullmatch(f"SCAN ({'|'.join(LARGE)})", line)
            and not (limited and "USE TEMP B-TREE FOR ORDER BY" not in plan)
        }
        self.asking = True

    def _planned(self, connection, statement, parameters):
        """How the database goes about it: the same for the same question, whatever it is asked with."""
        if statement not in PLANS:
            rows = connection.exec_driver_sql(f"EXPLAIN QUERY PLAN {statement}", parameters)
            PLANS[statement] = [row[3] for row in rows]
        return PLANS[statement]


PLANS: dict = {}


def asked(visitor, engine, url):
    counted = Asked(engine)
    answer = visitor.get(url)
    event.remove(engine, "before_cursor_execute", counted._asked)
    assert answer.status_code == 200, url
    return sum(counted.rows.values()), counted.whole, len(answer.data)


@pytest.fixture
def grown(demo_home, application, monkeypatch):
    visitor = visit(application, demo_home, monkeypatch)
    more(
        application.extensions["engine"],
        Size(pieces=1_500, orders=500, batches=600, bodies=300, revisions=300),
    )
    yield visitor
    application.extensions["engine"].dispose()


def test_no_page_reads_a_whole_table_that_grows_nor_sends_more_than_it_may(grown, application):
    engine, wrong = application.extensions["engine"], {}
    for url in dict.fromkeys(url.partition("#")[0] for url in [*EVERY, *MORE]):
        rows, whole, size = asked(grown, engine, url)
        most = MOST_OF_OPEN_LINES if url.startswith(OF_OPEN_LINES) else MOST_ROWS
        if rows > most or whole or size > MOST_BYTES:
            wrong[url] = rows, whole, size
    assert wrong == {}

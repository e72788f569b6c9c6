"""The stores of a shop with years of movements behind it: its list, what is short, the whole shop out."""

import shutil
import tempfile
import time
from functools import partial
from pathlib import Path

from sqlmodel import Session, select, text

from bench.rows import Row, median_ms
from lamsik.store import folder, needs, reserved, stands
from lamsik.store.database import open_database, session_of
from lamsik.store.tables import Order, OrderLine
from lamsik.web.app import create_app

MOVEMENTS, LINES = 20_000, 200


def store_rows(home: Path) -> list[Row]:
    """On a copy of the demo shop with so many movements, and then so many open lines more."""
    with tempfile.TemporaryDirectory() as work:
        place = Path(work) / "shop"
        shutil.copytree(home, place)
        engine = open_database(place)
        app = create_app(place)
        with session_of(engine) as session:
            _movements(session)
        listed = median_ms(partial(app.test_client().get, "/stores/stock"), 15, 3)
        with session_of(engine) as session:
            count = _lines(session)
        short = median_ms(partial(app.test_client().get, "/stores/short"), 15, 3)
        app.extensions["engine"].dispose()
        engine.dispose()
        out = _out(home, Path(work) / "out")
    return [
        Row(f"stock listed over {MOVEMENTS} movements", 50, listed),
        Row(f"what is short over {count} open lines", 300, short),
        Row("the demo shop written out in open formats", 10_000, out),
    ]


def _movements(session: Session) -> None:
    session.connection().execute(
        text(
            "INSERT INTO movement (item_id, amount, why, at, of, currency, note) "
            f"WITH RECURSIVE count(n) AS (SELECT 1 UNION ALL SELECT n + 1 FROM count WHERE n < {MOVEMENTS}) "
            "SELECT 1 + n / 2 % 40, iif(n % 2, 3, -3), iif(n % 2, 'bought', 'used'), "
            "datetime('2026-01-01', '+' || n || ' minutes'), '', '', '' FROM count"
        )
    )


def _lines(session: Session) -> int:
    like = session.exec(select(OrderLine).where(OrderLine.revision_id != None)).all()  # noqa: E711
    order = session.get_one(Order, reserved.open_lines(session)[0].order)
    for n in range(LINES):
        values = like[n % len(like)].model_dump(exclude={"id", "order_id"})
        session.add(OrderLine(order_id=order.id or 0, **values))
    session.flush()
    rows = reserved.open_lines(session)
    needs.told(session, reserved.reserved(session, rows).untold)
    stands.order_anew(session, order)
    return len(rows)


def _out(home: Path, place: Path) -> float:
    engine = open_database(home)
    began = time.perf_counter()
    with Session(engine) as session:
        folder.export(session, place)
    engine.dispose()
    return (time.perf_counter() - began) * 1000

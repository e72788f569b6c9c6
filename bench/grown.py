"""A shop as it is after years: the demo shop, grown by copying its rows inside the database.

python -m bench.grown FOLDER [--pieces N] [--orders N] [--batches N] [--bodies N] [--revisions N]
"""

import argparse
from dataclasses import dataclass
from pathlib import Path

from sqlalchemy import Connection, Engine, text, update
from sqlmodel import Session, select

from lamsik.core.route.steps import Route
from lamsik.demo.shop import build
from lamsik.store import routes, stands
from lamsik.store.database import open_database, session_of
from lamsik.store.tables import Piece

BODY, ORDER, BATCH = 15, "A0001", 1
"""What is copied: the demo shop's first body, order and batch."""
OPEN_EVERY = 40
"""One order in so many is still open, with its pieces; the rest are shipped."""
CUSTOMERS_PER_ORDER = 1 / 20


@dataclass(frozen=True)
class Size:
    """How much of each there is in the end."""

    pieces: int = 100_000
    orders: int = 30_000
    batches: int = 30_000
    bodies: int = 1_500
    revisions: int = 5_000


def grow(home: Path, size: Size) -> None:
    """Make the demo shop in an empty folder and grow it to that size."""
    engine = open_database(home)
    with session_of(engine) as session:
        build(session)
    more(engine, size)
    engine.dispose()


def more(engine: Engine, size: Size) -> None:
    """Grow a demo shop that is there."""
    with engine.begin() as connection:
        for work in (_bodies, _revisions, _customers, _orders, _pieces, _ticks, _weighings, _batches):
            work(connection, size)
    with session_of(engine) as session:
        stands.all_anew(session)


def _copied(connection: Connection, table: str, of: str, many: int, changed: dict[str, str]) -> None:
    """Copy one row of a table `many` times, each numbered `n`, some of its columns by an expression."""
    columns = [row[1] for row in connection.execute(text(f"PRAGMA table_info({table})")) if row[1] != "id"]
    values = ", ".join(changed.get(name, f'"{name}"') for name in columns)
    names = ", ".join(f'"{name}"' for name in columns)
    counted = f"WITH RECURSIVE count(n) AS (SELECT 1 UNION ALL SELECT n + 1 FROM count WHERE n < {many})"
    connection.execute(
        text(f"INSERT INTO {table} ({names}) {counted} SELECT {values} FROM count, {table} WHERE {of}")
    )


def _count(connection: Connection, table: str, where: str = "1") -> int:
    return int(connection.execute(text(f"SELECT count(*) FROM {table} WHERE {where}")).scalar_one())


def _bodies(connection: Connection, size: Size) -> None:
    many = size.bodies - _count(connection, "document", "kind = 'body'")
    first = int(connection.execute(text("SELECT max(id) FROM document")).scalar_one()) + 1
    code, name = "'B-' || (1000 + n)", "'Grown ' || (1000 + n)"
    _copied(
        connection,
        "document",
        f"id = {BODY}",
        many,
        {"code": code, "name": name, "search": "'grown ' || (1000 + n)", "current": "1"},
    )
    text_of = (
        "(SELECT r.content FROM revision r JOIN document d ON r.document_id = d.id AND r.number = d.current"
        " WHERE d.id = {from_})".format
    )
    for turn in range(8):  # eight bodies taken in turn, so that cards differ
        connection.execute(
            text(
                "INSERT INTO revision (document_id, number, saved_at, note, name, beside, content) SELECT"
                f" id, 1, '2026-01-01 00:00:00', '', '', 0, json_set({text_of(from_=BODY + turn)}, '$.name',"
                f" name) FROM document WHERE id >= {first} AND id % 8 = {turn}"
            )
        )


def _revisions(connection: Connection, size: Size) -> None:
    last = int(
        connection.execute(text(f"SELECT max(number) FROM revision WHERE document_id = {BODY}")).scalar_one()
    )
    changed = {
        "number": f"{last} + n",
        "parent": f"{last} + n - 1",
        "saved_at": f"datetime('2026-11-01', '-' || ({size.revisions} - n) || ' hours')",
    }
    changed["content"] = "json_set(content, '$.ballast[0].x_mm', 30 + n % 40 / 4.0)"
    changed["note"] = "'moved ' || n"
    _copied(
        connection, "revision", f"document_id = {BODY} AND number = {last}", size.revisions - last, changed
    )
    connection.execute(text(f"UPDATE document SET current = {size.revisions} WHERE id = {BODY}"))


def _customers(connection: Connection, size: Size) -> None:
    many = max(int(size.orders * CUSTOMERS_PER_ORDER), 1)
    changed = {"name": "'Customer ' || n", "search": "'customer ' || n", "facts": "'{}'"}
    _copied(connection, "customer", "id = 1", many, changed)


def _orders(connection: Connection, size: Size) -> None:
    had, known = _count(connection, "shop_order"), _count(connection, "customer")
    shipped = f"n % {OPEN_EVERY} != 0"
    changed = {
        "number": f"'A' || ({had} + n)",
        "customer_id": f"1 + n % {known}",
        "search": f"'a' || ({had} + n) || ' grown for customer ' || (n % {known})",
        "placed_at": "datetime('2026-11-01', '-' || n || ' hours')",
        "accepted_at": "datetime('2026-11-01', '-' || n || ' hours')",
        "due_on": (
            f"CASE WHEN {shipped} THEN date('2026-11-01', '-' || (n / 24) || ' days') ELSE date('2027-01-01',"
            " '+' || (n / 240) || ' days') END"
        ),
        "deleted_at": "NULL",
    }
    many = size.orders - had
    _copied(connection, "shop_order", f"number = '{ORDER}'", many, changed)
    of = f"(SELECT id FROM shop_order WHERE number = '{ORDER}')"
    line = {
        "order_id": f"{_first_grown(connection)} + n - 1",
        "quantity": "1 + n % 5",
        "design_id": f"{BODY} + n % 8",
        "revision_id": "NULL",
        "agreed": "'{}'",
    }
    _copied(
        connection, "order_line", f"id = (SELECT min(id) FROM order_line WHERE order_id = {of})", many, line
    )


def _first_grown(connection: Connection) -> int:
    return int(
        connection.execute(text("SELECT min(id) FROM shop_order WHERE search LIKE '%grown%'")).scalar_one()
    )


def _pieces(connection: Connection, size: Size) -> None:
    """Three or so for each order, in the order of the orders; for the bodies they were ordered in."""
    had, first = _count(connection, "piece"), _first_grown(connection)
    many, orders = size.pieces - had, _count(connection, "shop_order", "search LIKE '%grown%'")
    order = f"({first} + (n - 1) * {orders} / {many})"
    body = f"(SELECT design_id FROM order_line WHERE order_id = {order})"
    changed = {
        "number": f"'P' || ({had} + n)",
        "search": f"'p' || ({had} + n) || ' grown'",
        "order_id": order,
        "line_id": f"(SELECT id FROM order_line WHERE order_id = {order})",
        "design_id": body,
        "route_id": "NULL",
        "revision_id": f"(SELECT max(r.id) FROM revision r WHERE r.document_id = {body})",
        "deleted_at": "NULL",
    }
    _copied(connection, "piece", "id = (SELECT min(id) FROM piece)", many, changed)


def _ticks(connection: Connection, _size: Size) -> None:
    """Every step of what is shipped, the first three of what is at work."""

    for (revision,) in connection.execute(
        text("SELECT DISTINCT revision_id FROM piece WHERE search LIKE '% grown'")
    ).all():
        for turn, step in enumerate(_routed(connection, revision)):
            part = (
                ""
                if turn < 3
                else (
                    "AND (p.order_id - (SELECT min(id) FROM shop_order WHERE search LIKE '%grown%') + 1) %"
                    f" {OPEN_EVERY} != 0"
                )
            )
            connection.execute(
                text(
                    "INSERT INTO piece_step (piece_id, step, done_at, reason) SELECT p.id, :step, '2026-06-01"
                    f" 00:00:00', '' FROM piece p WHERE p.revision_id = {revision} AND p.search LIKE '%"
                    f" grown' {part}"
                ),
                {"step": step.key},
            )


def _routed(connection: Connection, revision: int) -> Route:
    """The route of a revision, given to all its pieces."""
    with Session(connection, join_transaction_mode="create_savepoint") as session:
        piece = session.exec(select(Piece).where(Piece.revision_id == revision)).first()
        routes.follow(session, piece)
        session.execute(update(Piece).where(Piece.revision_id == revision).values(route_id=piece.route_id))
        session.commit()
        return routes.of(session, piece)


def _weighings(connection: Connection, _size: Size) -> None:
    """Each piece weighed once, when carved."""
    connection.execute(
        text(
            "INSERT INTO observation (typed, of, of_id, what, value, text, instrument_id, at, conditions)"
            " SELECT '{}', 'piece', id, 'stage:carved', 9.0, '9.0', 1, '2026-06-01 00:00:00', '{}'"
            " FROM piece WHERE search LIKE '% grown'"
        )
    )


def _batches(connection: Connection, size: Size) -> None:
    had = _count(connection, "batch")
    changed = {
        "state": "'poured'",
        "at": "datetime('2026-11-01', '-' || n || ' hours')",
        "made_id": "NULL",
        "mould_id": "NULL",
        "pour_id": "NULL",
        "product_id": "47 + n % 6",
    }
    _copied(connection, "batch", f"id = {BATCH}", size.batches - had, changed)


def main() -> None:
    """Make it where it is said."""
    asked = argparse.ArgumentParser(description=__doc__, formatter_class=argparse.RawDescriptionHelpFormatter)
    asked.add_argument("folder", type=Path)
    for name, most in vars(Size()).items():
        asked.add_argument(f"--{name}", type=int, default=most)
    given = vars(asked.parse_args())
    grow(given.pop("folder"), Size(**given))


if __name__ == "__main__":
    main()

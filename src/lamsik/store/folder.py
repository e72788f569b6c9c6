"""The whole shop as a folder of open files, and a shop out of such a folder: every table as CSV, documents as
JSON, pictures and papers, a manifest with their digests.
"""

import base64
import csv
import io
import json
import shutil
import sqlite3
from collections.abc import Callable, Iterator
from contextlib import closing
from datetime import UTC, datetime, time
from hashlib import sha256
from pathlib import Path
from typing import Any

from sqlmodel import Session, SQLModel, col, select

from lamsik.core.errors import Refused, require
from lamsik.documents.registry import KINDS
from lamsik.formats.due_ics import DueDay, calendar
from lamsik.formats.json_text import json_text
from lamsik.store import documents, pictures, stores
from lamsik.store.database import FILE_NAME, at_revision, newest_revision, open_database
from lamsik.store.stands import DONE, HERE
from lamsik.store.tables import CustodyItem, Customer, Document, Order, Paper

FORMAT, MANIFEST = "lamsik-shop/1", "manifest.json"
LEFT_OUT = frozenset({"alembic_version", "sentform", "card"})
"""Tables that hold nothing of the shop: what can be told anew, and forms that were sent."""
NULL = "\\N"
"""How a text that is not there is written; one that begins with a backslash has one more."""
BLOB = "base64:"
DUE = "due.ics"
Tell = Callable[[float, str], None]
PaperPdf = Callable[[Paper], bytes]


def _tables(shop: sqlite3.Connection) -> list[str]:
    rows = shop.execute("SELECT name FROM sqlite_master WHERE type = 'table' ORDER BY name").fetchall()
    return [
        name
        for (name,) in rows
        if name not in LEFT_OUT and "_words" not in name and not name.startswith("sqlite_")
    ]


def _written(value: Any) -> str:
    if value is None:
        return NULL
    if isinstance(value, bytes):
        return BLOB + base64.b64encode(value).decode("ascii")
    if isinstance(value, str):
        return f"\\{value}" if value.startswith(("\\", BLOB)) else value
    return repr(value)


def _read(text: str, kind: str) -> Any:
    if text == NULL:
        return None
    if text.startswith(BLOB):
        return base64.b64decode(text.removeprefix(BLOB), validate=True)
    text = text[1:] if text.startswith("\\") else text
    if kind == "INTEGER" or kind == "BOOLEAN":
        return int(text)
    return float(text) if kind in ("FLOAT", "REAL") else text


def _table_csv(shop: sqlite3.Connection, name: str) -> str:
    out = io.StringIO()
    writer = csv.writer(out, lineterminator="\n")
    known = ", ".join(f'"{column}"' for column in SQLModel.metadata.tables[name].columns.keys())  # noqa: SIM118
    rows = shop.execute(f'SELECT {known} FROM "{name}" ORDER BY rowid')
    writer.writerow([one[0] for one in rows.description])
    for row in rows:
        writer.writerow([_written(value) for value in row])
    return out.getvalue()


def export(session: Session, folder: Path, pdf: PaperPdf | None = None, tell: Tell | None = None) -> int:
    """Write everything of a shop into a folder that is empty or not there yet; gives how many files.

    Args:
        session: of the shop.
        folder: where to.
        pdf: makes a PDF of a paper; without it the papers are in their table alone.
        tell: how far it is (0 to 1), and what is written.

    Raises:
        Refused: there is something in the folder already.
    """
    require(
        not folder.exists() or not any(folder.iterdir()),
        "folder",
        str(folder),
        "an empty folder, or a new one",
    )
    folder.mkdir(parents=True, exist_ok=True)
    say = tell or (lambda _share, _says: None)
    files: dict[str, dict[str, Any]] = {}
    home = pictures.folder_of(session)
    parts = [
        _tables_of(home),
        _documents_of(session),
        _pictures_of(home),
        _papers_of(session, pdf),
        iter([(DUE, due(session))]),
    ]
    for n, (says, part) in enumerate(
        zip(("tables", "documents", "pictures", "papers", "due"), parts, strict=True)
    ):
        for name, data in part:
            say((n + 0.5) / len(parts), f"{says}: {name}")
            path = folder / name
            path.parent.mkdir(parents=True, exist_ok=True)
            path.write_bytes(data)
            files[name] = {"sha256": sha256(data).hexdigest(), "bytes": len(data)}
    manifest = {
        "format": FORMAT,
        "schema": newest_revision(),
        "at": datetime.now(UTC).replace(microsecond=0).isoformat(),
        "files": files,
    }
    (folder / MANIFEST).write_text(json_text(manifest), encoding="utf-8")
    say(1.0, "written")
    return len(files)


Part = Iterator[tuple[str, bytes]]
"""Files by name, one after the other."""


def _tables_of(home: Path) -> Part:
    with closing(sqlite3.connect(f"file:{home / FILE_NAME}?mode=ro", uri=True)) as shop:
        shop.execute("BEGIN")  # all tables of one moment
        for name in _tables(shop):
            yield f"tables/{name}.csv", _table_csv(shop, name).encode()


def _documents_of(session: Session) -> Part:
    query = select(Document).where(col(Document.deleted_at).is_(None)).order_by(col(Document.id))
    for row in session.exec(query).all():
        if row.kind in KINDS:
            text = json_text(documents.content(session, row))
            yield f"documents/{row.kind}/{row.code}.json", text.encode()


def _pictures_of(home: Path) -> Part:
    folder = home / pictures.FOLDER
    for path in sorted(folder.rglob("*")) if folder.exists() else ():
        if path.is_file() and not path.suffix:
            yield f"pictures/{path.name}", path.read_bytes()


def _papers_of(session: Session, pdf: PaperPdf | None) -> Part:
    for row in session.exec(select(Paper).order_by(col(Paper.id))).all() if pdf is not None else ():
        if pdf is not None:
            yield f"papers/{row.number}.pdf", pdf(row)


def due(session: Session) -> bytes:
    """The days of open orders as a calendar, and of what is lent and goes back."""
    orders = (
        select(Order, Customer)
        .join(Customer)
        .where(col(Order.due_on).is_not(None), col(Order.queue) < DONE, col(Order.deleted_at).is_(None))
    )
    days = [
        DueDay(
            f"{order.number}@lamsik",
            order.due_on,
            f"{order.number}: {order.title}, {customer.name}",
            order.placed_at,
        )
        for order, customer in session.exec(orders.order_by(col(Order.queue))).all()
        if order.due_on is not None
    ]
    lent = (
        select(CustodyItem, Customer).join(Customer).where(*HERE, col(CustodyItem.due_back_on).is_not(None))
    )
    days += [
        DueDay(
            f"{item.number}@lamsik",
            item.due_back_on,
            f"{item.number} back to {customer.name}: {item.what}",
            datetime.combine(item.received_on, time()),
        )
        for item, customer in session.exec(lent.order_by(col(CustodyItem.id))).all()
        if item.due_back_on is not None
    ]
    return calendar(str(stores.setting(session, "shop")["name"]), days)


def bring(folder: Path, home: Path, tell: Tell | None = None) -> int:
    """A shop in an empty place out of a folder that was written by `export`; gives how many rows.

    Raises:
        Refused: there is a shop already, it is no such folder, of a later version, or not whole: nothing is
            there afterwards.
    """
    require(not (home / FILE_NAME).exists(), "shop", str(home), "an empty place: a shop is there already")
    manifest = _manifest(folder)
    say = tell or (lambda _share, _says: None)
    half = home.with_name(f"{home.name}.half")
    shutil.rmtree(half, ignore_errors=True)
    try:
        count = _brought(folder, half, manifest, say)
        home.mkdir(parents=True, exist_ok=True)
        for path in half.iterdir():
            shutil.move(str(path), home / path.name)
    finally:
        shutil.rmtree(half, ignore_errors=True)
    say(1.0, "there")
    return count


def _manifest(folder: Path) -> dict[str, Any]:
    try:
        manifest = json.loads((folder / MANIFEST).read_text(encoding="utf-8"))
        require(manifest["format"] == FORMAT, "format", manifest["format"], FORMAT)
        files = dict(manifest["files"])
    except (OSError, ValueError, KeyError, TypeError) as error:
        raise Refused("folder", str(folder), f"a folder with a {MANIFEST} of a whole shop") from error
    for name, kept in files.items():
        path = folder / name
        require(path.resolve().is_relative_to(folder.resolve()), "file", name, "a file of that folder")
        require(path.is_file(), "file", name, "every file its manifest names: this one is missing")
        same = sha256(path.read_bytes()).hexdigest() == kept["sha256"]
        require(same, "file", name, "as it was written: this one was changed since")
    require(
        str(manifest["schema"]) <= newest_revision(),
        "schema",
        manifest["schema"],
        f"of this version or earlier, {newest_revision()}",
    )
    return dict(manifest)


def _brought(folder: Path, half: Path, manifest: dict[str, Any], say: Tell) -> int:
    at_revision(half, str(manifest["schema"]))
    count = 0
    with closing(sqlite3.connect(half / FILE_NAME)) as shop:
        shop.execute("PRAGMA foreign_keys = OFF")
        triggers = shop.execute("SELECT name, sql FROM sqlite_master WHERE type = 'trigger'").fetchall()
        for name, _ in triggers:
            shop.execute(f'DROP TRIGGER "{name}"')
        tables = _tables(shop)
        for n, name in enumerate(tables):
            say(n / len(tables), name)
            count += _fill(shop, name, folder / f"tables/{name}.csv")
        for _, statement in triggers:
            shop.execute(statement)
        _find_anew(shop)
        lost = shop.execute("PRAGMA foreign_key_check").fetchall()
        require(not lost, "tables", len(lost), "rows that name what is there")
        shop.commit()
    for path in sorted((folder / "pictures").glob("*")):
        pictures.put(half, path.read_bytes())
    open_database(half).dispose()
    return count


def _find_anew(shop: sqlite3.Connection) -> None:
    """What a search looks in is told from the rows."""
    for (name,) in shop.execute(
        "SELECT name FROM sqlite_master WHERE type = 'table' AND sql LIKE '%fts5%'"
    ).fetchall():
        shop.execute(f'INSERT INTO "{name}" ("{name}") VALUES (\'rebuild\')')


def _fill(shop: sqlite3.Connection, name: str, path: Path) -> int:
    require(path.is_file(), "file", path.name, "a table of each kind: this one is missing")
    kinds = {row[1]: row[2].split("(")[0] for row in shop.execute(f'PRAGMA table_info("{name}")')}
    shop.execute(f'DELETE FROM "{name}"')
    csv.field_size_limit(2**31 - 1)
    with path.open(encoding="utf-8", newline="") as lines:
        reader = csv.reader(lines)
        names = next(reader, [])
        require(set(names) == set(kinds), "columns", path.name, f"the columns {', '.join(kinds)}")
        marks, listed = ", ".join("?" for _ in names), ", ".join(f'"{one}"' for one in names)
        rows = [[_read(text, kinds[one]) for one, text in zip(names, row, strict=True)] for row in reader]
    shop.executemany(f'INSERT INTO "{name}" ({listed}) VALUES ({marks})', rows)
    return len(rows)

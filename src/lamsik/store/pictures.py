"""Pictures as files beside the database, named by their SHA-256: the database stays small, the same picture
is kept once.

A file is written before the row that names it is committed; one that no row names any more is swept away a
day later.
"""

import os
import sqlite3
import time
from hashlib import sha256
from pathlib import Path

from sqlmodel import Session

from lamsik.core.errors import Refused

FOLDER = "pictures"
IN_BACKUP = "picture_file"
"""The table of a backup that holds them: one file has the whole shop."""

NAMED_IN = (("tracing", "digest"), ("photo", "digest"))
"""Where rows name pictures: table and column."""

LEFT_S = 86400.0


def folder_of(session: Session) -> Path:
    """The folder of the shop that a session is open on."""
    return Path(str(session.get_bind().engine.url.database)).parent


def put(shop: Path, data: bytes) -> str:
    """Keep a picture in the folder of a shop, whole or not at all; gives its digest."""
    digest = sha256(data).hexdigest()
    path = _path(shop, digest)
    if path.exists():
        os.utime(path)  # wanted again: the sweep leaves it alone
        return digest
    path.parent.mkdir(mode=0o700, parents=True, exist_ok=True)
    half = path.with_suffix(f".{os.getpid()}-{time.monotonic_ns()}")
    try:
        with os.fdopen(os.open(half, os.O_WRONLY | os.O_CREAT | os.O_EXCL, 0o600), "wb") as out:
            out.write(data)
            out.flush()
            os.fsync(out.fileno())
        half.replace(path)
    finally:
        half.unlink(missing_ok=True)
    return digest


def get(shop: Path, digest: str) -> bytes:
    """A picture by its digest.

    Raises:
        Refused: it is not there, or is not what it was.
    """
    try:
        data = _path(shop, digest).read_bytes()
    except OSError as error:
        raise Refused(
            "picture",
            None,
            "its file is not in the shop's folder any more: restore a backup, or bring the photo in again",
        ) from error
    if sha256(data).hexdigest() != digest:
        raise Refused(
            "picture",
            None,
            "its file was changed or is damaged: restore a backup, or bring the photo in again",
        )
    return data


def _path(shop: Path, digest: str) -> Path:
    return shop / FOLDER / digest[:2] / digest


def into_backup(copy: sqlite3.Connection, shop: Path) -> None:
    """Put the pictures that a copied shop names into the copy; one that is lost is left out, its row
    stays.
    """
    copy.execute(f"CREATE TABLE {IN_BACKUP} (digest TEXT PRIMARY KEY, data BLOB NOT NULL)")
    for digest in _named(copy):
        try:
            copy.execute(f"INSERT INTO {IN_BACKUP} VALUES (?, ?)", (digest, get(shop, digest)))
        except Refused:
            continue
    copy.commit()


def out_of_backup(copy: sqlite3.Connection, shop: Path) -> None:
    """Lay the pictures of a backup into the folder of a shop; the copy is a plain shop then."""
    there = copy.execute(
        "SELECT count(*) FROM sqlite_master WHERE type = 'table' AND name = ?", (IN_BACKUP,)
    ).fetchone()[0]
    if there:
        for (data,) in copy.execute(f"SELECT data FROM {IN_BACKUP}"):
            put(shop, data)
        copy.execute(f"DROP TABLE {IN_BACKUP}")
        copy.commit()


def sweep(shop: Path, database: sqlite3.Connection, now_s: float) -> int:
    """Take away the files that no row names and that are a day old; how many."""
    named, swept = set(_named(database)), 0
    for path in (shop / FOLDER).glob("??/*"):
        if path.name not in named and now_s - path.stat().st_mtime > LEFT_S:
            path.unlink(missing_ok=True)
            swept += 1
    return swept


def _named(database: sqlite3.Connection) -> list[str]:
    """Every picture that a row names, each once; a shop of before pictures were files names none."""
    digests: dict[str, None] = {}
    for table, column in NAMED_IN:
        if any(row[1] == column for row in database.execute(f"PRAGMA table_info({table})")):
            digests |= dict.fromkeys(
                row[0]
                for row in database.execute(f"SELECT DISTINCT {column} FROM {table} WHERE {column} <> ''")
            )
    return list(digests)

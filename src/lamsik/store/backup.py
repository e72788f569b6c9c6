"""Backup and restore of a running shop: whole copies, looked into before they replace anything, made by
the day and thinned.
"""

import os
import sqlite3
from collections.abc import Callable
from contextlib import closing
from dataclasses import dataclass
from datetime import datetime, timedelta
from pathlib import Path

from sqlmodel import SQLModel

from lamsik.core.errors import Refused
from lamsik.store import pictures, tables, words  # noqa: F401 - what a shop consists of
from lamsik.store.database import FILE_NAME, MIGRATIONS, connect, migrate

FOLDER = "backups"
NAMED = "shop-{:%Y%m%d-%H%M%S}.sqlite3"
COUNTED = (
    ("bodies", "document WHERE kind = 'body'"),
    ("floats", "document WHERE kind = 'float'"),
    ("moulds", "document WHERE kind = 'mould'"),
    ("orders", "shop_order"),
    ("pieces", "piece"),
    ("weighings", "weighing"),
    ("batches", "batch"),
)


@dataclass(frozen=True)
class Contents:
    """What is in a backup: how many of each, and when something was kept last (None: nothing was)."""

    counts: tuple[tuple[str, int], ...]
    last: str | None

    @property
    def says(self) -> str:
        """In words."""
        held = ", ".join(f"{count} {name}" for name, count in self.counts if count) or "nothing yet"
        return held + (f"; last kept {self.last[:16]} UTC" if self.last else "")


def backup(folder: Path, target: Path) -> None:
    """A whole copy of the shop as one SQLite file, written beside and put in place at the end; for its
    owner's eyes only.

    Raises:
        Refused: no shop there; a place that cannot be written, is a folder, or is the shop itself.
    """
    source = folder / FILE_NAME
    if not source.exists():
        raise Refused("folder", str(folder), "there is no shop here; start it once with `make run`")
    if target.is_dir():
        raise Refused("file", str(target), "this is a folder: name a file in it")
    if target.exists() and target.resolve() == source.resolve():
        raise Refused("file", str(target), "this is the shop itself: name another file")
    half = target.with_name(target.name + ".part")
    try:
        half.touch(mode=0o600)
        with closing(sqlite3.connect(source)) as shop, closing(sqlite3.connect(half)) as copy:
            shop.backup(copy)
            pictures.into_backup(copy, folder)
        half.replace(target)
    except (sqlite3.OperationalError, OSError) as error:
        raise Refused("file", str(target), f"a place that can be written and has room ({error})") from error
    finally:
        half.unlink(missing_ok=True)


def restore(folder: Path, source: Path) -> Path | None:
    """Put a backup in the place of the shop, whole or not at all; returns where the state before it was kept.

    The write lock is held from before that state is copied until the new one is in: what is acknowledged
    meanwhile is in neither's gap.

    Raises:
        Refused: the file is no backup of a shop, damaged, or from a newer program.
    """
    look_into(source)
    folder.mkdir(parents=True, exist_ok=True)
    shop, ready = folder / FILE_NAME, folder / f".restore-{os.getpid()}.sqlite3"
    try:
        _ready(source, ready)
        if not shop.exists():
            ready.replace(shop)
            return None
        if not _opens(shop):
            kept = _unused(folder / f"before-restore-{datetime.now():%Y%m%d-%H%M%S}.sqlite3")
            shop.replace(kept)
            for rest in ("-wal", "-shm"):
                (folder / (FILE_NAME + rest)).unlink(missing_ok=True)
            ready.replace(shop)
            return kept
        return _copied_in(folder, ready)
    finally:
        for left in (ready, *(ready.with_name(ready.name + rest) for rest in ("-wal", "-shm"))):
            left.unlink(missing_ok=True)


def _ready(source: Path, ready: Path) -> None:
    """The backup in this program's own shape, beside the shop."""
    ready.unlink(missing_ok=True)
    ready.touch(mode=0o600)
    with closing(sqlite3.connect(_address(source), uri=True)) as copy, closing(sqlite3.connect(ready)) as own:
        copy.backup(own)
        pictures.out_of_backup(own, ready.parent)
    engine = connect(ready)
    migrate(engine)
    engine.dispose()
    with closing(sqlite3.connect(ready, isolation_level=None)) as own:
        own.execute("PRAGMA journal_mode = DELETE")  # one file again, nothing of it in a log beside it


def _opens(shop: Path) -> bool:
    """Whether what is there is a shop at all that can be brought to this program's shape."""
    try:
        engine = connect(shop)
        migrate(engine)
        engine.dispose()
    except Exception:
        return False
    return True


def _copied_in(folder: Path, ready: Path) -> Path:
    """Every row of the shop replaced in one transaction; servers that run see it at their next request."""
    kept = _unused(folder / f"before-restore-{datetime.now():%Y%m%d-%H%M%S}.sqlite3")
    with closing(sqlite3.connect(folder / FILE_NAME, timeout=15, isolation_level=None)) as shop:
        shop.execute("PRAGMA foreign_keys = OFF")
        shop.execute("ATTACH ? AS ready", (str(ready),))
        shop.execute("BEGIN IMMEDIATE")
        try:
            backup(folder, kept)
            for name in [
                row[0]
                for row in shop.execute(
                    "SELECT name FROM main.sqlite_master WHERE type = 'table' AND name NOT LIKE 'sqlite_%'"
                )
            ]:
                if words.is_index(name):
                    continue
                columns = ", ".join(
                    f'"{row[1]}"' for row in shop.execute(f'PRAGMA main.table_info("{name}")')
                )
                shop.execute(f'DELETE FROM main."{name}"')
                shop.execute(f'INSERT INTO main."{name}" ({columns}) SELECT {columns} FROM ready."{name}"')
            shop.execute("COMMIT")
        except BaseException:
            shop.execute("ROLLBACK")
            kept.unlink(missing_ok=True)
            raise
    return kept


def _unused(path: Path) -> Path:
    """The path, or the next one beside it: an earlier copy (perhaps the one being restored) is never
    overwritten.
    """
    number = 2
    while path.exists():
        path = path.with_stem(f"{path.stem.split('_')[0]}_{number}")
        number += 1
    return path


def _address(path: Path) -> str:
    """A file to be read only, as SQLite takes it: a name may hold `?` or `#`."""
    return f"{path.resolve().as_uri()}?mode=ro"


def look_into(source: Path) -> Contents:
    """What is in a backup. Raises `Refused` for what is none: damaged, of a newer program, without a
    shop's tables, with rows that point nowhere.
    """
    if not source.is_file():
        raise Refused("file", str(source), "no such file")
    try:
        with closing(sqlite3.connect(_address(source), uri=True)) as copy:
            if copy.execute("PRAGMA integrity_check").fetchone()[0] != "ok":
                raise Refused("file", str(source), "this backup is damaged; take an older one")
            there = _check_tables(copy, source)
            held = [(name, what) for name, what in COUNTED if what.split()[0] in there]
            counts = tuple(
                (name, int(copy.execute(f"SELECT count(*) FROM {what}").fetchone()[0])) for name, what in held
            )
            last = copy.execute("SELECT max(saved_at) FROM revision").fetchone()[0]
    except sqlite3.DatabaseError as error:
        raise Refused("file", str(source), f"not a backup of a shop ({error})") from error
    return Contents(counts, last)


def _check_tables(copy: sqlite3.Connection, source: Path) -> set[str]:
    there = {row[0] for row in copy.execute("SELECT name FROM sqlite_master WHERE type = 'table'")}
    version = (
        copy.execute("SELECT version_num FROM alembic_version").fetchone()
        if "alembic_version" in there
        else None
    )
    if version is None:
        raise Refused("file", str(source), "not a backup of a shop (it says no version)")
    known = {path.name.split("_")[0] for path in (MIGRATIONS / "versions").glob("*.py")}
    if version[0] not in known:
        raise Refused("file", str(source), "this backup is from a newer program; update first")
    lacking = (
        sorted(set(SQLModel.metadata.tables) - there)
        if version[0] == max(known)
        else sorted({"document", "revision", "piece", "shop_order"} - there)
    )
    if lacking:
        raise Refused("file", str(source), f"not a backup of a shop (there is no table {lacking[0]})")
    loose = copy.execute("PRAGMA foreign_key_check").fetchone()
    if loose is not None:
        raise Refused(
            "file",
            str(source),
            f"this backup is torn: a row of {loose[0]} points to one of {loose[2]} that is not there; take an"
            " older one",
        )
    return there


def made(folder: Path) -> list[Path]:
    """The backups in the shop's own folder, the newest first."""
    return sorted((folder / FOLDER).glob("shop-*.sqlite3"), reverse=True)


def make(folder: Path, at: datetime, keep: int = 0) -> Path:
    """A backup in the shop's own folder, looked into; with `keep` only so many of the newest stay."""
    (folder / FOLDER).mkdir(mode=0o700, exist_ok=True)
    target = folder / FOLDER / NAMED.format(at)
    backup(folder, target)
    look_into(target)
    with closing(sqlite3.connect(_address(folder / FILE_NAME), uri=True)) as shop:
        pictures.sweep(folder, shop, at.timestamp())
    for old in made(folder)[keep:] if keep else ():
        old.unlink()
    return target


def age(folder: Path, at: datetime) -> timedelta | None:
    """How old the newest backup is; None where there is none."""
    backups = made(folder)
    return at - datetime.fromtimestamp(backups[0].stat().st_mtime) if backups else None


def make_daily(folder: Path, plan: Callable[[], tuple[bool, int]], at: datetime) -> Path | None:
    """A backup if the shop wants one a day and the last is a day old; `plan` gives whether, and how many
    are kept.
    """
    wanted, keep = plan()
    old = age(folder, at)
    return (
        make(folder, at, keep) if wanted and (old is None or old >= timedelta(hours=23, minutes=50)) else None
    )

"""Backup and restore of a running shop with SQLite's online backup."""

import sqlite3
from contextlib import closing
from datetime import datetime
from pathlib import Path

from lamsik.core.errors import Refused
from lamsik.store.database import FILE_NAME, MIGRATIONS, connect, migrate


def backup(folder: Path, target: Path) -> None:
    """A whole copy of the shop as one SQLite file, written beside and put in place at the end."""
    source = folder / FILE_NAME
    if not source.exists():
        raise Refused("folder", str(folder), "there is no shop here; start it once with `make run`")
    half = target.with_name(target.name + ".part")
    try:
        with closing(sqlite3.connect(source)) as shop, closing(sqlite3.connect(half)) as copy:
            shop.backup(copy)
        half.replace(target)
    except sqlite3.OperationalError as error:
        raise Refused("file", str(target), f"a place that can be written and has room ({error})") from error
    finally:
        half.unlink(missing_ok=True)


def restore(folder: Path, source: Path) -> Path | None:
    """Put a backup in the place of the shop; returns where the state before it was kept.

    Raises:
        Refused: the file is no backup of a shop, damaged, or from a newer program.
    """
    _check(source)
    kept: Path | None = None
    folder.mkdir(parents=True, exist_ok=True)
    if (folder / FILE_NAME).exists():
        kept = _unused(folder / f"before-restore-{datetime.now():%Y%m%d-%H%M%S}.sqlite3")
        backup(folder, kept)
    with closing(sqlite3.connect(source)) as copy, closing(sqlite3.connect(folder / FILE_NAME, timeout=15)) as shop:
        copy.backup(shop)
    migrate(connect(folder / FILE_NAME))
    return kept


def _unused(path: Path) -> Path:
    """The path, or the next one beside it: an earlier copy (perhaps the one being restored) is never overwritten."""
    number = 2
    while path.exists():
        path = path.with_stem(f"{path.stem.split('_')[0]}_{number}")
        number += 1
    return path


def _check(source: Path) -> None:
    if not source.is_file():
        raise Refused("file", str(source), "no such file")
    try:
        with closing(sqlite3.connect(f"file:{source}?mode=ro", uri=True)) as copy:
            whole = copy.execute("PRAGMA integrity_check").fetchone()[0] == "ok"
            version = copy.execute("SELECT version_num FROM alembic_version").fetchone()
    except sqlite3.DatabaseError as error:
        raise Refused("file", str(source), f"not a backup of a shop ({error})") from error
    if not whole:
        raise Refused("file", str(source), "this backup is damaged; take an older one")
    known = {path.name.split("_")[0] for path in (MIGRATIONS / "versions").glob("*.py")}
    if version is None or version[0] not in known:
        raise Refused("file", str(source), "this backup is from a newer program; update first")

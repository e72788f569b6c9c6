"""Pictures beside the database: kept once, whole, found again out of a backup and out of a shop of an
earlier version.
"""

import os
import sqlite3
from contextlib import closing
from datetime import datetime

import pytest
from alembic import command
from sqlmodel import Session

from lamsik.core.errors import Refused
from lamsik.store import pictures
from lamsik.store.backup import backup, look_into, make, restore
from lamsik.store.database import FILE_NAME, _config, connect, migrate, open_database, session_of
from lamsik.store.tables import Tracing
from tests.shops import begun

PICTURE, OTHER = b"\xff\xd8\xff picture" * 500, b"\xff\xd8\xff another" * 400


def trace(shop, data=PICTURE, name="plug.jpg") -> str:
    engine = open_database(begun(shop))
    with session_of(engine) as session:
        digest = pictures.put(pictures.folder_of(session), data)
        session.add(Tracing(name=name, digest=digest, width_px=40, height_px=30))
    engine.dispose()
    return digest


def named(shop) -> list[str]:
    engine = connect(shop / FILE_NAME)
    with Session(engine) as session:
        found = [
            row[0] for row in session.connection().exec_driver_sql("SELECT digest FROM tracing ORDER BY id")
        ]
    engine.dispose()
    return found


def test_the_same_picture_is_kept_once_for_its_owners_eyes_only(tmp_path):
    assert trace(tmp_path) == trace(tmp_path, name="again.jpg") != trace(tmp_path, OTHER)
    files = [path for path in (tmp_path / pictures.FOLDER).rglob("*") if path.is_file()]
    assert len(files) == 2 and not any(path.stat().st_mode & 0o77 for path in files)
    assert pictures.get(tmp_path, named(tmp_path)[0]) == PICTURE


@pytest.mark.parametrize(
    ("spoil", "says"),
    [
        (lambda path: path.unlink(), "not in the shop's folder"),
        (lambda path: path.write_bytes(b"cut"), "changed or is damaged"),
    ],
)
def test_a_lost_or_damaged_file_is_said_so(tmp_path, spoil, says):
    digest = trace(tmp_path)
    spoil(pictures._path(tmp_path, digest))
    with pytest.raises(Refused, match=says):
        pictures.get(tmp_path, digest)
    backup(tmp_path, tmp_path / "copy.sqlite3")  # the rest is saved all the same
    assert look_into(tmp_path / "copy.sqlite3").says


def test_a_backup_is_one_file_with_them_and_brings_them_back(tmp_path):
    shop, other = tmp_path / "shop", tmp_path / "other"
    digest = trace(shop)
    backup(shop, tmp_path / "copy.sqlite3")
    trace(other, OTHER)
    for into in (other, tmp_path / "fresh"):
        restore(into, tmp_path / "copy.sqlite3")
        assert named(into) == [digest] and pictures.get(into, digest) == PICTURE
        with closing(sqlite3.connect(into / FILE_NAME)) as found:
            assert not found.execute(
                "SELECT 1 FROM sqlite_master WHERE name = ?", (pictures.IN_BACKUP,)
            ).fetchone()


def test_pictures_of_an_earlier_versions_rows_become_files(tmp_path):
    engine, config = connect(tmp_path / FILE_NAME), _config()
    with engine.begin() as connection:
        config.attributes["connection"] = connection
        command.upgrade(config, "0007")
        for data in (PICTURE, OTHER):
            connection.exec_driver_sql(
                "INSERT INTO tracing (name, picture, width_px, height_px, state, at) VALUES ('p', ?, 4, 3,"
                " '{}', '2026-01-01')",
                (data,),
            )
    migrate(engine)
    engine.dispose()
    assert [pictures.get(tmp_path, digest) for digest in named(tmp_path)] == [PICTURE, OTHER]


def test_what_no_row_names_is_swept_a_day_later(tmp_path):
    digest, loose = trace(tmp_path), pictures.put(tmp_path, OTHER)
    make(tmp_path, datetime.now())
    assert pictures.get(tmp_path, loose) == OTHER
    for one in (digest, loose):
        os.utime(pictures._path(tmp_path, one), (1e9, 1e9))
    make(tmp_path, datetime.now())
    assert pictures.get(tmp_path, digest) == PICTURE
    with pytest.raises(Refused):
        pictures.get(tmp_path, loose)


def test_a_disk_that_fills_leaves_no_half_picture(tmp_path, monkeypatch):
    def full(_handle):
        raise OSError(28, "No space left on device")

    monkeypatch.setattr(os, "fsync", full)
    with pytest.raises(OSError, match="No space"):
        pictures.put(tmp_path, PICTURE)
    assert not [path for path in tmp_path.rglob("*") if path.is_file()]

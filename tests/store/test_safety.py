"""Nothing is lost: migrations, crashes, a full disk, backup and restore of a running shop."""

import json
import os
import signal
import sqlite3
import subprocess
import sys
import textwrap
import threading
import time
from datetime import datetime, timedelta

import pytest
from alembic import command
from alembic.autogenerate import compare_metadata
from alembic.runtime.migration import MigrationContext
from sqlalchemy.exc import OperationalError
from sqlmodel import Session, SQLModel, select, text

from lamsik.core.errors import Refused
from lamsik.core.shapes.design import Host, Want
from lamsik.core.shapes.forms import FORMS
from lamsik.core.water import Water
from lamsik.documents.body.before import NEW_BODY_IN_3, NEW_IN_2, NEW_IN_3
from lamsik.documents.body.document import new_document, to_design
from lamsik.documents.body.shape import BODY_SCHEMA
from lamsik.store import words
from lamsik.store.backup import backup, look_into, made, make_daily, restore
from lamsik.store.database import (
    FILE_NAME,
    _config,
    connect,
    for_writing,
    is_current,
    open_database,
    session_of,
)
from lamsik.store.documents import content
from lamsik.store.tables import Customer, Document
from tests.documents.before import with_coats
from tests.shops import begun


def names(folder):
    engine = connect(folder / FILE_NAME)
    with Session(engine) as session:
        found = [c.name for c in session.exec(select(Customer)).all()]
    engine.dispose()
    return found


def add(folder, name):
    engine = open_database(begun(folder))
    with session_of(engine) as session:
        session.add(Customer(name=name, search=name.lower()))
    engine.dispose()


def test_migrations_make_exactly_the_tables_of_the_program(engine):
    with engine.connect() as connection:
        assert (
            compare_metadata(
                MigrationContext.configure(
                    connection,
                    opts={
                        "compare_type": True,
                        "include_name": lambda name, kind, _: kind != "table" or not words.is_index(name),
                    },
                ),
                SQLModel.metadata,
            )
            == []
        )
        assert connection.exec_driver_sql("PRAGMA journal_mode").scalar() == "wal"
        assert connection.exec_driver_sql("PRAGMA foreign_keys").scalar() == 1
    assert is_current(engine)


@pytest.mark.parametrize("version", [1, 2])
def test_a_shop_of_an_earlier_release_is_brought_up_with_all_its_revisions(tmp_path, version):
    engine = connect(tmp_path / FILE_NAME)
    config = _config()
    with engine.begin() as connection:
        config.attributes["connection"] = connection
        command.upgrade(config, f"000{version}")
        old = new_document("Old", FORMS["slim"], Host("basswood", 0.42, 0.04), Water(), Want())
        first = with_coats({name: value for name, value in old.items() if name not in NEW_IN_3}, version=2)
        first["body"] = {name: value for name, value in old["body"].items() if name not in NEW_BODY_IN_3}
        if version == 1:
            first = {name: value for name, value in first.items() if name not in NEW_IN_2} | {"version": 1}
            first["want"] = {name: old["want"][name] for name in ("behaviour", "speed_cm_s", "pitch_deg")}
            first["material"] = {
                name: value for name, value in old["material"].items() if name != "solid_g_cm3"
            }
        connection.execute(
            text(
                "INSERT INTO document (id, kind, code, name, search, current) VALUES (1, 'body', 'B-001',"
                " 'Old', 'old', 1)"
            )
        )
        connection.execute(
            text(
                "INSERT INTO revision (document_id, number, saved_at, note, beside, content) VALUES (1, 1,"
                " '2026-01-01 00:00:00.000000', '', 0, :content)"
            ),
            {"content": json.dumps(first)},
        )
    engine.dispose()
    engine = open_database(tmp_path)
    with session_of(engine) as session:
        row = session.exec(select(Document)).one()
        assert to_design(BODY_SCHEMA.checked(content(session, row))) == to_design(old)
    engine.dispose()


def test_opening_again_changes_nothing(tmp_path):
    add(tmp_path, "Ärla")
    add(tmp_path, "Tove")
    assert names(tmp_path) == ["Ärla", "Tove"]


def test_an_error_rolls_everything_back(engine):
    with pytest.raises(ZeroDivisionError), session_of(engine) as session:
        session.add(Customer(name="Gone", search="gone"))
        session.flush()
        _ = 1 / 0
    with Session(engine) as session:
        assert session.exec(select(Customer)).all() == []


def test_foreign_keys_hold(engine):
    with pytest.raises(Exception, match="FOREIGN KEY"), session_of(engine) as session:
        session.connection().exec_driver_sql(
            "INSERT INTO piece (number, design_id, revision_id, started_at, note, search) VALUES ('P1', 99,"
            " 99, '2026-01-01', '', '')"
        )


def test_a_kill_in_the_middle_of_writing_leaves_the_last_saved_state_whole(tmp_path):
    add(tmp_path, "Saved")
    script = textwrap.dedent(f"""
        from lamsik.store.database import connect, session_of
        from lamsik.store.tables import Customer
        from pathlib import Path
        engine = connect(Path({str(tmp_path / FILE_NAME)!r}))
        with session_of(engine) as session:
            for n in range(100000):
                session.add(Customer(name=f"half {{n}}", search="half"))
                if n % 500 == 499:
                    session.flush()
                    print(n, flush=True)
    """)
    with subprocess.Popen([sys.executable, "-c", script], stdout=subprocess.PIPE) as child:
        child.stdout.readline()
        child.stdout.readline()
        os.kill(child.pid, signal.SIGKILL)
        child.wait()
    assert names(tmp_path) == ["Saved"]
    add(tmp_path, "After")
    assert names(tmp_path) == ["Saved", "After"]
    with sqlite3.connect(tmp_path / FILE_NAME) as shop:
        assert shop.execute("PRAGMA integrity_check").fetchone()[0] == "ok"
    shop.close()


def test_a_full_disk_loses_only_the_change_that_did_not_fit(tmp_path):
    add(tmp_path, "Saved")
    engine = connect(tmp_path / FILE_NAME)
    with engine.connect() as connection:
        pages = connection.exec_driver_sql("PRAGMA page_count").scalar()
    with pytest.raises(OperationalError, match="full"), session_of(engine) as session:
        session.connection().exec_driver_sql(f"PRAGMA max_page_count = {pages}")
        for n in range(3000):
            session.add(Customer(name=f"half {n}" * 20, search="half"))
        session.flush()
    engine.dispose()
    assert names(tmp_path) == ["Saved"]


class TestBackup:
    def test_of_a_shop_that_is_being_written(self, tmp_path):
        shop, copy = tmp_path / "shop", tmp_path / "copy.sqlite3"
        add(shop, "Saved")
        engine = connect(shop / FILE_NAME)
        with Session(engine) as session:
            session.add(Customer(name="Unfinished", search="u"))
            session.flush()
            backup(shop, copy)
            session.rollback()
        engine.dispose()
        add(shop, "Later")
        restore(shop, copy)
        assert names(shop) == ["Saved"]

    def test_restore_reaches_an_open_shop_and_keeps_what_was_there(self, tmp_path):
        shop, copy = tmp_path / "shop", tmp_path / "copy.sqlite3"
        add(shop, "First")
        backup(shop, copy)
        engine = open_database(shop)
        with session_of(engine) as session:
            session.add(Customer(name="Second", search="second"))
        kept = restore(shop, copy)
        with Session(engine) as session:
            assert [c.name for c in session.exec(select(Customer)).all()] == ["First"]
        engine.dispose()
        restore(shop, kept)
        assert names(shop) == ["First", "Second"]

    def test_what_is_no_backup_is_refused_and_the_shop_stays(self, tmp_path):
        shop = tmp_path / "shop"
        add(shop, "Saved")
        other = tmp_path / "other.sqlite3"
        with sqlite3.connect(other) as strange:
            strange.execute("CREATE TABLE alembic_version (version_num TEXT)")
            strange.execute("INSERT INTO alembic_version VALUES ('9999')")
        strange.close()
        text = tmp_path / "text.sqlite3"
        text.write_text("just words, no database at all, but long enough to look at" * 20)
        for file, says in (
            (other, "newer program"),
            (text, "not a backup"),
            (tmp_path / "none", "no such file"),
        ):
            with pytest.raises(Refused, match=says):
                restore(shop, file)
        assert names(shop) == ["Saved"]

    def test_what_is_torn_or_lacks_a_table_is_refused_and_what_is_in_it_is_said(self, tmp_path):
        shop, copy = tmp_path / "shop", tmp_path / "odd ?name#1.sqlite3"
        add(shop, "Saved")
        backup(shop, copy)
        assert copy.stat().st_mode & 0o777 == 0o600 and "nothing yet" in look_into(copy).says
        restore(shop, copy)
        assert names(shop) == ["Saved"]
        for statement, says in (
            (
                (
                    "INSERT INTO piece (number, design_id, revision_id, started_at, note, search, cavity)"
                    " VALUES ('P9', 77, 78, '2026-01-01', '', '', '')"
                ),
                "this backup is torn: a row of",
            ),
            ("DROP TABLE thing", "no table"),
        ):
            bad = tmp_path / "bad.sqlite3"
            bad.write_bytes(copy.read_bytes())
            with sqlite3.connect(bad) as hurt:
                hurt.execute(statement)
            hurt.close()
            with pytest.raises(Refused, match=says):
                restore(shop, bad)
        for target, says in ((shop / FILE_NAME, "the shop itself"), (tmp_path, "this is a folder")):
            with pytest.raises(Refused, match=says):
                backup(shop, target)
        assert names(shop) == ["Saved"]

    def test_no_write_that_was_acknowledged_is_lost_while_it_is_put_back(self, tmp_path):
        shop, copy = tmp_path / "shop", tmp_path / "copy.sqlite3"
        add(shop, "First")
        backup(shop, copy)
        engine, done, stop = for_writing(open_database(shop)), [], threading.Event()

        def write():
            number = 0
            while not stop.is_set():
                with Session(engine) as session:
                    session.add(Customer(name=f"W{number}", search="w"))
                    session.commit()
                done.append(f"W{number}")
                number += 1

        writer = threading.Thread(target=write)
        writer.start()
        while len(done) < 5:
            time.sleep(0.01)
        kept = restore(shop, copy)
        stop.set()
        writer.join()
        engine.dispose()
        before, after = tmp_path / "before", set(names(shop))
        before.mkdir()
        kept.replace(before / FILE_NAME)
        assert set(done) <= set(names(before)) | after and "First" in after

    def test_a_restore_that_is_killed_leaves_one_state_or_the_other(self, tmp_path):
        shop, copy = tmp_path / "shop", tmp_path / "copy.sqlite3"
        add(shop, "First")
        backup(shop, copy)
        add(shop, "Second")
        for wait in (0.0, 0.35, 0.5, 0.6, 0.7, 0.8):
            child = subprocess.Popen(
                [
                    sys.executable,
                    "-c",
                    (
                        "from pathlib import Path; from lamsik.store.backup import restore;"
                        f" restore(Path({str(shop)!r}), Path({str(copy)!r}))"
                    ),
                ]
            )
            time.sleep(wait)
            child.kill()
            child.wait()
            assert names(shop) in (["First", "Second"], ["First"])
        restore(shop, copy)
        assert names(shop) == ["First"]

    def test_a_shop_that_does_not_open_is_put_aside_whole(self, tmp_path):
        shop, copy = tmp_path / "shop", tmp_path / "copy.sqlite3"
        add(shop, "First")
        backup(shop, copy)
        (shop / FILE_NAME).write_bytes(b"no database any more" * 300)
        kept = restore(shop, copy)
        assert names(shop) == ["First"] and kept.read_bytes().startswith(b"no database")

    def test_one_a_day_and_only_so_many(self, tmp_path):
        add(tmp_path, "First")
        begun = datetime.now()
        assert make_daily(tmp_path, lambda: (False, 3), begun) is None
        for day in range(5):
            first = make_daily(tmp_path, lambda: (True, 3), begun + timedelta(days=day))
            os.utime(first, (0, (begun + timedelta(days=day)).timestamp()))
            assert make_daily(tmp_path, lambda: (True, 3), begun + timedelta(days=day, hours=5)) is None
        assert len(made(tmp_path)) == 3

    def test_there_must_be_a_shop_to_back_up(self, tmp_path):
        with pytest.raises(Refused, match="no shop here"):
            backup(tmp_path, tmp_path / "copy")
        assert not (tmp_path / "copy.part").exists()


def test_the_shops_own_file_is_for_its_owners_eyes_only(tmp_path):
    (tmp_path / FILE_NAME).touch(mode=0o644)  # as an earlier version left it
    engine = open_database(tmp_path)
    with engine.begin():
        modes = {path.name: path.stat().st_mode & 0o77 for path in tmp_path.iterdir()}
    engine.dispose()
    assert f"{FILE_NAME}-wal" in modes and not any(modes.values())

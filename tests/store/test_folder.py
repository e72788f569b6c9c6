"""The whole shop out into a folder of open files and in again: number for number, whole or not at all."""

import csv
import json
import lzma
import shutil
from pathlib import Path

import icalendar
import pytest
from sqlmodel import select

from lamsik.store import folder, ledger, pictures
from lamsik.store.database import FILE_NAME, open_database, session_of
from lamsik.store.tables import Customer, Movement, Order, StockItem
from tests.refusing import refusing


def files_of(place):
    return {
        path.relative_to(place).as_posix(): path.read_bytes()
        for path in place.rglob("*")
        if path.is_file() and path.name != folder.MANIFEST
    }


def out(home, place):
    engine = open_database(home)
    with session_of(engine) as session:
        folder.export(session, place, lambda row: f"PDF of {row.number}".encode())
    engine.dispose()
    return place


@pytest.fixture
def taken(demo_home, tmp_path):
    engine = open_database(demo_home)
    with session_of(engine) as session:
        customer = session.exec(select(Customer)).first()
        customer.name, customer.facts = '"Ø", \\N;\n2', {"note": ""}
        item = session.exec(select(StockItem)).first()
        ledger.move(session, item, ledger.BOUGHT, 0.1 + 0.2, note="\\N")
        session.add_all([customer])
    engine.dispose()
    pictures.put(demo_home, b"a picture")
    return out(demo_home, tmp_path / "out")


def test_out_in_and_out_again_is_the_same_to_the_last_byte(taken, demo_home, tmp_path):
    said = []
    count = folder.bring(taken, tmp_path / "shop", lambda share, says: said.append((share, says)))
    assert count > 3000 and said[-1][0] == 1.0 and len(said) > 30
    again = out(tmp_path / "shop", tmp_path / "again")
    assert files_of(again) == files_of(taken)
    engine = open_database(tmp_path / "shop")
    with session_of(engine) as session:
        assert session.exec(select(Customer)).first().name == '"Ø", \\N;\n2'
        row = session.exec(select(Movement).where(Movement.note == "\\N")).one()
        assert row.amount == 0.1 + 0.2
        assert len(session.exec(select(Order)).all()) > 20
    engine.dispose()


def test_each_table_document_picture_is_there_and_what_is_due_is_a_calendar(taken):
    manifest = json.loads((taken / folder.MANIFEST).read_text())
    assert set(manifest["files"]) == set(files_of(taken))
    with (taken / "tables/movement.csv").open(newline="") as lines:
        rows = list(csv.DictReader(lines))
    assert {"id", "item_id", "amount", "why"} <= set(rows[0]) and len(rows) > 30
    assert json.loads((taken / "documents/body/B-001.json").read_text())["format"] == "lamsik-body"
    events = icalendar.Calendar.from_ical((taken / folder.DUE).read_bytes()).walk("VEVENT")
    assert len(events) >= 4 and all(event["dtstart"].dt.year >= 2026 for event in events)
    assert any(str(event["summary"]).startswith("A00") for event in events)


@pytest.mark.parametrize(
    ("spoil", "says"),
    [
        (lambda place: (place / "tables/piece.csv").unlink(), "this one is missing"),
        (lambda place: (place / "tables/piece.csv").write_text("id\n1\n"), "this one was changed since"),
        (lambda place: (place / folder.MANIFEST).write_text("[]"), "a whole shop"),
        (lambda place: (place / folder.MANIFEST).unlink(), "a whole shop"),
        (lambda place: shutil.rmtree(place / "pictures"), "this one is missing"),
    ],
)
def test_half_a_folder_is_refused_and_nothing_is_there(taken, tmp_path, spoil, says):
    spoil(taken)
    with refusing(says):
        folder.bring(taken, tmp_path / "shop")
    assert not (tmp_path / "shop").exists() and not (tmp_path / "shop.half").exists()


def rewritten(place, name, text):
    """A file of the folder with another content, its digest with it."""
    (place / name).write_text(text)
    manifest = json.loads((place / folder.MANIFEST).read_text())
    digest = folder.sha256((place / name).read_bytes()).hexdigest()
    manifest["files"][name]["sha256"] = digest
    (place / folder.MANIFEST).write_text(json.dumps(manifest))


@pytest.mark.parametrize(
    ("name", "text", "says"),
    [
        ("tables/drill.csv", "id,size\n1,2\n", "the columns"),
        ("tables/payment.csv", None, "rows that name what is there"),
    ],
)
def test_a_folder_that_was_written_by_hand_is_looked_through(taken, tmp_path, name, text, says):
    if text is None:
        head = (taken / name).read_text().splitlines()[0]
        values = {"typed": "{}", "id": "1", "order_id": "9999", "paid_on": "2027-01-01", "minor": "5"}
        text = head + "\n" + ",".join(values.get(one, "") for one in head.split(",")) + "\n"
    rewritten(taken, name, text)
    with refusing(says):
        folder.bring(taken, tmp_path / "shop")
    assert not (tmp_path / "shop").exists()


def test_a_later_version_a_full_place_and_a_shop_that_is_there_are_refused(taken, demo_home, tmp_path):
    manifest = json.loads((taken / folder.MANIFEST).read_text())
    (taken / folder.MANIFEST).write_text(json.dumps({**manifest, "schema": "9999"}))
    with refusing("of this version or earlier"):
        folder.bring(taken, tmp_path / "shop")
    with refusing("an empty place"):
        folder.bring(taken, demo_home)
    with refusing("an empty folder"):
        out(demo_home, taken)


def test_a_file_outside_the_folder_is_not_read(taken, tmp_path):
    manifest = json.loads((taken / folder.MANIFEST).read_text())
    manifest["files"]["../secret"] = {"sha256": "0", "bytes": 1}
    (taken / folder.MANIFEST).write_text(json.dumps(manifest))
    with refusing("a file of that folder"):
        folder.bring(taken, tmp_path / "shop")


def test_the_shop_of_an_earlier_release_goes_out_and_in_as_well(tmp_path):
    case = Path(__file__).parent.parent / "cases/shop-0.5.0.sqlite3.xz"
    home = tmp_path / "old"
    home.mkdir()
    (home / FILE_NAME).write_bytes(lzma.decompress(case.read_bytes()))
    first = out(home, tmp_path / "one")
    folder.bring(first, tmp_path / "shop")
    assert files_of(out(tmp_path / "shop", tmp_path / "two")) == files_of(first)

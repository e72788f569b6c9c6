"""A fresh shop for each test that asks for one; the demo shop is built once and copied."""

import gc
import json
import os
import shutil
from collections.abc import Sequence
from pathlib import Path

import pytest
from hypothesis import settings
from sqlmodel import Session

from lamsik.core.errors import Refused
from lamsik.core.findings import Finding
from lamsik.store import pictures
from lamsik.store.database import FILE_NAME, for_writing, open_database
from lamsik.words import refusals
from lamsik.words.tell import tell
from tests.shares import shared_out
from tests.shops import begun, blank, stocked
from tests.started import start_demo
from tests.until import until


def _unsaid(what: Finding) -> str:
    raise AssertionError(f"{what!r} reached people as a program's text: `words.tell` says it")


Refused.__str__ = refusals.line  # what a test matches is what people read
Finding.__str__ = _unsaid
Finding.__contains__ = lambda what, text: text in tell(what)
settings.register_profile("any machine", deadline=None)  # a busy machine is slow, not wrong
settings.load_profile("any machine")


def sampled(rows: Sequence, one_in: int) -> list:
    """Parameters of which the suite runs one in so many; the others are for `make proof`."""
    return [
        row if at % one_in == 0 else pytest.param(row, marks=pytest.mark.proof) for at, row in enumerate(rows)
    ]


@pytest.hookimpl(trylast=True)
def pytest_collection_modifyitems(items: list[pytest.Item]) -> None:
    workers = int(os.environ.get("PYTEST_XDIST_WORKER_COUNT", "1"))
    if workers > 1:
        order = shared_out([item.nodeid for item in items], workers)
        assert sorted(order) == list(range(len(items))), "a test would not be run, or twice"
        items[:] = [items[n] for n in order]


def pytest_collection_finish() -> None:
    """What was imported to collect the tests stays for good: it is not gone through for rubbish again; what
    tests leave is, less often.
    """
    gc.collect()
    gc.freeze()
    gc.set_threshold(20_000, 20, 100)


@pytest.fixture(scope="session")
def demo_started(tmp_path_factory, worker_id) -> dict:
    """The demo, started once by whichever worker asks first, the others wait: what it said, and its file."""
    base = tmp_path_factory.getbasetemp()
    folder = (base if worker_id == "master" else base.parent) / "demo-shop"
    told = folder / "told.json"
    try:
        folder.mkdir()
    except FileExistsError:
        until(told.exists, every_s=0.1)
    else:
        found = start_demo(folder / "shop")
        (folder / "part").write_text(json.dumps(found))
        (folder / "part").rename(told)
    return {**json.loads(told.read_text()), "file": folder / "shop" / FILE_NAME}


@pytest.fixture(scope="session")
def demo_file(demo_started) -> Path:
    """The demo shop's database, its pictures beside it."""
    return demo_started["file"]


@pytest.fixture
def demo_home(demo_file, tmp_path) -> Path:
    home = tmp_path / "demo"
    home.mkdir()
    lay(demo_file, home)
    return home


def lay(demo_file: Path, home: Path) -> None:
    """The demo shop with its pictures into a folder."""
    shutil.copy(demo_file, home / FILE_NAME)
    shutil.copytree(demo_file.parent / pictures.FOLDER, home / pictures.FOLDER, dirs_exist_ok=True)


@pytest.fixture
def stocked_home(tmp_path) -> Path:
    return begun(tmp_path / "stocked", stocked)


@pytest.fixture
def engine(tmp_path, request):
    file = stocked if "session" in request.fixturenames else blank
    engine = open_database(begun(tmp_path / "shop", file))
    yield engine
    engine.dispose()


@pytest.fixture
def session(engine):
    """One that writes, in a shop with what one starts with."""
    with Session(for_writing(engine), expire_on_commit=False) as session:
        yield session

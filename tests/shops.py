"""Shops to begin with, made once for a run's worker: bringing one up to the newest shape takes longer than
most tests.
"""

import tempfile
from collections.abc import Callable
from functools import cache
from pathlib import Path

from sqlalchemy import Engine, event
from sqlmodel import Session

from lamsik.store.database import FILE_NAME, open_database, session_of
from lamsik.store.starter import stock


@cache
def blank() -> bytes:
    """The file of a shop with nothing in it."""
    return _made(lambda _: None)


@cache
def stocked() -> bytes:
    """That of a shop with what one starts with."""
    return _made(stock)


def begun(folder: Path, file: Callable[[], bytes] = blank) -> Path:
    """A folder with such a shop in it, if it has none yet."""
    folder.mkdir(parents=True, exist_ok=True)
    if not (folder / FILE_NAME).exists():
        (folder / FILE_NAME).write_bytes(file())
    return folder


def _made(fill: Callable[[Session], None]) -> bytes:
    with tempfile.TemporaryDirectory() as folder:
        engine = open_database(Path(folder))
        with session_of(engine) as session:
            fill(session)
        closed(engine)
        return (Path(folder) / FILE_NAME).read_bytes()


def closed(engine: Engine) -> None:
    """Let go of a database, all of it in its one file."""
    with engine.connect() as connection:
        connection.exec_driver_sql("PRAGMA wal_checkpoint(TRUNCATE)")
    engine.dispose()


def movable(engine: Engine) -> None:
    """An engine that can be moved: it keeps its questions to the database, which take longer to put into
    words than most answers.
    """

    @event.listens_for(engine, "do_connect")
    def _where_it_is(_dialect, _record, words, _named):
        words[0] = engine.url.database


def moved(engine: Engine, to: Path) -> Engine:
    """The same on another database."""
    engine.dispose()
    engine.url = engine.url.set(database=str(to))
    return engine

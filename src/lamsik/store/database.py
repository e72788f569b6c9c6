"""Opening the shop's database: SQLite in WAL with foreign keys, migrated to the newest shape."""

from collections.abc import Iterator
from contextlib import contextmanager, suppress
from functools import cache
from pathlib import Path
from typing import Any

from alembic import command
from alembic.config import Config
from alembic.runtime.migration import MigrationContext
from alembic.script import ScriptDirectory
from sqlalchemy import Connection, Engine, event
from sqlalchemy.exc import IntegrityError
from sqlmodel import Session, create_engine, text

from lamsik.store import paint_stock, stands, stocked  # noqa: F401 (it listens)

MIGRATIONS = Path(__file__).parent / "migrations"
FILE_NAME = "shop.sqlite3"


def open_database(folder: Path) -> Engine:
    """The engine of the shop in `folder`, created or migrated as needed."""
    folder.mkdir(parents=True, exist_ok=True)
    (folder / FILE_NAME).touch(mode=0o600)
    with suppress(PermissionError):  # another's file, shared on purpose
        (folder / FILE_NAME).chmod(0o600)  # what lies beside it takes after it
    engine = connect(folder / FILE_NAME)
    migrate(engine)
    stands.keep_true(engine)
    paint_stock.keep_true(engine)
    return engine


def connect(path: Path) -> Engine:
    """An engine on a database file, as it is."""
    engine = create_engine(f"sqlite:///{path}", connect_args={"timeout": 15})

    @event.listens_for(engine, "connect")
    def _prepare(connection: Any, _record: Any) -> None:
        connection.isolation_level = (
            None  # transactions begin below, so that migrations are whole or not at all
        )
        cursor = connection.cursor()
        cursor.execute("PRAGMA journal_mode = WAL")
        cursor.execute("PRAGMA synchronous = FULL")
        cursor.execute("PRAGMA foreign_keys = ON")
        cursor.close()

    @event.listens_for(engine, "begin")
    def _begin(connection: Connection) -> None:
        immediate = connection.get_execution_options().get("immediate")
        connection.exec_driver_sql("BEGIN IMMEDIATE" if immediate else "BEGIN")

    return engine


def for_writing(engine: Engine) -> Engine:
    """The engine with transactions that take the write lock at once: no reader turns writer half-way and
    fails.
    """
    return engine.execution_options(immediate=True)


def at_revision(folder: Path, revision: str) -> None:
    """A new database with the tables of a revision, and nothing in them."""
    folder.mkdir(parents=True, exist_ok=True)
    engine = connect(folder / FILE_NAME)
    migrate(engine, revision)
    engine.dispose()


def migrate(engine: Engine, to: str = "head") -> None:
    """Bring the database to the newest revision (or another), in one transaction for each step.

    A table that is made anew is dropped for a moment: what names its rows would count as naming nothing.
    So that is looked at once at the end instead.

    Raises:
        IntegrityError: something names a row that is not there; nothing was changed then.
    """
    config = _config()
    with engine.connect() as connection:
        was = MigrationContext.configure(connection).get_current_revision()
        connection.rollback()
        if was == newest_revision():
            return
        driver: Any = connection.connection.dbapi_connection
        driver.execute("PRAGMA foreign_keys = OFF")  # within a transaction this is not heard
        try:
            with connection.begin():
                config.attributes["connection"] = connection
                command.upgrade(config, to)
                _names_what_is_there(connection)
        finally:
            driver.execute("PRAGMA foreign_keys = ON")


def _names_what_is_there(connection: Connection) -> None:
    lost = connection.exec_driver_sql("PRAGMA foreign_key_check").fetchall()
    if lost:
        raise IntegrityError(
            f"{len(lost)} rows name what is not there, first {tuple(lost[0])}", None, OSError()
        )


def _config() -> Config:
    config = Config()
    config.set_main_option("script_location", str(MIGRATIONS))
    return config


@cache
def newest_revision() -> str:
    """The revision this program writes."""
    return str(ScriptDirectory.from_config(_config()).get_current_head())


def is_current(engine: Engine) -> bool:
    """Whether the database answers and has the newest shape."""
    with engine.connect() as connection:
        connection.execute(text("SELECT 1"))
        return MigrationContext.configure(connection).get_current_revision() == newest_revision()


@contextmanager
def session_of(engine: Engine) -> Iterator[Session]:
    """A session that commits at the end and rolls back on any error."""
    with Session(for_writing(engine), expire_on_commit=False) as session:
        try:
            yield session
            session.commit()
        except BaseException:
            session.rollback()
            raise

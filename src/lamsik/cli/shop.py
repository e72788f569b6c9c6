"""What the commands of a shop do: start it on its own or on demo data, back it up, put a backup in its
place.
"""

import argparse
import json
import os
import shutil
import subprocess
import sys
from collections.abc import Callable, Iterator
from contextlib import AbstractContextManager, contextmanager
from pathlib import Path

from sqlmodel import Session

from lamsik.cli.serve import Door, serve
from lamsik.core.errors import Refused, require
from lamsik.store import folder, mixes
from lamsik.store.backup import backup, look_into, restore
from lamsik.store.database import FILE_NAME, open_database, session_of
from lamsik.store.starter import stock
from lamsik.store.stores import put_setting
from lamsik.store.tables import Paper


def home() -> Path:
    """Where the shop's data lives: LAMSIK_HOME, else ./instance."""
    return Path(os.environ.get("LAMSIK_HOME") or "instance").resolve()


def demo(asked: argparse.Namespace) -> int:
    """Fresh demo data, its simulated scale, and the application on them."""
    from lamsik.demo.shop import build  # noqa: PLC0415 - only the demo needs it

    folder = Path(os.environ.get("LAMSIK_DEMO_HOME") or "instance-demo").resolve()
    if folder.exists() and not (folder / FILE_NAME).exists() and any(folder.iterdir()):
        raise Refused("LAMSIK_DEMO_HOME", str(folder), "a folder of its own: this one holds other files")
    shutil.rmtree(folder, ignore_errors=True)
    print("Building the demo shop …", flush=True)
    with (
        bench_scale() as where,
        simulated("colour_reader") as reader,
        simulated("mail_house") as house,
    ):
        with session_of(open_database(folder)) as session:
            build(session)
            put_setting(session, "scale", {"url": where["scale"], "page": where["page"]})
            put_setting(session, "reader", {"url": reader["reader"], "page": reader["page"]})
            host, _, port = house["mail"].removeprefix("socket://").rpartition(":")
            way = {"host": host, "port": int(port), "security": "none", "sender": "bench@lamsik.example"}
            put_setting(session, "mail", {**way, "user": "", "maildir": house["box"], "page": house["page"]})
        print(f"A simulated bench scale is at {where['page']}", flush=True)
        print(f"A simulated colour reader is at {reader['page']}", flush=True)
        print(f"A simulated mail house is at {house['page']}", flush=True)
        return serve(folder, Door(asked.port, asked.lan, asked.plain, asked.lan_port))


def bench_scale() -> AbstractContextManager[dict[str, str]]:
    """The simulated bench scale."""
    return simulated("bench_scale")


@contextmanager
def simulated(device: str) -> Iterator[dict[str, str]]:
    """A simulated device as a process of its own, ended with this one: where it talks, and its page."""
    process = subprocess.Popen(
        [sys.executable, "-m", f"lamsik.devices.{device}"],
        stdin=subprocess.PIPE,
        stdout=subprocess.PIPE,
        text=True,
    )
    assert process.stdin is not None
    assert process.stdout is not None
    try:
        yield json.loads(process.stdout.readline())
    finally:
        process.stdin.close()
        process.stdout.close()
        process.wait(5)


def run(asked: argparse.Namespace) -> int:
    """The application on the shop's own data, a new shop with its starting stock."""
    engine = open_database(home())
    with session_of(engine) as session:
        stock(session)
        mixes.starter(session)
    engine.dispose()
    return serve(home(), Door(asked.port, asked.lan, asked.plain, asked.lan_port))


def back_up(asked: argparse.Namespace) -> int:
    """The whole shop into a file."""
    backup(home(), asked.file)
    print(f"The shop is saved in {asked.file}")
    return 0


def export(asked: argparse.Namespace) -> int:
    """The whole shop into a folder of open files, its papers as PDF where they can be made."""
    from lamsik.web.app import create_app  # noqa: PLC0415 - papers are pages
    from lamsik.web.orders.papers import pdf_of  # noqa: PLC0415
    from lamsik.web.shared.printing import CannotPrint, pdf  # noqa: PLC0415

    require((home() / FILE_NAME).exists(), "shop", str(home()), "a shop: none is there")
    app = create_app(home())
    with app.test_request_context(), Session(app.extensions["engine"]) as session:
        try:
            pdf("<p></p>")
            papers: Callable[[Paper], bytes] | None = pdf_of
        except CannotPrint as error:
            print(f"Papers stay in their table: {error}")
            papers = None
        count = folder.export(session, asked.file, papers, _told)
    app.extensions["engine"].dispose()
    print(f"{count} files are in {asked.file}")
    return 0


def bring(asked: argparse.Namespace) -> int:
    """A folder of open files as the shop, where none is yet."""
    count = folder.bring(asked.file, home(), _told)
    print(f"The shop of {asked.file} is in {home()}: {count} rows")
    return 0


def _told(share: float, says: str) -> None:
    if sys.stdout.isatty():
        print(f"\r{share:4.0%} {says[:60]:60}", end="", flush=True)


def put_back(asked: argparse.Namespace) -> int:
    """A file in place of the shop; what was there is kept."""
    print(f"In {asked.file}: {look_into(asked.file).says}", flush=True)
    kept = restore(home(), asked.file)
    print(f"The shop is as in {asked.file}" + (f"; what was there before is in {kept}" if kept else ""))
    return 0

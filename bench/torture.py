"""What the suite does in small, for long: `make torture` prints how much was asked of a shop and what was
lost.

Wild requests to every address, writers and restores killed at any moment, many clients at once on a server
that runs.
"""

import argparse
import http.cookiejar
import logging
import random
import re
import shutil
import socket
import sqlite3
import subprocess
import sys
import tempfile
import threading
import time
import urllib.error
import urllib.parse
import urllib.request
from contextlib import closing
from hashlib import sha256
from pathlib import Path

from alembic import command

from lamsik.demo.shop import build
from lamsik.store import pictures
from lamsik.store.backup import backup
from lamsik.store.database import FILE_NAME, _config, connect, open_database, session_of
from lamsik.web.app import create_app
from tests.wild import broken

WRITER = """
import sys
from pathlib import Path
from sqlmodel import Session
from lamsik.store.database import for_writing, open_database
from lamsik.store.tables import Customer
engine = for_writing(open_database(Path(sys.argv[1])))
for number in range(10**6):
    with Session(engine) as session:
        session.add(Customer(name=f"{sys.argv[2]}-{number}", search=""))
        session.commit()
    print(f"{sys.argv[2]}-{number}", flush=True)
"""
RESTORER = (
    "import sys\nfrom pathlib import Path\nfrom lamsik.store.backup import restore\nwhile True:"
    " restore(Path(sys.argv[1]), Path(sys.argv[2]))"
)


def shop(folder: Path) -> Path:
    """The demo shop in a folder."""
    engine = open_database(folder)
    with session_of(engine) as session:
        build(session)
    engine.dispose()
    return folder


def wild(folder: Path, wanted: int) -> str:
    """So many wild requests to every address, and which of them broke something."""
    app, found, sent, seed = create_app(folder), [], 0, 0
    while sent < wanted:
        found += broken(app, 1, seed)
        sent, seed = sent + 2 * len(list(app.url_map.iter_rules())), seed + 1
    return f"about {sent} wild requests: {len(found)} answered with an error of the program {found[:3] or ''}"


def kills(folder: Path, copy: Path, count: int) -> str:
    """Writers and restores killed at any moment, and what was lost of what was acknowledged."""
    dice, acknowledged, torn = random.Random(4), 0, 0
    lost: list[str] = []
    for n in range(count):
        restoring = n % 3 == 2
        words = [RESTORER, str(folder), str(copy)] if restoring else [WRITER, str(folder), f"w{n}"]
        with subprocess.Popen(
            [sys.executable, "-c", *words], stdout=subprocess.PIPE, stderr=subprocess.DEVNULL, text=True
        ) as child:
            time.sleep(1.2 + dice.random() * 1.5)
            child.kill()
            said = [line for line in child.stdout.read().split("\n")[:-1] if line]
        with sqlite3.connect(folder / FILE_NAME) as base:
            torn += (
                base.execute("PRAGMA integrity_check").fetchone()[0] != "ok"
                or base.execute("PRAGMA foreign_key_check").fetchone() is not None
            )
            there = {row[0] for row in base.execute("SELECT name FROM customer")}
        base.close()
        acknowledged += len(said)
        lost += [name for name in said if name not in there]
        for kept in folder.glob("before-restore-*"):
            kept.unlink()
    return f"{count} kills, {acknowledged} acknowledged writes: {len(lost)} lost, {torn} torn databases"


def migrations(folder: Path, count: int) -> str:
    """An earlier version's shop brought up to this one, killed at any moment: it is whole before, after,
    and once it was let finish.
    """
    dice, torn, lost = random.Random(5), 0, 0
    before, once = folder / "before", folder / "once"
    before.mkdir(parents=True)
    engine, config = connect(before / FILE_NAME), _config()
    with engine.begin() as connection:
        config.attributes["connection"] = connection
        command.upgrade(config, "0007")
        for n in range(PHOTOS):
            row = (f"photo {n}", n.to_bytes(4, "little") * 20_000)
            connection.exec_driver_sql(
                "INSERT INTO tracing (name, picture, width_px, height_px, state, at) VALUES (?, ?, 4, 3,"
                " '{}', '2026-01-01')",
                row,
            )
    engine.dispose()
    for _ in range(count):
        shutil.rmtree(once, ignore_errors=True)
        shutil.copytree(before, once)
        with subprocess.Popen(
            [sys.executable, "-c", MIGRATOR, str(once)],
            stdout=subprocess.PIPE,
            stderr=subprocess.DEVNULL,
            text=True,
        ) as child:
            child.stdout.readline()
            time.sleep(dice.random() * 0.8)
            child.kill()
        with closing(sqlite3.connect(once / FILE_NAME)) as base:
            torn += (
                base.execute("PRAGMA integrity_check").fetchone()[0] != "ok"
                or base.execute("SELECT count(*) FROM tracing").fetchone()[0] != PHOTOS
            )
        engine = open_database(once)
        engine.dispose()
        with closing(sqlite3.connect(once / FILE_NAME)) as base:
            for (digest,) in base.execute("SELECT digest FROM tracing"):
                lost += sha256(pictures.get(once, digest)).hexdigest() != digest
    return f"{count} kills of a migration, {PHOTOS} pictures each: {lost} lost, {torn} torn databases"


PHOTOS = 150
MIGRATOR = """
import sys
from pathlib import Path
from lamsik.store.database import open_database
print("ready", flush=True)
open_database(Path(sys.argv[1]))
"""


def clients(folder: Path, many: int, seconds: float) -> str:
    """So many clients at once on a server that runs, and what it could not answer."""
    with socket.socket() as free:
        free.bind(("127.0.0.1", 0))
        port = free.getsockname()[1]
    server = subprocess.Popen(
        [sys.executable, "-m", "lamsik.cli", "run", "--port", str(port)],
        env={"LAMSIK_HOME": str(folder), "PATH": "/usr/bin:/bin"},
        stderr=subprocess.DEVNULL,
    )
    base, told, errors, ends = f"http://127.0.0.1:{port}", [], [], time.monotonic() + seconds + 8
    for _ in range(200):
        try:
            urllib.request.urlopen(f"{base}/healthz", timeout=2).close()
            break
        except OSError:
            time.sleep(0.1)

    def work(number: int) -> None:
        browser = urllib.request.build_opener(urllib.request.HTTPCookieProcessor(http.cookiejar.CookieJar()))
        while time.monotonic() < ends:
            try:
                page = browser.open(f"{base}/orders/new", timeout=60).read().decode()
                fields = dict(re.findall(r'<input type="hidden" name="([\w-]+)" value="([^"]*)"', page))
                name = f"C{number}-{len(told)}-{time.monotonic_ns()}"
                sent = {
                    **fields,
                    "customer": name,
                    "quantity": "1",
                    "form": "slim",
                    "length": "90 mm",
                    "material": "balsa",
                    "scheme": "0",
                    "behaviour": "suspends",
                    "pitch": "0°",
                    "water": "1",
                }
                browser.open(f"{base}/orders/new", urllib.parse.urlencode(sent).encode(), timeout=60).close()
                told.append(name)
            except urllib.error.HTTPError as error:
                errors.append(error.code)
            except OSError as error:
                errors.append(repr(error))

    workers = [threading.Thread(target=work, args=(number,)) for number in range(many)]
    for worker in workers:
        worker.start()
    for worker in workers:
        worker.join()
    server.terminate()
    server.wait()
    with sqlite3.connect(folder / FILE_NAME) as held:
        there = [row[0] for row in held.execute("SELECT name FROM customer WHERE name LIKE 'C%-%'")]
    held.close()
    lost, twice = len(set(told) - set(there)), len(there) - len(set(there))
    return (
        f"{many} clients for {seconds:.0f} s: {len(told)} orders acknowledged, {lost} lost, {twice} twice,"
        f" {len(errors)} errors {errors[:3] or ''}"
    )


def main() -> None:
    """All of it, one after the other."""
    logging.disable(logging.CRITICAL)  # wrong codes by the thousand
    asked = argparse.ArgumentParser()
    for name, standard in (("requests", 20_000), ("kills", 60), ("clients", 20), ("seconds", 300)):
        asked.add_argument(f"--{name}", type=int, default=standard)
    wanted = asked.parse_args()
    work = Path(tempfile.mkdtemp(prefix="lamsik-torture-"))
    try:
        shop(work / "shop")
        backup(work / "shop", work / "copy.sqlite3")
        shutil.copytree(work / "shop", work / "wild")
        print(kills(work / "shop", work / "copy.sqlite3", wanted.kills), flush=True)
        print(migrations(work / "old", wanted.kills // 2), flush=True)
        print(clients(work / "shop", wanted.clients, wanted.seconds), flush=True)
        print(wild(work / "wild", wanted.requests), flush=True)
    finally:
        shutil.rmtree(work)


if __name__ == "__main__":
    main()

"""`lamsik demo` started for real, once for a run of the tests: what it said and showed, and its shop."""

import json
import os
import re
import socket
import subprocess
import sys
import time
from pathlib import Path
from urllib.request import urlopen

from sqlmodel import col, delete, update

from lamsik.store.database import open_database, session_of
from lamsik.store.tables import Person, Setting, now
from tests.until import PATIENCE_S, until


def start_demo(folder: Path) -> dict:
    """What the command said, what its pages showed, and whether its devices ended with it; the shop stays in
    `folder`, without their addresses.
    """
    with socket.socket() as probe:
        probe.bind(("127.0.0.1", 0))
        port = probe.getsockname()[1]
    environment = {**os.environ, "LAMSIK_DEMO_HOME": str(folder), "LAMSIK_PORT": str(port)}
    with subprocess.Popen(
        [sys.executable, "-m", "lamsik.cli", "demo"],
        stdout=subprocess.PIPE,
        stderr=subprocess.DEVNULL,
        text=True,
        env=environment,
    ) as demo:
        said = [demo.stdout.readline() for _ in range(5)]
        address = f"http://127.0.0.1:{port}/"
        with urlopen(f"{address}orders", timeout=PATIENCE_S) as page:
            orders = page.read().decode()
        scale = until(lambda: _live(address), lambda scale: scale["state"] == "reading", every_s=0.1)
        demo.terminate()
    devices = [re.search(r"http://127\.0\.0\.1:\d+/", line)[0] for line in said if "simulated" in line]
    ended = all(_ends(where) for where in devices)
    found = {"address": address, "said": said, "orders": orders, "scale": scale, "ended": ended}
    engine = open_database(folder)
    with session_of(engine) as session:
        session.exec(delete(Setting).where(col(Setting.key).in_(("scale", "reader", "mail"))))
        session.exec(update(Person).values(gone_at=now()))  # no browser is asked who stands at it
    with engine.connect() as connection:
        connection.exec_driver_sql("PRAGMA wal_checkpoint(TRUNCATE)")
    engine.dispose()
    return found


def _live(address: str) -> dict:
    with urlopen(f"{address}scale/live", timeout=PATIENCE_S) as answer:
        return json.load(answer)


def _ends(where: str) -> bool:
    end = time.monotonic() + PATIENCE_S
    while time.monotonic() < end:
        try:
            urlopen(where, timeout=1).close()
        except OSError:
            return True
        time.sleep(0.1)
    return False

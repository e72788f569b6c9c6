"""Start the application: on this machine, and where it is asked for, on the shop's network behind the
encrypted pipe.
"""

import gc
import logging
import socket
import sys
import threading
import time
from dataclasses import dataclass
from datetime import datetime
from pathlib import Path

from sqlalchemy.exc import SQLAlchemyError

from lamsik.core.errors import Refused
from lamsik.store.backup import make_daily
from lamsik.store.database import FILE_NAME, connect, session_of
from lamsik.store.stores import setting

EVERYWHERE, HERE = "0.0.0.0", "127.0.0.1"


@dataclass(frozen=True)
class Door:
    """Where it listens: its port on this machine; tablets of the shop, encrypted on a port of their own or
    plainly on the same.
    """

    port: int
    lan: bool = False
    plain: bool = False
    lan_port: int | None = None


def serve(folder: Path, door: Door) -> int:
    """Start the application and print where it is.

    Raises:
        Refused: a port is taken.
        OSError: the folder cannot be written.
    """
    from waitress import create_server  # noqa: PLC0415 - a backup needs no server

    from lamsik.web.app import create_app  # noqa: PLC0415
    from lamsik.web.lan.certificate import certificate  # noqa: PLC0415
    from lamsik.web.lan.pipe import Pipe  # noqa: PLC0415
    from lamsik.web.security import hosts, lan_addresses  # noqa: PLC0415

    logging.basicConfig(level=logging.INFO, format="%(asctime)s %(levelname)s %(message)s", stream=sys.stderr)
    logging.getLogger("alembic").setLevel(logging.WARNING)
    if not door.lan and (door.plain or door.lan_port):
        raise Refused(
            "door",
            "--plain" if door.plain else "--lan-port",
            "together with --lan only: without it the shop is open on its own machine alone",
        )
    sealed = door.lan and not door.plain
    lan_port = (door.lan_port or door.port + 1) if sealed else door.port
    sockets = [_listener(EVERYWHERE if door.lan and door.plain else HERE, door.port)]
    outside = _listener(EVERYWHERE, lan_port) if sealed else None
    shown = certificate(folder / "door", hosts(lan=True)) if sealed else None
    app = create_app(folder, door.lan, door.port, shown)
    settled_in()
    serving = app.wsgi_app
    if outside and shown:
        sockets.append(_listener(HERE, 0))
        inner = sockets[1].getsockname()
        pipe = Pipe(outside, inner, shown.chain)
        app.wsgi_app = pipe.behind(serving, inner[1])  # type: ignore[method-assign, assignment]
        pipe.start()
    server = create_server(app, sockets=sockets, threads=6)
    threading.Thread(target=_daily, args=(folder,), daemon=True).start()
    print(f"Lamsik is at http://{HERE}:{door.port}/  (data in {folder}; stop with Ctrl C)", flush=True)
    if door.lan:
        app.config["DOORS"] = [f"{address}:{lan_port}" for address in lan_addresses()]
        for address in app.config["DOORS"]:
            print(f"  on the shop's tablets: {address}" + ("" if sealed else "  (not encrypted)"), flush=True)
        print(f"  pairing code: {app.config['PAIRING_CODE']}", flush=True)
    if shown:
        print(
            f"  fingerprint of the shop's certificate, to compare on a tablet:\n    {shown.fingerprint}",
            flush=True,
        )
    server.run()
    return 0


def settled_in() -> None:
    """What is there once all is imported and put together stays for good: going through it for rubbish again
    and again takes a sixth of every drag.
    """
    gc.collect()
    gc.freeze()


def _listener(host: str, port: int) -> socket.socket:
    listener = socket.socket()
    listener.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
    try:
        listener.bind((host, port))
    except (OSError, OverflowError) as error:
        listener.close()
        says = error.strerror if isinstance(error, OSError) else "there is none of that number"
        raise Refused(
            "port", port, f"one that is free and may be used ({says}): --port, --lan-port or LAMSIK_PORT"
        ) from error
    return listener


def _daily(folder: Path) -> None:
    """A backup a day while the shop runs, as it wants it."""

    def plan() -> tuple[bool, int]:
        engine = connect(folder / FILE_NAME)
        with session_of(engine) as session:
            backups = setting(session, "backups")
        engine.dispose()
        return bool(backups["daily"]), int(backups["keep"])

    while True:
        try:
            make_daily(folder, plan, datetime.now())
        except (Refused, SQLAlchemyError, OSError):
            logging.getLogger("lamsik").exception("the daily backup")
        time.sleep(600)

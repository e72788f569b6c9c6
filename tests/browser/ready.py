"""A process with the application already imported and prepared: it forks a server for each shop it is asked
for, by all workers of a run.

Listens at the socket it is given. Reads lines of JSON (home, port, log, more words for the command) and
answers each with the new server's process id; once, a demo shop to look through (`demo`): what is made at the
first visit of a page all servers have then. Ends, and its servers with it, when the last worker has gone.
"""

import gc
import json
import os
import re
import selectors
import shutil
import signal
import socket
import sys
import tempfile
from pathlib import Path
from typing import TextIO

import weasyprint  # noqa: F401 - what is imported late is imported once, here
from flask import Flask
from jinja2 import FileSystemBytecodeCache
from skimage.color import deltaE_ciede2000  # noqa: F401
from sqlalchemy import Engine
from waitress import create_server  # noqa: F401

from lamsik.cli import serve as served  # noqa: F401
from lamsik.cli.main import main
from lamsik.core.paints import light
from lamsik.core.units import convert
from lamsik.formats import photo  # noqa: F401
from lamsik.store import database
from lamsik.web.app import create_app
from lamsik.web.shared import printing
from tests.pages import EVERY
from tests.shops import movable, moved


def prepare() -> Engine:
    """What every server would make for itself: the templates' code, the tables of units and of light, the
    fonts unpacked; and an engine, which keeps what it was asked and opens the shop it is moved to.
    """
    Flask.jinja_options = {"bytecode_cache": FileSystemBytecodeCache()}
    with tempfile.TemporaryDirectory() as folder:
        app = create_app(Path(folder))
        for name in app.jinja_env.list_templates():
            app.jinja_env.get_template(name)
        engine: Engine = app.extensions["engine"]
        engine.dispose()
    convert(1.0, "in", "mm")
    light.observer()
    printing.pdf('<link rel="stylesheet" href="css/print-fonts.css"><p>Fonts</p>')
    movable(engine)
    database.connect = lambda path: moved(engine, path)
    return engine


def look_through(demo: Path) -> None:
    """Every page of a copy of the demo shop, once, with the small pictures on it."""
    with tempfile.TemporaryDirectory() as folder:
        shop = shutil.copytree(demo, Path(folder) / "shop")
        app = create_app(shop)
        visitor = app.test_client()
        cards: dict[str, None] = {}
        for url in dict.fromkeys(url.partition("#")[0] for url in EVERY):
            cards |= dict.fromkeys(re.findall(r"/cards/[^\"' ]+\.svg", visitor.get(url).text))
        for url in cards:
            visitor.get(url)
        app.extensions["engine"].dispose()
    settle_down()


def settle_down() -> None:
    """Nothing of what is here is gone through for rubbish by a server."""
    gc.collect()
    gc.freeze()


def serve(asked: dict) -> int:
    """Become the server of one shop."""
    log = os.open(asked["log"], os.O_WRONLY | os.O_CREAT | os.O_TRUNC)
    os.dup2(log, 1)
    os.dup2(log, 2)
    os.environ["LAMSIK_HOME"] = asked["home"]
    return main(["run", "--port", str(asked["port"]), *asked["words"]])


def answer(asked: dict, looked: set[str]) -> int:
    """Do what a worker asks for; the process id of its server, 0 where it asked for none."""
    if "demo" in asked:
        if not looked:
            looked.add(asked["demo"])
            look_through(Path(asked["demo"]))
        return 0
    pid = os.fork()
    if pid == 0:
        signal.signal(signal.SIGTERM, signal.SIG_DFL)
        os._exit(serve(asked))
    return pid


def heard_out(worker: TextIO, looked: set[str]) -> bool:
    """Answer a worker; whether it is still there."""
    try:
        line = worker.readline()
        if line:
            print(answer(json.loads(line), looked), file=worker, flush=True)
        return bool(line)
    except OSError:  # it was killed: those beside it go on
        return False


def listen(where: str) -> None:
    """Answer all workers until the last has gone, or while none comes for two minutes."""
    looked: set[str] = set()
    with socket.socket(socket.AF_UNIX) as door, selectors.DefaultSelector() as heard:
        door.bind(where)
        door.listen()
        heard.register(door, selectors.EVENT_READ)
        came = False
        while not came or len(heard.get_map()) > 1:
            ready = heard.select(None if came else 120)
            if not ready:
                return
            for key, _ in ready:
                if key.fileobj is door:
                    worker, _ = door.accept()
                    heard.register(worker, selectors.EVENT_READ, worker.makefile("rw"))
                    came = True
                elif not heard_out(key.data, looked):
                    heard.unregister(key.fileobj)


if __name__ == "__main__":
    os.setpgrp()  # with its servers, which end with it
    signal.signal(signal.SIGCHLD, signal.SIG_IGN)  # ended servers are not waited for
    try:
        prepare()
        settle_down()
        listen(sys.argv[1])
    finally:
        shutil.rmtree(Path(sys.argv[1]).parent, ignore_errors=True)
        signal.signal(signal.SIGTERM, signal.SIG_IGN)
        os.killpg(0, signal.SIGTERM)

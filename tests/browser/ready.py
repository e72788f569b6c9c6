"""A process with the application already imported and prepared: it forks a server for each
shop it is asked for.

Reads lines of JSON (home, port, log, more words for the command) and answers each with the new server's
process id; ends, and its servers with it, when its input is closed.
"""

import contextlib
import gc
import json
import os
import signal
import sys
import tempfile
from pathlib import Path

import weasyprint  # noqa: F401 - what is imported late is imported once, here
from flask import Flask
from jinja2 import FileSystemBytecodeCache
from skimage.color import deltaE_ciede2000  # noqa: F401
from waitress import create_server  # noqa: F401

from lamsik.cli import serve as served  # noqa: F401
from lamsik.cli.main import main
from lamsik.core.paints import light
from lamsik.core.units import convert
from lamsik.formats import photo  # noqa: F401
from lamsik.web.app import create_app
from lamsik.web.shared import printing


def prepare() -> None:
    """What every server would make for itself: the templates' code, the tables of units and of light, the
    fonts unpacked.
    """
    Flask.jinja_options = {"bytecode_cache": FileSystemBytecodeCache()}
    with tempfile.TemporaryDirectory() as folder:
        app = create_app(Path(folder))
        for name in app.jinja_env.list_templates():
            app.jinja_env.get_template(name)
        app.extensions["engine"].dispose()
    convert(1.0, "in", "mm")
    light.observer()
    printing.pdf('<link rel="stylesheet" href="css/print-fonts.css"><p>Fonts</p>')


def serve(asked: dict) -> int:
    """Become the server of one shop."""
    log = os.open(asked["log"], os.O_WRONLY | os.O_CREAT | os.O_TRUNC)
    os.dup2(log, 1)
    os.dup2(log, 2)
    os.environ["LAMSIK_HOME"] = asked["home"]
    return main(["run", "--port", str(asked["port"]), *asked["words"]])


if __name__ == "__main__":
    signal.signal(signal.SIGCHLD, signal.SIG_IGN)  # ended servers are not waited for
    prepare()
    gc.collect()
    gc.freeze()
    started = []
    for line in sys.stdin:
        pid = os.fork()
        if pid == 0:
            os._exit(serve(json.loads(line)))
        started.append(pid)
        print(pid, flush=True)
    for pid in started:
        with contextlib.suppress(ProcessLookupError):
            os.kill(pid, signal.SIGTERM)

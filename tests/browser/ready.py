"""A process with the application already imported: it forks a server for each shop it is asked for.

Reads lines of JSON (home, port, log, more words for the command) and answers each with the new server's
process id; ends, and its servers with it, when its input is closed.
"""

import contextlib
import json
import os
import signal
import sys

from waitress import create_server  # noqa: F401 - imported once, here

from lamsik.cli.main import main
from lamsik.web.app import create_app  # noqa: F401 - imported once, here


def serve(asked: dict) -> int:
    """Become the server of one shop."""
    log = os.open(asked["log"], os.O_WRONLY | os.O_CREAT | os.O_TRUNC)
    os.dup2(log, 1)
    os.dup2(log, 2)
    os.environ["LAMSIK_HOME"] = asked["home"]
    return main(["run", "--port", str(asked["port"]), *asked["words"]])


if __name__ == "__main__":
    signal.signal(signal.SIGCHLD, signal.SIG_IGN)  # ended servers are not waited for
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

"""Commands of a shop: start it, back it up, restore it, compute a body file."""

import argparse
import json
import os
import shutil
import subprocess
import sys
from collections.abc import Callable, Iterator, Sequence
from contextlib import contextmanager
from functools import partial
from pathlib import Path
from typing import Any, NoReturn

from lamsik import __version__
from lamsik.cli.calc import calc_body
from lamsik.cli.calc_more import calc_ballast, calc_float, calc_mix, calc_mould, calc_pair
from lamsik.cli.serve import Door, serve
from lamsik.core.errors import Refused
from lamsik.formats.json_text import json_text
from lamsik.store import mixes
from lamsik.store.backup import backup, look_into, restore
from lamsik.store.database import FILE_NAME, open_database, session_of
from lamsik.store.starter import stock
from lamsik.store.stores import put_setting


def main(words: Sequence[str] | None = None) -> int:
    """Run one command; 2 and one line on wrong input."""
    asked = _parser().parse_args(words)
    try:
        return int(asked.run(asked))
    except Refused as error:
        print(f"lamsik: {_short(str(error))}", file=sys.stderr)
        return 2
    except OSError as error:
        print(f"lamsik: {error.strerror or error}: {error.filename or ''}", file=sys.stderr)
        return 2


def _short(text: str) -> str:
    """One line of a length that is read."""
    line = " ".join(text.split())
    return line if len(line) <= MOST_SAID else f"{line[: MOST_SAID // 2]} … {line[-MOST_SAID // 2 :]}"


MOST_SAID = 300


class Parser(argparse.ArgumentParser):
    """Wrong words are answered in one line."""

    def error(self, message: str) -> NoReturn:
        """Say it, and end with status 2."""
        self.exit(2, f"lamsik: {_short(message)}\n")


def _parser() -> argparse.ArgumentParser:
    parser = Parser(prog="lamsik", description="The bench companion of people who make hard baits and floats by hand.")
    parser.add_argument("--version", action="version", version=f"lamsik {__version__}")
    commands = parser.add_subparsers(required=True, metavar="COMMAND")
    for name, says, run in (("demo", "start with fresh demo data", _demo), ("run", "start on the shop's own data", _run)):
        serve = commands.add_parser(name, help=says)
        serve.add_argument("--port", type=_port, default=os.environ.get("LAMSIK_PORT", "5151"))
        serve.add_argument("--lan", action="store_true", help="let tablets of the shop in, encrypted, with a pairing code")
        serve.add_argument("--lan-port", type=_port, help="where the tablets come in (the next port)")
        serve.add_argument("--plain", action="store_true", help="with --lan: without encryption, so that tablets have no camera, clipboard or use without network")
        serve.set_defaults(run=run)
    for name, says, work in (
        ("backup", "write the whole shop to FILE, also while it runs", _backup),
        ("restore", "put the shop in FILE in place of this one", _restore),
    ):
        keep = commands.add_parser(name, help=says)
        keep.add_argument("file", type=Path)
        keep.set_defaults(run=work)
    calc = commands.add_parser("calc", help="compute a file and print JSON").add_subparsers(required=True, metavar="WHAT")
    body = calc.add_parser("body", help="what the Tank shows for a body document")
    body.add_argument("file", type=Input)
    body.set_defaults(run=lambda asked: _print(calc_body(asked.file)))
    ballast = calc.add_parser("ballast", help="buildable ballast for the want of a body document, best first")
    ballast.add_argument("file", type=Input)
    ballast.add_argument("--stock", type=Input, help="a stock file; without one the stock a new shop begins with")
    ballast.set_defaults(run=lambda asked: _print(calc_ballast(asked.file, asked.stock)))
    for name, says, reckon in (
        ("float", "what a float document carries to each mark", calc_float),
        ("mould", "what a mould document takes, where air stays, what leans in", calc_mould),
        ("mix", "what a mix file weighs, part by part", calc_mix),
        ("pair", "a float and a load, to each mark and in each water", calc_pair),
    ):
        one = calc.add_parser(name, help=says)
        one.add_argument("file", type=Input)
        one.set_defaults(run=partial(_reckoned, reckon))
    return parser


def _port(text: str) -> int:
    """A port that a server may have."""
    if not (text.isascii() and text.isdigit() and 0 < int(text[:6]) < 65536):
        raise argparse.ArgumentTypeError(f"{text!r} is no port: a whole number from 1 to 65535 is (--port, or LAMSIK_PORT)")
    return int(text)


class Input(type(Path())):  # type: ignore[misc]
    """A file that is read; `-` is what comes in."""

    def read_bytes(self) -> bytes:
        """All of it."""
        return sys.stdin.buffer.read() if str(self) == "-" else super().read_bytes()


def _print(found: dict[str, Any]) -> int:
    print(json_text(found), end="")
    return 0


def _reckoned(reckon: Callable[[Path], dict[str, Any]], asked: argparse.Namespace) -> int:
    return _print(reckon(asked.file))


def home() -> Path:
    """Where the shop's data lives: LAMSIK_HOME, else ./instance."""
    return Path(os.environ.get("LAMSIK_HOME") or "instance").resolve()


def _demo(asked: argparse.Namespace) -> int:
    from lamsik.demo.shop import build  # noqa: PLC0415 - only the demo needs it

    folder = Path(os.environ.get("LAMSIK_DEMO_HOME") or "instance-demo").resolve()
    if folder.exists() and not (folder / FILE_NAME).exists() and any(folder.iterdir()):
        raise Refused("LAMSIK_DEMO_HOME", str(folder), "a folder of its own: this one holds other files")
    shutil.rmtree(folder, ignore_errors=True)
    print("Building the demo shop …", flush=True)
    with bench_scale() as where:
        with session_of(open_database(folder)) as session:
            build(session)
            put_setting(session, "scale", {"url": where["scale"], "page": where["page"]})
        print(f"A simulated bench scale is at {where['page']}", flush=True)
        return serve(folder, Door(asked.port, asked.lan, asked.plain, asked.lan_port))


@contextmanager
def bench_scale() -> Iterator[dict[str, str]]:
    """The simulated bench scale as a process of its own, ended with this one."""
    process = subprocess.Popen([sys.executable, "-m", "lamsik.devices.bench_scale"], stdin=subprocess.PIPE, stdout=subprocess.PIPE, text=True)
    assert process.stdin is not None
    assert process.stdout is not None
    try:
        yield json.loads(process.stdout.readline())
    finally:
        process.stdin.close()
        process.stdout.close()
        process.wait(5)


def _run(asked: argparse.Namespace) -> int:
    engine = open_database(home())
    with session_of(engine) as session:
        stock(session)
        mixes.starter(session)
    engine.dispose()
    return serve(home(), Door(asked.port, asked.lan, asked.plain, asked.lan_port))


def _backup(asked: argparse.Namespace) -> int:
    backup(home(), asked.file)
    print(f"The shop is saved in {asked.file}")
    return 0


def _restore(asked: argparse.Namespace) -> int:
    print(f"In {asked.file}: {look_into(asked.file).says}", flush=True)
    kept = restore(home(), asked.file)
    print(f"The shop is as in {asked.file}" + (f"; what was there before is in {kept}" if kept else ""))
    return 0

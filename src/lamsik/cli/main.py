"""Commands of a shop: start it, back it up, restore it, compute a body file."""

import argparse
import os
import sys
from collections.abc import Sequence
from importlib import import_module
from pathlib import Path
from typing import Any, NoReturn

from lamsik import __version__
from lamsik.core.errors import Refused


def main(words: Sequence[str] | None = None) -> int:
    """Run one command; 2 and one line on wrong input."""
    asked = _parser().parse_args(words)
    try:
        return int(_work_of(asked.run)(asked))
    except Refused as error:
        line: str = import_module("lamsik.words.refusals").line(error)
        print(f"lamsik: {_short(line)}", file=sys.stderr)
        return 2
    except OSError as error:
        print(f"lamsik: {error.strerror or error}: {error.filename or ''}", file=sys.stderr)
        return 2


def _work_of(named: str) -> Any:
    """What a command does, loaded only now: who asks for help waits for no computation to be loaded."""
    module, name = named.split(":")
    return getattr(import_module(f"lamsik.cli.{module}"), name)


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
    parser = Parser(
        prog="lamsik", description="The bench companion of people who make hard baits and floats by hand."
    )
    parser.add_argument("--version", action="version", version=f"lamsik {__version__}")
    commands = parser.add_subparsers(required=True, metavar="COMMAND")
    for name, says, run in (
        ("demo", "start with fresh demo data", "shop:demo"),
        ("run", "start on the shop's own data", "shop:run"),
    ):
        serve = commands.add_parser(name, help=says)
        serve.add_argument("--port", type=_port, default=os.environ.get("LAMSIK_PORT", "5151"))
        serve.add_argument(
            "--lan", action="store_true", help="let tablets of the shop in, encrypted, with a pairing code"
        )
        serve.add_argument("--lan-port", type=_port, help="where the tablets come in (the next port)")
        serve.add_argument(
            "--plain",
            action="store_true",
            help=(
                "with --lan: without encryption, so that tablets have no camera, clipboard or use without"
                " network"
            ),
        )
        serve.set_defaults(run=run)
    for name, says, work in (
        ("backup", "write the whole shop to FILE, also while it runs", "shop:back_up"),
        ("restore", "put the shop in FILE in place of this one", "shop:put_back"),
        ("export", "write the whole shop into FOLDER in open formats", "shop:export"),
        ("import", "make the shop out of FOLDER, where none is yet", "shop:bring"),
    ):
        keep = commands.add_parser(name, help=says)
        keep.add_argument("file", type=Path, metavar="FOLDER" if name in ("export", "import") else "FILE")
        keep.set_defaults(run=work)
    calc = commands.add_parser("calc", help="compute a file and print JSON").add_subparsers(
        required=True, metavar="WHAT"
    )
    body = calc.add_parser("body", help="what the Tank shows for a body document")
    body.add_argument("file", type=Input)
    body.set_defaults(run="reckon:body")
    ballast = calc.add_parser("ballast", help="buildable ballast for the want of a body document, best first")
    ballast.add_argument("file", type=Input)
    ballast.add_argument(
        "--stock", type=Input, help="a stock file; without one the stock a new shop begins with"
    )
    ballast.set_defaults(run="reckon:ballast")
    for name, says, reckon in (
        ("float", "what a float document carries to each mark", "reckon:float_"),
        ("mould", "what a mould document takes, where air stays, what leans in", "reckon:mould"),
        ("match", "recipes for a wanted colour from the paints in its file", "reckon:match"),
        ("stencil", "stencils for the layers of a body, laid flat", "reckon:stencil"),
        ("mix", "what a mix file weighs, part by part", "reckon:mix"),
        ("cost", "what one costs, its price, what the hour earns", "reckon:cost"),
        ("pair", "a float and a load, to each mark and in each water", "reckon:pair"),
    ):
        one = calc.add_parser(name, help=says)
        one.add_argument("file", type=Input)
        one.set_defaults(run=reckon)
    scheme = calc.add_parser("scheme", help="what each layer of a scheme takes of a body, a float or a blade")
    scheme.add_argument("file", type=Input)
    scheme.add_argument("body", type=Input)
    scheme.set_defaults(run="reckon:scheme")
    return parser


def _port(text: str) -> int:
    """A port that a server may have."""
    if not (text.isascii() and text.isdigit() and 0 < int(text[:6]) < 65536):
        raise argparse.ArgumentTypeError(
            f"{text!r} is no port: a whole number from 1 to 65535 is (--port, or LAMSIK_PORT)"
        )
    return int(text)


class Input(type(Path())):  # type: ignore[misc]
    """A file that is read; `-` is what comes in."""

    def read_bytes(self) -> bytes:
        """All of it."""
        return sys.stdin.buffer.read() if str(self) == "-" else super().read_bytes()

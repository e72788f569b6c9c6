"""`lamsik calc`: a file computed and printed as JSON. What each kind of file needs is loaded for that kind
alone.
"""

import argparse
from typing import Any

from lamsik.formats.json_text import json_text


def body(asked: argparse.Namespace) -> int:
    """What the Tank shows for a body document."""
    from lamsik.cli.calc import calc_body  # noqa: PLC0415 - see above

    return _print(calc_body(asked.file))


def ballast(asked: argparse.Namespace) -> int:
    """Buildable ballast for the want of a body document."""
    from lamsik.cli.calc_more import calc_ballast  # noqa: PLC0415

    return _print(calc_ballast(asked.file, asked.stock))


def float_(asked: argparse.Namespace) -> int:
    """What a float document carries to each mark."""
    from lamsik.cli.calc_more import calc_float  # noqa: PLC0415

    return _print(calc_float(asked.file))


def mould(asked: argparse.Namespace) -> int:
    """What a mould document takes."""
    from lamsik.cli.calc_more import calc_mould  # noqa: PLC0415

    return _print(calc_mould(asked.file))


def mix(asked: argparse.Namespace) -> int:
    """What a mix file weighs."""
    from lamsik.cli.calc_more import calc_mix  # noqa: PLC0415

    return _print(calc_mix(asked.file))


def pair(asked: argparse.Namespace) -> int:
    """A float and a load."""
    from lamsik.cli.calc_more import calc_pair  # noqa: PLC0415

    return _print(calc_pair(asked.file))


def match(asked: argparse.Namespace) -> int:
    """Recipes for a wanted colour."""
    from lamsik.cli.calc_match import calc_match  # noqa: PLC0415

    return _print(calc_match(asked.file))


def stencil(asked: argparse.Namespace) -> int:
    """Stencils for the layers of a body."""
    from lamsik.cli.calc_stencil import calc_stencil  # noqa: PLC0415

    return _print(calc_stencil(asked.file))


def scheme(asked: argparse.Namespace) -> int:
    """What each layer of a scheme takes of a body."""
    from lamsik.cli.calc_scheme import calc_scheme  # noqa: PLC0415

    return _print(calc_scheme(asked.file, asked.body))


def cost(asked: argparse.Namespace) -> int:
    """What one of something costs."""
    from lamsik.cli.calc_cost import calc_cost  # noqa: PLC0415

    return _print(calc_cost(asked.file))


def _print(answer: dict[str, Any]) -> int:
    print(json_text(answer), end="")
    return 0

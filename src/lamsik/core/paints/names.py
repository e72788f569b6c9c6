"""Names that are easily taken for one another: near-equal ones are told apart by their codes."""

from collections.abc import Iterable
from difflib import SequenceMatcher

NEAR = 0.8
"""Share of signs two names have alike from which on one is read for the other."""


def read_alike(name: str, others: Iterable[str]) -> list[str]:
    """The other names that are easily read for this one, the nearest first.

    Notes: case and spaces aside; twice the signs that are alike over those of both (Ratcliff and Obershelp).
    """
    plain = _plain(name)
    near = [(SequenceMatcher(None, plain, _plain(one)).ratio(), one) for one in others]
    return [one for ratio, one in sorted(near, key=lambda row: (-row[0], row[1])) if ratio >= NEAR]


def _plain(name: str) -> str:
    return " ".join(name.casefold().split())

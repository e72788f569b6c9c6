"""How much paint a set of pieces takes: ml and whole drops of each paint, in one mix."""

from collections.abc import Sequence
from dataclasses import dataclass
from math import ceil

from lamsik.core.errors import finite_between, require, rule

TRANSFER = {"sprayed": 0.35, "brushed": 0.9, "dipped": 0.95}
"""What of a paint ends up on the body, by how it goes on, until the shop's own figure is known (a guess)."""
LOSS = 0.1
"""What stays in cup and brush, of what is needed, until the shop's own figure is known (a guess)."""


@dataclass(frozen=True)
class Amount:
    """What a mix of a recipe takes.

    Args:
        net_ml: on the bodies and past them, of all pieces [ml].
        gross_ml: with what stays in cup and brush [ml].
        drops: code and whole drops of each paint, its ratio kept.
        mixed_ml: what these drops are together [ml].
    """

    net_ml: float
    gross_ml: float
    drops: tuple[tuple[str, int], ...]
    mixed_ml: float


def wet_ml(dry_film_ml: float, solids_percent: float, transfer: float) -> float:
    """Wet paint for a dry film on one body [ml]: ∫ mask dA × film, over solids and what reaches it."""
    finite_between("transfer", transfer, 0.01, 1.0)
    return dry_film_ml / (solids_percent / 100.0) / transfer


def amount(
    each_ml: float, pieces: int, parts: Sequence[tuple[str, int, float]], loss: float = LOSS
) -> Amount:
    """What a mix for a set takes; parts are code, drops in the ratio and ml of a drop.

    Notes: n pieces take n times one; then the loss is put on, then drops are rounded up, the whole ratio.

    Raises:
        Refused: no piece, no part, a loss that is none.
    """
    require(pieces >= 1 and bool(parts), "pieces", pieces, rule("a-piece"))
    finite_between("loss", loss, 0.0, 3.0)
    net = each_ml * pieces
    gross = net * (1.0 + loss)
    once = sum(count * drop_ml for _, count, drop_ml in parts)
    times = max(ceil(gross / once - 1e-9), 1)
    return Amount(net, gross, tuple((code, count * times) for code, count, _ in parts), once * times)

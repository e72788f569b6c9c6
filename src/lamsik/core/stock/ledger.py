"""The ledger: what there is of an item is the sum of its movements, in whichever order they came."""

from collections.abc import Iterable
from dataclasses import dataclass
from datetime import datetime

from lamsik.core.errors import Refused, finite_between, require, rule
from lamsik.core.quantities import plainly
from lamsik.core.stock.kinds import FINEST, QUANTITIES

BOUGHT, USED, COUNTED = "bought", "used", "counted"
WASTED, RETURNED, CORRECTED = "wasted", "returned", "corrected"
SIGNS = {BOUGHT: 1, USED: -1, WASTED: -1, RETURNED: 1, CORRECTED: 0, COUNTED: 0}
"""Why an amount changes, and which way: more, less, or either."""
LEAST, MOST = 0.001, 999_999.0
"""Less or more than this of anything is a slip."""


@dataclass(frozen=True)
class Change:
    """One change of what there is: so much more, or less (below nothing); why, when, whether it counts."""

    amount: float
    why: str
    at: datetime
    is_undone: bool = False


def left(changes: Iterable[Change]) -> float:
    """What there is: the sum of the changes that count."""
    return sum(one.amount for one in changes if not one.is_undone)


def change(why: str, amount: float, held: float, unit: str) -> float:
    """The signed amount of a change of `amount` for a reason: a count says what is there now.

    Args:
        why: one of `SIGNS`.
        amount: how much, never negative but for a correction; of a count: what was found.
        held: what there is by the books.
        unit: what both are counted in.

    Raises:
        Refused: no reason, no amount, or more than there is.
    """
    if why not in SIGNS:
        raise Refused("why", why, rule("one-of", listed=", ".join(SIGNS)))
    low = -MOST if why == CORRECTED else 0.0 if why == COUNTED else LEAST
    finite_between("amount", amount, low, MOST, "" if QUANTITIES[unit] == "number" else unit)
    if why == COUNTED:
        return amount - held
    signed = amount * (SIGNS[why] or 1)
    if signed < 0 and held + signed < -FINEST:
        raise Refused("amount", amount, rule("only-so-much", left=_said(held, unit)))
    return signed


def _said(held: float, unit: str) -> str:
    return plainly(round(max(held, 0.0), 3), QUANTITIES[unit])


def require_after_count(at: datetime, counted_at: datetime | None) -> None:
    """A count settles what came before it. Raises `Refused` for a change that is dated before the last."""
    if counted_at is not None:
        on = counted_at.date().isoformat()
        require(at >= counted_at, "on", at.date().isoformat(), rule("counted-since", on=on))


def require_undoable(amount: float, held: float, unit: str) -> None:
    """A change can be taken back as long as that leaves something. Raises `Refused` where what it brought is
    used already.
    """
    if held - amount < -FINEST:
        raise Refused("amount", amount, rule("used-since", left=_said(held, unit)))


def used(wanted: float, held: float) -> tuple[float, float]:
    """What work took, and what must have been there beside the books: nothing goes below nothing.

    Returns:
        `(taken, beside)`: the books lose `taken`, after `beside` was added to them.
    """
    return wanted, max(wanted - held, 0.0)

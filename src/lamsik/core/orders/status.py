"""Where an order stands, told from what was agreed and paid and from its pieces; it is never typed."""

from collections.abc import Sequence
from dataclasses import dataclass

from lamsik.core.errors import require, rule
from lamsik.core.route.steps import MAKING, READY, SHIPPED

ENQUIRY, QUOTE, ACCEPTED, CLOSED = "enquiry", "quote", "accepted", "closed"
DECLINED, CANCELLED = "declined", "cancelled"
STATUSES = (ENQUIRY, QUOTE, ACCEPTED, MAKING, READY, SHIPPED, CLOSED)
"""The way of an order that goes well."""
ENDED = (SHIPPED, CLOSED, DECLINED, CANCELLED)
"""Where nothing is left to make."""


@dataclass(frozen=True)
class Agreed:
    """What was agreed of an order, and what was paid.

    Args:
        quoted, accepted, declined, cancelled: whether each was said.
        due_minor: price and shipping in minor units; None where no price was agreed.
        paid_minor: what was paid so far, less what was paid back.
        lent: how many things of the customer's are still here for it.
    """

    quoted: bool = False
    accepted: bool = False
    declined: bool = False
    cancelled: bool = False
    due_minor: int | None = None
    paid_minor: int = 0
    lent: int = 0

    @property
    def open_minor(self) -> int | None:
        """What is still to be paid; below nothing what is to be paid back. None where no price was agreed."""
        return None if self.due_minor is None else self.due_minor - self.paid_minor

    @property
    def owed_minor(self) -> int | None:
        """What of an order that was agreed and holds is still to be paid; None where nothing is."""
        holds = self.accepted and not self.cancelled and not self.declined
        return self.open_minor if holds and (self.open_minor or 0) > 0 else None


Made = tuple[int, Sequence[str]]
"""Of a line: how many pieces are ordered, and how each made for it stands: making, ready or shipped."""


def status(agreed: Agreed, lines: Sequence[Made]) -> str:
    """The order's status.

    Args:
        agreed: what was agreed and paid.
        lines: what is wanted and made of each line.

    Notes: all that was ordered is shipped once every piece is; then it is closed once all is paid and what
        the customer lent went back. What is cancelled or declined stays so, whatever was begun, unless all
        of it went out.
    """
    pieces = [stand for _, its in lines for stand in its]
    whole = bool(pieces) and all(len(its) >= wanted for wanted, its in lines)
    if whole and all(stand == SHIPPED for stand in pieces):
        is_paid = agreed.open_minor is not None and agreed.open_minor <= 0
        return CLOSED if is_paid and not agreed.lent else SHIPPED
    if agreed.cancelled:
        return CANCELLED
    if agreed.declined:
        return DECLINED
    if whole and all(stand in (READY, SHIPPED) for stand in pieces):
        return READY
    if pieces:
        return MAKING
    return ACCEPTED if agreed.accepted else QUOTE if agreed.quoted else ENQUIRY


QUOTES, ACCEPTS, DECLINES, CANCELS, REOPENS = WAYS = ("quote", "accept", "decline", "cancel", "reopen")
"""What can be said of an order; the last takes back what was said last."""


def ways(agreed: Agreed, stand: str) -> tuple[str, ...]:
    """What can be said of an order as it stands."""
    if stand in (SHIPPED, CLOSED):
        return ()
    is_over = agreed.declined or agreed.cancelled
    may = {
        QUOTES: not (agreed.quoted or agreed.accepted or is_over),
        ACCEPTS: not (agreed.accepted or is_over),
        DECLINES: not (agreed.accepted or is_over),
        CANCELS: agreed.accepted and not is_over,
        REOPENS: agreed.quoted or agreed.accepted or is_over,
    }
    return tuple(way for way in WAYS if may[way])


def may_be_said(way: str, agreed: Agreed, stand: str) -> None:
    """Raises `Refused` where an order as it stands cannot be spoken of so."""
    require(way in ways(agreed, stand), "order", stand, rule("not-from-there", way=way))

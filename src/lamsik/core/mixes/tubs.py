"""Tubs of a product: what is left, how old they are, whether they were stirred; and which to draw from."""

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date, datetime, timedelta

from lamsik.core.errors import Refused, finite_between, require, rule
from lamsik.core.findings import Finding, finding
from lamsik.core.quantities import said

STIRRED_FOR_H = 12.0
"""A settled tub stays stirred for about this long [h]."""
SOON_DAYS = 14


@dataclass(frozen=True)
class Tub:
    """A tub of one part: its lot, what is left [g], when it was opened, when it expires, when it was
    stirred.
    """

    key: str
    part: str
    lot: str
    left_g: float
    expires_on: date | None = None
    opened_on: date | None = None
    stirred_at: datetime | None = None


def good_until(tub: Tub, open_days: float) -> date | None:
    """The earlier of the date on the tub and its days once opened."""
    ends = [tub.expires_on] if tub.expires_on else []
    if tub.opened_on:
        ends.append(tub.opened_on + timedelta(days=int(open_days)))
    return min(ends) if ends else None


def remarks(tub: Tub, open_days: float, stir_s: float, at: datetime) -> tuple[Finding, ...]:
    """What to know before drawing from it, in words."""
    remarked, ends = [], good_until(tub, open_days)
    if ends and ends < at.date():
        remarked.append(finding("lot-expired", lot=tub.lot, ends=ends))
    elif ends and (ends - at.date()).days <= SOON_DAYS:
        remarked.append(finding("lot-good-until", lot=tub.lot, ends=ends))
    if stir_s and (tub.stirred_at is None or at - tub.stirred_at > timedelta(hours=STIRRED_FOR_H)):
        remarked.append(finding("lot-settled", part=tub.part, lot=tub.lot, stir=stir_s))
    return tuple(remarked)


def is_expired(tub: Tub, open_days: float, at: date) -> bool:
    """Whether its date or its days once opened have passed."""
    ends = good_until(tub, open_days)
    return ends is not None and ends < at


def choose(tubs: Sequence[Tub], part: str, grams: float, open_days: float, on: date) -> Tub:
    """The tub to draw a part from: a good one with enough in it, the opened and oldest first.

    Raises:
        Refused: no tub of the part, too little in all of them, or only expired ones.
    """
    mine = [tub for tub in tubs if tub.part == part]
    require(bool(mine), part, said(grams, "mass", 1), rule("tub-stores"))
    good = [tub for tub in mine if not is_expired(tub, open_days, on)]
    if not good:
        raise Refused(
            part,
            f"lot {mine[0].lot}",
            rule("expired-test"),
        )
    enough = [tub for tub in good if tub.left_g >= grams - 1e-9]
    if not enough:
        most = max(tub.left_g for tub in good)
        raise Refused(
            part,
            said(grams, "mass", 1),
            rule("fullest-good", most=most, value=grams - most),
        )
    return min(
        enough, key=lambda tub: (tub.opened_on is None, good_until(tub, open_days) or date.max, tub.key)
    )


def drawn(left_g: float, grams: float, what: str) -> float:
    """What is left in a tub after drawing from it [g]. Raises `Refused` instead of going below nothing."""
    finite_between(what, grams, 0.0, 200_000.0, "g")
    require(
        grams <= left_g + 1e-6,
        what,
        said(grams, "mass"),
        rule("only-tub", left_g=left_g),
    )
    return max(left_g - grams, 0.0)

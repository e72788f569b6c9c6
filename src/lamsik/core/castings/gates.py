"""What a mould's own material asks before it is cast in: it has to be out of its master, and for hot
material fully cured.
"""

from dataclasses import dataclass
from datetime import datetime

from lamsik.core.findings import Finding, finding
from lamsik.core.quantities import time_of_day

FREE, ASKS, REFUSED = "free", "asks", "refused"


@dataclass(frozen=True)
class Curing:
    """When the material a mould is of can be demoulded, and when it is fully cured; None where nobody
    noted when it was poured.
    """

    demould_at: datetime | None = None
    cured_at: datetime | None = None


@dataclass(frozen=True)
class Gate:
    """Whether a mould may be cast in now (free, asks, refused), and why not."""

    way: str
    says: Finding | None = None


def gate(curing: Curing, now: datetime, hot: bool) -> Gate:
    """Whether a mould may be cast in.

    Notes: before demould time never; hot material waits for the full cure, cold material asks between the
        two.
    """
    if curing.demould_at is not None and now < curing.demould_at:
        return Gate(REFUSED, finding("mould-not-set", when=when(curing.demould_at, now)))
    if curing.cured_at is None or now >= curing.cured_at:
        return Gate(FREE)
    ends = when(curing.cured_at, now)
    if hot:
        return Gate(REFUSED, finding("hot-waits-for-cure", ends=ends))
    return Gate(
        ASKS,
        finding("mould-not-fully-cured", ends=ends),
    )


def when(at: datetime, now: datetime) -> str:
    """A moment as the bench says it: `05:20`, with its day where that is another one."""
    hour = time_of_day(at)
    return hour if at.date() == now.date() else f"{hour} on {at:%a} {at.day} {at:%b}"

"""A scale as an instrument: step, span, how readings repeat, when and with what it was checked; what it
can tell apart.
"""

from dataclasses import dataclass
from datetime import date
from math import hypot, sqrt

from lamsik.core.errors import finite_between
from lamsik.core.findings import Finding, finding

LEAST_STEPS, CHANGE_STEPS = 5.0, 2.5
"""A scale that is connected is empty below so many of its steps; by so many what lies there must change to be
another reading.
"""
OLD_DAYS = 180
"""A check older than this is said so [days]."""


@dataclass(frozen=True)
class Scale:
    """A scale: step and span [g], one-sigma spread of repeated readings [g], last check and the mass it
    was checked with [g].
    """

    name: str
    step_g: float
    span_g: float
    spread_g: float = 0.0
    checked_on: date | None = None
    checked_g: float | None = None

    def __post_init__(self) -> None:
        finite_between("step_g", self.step_g, 1e-4, 1000.0, "g")
        finite_between("span_g", self.span_g, self.step_g, 1e6, "g")
        finite_between("spread_g", self.spread_g, 0.0, 1000.0, "g")

    @property
    def sd_g(self) -> float:
        """One-sigma uncertainty of one reading [g]: the rounding to a step is uniform, s/√12, added to the
        spread in quadrature.
        """
        return hypot(self.step_g / sqrt(12.0), self.spread_g)


def remarks(scale: Scale, load_g: float, today: date) -> tuple[Finding, ...]:
    """What to know of a reading of this load [g] on this scale, in words; empty where all is well."""
    remarked = []
    if abs(load_g) > scale.span_g:
        remarked.append(finding("scale-ends", scale=scale.name, span=scale.span_g))
    if scale.checked_on is None:
        remarked.append(finding("scale-never-checked", scale=scale.name))
    elif (today - scale.checked_on).days > OLD_DAYS:
        remarked.append(
            finding("scale-checked-long-ago", scale=scale.name, days=(today - scale.checked_on).days)
        )
    if scale.checked_g is not None and scale.checked_g < abs(load_g) / 2 - 1e-9:
        remarked.append(finding("scale-checked-too-light", checked=scale.checked_g, load=abs(load_g)))
    return tuple(remarked)


def can_tell(difference_g: float, sd_g: float) -> bool:
    """Whether a difference [g] is more than twice its own one-sigma uncertainty: below that the scale
    cannot tell.
    """
    return abs(difference_g) > 2.0 * sd_g

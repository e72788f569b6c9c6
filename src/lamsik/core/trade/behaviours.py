"""What a bait does when nothing pulls it: how each is called in a sentence and asked for, and the figure that
stands for it where the maker names no other. A behaviour is one row here.
"""

from collections.abc import Mapping
from dataclasses import dataclass


@dataclass(frozen=True)
class Behaviour:
    """A behaviour.

    Args:
        key: its name in documents and orders.
        does: what a bait of it does.
        should: as a customer asks for it, and as another would with some grams more.
        speed_cm_s: the speed that stands for it, rising is positive [cm/s].
        share_percent: the net lift that stands for it, as a share of the mass [%].
    """

    key: str
    does: str
    should: str
    speed_cm_s: float
    share_percent: float


FLOATS, SLOW_RISE, SUSPENDS, SLOW_SINK, SINKS = "floats", "slow rise", "suspends", "slow sink", "sinks"

_ROWS = (
    Behaviour(FLOATS, "floats", "float", 20.0, 15.0),
    Behaviour(SLOW_RISE, "rises slowly", "rise slowly", 6.0, 2.0),
    Behaviour(SUSPENDS, "suspends", "suspend", 0.0, 0.0),
    Behaviour(SLOW_SINK, "sinks slowly", "sink slowly", -6.0, -2.0),
    Behaviour(SINKS, "sinks", "sink", -20.0, -15.0),
)
BEHAVIOURS: Mapping[str, Behaviour] = {row.key: row for row in _ROWS}
"""By key, from what lifts most to what sinks most."""
USUAL = SLOW_RISE
"""What is asked for where nobody said."""

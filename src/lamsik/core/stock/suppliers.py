"""How long a supplier takes, learned from deliveries."""

from collections.abc import Sequence
from datetime import date
from statistics import fmean, stdev

from lamsik.core.learning import SHOP, TABLE, Learned

USUAL_DAYS = 7.0
"""How long something takes that nobody knows anything of [d] (a guess)."""


def lead_days(deliveries: Sequence[tuple[date, date]], said: int | None = None) -> Learned:
    """How long from order to arrival [d].

    Args:
        deliveries: day ordered and day come; one that came before it was ordered teaches nothing.
        said: what the supplier says.
    """
    days = [float((came - ordered).days) for ordered, came in deliveries if came >= ordered]
    if not days:
        return Learned(float(said) if said is not None else USUAL_DAYS, source=TABLE)
    return Learned(fmean(days), len(days), stdev(days) if len(days) > 1 else None, SHOP)

"""What is said of floats and their families."""

from lamsik.core.floats.inverse import Sizes
from lamsik.core.quantities import plainly
from lamsik.words import refusals

FORMS = {
    "cylinder": "straight",
    "cone": "cone, its point down",
    "ball": "ball",
    "spindle": "spindle, fat in the middle",
    "pear": "pear, fat above",
    "teardrop": "drop, fat below",
    "own": "its own points",
}
"""By the form of a part."""


def missed(sizes: Sizes) -> str:
    """Which loads cannot be met, each with its reason; empty where all can."""
    return " ".join(
        f"{plainly(load, 'mass')} cannot be met: {refusals.allowed(why)}." for load, why in sizes.missed
    )

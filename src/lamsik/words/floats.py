"""What is said of floats and their families."""

from lamsik.core.floats.inverse import Sizes
from lamsik.core.quantities import plainly
from lamsik.words import refusals


def missed(sizes: Sizes) -> str:
    """Which loads cannot be met, each with its reason; empty where all can."""
    return " ".join(
        f"{plainly(load, 'mass')} cannot be met: {refusals.allowed(why)}." for load, why in sizes.missed
    )

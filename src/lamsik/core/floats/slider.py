"""Does this water need a slider? From depth and rod; where the stop goes."""

from dataclasses import dataclass

from lamsik.core.errors import finite_between
from lamsik.core.findings import Finding, finding

CLEAR_M = 0.4
"""A fixed float needs so much of the rod free to be swung in and cast [m]."""


@dataclass(frozen=True)
class SliderAnswer:
    """Whether a slider is needed, the deepest a fixed float fishes with this rod [m], where the stop sits
    over the hook [m], in words.
    """

    needed: bool
    fixed_to_m: float
    stop_m: float
    says: Finding


def slider(depth_m: float, rod_m: float, over_bottom_m: float = 0.0) -> SliderAnswer:
    """From the water's depth and the rod's length [m]; the bait hangs so far over the bottom (minus: it
    lies on).
    """
    finite_between("depth", depth_m, 0.1, 60.0, "m")
    finite_between("rod", rod_m, 0.8, 14.0, "m")
    finite_between("over_the_bottom", over_bottom_m, -2.0, 20.0, "m")
    fixed, stop = rod_m - CLEAR_M, depth_m - over_bottom_m
    if stop <= 0:
        return SliderAnswer(False, fixed, 0.0, finding("bait-over-the-water"))
    if stop > fixed:
        return SliderAnswer(
            True,
            fixed,
            stop,
            finding("slider-needed", rod_m=rod_m, fixed=fixed, stop=stop),
        )
    return SliderAnswer(
        False,
        fixed,
        stop,
        finding("fixed-float-does", stop=stop, fixed=fixed),
    )

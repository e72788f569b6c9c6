"""Does this water need a slider? From depth and rod; where the stop goes."""

from dataclasses import dataclass

from lamsik.core.errors import finite_between
from lamsik.core.quantities import plainly, said

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
    says: str


def slider(depth_m: float, rod_m: float, over_bottom_m: float = 0.0) -> SliderAnswer:
    """From the water's depth and the rod's length [m]; the bait hangs so far over the bottom (minus: it
    lies on).
    """
    finite_between("depth", depth_m, 0.1, 60.0, "m")
    finite_between("rod", rod_m, 0.8, 14.0, "m")
    finite_between("over the bottom", over_bottom_m, -2.0, 20.0, "m")
    fixed, stop = rod_m - CLEAR_M, depth_m - over_bottom_m
    if stop <= 0:
        return SliderAnswer(False, fixed, 0.0, "the bait would hang over the water: less than the depth")
    if stop > fixed:
        return SliderAnswer(
            True,
            fixed,
            stop,
            f"yes: with a {plainly(rod_m, 'distance')} rod a fixed float fishes"
            f" {said(fixed, 'distance')}; put the stop {said(stop, 'distance', 2)} over"
            " the hook",
        )
    return SliderAnswer(
        False,
        fixed,
        stop,
        f"no: a fixed float does, set {said(stop, 'distance', 2)} over the hook; this rod fishes it down"
        f" to {said(fixed, 'distance')}",
    )

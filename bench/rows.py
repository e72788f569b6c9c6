"""A row of the table, and how a call is timed."""

import statistics
import time
from collections.abc import Callable, Sequence
from dataclasses import dataclass, replace


@dataclass(frozen=True)
class Row:
    """One measurement: at most `target` of its unit, or at least where `more` is better.

    A target in ms is for a quiet machine; `pace` is how much slower this one was while the row was measured,
    by the calibration row of the same run, and the target is held against the figure at that pace.
    """

    name: str
    target: float
    figure: float
    unit: str = "ms"
    more: bool = False
    pace: float = 1.0

    def at(self, pace: float) -> "Row":
        """The row as measured at a pace; what is no time has none."""
        return replace(self, pace=pace) if self.unit == "ms" else self

    @property
    def allowed(self) -> float:
        """The target at the pace of the machine."""
        return self.target * self.pace

    @property
    def met(self) -> bool:
        """Whether the target is met."""
        return self.figure >= self.allowed if self.more else self.figure <= self.allowed

    @property
    def target_text(self) -> str:
        """The target with its direction, at the pace of the machine."""
        return f"{'≥' if self.more else '<'} {self.allowed:.3g} {self.unit}"

    @property
    def figure_text(self) -> str:
        """The figure, to a sensible digit."""
        return f"{self.figure:.1f} {self.unit}"


def median_ms(call: Callable[[], object], runs: int = 30, warm: int = 3) -> float:
    """Median time of a call [ms]."""
    return in_turn_ms([call], runs, warm)[0]


def in_turn_ms(calls: Sequence[Callable[[], object]], runs: int = 30, warm: int = 3) -> list[float]:
    """Median time of each call [ms], one after the other again and again: what is compared had the same
    moments of a machine that is now quick and now slow.
    """
    times: list[list[float]] = [[] for _ in calls]
    for turn in range(warm + runs):
        for call, of_call in zip(calls, times, strict=True):
            start = time.perf_counter()
            call()
            if turn >= warm:
                of_call.append(time.perf_counter() - start)
    return [statistics.median(of_call) * 1000 for of_call in times]

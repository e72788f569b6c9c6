"""A row of the table, and how a call is timed."""

import statistics
import time
from collections.abc import Callable
from dataclasses import dataclass


@dataclass(frozen=True)
class Row:
    """One measurement: at most `target` of its unit, or at least where `more` is better."""

    name: str
    target: float
    figure: float
    unit: str = "ms"
    more: bool = False

    @property
    def met(self) -> bool:
        """Whether the target is met."""
        return self.figure >= self.target if self.more else self.figure <= self.target

    @property
    def target_text(self) -> str:
        """The target with its direction."""
        return f"{'≥' if self.more else '<'} {self.target:g} {self.unit}"

    @property
    def figure_text(self) -> str:
        """The figure, to a sensible digit."""
        return f"{self.figure:.1f} {self.unit}"


def median_ms(call: Callable[[], object], runs: int = 30, warm: int = 3) -> float:
    """Median time of a call [ms]."""
    for _ in range(warm):
        call()
    times = []
    for _ in range(runs):
        start = time.perf_counter()
        call()
        times.append(time.perf_counter() - start)
    return statistics.median(times) * 1000

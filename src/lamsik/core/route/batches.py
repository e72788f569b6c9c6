"""Several pieces painted together: their layers as loads, each colour loaded as rarely as it can be."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from lamsik.core.paints.loads import LoadPlan, Task, planned
from lamsik.core.paints.spraying import Cup
from lamsik.core.route.steps import step_kind_of

MIN_IN_H = 60


@dataclass(frozen=True)
class PaintedTogether:
    """Pieces painted together.

    Args:
        plan: the loads in order; tasks name piece and layer by their place in what was asked.
        alone: times that a paint would be loaded piece by piece.
        loads: times that it is loaded together.
    """

    plan: LoadPlan
    alone: int
    loads: int

    @property
    def changes(self) -> int:
        """Changes of colour, each a flush of the brush."""
        return max(self.loads - 1, 0)

    @property
    def saved(self) -> int:
        """Loads saved by painting them together."""
        return self.alone - self.loads


def batched(pieces: Sequence[Sequence[Cup]], minutes: Mapping[str, tuple[float, float]]) -> PaintedTogether:
    """The layers of some pieces as loads.

    Args:
        pieces: the cups of each, those that are still to be done.
        minutes: set-up and each by kind of step [min].
    """
    plan = planned([[_task(cup, minutes) for cup in cups] for cups in pieces])
    alone = sum(cup.needs_cup for cups in pieces for cup in cups)
    loads = sum(1 for load in plan.loads if pieces[load.tasks[0][0]][load.tasks[0][1]].needs_cup)
    return PaintedTogether(plan, alone, loads)


def _task(cup: Cup, minutes: Mapping[str, tuple[float, float]]) -> Task:
    setup, each = minutes[step_kind_of(cup.layer)]
    window = round(cup.window_h * MIN_IN_H) if cup.window_h is not None else None
    wait = round(cup.wait_h * MIN_IN_H)
    return Task(
        cup.paint_key, round(setup), round(each), wait, window if window is None else max(window, wait)
    )

"""What is said of castings: the steps of a guided pour, and what a plan by date does."""

from lamsik.core.castings.pouring import COUNT, CURE, DEMOULD, DONE, GIVEN_UP, POUR, PREPARE, WEIGH
from lamsik.core.castings.throughput import Event

TITLES = {
    PREPARE: "Lay everything out",
    WEIGH: "Weigh and mix",
    POUR: "Pour",
    CURE: "Let it cure",
    DEMOULD: "Demould",
    COUNT: "Count good and bad",
    DONE: "Put away",
    GIVEN_UP: "Dropped",
}
"""By the step of a guided pour."""

_EVENTS = {
    "pour": ("pour half {} of the mould", "pour the mould"),
    "shot": ("shot {}", "purge shot"),
    "demould": ("demould shot {}", "demould the purge"),
}


def event(planned: Event) -> str:
    """What is done: `shot 3`, `pour half 1 of the mould`."""
    numbered, bare = _EVENTS[planned.does]
    return numbered.format(planned.number) if planned.number else bare

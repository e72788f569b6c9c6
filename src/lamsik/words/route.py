"""What is said of the steps on the way of a piece."""

from dataclasses import replace

from lamsik.core.route.steps import Route, Step
from lamsik.words.tell import told

KINDS = {
    "carve": "saw, carve and sand",
    "cut": "cut and sand foam",
    "pour": "demould and trim",
    "print": "clean and sand a print",
    "bend": "cut and bend a blade",
    "seal": "seal",
    "fit": "drill, ballast and hang",
    "assemble": "stem, eye and load of a float",
    "tub": "tub test",
    "prime": "prime",
    "colour": "a colour",
    "stencil": "stencil or net",
    "eyes": "eyes",
    "clear": "a clear",
    "rig": "rings and hooks",
    "swim": "swim test",
    "pack": "photograph and pack",
    "ship": "ship",
}
"""What a kind of step is called."""

CHECKLISTS: dict[str, tuple[str, ...]] = {
    "fit": (
        "Every hole of the map drilled, slugs seated",
        "Tie and hangers in line with the keel",
    ),
    "assemble": (
        "Stem in line with the body",
        "Eye closed, load seated",
    ),
    "eyes": ("Level from the nose and from the back",),
    "rig": (
        "Line ties bare of clear",
        "Pivots and joints free",
        "Contacts bare, where it has any",
    ),
    "pack": (
        "Both sides and the back",
        "Points covered",
    ),
    "tub": (
        "No bubble on it",
        "Hooks and rings as it will be fished",
    ),
    "stencil": ("Both sides mirror",),
    "clear": (
        "No run at the tail",
        "Joints and pivots move",
    ),
}
"""What is looked at before a step of a kind counts as done."""


def told_route(route: Route) -> Route:
    """A route with its steps in words, as it is kept and shown."""
    return tuple(_told(step) for step in route)


def _told(step: Step) -> Step:
    return replace(step, name=str(told(step.name)), says=str(told(step.says)))

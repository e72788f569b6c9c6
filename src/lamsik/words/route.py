"""What is said of the steps on the way of a piece."""

from dataclasses import replace

from lamsik.core.quantities import said
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
    "come": "take in a repaint",
    "key": "key old paint",
    "strip": "strip old paint",
    "mask": "masks on",
    "prime": "prime",
    "colour": "a colour",
    "stencil": "stencil or net",
    "eyes": "eyes",
    "clear": "a clear",
    "rig": "rings and hooks",
    "swim": "swim test",
    "check": "final check",
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


def repaint(old: str, came_g: float | None, bared_g: float | None, cleared_g: float | None) -> str:
    """What a repaint weighed before and after, in words.

    Args:
        old: whether its old paint is kept or stripped.
        came_g, bared_g, cleared_g: as it came, once that was done, and with its new coat [g]; None where it
            was not weighed.
    """
    says = [f"A repaint, its old paint {old}."]
    if came_g is not None:
        says.append(f"It came with {said(came_g, 'mass', 2)}.")
    if came_g is not None and bared_g is not None:
        says.append(f"{said(came_g - bared_g, 'mass', 2)} of it came off.")
    if came_g is not None and cleared_g is not None:
        more = cleared_g - came_g
        way = "heavier" if more > 0 else "lighter"
        says.append(
            f"It is {said(abs(more), 'mass', 2)} {way} than it came: test it in the tub, its float and hang"
            " were made with the old coat."
        )
    return " ".join(says)

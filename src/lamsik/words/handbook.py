"""The words of the trade and of the physics behind it: as the Handbook explains them, and as they open where
they stand on a page.
"""

import re

MEANINGS: dict[str, str] = {
    "Net lift": (
        "What water lifts beyond the bait's own weight, everything under. Above 0 it rises, below it sinks."
    ),
    "Band": "How much heavier or lighter it may turn out and still move slower than the shop's limit.",
    "G": "Centre of gravity: where all weight acts.",
    "B": "Centre of buoyancy: the middle of the water pushed aside. At rest B stands straight above G.",
    "Pitch": "The angle of the body to the water; + is nose up.",
    "List": "The lean to one side at rest; 0 when both sides weigh and float alike.",
    "Roll recovery": (
        "How fast it swings back when it leans, in swings a second: high is steady, low is lively. A "
        "number to compare two baits by."
    ),
    "BG": (
        "How far the centre of buoyancy lies over the centre of gravity under water. More rights it harder."
    ),
    "GM": (
        "Metacentric height of a floater: how far the metacentre lies over the centre of gravity. More "
        "rights it harder."
    ),
    "Metacentre": (
        "The point a slightly heeled floater seems to swing under: where the lines through its centre of "
        "buoyancy cross. Above the centre of gravity it comes back upright."
    ),
    "Righting arm": ("How far apart weight and lift pull at a heel: positive turns the bait back upright."),
    "C_d": (
        "Drag coefficient: how hard water brakes the bait. It is the shop's until you time a rise or a sink."
    ),
    "PSU": (
        "Practical salinity: close to grams of salt in a kilogram of water. Fresh water has 0, a brackish "
        "inlet 5 to 20, the open sea about 35."
    ),
    "One sigma": (
        "The usual spread: two of three sticks, hooks or castings lie within it, nineteen of twenty "
        "within twice it."
    ),
    "Allowance": (
        "Grams set aside for what is not on the drawing yet: you drill for the finished bait, not for the "
        "bare one."
    ),
    "Freeboard": "How far the highest point stands out of the water.",
    "Suspends": ("Moves less than the shop's limit in Stores; a band only a few hundredths of a gram wide."),
    "Recoat window": (
        "After the least wait and before the longest a coat takes the next one; later it wants a light "
        "sanding first."
    ),
    "Pot life": "How long a mixed batch stays thin enough to pour, at its temperature and in its amount.",
    "Parting": (
        "The line where the two halves of a mould meet: all of the body leans away from it on both sides."
    ),
    "Undercut": "Where the body leans back in over the mould and would lock or tear it.",
    "Sprue": "The channel and funnel that the material is poured through; what sets in it is cut off.",
    "Vent": "A thin channel from where air would be caught to the top of the mould.",
    "Lip angle": (
        "Between lip and body axis: small lies along the axis and dives deep, large stands across and "
        "stays shallow."
    ),
    "Assumed / label / weighed": (
        "Where a mass is from: a table or a formula, the maker's label, or your scale."
    ),
}

_FACTS = {
    "Pitch hanging": "Pitch",
    "Pitch afloat": "Pitch",
    "Pitch held": "Pitch",
    "Net pierced": "Net lift",
}
"""Figures that are told by another name than their word."""


def meaning(label: str) -> str:
    """What the word of a figure means, or nothing where the Handbook has no such word."""
    return MEANINGS.get(_FACTS.get(label, label), "")


_NAMED = re.compile(
    "|".join(rf"\b{re.escape(name)}\b" for name in sorted(MEANINGS, key=len, reverse=True) if len(name) > 1)
)


def first_word(text: str) -> tuple[str, int, int] | None:
    """The first word of a text that is explained, with where it begins and ends."""
    match = _NAMED.search(text)
    return (match[0], *match.span()) if match else None

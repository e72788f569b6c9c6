"""Faults of castings: what each looks like, likely causes, remedies."""

from dataclasses import dataclass


@dataclass(frozen=True)
class Fault:
    """A fault: what it looks like, what makes it, what helps."""

    name: str
    causes: str
    remedies: str


FAULTS: dict[str, Fault] = {
    "trapped air": Fault(
        "hole at a high point",
        "air had no way out of a local high point",
        "vent there, or tilt the mould so that the funnel is its highest",
    ),
    "pinholes": Fault(
        "fine holes in the skin",
        "stirred in air, damp, poured from low down in a gush",
        "warm the parts, stir slowly, pour a thin stream from high; brush the face first",
    ),
    "short": Fault(
        "not filled to the end",
        "too little mixed, set off too soon, a neck too narrow",
        "mix more, cool the parts, widen the neck, thin part first with the mould open",
    ),
    "flash": Fault(
        "thick seam",
        "halves not closed evenly, no boards, over-filled",
        "side boards and even bands; clean the parting; fill less",
    ),
    "shift": Fault(
        "halves off each other",
        "keys worn or too shallow, mould set askew",
        "deeper keys, boards on two sides; cut a new half when they are worn",
    ),
    "tacky": Fault(
        "stays soft or sticky",
        "ratio off, not mixed to the bottom, cold, a release that does not agree",
        "weigh again, scrape the cup and stir in a second one, warm it; test the release",
    ),
    "sink": Fault(
        "sunken side", "shrinkage the funnel did not feed", "a larger funnel, cooler pour, more filler"
    ),
    "voids": Fault(
        "large holes inside a foam",
        "too little charge, cream time past when it was closed",
        "more charge, faster closing, warm mould",
    ),
    "overflow": Fault(
        "foam forced out", "too much charge, lid not held", "less charge; clamp the lid; vent holes"
    ),
    "rise": Fault(
        "filler floated up",
        "thin resin, slow set, mould left standing",
        "thicker mix, turn the mould while it sets, less filler",
    ),
    "face": Fault(
        "same flaw in every casting",
        "the mould's own face is hurt",
        "trim every casting there, or mark the cavity dead and cast on without it",
    ),
    "torn": Fault(
        "torn edge of the mould",
        "thin silicone at an undercut, demoulded too soon",
        "more edge; wait for the full cure; split the mould there",
    ),
    "streaks": Fault(
        "streaks of colour",
        "pigment not stirred in, layers too hot or too cold",
        "premix the pigment into one part; pour layers hot on hot or gelled, not between",
    ),
    "burnt": Fault(
        "yellowed, smells sharp",
        "plastisol too hot or heated too often",
        "cooler, shorter; throw reclaimed away after its third heating; air the room at once",
    ),
}
"""Faults by the key of `core.moulds.faults`."""

"""What may touch what: silicones that stop each other from setting, and release between materials."""

from dataclasses import dataclass

from lamsik.core.errors import Refused, rule

STUFFS = (
    "condensation silicone",
    "addition silicone",
    "urethane resin",
    "epoxy",
    "polyester resin",
    "urethane foam",
    "plastisol",
    "sulphur clay",
    "sulphur-free clay",
    "printed resin",
    "wood",
    "sealed wood",
    "plaster",
    "metal",
)
INHIBIT = ("condensation silicone", "sulphur clay", "printed resin")
"""What stops an addition silicone from setting, printed resin unless it is fully cured and sealed."""


@dataclass(frozen=True)
class Touch:
    """Whether they may touch, whether release is needed, in words."""

    may: bool
    release: bool
    says: str


def touch(poured: str, against: str) -> Touch:
    """A material poured against another. Raises `Refused` for one that is not known."""
    for name, value in (("poured", poured), ("against", against)):
        if value not in STUFFS:
            raise Refused(name, value, rule("one-of", listed=", ".join(STUFFS)))
    if poured == "addition silicone" and against in INHIBIT:
        return Touch(
            False,
            False,
            f"addition silicone may stay sticky against {against}: seal it and pour a test patch first",
        )
    if poured == against == "addition silicone" or (
        poured.endswith("silicone") and against.endswith("silicone")
    ):
        return Touch(
            True,
            True,
            "silicone bonds to silicone: release on the first half, every corner, before the second is"
            " poured",
        )
    if against.endswith("silicone"):
        hard = poured in ("polyester resin", "epoxy")
        return Touch(
            True,
            hard,
            f"{poured} comes out of silicone by itself"
            + ("; release lets the mould live longer" if hard else ""),
        )
    if against in ("wood", "plaster"):
        return Touch(True, True, f"{against} soaks it up: seal it, then release")
    return Touch(
        True,
        not poured.endswith("silicone"),
        (
            f"{poured} sticks to {against}: release, in two thin coats"
            if not poured.endswith("silicone")
            else f"it lets go of {against}"
        ),
    )

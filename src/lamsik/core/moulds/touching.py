"""What may touch what: silicones that stop each other from setting, and release between materials."""

from dataclasses import dataclass

from lamsik.core.errors import Refused, rule
from lamsik.core.findings import Finding, finding

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
    says: Finding


def touch(poured: str, against: str) -> Touch:
    """A material poured against another. Raises `Refused` for one that is not known."""
    for name, value in (("poured", poured), ("against", against)):
        if value not in STUFFS:
            raise Refused(name, value, rule("one-of", listed=", ".join(STUFFS)))
    if poured == "addition silicone" and against in INHIBIT:
        return Touch(
            False,
            False,
            finding("may-stay-sticky", against=against),
        )
    if poured == against == "addition silicone" or (
        poured.endswith("silicone") and against.endswith("silicone")
    ):
        return Touch(
            True,
            True,
            finding("silicone-bonds"),
        )
    if against.endswith("silicone"):
        hard = poured in ("polyester resin", "epoxy")
        return Touch(
            True,
            hard,
            finding("comes-out-and-longer" if hard else "comes-out", poured=poured),
        )
    if against in ("wood", "plaster"):
        return Touch(True, True, finding("soaks-it-up", against=against))
    return Touch(
        True,
        not poured.endswith("silicone"),
        (
            finding("sticks-to", poured=poured, against=against)
            if not poured.endswith("silicone")
            else finding("lets-go", against=against)
        ),
    )

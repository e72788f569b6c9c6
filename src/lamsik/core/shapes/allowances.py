"""Allowances: what will be on the finished bait but is not on the drawing yet, budgeted so that drilling
is done once.
"""

from dataclasses import dataclass

from lamsik.core.errors import finite_between, require

PAINT, CLEAR, GLUE, HOOKS, OTHER = "paint", "clear", "glue", "hooks", "other"
KINDS = {
    PAINT: "Paint to come",
    CLEAR: "Clear coat to come",
    GLUE: "Glue to come",
    HOOKS: "Hooks to come",
    OTHER: "Something else",
}
STAGE = {PAINT: "cleared", CLEAR: "cleared", GLUE: "ballasted", HOOKS: "rigged", OTHER: "rigged"}
"""The stage at whose end an allowance is on the piece."""

START_G = {PAINT: 0.4, CLEAR: 0.8, GLUE: 0.3, HOOKS: 1.0, OTHER: 0.5}
"""A first guess for a bait of 90 mm; the maker edits it."""


@dataclass(frozen=True)
class Allowance:
    """Mass [g] ± one sigma [g] set aside for something to come."""

    key: str
    kind: str
    name: str
    mass_g: float
    spread_g: float

    def __post_init__(self) -> None:
        require(self.kind in KINDS, "kind", self.kind, f"one of {', '.join(KINDS)}")
        finite_between("mass_g", self.mass_g, 0.0, 200.0, "g")
        finite_between("spread_g", self.spread_g, 0.0, 100.0, "g")

"""Allowances: what will be on the finished bait but is not on the drawing yet, budgeted so that drilling
is done once.
"""

from dataclasses import dataclass
from typing import Annotated

from lamsik.core.limits import Between, Key, Name, OneOf, held

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

    key: Key
    kind: Annotated[str, OneOf(tuple(KINDS))]
    name: Name
    mass_g: Annotated[float, Between(0, 200, "g", "what is set aside")]
    spread_g: Annotated[float, Between(0, 100, "g", "one sigma")]

    def __post_init__(self) -> None:
        held(self)

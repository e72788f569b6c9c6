"""Joint cuts: planes across the body that take out a kerf and leave segments."""

from dataclasses import dataclass
from math import cos, radians, tan
from typing import Annotated

from lamsik.core.limits import Between, Key, OneOf, held

LINKED, PIN, HINGE = "linked", "pin", "hinge"
JOINT_KINDS = (LINKED, PIN, HINGE)


@dataclass(frozen=True)
class Cut:
    """A plane across the body: it is at x [mm] where z is 0, and leans aft at the top by `slant_deg`."""

    x_mm: float
    slant_deg: float = 0.0

    def at_height(self, z_mm: float) -> float:
        """Where the plane is at a height z, x [mm]."""
        return self.x_mm + z_mm * tan(radians(self.slant_deg))

    def is_ahead(self, x_mm: float, z_mm: float) -> bool:
        """Whether a point lies on the nose side."""
        return x_mm < self.at_height(z_mm)


@dataclass(frozen=True)
class Joint:
    """A joint: where its kerf's middle crosses the axis, slant [°], kerf square to the cut [mm], kind.

    `hinge_mm` is the thickness of a printed hinge.
    """

    key: Key
    x_mm: Annotated[float, Between(0, 600, "mm", "where the kerf's middle crosses the axis")]
    slant_deg: Annotated[float, Between(-60, 60, "°", "lean of the cut, aft at the top")] = 0.0
    kerf_mm: Annotated[float, Between(0, 20, "mm", "kerf, square to the cut")] = 1.2
    kind: Annotated[str, OneOf(JOINT_KINDS)] = LINKED
    hinge_mm: Annotated[float, Between(0.1, 20, "mm", "thickness of a printed hinge")] = 1.2

    def __post_init__(self) -> None:
        held(self, f"joints.{self.key}.")

    @property
    def shares_pitch(self) -> bool:
        """Whether the segments on both sides pitch as one."""
        return self.kind != LINKED

    @property
    def fore_mm(self) -> float:
        """Where the kerf's face towards the nose crosses the body's axis [mm]."""
        return self.x_mm - self._half

    @property
    def aft_mm(self) -> float:
        """Where the kerf's face towards the tail crosses the body's axis [mm]."""
        return self.x_mm + self._half

    @property
    def _half(self) -> float:
        return self.kerf_mm / 2 / cos(radians(self.slant_deg))


FIRST_SHARE, TRIED_ON_SHARE = 0.55, 0.08
"""Where a first cut is tried, and how much further back another, of the body's length."""


def first_joint(length_mm: float) -> Joint:
    """A cut to begin with in a body that has none."""
    return Joint("j1", round(FIRST_SHARE * length_mm, 1))

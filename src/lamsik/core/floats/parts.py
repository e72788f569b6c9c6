"""A float as stacked coaxial parts: solids of revolution and tubes on one axis, foot at z = 0, tip up."""

from dataclasses import dataclass
from functools import lru_cache
from math import pi
from typing import Annotated

import numpy as np
from annotated_types import MaxLen

from lamsik.core.errors import require, rule
from lamsik.core.limits import Between, Key, Name, OneOf, held
from lamsik.core.quantities import plainly
from lamsik.core.shapes.curves import Array

KINDS = ("body", "stem", "antenna", "tip", "bead", "adapter", "loading", "tube")
FORMS = ("cylinder", "cone", "ball", "spindle", "pear", "teardrop", "own")
STEPS = 48
"""Stations a curved profile is drawn and integrated by; a cylinder and a cone are exact with two."""

SHAPES: dict[str, tuple[tuple[float, float], ...]] = {
    "cylinder": ((0.0, 1.0), (1.0, 1.0)),
    "cone": ((0.0, 0.0), (1.0, 1.0)),
    "pear": ((0.0, 0.3), (0.3, 0.55), (0.62, 0.97), (0.72, 1.0), (0.86, 0.82), (1.0, 0.3)),
    "teardrop": ((0.0, 0.3), (0.14, 0.82), (0.28, 1.0), (0.38, 0.97), (0.7, 0.55), (1.0, 0.3)),
    "spindle": ((0.0, 0.3), (0.2, 0.62), (0.4, 0.95), (0.5, 1.0), (0.6, 0.95), (0.8, 0.62), (1.0, 0.3)),
}
"""Standard profiles: (share of the length from below, share of the greatest radius); ball is a formula."""


@dataclass(frozen=True)
class FloatPart:
    """One coaxial part: length, greatest diameter and bore [mm], where its foot is [mm from the float's
    foot], density [g/cm³].

    `points` are a profile of its own, (share of the length, share of the radius). A sealed bore keeps its
    air, an open one floods. A bore is drilled from the top; `wall_mm` is what is left under it at the foot, 0
    where it goes through. `inside` parts lie within another one's bore or body: they have mass and displace
    nothing. A weighed mass wins.
    """

    key: Key
    kind: Annotated[str, OneOf(KINDS)]
    name: Name
    length_mm: Annotated[float, Between(0.5, 1000, "mm")]
    diameter_mm: Annotated[float, Between(0.3, 120, "mm", "greatest diameter")]
    density_g_cm3: Annotated[float, Between(0.01, 20, "g/cm³")]
    foot_mm: Annotated[float, Between(-1000, 1000, "mm", "its foot over the float's")] = 0.0
    bore_mm: Annotated[float, Between(0, 100, "mm", "diameter of its bore")] = 0.0
    form: Annotated[str, OneOf(FORMS)] = "cylinder"
    points: Annotated[tuple[tuple[float, float], ...], MaxLen(40)] = ()
    sealed: bool = True
    inside: bool = False
    mass_g: Annotated[float, Between(0, 500, "g", "as weighed; null as its density")] | None = None
    spread_g_cm3: Annotated[float, Between(0, 20, "g/cm³", "one sigma of its density")] = 0.0
    wall_mm: Annotated[float, Between(0, 1000, "mm", "left under a bore from above; 0 goes through")] = 0.0

    def __post_init__(self) -> None:
        held(self, f"{self.key}.")
        require(
            self.bore_mm < self.diameter_mm,
            f"{self.key}.bore_mm",
            self.bore_mm,
            rule("less-diameter", diameter_mm=self.diameter_mm),
        )
        require(
            self.wall_mm < self.length_mm,
            f"{self.key}.wall_mm",
            plainly(self.wall_mm, "length"),
            rule("less-part", length_mm=self.length_mm),
        )
        if self.form == "own":
            require(2 <= len(self.points) <= 40, f"{self.key}.points", len(self.points), rule("points"))
            shares = [s for s, _ in self.points]
            require(
                shares[0] == 0.0
                and shares[-1] == 1.0
                and all(a < b for a, b in zip(shares, shares[1:], strict=False)),
                f"{self.key}.points",
                shares,
                rule("shares-rise"),
            )
            require(
                all(0.0 <= r <= 1.0 for _, r in self.points) and max(r for _, r in self.points) > 0,
                f"{self.key}.points",
                "radii",
                rule("radii-shares"),
            )

    @property
    def top_mm(self) -> float:
        """Where it ends above [mm from the float's foot]."""
        return self.foot_mm + self.length_mm

    @property
    def bore_deep_mm(self) -> float:
        """How deep its bore is drilled from the top [mm]."""
        return self.length_mm - self.wall_mm


@lru_cache(maxsize=512)
def profile(part: FloatPart) -> tuple[Array, Array]:
    """Heights over the part's foot (n,) [mm] and outer radii there (n,) [mm]: straight between them."""
    if part.form == "ball":
        turn = np.linspace(0.0, np.pi, STEPS + 1)
        return part.length_mm * (1 - np.cos(turn)) / 2, part.diameter_mm / 2 * np.sin(turn)
    rows = np.array(part.points if part.form == "own" else SHAPES[part.form])
    return rows[:, 0] * part.length_mm, rows[:, 1] * part.diameter_mm / 2


def radius_at(part: FloatPart, over_foot_mm: Array) -> Array:
    """Outer radius at heights over the part's foot (n,) [mm]: straight between the points of a profile, a
    ball (an ellipsoid) exactly.
    """
    if part.form == "ball":
        share = np.clip(2 * over_foot_mm / part.length_mm - 1.0, -1.0, 1.0)
        return np.asarray(part.diameter_mm / 2 * np.sqrt(1.0 - share**2))
    return np.asarray(np.interp(over_foot_mm, *profile(part)))


def _frusta(part: FloatPart) -> tuple[Array, Array, Array, Array]:
    """The profile as frusta: lower height, height [mm], lower and upper radius [mm]."""
    z, r = profile(part)
    return z[:-1], np.diff(z), r[:-1], r[1:]


@lru_cache(maxsize=512)
def outer_ml(part: FloatPart) -> float:
    """Outer volume [ml]: frusta πh(a² + ab + b²)/3, the ball (an ellipsoid) exactly."""
    if part.form == "ball":
        return pi * part.diameter_mm**2 * part.length_mm / 6 / 1000.0
    _, h, a, b = _frusta(part)
    return float((np.pi * h * (a * a + a * b + b * b) / 3).sum()) / 1000.0


@lru_cache(maxsize=512)
def bore_ml(part: FloatPart) -> float:
    """Volume of the bore [ml], no wider than the part itself."""
    fine = np.linspace(part.wall_mm, part.length_mm, 401)
    radius = np.minimum(radius_at(part, fine), part.bore_mm / 2)
    return float(np.trapezoid(np.pi * radius**2, fine)) / 1000.0 if part.bore_mm > 0 else 0.0


def mass_g(part: FloatPart) -> float:
    """Mass [g]: weighed, or its material's."""
    return part.mass_g if part.mass_g is not None else part.density_g_cm3 * (outer_ml(part) - bore_ml(part))


@lru_cache(maxsize=512)
def centre_mm(part: FloatPart) -> float:
    """Height of its centre of gravity over the float's foot [mm]; the bore is taken as even along it."""
    if part.form == "ball":
        return part.foot_mm + part.length_mm / 2
    z, h, a, b = _frusta(part)
    volume = h * (a * a + a * b + b * b)
    middle = z + h * (a * a + 2 * a * b + 3 * b * b) / (4 * np.maximum(a * a + a * b + b * b, 1e-12))
    return part.foot_mm + float((volume * middle).sum() / max(volume.sum(), 1e-12))

"""The solid: two outlines and a section, and what it measures at a station."""

from dataclasses import dataclass, replace
from functools import cached_property, lru_cache
from math import radians, tan

import numpy as np

from lamsik.core.errors import finite_between, require, rule
from lamsik.core.findings import finding
from lamsik.core.shapes.curves import Array, Curve, phi_of_share, share_of_phi
from lamsik.core.shapes.joints import Cut, Joint
from lamsik.core.shapes.skins import Skin


@dataclass(frozen=True)
class Body:
    """A body between its outlines; lengths in mm, x from nose (0) to tail, z up.

    `top` and `bottom` are the side profile, `half_width` the plan. A section is two
    half-superellipses |y/a|^n + |z/b|^n = 1 that share the half-width at the widest
    height (middle of the profile unless `widest` says otherwise).

    `joints` cut it into segments, from the nose. A body brought in as a mesh carries it as `skin`: that is
    the solid, and the curves are its outlines as measured.
    """

    length_mm: float
    top: Curve
    bottom: Curve
    half_width: Curve
    upper_exponent: float = 2.0
    lower_exponent: float = 2.0
    widest: Curve | None = None
    joints: tuple[Joint, ...] = ()
    skin: Skin | None = None

    def __post_init__(self) -> None:
        finite_between("length_mm", self.length_mm, 5.0, 600.0, "mm")
        finite_between("upper_exponent", self.upper_exponent, 1.0, 12.0)
        finite_between("lower_exponent", self.lower_exponent, 1.0, 12.0)
        phi = np.linspace(0.0, np.pi, 61)
        require(
            bool(np.all(self.top.at(phi) >= self.bottom.at(phi) - 1e-9)),
            "top",
            finding("top-below-bottom"),
            rule("top-stay"),
        )
        half = self.half_width.at(phi)
        require(bool(np.all(half >= -1e-9)), "half_width", "a negative width", rule("widths"))
        require(
            float(half.max()) > 0.2,
            "half_width",
            "no width",
            rule("pull-plan", value=0.5),
        )
        require(
            float((self.top.at(phi) - self.bottom.at(phi)).max()) > 0.2,
            "top",
            "no depth",
            rule("pull-profile", value=0.5),
        )
        self._check_joints()

    def _check_joints(self) -> None:
        phi = np.linspace(0.0, np.pi, 61)
        heights = (float(self.bottom.at(phi).min()), float(self.top.at(phi).max()))
        for z in heights:
            edges = [0.0, *(cut.at_height(z) for pair in self.cuts for cut in pair), self.length_mm]
            short = [b - a < 1.0 for a, b in zip(edges[::2], edges[1::2], strict=True)]
            at = [joint.x_mm for joint in self.joints]
            require(
                not any(short),
                "joints",
                at,
                rule("cuts-go", value=1.0),
            )

    @property
    def cuts(self) -> tuple[tuple[Cut, Cut], ...]:
        """The faces of each joint, towards the nose and towards the tail."""
        return tuple(
            (leaning(self, joint.fore_mm, joint.slant_deg), leaning(self, joint.aft_mm, joint.slant_deg))
            for joint in self.joints
        )

    def knots(self) -> Array:
        """Sorted station angles φ [rad] at which any of the curves has a point; ends included."""
        curves = [self.top, self.bottom, self.half_width] + ([self.widest] if self.widest else [])
        marks = np.concatenate([[0.0, np.pi], *(curve.knots() for curve in curves)])
        marks = np.sort(marks)
        keep = np.concatenate([[True], np.diff(marks) > 1e-6])
        return np.asarray(marks[keep])

    def widest_at(self, phi: Array) -> Array:
        """Height z [mm] of the widest point at station angles φ [rad]."""
        if self.widest is not None:
            return np.asarray(np.clip(self.widest.at(phi), self.bottom.at(phi), self.top.at(phi)))
        return np.asarray((self.top.at(phi) + self.bottom.at(phi)) / 2)

    def widest_slope(self, phi: Array) -> Array:
        """Derivative of the widest height by φ [mm/rad]."""
        if self.widest is not None:
            return self.widest.slope(phi)
        return (self.top.slope(phi) + self.bottom.slope(phi)) / 2

    @cached_property
    def depth_mm(self) -> float:
        """Greatest height of the block the side pattern needs [mm]."""
        phi = np.linspace(0.0, np.pi, 241)
        return float(self.top.at(phi).max() - self.bottom.at(phi).min())

    @cached_property
    def width_mm(self) -> float:
        """Greatest width [mm]."""
        return float(2 * self.half_width.at(np.linspace(0.0, np.pi, 241)).max())


@lru_cache(maxsize=256)
def uncut(body: Body) -> Body:
    """The body as it was before joints cut it."""
    return replace(body, joints=()) if body.joints else body


@lru_cache(maxsize=1024)
def axis_mm(body: Body) -> float:
    """Height of the body's axis [mm]: the middle of its depth, where a drawing and a mesh brought in are
    the same.
    """
    phi = np.linspace(0.0, np.pi, 241)
    return float(body.top.at(phi).max() + body.bottom.at(phi).min()) / 2


def leaning(body: Body, x_mm: float, slant_deg: float) -> Cut:
    """A face across the body that crosses its axis at x [mm] and leans aft at the top [°]."""
    return Cut(x_mm - axis_mm(body) * tan(radians(slant_deg)) if slant_deg else x_mm, slant_deg)


@dataclass(frozen=True)
class Station:
    """The body at one x: outline heights, widest height and half-width, all [mm]."""

    x_mm: float
    top_mm: float
    bottom_mm: float
    widest_mm: float
    half_width_mm: float

    @property
    def middle_mm(self) -> float:
        """Middle of the profile [mm]."""
        return (self.top_mm + self.bottom_mm) / 2


@lru_cache(maxsize=4096)
def station(body: Body, x_mm: float) -> Station:
    """The body's measures at x [mm] (held to its length)."""
    share = min(max(x_mm / body.length_mm, 0.0), 1.0)
    phi = phi_of_share(np.array([share]))
    top, bottom = float(body.top.at(phi)[0]), float(body.bottom.at(phi)[0])
    return Station(
        x_mm=share * body.length_mm,
        top_mm=top,
        bottom_mm=bottom,
        widest_mm=float(body.widest_at(phi)[0]) if body.widest else (top + bottom) / 2,
        half_width_mm=max(float(body.half_width.at(phi)[0]), 0.0),
    )


def half_width_at_height(body: Body, x_mm: float, z_mm: float) -> float:
    """Half-width [mm] of the section at x at height z; 0 outside the profile."""
    here = station(body, x_mm)
    up = z_mm >= here.widest_mm
    reach = here.top_mm - here.widest_mm if up else here.widest_mm - here.bottom_mm
    exponent = body.upper_exponent if up else body.lower_exponent
    share = abs(z_mm - here.widest_mm) / reach if reach > 1e-9 else 2.0
    return float(here.half_width_mm * (1.0 - share**exponent) ** (1.0 / exponent)) if share < 1.0 else 0.0


def side_outline(body: Body, count: int = 61) -> Array:
    """Closed side outline, (2·count, 2) points (x, z) [mm]: top nose to tail, bottom back."""
    phi = np.linspace(0.0, np.pi, count)
    x = body.length_mm * share_of_phi(phi)
    top = np.column_stack([x, body.top.at(phi)])
    bottom = np.column_stack([x, body.bottom.at(phi)])
    return np.vstack([top, bottom[::-1]])


def top_outline(body: Body, count: int = 61) -> Array:
    """Closed plan outline, (2·count, 2) points (x, y) [mm]."""
    phi = np.linspace(0.0, np.pi, count)
    x = body.length_mm * share_of_phi(phi)
    y = np.maximum(body.half_width.at(phi), 0.0)
    return np.vstack([np.column_stack([x, y]), np.column_stack([x, -y])[::-1]])


def section_outline(body: Body, x_mm: float, count: int = 64) -> Array:
    """Closed section at x [mm], (count, 2) points (y, z) [mm], counter-clockwise from +y."""
    here = station(body, x_mm)
    angle = np.linspace(0.0, 2 * np.pi, count, endpoint=False)
    cos, sin = np.cos(angle), np.sin(angle)
    up = sin >= 0
    n = np.where(up, body.upper_exponent, body.lower_exponent)
    reach = np.where(up, here.top_mm - here.widest_mm, here.widest_mm - here.bottom_mm)
    radius = (np.abs(cos) ** n + np.abs(sin) ** n) ** (-1.0 / n)
    return np.column_stack([here.half_width_mm * cos * radius, here.widest_mm + reach * sin * radius])

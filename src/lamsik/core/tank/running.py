"""Running depth, an estimate: the bait trims on its line under lip, body, hooks and buoyancy; the line does
the rest.

The body pushes back by cross flow and is turned broadside by the couple a stream puts on any long body
(Munk).

Textbook coefficients leave out wake and wobble and run 1.5 to 2 times too deep for shallow baits. One factor
on the line's tension is fitted to logged runs; until then the band is wide. Relative changes are better than
depths.
"""

from collections.abc import Sequence
from dataclasses import dataclass, field, replace
from math import atan2, cos, degrees, exp, log, pi, radians, sin

import numpy as np
from scipy.optimize import brentq, minimize_scalar

from lamsik.core.errors import Refused, finite_between, require, rule
from lamsik.core.findings import Finding, finding
from lamsik.core.materials import METALS
from lamsik.core.shapes.body import side_outline
from lamsik.core.shapes.curves import Array
from lamsik.core.shapes.design import Design
from lamsik.core.shapes.hardware import Lip, lip_point
from lamsik.core.shapes.solid import solid
from lamsik.core.tank.attitude import buoyancy
from lamsik.core.tank.evaluate import line_tie
from lamsik.core.tank.line import Line, Shape, depths_m, hang
from lamsik.core.tank.mass import NOTHING, Budget, Measured, budget
from lamsik.core.tank.motion import GRAVITY

AXIAL_DRAG, CROSS_DRAG, HOOK_DRAG = 0.25, 1.1, 1.1
"""Body along its axis, body across, and hook wire across (Hoerner, Fluid-Dynamic Drag, 1965): to be fitted
last.
"""

HOOK_WIRE_MM2, HOOK_DROP_MM = 24.0, 8.0
"""Wire that a treble of half a gram shows to the stream [mm²], and how far below its eye it acts [mm]."""

WAKE, WAKE_MORE, DEEP_LIP_DEG, FADES_DEG = 0.5, 0.4, 10.0, 17.0
"""Factor on the line's tension before any run is logged: that of shallow baits, what a lip along the axis
has more, and over how many degrees it fades.
"""

DEEP_FROM_DEG, SHALLOW_FROM_DEG = 30.0, 55.0
"""A lip flatter than the first dives deep, one steeper than the second stays shallow."""

BAND, BAND_DEEP = 0.5, 0.25
STATIONS = 160


def lip_runs(angle_deg: float) -> Finding:
    """What a lip at an angle to the body's axis [°] does, in words."""
    if angle_deg < DEEP_FROM_DEG:
        return finding("lip-dives-deep")
    return finding("lip-stays-shallow") if angle_deg > SHALLOW_FROM_DEG else finding("lip-between")


@dataclass(frozen=True)
class Tow:
    """How it is towed: speed [m/s], line, rod tip over the water [m], line out from the tip [m], lead on
    the line at the bait [g].
    """

    speed_m_s: float = 1.0
    line: Line = field(default_factory=lambda: Line(0.28))
    rod_m: float = 1.5
    line_out_m: float = 25.0
    lead_g: float = 0.0

    def __post_init__(self) -> None:
        finite_between("speed_m_s", self.speed_m_s, 0.1, 8.0, "m/s")
        finite_between("rod_m", self.rod_m, 0.0, 12.0, "m")
        finite_between("line_out_m", self.line_out_m, 1.0, 400.0, "m")
        finite_between("lead_g", self.lead_g, 0.0, 500.0, "g")


@dataclass(frozen=True)
class Run:
    """A logged run: how it was towed, how deep it ran [m], and the pitch it ran at if that was seen [°]."""

    tow: Tow
    depth_m: float
    pitch_deg: float | None = None

    def __post_init__(self) -> None:
        finite_between("depth_m", self.depth_m, 0.0, 100.0, "m")
        if self.pitch_deg is not None:
            finite_between("pitch_deg", self.pitch_deg, -70.0, 45.0, "°")


@dataclass(frozen=True)
class Trim:
    """How the bait runs: pitch [°] (nose up), drag [N], pull down [N], and the line's angle at it [°]."""

    pitch_deg: float
    drag_n: float
    down_n: float

    @property
    def tension_n(self) -> float:
        """Pull on the line at the bait [N]."""
        return float(np.hypot(self.drag_n, max(self.down_n, 0.0)))

    @property
    def angle_deg(self) -> float:
        """The line's angle over the horizontal at the bait [°]."""
        return degrees(atan2(max(self.down_n, 0.0), self.drag_n))


@dataclass(frozen=True)
class DivingFit:
    """The factor on line tension: fitted to so many runs, with what they still differ by, or assumed.

    `shift_deg` is how far what was seen pitches over what is reckoned [°]; None where nobody looked.
    """

    factor: float
    runs: int = 0
    residual_share: float | None = None
    shift_deg: float | None = None

    def band(self, lip: Lip | None) -> float:
        """Half-width of the depth band as a share: from the runs' scatter, or as wide as the trade's
        estimates are.
        """
        blind = BAND - (BAND - BAND_DEEP) * deep_share(lip)
        if self.runs == 0:
            return blind
        if self.runs == 1 or self.residual_share is None:
            return blind / 2
        return float(np.clip(2 * self.residual_share, 0.08, blind / 2))


@dataclass(frozen=True)
class DepthChange:
    """What one change does to the running depth: the factor on it, and the pitch it runs at [°]."""

    name: Finding
    factor: float
    pitch_deg: float


def trim(design: Design, mass: Budget, speed_m_s: float, shift_deg: float | None = None) -> Trim:
    """How the bait settles on its line: from level, following the sign of the moment about the tie to the
    next rest.

    Args:
        design: the bait.
        mass: its budget.
        speed_m_s: of the tow.
        shift_deg: learned from a pitch that was seen: it is added to what is reckoned, and the forces are
            those there.

    Raises:
        Refused: no line tie, or no steady attitude: it blows out.
    """
    forces = _Forces.of(design, mass, speed_m_s)
    start = forces.moment(0.0)
    way = 1.0 if start > 0 else -1.0
    before = 0.0
    for step in np.arange(2.0, 82.0, 2.0):
        here = way * radians(float(step))
        if forces.moment(here) * start <= 0:
            pitch = float(brentq(forces.moment, min(before, here), max(before, here), xtol=1e-5)) + radians(
                shift_deg or 0.0
            )
            fx, fz = forces.total(pitch)
            return Trim(degrees(pitch), fx, -fz)
        before = here
    raise Refused(
        "speed_m_s",
        speed_m_s,
        rule("finds-steady"),
    )


@dataclass(frozen=True, eq=False)
class _Forces:
    """What pushes on the bait, in the body frame with the tie as origin: lip, body, hooks, weight and
    buoyancy. SI units.
    """

    q: float
    lip_at: Array
    lip_area: float
    lip_aspect: float
    lip_rad: float
    side_at: Array
    side_area: float
    front_area: float
    nose_at: Array
    hooks: tuple[tuple[Array, float], ...]
    weight_n: float
    g_at: Array
    lift_n: float
    b_at: Array
    munk_m3: float

    @staticmethod
    def of(design: Design, mass: Budget, speed_m_s: float) -> "_Forces":
        tie_point = line_tie(design)
        if tie_point is None:
            raise Refused("hardware", "", rule("put-line"))
        tie = np.array([tie_point[0], tie_point[2]]) * 1e-3
        body, rho = design.body, design.water.density_g_cm3
        shape = solid(body)
        outline = side_outline(body, 121)
        top, bottom = outline[:121], outline[:120:-1]
        deep = top[:, 1] - bottom[:, 1]
        side = float(np.trapezoid(deep, top[:, 0]))
        side_x = float(np.trapezoid(deep * top[:, 0], top[:, 0])) / side
        side_z = float(np.trapezoid(deep * (top[:, 1] + bottom[:, 1]) / 2, top[:, 0])) / side
        # Pitching shows the belly: the plan area, as long as the side's and as wide as the body.
        plan = 2 * float(
            np.trapezoid(np.maximum(body.half_width.at(np.linspace(0, np.pi, 121)), 0), top[:, 0])
        )
        lip = design.lip
        at = lip_point(body, lip, lip.length_mm / 2) if lip else (0.0, 0.0, 0.0)
        on = {placed.key for placed in design.hardware if placed.item.kind == "hook"}
        hooks = tuple(
            (
                np.array([p.at_mm[0], p.at_mm[2] - HOOK_DROP_MM]) * 1e-3 - tie,
                HOOK_DRAG * HOOK_WIRE_MM2 * 1e-6 * (p.mass_g / 0.5) ** (2 / 3),
            )
            for p in mass.parts
            if p.key in on
        )
        b = buoyancy(shape.centroid_mm, mass)
        return _Forces(
            q=0.5 * rho * 1000.0 * speed_m_s**2,
            lip_at=np.array([at[0], at[2]]) * 1e-3 - tie,
            lip_area=lip.width_mm * lip.length_mm * 0.93e-6 if lip else 0.0,
            lip_aspect=min(lip.width_mm / lip.length_mm, 2.0) if lip else 1.0,
            lip_rad=radians(lip.angle_deg) if lip else 0.0,
            side_at=np.array([side_x, side_z]) * 1e-3 - tie,
            side_area=plan * 1e-6,
            front_area=pi / 4 * body.depth_mm * body.width_mm * 1e-6,
            nose_at=np.array([0.15 * body.length_mm, side_z]) * 1e-3 - tie,
            hooks=hooks,
            weight_n=mass.mass_g * 1e-3 * GRAVITY,
            g_at=np.array([mass.g_mm[0], mass.g_mm[2]]) * 1e-3 - tie,
            lift_n=rho * mass.displaced_ml * 1e-3 * GRAVITY,
            b_at=np.array([b[0], b[2]]) * 1e-3 - tie,
            munk_m3=shape.volume_ml
            * 1e-6
            * munk_factor(body.length_mm / (body.depth_mm * body.width_mm) ** 0.5),
        )

    def each(self, pitch: float) -> list[tuple[Array, Array]]:
        """Where each force acts and what it is, (aft, up), in the tank frame at a pitch [rad]."""
        turn = np.array([[cos(pitch), sin(pitch)], [-sin(pitch), cos(pitch)]])
        alpha = self.lip_rad - pitch
        plate = self.q * self.lip_area * plate_coefficient(alpha, self.lip_aspect)
        across = self.q * self.side_area * CROSS_DRAG * sin(pitch) * abs(sin(pitch))
        loads = [
            (turn @ self.lip_at, plate * np.array([sin(alpha), -cos(alpha)])),
            (turn @ self.side_at, across * np.array([sin(pitch), cos(pitch)])),
            (turn @ self.nose_at, np.array([self.q * self.front_area * AXIAL_DRAG * cos(pitch) ** 2, 0.0])),
            (turn @ self.g_at, np.array([0.0, -self.weight_n])),
            (turn @ self.b_at, np.array([0.0, self.lift_n])),
        ]
        return loads + [(turn @ at, np.array([self.q * area, 0.0])) for at, area in self.hooks]

    def moment(self, pitch: float) -> float:
        """Moment about the tie that turns the nose up [N·m]."""
        # A force up behind the tie, or aft below it, turns the nose down.
        steady = sum(force[0] * at[1] - force[1] * at[0] for at, force in self.each(pitch))
        return float(steady + self.q * self.munk_m3 * sin(2 * pitch))

    def total(self, pitch: float) -> tuple[float, float]:
        """Force aft and up [N]."""
        both = sum((force for _, force in self.each(pitch)), start=np.zeros(2))
        return float(both[0]), float(both[1])


def munk_factor(fineness: float) -> float:
    """k₂ − k₁, the difference of the added-mass shares of a prolate spheroid across and along: how hard a
    stream turns it broadside.

    Args:
        fineness: length over thickness; a sphere (1 and less) is not turned at all.

    Notes: the couple is ½ρU²V(k₂ − k₁) sin 2p. Reference: Munk, NACA Report 184, 1924; shares by Lamb,
        Hydrodynamics, §114.
    """
    if fineness <= 1.001:
        return 0.0
    e = (1 - 1 / fineness**2) ** 0.5
    spread = log((1 + e) / (1 - e))
    along, across = 2 * (1 - e**2) / e**3 * (spread / 2 - e), 1 / e**2 - (1 - e**2) / (2 * e**3) * spread
    return float(across / (2 - across) - along / (2 - along))


def plate_coefficient(alpha: float, aspect: float) -> float:
    """Normal-force coefficient of a small plate at an angle to the flow [rad]: slender-wing lift and cross
    flow.

    Notes: (π/2)AR sin α cos α + 1.17 sin²α, odd in α.
    """
    return pi / 2 * aspect * sin(alpha) * cos(alpha) + 1.17 * sin(alpha) * abs(sin(alpha))


def deep_share(lip: Lip | None) -> float:
    """How much of a deep diver a lip makes: 1 along the axis, fading as it stands across; 0 without one."""
    return exp(-max(lip.angle_deg - DEEP_LIP_DEG, 0.0) / FADES_DEG) if lip else 0.0


def assumed_fit(design: Design) -> DivingFit:
    """The factor before any run is logged: it fades with the lip's angle, since wake and wobble take more
    of a lip that stands across.
    """
    return DivingFit(WAKE + WAKE_MORE * deep_share(design.lip))


def line_shape(
    design: Design, mass: Budget, tow: Tow, fit: DivingFit | float, longest_m: float | None = None
) -> tuple[Trim, Shape]:
    """How the bait and its line run, the line up to the longest wanted; lead on it pulls down with its
    weight in water.
    """
    fit = fit if isinstance(fit, DivingFit) else DivingFit(fit)
    trimmed = trim(design, mass, tow.speed_m_s, fit.shift_deg)
    return trimmed, line_at(trimmed, design.water.density_g_cm3, tow, fit, longest_m)


def line_at(
    trimmed: Trim, water_g_cm3: float, tow: Tow, fit: DivingFit, longest_m: float | None = None
) -> Shape:
    """How the line hangs from a bait whose trim is known: the factor on its tension changes that alone."""
    reach = longest_m or tow.line_out_m
    along = reach * np.linspace(0.0, 1.0, STATIONS) ** 1.5
    lead = tow.lead_g * 1e-3 * GRAVITY * (1.0 - water_g_cm3 / METALS["lead"])
    back, down = fit.factor * trimmed.drag_n, fit.factor * max(trimmed.down_n, 0.0) + lead
    return hang(tow.line, tow.speed_m_s, water_g_cm3, float(np.hypot(back, down)), atan2(down, back), along)


def depth_curve(design: Design, mass: Budget, tow: Tow, fit: DivingFit | float, line_out_m: Array) -> Array:
    """Depth [m] at each line out (n,) [m]: one march serves them all."""
    _, shape = line_shape(design, mass, tow, fit, float(np.max(line_out_m)))
    return depths_m(shape, line_out_m, tow.rod_m)


def depth(design: Design, mass: Budget, tow: Tow, fit: DivingFit | float) -> float:
    """Depth [m] as it is towed, by a fit or a bare factor on the tension."""
    return float(depth_curve(design, mass, tow, fit, np.array([tow.line_out_m]))[0])


def depth_at(trimmed: Trim, water_g_cm3: float, tow: Tow, fit: DivingFit) -> float:
    """Depth [m] as it is towed by a bait whose trim is known."""
    return float(depths_m(line_at(trimmed, water_g_cm3, tow, fit), np.array([tow.line_out_m]), tow.rod_m)[0])


def fitted(design: Design, runs: Sequence[Run], measured: Measured = NOTHING) -> DivingFit:
    """The pitch that was seen, then the factor on line tension that fits the logged runs best, in
    proportion; the assumed one without runs.
    """
    if not runs:
        return assumed_fit(design)
    mass = budget(design, measured)
    seen = [
        run.pitch_deg - trim(design, mass, run.tow.speed_m_s).pitch_deg
        for run in runs
        if run.pitch_deg is not None
    ]
    shift = float(np.mean(seen)) if seen else None
    trims = [trim(design, mass, run.tow.speed_m_s, shift) for run in runs]

    def off(log_factor: float) -> float:
        fit = DivingFit(float(np.exp(log_factor)), shift_deg=shift)
        depths = [
            depth_at(at, design.water.density_g_cm3, run.tow, fit)
            for at, run in zip(trims, runs, strict=True)
        ]
        return float(
            sum((got / max(run.depth_m, 0.1) - 1) ** 2 for got, run in zip(depths, runs, strict=True))
        )

    best = minimize_scalar(
        off, bounds=(np.log(0.02), np.log(20.0)), method="bounded", options={"xatol": 1e-3}
    )
    left = (best.fun / max(len(runs) - 1, 1)) ** 0.5
    return DivingFit(float(np.exp(best.x)), len(runs), float(left), shift)


def changes(
    design: Design, tow: Tow, fit: DivingFit, measured: Measured = NOTHING
) -> tuple[DepthChange, ...]:
    """What single changes of lip, tie and tackle do to the depth, the largest first; those that blow out
    are left out.
    """
    mass = budget(design, measured)
    here = depth(design, mass, tow, fit)
    require(here > 0, "line_out_m", tow.line_out_m, rule("does-dive"))
    rows = []
    for name, changed, how in _variants(design, tow):
        try:
            weight = budget(changed, measured)
            trimmed = trim(changed, weight, how.speed_m_s, fit.shift_deg)
            rows.append(
                DepthChange(
                    name, depth_at(trimmed, changed.water.density_g_cm3, how, fit) / here, trimmed.pitch_deg
                )
            )
        except Refused:
            continue
    return tuple(sorted(rows, key=lambda row: -abs(np.log(max(row.factor, 1e-3)))))


def _variants(design: Design, tow: Tow) -> list[tuple[Finding, Design, Tow]]:
    rows: list[tuple[Finding, Design, Tow]] = []
    lip = design.lip
    if lip is not None:
        rows += [
            (
                finding("lip-flatter"),
                replace(design, lip=replace(lip, angle_deg=max(lip.angle_deg - 5, 0))),
                tow,
            ),
            (
                finding("lip-steeper"),
                replace(design, lip=replace(lip, angle_deg=min(lip.angle_deg + 5, 90))),
                tow,
            ),
            (
                finding("lip-shorter", shorter=2.0),
                replace(design, lip=replace(lip, length_mm=max(lip.length_mm - 2, 2))),
                tow,
            ),
            (
                finding("lip-narrower", narrower=2.0),
                replace(design, lip=replace(lip, width_mm=max(lip.width_mm - 2, 2))),
                tow,
            ),
        ]
        rows += (
            [(finding("tie-on-the-lip", out=4.0), _tied_on_lip(design, 4.0), tow)]
            if lip.length_mm > 6
            else []
        )
    thick = replace(tow, line=replace(tow.line, diameter_mm=tow.line.diameter_mm * 1.25))
    return [
        *rows,
        (finding("line-thicker"), design, thick),
        (finding("towed-faster"), design, replace(tow, speed_m_s=min(tow.speed_m_s * 1.5, 8.0))),
        (
            finding("more-line-out", more=10.0),
            design,
            replace(tow, line_out_m=min(tow.line_out_m + 10, 400.0)),
        ),
        (
            finding("lead-at-the-bait", lead=5.0),
            design,
            replace(tow, lead_g=min(tow.lead_g + 5.0, 500.0)),
        ),
        (finding("rod-tip-low"), design, replace(tow, rod_m=0.0)),
    ]


def _tied_on_lip(design: Design, along_mm: float) -> Design:
    moved = tuple(
        replace(p, seat="lip", x_mm=along_mm) if p.item.kind == "line_tie" else p for p in design.hardware
    )
    return replace(design, hardware=moved)

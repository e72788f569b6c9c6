"""Static stability as naval architecture teaches it: KB, BM, KG, GM, and the righting-arm curve from 0 to
180° of heel.

Sinkage and trim are free at every heel: U = m(up·G − d) − ρ(up·M − d·V) is at rest over pitch and draft,
and m·GZ·cos p = ∂U/∂r. Under water the arm is BG·sin(heel).
"""

from dataclasses import dataclass
from math import cos, radians, sin

import numpy as np

from lamsik.core.shapes.curves import Array
from lamsik.core.tank.attitude import Hanging
from lamsik.core.tank.floating import Clip, Floating, Vessel, body_state, draft_for, floats
from lamsik.core.tank.immersion import tank_axes
from lamsik.core.tank.mass import Budget

STEP_DEG = 5.0


@dataclass(frozen=True, eq=False)
class RightingCurve:
    """Righting arm [mm] against heel [°], each (n,), with the pitch [°] and the energy over that at rest
    upright [g·mm].

    Positive arms right the bait. `whole` is false where no rest in trim was found at some heels; they are
    left out.
    """

    heel_deg: Array
    arm_mm: Array
    pitch_deg: Array
    energy_g_mm: Array
    whole: bool = True

    @property
    def largest(self) -> tuple[float, float]:
        """The largest righting arm [mm] and its heel [°]."""
        at = int(np.argmax(self.arm_mm))
        return float(self.arm_mm[at]), float(self.heel_deg[at])

    @property
    def vanishes_deg(self) -> float | None:
        """The heel [°] at which the arm stops righting it; None if it rights itself from any."""
        for i in range(1, len(self.arm_mm)):
            before, after = self.arm_mm[i - 1], self.arm_mm[i]
            if before > 1e-6 and after < -1e-6:
                return float(
                    self.heel_deg[i - 1]
                    + (self.heel_deg[i] - self.heel_deg[i - 1]) * before / (before - after)
                )
        return None

    @property
    def area_mm_rad(self) -> float:
        """Work to the vanishing angle, as an area under the curve [mm·rad]."""
        upto = self.vanishes_deg or 180.0
        keep = self.heel_deg <= upto
        return float(np.trapezoid(np.maximum(self.arm_mm[keep], 0.0), np.radians(self.heel_deg[keep])))


@dataclass(frozen=True)
class Metacentre:
    """Heights over the keel [mm] at rest upright: KB, KG, the metacentre's BM over B, and GM = KB + BM −
    KG.
    """

    kb_mm: float
    bm_mm: float
    kg_mm: float

    @property
    def gm_mm(self) -> float:
        """Metacentric height [mm]; positive stands upright."""
        return self.kb_mm + self.bm_mm - self.kg_mm


def metacentre(vessel: Vessel, mass: Budget, water_g_cm3: float, place: Floating) -> Metacentre:
    """KB, BM and KG of a floating position, across the hull.

    Notes: BM = I_T/∇ with I_T the second moment of the water-plane about its fore-and-aft axis.
    """
    up = place.attitude.up
    state = body_state(vessel.exact, mass, water_g_cm3, up, place.draft_mm)
    e1, e2 = tank_axes(up)
    aft = np.array([1.0, 0.0, 0.0]) - up[0] * up
    size = float(np.sqrt(aft @ aft))
    along = np.array([e1 @ aft, e2 @ aft]) / size if size > 1e-6 else np.array([1.0, 0.0])
    across = np.array([-along[1], along[0]])
    ixx, ixy, iyy = state.second
    centre = float(across @ state.first) / state.area
    moment = float(across @ np.array([[ixx, ixy], [ixy, iyy]]) @ across) - centre**2 * state.area
    keel = vessel.heights(up)[0]
    b = state.moment / state.volume
    return Metacentre(float(b @ up) - keel, moment / state.volume, float(np.array(mass.g_mm) @ up) - keel)


def pendulum(hanging: Hanging, heel_deg: Array) -> Array:
    """Righting arm [mm] of a body wholly under water: BG·sin(heel)."""
    return np.asarray(bg_mm(hanging) * np.sin(np.radians(heel_deg)))


def bg_mm(hanging: Hanging) -> float:
    """How far B lies from G [mm]; free, it hangs with B above G."""
    return float(np.linalg.norm(np.array(hanging.b_mm) - np.array(hanging.g_mm)))


def righting_curve(
    vessel: Vessel, mass: Budget, water_g_cm3: float, step_deg: float = STEP_DEG, start_pitch_deg: float = 0.0
) -> RightingCurve | None:
    """The righting-arm curve of a floater, 0 to 180°; None if it sinks.

    Marches heel by heel from where the last two point to. The last Newton step is not taken but put into arm
    and energy by their derivatives, so that its error is of second order.
    """
    if not floats(mass, water_g_cm3):
        return None
    rows: list[_Trim] = []
    lost = False
    for heel in np.arange(0.0, 180.0 + step_deg / 2, step_deg):
        curve = _trimmed(
            vessel,
            mass,
            water_g_cm3,
            radians(float(heel)),
            *_guess(rows, float(heel), radians(start_pitch_deg)),
        )
        if curve is None:
            lost = True
        else:
            rows.append(curve)
    if len(rows) < 3:
        return None
    heels, arms, pitches, energies = (
        np.array([getattr(row, name) for row in rows]) for name in ("roll", "arm_mm", "pitch", "energy")
    )
    return RightingCurve(np.degrees(heels), arms, np.degrees(pitches), energies - energies[0], not lost)


@dataclass(frozen=True)
class _Trim:
    """Rest at a fixed roll [rad]: pitch [rad], draft [mm], arm [mm], energy [g·mm]."""

    roll: float
    pitch: float
    draft: float
    arm_mm: float
    energy: float


def _guess(rows: list[_Trim], heel: float, pitch: float) -> tuple[float, float | None]:
    if len(rows) < 2:
        return (rows[-1].pitch, rows[-1].draft) if rows else (pitch, None)
    one, two = rows[-2], rows[-1]
    on = (radians(heel) - two.roll) / (two.roll - one.roll)
    return two.pitch + on * (two.pitch - one.pitch), two.draft + on * (two.draft - one.draft)


def _up(pitch: float, roll: float) -> Array:
    return np.array([-sin(pitch), -sin(roll) * cos(pitch), cos(roll) * cos(pitch)])


def _trimmed(
    vessel: Vessel, mass: Budget, water: float, roll: float, pitch: float, draft: float | None
) -> _Trim | None:
    """Rest over pitch and draft at a fixed roll; None where Newton finds none."""
    d = draft if draft is not None else draft_for(vessel, mass, water, _up(pitch, roll))
    for _ in range(12):
        step = trim_step(vessel.fair, mass, water, roll, pitch, d, vessel.length_mm)
        if step.largest < NEAR:
            return _Trim(roll, pitch + step.pitch, d + step.draft_mm, step.arm_mm, step.energy)
        share = min(1.0, 0.3 / step.largest)
        pitch, d = pitch + share * step.pitch, d + share * step.draft_mm
        if abs(pitch) > radians(85):
            return None
    return None


@dataclass(frozen=True)
class TrimStep:
    """One Newton step towards rest at a fixed roll: pitch [rad], draft [mm], its size, and what follows if it
    is the last.

    `arm_mm` and `energy` are those after the step, `stiffness_mm` the righting arm for each radian of roll
    (GM).
    """

    pitch: float
    draft_mm: float
    largest: float
    arm_mm: float
    energy: float
    stiffness_mm: float


def trim_step(
    clip: Clip, mass: Budget, water: float, roll: float, pitch: float, d: float, size_mm: float
) -> TrimStep:
    """The Newton step over pitch [rad] and draft [mm] at a fixed roll [rad].

    Lines of constant roll are great circles, so ∂²U/∂p² is the Hessian along them. ∂U/∂r = m·GZ·cos p.
    """
    up, scale = _up(pitch, roll), size_mm / 4
    state = body_state(clip, mass, water, up, d)
    e1, e2 = tank_axes(up)
    t = np.array([-cos(pitch), sin(roll) * sin(pitch), -cos(roll) * sin(pitch)])
    s = np.array([0.0, -cos(roll), -sin(roll)])
    axes = np.array([[e1 @ t, e2 @ t, 0.0], [0.0, 0.0, scale], [e1 @ s, e2 @ s, 0.0]])
    gradient, hessian = axes @ state.gradient, axes @ state.hessian @ axes.T
    step = -_softened(hessian[:2, :2], 1e-4 * mass.mass_g * size_mm) @ gradient[:2]
    arm = (gradient[2] + hessian[2, :2] @ step) / mass.mass_g
    energy = state.energy + float(gradient[:2] @ step) / 2
    return TrimStep(
        float(step[0]),
        float(step[1]) * scale,
        float(np.abs(step).max()),
        float(arm),
        energy,
        float(hessian[2, 2]) / mass.mass_g,
    )


NEAR = 2e-3
"""A Newton step (in radians, and in quarters of the length) whose second-order error is below 1e-5 of the
arm.
"""


def _softened(hessian: Array, least: float) -> Array:
    """The inverse with |eigenvalues|, so that the step always goes down."""
    values, vectors = np.linalg.eigh(hessian)
    return np.asarray((vectors / np.maximum(np.abs(values), least)) @ vectors.T)

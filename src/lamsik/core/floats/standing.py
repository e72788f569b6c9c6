"""How a float stands: upright, half lying or lying, without shot and with it, by least energy; how stiff
it stands.
"""

from dataclasses import dataclass

import numpy as np

from lamsik.core.floats.design import Float, gravity_mm, own_mass_g, table
from lamsik.core.quantities import kept_as_said
from lamsik.core.shapes.curves import Array
from lamsik.core.shapes.skins import Mesh
from lamsik.core.tank.attitude import Attitude
from lamsik.core.tank.floating import Floating, Vessel, float_drag, vessel_of_hull
from lamsik.core.tank.immersion import hull_of
from lamsik.core.tank.mass import Budget

STANDS, HALF, LIES, SINKS = "stands", "half-lies", "lies", "sinks"
STANDS_FROM_DEG, LIES_TO_DEG = 70.0, 20.0
RINGS, AROUND = 72, 16


@dataclass(frozen=True)
class Standing:
    """How it rests: in a word, its lean [°] (90 upright), metacentric height [mm] when upright."""

    word: str
    lean_deg: float
    gm_mm: float


def standing(design: Float, line_g: float = 0.0) -> Standing:
    """How it rests under a pull at its foot [g]; of an upright and a lying position the one of lower energy.

    Notes: the pull is a force at the foot, so it adds to the weight and brings G down; GM = KB + BM − KG with
        BM = I/∇.
    """
    rho = design.water.density_g_cm3
    mass = own_mass_g(design) + line_g
    if mass > rho * float(table(design).volume[-1]):
        return Standing(SINKS, 90.0, 0.0)
    vessel, top = _vessel(design), design.top_mm
    height = (own_mass_g(design) * gravity_mm(design) + line_g * design.foot_mm) / mass
    budget = _budget(mass, top - height, float(table(design).volume[-1]))
    places = [
        place for lean in (85.0, 8.0) if (place := float_drag(vessel, budget, rho, Attitude(lean, 0.0)))
    ]
    gm = metacentric_mm(design, line_g)
    if not places:
        return Standing(STANDS if gm > 0 else LIES, 90.0 if gm > 0 else 0.0, gm)
    best = min(places, key=lambda place: place.energy)
    lean = _lean(best)
    word = STANDS if lean >= STANDS_FROM_DEG else (HALF if lean > LIES_TO_DEG else LIES)
    return Standing(word, lean, gm)


def _lean(place: Floating) -> float:
    """How far the tip points up [°]."""
    return float(np.degrees(np.arcsin(np.clip(-place.attitude.up[0], -1.0, 1.0))))


def metacentric_mm(design: Float, line_g: float = 0.0) -> float:
    """Metacentric height upright [mm]; minus falls over."""
    rho, hull = design.water.density_g_cm3, table(design)
    mass = own_mass_g(design) + line_g
    volume = min(mass / rho, float(hull.volume[-1]))
    draft = hull.height_of(volume)
    inertia = hull.area_at(draft - 1e-6) ** 2 / (4.0 * np.pi)  # a circle's: πr⁴/4 = A²/4π
    gravity = (own_mass_g(design) * gravity_mm(design) + line_g * design.foot_mm) / mass
    return float(hull.centre_at(draft) + inertia / (volume * 1000.0) - gravity)


@kept_as_said(64)
def _vessel(design: Float) -> Vessel:
    """The float as a closed surface of revolution along x, tip at x = 0."""
    hull = table(design)
    z = np.unique(np.concatenate([np.linspace(hull.z[0], hull.z[-1], RINGS), _steps(hull.z, hull.area)]))
    radius = np.sqrt(np.maximum(np.interp(z, hull.z, hull.area), 0.0) / np.pi)
    return vessel_of_hull(
        hull_of(_revolved(design.top_mm - z[::-1], radius[::-1]), float(hull.volume[-1]) * 1000.0)
    )


def _steps(z: Array, area: Array) -> Array:
    """Heights on either side of a jump of the area: a stem leaves a body."""
    jump = np.nonzero(np.abs(np.diff(area)) > 0.12 * float(area.max()))[0]
    return np.concatenate([z[jump], z[jump + 1]]) if len(jump) else np.zeros(0)


def _revolved(x: Array, radius: Array) -> Mesh:
    turn = 2 * np.pi * np.arange(AROUND) / AROUND
    rings = np.stack(
        [np.repeat(x[:, None], AROUND, 1), radius[:, None] * np.cos(turn), radius[:, None] * np.sin(turn)],
        axis=-1,
    ).reshape(-1, 3)
    vertices = np.vstack([rings, [(x[0], 0.0, 0.0)], [(x[-1], 0.0, 0.0)]])
    ring, spoke = np.meshgrid(np.arange(len(x) - 1), np.arange(AROUND), indexing="ij")
    a, b = ring * AROUND + spoke, ring * AROUND + (spoke + 1) % AROUND
    sides = np.concatenate(
        [
            np.stack([a, b, a + AROUND], -1).reshape(-1, 3),
            np.stack([b, b + AROUND, a + AROUND], -1).reshape(-1, 3),
        ]
    )
    here, beside, last = np.arange(AROUND), (np.arange(AROUND) + 1) % AROUND, (len(x) - 1) * AROUND
    caps = np.concatenate(
        [
            np.stack([np.full(AROUND, len(rings)), beside, here], -1),
            np.stack([np.full(AROUND, len(rings) + 1), last + here, last + beside], -1),
        ]
    )
    faces = np.concatenate([sides, caps])
    volume = np.einsum(
        "ij,ij->i", vertices[faces[:, 0]], np.cross(vertices[faces[:, 1]], vertices[faces[:, 2]])
    ).sum()
    return Mesh(vertices, (faces if volume > 0 else faces[:, ::-1]).astype(np.int64))


def _budget(mass_g: float, x_mm: float, volume_ml: float) -> Budget:
    none = np.zeros(0)
    return Budget((), mass_g, 0.0, (x_mm, 0.0, 0.0), volume_ml, 0.0, 1.0, none, np.zeros((0, 3)), none)

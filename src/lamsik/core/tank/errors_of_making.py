"""What can be off about a bait that is made: every error that stands alone, and what the scale leaves of it.

Errors that come together are one row: the coats of one session, the hooks of one lot, the host with all that
is cut out of it. A row holds what one sigma of it does; weighings then narrow the rows as a linear
observation does.
"""

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from lamsik.core.shapes.curves import Array
from lamsik.core.shapes.design import Design
from lamsik.core.shapes.faces import FACES, MADE_TRUE_TO, moved
from lamsik.core.shapes.solid import solid
from lamsik.core.tank.attitude import buoyancy
from lamsik.core.tank.mass import Budget, Measured, budget, size_ml
from lamsik.core.tank.parts import STAGES, Part, is_cut
from lamsik.core.water import density

PLACE_SD_MM, WATER_SD_C = 0.5, 1.0
VOLUME = "volume"
"""The group of the four faces: how large the body came out."""


@dataclass(frozen=True, eq=False)
class Errors:
    """Rows of one sigma each: groups, what each does to the mass at every stage [g] (rows, stages), to the
    body's volume [ml], to the net lift [g] and to the tangent of the pitch; `left` is the covariance of the
    rows in sigmas, given what was weighed.
    """

    groups: tuple[str, ...]
    masses: Array
    volumes: Array
    net: Array
    tilt: Array
    left: Array

    def spread(self, left: Array | None = None) -> Array:
        """Covariance (2, 2) of net lift [g] and tangent of the pitch."""
        effect = np.vstack([self.net, self.tilt])
        return np.asarray(effect @ (self.left if left is None else left) @ effect.T)

    def without(self, group: str) -> Array:
        """The covariance of the rows once a group is known for itself."""
        keep = np.array([0.0 if name == group else 1.0 for name in self.groups])
        return np.asarray(self.left * np.outer(keep, keep))

    def weighed(self, stage: str, sd_g: float, left: Array | None = None) -> Array:
        """The covariance once the whole piece was on the scale at the end of a stage.

        Notes: what the scale says over what was planned goes to masses; the drawing's volume stands, so the
            faces' gain is none and the covariance is that of an estimate with this gain (Joseph's form).
        """
        before = self.left if left is None else left
        seen = self.masses[:, : STAGES.index(stage) + 1].sum(axis=1)
        apart = np.where([name == VOLUME for name in self.groups], 0.0, seen)
        pull = before @ apart * np.where(apart != 0.0, 1.0, 0.0)
        return _narrowed(before, seen, pull, float(apart @ pull), sd_g)

    def sized(self, sd_ml: float, left: Array | None = None) -> Array:
        """The covariance once the body's own volume is known to so many millilitres."""
        before = self.left if left is None else left
        pull = before @ self.volumes
        return _narrowed(before, self.volumes, pull, float(self.volumes @ pull), sd_ml)


def _narrowed(before: Array, seen: Array, pull: Array, variance: float, sd: float) -> Array:
    noise = max(sd, 1e-6) ** 2
    gain = pull / (variance + noise)
    rest = np.eye(len(seen)) - np.outer(gain, seen)
    return np.asarray(rest @ before @ rest.T + noise * np.outer(gain, gain))


def group_of(part: Part, design: Design) -> str:
    """Which measurement settles a part."""
    if part.key == "host" or is_cut(part):
        return "host"
    kinds = {placed.key: placed.item.kind for placed in design.hardware}
    if part.key in kinds:
        return "hooks" if kinds[part.key] in ("hook", "ring") else "fittings"
    stem = part.key.split(":")[0]
    return {
        "slug": "ballast",
        "fill": "ballast",
        "pour": "ballast",
        "balls": "ballast",
        "coat": "coats",
        "allow": "allowed",
        "lip": "fittings",
        "segment": "segments",
    }.get(stem, stem)


def _together(part: Part, design: Design, singles: set[str]) -> str:
    """The name of the row a part's error belongs to."""
    group = group_of(part, design)
    if group == "host":
        return "host"
    if part.key in singles:
        return part.key
    if group == "coats":
        return "coats"
    return f"lot:{part.name}" if group == "hooks" else part.key


def errors_of(design: Design, measured: Measured, face_mm: float | None = None) -> Errors:
    """Every error of a bait made so, after what was weighed. `face_mm` is what the shop's own blanks tell
    of its faces [mm].
    """
    mass, rho = budget(design, measured), design.water.density_g_cm3
    frame = _Frame.of(design, mass, rho)
    prior = budget(design, Measured(parts=measured.parts))
    singles = {key for key, _, _ in measured.parts}
    rows: dict[str, _Row] = {}
    for part in prior.parts:
        name = _together(part, design, singles)
        row = rows.setdefault(name, _Row(group_of(part, design)))
        grams = part.sd_g * (-1.0 if is_cut(part) else 1.0)
        pushed = (part.outside_ml + part.film_ml) / part.mass_g * grams if part.mass_g > 0 else 0.0
        row.add(
            STAGES.index(part.stage),
            grams,
            pushed,
            frame.tilt(grams, part.at_mm[0], pushed, frame.hull_x if part.film_ml else part.at_mm[0]),
            rho,
        )
    error_rows = [
        *rows.values(),
        *_faces(design, prior, frame, "host" in singles, face_mm, rho),
        *_places(design, frame),
    ]
    water = design.water
    if water.measured_g_cm3 is None:
        slope = density(min(water.temperature_c + 0.5, 40.0), water.salinity_psu) - density(
            max(water.temperature_c - 0.5, -2.0), water.salinity_psu
        )
        error_rows.append(_Row("water", net=mass.displaced_ml * slope * WATER_SD_C))
    start = Errors(
        tuple(row.group for row in error_rows),
        np.array([row.masses for row in error_rows]),
        np.array([row.volume for row in error_rows]),
        np.array([row.net for row in error_rows]),
        np.array([row.tilt for row in error_rows]),
        np.eye(len(error_rows)),
    )
    return _after(start, design, measured)


def _after(start: Errors, design: Design, measured: Measured) -> Errors:
    left = start.left
    for stage, _, sd in sorted(measured.stages, key=lambda row: STAGES.index(row[0])):
        left = start.weighed(stage, sd, left)
    size = size_ml(design, measured)
    if size is not None:
        left = start.sized(size[1], left)
    return Errors(start.groups, start.masses, start.volumes, start.net, start.tilt, left)


class _Row:
    """One error: what one sigma of it does."""

    def __init__(self, group: str, net: float = 0.0, tilt: float = 0.0, volume: float = 0.0) -> None:
        self.group, self.net, self.tilt, self.volume = group, net, tilt, volume
        self.masses = np.zeros(len(STAGES))

    def add(self, stage: int, grams: float, pushed_ml: float, tilt: float, rho: float) -> None:
        self.masses[stage] += grams
        self.net += rho * pushed_ml - grams
        self.tilt += tilt


@dataclass(frozen=True)
class _Frame:
    """B and G, and what a gram or a millilitre at x turns the body by."""

    b_x: float
    g_x: float
    hull_x: float
    stiff: float
    rho: float

    @staticmethod
    def of(design: Design, mass: Budget, rho: float) -> "_Frame":
        hull = solid(design.body).centroid_mm
        b, g = np.array(buoyancy(hull, mass)), np.array(mass.g_mm)
        return _Frame(float(b[0]), float(g[0]), hull[0], mass.mass_g * max(float(b[2] - g[2]), 0.05), rho)

    def tilt(self, grams: float, at_x: float, pushed_ml: float, pushed_x: float) -> float:
        """Tangent of the pitch: a gram at x turns the body by its lever over the stiffness m·BG; what it
        displaces turns it back.
        """
        return (grams * (at_x - self.g_x) - self.rho * pushed_ml * (pushed_x - self.b_x)) / self.stiff


def _faces(
    design: Design, prior: Budget, frame: _Frame, weighed: bool, face_mm: float | None, rho: float
) -> list[_Row]:
    """The four faces: what each adds displaces, and weighs unless the blank was on the scale by itself."""
    host = design.host
    sigma = (
        host.face_mm
        if host.face_mm is not None
        else MADE_TRUE_TO[host.construction]
        if face_mm is None
        else face_mm
    )
    ways, turned = moved(design.body), []
    for ml, x in zip(sigma * ways.ml, ways.x_mm, strict=True):
        grams = 0.0 if weighed else prior.host_density_g_cm3 * ml
        row = _Row(VOLUME, volume=float(ml))
        row.add(0, grams, float(ml), frame.tilt(grams, x, float(ml), x), rho)
        turned.append(row)
    assert len(turned) == len(FACES)
    return turned


def _places(design: Design, frame: _Frame) -> Sequence[_Row]:
    """Slugs half a millimetre off their mark."""
    return [_Row("ballast", tilt=hole.mass_g * PLACE_SD_MM / frame.stiff) for hole in design.ballast]

"""The parts of a design as the budget sees them: mass, place, displacement, and where the figure is from."""

from dataclasses import dataclass
from functools import lru_cache

import numpy as np

from lamsik.core.materials import METALS
from lamsik.core.paints.coats import dry_mass_g, dry_volume_ml
from lamsik.core.shapes.allowances import CLEAR, GLUE, HOOKS, PAINT, STAGE
from lamsik.core.shapes.ballast_holes import hole_height_mm, slug_height_mm
from lamsik.core.shapes.design import Design
from lamsik.core.shapes.hardware import Point, eye_of, lip_point
from lamsik.core.shapes.hollow import inside_of, rod_points, share_inside
from lamsik.core.shapes.inside import cavity_point, pour_volume_ml
from lamsik.core.shapes.solid import segment_at, segments, solid

STAGES = ("carved", "sealed", "ballasted", "cleared", "rigged")
"""When the piece can be put on the scale, in order of work; `rigged` is the finished bait."""

WEIGHED, SHARED, LABEL, ASSUMED, ALLOWED = "weighed", "weighed together", "label", "assumed", "allowed for"
ESTIMATES = (LABEL, ASSUMED, ALLOWED)

FILM_G_CM3 = 1.2
"""Dried paint and clear that are only allowed for [g/cm³]; the coats of a scheme carry their own."""

HOOK_G_CM3 = METALS["steel"]


@dataclass(frozen=True)
class Part:
    """One row of the budget.

    `mass_g` is negative for material cut away. `outside_ml` is what the part displaces
    itself; `film_ml` what a coat adds to the hull. `hangs` parts swing: they act at `at_mm`
    whatever the attitude.
    """

    key: str
    name: str
    stage: str
    mass_g: float
    sd_g: float
    at_mm: Point
    status: str = ASSUMED
    outside_ml: float = 0.0
    film_ml: float = 0.0
    hangs: bool = False
    density_g_cm3: float = 1.0

    @property
    def is_estimate(self) -> bool:
        """Whether no scale has seen this part yet."""
        return self.status in ESTIMATES


def assumed(design: Design) -> list[Part]:
    """Every part as drawn, before a scale has seen any."""
    rows = [*_host_parts(design), *_shell_parts(design), *_ballast_parts(design), *_inside_parts(design), *_lip_parts(design), *_hardware_parts(design)]
    return [*rows, *_coat_parts(design), *_allowance_parts(design)]


def is_cut(part: Part) -> bool:
    """Whether it is host material cut away: its mass goes with the host's density."""
    return part.key.startswith("cut:")


def cut_ml(design: Design, key: str) -> float:
    """Host material [ml] that the cut of this key takes away; what lies in the hollow of a shell is not host any more."""
    if key == "cut:lip":
        return design.lip.slot_ml if design.lip else 0.0
    if key == "cut:shell":
        assert design.shell is not None
        return inside_of(design.body, design.shell.wall_mm).volume_mm3 / 1000.0
    pockets = {f"cut:{placed.key}": placed.item.pocket_ml for placed in design.hardware}
    bored = {row.key: row.whole_ml - row.hollow_ml for row in reversed(taken(design))}
    return bored[key] if key in bored else pockets.get(key, 0.0)


@dataclass(frozen=True)
class Taken:
    """What a hole, chamber or pour takes up [ml], and how much of that lies in the hollow of a shell."""

    key: str
    whole_ml: float
    hollow_ml: float


@lru_cache(maxsize=64)
def taken(design: Design) -> tuple[Taken, ...]:
    """Holes, chambers and poured ends with the share of each that lies in the hollow."""
    rows, body = [], design.body
    wall = design.shell.wall_mm if design.shell is not None else None
    for hole in design.ballast:
        at = (hole.x_mm, 0.0, hole_height_mm(body, hole))
        within = 0.0 if wall is None else share_inside(body, wall, rod_points(hole.drill_mm / 2, hole.depth_mm, at, 2))
        rows.append(Taken(f"cut:{hole.key}", hole.hole_ml, hole.hole_ml * within))
    for cavity in design.cavities:
        within = 0.0 if wall is None else share_inside(body, wall, rod_points(cavity.bore_mm / 2, cavity.length_mm, cavity_point(body, cavity), 0))
        rows.append(Taken(f"cut:{cavity.key}", cavity.volume_ml, cavity.volume_ml * within))
    for pour in design.pours:
        within = 0.0 if wall is None else inside_of(body, wall, pour.from_mm, pour.to_mm).volume_mm3 / 1000.0
        rows.append(Taken(f"cut:{pour.key}", pour_volume_ml(body, pour)[0], within))
    return tuple(rows)


def _host_parts(design: Design) -> list[Part]:
    shape, host = solid(design.body), design.host
    status = WEIGHED if host.source == "weighed" else ASSUMED
    blank = Part("host", f"{host.name} body", "carved", host.density_g_cm3 * shape.volume_ml, host.spread_g_cm3 * shape.volume_ml, shape.centroid_mm, status)
    others = [_segment_part(design, key) for key, _ in design.segment_hosts]
    if not design.glue_g:
        return [blank, *others]
    seats = [eye_of(design.hardware, design.body, p, design.lip) for p in design.hardware if p.item.kind in ("line_tie", "hanger")]
    middle = np.mean(seats, axis=0) if seats else np.array(shape.centroid_mm)
    glue = Part("glue", "glue", "ballasted", design.glue_g, design.glue_g * 0.3, (float(middle[0]), 0.0, float(middle[2])))
    return [blank, *others, glue]


def _segment_part(design: Design, key: str) -> Part:
    """What a segment of another material weighs more than the body's own in its place."""
    place = next(part for part in segments(design.body) if part.key == key)
    host = dict(design.segment_hosts)[key]
    at = {hole.key: (hole.x_mm, hole_height_mm(design.body, hole)) for hole in design.ballast}
    at |= {cavity.key: (cavity.x_mm, cavity_point(design.body, cavity)[2]) for cavity in design.cavities}
    cut = sum(cut_ml(design, f"cut:{name}") for name, (x, z) in at.items() if segment_at(design.body, x, z) == key)
    solid_ml = max(place.volume_ml - cut, 0.0)
    gain = (host.density_g_cm3 - design.host.density_g_cm3) * solid_ml
    return Part(f"segment:{key}", f"segment {key[1:]} in {host.name}", "carved", gain, host.spread_g_cm3 * solid_ml, place.centroid_mm)


def _shell_parts(design: Design) -> list[Part]:
    """A hollow body: the inside taken out, and what fills it."""
    if design.shell is None:
        return []
    inner, shell = inside_of(design.body, design.shell.wall_mm), design.shell
    rows = [_cut(design, "cut:shell", f"hollow, wall {shell.wall_mm:.1f} mm", inner.volume_mm3 / 1000.0, inner.centroid_mm, "carved")]
    if shell.fill_g_cm3 > 0:
        mass = shell.fill_g_cm3 * max(inner.volume_mm3 / 1000.0 - sum(row.hollow_ml for row in taken(design)), 0.0)
        rows.append(Part("fill:shell", f"{shell.fill} inside", "carved", mass, 0.08 * mass, inner.centroid_mm))
    return rows


def _ballast_parts(design: Design) -> list[Part]:
    rows: list[Part] = []
    for hole in design.ballast:
        at = (hole.x_mm, 0.0, slug_height_mm(design.body, hole))
        middle = (hole.x_mm, 0.0, hole_height_mm(design.body, hole))
        rows.append(Part(f"slug:{hole.key}", f"{hole.slug.name}, {hole.mass_g:.1f} g", "ballasted", hole.mass_g, 0.02 * hole.mass_g + 0.02, at))
        filled = (hole.x_mm, 0.0, middle[2] - hole.depth_mm / 2 + hole.filler_height_mm)
        rows.append(Part(f"fill:{hole.key}", "filler round the slug", "ballasted", hole.filler_g, 0.3 * hole.filler_g, filled))
        rows.append(_cut(design, f"cut:{hole.key}", "drilled out", cut_ml(design, f"cut:{hole.key}"), middle))
    return rows


def _inside_parts(design: Design) -> list[Part]:
    """Poured ends and balls in cavities: they are in the body from the start, so they are weighed with the blank."""
    rows: list[Part] = []
    for pour in design.pours:
        volume, at = pour_volume_ml(design.body, pour)
        mass = pour.density_g_cm3 * volume
        rows.append(Part(f"pour:{pour.key}", f"{pour.name}, poured", "carved", mass, 0.03 * mass, at))
        rows.append(_cut(design, f"cut:{pour.key}", "host it replaces", cut_ml(design, f"cut:{pour.key}"), at, "carved"))
    for cavity in design.cavities:
        at = cavity_point(design.body, cavity)
        rows.append(Part(f"balls:{cavity.key}", f"{cavity.count} × {cavity.slug.name}", "carved", cavity.mass_g, 0.02 * cavity.mass_g, at))
        rows.append(_cut(design, f"cut:{cavity.key}", "chamber", cut_ml(design, f"cut:{cavity.key}"), at, "carved"))
    return rows


def _cut(design: Design, key: str, name: str, volume_ml: float, at: Point, stage: str = "ballasted") -> Part:
    host = design.host
    return Part(key, name, stage, -host.density_g_cm3 * volume_ml, host.spread_g_cm3 * volume_ml, at, film_ml=0.0)


def _lip_parts(design: Design) -> list[Part]:
    lip = design.lip
    if lip is None:
        return []
    at = lip_point(design.body, lip, (lip.length_mm - lip.inset_mm) / 2)
    slot = lip_point(design.body, lip, -lip.inset_mm / 2)
    whole = lip.whole_g
    status = ASSUMED if lip.mass_g is None else WEIGHED
    plate = Part("lip", lip.name, "ballasted", whole, 0.05 * whole, at, status, outside_ml=whole * lip.outside_share / lip.density_g_cm3, density_g_cm3=lip.density_g_cm3)
    return [plate, _cut(design, "cut:lip", "lip slot", lip.slot_ml, slot)]


def _hardware_parts(design: Design) -> list[Part]:
    rows = []
    for placed in design.hardware:
        item = placed.item
        stage = "rigged" if item.kind in ("hook", "ring") else "ballasted"
        at = eye_of(design.hardware, design.body, placed, design.lip)
        sd = 0.005 if item.weighed else 0.06 * item.mass_g
        rows.append(
            Part(placed.key, item.name, stage, item.mass_g, sd, at, WEIGHED if item.weighed else LABEL,
                 outside_ml=item.mass_g * item.outside_share / item.density_g_cm3,
                 film_ml=-item.water_ml, hangs=item.kind in ("hook", "ring"), density_g_cm3=item.density_g_cm3)
        )  # fmt: skip
        if item.pocket_ml > 0:
            rows.append(_cut(design, f"cut:{placed.key}", f"bore for {item.name}", item.pocket_ml, at))
    return rows


def _coat_parts(design: Design) -> list[Part]:
    shape = solid(design.body)
    rows = []
    for coat in design.coats:
        stage = "sealed" if coat.role == "seal" else "cleared"
        mass = dry_mass_g(coat, shape.area_mm2)
        rows.append(
            Part(
                f"coat:{coat.key}",
                coat.name,
                stage,
                mass,
                0.25 * mass,
                shape.area_centroid_mm,
                film_ml=dry_volume_ml(coat, shape.area_mm2),
                density_g_cm3=coat.density_g_cm3,
            )
        )
    return rows


def _allowance_parts(design: Design) -> list[Part]:
    """What is set aside for things to come; each steps aside once the thing itself is on the design."""
    rows = []
    for row in design.allowances:
        if not replaced_by(design, row.kind):
            at = _allowance_point(design, row.kind)
            film = row.mass_g / FILM_G_CM3 if row.kind in (PAINT, CLEAR) else 0.0
            outside = row.mass_g / HOOK_G_CM3 if row.kind == HOOKS else 0.0
            rows.append(
                Part(
                    f"allow:{row.key}", row.name, STAGE[row.kind], row.mass_g, row.spread_g, at, ALLOWED,
                    outside_ml=outside, film_ml=film, hangs=row.kind == HOOKS, density_g_cm3=HOOK_G_CM3 if outside else FILM_G_CM3,
                )
            )  # fmt: skip
    return rows


def replaced_by(design: Design, kind: str) -> str:
    """What stands on the design in an allowance's place; empty while the allowance counts."""
    if kind == PAINT and any(coat.role not in ("seal", "clear", "eyes") for coat in design.coats):
        return "the scheme's coats"
    if kind == CLEAR and any(coat.role == "clear" for coat in design.coats):
        return "the scheme's clear"
    if kind == GLUE and design.glue_g > 0:
        return "the glue on the design"
    if kind == HOOKS and any(placed.item.kind == "hook" for placed in design.hardware):
        return "the hooks on it"
    return ""


def _allowance_point(design: Design, kind: str) -> Point:
    """Where it will act: coats on the skin, hooks at the hangers, the rest in the middle of the body."""
    shape = solid(design.body)
    if kind in (PAINT, CLEAR):
        return shape.area_centroid_mm
    hangers = [eye_of(design.hardware, design.body, p, design.lip) for p in design.hardware if p.item.kind == "hanger"]
    if kind == HOOKS and hangers:
        middle = np.mean(hangers, axis=0)
        return (float(middle[0]), 0.0, float(middle[2]))
    return shape.centroid_mm

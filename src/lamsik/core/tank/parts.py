"""The parts of a design as the budget sees them: mass, place, displacement, and where the figure is from."""

from dataclasses import dataclass

import numpy as np

from lamsik.core.findings import Finding, finding
from lamsik.core.materials import METALS
from lamsik.core.paints.dressed import layers_on
from lamsik.core.paints.roles import CLEARS, COLOURS, GROUNDS, SEALS
from lamsik.core.quantities import said
from lamsik.core.shapes.allowances import CLEAR, GLUE, HOOKS, PAINT, STAGE
from lamsik.core.shapes.ballast_holes import hole_height_mm, slug_height_mm
from lamsik.core.shapes.design import Design
from lamsik.core.shapes.hardware import Point, eye_of, lip_point
from lamsik.core.shapes.inside import cavity_point
from lamsik.core.shapes.solid import segments, solid
from lamsik.core.shapes.space import Space, SpacePiece, less, slug_and_filler, space_of, total
from lamsik.core.shapes.things import BORE, CHAMBER, HOLE, PLATE

STAGES = ("carved", "sealed", "ballasted", "cleared", "rigged")
"""When the piece can be put on the scale, in order of work; `rigged` is the finished bait."""

WEIGHED, SHARED, LABEL, ASSUMED, ALLOWED = "weighed", "weighed together", "label", "assumed", "allowed for"
ESTIMATES = (LABEL, ASSUMED, ALLOWED)

FILM_G_CM3 = 1.2
"""Dried paint and clear that are only allowed for [g/cm³]; the layers of a scheme carry their own."""

HOOK_G_CM3 = METALS["steel"]


@dataclass(frozen=True)
class Part:
    """One row of the budget.

    `mass_g` is negative for material cut away. `outside_ml` is what the part displaces itself; `film_ml` what
    a coat adds to the hull. `hangs` parts swing: they act at `at_mm` whatever the attitude. `cut_ml` is the
    host material [ml] that is cut away; `pieces` are the rooms it has in each segment, where it has any.
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
    cut_ml: float = 0.0
    pieces: tuple[SpacePiece, ...] = ()

    @property
    def is_estimate(self) -> bool:
        """Whether no scale has seen this part yet."""
        return self.status in ESTIMATES


def assumed(design: Design) -> list[Part]:
    """Every part as drawn, before a scale has seen any."""
    space = space_of(design)
    rows = [
        *_host_parts(design, space),
        *_shell_parts(design, space),
        *_ballast_parts(design, space),
        *_inside_parts(design, space),
    ]
    return [
        *rows,
        *_lip_parts(design, space),
        *_hardware_parts(design, space),
        *_layer_parts(design),
        *_allowance_parts(design),
    ]


TWO_DENSITIES = ", in two densities"


def is_cut(part: Part) -> bool:
    """Whether it is host material cut away: its mass goes with the host's density."""
    return part.key.startswith("cut:")


def _host_parts(design: Design, space: Space) -> list[Part]:
    shape, host = solid(design.body), design.host
    status = WEIGHED if host.source == "weighed" else ASSUMED
    off = host.uneven_mm or (0.0, 0.0, 0.0)
    x, y, z = (middle + shift for middle, shift in zip(shape.centroid_mm, off, strict=True))
    blank = Part(
        "host",
        f"{host.name} body{TWO_DENSITIES if host.uneven_mm else ''}",
        "carved",
        host.density_g_cm3 * shape.volume_ml,
        host.spread_g_cm3 * shape.volume_ml,
        (x, y, z),
        status,
    )
    others = [_segment_part(design, space, key) for key, _ in design.segment_hosts]
    if not design.glue_g:
        return [blank, *others]
    seats = [
        eye_of(design.hardware, design.body, p, design.lip) for p in design.hardware if p.item.of.is_screwed
    ]
    middle = np.mean(seats, axis=0) if seats else np.array(shape.centroid_mm)
    glue = Part(
        "glue",
        "glue",
        "ballasted",
        design.glue_g,
        design.glue_g * 0.3,
        (float(middle[0]), 0.0, float(middle[2])),
    )
    return [blank, *others, glue]


def _segment_part(design: Design, space: Space, key: str) -> Part:
    """What a segment of another material weighs more than the body's own in its place: what of it is left,
    with the walls in its hollow.
    """
    place = next(part for part in segments(design.body) if part.key == key)
    host = dict(design.segment_hosts)[key]
    x, y, z = (place.volume_mm3 * v for v in place.centroid_mm)
    gone = [
        *space.hollow,
        *(piece for row in space.taken for piece in row.host),
        *(piece for _, rows in space.pours for piece in rows),
    ]
    left = total(
        row
        for row in less([SpacePiece(key, place.volume_mm3, (x, y, z)), *space.walls], gone)
        if row.segment == key
    )
    volume = left.volume_mm3 / 1000.0
    gain = (host.density_g_cm3 - design.host.density_g_cm3) * volume
    return Part(
        f"segment:{key}",
        f"segment {key[1:]} in {host.name}",
        "carved",
        gain,
        host.spread_g_cm3 * volume,
        left.at_mm if volume > 0 else place.centroid_mm,
    )


def _shell_parts(design: Design, space: Space) -> list[Part]:
    """A hollow body: the inside taken out but for the walls round what sits in it, and what fills it."""
    shell = design.shell
    if shell is None:
        return []
    rows = [
        _cut(
            design,
            "shell",
            f"hollow, wall {said(shell.wall_mm, 'length')}",
            less(space.hollow, space.walls),
            solid(design.body).centroid_mm,
            "carved",
        )
    ]
    if shell.fill_g_cm3 > 0:
        inner = space.left_hollow
        mass = shell.fill_g_cm3 * _ml(inner)
        rows.append(
            Part(
                "fill:shell",
                f"{shell.fill} inside",
                "carved",
                mass,
                0.08 * mass,
                _middle(inner, rows[0].at_mm),
                pieces=inner,
            )
        )
    return rows


def _ballast_parts(design: Design, space: Space) -> list[Part]:
    rows: list[Part] = []
    for hole in design.ballast:
        taken = space.of(HOLE, hole.key)
        at = (hole.x_mm, 0.0, slug_height_mm(design.body, hole))
        middle = (hole.x_mm, 0.0, hole_height_mm(design.body, hole))
        rows.append(
            Part(
                f"slug:{hole.key}",
                f"{hole.slug.name}, {said(hole.mass_g, 'mass', 1)}",
                "ballasted",
                hole.mass_g,
                0.02 * hole.mass_g + 0.02,
                at,
            )
        )
        _, filler = slug_and_filler(design.body, hole, taken.whole)
        mass = hole.filler_g_cm3 * _ml(filler)
        rows.append(
            Part(
                f"fill:{hole.key}",
                "filler round the slug",
                "ballasted",
                mass,
                0.3 * mass,
                _middle(filler, middle),
                pieces=filler,
            )
        )
        rows.append(_cut(design, hole.key, "drilled out", taken.host, middle))
    return rows


def _inside_parts(design: Design, space: Space) -> list[Part]:
    """Poured ends and balls in cavities: they are in the body from the start, so they are weighed with the
    blank.
    """
    rows: list[Part] = []
    for pour in design.pours:
        whole, left = dict(space.pours)[pour.key], space.left_of_pour(pour.key)
        between = ((pour.from_mm + pour.to_mm) / 2, 0.0, 0.0)
        mass = pour.density_g_cm3 * _ml(left)
        rows.append(
            Part(
                f"pour:{pour.key}",
                f"{pour.name}, poured",
                "carved",
                mass,
                0.03 * mass,
                _middle(left, between),
                pieces=left,
            )
        )
        rows.append(_cut(design, pour.key, "host it replaces", whole, between, "carved"))
    for cavity in design.cavities:
        at = cavity_point(design.body, cavity)
        rows.append(
            Part(
                f"balls:{cavity.key}",
                f"{cavity.count} × {cavity.slug.name}",
                "carved",
                cavity.mass_g,
                0.02 * cavity.mass_g,
                at,
            )
        )
        rows.append(_cut(design, cavity.key, "chamber", space.of(CHAMBER, cavity.key).host, at, "carved"))
    return rows


def _ml(pieces: tuple[SpacePiece, ...]) -> float:
    return sum(piece.volume_mm3 for piece in pieces) / 1000.0


def _middle(pieces: tuple[SpacePiece, ...], otherwise: Point) -> Point:
    whole = total(pieces)
    return whole.at_mm if whole.volume_mm3 > 0 else otherwise


def _cut(
    design: Design, key: str, name: str, pieces: tuple[SpacePiece, ...], at: Point, stage: str = "ballasted"
) -> Part:
    host, volume = design.host, _ml(pieces)
    return Part(
        f"cut:{key}",
        name,
        stage,
        -host.density_g_cm3 * volume,
        host.spread_g_cm3 * volume,
        _middle(pieces, at),
        film_ml=0.0,
        cut_ml=volume,
        pieces=pieces,
    )


def _lip_parts(design: Design, space: Space) -> list[Part]:
    """The plate displaces what of it is not in the body: a lip wider than the nose it sits in stands out
    beside its slot.
    """
    lip = design.lip
    if lip is None:
        return []
    at = lip_point(design.body, lip, (lip.length_mm - lip.inset_mm) / 2)
    slot = lip_point(design.body, lip, -lip.inset_mm / 2)
    whole = lip.whole_g
    taken = space.of(PLATE, "lip") if lip.inset_mm > 0 else None
    outside = 1.0 - (_ml(taken.whole) / lip.plate_ml if taken else 0.0)
    status = ASSUMED if lip.mass_g is None else WEIGHED
    plate = Part(
        "lip",
        lip.name,
        "ballasted",
        whole,
        0.05 * whole,
        at,
        status,
        outside_ml=max(outside, 0.0) * whole / lip.density_g_cm3,
        density_g_cm3=lip.density_g_cm3,
    )
    return [plate, *([_cut(design, "lip", "lip slot", taken.host, slot)] if taken else [])]


def _hardware_parts(design: Design, space: Space) -> list[Part]:
    rows = []
    for placed in design.hardware:
        item = placed.item
        stage = "rigged" if item.kind in ("hook", "ring") else "ballasted"
        at = eye_of(design.hardware, design.body, placed, design.lip)
        sd = 0.005 if item.weighed else 0.06 * item.mass_g
        rows.append(
            Part(
                placed.key,
                item.name,
                stage,
                item.mass_g,
                sd,
                at,
                WEIGHED if item.weighed else LABEL,
                outside_ml=item.mass_g * item.outside_share / item.density_g_cm3,
                film_ml=-item.water_ml,
                hangs=item.kind in ("hook", "ring"),
                density_g_cm3=item.density_g_cm3,
            )
        )
        if item.pocket_ml > 0:
            rows.append(
                _cut(design, placed.key, f"bore for {item.name}", space.of(BORE, placed.key).host, at)
            )
    return rows


def _layer_parts(design: Design) -> list[Part]:
    """Each layer where it lies on the skin: a heavy back fade lifts the centre of mass, one side leans it."""
    return [
        Part(
            f"coat:{layer.key}",
            layer.name,
            "sealed" if layer.does == SEALS else "cleared",
            on.mass_g,
            0.25 * on.mass_g,
            on.at_mm,
            film_ml=on.film_ml,
            density_g_cm3=layer.paint.density_g_cm3,
            pieces=tuple(_piece_of(key, share, at) for key, share, at in on.segments),
        )
        for layer, on in layers_on(design)
    ]


def _piece_of(segment: str, share: float, at: Point) -> SpacePiece:
    """What of a layer a segment has, as a share of all of it."""
    return SpacePiece(segment, share, (share * at[0], share * at[1], share * at[2]))


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
                    f"allow:{row.key}",
                    row.name,
                    STAGE[row.kind],
                    row.mass_g,
                    row.spread_g,
                    at,
                    ALLOWED,
                    outside_ml=outside,
                    film_ml=film,
                    hangs=row.kind == HOOKS,
                    density_g_cm3=HOOK_G_CM3 if outside else FILM_G_CM3,
                )
            )
    return rows


def replaced_by(design: Design, kind: str) -> Finding | None:
    """What stands on the design in an allowance's place; nothing while the allowance counts."""
    if kind == PAINT and any(one.does in (GROUNDS, COLOURS) for one in design.layers):
        return finding("schemes-coats")
    if kind == CLEAR and any(one.does == CLEARS for one in design.layers):
        return finding("schemes-clear")
    if kind == GLUE and design.glue_g > 0:
        return finding("glue-on-design")
    if kind == HOOKS and any(placed.item.kind == "hook" for placed in design.hardware):
        return finding("hooks-on-it")
    return None


def _allowance_point(design: Design, kind: str) -> Point:
    """Where it will act: coats on the skin, hooks at the hangers, the rest in the middle of the body."""
    shape = solid(design.body)
    if kind in (PAINT, CLEAR):
        return shape.area_centroid_mm
    hangers = [
        eye_of(design.hardware, design.body, p, design.lip)
        for p in design.hardware
        if p.item.kind == "hanger"
    ]
    if kind == HOOKS and hangers:
        middle = np.mean(hangers, axis=0)
        return (float(middle[0]), 0.0, float(middle[2]))
    return shape.centroid_mm

"""What lies where in a body, by booleans of closed meshes: what the account of space is held against. It
shares no step of it.
"""

from dataclasses import replace
from functools import lru_cache
from math import cos, radians, sin

import manifold3d as m3
import numpy as np
from scipy.spatial import cKDTree
from skimage.measure import marching_cubes

from lamsik.core.shapes.ballast_holes import Hole
from lamsik.core.shapes.body import station
from lamsik.core.shapes.clashes import clashes
from lamsik.core.shapes.design import Host
from lamsik.core.shapes.forms import FORMS, body_from
from lamsik.core.shapes.hardware import Item, Lip, Placement, lip_outline
from lamsik.core.shapes.hollow import Shell
from lamsik.core.shapes.inside import Cavity, PouredEnd
from lamsik.core.shapes.joints import Joint
from lamsik.core.shapes.mesh import body_mesh
from lamsik.core.shapes.solid import solid
from lamsik.core.shapes.space import account
from lamsik.core.tank.mass import budget
from tests.bodies import LEAD_BALL, LEAD_ROD, LEAD_ROD_6, TUNGSTEN, homogeneous

TUBE = Item(
    "tube", "line tube", "tube", 0.14, 0.95, 0.0, material="plastic", wire_mm=3.0, shank_mm=40.0, bore_mm=2.0
)
RATTLE = Item("rattle", "rattle", "rattle", 0.85, 2.2, 0.0, material="glass", wire_mm=5.0, shank_mm=18.0)
WIRE = Item("wire", "through-wire", "wire", 0.75, 7.85, 0.15, wire_mm=1.2, shank_mm=200.0)
FAR = 400.0


def closed(vertices, faces):
    raw = m3.Mesh(
        vert_properties=np.asarray(vertices, dtype=np.float32), tri_verts=np.asarray(faces, dtype=np.uint32)
    )
    raw.merge()
    return m3.Manifold(raw)


@lru_cache(maxsize=16)
def hull(body):
    mesh = body_mesh(body, 220, 150)
    return closed(mesh.vertices, mesh.faces)


@lru_cache(maxsize=16)
def inner(body, wall, cell=0.4):
    """Every point at least a wall from the skin, by the distance to the nearest of very many points on it."""
    skin = body_mesh(body, 500, 300)
    corners = skin.vertices[skin.faces]
    normals = np.zeros_like(skin.vertices)
    for k in range(3):
        np.add.at(
            normals, skin.faces[:, k], np.cross(corners[:, 1] - corners[:, 0], corners[:, 2] - corners[:, 0])
        )
    normals /= np.maximum(np.linalg.norm(normals, axis=1), 1e-12)[:, None]
    low, high = body_mesh(body, 60, 48).vertices.min(axis=0), body_mesh(body, 60, 48).vertices.max(axis=0)
    axes = [np.arange(a - 2 * cell, b + 3 * cell, cell) for a, b in zip(low, high, strict=True)]
    points = np.stack(np.meshgrid(*axes, indexing="ij"), axis=-1)
    there = within(body, points)
    far = wall + 2 * cell
    near = np.full(there.shape, -far)
    away, at = cKDTree(skin.vertices).query(points[there], distance_upper_bound=far, workers=2)
    found = np.isfinite(away)
    # the point found is near, not nearest: its tangent plane is, where the skin is smooth
    to_plane = np.abs(
        np.einsum("ij,ij->i", points[there][found] - skin.vertices[at[found]], normals[at[found]])
    )
    away[found] = np.where(away[found] - to_plane < 0.04, to_plane, away[found])
    near[there] = np.minimum(away, far)
    # a flat end has no points in its middle: the plane's own distance stands for them
    from_end = np.minimum(points[..., 0] - low[0], high[0] - points[..., 0])
    near = np.minimum(near, np.where(is_flat(body, points), from_end, near))
    vertices, faces, _, _ = marching_cubes(near, wall, spacing=(cell,) * 3)
    return closed(vertices + np.array([axis[0] for axis in axes]), faces[:, ::-1])


def within(body, points):
    x = points[:, 0, 0, 0]
    found = np.zeros(points.shape[:3], dtype=bool)
    for n, at in enumerate(x):
        if 0 <= at <= body.length_mm:
            here = station(body, float(at))
            y, z = points[n, :, :, 1], points[n, :, :, 2]
            up = z >= here.widest_mm
            exponent = np.where(up, body.upper_exponent, body.lower_exponent)
            reach = np.where(up, here.top_mm - here.widest_mm, here.widest_mm - here.bottom_mm)
            found[n] = (np.abs(y) / max(here.half_width_mm, 1e-9)) ** exponent + (
                np.abs(z - here.widest_mm) / np.maximum(reach, 1e-9)
            ) ** exponent <= 1.0
    return found


def is_flat(body, points):
    """Whether an end of the body is a face that is nearer than its rim."""
    blunt = [
        station(body, x).half_width_mm > 0.3 and station(body, x).top_mm - station(body, x).bottom_mm > 0.6
        for x in (0.0, body.length_mm)
    ]
    return np.where(points[..., 0] < body.length_mm / 2, blunt[0], blunt[1]) & within_ends(body, points)


def within_ends(body, points):
    found = np.zeros(points.shape[:3], dtype=bool)
    for end, side in (
        (0.0, points[..., 0] < body.length_mm / 2),
        (body.length_mm, points[..., 0] >= body.length_mm / 2),
    ):
        here = station(body, end)
        reach = np.where(
            points[..., 2] >= here.widest_mm, here.top_mm - here.widest_mm, here.widest_mm - here.bottom_mm
        )
        exponent = np.where(points[..., 2] >= here.widest_mm, body.upper_exponent, body.lower_exponent)
        inside = (np.abs(points[..., 1]) / max(here.half_width_mm, 1e-9)) ** exponent + (
            np.abs(points[..., 2] - here.widest_mm) / np.maximum(reach, 1e-9)
        ) ** exponent <= 1
        found |= side & inside
    return found


def behind(x, slant, axis):
    """All space behind a face that crosses the axis at x and leans aft by its slant at the top."""
    return (
        m3.Manifold.cube((FAR, FAR, FAR))
        .translate((0, -FAR / 2, -FAR / 2))
        .rotate((0, slant, 0))
        .translate((x, 0, axis))
    )


def stretch(whole, fore, aft, axis):
    """What of it lies behind one face (x, slant) and ahead of another; None is none."""
    found = whole if fore is None else whole ^ behind(*fore, axis)
    return found if aft is None else found - behind(*aft, axis)


def upright(x, radius, low, tall, sides):
    return m3.Manifold.batch_boolean(
        [m3.Manifold.cylinder(tall, radius, radius, 200).translate((x, y, low)) for y in sides], m3.OpType.Add
    )


def floor(body, x, y):
    here = station(body, x)
    return here.widest_mm - (here.widest_mm - here.bottom_mm) * (
        1 - (abs(y) / here.half_width_mm) ** body.lower_exponent
    ) ** (1 / body.lower_exponent)


def lying(ends, radius):
    (x0, z0), (x1, z1) = ends
    long = np.hypot(x1 - x0, z1 - z0)
    return (
        m3.Manifold.cylinder(long, radius, radius, 200)
        .rotate((0, 90, 0))
        .rotate((0, -np.degrees(np.arctan2(z1 - z0, x1 - x0)), 0))
        .translate((x0, 0, z0))
    )


def plate(body, lip, wall=0.0):
    rows = lip_outline(lip, 24)
    if wall:  # the slot's own walls: beside it, and ahead of its inner edge
        root = abs(rows[0, 1]) + wall
        rows = np.array(
            [(-lip.inset_mm - wall, root), (0.0, root), (0.0, -root), (-lip.inset_mm - wall, -root)]
        )
    flat = (
        m3.CrossSection([[(a, b) for a, b in rows[::-1]]])
        .extrude(lip.thickness_mm + 2 * wall)
        .translate((0, 0, -lip.thickness_mm / 2 - wall))
    )
    here, angle = station(body, lip.x_mm), radians(lip.angle_deg)
    # along the plate is forward and down, across it is up and forward
    along, side = np.array([-cos(angle), 0, -sin(angle)]), np.array([0.0, 1.0, 0.0])
    frame = np.column_stack([along, side, np.cross(along, side), [lip.x_mm, 0.0, here.bottom_mm]])
    return flat.transform(frame)


def bored(body, placed):
    item, here = placed.item, station(body, placed.x_mm)
    if item.kind == "wire":
        return lying([(x, station(body, x).middle_mm) for x in (0.0, body.length_mm)], item.wire_mm / 2)
    z = here.middle_mm if placed.up_mm is None else here.bottom_mm + placed.up_mm
    return lying(
        [
            (max(placed.x_mm - item.shank_mm / 2, 0), z),
            (min(placed.x_mm + item.shank_mm / 2, body.length_mm), z),
        ],
        item.wire_mm / 2,
    )


def things(design, wall=0.0):
    """Everything set into the body: (kind, key) → its shape, with a wall round it."""
    body, found = design.body, {}
    for hole in design.ballast:
        sides = (-hole.beside_mm, hole.beside_mm) if hole.beside_mm else (0.0,)
        each = (
            hole.mass_g / len(sides) * 1000 / hole.slug.density_g_cm3 / (np.pi / 4 * hole.slug.diameter_mm**2)
        )
        low = floor(body, hole.x_mm, hole.beside_mm)
        found["hole", hole.key] = upright(
            hole.x_mm, hole.drill_mm / 2 + wall, low - 5.0, each + hole.cover_mm + wall + 5.0, sides
        )
    for c in design.cavities:
        z = station(body, c.x_mm).bottom_mm + c.up_mm
        found["chamber", c.key] = lying(
            [(c.x_mm - c.length_mm / 2 - wall, z), (c.x_mm + c.length_mm / 2 + wall, z)], c.bore_mm / 2 + wall
        )
    for placed in design.hardware:
        if placed.item.pocket_ml > 0:
            item = replace(
                placed.item, wire_mm=placed.item.wire_mm + 2 * wall, shank_mm=placed.item.shank_mm + 2 * wall
            )
            found["bore", placed.key] = bored(body, replace(placed, item=item))
    if design.lip:
        found["plate", "lip"] = plate(body, design.lip, wall)
    return found


def measured(solid_):
    """Volume [mm³] and first moment of a closed mesh, by signed tetrahedra."""
    mesh = solid_.to_mesh()
    points, faces = np.asarray(mesh.vert_properties, dtype=float)[:, :3], np.asarray(mesh.tri_verts)
    if not len(faces):
        return 0.0, np.zeros(3)
    a, b, c = (points[faces[:, k]] for k in range(3))
    sixth = np.einsum("ij,ij->i", a, np.cross(b, c)) / 6
    return float(sixth.sum()), sixth @ (a + b + c) / 4


CELLS = (0.7, 0.5)
"""A mesh of a curved skin is short by the square of its cells [mm]: two of them tell what none would be."""


def between_cells(solids):
    """What is measured of a solid with an inside of each of the cells, as it were without any."""
    rough, fine = map(measured, solids)
    on = CELLS[1] ** 2 / (CELLS[0] ** 2 - CELLS[1] ** 2)
    return tuple(b + on * (b - a) for a, b in zip(rough, fine, strict=True))


def by_booleans(design):
    """Every share of the body: (kind, key, segment) → volume [mm³] and first moment."""
    body, shell = design.body, design.shell
    uncut = replace(body, joints=())
    whole, found = hull(uncut), {}
    axis = (whole.bounding_box()[2] + whole.bounding_box()[5]) / 2  # the middle of the depth
    faces = [None]
    for joint in body.joints:
        half = joint.kerf_mm / 2 / cos(radians(joint.slant_deg))
        faces += [(joint.x_mm - half, joint.slant_deg), (joint.x_mm + half, joint.slant_deg)]
    faces.append(None)
    pairs = list(zip(faces[::2], faces[1::2], strict=True))
    for joint, (fore, aft) in zip(body.joints, zip(faces[1:-1:2], faces[2:-1:2], strict=True), strict=True):
        found["kerf", joint.key, ""] = measured(stretch(whole, fore, aft, axis))
    set_in = things(design)
    grown = things(design, shell.around_mm) if shell and shell.around_mm else {}
    pours = {
        p.key: stretch(
            whole,
            (p.from_mm, p.tilt_deg) if p.from_mm > 0.01 else None,
            (p.to_mm, p.tilt_deg) if p.to_mm < body.length_mm - 0.01 else None,
            axis,
        )
        for p in design.pours
    }
    for n, (fore, aft) in enumerate(pairs, start=1):
        segment = stretch(whole, fore, aft, axis)
        left = segment
        for (kind, key), shape in set_in.items():
            found[kind, key, f"s{n}"] = measured(shape ^ segment)
            left = left - shape
        for key, poured in pours.items():
            found["pour", key, f"s{n}"] = measured(poured ^ left)
            left = left - poured
        if shell:
            walls = [
                f and (f[0] + way * shell.wall_mm / cos(radians(f[1])), f[1])
                for f, way in ((fore, 1), (aft, -1))
            ]
            hollows = [stretch(inner(uncut, shell.wall_mm, cell), *walls, axis) ^ left for cell in CELLS]
            for shape in grown.values():
                hollows = [hollow - shape for hollow in hollows]
            found["void", "shell", f"s{n}"] = between_cells(hollows)
            found["host", f"s{n}", f"s{n}"] = between_cells([left - hollow for hollow in hollows])
        else:
            found["host", f"s{n}", f"s{n}"] = measured(left)
    return found


def by_account(design):
    """The same shares out of the account; slug and filler of a hole, balls and pocket of a chamber put
    together again.
    """
    found = {}
    for cell in account(design):
        kind, key = (
            cell.key.split(":")
            if ":" in cell.key
            else ({"shell": "host"}.get(cell.kind, cell.kind), cell.key)
        )
        before = found.get((kind, key, cell.piece.segment), (0.0, np.zeros(3)))
        found[kind, key, cell.piece.segment] = (
            before[0] + cell.piece.volume_mm3,
            before[1] + np.array(cell.piece.moment),
        )
    return found


def mass_of(design, shares):
    """Mass [g] of a body with these shares: hosts and fills by volume, slugs, balls and parts by their own
    mass.
    """
    hosts = dict(design.segment_hosts)
    pours = {p.key: p.density_g_cm3 for p in design.pours}
    holes = {h.key: h for h in design.ballast}
    grams = (
        sum(h.mass_g for h in design.ballast)
        + sum(c.mass_g for c in design.cavities)
        + sum(p.item.mass_g for p in design.hardware)
    )
    grams += design.lip.whole_g if design.lip else 0.0
    for (kind, key, segment), (volume, _) in shares.items():
        if kind == "host":
            grams += hosts.get(segment, design.host).density_g_cm3 * volume / 1000
        elif kind == "void":
            grams += design.shell.fill_g_cm3 * volume / 1000
        elif kind == "pour":
            grams += pours[key] * volume / 1000
        elif kind == "hole":
            grams += holes[key].filler_g_cm3 * volume / 1000
    return grams - sum(h.filler_g_cm3 * h.mass_g / h.slug.density_g_cm3 for h in design.ballast)


@lru_cache
def bodies(count=6):
    """A few bodies, each with the wall it has when it is hollow."""
    random = np.random.default_rng(3)
    found = []
    for start in ("slim", "stubby", "glider", "deepflank", "walker", "popper")[:count]:
        body = body_from(
            FORMS[start], random.uniform(85, 120), random.uniform(20, 28), random.uniform(15, 20)
        )
        exponents = (float(random.choice([1.8, 2.0, 2.6])), float(random.choice([1.7, 2.0, 2.4])))
        found.append(
            (
                start,
                replace(body, upper_exponent=exponents[0], lower_exponent=exponents[1]),
                float(np.round(random.uniform(1.2, 2.4), 1)),
            )
        )
    return found


ALL = (0, 1, 2, 3, 4, 5)


def combination(random, pool=ALL):
    """A random design with some of everything."""
    start, body, wall = bodies()[int(random.choice(pool))]
    length, joints = body.length_mm, []
    for n in range(int(random.choice([0, 0, 1, 2]))):
        joints.append(
            Joint(
                f"j{n}",
                length * (0.42 + 0.25 * n),
                float(random.uniform(-14, 14)),
                float(random.uniform(0.8, 2.5)),
            )
        )
    body = replace(body, joints=tuple(joints))
    holes = tuple(
        Hole(
            f"k{n}",
            slug,
            float(np.round(random.uniform(0.8, 2.4), 1)),
            float(length * random.uniform(0.2, 0.75)),
            slug.diameter_mm + 0.5,
        )
        for n in range(int(random.integers(0, 4)))
        for slug in [LEAD_ROD, LEAD_ROD_6, TUNGSTEN][n : n + 1]
    )
    holes = tuple(
        replace(hole, beside_mm=hole.drill_mm / 2 + 1.2) if random.random() < 0.3 else hole for hole in holes
    )
    cavities = (
        (
            Cavity(
                "k0",
                LEAD_BALL,
                int(random.integers(1, 3)),
                length * random.uniform(0.3, 0.7),
                float(random.uniform(8, 11)),
            ),
        )
        if random.random() < 0.5
        else ()
    )
    tilt = float(random.uniform(-20, 20))
    front = random.random() < 0.3
    pours = (
        (
            PouredEnd(
                "k0", "dense", 1.6, 0.0 if front else length * 0.8, length * 0.18 if front else length, tilt
            ),
        )
        if random.random() < 0.5
        else ()
    )
    bores = []
    if random.random() < 0.4:
        item = [TUBE, RATTLE, WIRE][int(random.integers(0, 3))]
        bores.append(
            Placement(
                "k1", item, "inside", length * random.uniform(0.35, 0.65), up_mm=float(random.uniform(9, 13))
            )
        )
    lip = (
        Lip(
            float(random.uniform(10, 22)),
            20.0,
            1.5,
            1.2,
            float(random.uniform(0, 90)),
            length * random.uniform(0.06, 0.14),
            float(random.uniform(4, 9)),
        )
        if random.random() < 0.5
        else None
    )
    shell = None
    if random.random() < 0.5:
        shell = Shell(
            wall,
            *((0.0, "air") if random.random() < 0.5 else (0.05, "foam")),
            float(random.choice([0.0, 1.0, 1.6])),
        )
    others = (("s2", Host("resin", 1.12, 0.02)),) if joints and random.random() < 0.6 else ()
    return replace(
        homogeneous(body, float(random.uniform(0.2, 1.1))),
        form=start,
        ballast=holes,
        cavities=cavities,
        pours=pours,
        hardware=tuple(bores),
        lip=lip,
        shell=shell,
        segment_hosts=others,
    )


def combinations_(count, seed=5, pool=ALL):
    """Random designs that can be built."""
    random, found = np.random.default_rng(seed), []
    while len(found) < count:
        design = combination(random, pool)
        busy = sum(
            map(
                bool,
                (
                    design.ballast,
                    design.cavities,
                    design.pours,
                    design.hardware,
                    design.lip,
                    design.shell,
                    design.body.joints,
                ),
            )
        )
        if busy >= 3 and not clashes(design, 0.4):
            found.append(design)
    return found


def held_against(design):
    """The worst share and the mass: what the account is off from the booleans, in shares of the body's
    volume and mass.
    """
    mine, theirs, volume = (
        by_account(design),
        by_booleans(design),
        solid(replace(design.body, joints=())).volume_mm3,
    )
    off = {
        key: abs(mine.get(key, (0.0,))[0] - theirs.get(key, (0.0,))[0]) / volume for key in {*mine, *theirs}
    }
    worst, grams = max(off, key=lambda key: off[key]), mass_of(design, theirs)
    return {
        "worst": " ".join(worst),
        "volume_off": off[worst],
        "mass_off": abs(budget(design).mass_g - grams) / grams,
        "sum_off": abs(sum(v for v, _ in mine.values()) / volume - 1),
    }

"""Every ballast there is on a coarse grid, tried one by one: what the search is held against. It shares no
step of it.
"""

from dataclasses import replace
from itertools import combinations
from math import pi

import numpy as np

from lamsik.core.materials import METALS
from lamsik.core.shapes.ballast_holes import Hole, Slug
from lamsik.core.shapes.body import station
from lamsik.core.shapes.design import Host, Want
from lamsik.core.shapes.forms import FORMS, body_from
from lamsik.core.shapes.solid import solid
from lamsik.core.tank.attitude import buoyancy
from lamsik.core.tank.ballast_base import Bench
from lamsik.core.tank.drilling import clear_of_hardware, under_wire_mm
from lamsik.core.tank.mass import budget
from lamsik.core.tank.wanted import target
from lamsik.store.starter import DRILLS, SLUGS
from tests.bodies import bait

STOCK = Bench(
    tuple(
        Slug(f"{metal} {form} {size:g} mm", form, metal, METALS[metal], size) for metal, form, size in SLUGS
    ),
    DRILLS,
)
PLACE_MM = 4.0


def better(net_error, pitch_error):
    return np.abs(net_error) / 0.02 + np.abs(pitch_error) / 1.0


class Bare:
    """The bait without ballast: its mass, G, B and lift; and what is wanted."""

    def __init__(self, design):
        self.design = replace(design, ballast=())
        mass = budget(self.design)
        self.mass, self.g, self.b = (
            mass.mass_g,
            np.array(mass.g_mm),
            np.array(buoyancy(solid(design.body).centroid_mm, mass)),
        )
        self.lift, self.host = design.water.density_g_cm3 * mass.displaced_ml, design.host.density_g_cm3
        self.net = target(self.design, mass).net_g
        self.pitch = design.want.pitch_deg

    def score(self, added, along, up):
        total = self.mass + added
        x, z = (
            self.b[0] - (self.mass * self.g[0] + along) / total,
            self.b[2] - (self.mass * self.g[2] + up) / total,
        )
        pitch = np.degrees(np.arctan2(-x, z))
        return np.where(z > 0, better(self.lift - total - self.net, pitch - self.pitch), np.inf)

    def atoms(self, slug, drill, bench):
        """Every hole of a slug in a drill that can be drilled: place, mass, what it adds, and the moment
        of that along and up.
        """
        step, rows = slug.ball_g if slug.form == "ball" else bench.slug_step_g, []
        length = self.design.body.length_mm
        for x in np.arange(PLACE_MM, length, PLACE_MM):
            if (
                not 0.05 * length < x < 0.95 * length
                or not clear_of_hardware(self.design, np.array([x]), drill)[0]
            ):
                continue
            bottom = station(self.design.body, float(x)).bottom_mm
            mouth = self.mouth_mm3(float(x), drill, bottom)
            sag = mouth / (pi * drill**2 / 4)
            for n in range(1, 400):
                hole = Hole("b", slug, n * step, float(x), drill, bench.cover_mm, bench.filler_g_cm3)
                if hole.depth_mm > self.design.body.depth_mm:
                    break
                wall = self.wall_mm(float(x), hole.depth_mm, drill)
                if (
                    wall < bench.wall_mm - 1e-3
                    or hole.depth_mm > under_wire_mm(self.design, np.array([x]))[0]
                ):
                    continue
                tall, area = hole.depth_mm - hole.cover_mm, pi * drill**2 / 4000.0
                under, beside = area * hole.cover_mm, area * tall - hole.mass_g / slug.density_g_cm3
                parts = [
                    (hole.mass_g, hole.cover_mm + tall / 2),
                    (bench.filler_g_cm3 * under, hole.cover_mm / 2),
                    (bench.filler_g_cm3 * beside, hole.cover_mm + tall / 2),
                    (-self.host * area * hole.depth_mm, hole.depth_mm / 2),
                    ((self.host - bench.filler_g_cm3) * mouth / 1000.0, sag / 2),
                ]
                added = sum(mass for mass, _ in parts)
                if added > 0:
                    rows.append(
                        (x, hole.mass_g, added, added * x, sum(mass * (bottom + z) for mass, z in parts))
                    )
        return np.array(rows).reshape(-1, 5)

    def wall_mm(self, x, depth, drill):
        """What is left round a hole: to the ends, to the back over it, and to both sides of the sections at
        its middle and its rims, at its head and two fifths of the depth below, each section an own
        superellipse.
        """
        body = self.design.body
        head = station(body, x).bottom_mm + depth
        left = [x - drill / 2, body.length_mm - x - drill / 2]
        for at in (x - drill / 2, x, x + drill / 2):
            here = station(body, at)
            left.append(here.top_mm - head)
            for z in (head, head - 0.4 * depth):
                up = z > here.widest_mm
                tall = here.top_mm - here.widest_mm if up else here.widest_mm - here.bottom_mm
                n = body.upper_exponent if up else body.lower_exponent
                wide = here.half_width_mm * max(
                    1 - (abs(z - here.widest_mm) / max(tall, 1e-9)) ** n, 0.0
                ) ** (1 / n)
                left.append(wide - drill / 2)
        return min(left)

    def mouth_mm3(self, x, drill, bottom, count=24):
        """What the skin leaves out of the flat mouth of a drill: by squares over its disc, section by
        section.
        """
        at = (np.arange(count) + 0.5) / count * drill - drill / 2
        dx, dy = (v.ravel() for v in np.meshgrid(at, at, indexing="ij"))
        dx, dy = (v[np.hypot(dx, dy) < drill / 2] for v in (dx, dy))
        body = self.design.body
        phi = np.arccos(np.clip(1 - 2 * (x + dx) / body.length_mm, -1, 1))
        floor, middle, n = body.bottom.at(phi), body.widest_at(phi), body.lower_exponent
        share = np.minimum(np.abs(dy) / np.maximum(body.half_width.at(phi), 1e-9), 1.0)
        return (
            float((middle - (middle - floor) * (1 - share**n) ** (1 / n) - bottom).sum())
            * (drill / count) ** 2
        )

    def best(self, bench=STOCK, thin=5, threes=True):
        """The best of one to three holes of one slug and drill; for three, two are thinned to every so
        many masses and the third takes what is nearest.
        """
        found = (np.inf, ())
        for slug in bench.slugs:
            for drill in sorted(
                d for d in bench.drills_mm if slug.diameter_mm <= d <= slug.diameter_mm + 2.0
            )[:2]:
                rows = self.atoms(slug, drill, bench)
                if len(rows):
                    apart = drill + max(bench.wall_mm, 1.5) - 1e-9
                    found = min(
                        found,
                        self._one(rows),
                        self._two(rows, apart),
                        self._three(rows, apart, thin) if threes else (np.inf, ()),
                        key=lambda r: r[0],
                    )
        return found

    def _one(self, rows):
        off = self.score(*rows[:, 2:].T)
        n = int(np.argmin(off))
        return float(off[n]), ((rows[n, 0], rows[n, 1]),)

    def _two(self, rows, apart):
        best = (np.inf, ())
        for n, one in enumerate(rows):
            others = rows[n + 1 :][rows[n + 1 :, 0] - one[0] >= apart]
            if len(others):
                off = self.score(*(others[:, 2:] + one[2:]).T)
                m = int(np.argmin(off))
                best = min(
                    best,
                    (float(off[m]), ((one[0], one[1]), (others[m, 0], others[m, 1]))),
                    key=lambda r: r[0],
                )
        return best

    def _three(self, rows, apart, thin):
        best = (np.inf, ())
        places = np.unique(rows[:, 0])
        by_place = {x: rows[rows[:, 0] == x] for x in places}
        some = {x: np.unique(np.vstack([mine[::thin], mine[-1:]]), axis=0) for x, mine in by_place.items()}
        for x, y, z in combinations(places, 3):
            if y - x < apart or z - y < apart:
                continue
            a, b, c = some[x], some[y], by_place[z]
            pair = (a[:, None, 1:] + b[None, :, 1:]).reshape(-1, 4)
            wanted = self.lift - self.mass - self.net - pair[:, 1]
            at = np.clip(np.searchsorted(c[:, 2], wanted), 0, len(c) - 1)
            for pick in {0, 1}:
                third = c[np.maximum(at - pick, 0)]
                off = self.score(*(pair[:, 1:] + third[:, 2:]).T)
                n = int(np.argmin(off))
                if off[n] < best[0]:
                    i, j = divmod(n, len(b))
                    best = (float(off[n]), ((x, a[i, 1]), (y, b[j, 1]), (z, third[n, 1])))
        return best


FORM_NAMES = ("slim", "stubby", "glider", "deepflank", "walker", "popper")


def wants(count, seed=11):
    """Made-up baits with wants, some of which no ballast meets."""
    random = np.random.default_rng(seed)
    found = []
    while len(found) < count:
        start = FORMS[str(random.choice([name for name in FORM_NAMES if name in FORMS]))]
        size = random.uniform(0.8, 1.3)
        body = body_from(start, start.length_mm * size, start.depth_mm * size, start.width_mm * size)
        hardware = tuple(replace(p, x_mm=p.x_mm * body.length_mm / 90) for p in bait().hardware)
        behaviour, speed = [("suspends", 0.0), ("slow rise", 6.0), ("slow sink", -6.0), ("floats", 18.0)][
            random.integers(4)
        ]
        design = bait(
            body=body,
            hardware=hardware,
            lip=None if random.random() < 0.5 else replace(bait().lip, x_mm=0.08 * body.length_mm),
            ballast=(),
            host=Host("wood", float(random.uniform(0.14, 0.6)), 0.03),
            want=Want(behaviour, speed, float(random.choice([0, 0, 0, -8, 6, 15, -40, 60]))),
        )
        bare = Bare(design)
        if bare.lift - bare.mass - bare.net > 0.3:
            found.append(design)
    return found


def searched(design):
    """Score of the search, and whether an answer of it is within 0.05 g and 2°."""
    from lamsik.core.tank.ballast import search  # noqa: PLC0415 - what is held against it

    answers = [answer for answer in search(design, STOCK) if answer.holes]
    mine = min((float(better(a.net_error_g, a.pitch_error_deg)) for a in answers), default=float("inf"))
    return mine, any(abs(a.net_error_g) <= 0.05 and abs(a.pitch_error_deg) <= 2.0 for a in answers)


def held_against(design, **how):
    """The same with the score of the brute force and its holes."""
    return *searched(design), *Bare(design).best(**how)

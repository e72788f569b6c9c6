"""Shot and sinkers on the line: what they pull in water, which of them bring a float to its mark, what the
tell-tale does.
"""

from dataclasses import dataclass, field, replace
from itertools import combinations
from math import pi
from typing import Annotated

from annotated_types import MaxLen

from lamsik.core.errors import Refused, require, rule
from lamsik.core.floats.design import Float
from lamsik.core.floats.parts import FloatPart
from lamsik.core.floats.rating import capacity_g, settles_at_mm
from lamsik.core.floats.standing import Standing, standing
from lamsik.core.limits import Between, Name, Pattern, held
from lamsik.core.quantities import kept_as_said, said
from lamsik.core.water import Water

LEAD_G_CM3 = 11.34
MOST_SHOT = 14


@dataclass(frozen=True)
class Shot:
    """One size of a table: its name, mass in air [g], density [g/cm³]; its key stays when it is renamed."""

    name: Name
    mass_g: Annotated[float, Between(0.001, 500, "g", "in air")]
    density_g_cm3: Annotated[float, Between(1.5, 20, "g/cm³")] = LEAD_G_CM3
    key: Annotated[str, Pattern("^[a-zA-Z0-9_-]*$", 0, 40)] = field(default="", compare=False)

    @property
    def across_mm(self) -> float:
        """Diameter of the ball that it is [mm]: d = ∛(6m / πρ)."""
        return float((6000.0 * self.mass_g / (pi * self.density_g_cm3)) ** (1 / 3))

    def __post_init__(self) -> None:
        require(bool(self.name.strip()), "shot", self.name, rule("name-size"))
        held(self, f"{self.name} ")

    def pull_g(self, water: Water) -> float:
        """What it pulls in water [g]: m(1 − ρw/ρ)."""
        return self.mass_g * (1.0 - water.density_g_cm3 / self.density_g_cm3)


@dataclass(frozen=True)
class ShotTable:
    """A table of sizes with its country and series; every one is the shop's to edit."""

    name: Name
    country: Name
    series: Name
    shots: Annotated[tuple[Shot, ...], MaxLen(60)]

    def __post_init__(self) -> None:
        require(bool(self.name.strip()), "name", self.name, rule("name-table"))
        names = [shot.name for shot in self.shots]
        require(bool(names) and len(set(names)) == len(names), "sizes", names, rule("least-size"))


NOMINAL = (
    ("SSG", 1.6),
    ("AAA", 0.8),
    ("AB", 0.6),
    ("BB", 0.4),
    ("No 1", 0.3),
    ("No 3", 0.2),
    ("No 4", 0.17),
    ("No 5", 0.13),
    ("No 6", 0.10),
    ("No 8", 0.06),
    ("No 10", 0.04),
    ("No 12", 0.02),
    ("No 13", 0.01),
)
"""Trade sizes of split shot in grams, nominal: makers differ, a shop weighs its own."""
NOMINAL_TABLE = ShotTable(
    "Split shot", "letters and numbers", "nominal, lead", tuple(Shot(name, mass) for name, mass in NOMINAL)
)
"""What a shop without a table of its own is looked at with."""


@dataclass(frozen=True)
class Shotting:
    """What goes on the line: sizes with counts from the largest, pull in water and how far off the wanted
    pull [g].
    """

    shots: tuple[tuple[Shot, int], ...]
    pull_g: float
    off_g: float

    @property
    def words(self) -> str:
        """`4 × BB, 2 × No 8`."""
        return ", ".join(f"{count} × {shot.name}" for shot, count in self.shots)

    @property
    def mass_g(self) -> float:
        """Mass in air [g]."""
        return sum(count * shot.mass_g for shot, count in self.shots)


@kept_as_said(256)
def shotting(pull_g: float, table: ShotTable, water: Water, telltale: str = "") -> Shotting:
    """The fewest shot that bring the pull nearest to the wanted one, the tell-tale among them.

    Raises:
        Refused: nothing to carry, an unknown tell-tale, or a load no fourteen shot of the table make up.
    """
    require(pull_g > 0, "load", said(pull_g, "mass"), rule("float-carries"))
    last = next((shot for shot in table.shots if shot.name == telltale), None)
    require(
        not telltale or last is not None,
        "tell-tale",
        telltale,
        rule("one-of", listed=", ".join(s.name for s in table.shots)),
    )
    left = pull_g - (last.pull_g(water) if last else 0.0)
    sizes = sorted(table.shots, key=lambda shot: -shot.mass_g)
    step = min(shot.pull_g(water) for shot in sizes)
    best: tuple[float, tuple[tuple[Shot, int], ...]] | None = (
        (abs(left), ()) if last and abs(left) < step else None
    )
    for some in (*((s,) for s in sizes), *combinations(sizes, 2), *combinations(sizes, 3)):
        counts = _counts(left, [shot.pull_g(water) for shot in some])
        if counts is None:
            continue
        off = abs(left - sum(n * shot.pull_g(water) for n, shot in zip(counts, some, strict=True)))
        cost = max(off - step / 2, 0.0) / step + 0.12 * sum(counts) + 0.1 * len(some)
        if best is None or cost < best[0]:
            best = (cost, tuple((shot, n) for shot, n in zip(some, counts, strict=True) if n))
    if best is None:
        raise Refused(
            "load",
            said(pull_g, "mass"),
            rule("too-much", most_shot=MOST_SHOT, called=table.name),
        )
    rows = dict(best[1])
    if last:
        rows[last] = rows.get(last, 0) + 1
    shots = tuple(sorted(rows.items(), key=lambda row: -row[0].mass_g))
    pull = sum(count * shot.pull_g(water) for shot, count in shots)
    return Shotting(shots, pull, pull - pull_g)


def _counts(left: float, pulls: list[float]) -> list[int] | None:
    """As many of the largest as go in, the rest with the smaller ones; None where that takes too many or
    leaves one out.
    """
    choices, over = [], left
    for at, pull in enumerate(pulls):
        n = round(over / pull) if at == len(pulls) - 1 else int(over / pull + 1e-9)
        choices.append(max(n, 0))
        over -= choices[-1] * pull
    return choices if all(choices) and sum(choices) <= MOST_SHOT else None


@dataclass(frozen=True)
class TelltaleLift:
    """What the tell-tale does when it is picked up: rise of the float [mm], how much of it the antenna has
    to show, and how it stands then.
    """

    shot: Shot
    rise_mm: float
    shown_mm: float
    after: Standing

    @property
    def beyond(self) -> bool:
        """Whether the rise is longer than the antenna that is under water: then only that is claimed. A
        float without one rises with its body.
        """
        return 0.05 < self.shown_mm < self.rise_mm - 0.05


def antenna_under_mm(design: Float, height_mm: float) -> float:
    """How much of the antenna is under water and can rise out of it: from the highest body, tube or
    adapter up to the water [mm].
    """
    top = max(
        (
            part.top_mm
            for part in design.parts
            if part.kind in ("body", "tube", "adapter", "loading") and not part.inside
        ),
        default=design.foot_mm,
    )
    return max(height_mm - top, 0.0)


def telltale_lift(design: Float, line_g: float, shot: Shot) -> TelltaleLift:
    """The rise when a shot is picked up from under the float. Raises `Refused` where the load sinks it or
    the shot is more than the load.
    """
    before = settles_at_mm(design, line_g)
    pull = shot.pull_g(design.water)
    if before is None:
        raise Refused("load", said(line_g, "mass"), rule("load-goes"))
    require(pull <= line_g + 1e-9, "tell-tale", shot.name, rule("less-whole", line_g=line_g))
    after = settles_at_mm(design, line_g - pull)
    assert after is not None
    rise = before - after
    return TelltaleLift(
        shot, rise, min(rise, antenna_under_mm(design, before)), standing(design, line_g - pull)
    )


def with_tip(design: Float, tip: FloatPart) -> Float:
    """The float with another tip on its top in the place of what it has; marks above move with it."""
    olds = [part for part in design.parts if part.kind in ("tip", "bead")]
    rest = tuple(part for part in design.parts if part.kind not in ("tip", "bead"))
    under = [part.top_mm for part in rest if not part.inside]
    base = min(part.foot_mm for part in olds) if olds else max(under)
    placed = replace(tip, key="tip", foot_mm=base)
    shift = placed.top_mm - design.top_mm
    top = max([placed.top_mm, *(part.top_mm for part in rest if not part.inside)])
    marks = tuple(
        replace(m, height_mm=min(m.height_mm + shift, top)) if m.height_mm > base + 1e-6 else m
        for m in design.marks
    )
    return replace(design, parts=(*rest, placed), marks=marks)


def pull_to(design: Float, mark: str = "") -> float:
    """The pull that brings it to a mark [g]."""
    return capacity_g(design, design.mark(mark or design.wanted_mark).height_mm)

"""Live-bait floats of foam tube on a pipe with caps: cut list, sticks, cost by size, what tests of several
sizes say together.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from math import floor, pi

import numpy as np

from lamsik.core.errors import Refused, finite_between, require, rule
from lamsik.core.findings import Finding, finding
from lamsik.core.floats.design import Float, Mark, own_mass_g
from lamsik.core.floats.parts import FloatPart
from lamsik.core.quantities import plainly
from lamsik.core.water import Water

ABSURD = 0.1
"""Tests imply negative displacement from so much of the smallest one's own [share]; less is the tests' own
scatter.
"""


@dataclass(frozen=True)
class Build:
    """How the shop builds them: foam outer diameter and bore, pipe outer diameter and bore, cap depth each
    end, saw loss [mm].

    `cap_allowances_mm` are what the shop's notes add to the pipe for one cap; two that differ are questioned,
    never averaged.
    """

    foam_mm: float = 30.0
    foam_bore_mm: float = 8.0
    pipe_mm: float = 8.0
    pipe_bore_mm: float = 6.0
    cap_mm: float = 6.0
    saw_mm: float = 1.0
    foam_g_cm3: float = 0.06
    pipe_g_cm3: float = 1.35
    cap_g: float = 1.0
    fittings_g: float = 1.5
    cap_allowances_mm: tuple[float, ...] = ()
    through: bool = False

    def __post_init__(self) -> None:
        for name, low, high in (
            ("foam_mm", 5, 120),
            ("foam_bore_mm", 0.5, 60),
            ("pipe_mm", 1, 60),
            ("pipe_bore_mm", 0, 58),
            ("cap_mm", 0, 40),
            ("saw_mm", 0, 10),
        ):
            finite_between(name, getattr(self, name), low, high, "mm")
        require(
            self.pipe_bore_mm < self.pipe_mm <= self.foam_bore_mm + 0.6 < self.foam_mm,
            "pipe_mm",
            self.pipe_mm,
            rule("pipe-inside"),
        )
        if len({round(a, 2) for a in self.cap_allowances_mm}) > 1:
            raise Refused(
                "cap allowance",
                ", ".join(plainly(a, "length") for a in self.cap_allowances_mm),
                rule("two-different-allowances"),
            )

    @property
    def drills(self) -> tuple[Finding, ...]:
        """Drill sizes, in words."""
        return (
            finding("drill-the-foam", foam_bore=self.foam_bore_mm),
            finding("drill-the-caps", pipe=self.pipe_mm, cap=self.cap_mm),
            finding("scour-the-pipe"),
        )

    @property
    def allowance_mm(self) -> float:
        """What one cap takes of the pipe [mm]."""
        return self.cap_allowances_mm[0] if self.cap_allowances_mm else self.cap_mm


@dataclass(frozen=True)
class CutLine:
    """One size: foam, pipe and tube lengths [mm], how many, of which stick, pieces a stick and what is
    left [mm].
    """

    foam_mm: float
    pipe_mm: float
    count: int
    foam_per_stick: int
    foam_left_mm: float
    pipe_per_stick: int
    pipe_left_mm: float


def per_stick(stick_mm: float, piece_mm: float, saw_mm: float) -> tuple[int, float]:
    """Pieces out of a stick and what is left: n pieces need n cuts unless the last one ends with the
    stick.
    """
    finite_between("stick", stick_mm, 1.0, 10_000.0, "mm")
    count = max(floor((stick_mm + saw_mm + 1e-9) / (piece_mm + saw_mm)), 0)
    return count, max(stick_mm - count * piece_mm - count * saw_mm, 0.0) if count else stick_mm


def cut_list(
    build: Build, sizes: Sequence[tuple[float, int]], foam_stick_mm: float, pipe_stick_mm: float
) -> tuple[CutLine, ...]:
    """The cut list for sizes (foam length [mm], how many)."""
    rows = []
    for length, count in sizes:
        finite_between("foam length", length, 10.0, 600.0, "mm")
        finite_between("how many", count, 1, 1000)
        pipe = length + 2 * build.allowance_mm
        foam_n, foam_left = per_stick(foam_stick_mm, length, build.saw_mm)
        pipe_n, pipe_left = per_stick(pipe_stick_mm, pipe, build.saw_mm)
        rows.append(CutLine(length, pipe, int(count), foam_n, foam_left, pipe_n, pipe_left))
    return tuple(rows)


def as_float(
    build: Build, foam_length_mm: float, name: str = "Live-bait float", water: Water | None = None
) -> Float:
    """The float of one size: foam on its pipe with a cap at each end; flooded or sealed by the pipe's
    bore.
    """
    whole = foam_length_mm + 2 * build.allowance_mm
    parts = (
        FloatPart(
            "foam",
            "body",
            "foam tube",
            foam_length_mm,
            build.foam_mm,
            build.foam_g_cm3,
            build.allowance_mm,
            build.foam_bore_mm,
        ),
        FloatPart(
            "pipe",
            "tube",
            "pipe",
            whole,
            build.pipe_mm,
            build.pipe_g_cm3,
            0.0,
            build.pipe_bore_mm,
            sealed=not build.through,
        ),
        FloatPart(
            "caps",
            "loading",
            "caps and fittings",
            2.0,
            2.0,
            1.1,
            0.0,
            inside=True,
            mass_g=2 * build.cap_g + build.fittings_g,
        ),
    )
    return Float(
        name,
        "live bait",
        parts,
        (Mark("half", whole / 2),),
        water or Water("fresh water", 10.0),
        wanted_mark="tip",
    )


@dataclass(frozen=True)
class Cost:
    """Fixed cost of one float and cost of a millimetre of it, in minor units of money."""

    fixed: float
    per_mm: float

    def of(self, length_mm: float) -> int:
        """Cost of one of a length, in minor units."""
        return round(self.fixed + self.per_mm * length_mm)


@dataclass(frozen=True)
class Together:
    """What tests of several sizes say together: capacity per millimetre [g/mm], what the fittings take
    [g], and what is wrong with them.
    """

    per_mm_g: float
    fixed_g: float
    problems: tuple[Finding, ...]


def consistent(tests: Sequence[tuple[float, float]], build: Build, water: Water) -> Together:
    """Fits capacity against length over tests (length [mm], capacity [g]).

    A float cannot displace less than nothing, nor lift more than a foam of no mass would: slopes beyond that,
    or a shorter float that carries more, contradict each other and are named.
    """
    require(len(tests) >= 2, "tests", len(tests), rule("two-sizes"))
    rows = sorted(
        (
            finite_between("length", length, 1.0, 1000.0, "mm"),
            finite_between("capacity", load, -100.0, 5000.0, "g"),
        )
        for length, load in tests
    )
    length, load = np.array(rows).T
    require(np.ptp(length) > 0, "tests", "one length", rule("two-different"))
    slope, fixed = (float(v) for v in np.polyfit(length, load, 1))
    most = water.density_g_cm3 * pi * build.foam_mm**2 / 4 / 1000.0
    problems = []
    for (short, less), (long, more) in zip(rows[:-1], rows[1:], strict=True):
        if long > short and more < less:
            problems.append(finding("longer-carries-less", long=long, more=more, short=short, less=less))
        elif long > short and (more - less) / (long - short) > most * 1.02:
            problems.append(
                finding(
                    "gains-too-much",
                    short=short,
                    long=long,
                    more=more - less,
                    most=most * (long - short),
                )
            )
    whole = np.array(
        [(load_g + own_mass_g(as_float(build, mm, water=water))) / water.density_g_cm3 for mm, load_g in rows]
    )
    at_nothing = float(np.polyfit(length, whole, 1)[1])
    if at_nothing < -ABSURD * float(whole.min()):
        problems.append(
            finding("displace-less-than-nothing", least=whole[0], most=whole[-1], at_nothing=at_nothing)
        )
    if fixed > 0.5:
        problems.append(finding("fittings-cannot-lift", fixed=fixed))
    return Together(slope, fixed, tuple(problems))

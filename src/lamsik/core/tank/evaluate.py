"""What the Tank shows of a design: mass, attitude, verdict; quick while dragging, settled at rest."""

from dataclasses import dataclass, replace

from lamsik.core.findings import Finding
from lamsik.core.quantities import kept_as_said
from lamsik.core.shapes.design import Design
from lamsik.core.shapes.hardware import Point, seat_point
from lamsik.core.shapes.needs import Need, missing
from lamsik.core.shapes.quadrature import Solid
from lamsik.core.shapes.solid import solid
from lamsik.core.shapes.unbuilt import unbuilt
from lamsik.core.tank.attitude import Attitude, Hanging, immersed
from lamsik.core.tank.floating import Floating, float_drag, float_settled, vessel_of_body
from lamsik.core.tank.inertia import STEADY_HZ, Roll, roll
from lamsik.core.tank.mass import NOTHING, Budget, Measured, budget
from lamsik.core.tank.motion import DEFAULT_DRAG, Bands, frontal_area_mm2
from lamsik.core.tank.stability import bg_mm
from lamsik.core.tank.verdict import Front, Verdict, no_verdict, verdict
from lamsik.core.tank.wanted import drag_of, flooded_net_g


@dataclass(frozen=True)
class Near:
    """Where the watched branch was last: a warm start for dragging."""

    attitude: Attitude
    draft_mm: float


@dataclass(frozen=True)
class Rules:
    """The shop's own thresholds, calibration, thinnest wall [mm], ballast step [g] and where lively turns
    steady [Hz].

    `faces_mm` is how true its own blanks came out by construction: (construction, one sigma of a face [mm]).
    """

    bands: Bands = Bands()
    drag: float = DEFAULT_DRAG
    wall_mm: float = 2.0
    step_g: float = 0.1
    steady_hz: float = STEADY_HZ
    faces_mm: tuple[tuple[str, float], ...] = ()

    def face_mm(self, construction: str) -> float | None:
        """How true the shop's blanks of a construction came out, a face [mm]; None while it held none
        under water.
        """
        return dict(self.faces_mm).get(construction)


@dataclass(frozen=True)
class Outcome:
    """Everything computed of one design in its water; `surface` is empty if it sinks.

    `settled` tells a full evaluation (all stable positions) from a quick one (the watched branch on a coarse
    mesh); the first is never replaced by the second. `unbuilt` is what cannot be built as drawn, in
    words: then no figure says how it swims.
    """

    design: Design
    solid: Solid
    budget: Budget
    hanging: Hanging
    surface: tuple[Floating, ...]
    verdict: Verdict
    frontal_mm2: float
    rules: Rules
    settled: bool
    missing: tuple[Need, ...]
    turns_over: bool
    roll: Roll
    flooded_net_g: float
    unbuilt: tuple[Finding, ...] = ()

    @property
    def drag(self) -> float:
        """The drag coefficient in use: the design's own, or the shop's."""
        return drag_of(self.design, self.rules.drag)


STANDARD = Rules()


def line_tie(design: Design) -> Point | None:
    """Where the line is tied [mm], or None."""
    tie = next((p for p in design.hardware if p.item.kind == "line_tie"), None)
    return seat_point(design.body, tie, design.lip) if tie else None


def drag(
    design: Design, measured: Measured = NOTHING, rules: Rules = STANDARD, near: Near | None = None
) -> Outcome:
    """The quick evaluation while a handle moves: one branch, coarse volume-true mesh, warm start."""
    mass, rho = budget(design, measured), design.water.density_g_cm3
    start = (near.attitude, near.draft_mm) if near else (None, None)
    floating = float_drag(vessel_of_body(design.body), mass, rho, *start)
    return _outcome(design, mass, (floating,) if floating else (), rules, settled=False)


@kept_as_said(24)
def settle(design: Design, measured: Measured = NOTHING, rules: Rules = STANDARD) -> Outcome:
    """The full evaluation at rest: every stable position at full accuracy.

    Kept for the last few designs: looking at one from another side, or in another room, changes nothing.
    """
    mass = budget(design, measured)
    surface = float_settled(vessel_of_body(design.body), mass, design.water.density_g_cm3)
    return _outcome(design, mass, surface, rules, settled=True)


def _outcome(
    design: Design, mass: Budget, surface: tuple[Floating, ...], rules: Rules, settled: bool
) -> Outcome:
    shape, water = solid(design.body), design.water
    hanging = immersed(shape.centroid_mm, mass, water.density_g_cm3, line_tie(design))
    area = frontal_area_mm2(design.body, hanging.free.up)
    says = verdict(
        hanging.net_g,
        mass.mass_g,
        Front(area, drag_of(design, rules.drag)),
        water,
        hanging.free,
        surface[0] if surface else None,
        rules.bands,
    )
    cannot = unbuilt(design)
    if cannot:
        says, hanging, surface = (
            no_verdict(says, cannot),
            replace(hanging, free=Attitude(0.0, 0.0), held=None),
            (),
        )
    deeper = bool(surface) and any(
        p.energy < surface[0].energy - 1e-6 * mass.mass_g * design.body.length_mm for p in surface[1:]
    )
    over = abs(hanging.free.roll_deg) > 90 or deeper
    rolls = roll(design, mass, water.density_g_cm3, bg_mm(hanging))
    return Outcome(
        design,
        shape,
        mass,
        hanging,
        surface,
        says,
        area,
        rules,
        settled,
        missing(design),
        over,
        rolls,
        flooded_net_g(design, mass),
        cannot,
    )

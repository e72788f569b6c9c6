"""What the Tank shows of an outcome: picture, verdict, ballast; what takes longer comes once it is settled
(see `depth`).
"""

from dataclasses import dataclass, replace

from lamsik.core.cautions import of_metals
from lamsik.core.findings import Finding
from lamsik.core.paints.roles import CLEARS
from lamsik.core.quantities import numeral, plainly, said
from lamsik.core.shapes.ballast_holes import Hole
from lamsik.core.shapes.design import Design
from lamsik.core.shapes.hardware import Item
from lamsik.core.shapes.inside import Cavity, PouredEnd, pour_volume_ml
from lamsik.core.tank.ballast_base import Bench
from lamsik.core.tank.drilling import cavity_troubles, cavity_wall_mm, pour_troubles, troubles, wall_left_mm
from lamsik.core.tank.evaluate import Outcome
from lamsik.core.tank.floating import Floating
from lamsik.core.water import Water
from lamsik.drawings.headon import head_on
from lamsik.drawings.svg import Node
from lamsik.drawings.tank import HELD, SURFACE, VIEWS, default_view, scene, shown_view
from lamsik.store.tub import TimedRun
from lamsik.web.bodies.shape_facts import segment_rows
from lamsik.web.bodies.tank_depth import beside, deeper
from lamsik.web.bodies.tank_facts import budget_rows, tank_facts
from lamsik.web.bodies.tank_view import (
    BallastPanel,
    BallastRow,
    BudgetPanel,
    Figures,
    Late,
    ScenePanel,
    SegmentsPanel,
    TankPart,
    VerdictPanel,
    WantPanel,
)
from lamsik.web.shared.view import Said, edit
from lamsik.words.cautions import CAUTIONS, DEFER
from lamsik.words.tell import tell
from lamsik.words.verdict import posture

SIDE, FRONT = "side", "front"


@dataclass(frozen=True)
class TankShop:
    """What the settled answers choose from: hooks, waters, ballast bench, and the design's timed runs."""

    hooks: tuple[Item, ...] = ()
    waters: tuple[Water, ...] = ()
    bench: Bench | None = None
    runs: tuple[TimedRun, ...] = ()


@dataclass(frozen=True)
class TankAsked:
    """How the Tank is looked at: posture and side of the picture, trail of G (x, z) [mm], the shop
    once settled.
    """

    looks: str = ""
    facing: str = SIDE
    trail: tuple[tuple[float, float], ...] = ()
    shop: TankShop | None = None


def tank_part(outcome: Outcome, asked: TankAsked) -> TankPart:
    """The Tank side of a design."""
    looks = shown_view(outcome, asked.looks if asked.looks in VIEWS else default_view(outcome))
    part = TankPart(
        _scene(outcome, looks, asked),
        _verdict(outcome, looks),
        _budget(outcome),
        _ballast(outcome),
        _wanted(outcome.design),
    )
    if asked.shop is None:
        return part
    return replace(
        part,
        segments=SegmentsPanel(segment_rows(outcome)),
        beside=beside(outcome, asked.shop.waters, asked.shop.runs),
    )


def late_part(outcome: Outcome, shop: TankShop) -> Late:
    """The Tank's second answer of a settled design; it goes over the first on the page."""
    return deeper(outcome, shop.hooks, shop.bench)


def _scene(outcome: Outcome, looks: str, asked: TankAsked) -> ScenePanel:
    g = outcome.budget.g_mm
    return ScenePanel(
        picture=_picture(outcome, looks, asked),
        looks=looks,
        facing=asked.facing if asked.facing == FRONT else SIDE,
        can_float=bool(outcome.surface),
        can_hold=outcome.hanging.held is not None,
        g=(round(g[0], 3), round(g[2], 3)),
    )


def _verdict(outcome: Outcome, looks: str) -> VerdictPanel:
    return VerdictPanel(
        over=outcome.turns_over and not outcome.unbuilt,
        figures=_figures(outcome),
        facts=tank_facts(outcome, looks),
        others=[_other(i, place, outcome.surface[0]) for i, place in enumerate(outcome.surface[1:])],
        jointed=bool(outcome.design.body.joints),
    )


def _budget(outcome: Outcome) -> BudgetPanel:
    return BudgetPanel(
        budget=budget_rows(outcome.budget.parts),
        total=said(outcome.budget.mass_g, "mass"),
        unweighed=sum(p.is_estimate for p in outcome.budget.parts),
    )


def _ballast(outcome: Outcome) -> BallastPanel:
    metals = of_metals(outcome.design.metals)
    return BallastPanel(
        holes=ballast_rows(outcome),
        caution=f"{' '.join(CAUTIONS[key] for key in (*metals, 'blades'))} {DEFER}",
    )


def _wanted(design: Design) -> WantPanel:
    ties = [part for part in design.hardware if part.item.kind == "line_tie"]
    return WantPanel(
        by_speed=design.want.by == "speed",
        by_share=design.want.by == "share",
        by_freeboard=design.want.by == "freeboard",
        pierced=design.want.pierced,
        has_lip=design.lip is not None,
        tie_moves=any(part.seat in ("lip", "belly", "back") for part in ties),
        tie_path=f"hardware.{ties[0].key}.x_mm" if ties else "",
        clears=str(sum(one.does == CLEARS for one in design.layers)),
    )


def _picture(outcome: Outcome, looks: str, asked: TankAsked) -> Node:
    if asked.facing != FRONT:
        return scene(outcome, looks, trail=asked.trail)
    if looks == SURFACE:
        first = outcome.surface[0]
        return head_on(outcome, first.attitude, first.draft_mm, first.b_mm)
    held = outcome.hanging.held if looks == HELD else None
    return head_on(outcome, held or outcome.hanging.free, None, outcome.hanging.b_mm)


def _figures(outcome: Outcome) -> Figures:
    verdict = outcome.verdict
    return Figures(
        net=said(verdict.net_g, "mass", sign=True),
        behaviour=verdict.behaviour,
        speed=said(verdict.speed_cm_s, "speed", 0, sign=True),
        pitch=said(outcome.hanging.free.pitch_deg, "angle", 0, sign=True),
        mass=said(outcome.budget.mass_g, "mass", 1),
        roll=said(outcome.roll.frequency_hz, "frequency"),
    )


def _other(index: int, place: Floating, first: Floating) -> Said:
    at = (
        f"pitch {said(place.attitude.pitch_deg, 'angle', 0, sign=True)}, roll"
        f" {said(place.attitude.roll_deg, 'angle', 0, sign=True)}"
    )
    lower = place.energy < first.energy - 1e-6 * abs(first.energy)
    prefers = " and prefers that: it will turn over." if lower else "."
    return Said(str(index), f"It can also rest {posture(place.attitude)} ({at}){prefers}")


def ballast_rows(outcome: Outcome) -> list[BallastRow]:
    """Everything inside that is ballast: holes, poured ends, chambers, each with its fields and what is
    wrong with it.
    """
    design, limit = outcome.design, outcome.rules.wall_mm
    return [
        *(_hole_row(design, hole, troubles(design, hole, limit)) for hole in design.ballast),
        *(_pour_row(design, pour, pour_troubles(design, pour.key)) for pour in design.pours),
        *(_cavity_row(design, one, cavity_troubles(design, one, limit)) for one in design.cavities),
    ]


@dataclass(frozen=True)
class _Named:
    """A row of ballast: group and key in the document, name, words, first figure and place (field, label)."""

    group: str
    key: str
    name: str
    says: str
    first: tuple[str, str]
    place: tuple[str, str]


def _row(what: _Named, wrong: tuple[Finding, ...]) -> BallastRow:
    kind = {"ballast": "hole", "pours": "pour", "cavities": "chamber"}[what.group]
    return BallastRow(
        key=f"{what.group}-{what.key}",
        name=what.name,
        says=what.says,
        trouble=f"This {kind} {' and '.join(map(tell, wrong))}." if wrong else "",
        troubled=bool(wrong),
        mass_path=f"{what.group}.{what.key}.{what.first[0]}",
        mass_says=what.first[1],
        path=(path := f"{what.group}.{what.key}.{what.place[0]}"),
        place_says=what.place[1],
        beside_path=path,
        remove=edit("remove", group=what.group, key=what.key),
        remove_says=f"Take out {what.name}",
    )


def _hole_row(design: Design, hole: Hole, wrong: tuple[Finding, ...]) -> BallastRow:
    wall = wall_left_mm(design.body, hole)
    out = hole.hole_ml * design.host.density_g_cm3
    pair = (
        f"two of {said(hole.each_g, 'mass')}, {said(hole.beside_mm, 'length')} to each side; "
        if hole.count > 1
        else ""
    )
    says = (
        f"{pair}{plainly(hole.drill_mm, 'length')} drill, {said(hole.depth_mm, 'length')} deep;"
        f" {said(out, 'mass')} out, {said(max(wall, 0), 'length')} wall"
    )
    name, two = hole.slug.name, hole.count > 1
    mass = ("mass_g", f"Mass of {name}{', both' if two else ''}")
    row = _row(
        _Named("ballast", hole.key, name, says, mass, ("x_mm", f"{name} distance from the nose")), wrong
    )
    turn = "One on the middle instead" if two else "As a pair beside the middle"
    return replace(
        row,
        is_hole=True,
        is_pair=two,
        beside_path=f"ballast.{hole.key}.beside_mm",
        beside_says=f"{name}, how far to each side",
        pair=edit("pair", key=hole.key),
        pair_word=turn,
        pair_says=f"{name}: {turn.lower()}",
    )


def _pour_row(design: Design, pour: PouredEnd, wrong: tuple[Finding, ...]) -> BallastRow:
    volume = pour_volume_ml(design.body, pour)[0]
    says = (
        f"{said(volume, 'volume')}, {said(volume * pour.density_g_cm3, 'mass', 1)}, to"
        f" {said(pour.to_mm, 'length')}"
    )
    density, place = ("density_g_cm3", f"Density of {pour.name}"), ("from_mm", f"{pour.name} begins at")
    return _row(_Named("pours", pour.key, pour.name, says, density, place), wrong)


def _cavity_row(design: Design, cavity: Cavity, wrong: tuple[Finding, ...]) -> BallastRow:
    name = f"{cavity.slug.name} in a chamber"
    says = (
        f"{said(cavity.mass_g, 'mass', 1)} in {numeral(cavity.bore_mm, 'length')} ×"
        f" {said(cavity.length_mm, 'length')},"
        f" {said(max(cavity_wall_mm(design.body, cavity), 0), 'length')} wall"
    )
    count, place = ("count", f"How many {cavity.slug.name}"), ("x_mm", f"{name}, its middle from the nose")
    return _row(_Named("cavities", cavity.key, name, says, count, place), wrong)

"""The stability room: resting positions, righting arms, roll recovery beside another bait's."""

from dataclasses import dataclass, replace

import numpy as np
from flask import Blueprint, render_template, request

from lamsik.core.quantities import said
from lamsik.core.tank.evaluate import Outcome
from lamsik.core.tank.floating import vessel_of_body
from lamsik.core.tank.inertia import nature, roll
from lamsik.core.tank.stability import RightingCurve, bg_mm, metacentre, pendulum, righting_curve
from lamsik.drawings.charts import Axis, PlottedCurve, axis, chart
from lamsik.drawings.headon import head_on
from lamsik.drawings.ink import INK, TIP, WATER
from lamsik.drawings.svg import Node
from lamsik.drawings.tank import SURFACE, UNDER, scene
from lamsik.store import orders
from lamsik.web.shared.db import db, load_document
from lamsik.web.tank import others
from lamsik.words.verdict import posture

blueprint = Blueprint("tank_stability", __name__, url_prefix="/tank")


@dataclass(frozen=True)
class Rest:
    """A resting position as it is shown: from the side, head-on, in words."""

    side: Node
    front: Node
    name: str
    says: str


@dataclass(frozen=True)
class Heights:
    """One column of the stability table: name and (quantity, value) rows."""

    name: str
    rows: tuple[tuple[str, str], ...]


@dataclass(frozen=True)
class StabilityRoom:
    """The stability room: verdict, resting positions, the righting-arm chart, a column for each bait
    compared.
    """

    sentence: str
    rests: tuple[Rest, ...]
    chart: Node
    columns: tuple[Heights, ...]
    compared: str


@blueprint.get("/<int:key>/stability")
def show(key: int) -> str:
    """All resting positions, righting arms from 0 to 180°, roll recovery beside another bait's."""
    row = load_document("body", key)
    beside_key = request.args.get("with", "")
    outcome, beside = others.outcome_of(row), others.other(beside_key, settled=False)
    room = stability_room(outcome, beside)
    return render_template(
        "tank/stability.html",
        row=row,
        for_order=orders.waiting_for(db(), key),
        room=room,
        others=others.choices(key, request.args.get("with", ""), beside),
        chosen=request.args.get("with", ""),
    )


def stability_room(outcome: Outcome, beside: others.Other | None = None) -> StabilityRoom:
    """Everything the stability room shows."""
    curve = _curve(outcome)
    rows = [
        ("this bait", outcome, curve),
        *([(beside.name, beside.outcome, _curve(beside.outcome))] if beside else []),
    ]
    lines = []
    for (name, settled, arms), colour in zip(rows, (WATER, TIP), strict=False):
        heel = np.arange(0.0, 181.0, 5.0)
        lines += [PlottedCurve(f"{name}, afloat", arms.heel_deg, arms.arm_mm, colour)] if arms else []
        lines.append(
            PlottedCurve(
                f"{name}, under water (BG·sin)",
                heel,
                pendulum(settled.hanging, heel),
                colour if arms is None else INK,
                None if arms is None else "5 4",
            )
        )
    low, high = min(float(c.y.min()) for c in lines), max(float(c.y.max()) for c in lines)
    picture = chart(
        "Righting arm against heel",
        Axis("heel, °", 0, 180, 30),
        axis("righting arm", low if low < -0.02 * high else 0.0, max(high, 0.1), "length"),
        lines,
    )
    columns = tuple(Heights(name, _heights(outcome, arms)) for name, outcome, arms in rows)
    return StabilityRoom(
        _stability_sentence(outcome, curve),
        tuple(_rests(outcome)),
        picture,
        columns,
        beside.name if beside else "",
    )


def _curve(outcome: Outcome) -> RightingCurve | None:
    rho = outcome.design.water.density_g_cm3
    pitch = outcome.surface[0].attitude.pitch_deg if outcome.surface else 0.0
    if abs(pitch) > 70:  # one that stands on its end heels in no one direction
        return None
    return righting_curve(vessel_of_body(outcome.design.body), outcome.budget, rho, start_pitch_deg=pitch)


def _stability_sentence(outcome: Outcome, curve: RightingCurve | None) -> str:
    arm = bg_mm(outcome.hanging)
    under = f"under water it rolls back from any heel, with at most {said(arm, 'length')} of arm"
    if outcome.surface and curve is None:
        return f"It stands on its end at the surface; {under}."
    if curve is None:
        return f"It sinks, and {under}."
    largest, at = curve.largest
    end = curve.vanishes_deg
    rights = (
        "It rights itself from any heel"
        if end is None
        else f"It rights itself up to {said(end, 'angle', 0)}; beyond that it rolls over"
    )
    gap = "" if curve.whole else " Some heels have no rest in trim and are left out."
    return f"{rights}; most at {said(at, 'angle', 0)}, with {said(largest, 'length')} of arm.{gap}"


def _rests(outcome: Outcome) -> list[Rest]:
    rows = []
    deepest = min((place.energy for place in outcome.surface), default=0.0)
    for index, place in enumerate(outcome.surface):
        alone = replace(outcome, surface=(place,))
        at = place.attitude
        room = outcome.budget.mass_g * outcome.design.body.length_mm
        prefers = (
            " It prefers this one."
            if len(outcome.surface) > 1 and place.energy <= deepest + 1e-6 * room
            else ""
        )
        says = (
            f"pitch {said(at.pitch_deg, 'angle', 0, sign=True)}, roll"
            f" {said(at.roll_deg, 'angle', 0, sign=True)},"
            f" {said(max(place.freeboard_mm, 0), 'length')} over the water.{prefers}"
        )
        front = head_on(outcome, at, place.draft_mm, place.b_mm, plain=True)
        rows.append(
            Rest(
                scene(alone, SURFACE, handles=False, plain=f"afloat-{index}"),
                front,
                ("Put in upright: " if index == 0 else "Also: ") + posture(at),
                says,
            )
        )
    if not rows:
        free = outcome.hanging.free
        front = head_on(outcome, free, None, outcome.hanging.b_mm, plain=True)
        rows.append(
            Rest(
                scene(outcome, UNDER, handles=False, plain="under"),
                front,
                f"Hangs {posture(free)}",
                "It sinks: under water there is one way it comes to rest, B over G.",
            )
        )
    return rows


def _heights(outcome: Outcome, curve: RightingCurve | None) -> tuple[tuple[str, str], ...]:
    rho, design = outcome.design.water.density_g_cm3, outcome.design
    under, steady = outcome.roll, outcome.rules.steady_hz
    rows = [
        ("In air", said(outcome.budget.mass_g, "mass")),
        ("BG under water", said(bg_mm(outcome.hanging), "length", 2)),
        (
            "Roll recovery under water",
            f"{said(under.frequency_hz, 'frequency', 2)}, {nature(under.frequency_hz, steady)}",
        ),
        ("Roll inertia, with the water's", said(under.inertia_g_mm2 + under.added_g_mm2, "roll inertia")),
    ]
    if outcome.surface and curve is not None:
        centre = metacentre(vessel_of_body(design.body), outcome.budget, rho, outcome.surface[0])
        afloat = roll(design, outcome.budget, rho, centre.gm_mm)
        rows += [
            ("KB, keel to centre of buoyancy", said(centre.kb_mm, "length", 2)),
            ("BM = I/∇", said(centre.bm_mm, "length", 2)),
            ("KG, keel to centre of gravity", said(centre.kg_mm, "length", 2)),
            ("GM, metacentric height", said(centre.gm_mm, "length", 2)),
            (
                "Roll recovery afloat",
                f"{said(afloat.frequency_hz, 'frequency', 2)}, {nature(afloat.frequency_hz, steady)}",
            ),
            ("Work to its limit, under the curve", said(curve.area_mm_rad, "work")),
        ]
    return tuple(rows)

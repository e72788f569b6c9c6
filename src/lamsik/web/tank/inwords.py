"""The drawing in words: what is seen on it, in tables, for who does not see it or wants it read aloud."""

from flask import Blueprint, render_template

from lamsik.core.quantities import said
from lamsik.core.shapes.body import station
from lamsik.core.tank.evaluate import Outcome
from lamsik.store import orders
from lamsik.web.bodies.tank_facts import tank_facts
from lamsik.web.shared.db import db, load_document
from lamsik.web.shared.intables import InTables, ToldTable
from lamsik.web.tank import others
from lamsik.words.verdict import sentence

blueprint = Blueprint("tank_inwords", __name__, url_prefix="/tank")

SHARES = tuple(range(0, 101, 10))
"""Where the body's lines are told, in % of its length."""


@blueprint.get("/<int:key>/words")
def show(key: int) -> str:
    """The drawing of a body, told."""
    row = load_document("body", key)
    return render_template(
        "tank/inwords.html",
        row=row,
        for_order=orders.waiting_for(db(), key),
        told=in_words(others.outcome_of(row)),
    )


def in_words(outcome: Outcome) -> InTables:
    """What the drawing shows of a bait."""
    return InTables(
        sentence(outcome.verdict),
        (
            ToldTable(
                "things",
                "What is on it, from nose to tail",
                ("Part", "Mass", "From the nose", "Over the axis"),
                tuple(_things(outcome)),
            ),
            ToldTable(
                "outline",
                "Its outline",
                ("From the nose", "Back", "Belly", "Width"),
                tuple(_stations(outcome)),
            ),
        ),
        tuple(tank_facts(outcome)),
    )


def _things(outcome: Outcome) -> list[tuple[str, ...]]:
    """Each thing: its mass, how far from the nose and how far over the axis it acts."""
    hanging = outcome.hanging
    marks = [
        ("G, where all weight acts", said(outcome.budget.mass_g, "mass"), hanging.g_mm),
        (
            "B, the middle of the water pushed aside",
            said(outcome.budget.displaced_ml, "volume"),
            hanging.b_mm,
        ),
    ]
    parts = sorted((p for p in outcome.budget.parts if abs(p.mass_g) > 0.0005), key=lambda p: p.at_mm[0])
    rows = [*marks, *((p.name, said(p.mass_g, "mass"), p.at_mm) for p in parts)]
    return [(name, mass, said(at[0], "length"), said(at[2], "length", sign=True)) for name, mass, at in rows]


def _stations(outcome: Outcome) -> list[tuple[str, ...]]:
    """The outline at tenths of the length: back and belly from the axis, and the width."""
    body = outcome.design.body
    rows: list[tuple[str, ...]] = []
    for share in SHARES:
        x = body.length_mm * share / 100
        here = station(body, x)
        rows.append(
            (
                said(x, "length"),
                said(here.top_mm, "length", sign=True),
                said(here.bottom_mm, "length", sign=True),
                said(2 * here.half_width_mm, "length"),
            )
        )
    return rows

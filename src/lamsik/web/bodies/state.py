"""What the design screens show of one document: built here, bound by static/js/shared/bind.js."""

from dataclasses import asdict, dataclass
from typing import Any

from lamsik.core.shapes.body import Body
from lamsik.core.shapes.clashes import clashes
from lamsik.core.shapes.design import Design
from lamsik.core.tank import evaluate
from lamsik.core.tank.evaluate import Near, Outcome, Rules
from lamsik.core.tank.mass import NOTHING, Measured
from lamsik.core.units import show
from lamsik.documents.body.document import Document
from lamsik.drawings.draw import LOOKS, Sight, station_of, three_views
from lamsik.web.bodies import shape_facts as facts
from lamsik.web.bodies.paints_state import paints_part
from lamsik.web.bodies.tank_state import TankAsked, TankShop, late_part, tank_part
from lamsik.web.shared.fields import fields
from lamsik.words.verdict import sentence

BENCHES = ("shapes", "tank", "paints")


@dataclass(frozen=True)
class Asked:
    """How a design is looked at: bench, unit, settled or dragging, posture and side of the picture, warm
    start, trail of G.

    `shop` is what the Tank's settled answers choose from; None while dragging.
    """

    bench: str
    unit: str = "mm"
    settled: bool = True
    looks: str = ""
    facing: str = ""
    near: Near | None = None
    trail: tuple[tuple[float, float], ...] = ()
    measured: Measured = NOTHING
    shop: TankShop | None = None
    station_mm: float | None = None
    hinge_mm: float = 0.8


def view(document: Document, design: Design, rules: Rules, asked: Asked) -> dict[str, Any]:
    """The part of the state that is computed from the document and the design it describes, for one bench."""
    outcome = (
        evaluate.settle(design, asked.measured, rules)
        if asked.settled
        else evaluate.drag(design, asked.measured, rules, asked.near)
    )
    shared = {
        "name": design.name,
        "fields": fields(document, asked.unit),
        "sentence": sentence(outcome.verdict),
        "over": outcome.turns_over and not outcome.unbuilt,
        "missing": [asdict(need) for need in outcome.missing],
        "nothing_missing": not outcome.missing,
        "near": _near(outcome),
        "settled": outcome.settled,
        "selected": {
            "material": design.host.name,
            "form": design.form,
            "water": design.water.name,
            "behaviour": design.want.behaviour,
            "scheme": design.scheme,
            "by": design.want.by,
            "roll": design.want.roll,
            "tie": next((p.seat for p in design.hardware if p.item.kind == "line_tie"), ""),
            "source": design.source.kind,
            "outline": design.lip.outline if design.lip else "round",
            "fill": design.shell.fill if design.shell else "air",
            "hooks": next((p.item.code for p in design.hardware if p.item.kind == "hook"), ""),
        },
    }
    if asked.bench == "tank":
        return {
            **shared,
            **tank_part(outcome, TankAsked(asked.unit, asked.looks, asked.facing, asked.trail, asked.shop)),
        }
    if asked.bench == "paints":
        return {**shared, **paints_part(outcome, asked.unit, asked.looks)}
    return {**shared, **_shapes_part(outcome, asked)}


def late(design: Design, rules: Rules, shop: TankShop) -> dict[str, Any]:
    """What follows the Tank's settled view; the evaluation that it stands on is kept from that."""
    return late_part(evaluate.settle(design, NOTHING, rules), shop)


def _near(outcome: Outcome) -> dict[str, float] | None:
    if not outcome.surface:
        return None
    first = outcome.surface[0]
    return {
        "pitch_deg": first.attitude.pitch_deg,
        "roll_deg": first.attitude.roll_deg,
        "draft_mm": first.draft_mm,
    }


def _why_not(block: Body) -> dict[str, str]:
    """Why what acts on drawn lines, and what turns a body, cannot act on this one; empty where it can."""
    if block.skin is not None:
        says = "Brought in as a mesh: its size can be changed, its lines cannot."
        return {"lines": says, "turned": says, "mirror": "Brought in as a mesh: mirror it where it was made."}
    round_ = "Turned, round all along: untick it first." if block.top is block.half_width else ""
    return {"lines": round_, "turned": "", "mirror": ""}


def _shapes_part(outcome: Outcome, asked: Asked) -> dict[str, Any]:
    design, block = outcome.design, outcome.design.body
    looks = asked.looks if asked.looks in LOOKS else LOOKS[0]
    found = clashes(design, outcome.rules.wall_mm)
    troubles = [
        *dict.fromkeys((*outcome.unbuilt, *(clash.says for clash in found))),
        *facts.hinge_words(design, asked.hinge_mm),
    ]
    part = {
        "picture": three_views(design, Sight(asked.unit, looks, asked.station_mm, found)),
        "looks": looks,
        "station_mm": station_of(design, asked.station_mm),
        "station": show(
            station_of(design, asked.station_mm), "length", 1, asked.unit if asked.unit == "in" else None
        ),
        "drawn": block.skin is None,
        "is_mesh": block.skin is not None,
        "has_widest": block.widest is not None,
        "why_not": _why_not(block),
        "is_turned": block.top is block.half_width,
        "is_hollow": design.shell is not None,
        "facts": [asdict(fact) for fact in facts.body_facts(outcome)],
        "clashes": [{"key": str(i), "says": says} for i, says in enumerate(troubles)],
        "any_clash": bool(troubles),
        "hardware": [facts.hardware_row(p, design) for p in design.hardware],
        "no_hardware": not design.hardware,
        "lip": facts.lip_row(design),
        "no_lip": design.lip is None,
        "inside": facts.inside_rows(design),
        "no_inside": not (design.pours or design.cavities),
        "joints": [facts.joint_row(joint) for joint in block.joints],
        "no_joints": not block.joints,
        "source": design.source.describe(),
        "not_for_sale": not design.source.may_sell,
        "density_source": (
            {
                "table": "from the table: weigh a stick",
                "typed": "typed",
                "weighed": "weighed",
            }.get(design.host.source, design.host.source)
        ),
    }
    if asked.settled:
        part |= {"segments": facts.segment_rows(outcome), **facts.metals(outcome)}
    return part

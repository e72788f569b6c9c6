"""What the design screens show of one document: built here, bound by static/js/shared/bind.js."""

from dataclasses import dataclass, replace
from typing import Any

from lamsik.core.quantities import said
from lamsik.core.shapes.body import Body
from lamsik.core.shapes.clashes import Clash, clashes
from lamsik.core.shapes.design import Design
from lamsik.core.tank import evaluate
from lamsik.core.tank.evaluate import Near, Outcome, Rules
from lamsik.core.tank.mass import NOTHING, Measured
from lamsik.core.tank.printed import HINGE_MM
from lamsik.documents.rows import Document
from lamsik.drawings.draw import LOOKS, Sight, station_of, three_views
from lamsik.web.bodies import shape_facts as facts
from lamsik.web.bodies.paints_state import paint_panel
from lamsik.web.bodies.tank_state import TankAsked, TankShop, late_part, tank_part
from lamsik.web.bodies.tank_view import SegmentsPanel
from lamsik.web.bodies.view import (
    BodyPanel,
    DrawnPanel,
    NeedRow,
    PaintView,
    PartsPanel,
    ShapeView,
    TankView,
    WhyNot,
)
from lamsik.web.shared.fields import fields
from lamsik.web.shared.view import Head, Said, plain
from lamsik.words.tell import tell
from lamsik.words.verdict import sentence

BENCHES = ("shapes", "tank", "paints")


@dataclass(frozen=True)
class Asked:
    """How a design is looked at: bench, settled or dragging, posture and side of the picture, warm
    start, trail of G.

    `shop` is what the Tank's settled answers choose from; None while dragging.
    """

    bench: str
    settled: bool = True
    looks: str = ""
    facing: str = ""
    near: Near | None = None
    trail: tuple[tuple[float, float], ...] = ()
    measured: Measured = NOTHING
    shop: TankShop | None = None
    station_mm: float | None = None
    hinge_mm: float = HINGE_MM

    @property
    def is_moving(self) -> bool:
        """Whether a handle is being dragged."""
        return not self.settled and self.near is not None


def view(document: Document, design: Design, rules: Rules, asked: Asked) -> dict[str, Any]:
    """The part of the state that is computed from the document and the design it describes, for one bench."""
    outcome = (
        evaluate.settle(design, asked.measured, rules)
        if asked.settled
        else evaluate.drag(design, asked.measured, rules, asked.near)
    )
    return plain(VIEWS[asked.bench](outcome, _head(document, outcome), asked))


def _tank(outcome: Outcome, head: Head, asked: Asked) -> TankView:
    looked = TankAsked(asked.looks, asked.facing, asked.trail, asked.shop)
    return TankView(head, _body(outcome), tank_part(outcome, looked))


def _paints(outcome: Outcome, head: Head, asked: Asked) -> PaintView:
    return PaintView(
        head,
        _body(outcome),
        paint_panel(outcome, asked.facing, is_moving=asked.is_moving),
    )


def _shapes(outcome: Outcome, head: Head, asked: Asked) -> ShapeView:
    design = outcome.design
    clashing = clashes(design, outcome.rules.wall_mm)
    part = ShapeView(head, _body(outcome), _drawn(outcome, asked, clashing), _parts(outcome, asked, clashing))
    if not asked.settled:
        return part
    return replace(part, segments=SegmentsPanel(facts.segment_rows(outcome)), metals=facts.metals(outcome))


VIEWS = {"shapes": _shapes, "tank": _tank, "paints": _paints}
"""What each bench shows of a body."""


def _head(document: Document, outcome: Outcome) -> Head:
    design = outcome.design
    return Head(
        fields=fields(document),
        settled=outcome.settled,
        near=_near(outcome),
        sentence=sentence(outcome.verdict),
        selected={
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
    )


def _body(outcome: Outcome) -> BodyPanel:
    return BodyPanel(
        missing=[NeedRow(need.key, need.name, tell(need.why)) for need in outcome.missing],
        nothing_missing=not outcome.missing,
    )


def late(design: Design, rules: Rules, shop: TankShop) -> dict[str, Any]:
    """What follows the Tank's settled view; the evaluation that it stands on is kept from that."""
    return plain(late_part(evaluate.settle(design, NOTHING, rules), shop))


def _near(outcome: Outcome) -> dict[str, float] | None:
    if not outcome.surface:
        return None
    first = outcome.surface[0]
    return {
        "pitch_deg": first.attitude.pitch_deg,
        "roll_deg": first.attitude.roll_deg,
        "draft_mm": first.draft_mm,
    }


def _why_not(block: Body) -> WhyNot:
    if block.skin is not None:
        says = "Brought in as a mesh: its size can be changed, its lines cannot."
        return WhyNot(says, says, "Brought in as a mesh: mirror it where it was made.")
    return WhyNot("Turned, round all along: untick it first." if block.top is block.half_width else "")


def _drawn(outcome: Outcome, asked: Asked, clashing: tuple[Clash, ...]) -> DrawnPanel:
    design, block = outcome.design, outcome.design.body
    looks = asked.looks if asked.looks in LOOKS else LOOKS[0]
    station = station_of(design, asked.station_mm)
    weighed = {"table": "from the table: weigh a stick", "typed": "typed", "weighed": "weighed"}
    return DrawnPanel(
        picture=three_views(design, Sight(looks, asked.station_mm, clashing, asked.is_moving)),
        looks=looks,
        station_mm=station,
        station=said(station, "length"),
        drawn=block.skin is None,
        is_mesh=block.skin is not None,
        has_widest=block.widest is not None,
        why_not=_why_not(block),
        is_turned=block.top is block.half_width,
        is_hollow=design.shell is not None,
        facts=facts.body_facts(outcome),
        density_source=weighed.get(design.host.source, design.host.source),
    )


def _parts(outcome: Outcome, asked: Asked, clashing: tuple[Clash, ...]) -> PartsPanel:
    design, block = outcome.design, outcome.design.body
    troubles = [
        *map(tell, dict.fromkeys((*outcome.unbuilt, *(clash.says for clash in clashing)))),
        *facts.hinge_words(design, asked.hinge_mm),
    ]
    return PartsPanel(
        clashes=[Said(str(i), says) for i, says in enumerate(troubles)],
        any_clash=bool(troubles),
        hardware=[facts.hardware_row(placed, design) for placed in design.hardware],
        no_hardware=not design.hardware,
        lip=facts.lip_row(design),
        no_lip=design.lip is None,
        inside=facts.inside_rows(design),
        no_inside=not (design.pours or design.cavities),
        joints=[facts.joint_row(joint) for joint in block.joints],
        no_joints=not block.joints,
        not_for_sale=not design.source.may_sell,
    )

"""The route of a repaint: what came is weighed, its old paint kept and keyed or stripped, it is weighed
again, and painted like any other.
"""

from lamsik.core.errors import require, rule
from lamsik.core.findings import finding
from lamsik.core.paints.roles import GROUNDS, SEALS
from lamsik.core.route.steps import COAT, Route, Step, steps, timed
from lamsik.core.shapes.design import Design
from lamsik.core.trade.step_kinds import Minutes

KEPT, _ = OLD_PAINT = ("kept", "stripped")
"""What is done with the paint that is on it."""
CAME, BARED = WEIGHED = ("came", "bared")
"""What is weighed of it before it is painted: as it came, and once its old paint is keyed or off."""


def repainted(design: Design, old: str, own: Minutes | None = None) -> Route:
    """The route of a repaint, from what came to shipping.

    Args:
        design: what it is, in the scheme it gets.
        old: `kept` or `stripped`. Over old paint that is kept no seal and no ground go on.
        own: the shop's own minutes by kind of step.

    Raises:
        Refused: another word for `old`.
    """
    require(old in OLD_PAINT, "repaint", old, rule("one-of", listed=", ".join(OLD_PAINT)))
    bare = [layer.key for layer in design.layers if old == KEPT and layer.does in (SEALS, GROUNDS)]
    left_out = {f"{COAT}{key}" for key in bare}
    after = [step for step in steps(design, own) if _is_painting(step) and step.key not in left_out]
    return timed((*_before(old), *after), own)


def _is_painting(step: Step) -> bool:
    """Whether a step is one of a bait that is made already."""
    return not step.of.makes_body and step.kind not in ("fit", "tub")


def _before(old: str) -> tuple[Step, ...]:
    return (
        Step(
            "came", "come", finding("take-in"), finding("weigh-as-it-came"), weigh=CAME, cautions=("hooks",)
        ),
        Step(
            "bared",
            "key" if old == KEPT else "strip",
            finding("key-old-paint" if old == KEPT else "strip-old-paint"),
            finding("scuff-all-over" if old == KEPT else "down-to-the-body"),
            weigh=BARED,
            cautions=("paint_dust",) if old == KEPT else ("paint_dust", "solvent"),
        ),
    )

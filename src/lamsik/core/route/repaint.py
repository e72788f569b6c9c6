"""The route of what came made already: it is weighed, its old paint kept and keyed or stripped, it is
weighed again, and painted like any other; or it gets clear alone, or a detail.
"""

from lamsik.core.errors import require, rule
from lamsik.core.findings import finding
from lamsik.core.paints.roles import CLEARS, FITTED, GROUNDS, SEALS
from lamsik.core.route.steps import COAT, Route, Step, steps, timed
from lamsik.core.shapes.design import Design
from lamsik.core.trade.step_kinds import Minutes

KEPT, STRIPPED = OLD_PAINT = ("kept", "stripped")
"""What is done with the paint that is on it."""
CLEARED, DETAILED = TOUCHED = ("clear", "detail")
"""What is done to one that is not painted anew: clear over what it has; a detail and clear over that."""
PUTS_ON = {CLEARED: (CLEARS,), DETAILED: (FITTED, CLEARS)}
CAME, BARED = WEIGHED = ("came", "bared")
"""What is weighed of it before it is painted: as it came, and once its old paint is keyed or off."""


def repainted(design: Design, old: str, own: Minutes | None = None) -> Route:
    """The route of what came made already, from what came to shipping.

    Args:
        design: what it is, in the scheme it gets.
        old: `kept` or `stripped`, over old paint that is kept no seal and no ground go on; or `clear` or
            `detail`, where nothing else goes on than that.
        own: the shop's own minutes by kind of step.

    Raises:
        Refused: another word for `old`.
    """
    known = (*OLD_PAINT, *TOUCHED)
    require(old in known, "repaint", old, rule("one-of", listed=", ".join(known)))
    left_out = {f"{COAT}{layer.key}" for layer in design.layers if not _goes_on(layer.does, old)}
    after = [step for step in steps(design, own) if _is_painting(step) and step.key not in left_out]
    return timed((*_before(old), *after), own)


def _goes_on(does: str, old: str) -> bool:
    """Whether a layer that does so goes on."""
    if old in PUTS_ON:
        return does in PUTS_ON[old]
    return old == STRIPPED or does not in (SEALS, GROUNDS)


def _is_painting(step: Step) -> bool:
    """Whether a step is one of a bait that is made already."""
    return not step.of.makes_body and step.kind not in ("fit", "tub")


def _before(old: str) -> tuple[Step, ...]:
    keeps = old != STRIPPED
    return (
        Step(
            "came", "come", finding("take-in"), finding("weigh-as-it-came"), weigh=CAME, cautions=("hooks",)
        ),
        Step(
            "bared",
            "key" if keeps else "strip",
            finding("key-old-paint" if keeps else "strip-old-paint"),
            finding("scuff-all-over" if keeps else "down-to-the-body"),
            weigh=BARED,
            cautions=("paint_dust",) if keeps else ("paint_dust", "solvent"),
        ),
    )

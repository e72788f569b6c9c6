"""What mixes that were used teach: the loss from what is weighed back, what stays on a body from what the
pieces gained. One used amount cannot give both.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from statistics import stdev

from lamsik.core.errors import finite_between, require, rule
from lamsik.core.learning import SHOP, Learned
from lamsik.core.mixes.amount import learned_loss
from lamsik.core.paints.amounts import LOSS
from lamsik.core.paints.spraying import STAYS_SHARE
from lamsik.core.quantities import said

ENOUGH = 3
"""So many mixes outweigh the first guess."""
MOST_STAYS = 1.02
"""More than all of it never stays on a body; so much the scales may be off."""


@dataclass(frozen=True)
class UsedMix:
    """A mix that was used.

    Args:
        mixed_g: what was weighed in [g].
        kept_g: what was left over and kept [g].
        lost_g: what was weighed back out of cup and brush [g]; None where nobody did.
        gained_g: what the pieces gained, dry [g]; None where nobody weighed them.
        dry_share: what of a gram of the mix stays when it dries.
        by: how it went on; empty where in more than one way.
    """

    mixed_g: float
    kept_g: float = 0.0
    lost_g: float | None = None
    gained_g: float | None = None
    dry_share: float = 0.4
    by: str = ""

    def __post_init__(self) -> None:
        finite_between("left", self.kept_g, 0.0, self.mixed_g, "g")
        if self.lost_g is not None:
            finite_between("lost", self.lost_g, 0.0, self.mixed_g - self.kept_g, "g")
        if self.gained_g is not None:
            finite_between("gained", self.gained_g, 0.0, self.mixed_g, "g")
        stays = self.stays
        gained = None if self.gained_g is None else said(self.gained_g, "mass")
        require(stays is None or stays <= MOST_STAYS, "gained", gained, rule("more-than-went-on"))

    @property
    def on_its_way_g(self) -> float | None:
        """What left cup and brush for the pieces [g]; None where what stayed there was not weighed."""
        return None if self.lost_g is None else self.mixed_g - self.kept_g - self.lost_g

    @property
    def stays(self) -> float | None:
        """How much of that is on the pieces, of 1; None where either was not weighed."""
        went = self.on_its_way_g
        if not went or self.gained_g is None:
            return None
        return self.gained_g / (went * self.dry_share)


def loss_learned(mixes: Sequence[UsedMix]) -> Learned:
    """What stays in cup and brush, of what is needed, as the mixes have it."""
    pairs = [
        (went, went + (one.lost_g or 0.0)) for one in mixes if (went := one.on_its_way_g) is not None and went
    ]
    return learned_loss(pairs, LOSS)


def stays_learned(mixes: Sequence[UsedMix], by: str) -> Learned:
    """What of a paint put on in a way stays on a body: by the mass of all, drawn to the first guess while
    there are few.
    """
    usual = STAYS_SHARE[by]
    rows = [
        (one.stays, went)
        for one in mixes
        if one.by == by and one.stays is not None and (went := one.on_its_way_g)
    ]
    if not rows:
        return Learned(usual)
    seen = sum(stays * went for stays, went in rows) / sum(went for _, went in rows)
    weight = min(len(rows) / ENOUGH, 1.0)
    spread = stdev(stays for stays, _ in rows) if len(rows) > 1 else None
    return Learned(min(weight * seen + (1.0 - weight) * usual, 1.0), len(rows), spread, SHOP)

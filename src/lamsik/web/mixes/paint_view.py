"""What the guide shows of a mix of paint beside its parts: its lot, for what it is, what it taught."""

from dataclasses import dataclass

from flask import url_for

from lamsik.core.castings.pouring import POURED
from lamsik.core.learning import Learned
from lamsik.core.paints.lessons import UsedMix
from lamsik.core.quantities import said
from lamsik.store import paint_mixes
from lamsik.store.tables import Batch, Document
from lamsik.web.shared.db import db
from lamsik.words import paint_mixes as words

PAGES = {"paint": "paints_shelf.show", "match": "paints_match.show"}


@dataclass(frozen=True)
class MixedView:
    """A mix of paint: its lot, the page of what it is and of the body it is for, what was weighed of it after
    (None until then), what it says and what all of them say.
    """

    lot: str
    page: str
    back: str
    pieces: int
    kept_g: float | None
    lost_g: float | None
    gained_g: float | None
    says: str
    learned: tuple[str, ...]
    coarse: str


def drops_said(row: Batch) -> str:
    """`24 : 8 drops` of a mix of paint; nothing of another."""
    if not paint_mixes.is_paint(row):
        return ""
    return f"{' : '.join(str(line['drops']) for line in row.plan['rows'])} drops"


def mixed_view(row: Batch) -> MixedView | None:
    """A mix of paint; None of another."""
    if not paint_mixes.is_paint(row):
        return None
    plan, of = row.plan, db().get_one(Document, row.product_id)
    body = plan.get("design_id")
    used = paint_mixes.used_of(row) if row.state == POURED else None
    return MixedView(
        lot=paint_mixes.lot_of(db(), row),
        page=url_for(PAGES[of.kind], key=of.id),
        back=url_for("paints_amounts.show", key=body, pieces=plan.get("pieces")) if body else "",
        pieces=plan.get("pieces") or 0,
        kept_g=plan.get("left_g"),
        lost_g=plan.get("lost_g"),
        gained_g=plan.get("gained_g"),
        says=words.taught(used) if used else "",
        learned=learned(used) if used else (),
        coarse=_coarse(row),
    )


def learned(used: UsedMix | None = None) -> tuple[str, ...]:
    """What all mixes say of the loss, and of what stays, by the way this one went on or by all ways known."""
    stays = {
        by: one for by, one in paint_mixes.stays(db()).items() if one.n and (used is None or by == used.by)
    }
    loss: Learned = paint_mixes.loss(db())
    return tuple(words.learned(loss, stays))


def _coarse(row: Batch) -> str:
    """What is said of a scale that does not show a drop."""
    step, drop = float(row.plan["step_g"]), min(line["drop_g"] for line in row.plan["rows"])
    if step <= drop / 2:
        return ""
    return f"A drop is {said(drop, 'mass', 3)}, this scale shows {said(step, 'mass')}: count the small parts."

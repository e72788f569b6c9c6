"""Paint that is mixed: a batch of a recipe off the shelf, its lot, and what those that were used teach."""

from collections.abc import Mapping, Sequence
from contextlib import suppress
from typing import Any

from sqlmodel import Session, col, select

from lamsik.core.castings.pouring import POURED
from lamsik.core.errors import Refused, require
from lamsik.core.learning import Learned
from lamsik.core.mixes.product import MixPart, Product
from lamsik.core.paints.lessons import UsedMix, loss_learned, stays_learned
from lamsik.core.paints.mixture import TOLERANCE_PERCENT, Dropped, as_product, drop_g, dry_share
from lamsik.core.paints.spraying import STAYS_SHARE
from lamsik.store.tables import Batch, Document

KINDS = ("paint", "match")
"""Documents that a mix of paint is of: one off the shelf, or a colour as it is mixed."""
MOST_TAUGHT = 60


def is_paint(batch: Batch) -> bool:
    """Whether a batch is of paint."""
    return "recipe" in batch.plan


def planned(name: str, parts: Sequence[Dropped], step_g: float, **beside: Any) -> dict[str, Any]:
    """What a batch of paint keeps of its plan: the recipe as it is now, whatever becomes of it later.

    Args:
        name: what is mixed.
        parts: paints and their drops.
        step_g: what the scale shows [g].
        beside: for what: `design_id`, `pieces`, `by`.

    Raises:
        Refused: nothing goes in.
    """
    product = as_product(name, parts)
    counted = [one for one in parts if one.drops > 0]
    return {
        **beside,
        "recipe": {
            "name": product.name,
            "caution": product.caution,
            "parts": [
                {
                    "name": part.name,
                    "figure": part.figure,
                    "density_g_cm3": part.density_g_cm3,
                    "key": part.key,
                }
                for part in product.parts
            ],
        },
        "cautions": sorted({one.paint.caution for one in counted if one.paint.caution}),
        "rows": [
            {
                "part": one.called,
                "grams": one.grams,
                "code": one.code,
                "drops": one.drops,
                "drop_g": drop_g(one.paint),
            }
            for one in counted
        ],
        "extras": [],
        "total_g": sum(one.grams for one in counted),
        "filled_ml": sum(one.ml for one in counted),
        "step_g": step_g,
        "dry_share": dry_share(counted),
    }


def product_of(batch: Batch) -> Product:
    """What a batch of paint is of, as it was planned."""
    recipe = batch.plan["recipe"]
    parts = tuple(MixPart(**part) for part in recipe["parts"])
    return Product(
        recipe["name"],
        "other",
        "volume",
        parts,
        tolerance_percent=TOLERANCE_PERCENT,
        caution=recipe["caution"],
    )


def lot_of(session: Session, batch: Batch) -> str:
    """The lot a mix of paint is: the code of what is mixed and its own number, `W-086/41`."""
    return f"{session.get_one(Document, batch.product_id).code}/{batch.id}"


def teach(session: Session, batch: Batch, weighed: Mapping[str, float | None]) -> UsedMix:
    """Keep what was weighed of a mix after it was used: `left_g`, `lost_g`, `gained_g`, each None where it
    was not. Raises `Refused` for what cannot be.
    """
    first = "it teaches once it was used up: press Sprayed first"
    require(batch.state == POURED, "batch", batch.state, first)
    batch.plan = {**batch.plan, **weighed}
    used = used_of(batch)
    session.add(batch)
    session.flush()
    return used


def used_of(batch: Batch) -> UsedMix:
    """What a mix that was used says. Raises `Refused` where what was weighed of it cannot be."""
    plan = batch.plan
    return UsedMix(
        sum(float(line["grams"]) for line in batch.weighed),
        plan.get("left_g") or 0.0,
        plan.get("lost_g"),
        plan.get("gained_g"),
        plan["dry_share"],
        plan.get("by", ""),
    )


def _used(session: Session) -> list[UsedMix]:
    paints = select(Document.id).where(col(Document.kind).in_(KINDS))
    of_paints = col(Batch.product_id).in_(paints), Batch.state == POURED
    by_product = (col(Batch.id) + 0).desc()  # the bare id would have it read all that was ever mixed
    newest = select(Batch.id).where(*of_paints).order_by(by_product).limit(MOST_TAUGHT)
    query = select(Batch).where(col(Batch.id).in_(newest)).order_by(col(Batch.id).desc())
    mixes = []
    for row in session.exec(query).all():
        with suppress(Refused):  # one that cannot be teaches nothing
            mixes.append(used_of(row))
    return mixes


def loss(session: Session) -> Learned:
    """What stays in cup and brush, of what is needed."""
    return loss_learned(_used(session))


def stays(session: Session) -> dict[str, Learned]:
    """What stays on a body of what leaves the cup, by how it goes on."""
    used = _used(session)
    return {by: stays_learned(used, by) for by in STAYS_SHARE}


def stays_shares(session: Session) -> dict[str, float]:
    """The same as figures."""
    return {by: one.value for by, one in stays(session).items()}

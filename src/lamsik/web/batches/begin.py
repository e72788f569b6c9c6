"""A batch begun from a plan; nothing is mixed that the tubs do not hold."""

from flask import request

from lamsik.core.errors import Refused
from lamsik.core.mixes.layers import PouredLayer
from lamsik.core.quantities import plainly
from lamsik.store import pours
from lamsik.store.tables import Batch
from lamsik.web.batches.planning import MixPlan
from lamsik.web.shared.db import db
from lamsik.web.shared.scale import typed_weight


def begin(
    mix: MixPlan,
    purpose: str,
    mould_id: int | None = None,
    made_id: int | None = None,
    pour_id: int | None = None,
    layer: PouredLayer | None = None,
) -> Batch:
    """A batch of a plan. Raises `Refused` with what is missing in the tubs."""
    short = next((row for row in mix.rows if row.problem), None)
    if short is not None:
        raise Refused("stock", plainly(short.grams, "mass"), short.problem.rstrip("."))
    row = Batch(
        product_id=mix.product_id,
        purpose=purpose,
        plan=mix.kept(layer),
        at_c=mix.at_c,
        mould_id=mould_id,
        made_id=made_id,
        pour_id=pour_id,
    )
    pours.begin_weighing(db(), row)
    return row


def left_g() -> float | None:
    """What was left over of a batch, as the form says [g]; None where it was not weighed."""
    text = request.form.get("left", "").strip()
    return typed_weight(text, "left over") if text else None

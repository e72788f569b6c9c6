"""Where a part of a batch is drawn from: a tub of its product, or a pot of its paint."""

from datetime import datetime

from lamsik.core.castings.pouring import WEIGHING
from lamsik.core.errors import Refused
from lamsik.core.mixes.product import Product
from lamsik.core.mixes.tubs import choose, is_expired
from lamsik.core.quantities import read_measure
from lamsik.store import mixes, paint_mixes, pots
from lamsik.store.pots import PotOfPart
from lamsik.store.tables import Batch, StockLot
from lamsik.web.shared.db import db
from lamsik.web.shared.scale import typed_weight


def most_g(row: Batch, part: str) -> float | None:
    """The most that one good tub or pot of a part still holds [g]; None where none of it is known."""
    if paint_mixes.is_paint(row):
        return max((pot.left for pot in _pots(row, part) or ()), default=None)
    product, today = mixes.recipe_of(db(), row), datetime.now().date()
    left = [
        tub.left
        for tub in mixes.tubs(db(), row.product_id)
        if tub.part == part and not is_expired(mixes.core_tub(tub), product.open_days, today)
    ]
    return max(left, default=None)


def source_of(product: Product, row: Batch, part: str, grams: float) -> StockLot | PotOfPart | None:
    """What a part is drawn from: what it came from already while that holds enough, else a good one that
    does.
    """
    if paint_mixes.is_paint(row):
        return _pot(row, part, grams)
    tubs = mixes.tubs(db(), row.product_id)
    used = next(
        (line["tub"] for line in reversed(row.weighed) if line["part"] == part and line.get("tub")), None
    )
    mine = next((tub for tub in tubs if tub.id == used), None)
    if mine is not None and mine.left >= grams - 1e-9:
        return mine
    try:
        chosen = choose(
            [mixes.core_tub(tub) for tub in tubs], part, grams, product.open_days, datetime.now().date()
        )
    except Refused:
        return mine if row.state != WEIGHING else None
    return next(tub for tub in tubs if str(tub.id) == chosen.key)


def is_uncounted(row: Batch, part: str) -> bool:
    """Whether nothing is counted of what a part is drawn from: a paint without pots."""
    return paint_mixes.is_paint(row) and _pots(row, part) is None


def _pots(row: Batch, part: str) -> list[PotOfPart] | None:
    code = next(line["code"] for line in row.plan["rows"] if line["part"] == part)
    return pots.of_part(db(), code, part)


def _pot(row: Batch, part: str, grams: float) -> PotOfPart | None:
    known = _pots(row, part) or []
    used = next(
        (line["pot"] for line in reversed(row.weighed) if line["part"] == part and line.get("pot")), None
    )
    mine = next((pot for pot in known if pot.mark == used), None)
    if mine is not None and (row.state != WEIGHING or mine.left >= grams - 1e-9):
        return mine
    return next((pot for pot in known if pot.left >= grams - 1e-9), None)


def sent_g(row: Batch, part: str, texts: dict[str, str]) -> float:
    """Grams of a part as the form says: as weighed, or by so many drops. Raises `Refused`."""
    grams, drops = texts.get("grams", "").strip(), texts.get("drops", "").strip()
    line = next(one for one in [*row.plan["rows"], *row.plan.get("extras", [])] if one["part"] == part)
    if grams or not drops or "drop_g" not in line:
        return typed_weight(grams, part)
    counted = read_measure(drops, "number", part)
    if counted != int(counted):
        raise Refused(part, drops, "whole drops")
    return float(counted * line["drop_g"])

"""What the Moulds bench takes from the shop."""

from collections.abc import Callable

from lamsik.core.money import Money
from lamsik.core.moulds.heat import Heat
from lamsik.core.moulds.masters import BODY, Master
from lamsik.core.moulds.silicone import Bricks
from lamsik.documents.moulds import document as mould_document
from lamsik.documents.rows import Document
from lamsik.store import mixes, moulds, stores
from lamsik.web.moulds.gates import heat_of
from lamsik.web.moulds.state import MouldShop
from lamsik.web.moulds.usual import usual
from lamsik.web.shared.db import db


def shop_of(mould_id: int, block: Document) -> MouldShop:
    """The shop as a mould of the master that `block` names is looked at."""
    products = {row.code: (key, product) for key, (row, product) in mixes.products(db()).items()}
    prices, tubs = {}, mixes.tubs_by_product(db())
    currency = stores.setting(db(), "shop")["currency"]
    for code, (key, _) in products.items():
        priced = [(tub.price_minor, tub.received) for tub in tubs.get(key, []) if tub.price_minor]
        if priced:
            paid = Money(sum(price for price, _ in priced), currency).amount
            prices[code] = float(paid) / sum(g for _, g in priced) * 1000.0
    expected = block.get("demouldings")
    count = int(expected) if isinstance(expected, int | float) else None
    return MouldShop(
        products,
        prices,
        bricks(),
        moulds.master_use(db(), mould_id, count),
        moulds.source_of(db(), block),
        mould_id,
        currency,
        usual("silicone_g_cm3"),
        _heat_of(mould_id),
    )


def _heat_of(mould_id: int) -> Callable[[Document, float | None], Heat | None]:
    """The shop's own answer to how hot may be poured: of the mould as made, if it was."""
    mould_made = next((row for row in moulds.versions(db(), mould_id) if row.retired_at is None), None)
    return lambda document, melt_c: heat_of(document, mould_made, melt_c)


def bricks() -> Bricks:
    """Bricks and strip for boxes."""
    return Bricks(**stores.setting(db(), "bricks"))


def master_of(block: Document) -> Master:
    """The master of a document's block."""
    if block["kind"] != BODY:
        return mould_document.master_of(block)
    return mould_document.master_of({**block, "document": moulds.body_content(db(), block)})

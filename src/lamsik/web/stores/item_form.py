"""What is asked of an item: what it is, its pack and price, where it lies, whom it is from."""

from flask import request

from lamsik.core import money
from lamsik.core.errors import Refused, finite_between, require
from lamsik.core.quantities import as_typed, read_measure
from lamsik.core.stock.kinds import QUANTITIES
from lamsik.store import ledger, stores
from lamsik.store.tables import StockItem, Supplier
from lamsik.web.shared.db import db, sent_row
from lamsik.web.shared.forms import whole

MEASURED = {"pack": "in a pack", "minimum": "the least", "each_piece": "with each piece"}
TEXTS = {"name": 120, "place": 80, "material": 120, "note": 1000}


def read(row: StockItem) -> StockItem:
    """An item as the form says, kept. Raises `Refused` naming the field."""
    form = request.form
    for name, most in TEXTS.items():
        setattr(row, name, form.get(name, "").strip()[:most])
    typed = {}
    for name, called in MEASURED.items():
        text = form.get(name, "").strip()
        value = read_measure(text, QUANTITIES.get(row.unit, "number"), called) if text else 0.0
        setattr(row, name, finite_between(called, value, 0.0, 1_000_000.0))
        typed[name] = as_typed(text, QUANTITIES.get(row.unit, "number")) if text else ""
    row.typed = {name: text for name, text in typed.items() if text}
    supplier = sent_row(Supplier, "supplier", "that supplier is not there any more: open the page anew")
    row.supplier_id = supplier.id if supplier is not None else None
    row.price_minor, row.currency = price(form.get("price", ""))
    uses = form.get("uses", "").strip()
    row.uses = whole(uses, "expected uses", 0, 1_000_000) if uses else 0
    row.tax_percent = _share(form.get("tax", ""), "tax")
    text = form.get("density", "").strip()
    row.density_g_cm3 = (
        finite_between("density", read_measure(text, "density", "density"), 0.02, 25.0, "g/cm³")
        if text
        else None
    )
    return ledger.named(db(), row)


def price(text: str) -> tuple[int | None, str]:
    """A price as typed, in the shop's currency or in the one it names: `4.80`, `4.80 USD`."""
    currency = str(stores.setting(db(), "shop")["currency"])
    words = text.split()
    if len(words) == 2 and words[1].isalpha():
        require(len(words[1]) == 3, "price", text, "an amount and a currency of three letters, 4.80 USD")
        words, currency = words[:1], words[1].upper()
    if not words:
        return None, ""
    return money.read(" ".join(words), currency).minor, currency


def _share(text: str, name: str) -> float | None:
    if not text.strip():
        return None
    try:
        value = float(text.strip().removesuffix("%").replace(",", "."))
    except ValueError as error:
        raise Refused(name, text, "a share in percent, such as 21") from error
    return finite_between(name, value, 0.0, 100.0, "%")

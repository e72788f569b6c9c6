"""`lamsik calc cost`: what one of something costs, its price, what the hour earns."""

from fractions import Fraction
from pathlib import Path
from typing import Any

from lamsik.core import money
from lamsik.core.errors import require
from lamsik.core.money import Money
from lamsik.core.stock.costs import PACKING, SHIPPING, Costing, CostPart, Terms, material, shared, whole
from lamsik.formats import asked


def calc_cost(file: Path) -> dict[str, Any]:
    """The price of a cost file for its pay, or what the hour earns at its price; where the money goes."""
    document = asked.loads(file.read_bytes(), "cost")
    is_one = ("price" in document) != ("hourly" in document)
    require(is_one, "price", document.get("price"), "a price, or the pay of an hour: one of the two")
    currency = document["currency"]

    def minor(name: str, of: dict[str, Any] = document) -> int:
        return money.rounded(of.get(name, 0), currency).minor

    parts = [
        material(
            row["name"], row["amount"], minor("price", row), row["pack"], row.get("loss_percent", 0.0) / 100.0
        )
        for row in document.get("materials", [])
    ]
    parts += [shared(row["name"], minor("price", row), row["uses"]) for row in document.get("tools", [])]
    for share in (PACKING, SHIPPING):
        if minor(share):
            parts.append(CostPart(share, share, Fraction(minor(share))))
    terms = Terms(
        document.get("fee_percent", 0.0), minor("fee"), document.get("tax_percent", 0.0), minor("duty")
    )
    costing = Costing(tuple(parts), document["hours"], terms)
    price = minor("price") if "price" in document else costing.price(minor("hourly"))
    hourly = costing.hourly(price)
    each = whole([one.minor for one in parts])

    def said(sum_minor: int) -> float:
        return float(Money(sum_minor, currency).amount)

    return {
        "format": "lamsik-costing",
        "version": 1,
        "currency": currency,
        "price": said(price),
        "hourly": said(round(hourly)) if hourly is not None else None,
        "goes": {share: said(of_share) for share, of_share in costing.goes(price).items()},
        "parts": [
            {"share": one.share, "name": one.name, "sum": said(of_one)}
            for one, of_one in zip(parts, each, strict=True)
        ],
        "beside_the_hands": said(round(costing.beside)),
        "hours": document["hours"],
    }

"""A product as plain values, as files and tables keep it."""

from collections.abc import Mapping
from dataclasses import asdict
from typing import Any

from lamsik.core.errors import require
from lamsik.core.mixes.product import MixPart, Product
from lamsik.core.rows import checked_row

FORMAT, VERSION = "lamsik-product", 1


def to_product(document: Mapping[str, Any]) -> Product:
    """The product some values describe. Raises `Refused` naming the field."""
    plain = {name: value for name, value in document.items() if name not in ("format", "version", "parts")}
    rows = document.get("parts", [])
    require(isinstance(rows, list), "parts", rows, "a list of parts")
    parts = tuple(MixPart(**checked_row(row, MixPart, f"parts.{n + 1}")) for n, row in enumerate(rows[:4]))
    return Product(parts=parts, **checked_row(plain, Product, besides=("parts",)))


def to_document(product: Product) -> dict[str, Any]:
    """The values of a product, with the name and version of their format."""
    return {
        "format": FORMAT,
        "version": VERSION,
        **asdict(product),
        "parts": [asdict(part) for part in product.parts],
    }

"""The product document: a mixed product as JSON (format `lamsik-product`)."""

from typing import Any

from lamsik.core.errors import Refused
from lamsik.core.mixes.product import Product
from lamsik.core.mixes.recipe import FORMAT, VERSION, to_document, to_product
from lamsik.documents.engine import Kind
from lamsik.documents.rows import Document


def brought_in(found: Any) -> Document:
    """A document of what a file holds. Raises `Refused` naming what is wrong."""
    if not isinstance(found, dict) or found.get("format") != FORMAT or found.get("version") != VERSION:
        raise Refused("format", found, f"a {FORMAT} document of version {VERSION} is needed")
    return to_document(to_product(found))


PRODUCT: Kind[None, Product] = Kind(
    name="product",
    stem="X",
    format=FORMAT,
    version=VERSION,
    most_bytes=50_000,
    brought_in=brought_in,
    value=lambda document, _edit, _shop: to_product(document),
)

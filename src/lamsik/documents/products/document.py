"""The product document: a mixed product as JSON (format `lamsik-product`)."""

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Annotated, Any

from lamsik.core.mixes.product import Product
from lamsik.documents.document_schema import DocumentSchema, with_default
from lamsik.documents.engine import Kind
from lamsik.documents.rows import Document
from lamsik.documents.schemas import Const
from lamsik.documents.values import core_of, with_core

FORMAT, VERSION = "lamsik-product", 1


@dataclass(frozen=True)
class ProductDocument(Product):
    """A product document of this version: a product."""

    format: Annotated[str, Const(FORMAT)] = FORMAT
    version: Annotated[int, Const(VERSION)] = VERSION


PRODUCT_SCHEMA = DocumentSchema(
    "lamsik.documents.products",
    ProductDocument,
    FORMAT,
    VERSION,
    with_default(ProductDocument) - {"ProductDocument.format", "ProductDocument.version"},
)


def to_product(document: Mapping[str, Any]) -> Product:
    """The product a document describes. Raises `Refused` naming the field."""
    found: Product = core_of(Product, document)
    return found


def to_document(product: Product) -> Document:
    """A product as it is kept."""
    return with_core({"format": FORMAT, "version": VERSION}, product)


PRODUCT: Kind[None, Product] = Kind(
    name="product",
    stem="X",
    schema=PRODUCT_SCHEMA,
    most_bytes=50_000,
    value=lambda document, _edit, _shop: to_product(document),
)

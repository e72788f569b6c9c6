"""The product document: a mixed product as JSON (format `lamsik-product`)."""

from collections.abc import Mapping
from dataclasses import dataclass, field
from typing import Annotated, Any

from lamsik.core.mixes.product import MixPart, Product, keepable
from lamsik.documents.adding import adding
from lamsik.documents.document_schema import DocumentSchema, with_default
from lamsik.documents.engine import Kind
from lamsik.documents.rows import Document, keyed
from lamsik.documents.schemas import TYPED, Const, Raw
from lamsik.documents.typed import Edit
from lamsik.documents.values import core_of, with_core

FORMAT, VERSION = "lamsik-product", 1


@dataclass(frozen=True)
class ProductDocument(Product):
    """A product document of this version: a product."""

    format: Annotated[str, Const(FORMAT)] = FORMAT
    version: Annotated[int, Const(VERSION)] = VERSION
    typed: Annotated[dict[str, str], Raw(TYPED)] = field(default_factory=dict)


def _raised(document: Document) -> Document:
    return keyed(document, "parts", "p")


PRODUCT_SCHEMA = DocumentSchema(
    "lamsik.documents.products",
    ProductDocument,
    FORMAT,
    VERSION,
    with_default(ProductDocument) - {"ProductDocument.format", "ProductDocument.version"},
    raised=_raised,
)


def to_product(document: Mapping[str, Any]) -> Product:
    """The product a document describes. Raises `Refused` naming the field."""
    product: Product = core_of(Product, document)
    return product


def to_document(product: Product) -> Document:
    """A product as it is kept."""
    document: Document = PRODUCT_SCHEMA.brought_up(with_core({"format": FORMAT, "version": VERSION}, product))
    return document


def begun(product: Product) -> Document:
    """A product as it is kept first. Raises `Refused` where it cannot be."""
    return to_document(keepable(product))


def _part(document: Document, edit: Edit, _shop: None, key: str) -> MixPart:
    """As much as the last, of its density, under a name that no other has."""
    last, names = document["parts"][-1], {row["name"] for row in document["parts"]}
    name = next(name for n in range(1, 9) if (name := f"part {n}") not in names)
    return MixPart(name, last["figure"], last["density_g_cm3"], key)


PRODUCT: Kind[None, Product] = Kind(
    name="product",
    stem="X",
    schema=PRODUCT_SCHEMA,
    most_bytes=50_000,
    begins=begun,
    value=lambda document, _edit, _shop: keepable(to_product(document)),
    filed=lambda document: {name: value for name, value in document.items() if name != "typed"},
    acts={"add": adding("parts", "p", _part)},
    groups=("parts",),
    texts=("name", "kind", "basis", "caution", "family"),
    empties=("cured_g_cm3", "free_rise_g_cm3", "heat_limit_c", "process_c"),
)

"""The product document: a mixed product as JSON (format `lamsik-product`)."""

import json
from dataclasses import asdict
from typing import Any

from lamsik.core.errors import Refused, require
from lamsik.core.mixes.product import Part, Product
from lamsik.core.rows import checked_row

FORMAT, VERSION = "lamsik-product", 1
MOST_BYTES = 50_000
Document = dict[str, Any]


def loads(data: bytes) -> Document:
    """A checked document from a file. Raises `Refused` naming what is wrong."""
    require(len(data) <= MOST_BYTES, "file", f"{len(data)} bytes", f"at most {MOST_BYTES} bytes")
    try:
        found = json.loads(data)
    except (ValueError, RecursionError) as error:
        raise Refused("file", str(data[:30]), "JSON text is needed") from error
    if not isinstance(found, dict) or found.get("format") != FORMAT or found.get("version") != VERSION:
        raise Refused("format", str(found)[:40], f"a {FORMAT} document of version {VERSION} is needed")
    return to_document(to_product(found))


def dumps(document: Document) -> str:
    """The document as text."""
    return json.dumps(document, ensure_ascii=False, indent=2, allow_nan=False) + "\n"


def to_product(document: Document) -> Product:
    """The product a document describes. Raises `Refused` naming the field."""
    plain = {name: value for name, value in document.items() if name not in ("format", "version", "parts")}
    rows = document.get("parts", [])
    require(isinstance(rows, list), "parts", str(rows)[:40], "a list of parts")
    parts = tuple(Part(**checked_row(row, Part, f"parts.{n + 1}")) for n, row in enumerate(rows[:4]))
    return Product(parts=parts, **checked_row(plain, Product, besides=("parts",)))


def to_document(product: Product) -> Document:
    """The document of a product."""
    return {"format": FORMAT, "version": VERSION, **asdict(product), "parts": [asdict(part) for part in product.parts]}

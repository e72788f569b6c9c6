"""The product document: a mixed product as JSON (format `lamsik-product`)."""

import json
from typing import Any

from lamsik.core.errors import Refused, require
from lamsik.core.mixes.recipe import FORMAT, VERSION, to_document, to_product
from lamsik.formats.json_text import json_text
from lamsik.formats.sniff import kind_of

MOST_BYTES = 50_000
Document = dict[str, Any]


def loads(data: bytes) -> Document:
    """A checked document from a file. Raises `Refused` naming what is wrong."""
    require(len(data) <= MOST_BYTES, "file", f"{len(data)} bytes", f"at most {MOST_BYTES} bytes")
    try:
        found = json.loads(data)
    except (ValueError, RecursionError) as error:
        raise Refused("file", kind_of(data, "a JSON file"), "JSON text is needed") from error
    if not isinstance(found, dict) or found.get("format") != FORMAT or found.get("version") != VERSION:
        raise Refused("format", found, f"a {FORMAT} document of version {VERSION} is needed")
    return to_document(to_product(found))


def dumps(document: Document) -> str:
    """The document as text."""
    return json_text(document)

"""The file of a document of any kind: JSON text in and out."""

import json
from typing import Any

from lamsik.core.errors import Refused, require
from lamsik.core.quantities import file_size
from lamsik.documents.engine import Kind
from lamsik.documents.rows import Document
from lamsik.formats.json_text import json_text
from lamsik.formats.sniff import kind_of


def read(kind: Kind[Any, Any], data: bytes) -> Document:
    """The checked document of a file. Raises `Refused` naming the field, what was given, what is allowed."""
    require(
        len(data) <= kind.most_bytes, "file", file_size(len(data)), f"at most {file_size(kind.most_bytes)}"
    )
    return kind.brought_in(read_json(data))


def read_json(data: bytes) -> Any:
    """What a file of JSON text holds. Raises `Refused` saying what kind of file it is instead."""
    try:
        return json.loads(data, parse_constant=_no_number)
    except (ValueError, RecursionError) as error:
        raise Refused("file", kind_of(data, "a JSON file"), "JSON text is needed") from error


def _no_number(text: str) -> None:
    raise ValueError(f"{text} is no number")


def write(kind: Kind[Any, Any], document: Document) -> str:
    """The file of a document: indented JSON text, keys in their documented order."""
    return json_text(kind.filed(document))

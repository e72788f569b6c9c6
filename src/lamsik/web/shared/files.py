"""What is taken away as a file: named by code and name, so that a folder of them can be read."""

import re
import unicodedata
from urllib.parse import quote

from flask import Response

from lamsik.store.tables import Document

MOST_NAME = 90
UNFIT = re.compile(r'[\\/:*?"<>|\x00-\x1f\x7f]+')
"""What some system does not take in a file's name."""


def named(row: Document, what: str = "") -> str:
    """A file's name without its ending: code, name, and which part of it."""
    return plain_name(f"{row.code} {row.name} {what}".strip())


def plain_name(text: str) -> str:
    """A text as a file's name that every system takes."""
    return " ".join(UNFIT.sub(" ", text).split())[:MOST_NAME].strip(" .")


def as_file(data: bytes | str, name: str, kind: str, shown: bool = False) -> Response:
    """A file to keep, or one that the browser may show first."""
    answer = Response(data.encode("utf-8") if isinstance(data, str) else data, mimetype=kind)
    plain = unicodedata.normalize("NFKD", name).encode("ascii", "ignore").decode("ascii")
    told = f'{"inline" if shown else "attachment"}; filename="{" ".join(plain.split()).replace(" .", ".")}"'
    answer.headers["Content-Disposition"] = (
        told if plain == name else f"{told}; filename*=UTF-8''{quote(name)}"
    )  # RFC 6266
    return answer


def as_pdf(data: bytes, name: str) -> Response:
    """A PDF, shown first."""
    return as_file(data, f"{name}.pdf", "application/pdf", shown=True)

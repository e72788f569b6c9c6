"""The scheme on a body, as pages and cards name it."""

from lamsik.core.shapes.design import Design
from lamsik.store import documents
from lamsik.web.shared.db import db
from lamsik.words.paints import lies


def scheme_said(design: Design) -> str:
    """The scheme on a body by name, code and version; empty where none lies on it."""
    if not design.scheme:
        return ""
    row = documents.coded(db(), "scheme", design.scheme)
    name = row.name if row is not None else ""
    return lies(name, design.scheme, design.scheme_version, design.scheme_version)

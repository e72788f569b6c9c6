"""Body documents of earlier versions, raised to this one: what they could not say yet is at rest."""

from lamsik.documents.rows import Document
from lamsik.documents.schemes.shape import with_doing, with_layers, with_shapes

NEW_IN_2: Document = {
    "allowances": [],
    "pours": [],
    "cavities": [],
    "trials": [],
    "drag": None,
    "drag_source": "shop",
}
NEW_WANT_IN_2: Document = {
    "by": "speed",
    "net_percent": 2.0,
    "freeboard_mm": 4.0,
    "roll": "any",
    "pierced": False,
    "waters": [],
}


NEW_IN_3: Document = {"joints": [], "segments": [], "shell": None, "source": {"kind": "own", "note": ""}}
NEW_IN_4: Document = {"adjustments": []}
NEW_IN_6: Document = {"scheme_version": 0}
NEW_BODY_IN_3: Document = {"widest_shares": None, "turned": False, "mesh": None}
NEW_HARDWARE_IN_3: Document = {
    "material": "steel",
    "wire_mm": 0.0,
    "shank_mm": 0.0,
    "bore_mm": 0.0,
    "up_mm": None,
}


def raised(document: Document) -> Document:
    """A document of an earlier version as one of this; anything else as it is."""
    if document.get("version") == 1:
        within = {"want": NEW_WANT_IN_2, "material": {"solid_g_cm3": None}, "lip": {"square_deg": 0.0}}
        document = _raised({**NEW_IN_2, **document, "version": 2}, within, {})
    if document.get("version") == 2:
        document = _raised(
            {**NEW_IN_3, **document, "version": 3},
            {"body": NEW_BODY_IN_3, "lip": {"outline": "round"}},
            {"hardware": NEW_HARDWARE_IN_3, "pours": {"tilt_deg": 0.0}},
        )
    if document.get("version") == 3 and "coats" in document:
        document = with_layers({**NEW_IN_4, **document, "version": 4})
    if document.get("version") == 4 and "layers" in document:
        document = with_shapes({**document, "version": 5})
    if document.get("version") == 5 and "layers" in document:
        document = with_doing({**NEW_IN_6, **document, "version": 6})
    return document


def _raised(document: Document, within: Document, rows: Document) -> Document:
    """The document with fields added within its parts and within the rows of its lists."""
    for name, added in within.items():
        if isinstance(document.get(name), dict):
            document[name] = {**added, **document[name]}
    for name, added in rows.items():
        if isinstance(document.get(name), list):
            document[name] = [{**added, **row} if isinstance(row, dict) else row for row in document[name]]
    return document

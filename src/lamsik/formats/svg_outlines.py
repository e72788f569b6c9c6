"""SVG in: paths, shapes, transforms and units by svgelements, after defusedxml has looked for what must
not be there. SVG out: see drawings.
"""

import json
import re
from hashlib import sha256
from io import BytesIO
from typing import Any
from xml.etree.ElementTree import Element

import numpy as np
from defusedxml import ElementTree as SafeTree
from defusedxml.common import DefusedXmlException
from svgelements import SVG, Path, Shape

from lamsik.core.errors import Refused
from lamsik.core.shapes.curves import Array
from lamsik.documents.body.shape import BODY_SCHEMA
from lamsik.documents.rows import Document
from lamsik.formats.outlines import MOST_BYTES, MOST_POINTS, MOST_SHAPES, FoundOutline, Outlines, chosen
from lamsik.formats.sniff import kind_of

PX_MM = 25.4 / 96
BANNED = ("script", "foreignobject", "iframe", "image", "use", "animate", "set", "animatetransform")
OURS = "lamsik-body"
"""Id of the metadata in which our own files carry the document they were drawn from."""


LONG_PATH, NUMBER = re.compile(rb"""=\s*["']([^"']{40000,})["']"""), re.compile(rb"[-+]?(?:\d+\.?\d*|\.\d+)")
"""Attributes long enough to hold too many points, and where a number in them begins, more or less."""


def read(data: bytes) -> Outlines:
    """Side and top outline [mm] of an SVG.

    Raises:
        Refused: too large, no XML, entities or scripts or outside links in it, nothing closed to be found.
    """
    if len(data) > MOST_BYTES:
        raise Refused("svg", f"{len(data) / 1e6:.1f} MB", f"at most {MOST_BYTES / 1e6:.0f} MB")
    try:
        root = SafeTree.fromstring(data, forbid_dtd=False)
    except DefusedXmlException as error:
        raise Refused("svg", None, "entities are not read: save it as plain SVG") from error
    except Exception as error:
        raise Refused(
            "svg", kind_of(data, "an SVG drawing"), "this is no SVG file that can be read"
        ) from error
    if _tag(root) != "svg":
        raise Refused("svg", _tag(root), "this is XML but no SVG")
    _refuse_active(root)
    return chosen(_closed_shapes(data), _own_document(root))


def _tag(element: Element) -> str:
    return str(element.tag).rsplit("}", 1)[-1].lower()


def _refuse_active(root: Element) -> None:
    """A drawing has no scripts, no events, no links out of the file."""
    for element in root.iter():
        name = _tag(element)
        if name in BANNED:
            raise Refused(
                "svg",
                f"<{name}>",
                "scripts, pictures, copies and movement are not read: save the outlines alone as plain SVG",
            )
        if name == "style" and any(
            word in (element.text or "").lower() for word in ("@import", "url(", "expression(")
        ):
            raise Refused(
                "svg", "<style> with a link", "links out of the file are not followed: save it as plain SVG"
            )
        for key, value in element.attrib.items():
            bare, text = key.rsplit("}", 1)[-1].lower(), value.strip().lower()
            if bare.startswith("on"):
                raise Refused("svg", f'{bare}="…" in <{name}>', "events are not read: save it as plain SVG")
            if bare in ("href", "src") and not text.startswith("#"):
                raise Refused(
                    "svg", value[:60], "links out of the file are not followed: save it as plain SVG"
                )
            if "url(" in text and "url(#" not in text.replace('"', "").replace("'", ""):
                raise Refused(
                    "svg", value[:60], "links out of the file are not followed: save it as plain SVG"
                )


def _closed_shapes(data: bytes) -> list[FoundOutline]:
    longest = max((len(NUMBER.findall(path)) for path in LONG_PATH.findall(data)), default=0)
    if (
        longest > 8 * MOST_POINTS
    ):  # a curve is up to six numbers a corner; counted before anything is built of them
        raise Refused(
            "svg",
            f"a path of {longest} numbers",
            f"at most {MOST_POINTS} points in one path: simplify it where it was drawn",
        )
    try:
        drawing = SVG.parse(BytesIO(data), reify=True, ppi=96.0)
    except Exception as error:
        raise Refused("svg", None, "its paths cannot be read: save it anew as plain SVG") from error
    shapes: list[FoundOutline] = []
    for count, element in enumerate(drawing.elements()):
        if count > MOST_SHAPES:
            raise Refused(
                "svg", f"more than {MOST_SHAPES} shapes", "keep the side and the top outline, drop the rest"
            )
        if isinstance(element, Shape):
            shapes += _outlines_of(element)
    return shapes


def _outlines_of(shape: Any) -> list[FoundOutline]:
    """The closed parts of a shape as points [mm]."""
    path = shape if isinstance(shape, Path) else Path(shape)
    outlines = []
    for part in path.as_subpaths():
        points = _points(Path(part))
        if len(points) > 3 and _is_closed(points):
            outlines.append(FoundOutline(str(shape.id or ""), points * PX_MM * np.array([1.0, -1.0])))
    return outlines


def _points(path: Any) -> Array:
    """Points along a path: its corners, and curves in between fine enough."""
    rows: list[tuple[float, float]] = []
    for piece in path:
        kind = type(piece).__name__
        if piece.end is None:
            continue
        if kind in ("Move", "Line", "Close"):
            rows.append((piece.end.x, piece.end.y))
        else:
            rows += [(p.x, p.y) for p in (piece.point(t) for t in np.linspace(0.0, 1.0, 33)[1:])]
        if len(rows) > MOST_POINTS:
            raise Refused(
                "svg", f"more than {MOST_POINTS} points in one path", "simplify the path where it was drawn"
            )
    return np.array(rows, dtype=float).reshape(-1, 2)


def _is_closed(points: Array) -> bool:
    """Whether the last point comes back to the first, to a hundredth of the size."""
    return float(np.hypot(*(points[0] - points[-1]))) < 0.01 * float(np.ptp(points, axis=0).max() + 1e-9)


def path_digest(paths: list[str]) -> str:
    """What the outlines' path data come to: tells whether a file of ours was changed since."""
    return sha256("\n".join(" ".join(path.split()) for path in paths).encode()).hexdigest()


def own_metadata(document: Document, paths: list[str]) -> str:
    """The text our files carry: the document, and the digest of the outlines drawn from it."""
    return json.dumps({"digest": path_digest(paths), "document": document}, ensure_ascii=False)


def _own_document(root: Element) -> Document | None:
    """The document our own file carries, if its outlines are still those drawn from it."""
    metadata = next(
        (element for element in root.iter() if _tag(element) == "metadata" and element.get("id") == OURS),
        None,
    )
    if metadata is None or not metadata.text:
        return None
    try:
        kept = json.loads(metadata.text)
        paths = [element.get("d", "") for element in root.iter() if element.get("id") in ("side", "top")]
        return BODY_SCHEMA.checked(kept["document"]) if kept["digest"] == path_digest(paths) else None
    except (ValueError, KeyError, TypeError):
        return None

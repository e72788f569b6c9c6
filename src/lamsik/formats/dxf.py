"""DXF in and out by ezdxf: outlines, sections, lip and drill holes on layers of their own, in millimetres.

ezdxf is imported where it is used: it takes a fifth of the program's start, and few starts need it.
"""

import io
import json
import logging
import re
from hashlib import sha256
from typing import Any

import numpy as np

from lamsik.core.errors import Refused
from lamsik.core.shapes.curves import Array
from lamsik.core.shapes.drawn_layers import DrawnLayer
from lamsik.documents.blades.document import is_blade
from lamsik.documents.body.shape import BODY_SCHEMA
from lamsik.documents.rows import Document
from lamsik.formats.outlines import MOST_BYTES, MOST_POINTS, MOST_SHAPES, FoundOutline, Outlines, chosen
from lamsik.formats.sniff import kind_of

logging.getLogger("ezdxf").setLevel(logging.WARNING)

OURS = "LAMSIK_BODY"
CHUNK = 200


WORD_MM = 2.5
"""Height of what is written in a drawing."""


def write(layers: list[DrawnLayer], document: Document | None = None) -> bytes:
    """A DXF of the layers, units millimetres; with a document (a body's or a blade's) it can be brought in
    again unchanged.
    """
    from ezdxf import bbox, zoom  # noqa: PLC0415
    from ezdxf.enums import InsertUnits  # noqa: PLC0415
    from ezdxf.filemanagement import new  # noqa: PLC0415

    drawing = new("R2010", setup=True)
    drawing.units = InsertUnits.Millimeters
    space = drawing.modelspace()
    for layer in layers:
        drawing.layers.add(layer.name)
        for outline in layer.outlines:
            space.add_lwpolyline(
                [(float(x), float(y)) for x, y in outline], close=True, dxfattribs={"layer": layer.name}
            )
        for line in layer.lines:
            space.add_lwpolyline([(float(x), float(y)) for x, y in line], dxfattribs={"layer": layer.name})
        for x, y, diameter in layer.circles:
            space.add_circle((x, y), diameter / 2, dxfattribs={"layer": layer.name})
        for x, y, text in layer.words:
            space.add_text(text, height=WORD_MM, dxfattribs={"layer": layer.name}).set_placement((x, y))
    zoom.extents(space)
    reach = bbox.extents(space)
    space.reset_extents(reach.extmin, reach.extmax)
    drawing.header["$EXTMIN"], drawing.header["$EXTMAX"] = reach.extmin, reach.extmax
    if document is not None:
        text = json.dumps(
            {
                "digest": _digest(
                    [o for layer in layers for o in layer.outlines if layer.name in ("SIDE", "TOP")]
                ),
                "document": document,
            }
        )
        record = drawing.rootdict.add_xrecord(OURS)
        record.reset([(1, text[i : i + CHUNK]) for i in range(0, len(text), CHUNK)])
    stream = io.StringIO()
    drawing.write(stream)
    return stream.getvalue().encode("utf-8")


def _digest(outlines: list[Array]) -> str:
    """Tells whether outlines were changed; readers start a closed line elsewhere and leave out points that
    repeat, so order does not count.
    """
    with np.errstate(over="ignore"):  # a coordinate beyond all numbers is refused by its reader
        return sha256(
            b"".join(
                np.unique(np.round(np.asarray(o, dtype=float), 4) + 0.0, axis=0).tobytes() for o in outlines
            )
        ).hexdigest()


def read(data: bytes) -> Outlines:
    """Side and top outline [mm] of a DXF: by their layers, else the largest. Raises `Refused` naming what
    is wrong.
    """
    if len(data) > MOST_BYTES:
        raise Refused("dxf", f"{len(data) / 1e6:.1f} MB", f"at most {MOST_BYTES / 1e6:.0f} MB")
    corners = len(re.findall(rb"^ *10\r?$", data, re.M))
    if corners > 2 * MOST_POINTS:  # counted before anything is built of them
        raise Refused(
            "dxf",
            f"{corners} points",
            f"at most {2 * MOST_POINTS} in a drawing: simplify it where it was drawn",
        )
    from ezdxf.enums import InsertUnits  # noqa: PLC0415
    from ezdxf.filemanagement import read as read_stream  # noqa: PLC0415
    from ezdxf.lldxf.const import DXFError  # noqa: PLC0415
    from ezdxf.units import conversion_factor  # noqa: PLC0415

    try:
        drawing: Any = read_stream(io.StringIO(data.decode("utf-8", "replace")))
    except (DXFError, OSError, ValueError, TypeError, IndexError, KeyError, AttributeError) as error:
        raise Refused(
            "dxf", kind_of(data, "a DXF drawing"), "this is no DXF file that can be read"
        ) from error
    unit = InsertUnits(drawing.units or InsertUnits.Millimeters)
    factor = float(conversion_factor(unit, InsertUnits.Millimeters))
    outlines, ours = [], []
    for count, entity in enumerate(drawing.modelspace()):
        if count > MOST_SHAPES:
            raise Refused(
                "dxf", f"more than {MOST_SHAPES} shapes", "keep the side and the top outline, drop the rest"
            )
        points = _outline(entity)
        if points is not None:
            outlines.append(FoundOutline(str(entity.dxf.layer), points * factor))
            if entity.dxf.layer in ("SIDE", "TOP"):
                ours.append(points)
    return chosen(outlines, _own_document(drawing, ours))


def _outline(entity: Any) -> Array | None:
    """A closed entity's points, None for anything else."""
    from ezdxf.path import make_path  # noqa: PLC0415

    try:
        path = make_path(entity)
    except TypeError:
        return None
    if not path.is_closed:
        return None
    points = np.array([(p.x, p.y) for p in path.flattening(0.01)], dtype=float)
    if len(points) > MOST_POINTS:
        raise Refused("dxf", f"{len(points)} points", f"at most {MOST_POINTS} in one outline")
    return points[:-1] if len(points) > 3 else None


def _own_document(drawing: Any, outlines: list[Array]) -> Document | None:
    """The document our own file carries, if its outlines are still those drawn from it."""
    record = drawing.rootdict.get(OURS)
    if record is None:
        return None
    try:
        kept = json.loads("".join(tag.value for tag in record.tags))
        if kept["digest"] != _digest(outlines):
            return None
        document: Document = kept["document"]
        return document if is_blade(document) else BODY_SCHEMA.checked(document)
    except (ValueError, KeyError, TypeError, AttributeError):
        return None

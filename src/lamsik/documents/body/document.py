"""The body document: a design as JSON, our own format, versioned, a unit in every key's name.

Described in docs/formats.md; its fields, their ranges and its JSON Schema are those of `shape.py` and of the
values of the core that stand there.
"""

import copy
from dataclasses import asdict, fields, replace
from typing import Any

from lamsik.core.paints.adjusting import Adjustment
from lamsik.core.paints.layers import Layer
from lamsik.core.shapes.allowances import Allowance
from lamsik.core.shapes.ballast_holes import Hole
from lamsik.core.shapes.body import Body
from lamsik.core.shapes.curves import Curve
from lamsik.core.shapes.design import Design, Host, Want
from lamsik.core.shapes.forms import Form
from lamsik.core.shapes.hardware import Item, Lip, Placement
from lamsik.core.shapes.hollow import Shell
from lamsik.core.shapes.inside import Cavity, PouredEnd
from lamsik.core.shapes.joints import Joint
from lamsik.core.shapes.skins import Skin
from lamsik.core.shapes.sources import Source
from lamsik.core.shapes.trial import TrialWeight
from lamsik.core.water import Water
from lamsik.documents.body.before import NEW_IN_2, NEW_IN_3, NEW_IN_4, NEW_IN_6
from lamsik.documents.body.shape import FORMAT, VERSION
from lamsik.documents.rows import Document
from lamsik.documents.values import row_of, value_of

MOST_BYTES = 1_000_000
MESH = "mesh_data"
"""Where a file has the mesh of a body that was brought in as one."""


def to_design(document: Document) -> Design:
    """The design a checked document describes. Raises `Refused` where fields contradict each other."""
    own = ("name", "form", "purpose", "scheme", "scheme_version", "glue_g", "drag", "drag_source")
    segments = ((row["key"], value_of(Host, row["material"])) for row in document["segments"])
    return Design(
        **{name: document[name] for name in own},
        **{name: value_of(kind, document[name]) for name, kind in AS_THEY_ARE.items()},
        body=_body(document["body"], value_of(tuple[Joint, ...], document["joints"])),
        host=value_of(Host, document["material"]),
        hardware=tuple(_placement(row) for row in document["hardware"]),
        segment_hosts=tuple(segments),
    )


AS_THEY_ARE: dict[str, Any] = {
    "lip": Lip | None,
    "ballast": tuple[Hole, ...],
    "layers": tuple[Layer, ...],
    "adjustments": tuple[Adjustment, ...],
    "water": Water,
    "want": Want,
    "allowances": tuple[Allowance, ...],
    "pours": tuple[PouredEnd, ...],
    "cavities": tuple[Cavity, ...],
    "trials": tuple[TrialWeight, ...],
    "shell": Shell | None,
    "source": Source,
}
"""Parts of a document that are the design's own."""


def _body(row: Document, joints: tuple[Joint, ...] = ()) -> Body:
    ends, size = (row["round_nose"], row["round_tail"]), (row["length_mm"], row["width_mm"], row["depth_mm"])
    half = _curve(row["half_width_shares"], row["width_mm"], *ends)
    if row["turned"]:
        below = replace(half, values_mm=tuple(-v for v in half.values_mm))
        return Body(row["length_mm"], half, below, half, joints=joints)
    return Body(
        length_mm=row["length_mm"],
        top=_curve(row["top_shares"], row["depth_mm"], *ends),
        bottom=_curve(row["bottom_shares"], row["depth_mm"], *ends),
        half_width=half,
        upper_exponent=row["upper_exponent"],
        lower_exponent=row["lower_exponent"],
        widest=_curve(row["widest_shares"], row["depth_mm"], False, False) if row["widest_shares"] else None,
        joints=joints,
        skin=Skin(row["mesh"]["digest"], *size) if row["mesh"] else None,
    )


def _curve(points: list[list[float]], size_mm: float, round_nose: bool, round_tail: bool) -> Curve:
    return Curve(
        tuple(float(p[0]) for p in points),
        tuple(float(p[1]) * size_mm for p in points),
        round_nose,
        round_tail,
    )


_ITEM_FIELDS = {field.name for field in fields(Item)}


def _placement(row: Document) -> Placement:
    item = Item(**{name: value for name, value in row.items() if name in _ITEM_FIELDS})
    return Placement(row["key"], item, row["seat"], row["x_mm"], row["hung_on"], row["up_mm"])


def body_block(start: Form, length_mm: float, depth_mm: float, width_mm: float) -> Document:
    """The `body` part of a document from a starting form at a size [mm]."""
    return {
        "length_mm": length_mm,
        "depth_mm": depth_mm,
        "width_mm": width_mm,
        "upper_exponent": start.upper_exponent,
        "lower_exponent": start.lower_exponent,
        "round_nose": start.round_nose,
        "round_tail": start.round_tail,
        "top_shares": [list(p) for p in start.top],
        "bottom_shares": [list(p) for p in start.bottom],
        "half_width_shares": [list(p) for p in start.half],
        "widest_shares": None,
        "turned": start.turned,
        "mesh": None,
    }


def new_document(
    name: str,
    start: Form,
    host: Host,
    water: Water,
    want: Want,
    sizes_mm: tuple[float, float, float] | None = None,
) -> Document:
    """A fresh document from a starting form: no hardware, no ballast, no paint."""
    length, depth, width = sizes_mm or (start.length_mm, start.depth_mm, start.width_mm)
    return {
        "format": FORMAT,
        "version": VERSION,
        "name": name,
        "form": start.key,
        "purpose": start.purpose,
        "body": body_block(start, length, depth, width),
        "material": asdict(host),
        "hardware": [],
        "lip": None,
        "ballast": [],
        "layers": [],
        "scheme": "",
        "glue_g": 0.3 if start.purpose == "bait" else 0.05,
        "water": asdict(water),
        "want": want_row(want),
        **copy.deepcopy(NEW_IN_2),
        **copy.deepcopy(NEW_IN_3),
        **copy.deepcopy(NEW_IN_4),
        **NEW_IN_6,
        "typed": {},
    }


def want_row(want: Want) -> Document:
    """The wanted behaviour as the document keeps it."""
    return {**asdict(want), "waters": [asdict(water) for water in want.waters]}


def hardware_row(placement: Placement) -> Document:
    """A placement as the document keeps it: the item's own fields beside its place."""
    row = asdict(placement)
    return {
        "key": row["key"],
        **row["item"],
        "seat": row["seat"],
        "x_mm": row["x_mm"],
        "hung_on": row["hung_on"],
        "up_mm": row["up_mm"],
    }


def with_design(document: Document, design: Design) -> Document:
    """The document with the design's values; curves keep their shares, the typed texts stay."""
    own = ("name", "scheme", "scheme_version", "glue_g", "drag", "drag_source", *AS_THEY_ARE)
    return {
        **document,
        **{name: row_of(getattr(design, name)) for name in own},
        "want": want_row(design.want),
        "body": _resized(document["body"], design.body),
        "material": asdict(design.host),
        "hardware": [hardware_row(p) for p in design.hardware],
        "joints": [asdict(row) for row in design.body.joints],
        "segments": [{"key": key, "material": asdict(host)} for key, host in design.segment_hosts],
    }


def _resized(block: Document, body: Body) -> Document:
    """The body's block at the sizes of a body of the same curves; depth and width go by their shares."""
    was = _body(block)
    tall, wide = (
        max(now.values_mm) / max(then.values_mm) if max(then.values_mm) > 0 else 1.0
        for now, then in ((body.top, was.top), (body.half_width, was.half_width))
    )
    return {
        **block,
        "length_mm": body.length_mm,
        "depth_mm": block["depth_mm"] * tall,
        "width_mm": block["width_mm"] * wide,
    }

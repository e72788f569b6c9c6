"""The body document: a design as JSON, our own format, versioned, a unit in every key's name.

Described in docs/formats.md; its fields, their ranges and its JSON Schema are those of `shape.py` and of the
values of the core that stand there.
"""

import copy
import json
from dataclasses import asdict, fields, is_dataclass, replace
from functools import lru_cache
from hashlib import sha256
from importlib.resources import files
from typing import Any, get_args

from jsonschema import Draft202012Validator
from jsonschema.exceptions import best_match

from lamsik.core.errors import Refused
from lamsik.core.paints.coats import Coat
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
from lamsik.documents.body.shape import FORMAT, MAY_LACK, VERSION, BodyDocument
from lamsik.documents.schemas import refusal_of, schema_of
from lamsik.documents.values import row_of, value_of

MOST_BYTES = 1_000_000

MOST_KNOWN = 64
MESH = "mesh_data"
"""Where a file has the mesh of a body that was brought in as one."""

Document = dict[str, Any]

_GOOD: dict[bytes, None] = {}
"""Digests of documents found good, the newest last."""


@lru_cache(maxsize=1)
def schema() -> Document:
    """The JSON Schema of a body document."""
    text = files("lamsik.documents.body").joinpath("body.schema.json").read_text(encoding="utf-8")
    loaded: Document = json.loads(text)
    return loaded


def schema_made() -> Document:
    """The same, made from the types: `make format` writes it beside this module, so that no start has to."""
    return schema_of(BodyDocument, f"Lamsik body document, version {VERSION}", MAY_LACK)


@lru_cache(maxsize=1)
def _validator() -> Draft202012Validator:
    return Draft202012Validator(schema())


def checked(document: Any) -> Document:
    """The document if it follows the schema; else `Refused` with the first offending field.

    One of an earlier version is brought up to this one first. A drag sends the same document many times:
    those found good lately are known by their digest.
    """
    if not isinstance(document, dict) or document.get("format") != FORMAT:
        raise Refused(
            "format",
            document.get("format") if isinstance(document, dict) else document,
            f"a {FORMAT} document is needed",
        )
    if MESH in document:
        raise Refused(MESH, None, "only a body file carries its mesh")
    document = upgraded(document)
    try:
        digest = sha256(json.dumps(document, allow_nan=False).encode()).digest()
    except (TypeError, ValueError) as error:
        raise Refused("document", document, f"plain JSON values are needed ({error})") from error
    if digest not in _GOOD:
        error_found = best_match(_validator().iter_errors(document))
        if error_found is not None:
            raise refusal_of(error_found)
        _GOOD[digest] = None
        while len(_GOOD) > MOST_KNOWN:
            _GOOD.pop(next(iter(_GOOD)), None)
    result: Document = document
    return result


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
NEW_BODY_IN_3: Document = {"widest_shares": None, "turned": False, "mesh": None}
NEW_HARDWARE_IN_3: Document = {
    "material": "steel",
    "wire_mm": 0.0,
    "shank_mm": 0.0,
    "bore_mm": 0.0,
    "up_mm": None,
}


def upgraded(document: Any) -> Any:
    """A document of an earlier version as one of this: what it could not say yet is at rest; anything else
    as it is.
    """
    if not isinstance(document, dict):
        return document
    if document.get("version") == 1:
        within = {"want": NEW_WANT_IN_2, "material": {"solid_g_cm3": None}, "lip": {"square_deg": 0.0}}
        document = _raised({**NEW_IN_2, **document, "version": 2}, within, {})
    if document.get("version") == 2:
        document = _raised(
            {**NEW_IN_3, **document, "version": 3},
            {"body": NEW_BODY_IN_3, "lip": {"outline": "round"}},
            {"hardware": NEW_HARDWARE_IN_3, "pours": {"tilt_deg": 0.0}},
        )
    return _filled(document)


def _filled(document: Document) -> Document:
    """The document with what files of this version may lack, as the types begin it: to be set as any."""
    found = dict(document)
    for name, kind in {**AS_THEY_ARE, "material": Host}.items():
        if name in found:
            found[name] = _completed(found[name], kind)
    if isinstance(found.get("segments"), list):
        found["segments"] = [
            {**row, "material": _completed(row["material"], Host)}
            if isinstance(row, dict) and "material" in row
            else row
            for row in found["segments"]
        ]
    return found


def _completed(part: Any, kind: Any) -> Any:
    if isinstance(part, list):
        return [_completed(row, kind) for row in part]
    if not isinstance(part, dict):
        return part
    of = next((one for one in (kind, *get_args(kind)) if is_dataclass(one)), None)
    return {**_lacked(of), **part} if of else part


def _lacked(of: Any) -> Document:
    """What a row of this class may lack, with its default."""
    return {one.name: one.default for one in fields(of) if f"{of.__name__}.{one.name}" in MAY_LACK}


def _raised(document: Document, within: Document, rows: Document) -> Document:
    """The document with fields added within its parts and within the rows of its lists."""
    for name, added in within.items():
        if isinstance(document.get(name), dict):
            document[name] = {**added, **document[name]}
    for name, added in rows.items():
        if isinstance(document.get(name), list):
            document[name] = [{**added, **row} if isinstance(row, dict) else row for row in document[name]]
    return document


def check_field(path: str, value: Any) -> None:
    """Check one field's value by its place in the schema; rows of a list are named by their key
    (`ballast.b1.x_mm`).

    Much quicker than the whole document, for the many small edits of a drag.
    """
    here: Any = schema()
    for step in path.split("."):
        here = here["items"] if "items" in here else here["properties"].get(step, {})
    error = best_match(Draft202012Validator(here).iter_errors(value))
    if error is not None:
        raise refusal_of(error, path)


def to_design(document: Document) -> Design:
    """The design a checked document describes. Raises `Refused` where fields contradict each other."""
    own = ("name", "form", "purpose", "scheme", "glue_g", "drag", "drag_source")
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
    "coats": tuple[Coat, ...],
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
    """A fresh document from a starting form: no hardware, no ballast, no coats."""
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
        "coats": [],
        "scheme": "",
        "glue_g": 0.3 if start.purpose == "bait" else 0.05,
        "water": asdict(water),
        "want": want_row(want),
        **copy.deepcopy(NEW_IN_2),
        **copy.deepcopy(NEW_IN_3),
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
    own = ("name", "scheme", "glue_g", "drag", "drag_source", *AS_THEY_ARE)
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

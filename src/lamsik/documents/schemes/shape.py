"""What a scheme document holds, as types; the published JSON Schema comes from here. Documents of before had
coats, flat rows, or layers that lay at a typed share of the surface; they are raised to layers of now.
"""

from collections.abc import Mapping
from dataclasses import dataclass, field
from typing import Annotated, Any

from annotated_types import Len, MaxLen

from lamsik.core.limits import Name, OneOf, Says
from lamsik.core.paints.kinds import KINDS
from lamsik.core.paints.layers import Layer, begun
from lamsik.documents.document_schema import DocumentSchema
from lamsik.documents.rows import Document
from lamsik.documents.schemas import TYPED, Const, Raw
from lamsik.documents.values import row_of as kept

FORMAT, VERSION = "lamsik-scheme", 4
MOST_LAYERS = 40
SEASONS = ("", "spring", "summer", "autumn", "winter")
"""When a scheme is fished; empty is all year."""
FADED_FROM_HALF = 0.5
"""How soft the rim of every fade was, before it could be said."""
PAINT = {"colour": "colour", "density_g_cm3": "density_g_cm3", "caution": "caution"}
PLACE = {"cover_share": "cover_share", "reach_share": "reach_share", "count": "count"}
"""Fields of a coat that are its layer's paint's, or its place's, by now."""


@dataclass(frozen=True)
class SchemeDocument:
    """A scheme document of this version."""

    format: Annotated[str, Const(FORMAT)]
    version: Annotated[int, Const(VERSION)]
    name: Annotated[str, Len(1, 120)]
    layers: Annotated[list[Layer], MaxLen(MOST_LAYERS)]
    season: Annotated[str, OneOf(SEASONS), Says("when it is fished")] = ""
    fish: Annotated[Name, Says("which fish it is for")] = ""
    replaced_by: Annotated[Name, Says("code of the scheme that took its place; empty while it is in use")] = (
        ""
    )
    match_to: Annotated[Name, Says("what it is being matched to; empty while it is not")] = ""
    match_before: (
        Annotated[list[Layer], MaxLen(MOST_LAYERS), Says("its layers as they were before")] | None
    ) = None
    typed: Annotated[dict[str, str], Raw(TYPED)] = field(default_factory=dict)


def raised(document: Document) -> Document:
    """A scheme of coats, as the shop kept it or as a file of version 1, or one of layers without a shape, as
    one of layers.
    """
    if "coats" in document and document.get("version", 1) == 1:
        document = with_layers({"format": FORMAT, **document, "version": 2})
    if "layers" in document and document.get("version", 2) == 2:
        document = with_shapes({"format": FORMAT, **document, "version": 3})
    if "layers" in document and document.get("version") == 3:
        document = with_doing({**NEW_IN_4, **document, "version": VERSION})
    return document


NEW_IN_4: Document = {"season": "", "fish": "", "replaced_by": ""}
NO_JOB: Document = {"match_to": "", "match_before": None}
DOING = ("by", "pressure_bar", "distance_mm", "eye")
"""What a layer says of how it goes on."""


def with_doing(document: Document) -> Document:
    """A document whose layers say how they go on: as their kinds do, until the maker says otherwise. Eyes
    over the last clear are domed ones.
    """
    rows = document["layers"]
    if not isinstance(rows, list):
        return document
    clears = [n for n, row in enumerate(rows) if isinstance(row, dict) and row.get("kind") == "clear"]
    raised_rows = []
    for n, row in enumerate(rows):
        if isinstance(row, dict) and row.get("kind") in KINDS:
            begins = kept(begun(row["kind"], "k"))
            is_late = row["kind"] == "eyes" and bool(clears) and n > clears[-1]
            row = {**{name: begins[name] for name in DOING}, **({"eye": "domed"} if is_late else {}), **row}
        raised_rows.append(row)
    return {**document, "layers": raised_rows}


def with_layers(document: Document) -> Document:
    """A document whose coats are layers."""
    now = {("layers" if name == "coats" else name): value for name, value in document.items()}
    if isinstance(now["layers"], list):
        now["layers"] = [layer_of_coat(row) for row in now["layers"]]
    if isinstance(now.get("typed"), dict):
        now["typed"] = {_path(path): text for path, text in now["typed"].items()}
    return now


def layer_of_coat(row: Any) -> Any:
    """A coat as a layer; what no coat had stays where it is, to be refused."""
    if not isinstance(row, dict):
        return row
    moved = {*PAINT, *PLACE, "role"}
    kind = row.get("role")
    place = {now: row[was] for was, now in PLACE.items() if was in row}
    place |= {"edge_share": FADED_FROM_HALF if kind == "fade" else 0.0, "side": "both"}
    return {
        **{name: value for name, value in row.items() if name not in moved},
        **({"kind": kind} if "role" in row else {}),
        "paint": {"name": "", **{now: row[was] for was, now in PAINT.items() if was in row}},
        "place": place,
        "passes": 1,
    }


def _path(path: str) -> str:
    """Where a figure of a coat stands now."""
    group, _, rest = path.partition(".")
    if group != "coats":
        return path
    key, _, leaf = rest.partition(".")
    part = "paint." if leaf in PAINT else "place." if leaf in PLACE else ""
    return f"layers.{key}.{part}{(PAINT | PLACE).get(leaf, leaf)}"


REACH = {"fade": "bottom.at_percent", "bars": "bottom.at_percent", "eyes": "size_percent"}
"""What a layer's reach is by now, by its kind; others had none that showed."""
IN_PERCENT = {"cover_share", "reach_share", "edge_share"}
"""What was a share and is said in percent by now."""
UNCOUNTED = {"bars": 6, "spots": 9}
"""How many marks were drawn where none were counted."""
SHARED = ("fade", "bars", "spots", "eyes")
"""Kinds whose typed share of the surface their shape says by now."""


def with_shapes(document: Document) -> Document:
    """A document whose layers lie in a shape: a typed share of the surface is that of a mist alone."""
    rows = document["layers"]
    kinds = (
        {row.get("key"): row.get("kind") for row in rows if isinstance(row, dict)}
        if isinstance(rows, list)
        else {}
    )
    if isinstance(rows, list):
        document = {**document, "layers": [layer_with_shape(row) for row in rows]}
    if isinstance(document.get("typed"), dict):
        typed = {_with_shape(path, kinds): text for path, text in document["typed"].items()}
        document = {**document, "typed": {path: text for path, text in typed.items() if path}}
    if isinstance(document.get("adjustments"), list):
        document = {**document, "adjustments": _adjusted(document["adjustments"], kinds)}
    return document


def layer_with_shape(row: Any) -> Any:
    """A layer at a typed share of the surface as one of its kind's shape; what no layer had stays, to be
    refused.
    """
    if not isinstance(row, dict) or row.get("kind") not in KINDS or not isinstance(row.get("place"), dict):
        return row
    kind, was = row["kind"], row["place"]
    begins = kept(begun(kind, "k"))
    place = {**begins["place"], **{name: was[name] for name in was if name not in IN_PERCENT}}
    for name in IN_PERCENT & was.keys():
        where = _field(f"place.{name}", kind).removeprefix("place.")
        if where:
            part, _, leaf = where.rpartition(".")
            (place[part] if part else place)[leaf] = _percent(was[name])
    if kind in UNCOUNTED and not place.get("count"):
        place["count"] = UNCOUNTED[kind]
    paint = row.get("paint")
    if isinstance(paint, dict):
        paint = {**begins["paint"], **paint}
    new = {name: begins[name] for name in ("scuff", "intended", "locked")}
    return {"cure_h": None, **new, **row, "place": place, "paint": paint}


def _with_shape(path: str, kinds: Mapping[Any, Any]) -> str:
    """Where a figure of a layer stands now; nowhere where what was typed says nothing any more."""
    group, _, rest = path.partition(".")
    key, _, leaf = rest.partition(".")
    if group != "layers":
        return path
    in_percent = leaf.removeprefix("place.") in IN_PERCENT
    field_now = "" if in_percent else _field(leaf, kinds.get(key))
    return f"layers.{key}.{field_now}" if field_now else ""


def _field(name: str, kind: Any) -> str:
    if name == "place.reach_share":
        return f"place.{REACH[kind]}" if kind in REACH else ""
    if name == "place.cover_share":
        return "" if kind in SHARED else "place.cover_percent"
    return "place.edge_percent" if name == "place.edge_share" else name


def _percent(share: Any) -> Any:
    """A share in percent; what is no number stays, to be refused."""
    return (
        round(100.0 * share, 6) if isinstance(share, int | float) and not isinstance(share, bool) else share
    )


def _adjusted(rows: list[Any], kinds: Mapping[Any, Any]) -> list[Any]:
    """What is otherwise on a body, by the names of now; what says nothing any more is gone."""
    adjusted = []
    for row in rows:
        if isinstance(row, dict) and row.get("field") and row.get("layer") in kinds:
            name = _field(row["field"], kinds[row["layer"]])
            if name:
                in_percent = row["field"] in {f"place.{one}" for one in IN_PERCENT}
                adjusted.append(
                    {**row, "field": name, "value": _percent(row["value"]) if in_percent else row["value"]}
                )
        else:
            adjusted.append(row)
    return adjusted


SCHEME_SCHEMA = DocumentSchema(
    "lamsik.documents.schemes",
    SchemeDocument,
    FORMAT,
    VERSION,
    (
        "SchemeDocument.typed",
        "SchemeDocument.match_to",
        "SchemeDocument.match_before",
        "Paint.swatch",
        "Paint.code",
    ),
    raised=raised,
)

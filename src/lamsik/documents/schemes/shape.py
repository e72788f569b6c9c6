"""What a scheme document holds, as types; the published JSON Schema comes from here. Documents of before had
coats, flat rows; they are raised to layers.
"""

from dataclasses import dataclass, field
from typing import Annotated, Any

from annotated_types import Len, MaxLen

from lamsik.core.paints.layers import Layer
from lamsik.documents.document_schema import DocumentSchema
from lamsik.documents.rows import Document
from lamsik.documents.schemas import TYPED, Const, Raw

FORMAT, VERSION = "lamsik-scheme", 2
MOST_LAYERS = 40
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
    typed: Annotated[dict[str, str], Raw(TYPED)] = field(default_factory=dict)


def raised(document: Document) -> Document:
    """A scheme of coats, as the shop kept it or as a file of version 1, as one of layers."""
    if "coats" not in document or document.get("version", 1) != 1:
        return document
    return with_layers({"format": FORMAT, **document, "version": VERSION})


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


SCHEME_SCHEMA = DocumentSchema(
    "lamsik.documents.schemes", SchemeDocument, FORMAT, VERSION, ("SchemeDocument.typed",), raised=raised
)

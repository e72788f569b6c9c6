"""The mould document: a mould as JSON (format `lamsik-mould`); its master's body travels in the file, in
the shop it is named by revision.
"""

import json
from dataclasses import dataclass, field
from functools import lru_cache
from typing import Annotated, Any

from annotated_types import MaxLen

from lamsik.core.errors import finite_between, require, rule
from lamsik.core.limits import Between, OneOf
from lamsik.core.moulds import masters
from lamsik.core.moulds.geometry import seen
from lamsik.core.moulds.layout import (
    CavitySpot,
    Mould,
    arranged,
    usual_stand,
)
from lamsik.core.moulds.masters import Master
from lamsik.core.moulds.pull import best_parting, choices, features
from lamsik.core.shapes.design import Design
from lamsik.core.shapes.sources import Source
from lamsik.core.tank.mass import budget
from lamsik.core.trade.mould_kinds import OPEN, TWO_PART
from lamsik.documents.body import document as body_document
from lamsik.documents.body.shape import BODY_SCHEMA
from lamsik.documents.document_schema import DocumentSchema, with_default
from lamsik.documents.rows import Document
from lamsik.documents.schemas import TYPED, Const, Raw
from lamsik.documents.values import core_of, value_of, with_core

FORMAT, VERSION = "lamsik-mould", 1
MOST_BYTES = 400_000
Size = Annotated[float, Between(1, 600, "mm")]
Row = Annotated[int, Between(0, 1e15)]
ProductCode = Annotated[str, MaxLen(80)]


@dataclass(frozen=True)
class MasterRow:
    """What a mould is made from: a body at a revision, a thing weighed, or sizes measured. In a file the
    body's document travels along.
    """

    kind: Annotated[str, OneOf(masters.FROM)]
    name: Annotated[str, MaxLen(160)] = ""
    body_id: Row | None = None
    revision: Row | None = None
    weighed_id: Row | None = None
    length_mm: Size | None = None
    width_mm: Size | None = None
    depth_mm: Size | None = None
    volume_ml: Annotated[float, Between(0, 1e6, "ml")] | None = None
    mass_g: Annotated[float, Between(0.01, 50_000, "g")] | None = None
    demouldings: Annotated[int, Between(0, 10_000, "", "it is expected to stand")] | None = None
    source: Source = Source()
    document: Annotated[Document | None, Raw({"type": ["object", "null"]})] = None


@dataclass(frozen=True, eq=False)
class MouldDocument(Mould):
    """A mould document of this version: a mould, and what the shop adds: what it is made of, what is cast in
    it and how hot, how level the bench is.
    """

    master: MasterRow  # type: ignore[assignment]
    format: Annotated[str, Const(FORMAT)] = FORMAT
    version: Annotated[int, Const(VERSION)] = VERSION
    typed: Annotated[dict[str, str], Raw(TYPED)] = field(default_factory=dict)
    mould_product: ProductCode = ""
    casting_product: ProductCode = ""
    casting_c: Annotated[float, Between(-20, 1200, "°C", "as it is poured")] | None = None
    level_deg: Annotated[float, Between(0, 20, "°", "how far off level the bench is")] = 0.3
    injector: bool = False


MOULD_SCHEMA = DocumentSchema(
    "lamsik.documents.moulds",
    MouldDocument,
    FORMAT,
    VERSION,
    with_default(MouldDocument) - {"MouldDocument.format", "MouldDocument.version"},
)


def brought_in(content: Any) -> Document:
    """A document of what a file holds. Raises `Refused` naming what is wrong."""
    document = MOULD_SCHEMA.checked(content)
    to_mould(document, master_of(document["master"]))
    return document


def to_mould(document: Document, master: Master) -> Mould:
    """The mould a document describes, of a master. Raises `Refused` naming the field."""
    for name in ("cavities", "vents", "wells", "texts"):
        keys = [row["key"] for row in document.get(name, ())]
        require(len(set(keys)) == len(keys), f"{name}.key", keys, rule("each-key-once"))
    mould: Mould = core_of(Mould, document, master=master)
    return mould


def master_of(block: Document) -> Master:
    """The master a document's block describes: of the body document in it, of a volume weighed, or of
    sizes measured.
    """
    source: Source = value_of(Source, block.get("source", {}))
    mass, name = block.get("mass_g"), str(block.get("name", ""))
    if block["kind"] == masters.BODY:
        require(
            isinstance(block.get("document"), dict),
            "master.document",
            None,
            rule("body-in-the-file"),
        )
        return _of_design(json.dumps(block["document"], sort_keys=True), name, mass)
    length, width, depth = (
        finite_between(f"master.{field}", block.get(field), 1.0, 600.0, "mm")
        for field in ("length_mm", "width_mm", "depth_mm")
    )
    master = masters.measured(name, length, width, depth, block.get("volume_ml"), mass)
    return Master(master.name, master.mesh, master.volume_mm3, master.mass_g, source, True)


@lru_cache(maxsize=64)
def _design(text: str) -> Design:
    return body_document.to_design(BODY_SCHEMA.checked(json.loads(text)))


@lru_cache(maxsize=64)
def _of_design(text: str, name: str, mass_g: float | None) -> Master:
    """Kept by the body's content: every look at a mould asks for its master anew."""
    design = _design(text)
    return masters.of_body(name or design.name, design.body, mass_g, design.source)


def of_body(name: str, body_id: int, revision: int, content: Document) -> tuple[Document, Master]:
    """The master block of a body's revision and its master; its mass is that of the bare blank."""
    design = body_document.to_design(content)
    block = {
        "kind": masters.BODY,
        "name": name,
        "body_id": body_id,
        "revision": revision,
        "mass_g": round(budget(design).up_to("carved"), 2),
        "demouldings": None,
    }
    return block, master_of({**block, "document": content})


def of_weighed(
    name: str,
    weighed_id: int,
    air_g: float,
    volume_ml: float,
    sizes_mm: tuple[float, float, float],
    source: dict[str, str] | None = None,
) -> tuple[Document, Master]:
    """The master block of a weighed thing: its volume from the weigh bench, its size as measured."""
    block = {
        "kind": masters.WEIGHED,
        "name": name,
        "weighed_id": weighed_id,
        "mass_g": air_g,
        "volume_ml": round(volume_ml, 3),
        "demouldings": None,
        "source": source or {"kind": "own", "note": ""},
        **dict(zip(("length_mm", "width_mm", "depth_mm"), sizes_mm, strict=True)),
    }
    return block, master_of(block)


def with_mould(document: Document, mould: Mould) -> Document:
    """The document with a mould's values; master, texts typed and the shop's fields stay."""
    return with_core(document, mould, besides=("master",))


def blank(
    name: str, block: Document, master: Master, kind: str, pull: str, parting_mm: float = 0.0
) -> Document:
    """A mould of a master to begin from: one cavity, box as needed."""
    first = Mould(
        name,
        master,
        kind,
        pull,
        parting_mm,
        cavities=(CavitySpot("c1", 500.0, 500.0),),
        stand=usual_stand(kind),
    )
    start = {"format": FORMAT, "version": VERSION, "master": block}
    document: Document = MOULD_SCHEMA.brought_up(with_mould(start, arranged(first, 1)))
    return document


def first_layout(block: Document, master: Master) -> Document:
    """A first layout of the kind advised for a master, pulled where least leans in, parted there."""
    tried = []
    name = f"{master.name} mould"[:120]
    for pull in ("side", "back", "belly"):
        mould = to_mould(blank(name, block, master, TWO_PART, pull), master)
        parting = best_parting(mould.lies_true)
        features_seen = features(mould.lies_true, parting, 0.0, seen(mould.lies)[1])
        tried.append(
            (
                features_seen.flat != "lower",
                round(features_seen.undercut_share, 2),
                pull != "side",
                pull,
                parting,
                features_seen,
            )
        )
    *_, pull, parting, features_seen = min(tried, key=lambda row: row[:3])
    kind = choices(features_seen)[0].kind
    return blank(name, block, master, kind, str(pull), 0.0 if kind == OPEN else round(float(parting), 2))

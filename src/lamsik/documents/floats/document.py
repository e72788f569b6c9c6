"""The float document: a float as JSON (format `lamsik-float`), parts, marks, tips of its box; checked as a
whole.
"""

from dataclasses import dataclass, field, replace
from typing import Annotated, Any

from annotated_types import MaxLen

from lamsik.core.errors import named, require, rule
from lamsik.core.floats.design import KINDS, Float, Mark
from lamsik.core.floats.parts import FloatPart
from lamsik.core.floats.shotting import NOMINAL_TABLE
from lamsik.core.limits import Between
from lamsik.core.materials import METALS, body_material
from lamsik.core.paints.layers import Layer
from lamsik.core.shapes.sources import Source
from lamsik.core.water import Water
from lamsik.documents.document_schema import DocumentSchema, with_default
from lamsik.documents.rows import Document, keyed
from lamsik.documents.schemas import TYPED, Const, Raw
from lamsik.documents.values import core_of, row_of, value_of, with_core

FORMAT, VERSION = "lamsik-float", 1
MOST_LAYERS = 40
MOST_BYTES = 200_000
ShortText = Annotated[str, MaxLen(80)]


@dataclass(frozen=True)
class FloatDocument(Float):
    """A float document of this version: a float, and what its shop adds: the tips of its box, shot and
    tell-tale it is tried with, where its shape is from, the scheme it is painted by and that one's layers
    at the time, the texts typed.
    """

    format: Annotated[str, Const(FORMAT)] = FORMAT
    version: Annotated[int, Const(VERSION)] = VERSION
    tips: Annotated[tuple[FloatPart, ...], MaxLen(24)] = ()
    telltale: ShortText = "No 8"
    shots: ShortText = NOMINAL_TABLE.name
    scheme: ShortText = ""
    scheme_version: Annotated[
        int, Between(0, 1_000_000, "", "version of the scheme that lies on it; 0 where nobody knows")
    ] = 0
    layers: Annotated[tuple[Layer, ...], MaxLen(MOST_LAYERS)] = ()
    typed: Annotated[dict[str, str], Raw(TYPED)] = field(default_factory=dict)
    source: Source = Source()


FLOAT_SCHEMA = DocumentSchema(
    "lamsik.documents.floats",
    FloatDocument,
    FORMAT,
    VERSION,
    with_default(FloatDocument) - {"FloatDocument.format", "FloatDocument.version"},
    raised=lambda document: keyed(document, "marks", "m"),
)


def brought_in(content: Any) -> Document:
    """A document of what a file holds. Raises `Refused` naming what is wrong."""
    document = checked(content)
    require(
        bool(document["marks"]),
        "marks",
        "none",
        rule("one-mark"),
    )
    design = to_float(document)
    if any(mark.name == design.wanted_mark for mark in design.marks):
        return document
    return with_float(document, replace(design, wanted_mark=design.marks[-1].name))


def checked(document: Any) -> Document:
    """The document if it describes a float. Raises `Refused` with the first offending field."""
    checked_document = FLOAT_SCHEMA.checked(document)
    read(checked_document)
    return checked_document


def read(document: Document) -> Float:
    """The float of a document that follows its schema. Raises `Refused` for what cannot be."""
    design = to_float(document)
    tips(document)
    layers_of(document)
    return design


def to_float(document: Document) -> Float:
    """The float a document describes."""
    design: Float = core_of(Float, document)
    return design


def tips(document: Document) -> tuple[FloatPart, ...]:
    """The tips of its box."""
    parts: tuple[FloatPart, ...] = value_of(tuple[FloatPart, ...], document["tips"])
    return parts


def layers_of(document: Document) -> tuple[Layer, ...]:
    """The layers of the scheme it is painted by; none where its paint is typed."""
    layers: tuple[Layer, ...] = value_of(tuple[Layer, ...], document["layers"])
    return layers


def with_float(document: Document, design: Float) -> Document:
    """The document with a float's values; a new mark gets the next key that is free."""
    return keyed(with_core(document, design), "marks", "m")


def blank(name: str, kind: str, water: Water, shots: str = NOMINAL_TABLE.name) -> Document:
    """A float of a kind to begin from, at a usual size; loaded from that table of shots."""
    require(kind in KINDS, "kind", kind, named(KINDS))
    parts, marks = START[kind]
    design = Float(
        name, kind, parts, marks, water, paint_g=0.06, varnish_g=0.08, family=kind, wanted_mark=marks[-1].name
    )
    box = TIPS if kind in ("insert tip", "waggler", "antenna") else ()
    start = {"format": FORMAT, "version": VERSION, "shots": shots, "tips": row_of(box)}
    document: Document = FLOAT_SCHEMA.brought_up(with_float(start, design))
    return document


def _wood(
    key: str, kind: str, name: str, length: float, diameter: float, wood: str, foot: float = 0.0, **more: Any
) -> FloatPart:
    material = body_material(wood)
    return FloatPart(
        key,
        kind,
        f"{name}, {wood}",
        length,
        diameter,
        material.density_g_cm3,
        foot,
        spread_g_cm3=material.spread_g_cm3,
        **more,
    )


def _metal(name: str, metal: str, length: float, diameter: float, foot: float, **more: Any) -> FloatPart:
    return FloatPart("loading", "loading", f"{name}, {metal}", length, diameter, METALS[metal], foot, **more)


START: dict[str, tuple[tuple[FloatPart, ...], tuple[Mark, ...]]] = {
    "stick": (
        (
            _wood("stem", "stem", "stem", 70, 2.5, "bamboo"),
            _wood(
                "body",
                "body",
                "body",
                90,
                8,
                "balsa",
                70,
                form="own",
                points=((0.0, 0.42), (0.3, 0.66), (0.75, 1.0), (1.0, 0.8)),
            ),
        ),
        (Mark("shoulder", 150.0), Mark("tip", 159.0)),
    ),
    "antenna": (
        (
            _wood("stem", "stem", "stem", 105, 2.5, "bamboo"),
            _wood("body", "body", "pear", 45, 14, "balsa", 60, form="pear"),
            FloatPart("antenna", "antenna", "antenna, glass fibre", 80, 1.5, 1.9, 105.0),
        ),
        (Mark("shoulder", 105.0), Mark("ring", 160.0)),
    ),
    "waggler": (
        (
            _wood("stem", "stem", "stem", 180, 4, "bamboo", bore_mm=2.6),
            _wood("body", "body", "body", 50, 19, "balsa", 12, form="spindle"),
            FloatPart("tip", "tip", "insert, cane", 45, 2.4, 0.65, 180.0),
        ),
        (Mark("shoulder", 180.0), Mark("tip", 222.0)),
    ),
    "slider": (
        (
            _wood("stem", "stem", "stem", 220, 4, "bamboo"),
            _wood("body", "body", "body", 70, 20, "balsa", 20, form="spindle"),
            _metal("ring", "brass", 16, 6, -16),
        ),
        (Mark("shoulder", 190.0), Mark("tip", 215.0)),
    ),
    "loaded": (
        (
            _wood("stem", "stem", "stem", 170, 4, "bamboo"),
            _wood("body", "body", "body", 60, 20, "balsa", 10, form="teardrop"),
            _metal("loading", "brass", 10, 6, -10),
            FloatPart("tip", "tip", "tip", 30, 2.5, 0.5, 170.0),
        ),
        (Mark("shoulder", 170.0), Mark("tip", 196.0)),
    ),
    "insert tip": (
        (
            _wood("body", "body", "straight cane", 200, 5.5, "bamboo", bore_mm=3.5),
            FloatPart("tip", "tip", "insert, cane", 50, 2.0, 0.65, 200.0),
        ),
        (Mark("shoulder", 200.0), Mark("tip", 246.0)),
    ),
    "bulk foam": (
        (
            FloatPart("pipe", "tube", "pipe", 130, 4, 1.35, 0.0, 3.0),
            FloatPart("body", "body", "foam tube", 90, 22, 0.07, 15.0, 4.0),
            FloatPart("tip", "tip", "cap", 8, 20, 0.9, 105.0, 4.0),
        ),
        (Mark("half", 60.0), Mark("top", 113.0)),
    ),
    "live bait": (
        (
            FloatPart("pipe", "tube", "pipe", 92, 8, 1.35, 0.0, 6.0),
            FloatPart("body", "body", "foam tube", 80, 30, 0.06, 6.0, 8.0),
            FloatPart("loading", "loading", "caps and eye", 3, 3, 1.1, 0.0, inside=True, mass_g=3.5),
        ),
        (Mark("half", 46.0), Mark("top", 92.0)),
    ),
    "cast": (
        (
            FloatPart("body", "body", "cast foam body", 60, 20, 0.25, 20.0, form="spindle"),
            _wood("stem", "stem", "stem", 130, 3, "bamboo"),
            _metal("loading", "brass", 14, 6, -14),
        ),
        (Mark("shoulder", 80.0), Mark("tip", 126.0)),
    ),
    "printed": (
        (
            FloatPart("body", "body", "printed shell", 55, 20, 0.42, 15.0, form="spindle"),
            _wood("stem", "stem", "stem", 120, 3, "bamboo"),
            _metal("loading", "brass", 10, 5, -10),
        ),
        (Mark("shoulder", 70.0), Mark("tip", 116.0)),
    ),
}
"""Floats to begin from, by kind."""

TIPS = (
    FloatPart("t1", "tip", "thin red, 1.5 mm", 45, 1.5, 1.1),
    FloatPart("t2", "tip", "cane, 2.4 mm", 45, 2.4, 0.65),
    FloatPart("t3", "tip", "thick, hollow 4 mm", 40, 4.0, 1.1, bore_mm=3.2),
)

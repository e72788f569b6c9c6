"""The float document: a float as JSON (format `lamsik-float`), parts, marks, tips of its box; checked as a
whole.
"""

from dataclasses import asdict, replace
from typing import Any

from lamsik.core.errors import Refused, require
from lamsik.core.floats.design import KINDS, Float, Mark
from lamsik.core.floats.parts import FloatPart
from lamsik.core.materials import METALS, body_material
from lamsik.core.rows import checked_row
from lamsik.core.shapes.sources import Source
from lamsik.core.water import Water
from lamsik.documents.rows import free_key

FORMAT, VERSION = "lamsik-float", 1
MOST_BYTES = 200_000
Document = dict[str, Any]
OWN = ("format", "version", "parts", "marks", "tips", "water", "telltale", "shots", "typed", "source")


def brought_in(found: Any) -> Document:
    """A document of what a file holds. Raises `Refused` naming what is wrong."""
    document = checked(found)
    require(
        bool(document.get("marks")),
        "marks",
        "none",
        "at least one mark is needed: what it carries is said to a mark",
    )
    design = to_float(document)
    named = (
        design
        if any(mark.name == design.wanted_mark for mark in design.marks)
        else replace(design, wanted_mark=design.marks[-1].name)
    )
    return {"tips": [], "telltale": "No 8", "shots": "Split shot", "typed": {}, **with_float(document, named)}


def checked(document: Any) -> Document:
    """The document if it describes a float. Raises `Refused` with the first offending field."""
    read(document)
    found: Document = document
    return found


def read(document: Any) -> Float:
    """The float of a document that is wholly checked. Raises `Refused` with the first offending field."""
    if (
        not isinstance(document, dict)
        or document.get("format") != FORMAT
        or document.get("version") != VERSION
    ):
        raise Refused("format", document, f"a {FORMAT} document of version {VERSION} is needed")
    design = to_float(document)
    tips(document)
    Source(**checked_row(document.get("source", {}), Source, "source"))
    for name in ("telltale", "shots"):
        require(
            isinstance(document.get(name, ""), str) and len(document.get(name, "")) <= 80,
            name,
            document.get(name),
            "a short text is needed",
        )
    require(isinstance(document.get("typed", {}), dict), "typed", None, "an object is needed")
    return design


def to_float(document: Document) -> Float:
    """The float a document describes."""
    plain = {name: value for name, value in document.items() if name not in OWN}
    marks = tuple(_mark(row, at) for at, row in enumerate(_list(document, "marks")))
    return Float(
        **checked_row(plain, Float, besides=("parts", "marks", "water")),
        parts=tuple(_part(row, f"parts.{at + 1}") for at, row in enumerate(_list(document, "parts"))),
        marks=marks,
        water=Water(**checked_row(document.get("water"), Water, "water")),
    )


def _mark(row: Any, at: int) -> Mark:
    require(isinstance(row, dict), f"marks.{at + 1}", row, "an object is needed")
    return Mark(**checked_row(row, Mark, f"marks.{at + 1}"))


def tips(document: Document) -> tuple[FloatPart, ...]:
    """The tips of its box."""
    return tuple(_part(row, f"tips.{at + 1}") for at, row in enumerate(_list(document, "tips")))


def _list(document: Document, name: str) -> list[Any]:
    rows = document.get(name, [])
    require(isinstance(rows, list) and len(rows) <= 24, name, rows, "a list of at most 24")
    return list(rows)


def _part(row: Any, where: str) -> FloatPart:
    points = row.get("points", []) if isinstance(row, dict) else []
    good = isinstance(points, list) and all(
        isinstance(p, list)
        and len(p) == 2
        and all(isinstance(v, int | float) and not isinstance(v, bool) for v in p)
        for p in points
    )
    require(good, f"{where}.points", points, "a list of pairs of numbers")
    return FloatPart(
        **checked_row(row, FloatPart, where, ("points",)),
        points=tuple((float(s), float(r)) for s, r in points),
    )


def part_row(part: FloatPart) -> Document:
    """A part as the document keeps it."""
    return {**asdict(part), "points": [list(point) for point in part.points]}


def with_float(document: Document, design: Float) -> Document:
    """The document with a float's values."""
    return {
        **document,
        "name": design.name,
        "kind": design.kind,
        "family": design.family,
        "wanted_mark": design.wanted_mark,
        "paint_g": design.paint_g,
        "varnish_g": design.varnish_g,
        "film_g_cm3": design.film_g_cm3,
        "water": asdict(design.water),
        "parts": [part_row(part) for part in design.parts],
        "marks": _mark_rows(design.marks),
    }


def _mark_rows(marks: tuple[Mark, ...]) -> list[Document]:
    """Marks as the document keeps them: each under its own key, a new one under the next that is free."""
    rows: list[Document] = [asdict(mark) for mark in marks if mark.key]
    for mark in marks:
        if not mark.key:
            rows.append({**asdict(mark), "key": free_key(rows, "m")})
    return sorted(rows, key=lambda row: [mark.name for mark in marks].index(row["name"]))


def blank(name: str, kind: str, water: Water) -> Document:
    """A float of a kind to begin from, at a usual size."""
    require(kind in KINDS, "kind", kind, f"one of {', '.join(KINDS)}")
    parts, marks = START[kind]
    design = Float(
        name, kind, parts, marks, water, paint_g=0.06, varnish_g=0.08, family=kind, wanted_mark=marks[-1].name
    )
    box = [part_row(tip) for tip in TIPS] if kind in ("insert tip", "waggler", "antenna") else []
    return with_float(
        {
            "format": FORMAT,
            "version": VERSION,
            "tips": box,
            "telltale": "No 8",
            "shots": "Split shot",
            "typed": {},
        },
        design,
    )


def _wood(
    key: str, kind: str, name: str, length: float, diameter: float, wood: str, foot: float = 0.0, **more: Any
) -> FloatPart:
    found = body_material(wood)
    return FloatPart(
        key,
        kind,
        f"{name}, {wood}",
        length,
        diameter,
        found.density_g_cm3,
        foot,
        spread_g_cm3=found.spread_g_cm3,
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

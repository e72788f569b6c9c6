"""The invented shop's paint schemes, layer by layer; all names are our own."""

from dataclasses import dataclass, field, replace
from typing import Any

from lamsik.core.paints.kinds import KINDS
from lamsik.core.paints.layers import Layer, begun
from lamsik.core.paints.paint import PAINT_KINDS
from lamsik.core.paints.place import EYE, KEEL, TAIL, Along, Round
from lamsik.documents.rows import Document
from lamsik.documents.schemes.document import of_layers
from lamsik.store.starter import CLEAR, EYES, PRIMER, SEAL


@dataclass(frozen=True)
class SchemeRow:
    """A layer as the scenario says it: kind, colour, and what is otherwise than a new one has: its name,
    the kind of paint, where it lies, what else.
    """

    kind: str
    colour: str
    name: str = ""
    paint: str = ""
    place: dict[str, Any] = field(default_factory=dict)
    more: dict[str, Any] = field(default_factory=dict)


BACK_HALF = {"bottom": Round(at_percent=48.0), "edge_percent": 70.0}
FLANK = {"top": Round(at_percent=34.0), "bottom": Round(KEEL, -26.0), "edge_percent": 45.0}
BELLY = {"top": Round(at_percent=58.0), "edge_percent": 60.0}
MIST = {"cover_percent": 60.0}
DOMED: dict[str, Any] = {
    "name": "Domed eyes, glued on last",
    "eye": "domed",
}

SCHEMES: tuple[tuple[str, tuple[SchemeRow, ...]], ...] = (
    (
        "Estuary smelt",
        (
            SchemeRow("base", "#DCE4E6"),
            SchemeRow("base", "#BFD3D6", "Flank mist", "pearl", MIST),
            SchemeRow("net", "#9FB7B8", "Fine scales", "pearl", {"size_mm": 3.2}),
            SchemeRow("fade", "#5D7B7A", place=BACK_HALF),
            SchemeRow("eyes", "#E8C33A"),
        ),
    ),
    (
        "Zander clay",
        (
            SchemeRow("base", "#C7B68C"),
            SchemeRow("base", "#E0D6B4", "Flank mist", place=MIST),
            SchemeRow("fade", "#5B5A3A"),
            SchemeRow("veins", "#4A4A30", "Clay veins"),
            SchemeRow("bars", "#3A3A26", "Bars through a comb mask"),
            SchemeRow("eyes", "#DADFE0"),
        ),
    ),
    (
        "Roach at dusk",
        (
            SchemeRow("base", "#CFCBD6"),
            SchemeRow("net", "#B9B4C6", "Scales through a net", "pearl"),
            SchemeRow("fade", "#3D4A66"),
            SchemeRow("band", "#C8553A", "Warm throat", "transparent", {"top": Round(at_percent=52.0)}),
            SchemeRow("fin", "#C24A2A"),
            SchemeRow("signature", "#2A2438"),
            SchemeRow("eyes", "#C93F15"),
        ),
    ),
    (
        "Garfish green",
        (
            SchemeRow("base", "#E4EEE2"),
            SchemeRow("base", "#8FC7AE", "Green flank", "pearl", FLANK),
            SchemeRow("fade", "#1F6B5C", "Candy back", "candy", BACK_HALF, {"passes": 3}),
            SchemeRow("eyes", "#E8C33A"),
        ),
    ),
    (
        "Copper asp",
        (
            SchemeRow("base", "#C98A55", "Copper", "metallic"),
            SchemeRow("base", "#F0D9B8", "Belly", place=BELLY),
            SchemeRow("fade", "#6B3E26"),
            SchemeRow("gill", "#5A2A1A"),
            SchemeRow("eyes", "#E8C33A", "Moulded eyes, painted", more={"eye": "moulded", "mass_g": 0.01}),
        ),
    ),
    (
        "Ruffe",
        (
            SchemeRow("base", "#B9A878"),
            SchemeRow("base", "#D8CFA6", "Belly", place=BELLY),
            SchemeRow("fade", "#55532F"),
            SchemeRow("spots", "#2E2D1C"),
            SchemeRow("splatter", "#2E2D1C", "Brush splatter"),
            SchemeRow("eyes", "#B9A9C9", "Eyes, painted", more={"eye": "painted", "mass_g": 0.01}),
        ),
    ),
    (
        "Mullet",
        (
            SchemeRow("foil", "#D3D9DC"),
            SchemeRow("base", "#E9F0F2", "Belly", place=BELLY),
            SchemeRow("fade", "#3E4E5A", "Slate back", "transparent", BACK_HALF, {"passes": 3}),
            SchemeRow("bars", "#54656F", "Faint bars", "transparent", {"size_percent": 34.0}),
            SchemeRow("eyes", "#E8C33A"),
        ),
    ),
    (
        "Signal orange",
        (
            SchemeRow("base", "#FF7A1F", "Bright orange", "fluorescent", more={"passes": 3}),
            SchemeRow("fade", "#C4311E"),
            SchemeRow("bars", "#5E1712", "Bars through a comb mask", place={"count": 5}),
            SchemeRow("lettering", "#2A0E0A"),
            SchemeRow("eyes", "#FFFFFF"),
        ),
    ),
    (
        "Night tench",
        (
            SchemeRow("base", "#4C4A34"),
            SchemeRow(
                "band",
                "#CFE8B8",
                "Glow along the belly",
                "glow",
                {"begins": Along(at_percent=14.0), "ends": Along(TAIL, -8.0), "top": Round(KEEL, -18.0)},
            ),
            SchemeRow("fade", "#1E2420"),
            SchemeRow("glitter", "#B8C08A", place={"cover_percent": 8.0}),
            SchemeRow("eyes", "#C93F15"),
        ),
    ),
    (
        "Chalk bream",
        (
            SchemeRow("base", "#E9E4D4"),
            SchemeRow(
                "wrap",
                "#CFC6AC",
                "Gauze, sprayed through",
                place={**FLANK, "size_mm": 2.4, "cover_percent": 55.0},
            ),
            SchemeRow("fade", "#8C7A5A"),
            SchemeRow("gill", "#8A5A3A"),
            SchemeRow("eyes", "#DADFE0", more=DOMED),
        ),
    ),
    (
        "Weed stickleback",
        (
            SchemeRow("base", "#9FB56B"),
            SchemeRow("base", "#E39A7A", "Warm belly", place=BELLY),
            SchemeRow("fade", "#3B4F25"),
            SchemeRow(
                "veins", "#26331A", "Weed veins", place={"bottom": Round(at_percent=60.0), "size_mm": 7.0}
            ),
            SchemeRow(
                "stencil",
                "#26331A",
                "Leaf",
                place={
                    "outline": "leaf",
                    "begins": Along(at_percent=62.0),
                    "top": Round(at_percent=40.0),
                    "size_percent": 55.0,
                },
            ),
            SchemeRow("eyes", "#6FC1C9"),
        ),
    ),
    (
        "Brown trout fry",
        (
            SchemeRow("base", "#D9BE86", "Base", "pearl"),
            SchemeRow("base", "#EED9A8", "Belly", place=BELLY),
            SchemeRow("fade", "#5A4A26"),
            SchemeRow(
                "spots",
                "#2C2414",
                "Dark spots",
                place={
                    "count": 14,
                    "size_percent": 9.0,
                    "bottom": Round(at_percent=42.0),
                    "top": Round(at_percent=4.0),
                },
            ),
            SchemeRow(
                "spots",
                "#A8281E",
                "Red spots",
                place={
                    "count": 7,
                    "size_percent": 8.0,
                    "top": Round(at_percent=34.0),
                    "begins": Along(EYE, 14.0),
                },
            ),
            SchemeRow("eyes", "#E8C33A"),
        ),
    ),
)
"""Name and what lies between the primer and the clear."""


REPAINT = (
    "Harbour repaint",
    (
        SchemeRow(
            "eyes",
            "#E8C33A",
            "Glass eyes, kept",
            more={"eye": "kept", "mass_g": 0.05, "note": "They stay: masked first, bared last."},
        ),
        SchemeRow("base", "#E6E2D2"),
        SchemeRow("fade", "#2F4858", place=BACK_HALF),
        SchemeRow("bars", "#1E2F3A", place={"count": 5}),
    ),
)
"""For a bait that came with its eyes in."""

ON_FLOATS = (
    "Reed and signal",
    (
        SchemeRow(
            "base",
            "#FF5A1F",
            "Tip, bright orange",
            "fluorescent",
            {"ends": Along(more_mm=16.0)},
        ),
        SchemeRow("base", "#2F4A38", "Reed green", place={"begins": Along(more_mm=16.0)}),
        SchemeRow(
            "band",
            "#E2C15A",
            "Band at the shoulder",
            place={"begins": Along(at_percent=34.0), "ends": Along(at_percent=37.0), "edge_percent": 0.0},
        ),
    ),
)
"""For floats: a tip that is seen, a body that is not."""


TAGS = {
    "Estuary smelt": ("sea trout", "spring"),
    "Zander clay": ("zander", "autumn"),
    "Roach at dusk": ("pike", "autumn"),
    "Garfish green": ("bass", "summer"),
    "Copper asp": ("asp", "summer"),
    "Ruffe": ("perch", ""),
    "Mullet": ("bass", "summer"),
    "Signal orange": ("pike", "winter"),
    "Night tench": ("catfish", "summer"),
    "Brown trout fry": ("brown trout", "spring"),
    "Harbour repaint": ("pike", ""),
    "Reed and signal": ("", "summer"),
}
"""Which fish a scheme is for, and when it is fished."""


def content(name: str, rows: tuple[SchemeRow, ...]) -> Document:
    """A scheme of these layers: sealed and primed under them, cleared over them; domed eyes come last, those
    that are kept first.
    """
    layers, counts = [SEAL, PRIMER], dict.fromkeys(KINDS, 0)
    for row in rows:
        counts[row.kind] += 1
        layers.append(_layer(row, f"{row.kind}{counts[row.kind]}"))
    layers.sort(key=lambda layer: not layer.is_there)
    last = layers.pop() if layers[-1].is_glued_late else None
    clear = replace(CLEAR, scuff=last is not None)
    fish, season = TAGS.get(name, ("", ""))
    return {
        **of_layers(name, [*layers, clear, *([last] if last else [])]),
        "fish": fish,
        "season": season,
    }


def _layer(row: SchemeRow, key: str) -> Layer:
    layer = EYES if row.kind == "eyes" else begun(row.kind, key)
    paint = replace(layer.paint, colour=row.colour)
    if row.paint:
        covers = 100.0 * PAINT_KINDS[row.paint].covering_share
        paint = replace(paint, kind=row.paint, covering_percent=covers)
    more = {**({"name": row.name} if row.name else {}), **row.more}
    return replace(layer, key=key, paint=paint, place=replace(layer.place, **row.place), **more)

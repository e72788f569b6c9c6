"""The moulds of the invented shop, and what was cast in them."""

from typing import Any

MOULDS: tuple[tuple[str, str, Any, tuple[dict[str, Any], ...], str, str, int | None], ...] = (
    # name, of what, which, edits, cast in it, made of, demouldings its master stands
    (
        "Stubby, four at once",
        "body",
        "Heel-poured stubby",
        ({"do": "arrange", "count": 4}, {"do": "add", "group": "texts", "says": "VB 70"}),
        "Casting resin",
        "Mould silicone, condensation",
        6,
    ),
    (
        "Mudlark foam pair",
        "body",
        "Mudlark",
        ({"do": "arrange", "count": 2}, {"do": "set", "path": "stand", "text": "on edge"}),
        "Rigid foam 0.16",
        "Mould silicone, condensation",
        None,
    ),
    (
        "Weed tadpole, soft",
        "body",
        "Weed tadpole",
        ({"do": "set", "path": "casting_c", "text": "172 °C"}, {"do": "arrange", "count": 3}),
        "Soft plastisol",
        "Mould silicone, addition",
        10,
    ),
    (
        "Bream fry on edge",
        "body",
        "Bream fry",
        ({"do": "set", "path": "tilt_deg", "text": "90°"}, {"do": "flag", "path": "boards", "on": True}),
        "Casting resin",
        "Mould silicone, condensation",
        2,
    ),
    (
        "Old glider",
        "weighed",
        ("Old glider, found", 118.0, 20.0, 36.0),
        (),
        "Casting resin",
        "Mould silicone, condensation",
        1,
    ),
    (
        "Pike lure, ours only",
        "body",
        "Grandfather's pike lure",
        (),
        "Casting resin",
        "Mould silicone, condensation",
        3,
    ),
)


SHOTS_CAST: tuple[tuple[str, str, float, float, float, tuple[tuple[str, ...], ...]], ...] = (
    # version of a mould, product, days ago, grams weighed, ml filled, each cavity with its faults
    ("Stubby, four at once v1", "Casting resin", 138, 110.0, 100.0, (("c1",), ("c2",), ("c4", "pinholes"))),
    (
        "Stubby, four at once v1",
        "Casting resin",
        120,
        111.0,
        100.0,
        (("c1", "trapped air"), ("c2",), ("c4", "trapped air")),
    ),
    (
        "Stubby, four at once v2",
        "Casting resin",
        33,
        139.0,
        130.0,
        (("c1",), ("c2", "face"), ("c3",), ("c4",)),
    ),
    (
        "Stubby, four at once v2",
        "Casting resin",
        30,
        141.0,
        130.0,
        (("c1",), ("c2", "face"), ("c3",), ("c4",)),
    ),
    (
        "Stubby, four at once v2",
        "Casting resin",
        12,
        140.0,
        130.0,
        (("c1",), ("c2",), ("c3", "pinholes"), ("c4",)),
    ),
    ("Mudlark foam pair", "Rigid foam 0.16", 50, 12.0, 10.4, (("c1",), ("c2", "voids"))),
    ("Mudlark foam pair", "Rigid foam 0.16", 48, 12.4, 10.4, (("c1",), ("c2",))),
    ("Weed tadpole, soft", "Soft plastisol", 20, 60.0, 54.0, (("c1",), ("c2",), ("c3",))),
    ("Bream fry on edge", "Casting resin", 15, 17.0, 15.4, (("c1", "trapped air"),)),
)

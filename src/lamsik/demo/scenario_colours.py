"""The invented shop's shelf of paints: how each looks over white and over black, what is left; mixed
swatches; colours that are wanted. Every paint is made up.
"""

from lamsik.demo.schemes import BACK_HALF, BELLY, SchemeRow

SOLVENT = ("candy",)
"""Kinds that come in solvent here, and in smaller drops."""
SHELF = (
    # name, kind, over white L a b, over black L a b, film µm, solids %, price of 1 ml, left ml
    ("Chalk white", "opaque", (93.0, -0.6, 2.2), (88.0, -1.6, -1.2), 22, 42, 0.16, 60),
    ("Lamp black", "opaque", (25.6, 0.1, 0.2), (25.4, 0.1, 0.2), 18, 34, 0.14, 45),
    ("Roach silver-grey", "opaque", (67.0, -1.2, -2.0), (65.0, -1.5, -3.2), 20, 38, 0.18, 30),
    ("Reed yellow", "opaque", (79.0, 6.0, 72.0), (68.0, -2.0, 50.0), 20, 36, 0.22, 25),
    ("Perch gold", "opaque", (66.0, 16.0, 56.0), (57.0, 10.0, 42.0), 20, 36, 0.22, 30),
    ("Fin red", "opaque", (46.0, 54.0, 34.0), (41.0, 43.0, 26.0), 20, 35, 0.24, 30),
    ("Brick", "opaque", (42.0, 34.0, 27.0), (40.0, 30.0, 23.0), 20, 38, 0.19, 20),
    ("Peat brown", "opaque", (34.0, 12.0, 16.0), (33.0, 11.0, 14.0), 20, 38, 0.18, 35),
    ("Moss green", "opaque", (46.0, -20.0, 26.0), (42.0, -17.0, 20.0), 20, 36, 0.2, 40),
    ("Tench green", "opaque", (33.0, -10.0, 14.0), (32.0, -9.0, 12.0), 20, 36, 0.2, 25),
    ("Deep water blue", "opaque", (34.0, 2.0, -36.0), (31.0, 1.0, -27.0), 20, 35, 0.23, 20),
    ("Sky blue", "opaque", (65.0, -12.0, -26.0), (58.0, -12.0, -25.0), 20, 36, 0.2, 20),
    ("Heather", "opaque", (42.0, 27.0, -25.0), (37.0, 20.0, -20.0), 20, 35, 0.24, 15),
    ("Glass yellow", "transparent", (84.0, -2.0, 76.0), (30.0, -2.0, 9.0), 15, 24, 0.28, 20),
    ("Glass red", "transparent", (52.0, 62.0, 38.0), (28.0, 7.0, 4.0), 15, 24, 0.28, 20),
    ("Glass blue", "transparent", (50.0, -8.0, -46.0), (28.0, 0.0, -9.0), 15, 24, 0.28, 15),
    ("Glass green", "transparent", (58.0, -44.0, 22.0), (29.0, -5.0, 3.0), 15, 24, 0.28, 0),
    ("Smoke", "transparent", (62.0, 1.0, 4.0), (27.5, 0.1, 0.4), 15, 24, 0.24, 25),
    ("Honey candy", "candy", (68.0, 28.0, 66.0), (28.5, 3.0, 6.0), 25, 30, 0.4, 30),
    ("Ruby candy", "candy", (38.0, 48.0, 22.0), (27.5, 5.0, 2.0), 25, 30, 0.4, 30),
    ("Frost pearl", "pearl", (90.0, 0.0, 1.0), (52.0, -1.0, -7.0), 15, 30, 0.35, 20),
    ("Signal orange", "fluorescent", (70.0, 62.0, 66.0), (52.0, 44.0, 44.0), 30, 36, 0.3, 25),
    ("Night glow", "glow", (88.0, -12.0, 22.0), (72.0, -12.0, 14.0), 60, 50, 0.5, 15),
)

MIXED = (
    # name, recipe by name and drops, look wanted, how it came out
    ("Weed back", (("Deep water blue", 2), ("Moss green", 3)), (35.9, -27.9, 1.4), (34.6, -25.5, 2.2)),
    ("Belly cream", (("Chalk white", 9), ("Reed yellow", 1)), (89.2, 1.1, 29.0), (88.6, 0.8, 25.9)),
    ("Zander flank", (("Perch gold", 3), ("Moss green", 2)), (61.2, -6.8, 45.2), (57.9, -3.7, 42.9)),
    ("Fin orange", (("Fin red", 2), ("Reed yellow", 5)), (58.8, 32.0, 45.9), (59.7, 31.0, 45.7)),
    ("Slate back", (("Lamp black", 1), ("Sky blue", 6)), (46.5, -7.5, -18.3), (48.5, -9.5, -15.1)),
    ("Dusk brown", (("Peat brown", 4), ("Chalk white", 2)), (47.5, 16.2, 18.5), (45.9, 16.0, 16.3)),
)
"""Mixed swatches, sprayed over white primer."""

JOBS = (
    (
        "Faded perch, its flank",
        (61.0, 2.0, 44.0),
        "off the lit side of an old bait",
    ),
    ("Smelt back for Arla", (55.0, -14.0, -8.0), "as on her sample; daylight at the window"),
)
"""Colours that are wanted and not mixed yet."""
OFF_THE_SHELF = (
    "Perch, off the shelf",
    (
        SchemeRow("base", "#C8B070", "Flank, gold"),
        SchemeRow("base", "#E6DEC4", "Belly", place=BELLY),
        SchemeRow("fade", "#4C5A34", "Back fade, moss", place=BACK_HALF),
        SchemeRow("bars", "#22261E", place={"count": 6}),
        SchemeRow("fin", "#B4362E", "Side fin, red"),
        SchemeRow("eyes", "#E8C33A"),
    ),
    (
        ("base1", "Perch gold"),
        ("base2", "Belly cream"),
        ("fade1", "Moss green"),
        ("bars1", "Lamp black"),
        ("fin1", "Fin red"),
    ),
)
"""A scheme whose paints stand on the shelf: its layers, and which paint each takes."""

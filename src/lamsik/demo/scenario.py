"""A two-person workshop on the made-up Vadholm estuary: its people, waters, patterns and orders."""

from typing import Any

SHOP = {"name": "Vadholm Bench", "currency": "EUR"}

PEOPLE = ("Maj", "Ossian")

WATERS = (("Holm mere", 14.0, 0.0), ("Inner Vad", 8.0, 4.5), ("Outer Vad", 9.0, 18.0))

NOT_ON_FLOATS = ("eyes", "fade", "lettering")
"""Kinds of layers a float is left without: it has no face, and no back."""

BODIES = (
    # name, form, length, depth, width, wood, parts set, lip, scheme, behaviour, water
    (
        "Ferry runner 90",
        "slim",
        90,
        19,
        15,
        "basswood",
        "small",
        "lip-m",
        "Estuary smelt",
        "slow rise",
        "fresh water",
    ),
    (
        "Ferry runner 110",
        "slim",
        110,
        23,
        18,
        "red cedar",
        "light",
        "lip-m",
        "Zander clay",
        "slow rise",
        "Inner Vad",
    ),
    ("Mudlark", "stubby", 58, 27, 22, "balsa", "small", "lip-d", "Ruffe", "floats", "Holm mere"),
    (
        "Tollhouse",
        "stubby",
        66,
        29,
        24,
        "jelutong",
        "small",
        "lip-s",
        "Signal orange",
        "floats",
        "fresh water",
    ),
    (
        "Slack-water glider",
        "glider",
        120,
        36,
        20,
        "maple",
        "medium",
        None,
        "Roach at dusk",
        "slow sink",
        "Inner Vad",
    ),
    (
        "Little glider",
        "glider",
        95,
        29,
        17,
        "basswood",
        "small",
        None,
        "Copper asp",
        "suspends",
        "fresh water",
    ),
    ("Skiff popper", "popper", 78, 20, 20, "paulownia", "small", None, "Mullet", "floats", "Outer Vad"),
    (
        "Night walker",
        "walker",
        105,
        19,
        19,
        "red cedar",
        "small",
        None,
        "Garfish green",
        "floats",
        "Outer Vad",
    ),
    (
        "Bream fry",
        "deepflank",
        74,
        34,
        15,
        "poplar",
        "small",
        "lip-s",
        "Chalk bream",
        "slow rise",
        "Holm mere",
    ),
    (
        "Weed tadpole",
        "tadpole",
        68,
        24,
        22,
        "basswood",
        "small",
        None,
        "Night tench",
        "slow rise",
        "Holm mere",
    ),
    ("Reed stick", "stick", 160, 7, 7, "bamboo", "float", None, "Signal orange", "floats", "Holm mere"),
    ("Tench antenna", "antenna", 185, 17, 17, "balsa", "float", None, "Night tench", "floats", "Holm mere"),
)

OTHERS: tuple[tuple[tuple[Any, ...], tuple[dict[str, Any], ...]], ...] = (
    # a body as above, and the edits that make it what it is; then ballast is found unless it has its own
    (
        (
            "Split eel",
            "slim",
            130,
            22,
            17,
            "red cedar",
            "jointed",
            "lip-m",
            "Garfish green",
            "slow rise",
            "Inner Vad",
        ),
        (
            {"do": "joint", "x_mm": 62.0, "kind": "linked"},
            {"do": "set", "path": "joints.j1.slant_deg", "text": "8°"},
        ),
    ),
    (("Tide bell", "chugger", 72, 21, 21, "paulownia", "single", None, "Mullet", "floats", "Outer Vad"), ()),
    (
        (
            "Feather diver head",
            "divinghead",
            26,
            12,
            12,
            "balsa",
            "head",
            None,
            "Copper asp",
            "floats",
            "Outer Vad",
        ),
        (),
    ),
    (
        (
            "Heel-poured stubby",
            "stubby",
            70,
            30,
            25,
            "filled urethane",
            "small",
            None,
            "Signal orange",
            "floats",
            "fresh water",
        ),
        (
            {"do": "pour"},
            {"do": "set", "path": "pours.p1.from_mm", "text": "52 mm"},
            {"do": "set", "path": "pours.p1.tilt_deg", "text": "-18°"},
            {"do": "set", "path": "source.kind", "text": "licensed"},
            {
                "do": "set",
                "path": "source.note",
                "text": "mould shape by agreement with Odile Marsac, to 2028",
            },
        ),
    ),
    (
        (
            "Print rattler",
            "walker",
            95,
            22,
            22,
            "printed resin",
            "small",
            None,
            "Estuary smelt",
            "sinks",
            "fresh water",
        ),
        (
            {"do": "hollow", "on": True},
            {"do": "set", "path": "shell.wall_mm", "text": "1.6 mm"},
            {"do": "cavity", "code": "steel ball 6 mm"},
            {"do": "set", "path": "cavities.c1.count", "text": "3"},
            {"do": "set", "path": "cavities.c1.x_mm", "text": "58 mm"},
        ),
    ),
    (
        (
            "Grandfather's pike lure",
            "deepflank",
            88,
            38,
            17,
            "beech",
            "small",
            None,
            "Brown trout fry",
            "sinks",
            "Holm mere",
        ),
        (
            {"do": "set", "path": "source.kind", "text": "not_for_sale"},
            {"do": "set", "path": "source.note", "text": "traced from an old one in the family"},
        ),
    ),
)

WEIGHED = (
    # name, kind, air g, water g, sinker g, both g, marks and readings, stage, water, scale, days ago
    ("Pear sinker 30 g (label)", "sinker", 29.62, 27.00, None, None, (), "", "fresh water", 1, 40),
    ("Bought spoon, 18 g on the card", "bait", 18.43, 15.98, None, None, (), "", "fresh water", 1, 38),
    ("Old glider, found", "bait", 41.26, None, 27.00, 25.71, (), "", "Holm mere", 1, 30),
    ("Treble size 4, ten", "hardware", 12.38, 10.81, None, None, (), "", "fresh water", 1, 26),
    ("Night walker P0012", "bait", 15.12, None, 27.00, 21.86, (), "", "Outer Vad", 1, 19),
    ("Wolfram bead 5 mm, five", "hardware", 5.91, 5.57, None, None, (), "", "fresh water", 1, 12),
    ("Roach, dead bait", "other", 62.4, 1.3, None, None, (), "", "Holm mere", 0, 6),
)

FLOATS = (
    # name, kind, edits
    ("Reed stick 2 g", "stick", ({"do": "size", "text": "2 g", "by": "length"},)),
    ("Tench antenna 2.5 g", "antenna", ({"do": "size", "text": "2.5 g", "by": "length"},)),
    ("Bream waggler", "waggler", ()),
    ("Deep hole slider", "slider", ()),
    ("Long-cast loaded", "loaded", ()),
    ("Cane insert", "insert tip", ()),
    ("Foam pilot", "bulk foam", ()),
    ("Deadbait foam 80", "live bait", ()),
    ("Cast bobbin", "cast", ()),
    ("Print test 3", "printed", ()),
)

FINISHED = (
    # float (its place in FLOATS), name, stage, capacity over the computed one: slope, shift g
    (1, "Antenna 1", "varnished", -0.11),
    (1, "Antenna 2", "varnished", -0.07),
    (1, "Antenna 3", "painted", -0.15),
    (0, "Stick 1", "varnished", 0.06),
    (0, "Stick 2", "varnished", -0.02),
)

SHOTS = (
    "Weighed shot",
    "our own",
    "lead, ten weighed at once",
    (
        ("SSG", 1.58),
        ("AAA", 0.81),
        ("BB", 0.41),
        ("No 1", 0.29),
        ("No 4", 0.17),
        ("No 6", 0.105),
        ("No 8", 0.063),
        ("No 10", 0.038),
    ),
)
SINKERS = (
    "Sinkers by the gram",
    "metric",
    "tin",
    (
        ("5 g", 5.0),
        ("3 g", 3.0),
        ("2 g", 2.0),
        ("1.5 g", 1.5),
        ("1 g", 1.0),
        ("0.75 g", 0.75),
        ("0.5 g", 0.5),
        ("0.3 g", 0.3),
    ),
    7.3,
)

REVISION_NAMES = ((0, 1, "as first drawn"), (0, 2, "with ballast"), (2, 3, "narrow lip, June"))

FAMILY = (0, [75.0, 90.0, 110.0], ["basswood", "red cedar", "balsa"], ["75|basswood", "110|balsa"])

BLADES = (
    {"name": "Estuary blade, brass"},
    {
        "name": "Small blade, copper",
        "metal": "copper",
        "nose_mm": 10.0,
        "rear_mm": 34.0,
        "width_mm": 12.0,
        "thickness_mm": 0.6,
        "cup_mm": 4.0,
        "right_deg": 8.0,
    },
)

BALLAST = {
    # stock, how many steps of what it is cut by, place, drill, beside the middle
    "Ferry runner 90": (("lead rod 6 mm", 24, 24.5, 6.0, 0.0), ("steel ball 6 mm", 2, 46.5, 6.0, 0.0)),
    "Ferry runner 110": (("lead rod 6 mm", 28, 34.0, 6.0, 0.0), ("tungsten rod 4 mm", 33, 51.5, 4.0, 3.0)),
    "Mudlark": (("lead rod 5 mm", 18, 17.5, 5.0, 3.5), ("tungsten rod 4 mm", 36, 34.5, 4.0, 0.0)),
    "Tollhouse": (("tungsten rod 4 mm", 52, 19.5, 4.5, 0.0), ("lead rod 5 mm", 11, 47.0, 5.0, 0.0)),
    "Slack-water glider": (("lead rod 6 mm", 72, 29.0, 6.0, 0.0), ("tungsten rod 4 mm", 53, 84.0, 4.5, 0.0)),
    "Little glider": (("lead rod 8 mm", 75, 24.5, 8.0, 0.0), ("lead rod 8 mm", 62, 64.5, 8.5, 0.0)),
    "Skiff popper": (("lead rod 8 mm", 30, 8.0, 8.0, 0.0), ("lead rod 8 mm", 25, 39.0, 8.0, 0.0)),
    "Night walker": (("lead rod 8 mm", 38, 32.5, 8.0, 0.0), ("lead rod 8 mm", 40, 80.5, 8.0, 0.0)),
    "Bream fry": (("lead rod 5 mm", 22, 17.0, 5.0, 0.0), ("lead rod 5 mm", 32, 35.5, 5.5, 0.0)),
    "Weed tadpole": (("tungsten rod 4 mm", 10, 11.5, 4.0, 3.0), ("tungsten rod 4 mm", 13, 18.0, 4.0, 3.0)),
    "Split eel": (("lead rod 6 mm", 43, 31.0, 6.5, 0.0), ("lead rod 8 mm", 54, 74.5, 8.5, 0.0)),
    "Tide bell": (
        ("lead rod 8 mm", 25, 6.0, 8.0, 0.0),
        ("lead rod 8 mm", 28, 34.0, 8.0, 0.0),
        ("lead rod 8 mm", 21, 50.0, 8.0, 0.0),
    ),
    "Grandfather's pike lure": (("lead rod 5 mm", 26, 19.0, 5.0, 0.0), ("lead rod 5 mm", 37, 43.5, 5.5, 0.0)),
    "Harbour lure, a customer's": (
        ("tin rod 6 mm", 41, 29.5, 6.0, 0.0),
        ("tungsten rod 4 mm", 40, 52.5, 4.5, 0.0),
    ),
    "Lock runner 85": (("tin rod 6 mm", 22, 24.5, 6.5, 0.0), ("tungsten rod 4 mm", 20, 40.5, 4.0, 0.0)),
}

PARTS = {
    # (code, seat, share of the length)
    "small": (
        ("tie-s", "nose", 0),
        ("hgr-s", "belly", 0.4),
        ("hgr-s", "tail", 1),
        ("ring-4", "belly", 0),
        ("ring-4", "belly", 0),
        ("tre-8", "belly", 0),
        ("tre-8", "belly", 0),
    ),
    "medium": (
        ("tie-m", "nose", 0),
        ("hgr-m", "belly", 0.36),
        ("hgr-m", "tail", 1),
        ("ring-6", "belly", 0),
        ("ring-6", "belly", 0),
        ("tre-6", "belly", 0),
        ("tre-6", "belly", 0),
    ),
    "light": (
        ("tie-m", "nose", 0),
        ("hgr-m", "belly", 0.38),
        ("hgr-s", "tail", 1),
        ("ring-6", "belly", 0),
        ("ring-4", "belly", 0),
        ("tre-6", "belly", 0),
        ("tre-8", "belly", 0),
    ),
    "jointed": (
        ("tie-m", "nose", 0),
        ("hgr-m", "belly", 0.33),
        ("hgr-s", "tail", 1),
        ("ring-6", "belly", 0),
        ("ring-4", "belly", 0),
        ("tre-6", "belly", 0),
        ("tre-8", "belly", 0),
        ("pair-s", "inside", 0.477),
    ),
    "single": (("tie-s", "nose", 0), ("hgr-s", "tail", 1), ("ring-4", "tail", 1), ("tre-8", "tail", 1)),
    "head": (("wire-1", "inside", 0.5), ("tie-s", "nose", 0), ("skirt-s", "tail", 1)),
    "float": (("tie-s", "tail", 1),),
}

TRIMS = (
    # body, edits that each became a revision
    (2, ({"do": "set", "path": "lip.width_mm", "text": "18 mm"},)),
    (
        2,
        (
            {"do": "set", "path": "lip.length_mm", "text": "28.5 mm"},
            {"do": "set", "path": "lip.square_deg", "text": "0.5°"},
        ),
    ),
    (8, ({"do": "tie", "seat": "lip"},)),
    (6, ({"do": "allow", "kind": "other"},)),
)

TIMED = (
    # body, way, m, s, net weighed g
    (5, "sink", 0.5, 21.4, None),
    (5, "sink", 0.5, 20.2, None),
    (5, "sink", 0.5, 22.0, None),
    (4, "sink", 0.5, 8.9, None),
    (4, "sink", 0.5, 9.3, -0.31),
    (4, "sink", 0.5, 9.0, -0.31),
)

TOWED = (
    # body, line out m, m/s, line mm, rod tip m, depth m, note
    (2, 20.0, 1.0, 0.28, 1.2, 2.6, "flat calm, along the harbour wall"),
    (2, 35.0, 1.2, 0.28, 1.2, 3.7, "ticked the mud twice"),
    (8, 18.0, 0.9, 0.25, 1.0, 0.6, "over the weed, tracks true"),
)

ORDERS = (
    # customer, body, quantity, days since placed, due in days, shipped pieces done share
    (0, 0, 2, 330, -290, "shipped"),
    (1, 2, 3, 318, -270, "shipped"),
    (2, 4, 1, 301, -255, "shipped"),
    (4, 6, 4, 285, -240, "shipped"),
    (5, 0, 2, 262, -225, "shipped"),
    (6, 8, 2, 240, -200, "shipped"),
    (7, 11, 6, 226, -190, "shipped"),
    (8, 7, 2, 204, -170, "shipped"),
    (0, 1, 2, 190, -150, "shipped"),
    (9, 3, 3, 171, -135, "shipped"),
    (3, 5, 2, 150, -112, "shipped"),
    (2, 9, 2, 133, -95, "shipped"),
    (1, 10, 5, 117, -80, "shipped"),
    (4, 0, 3, 98, -60, "shipped"),
    (5, 6, 2, 82, -44, "shipped"),
    (7, 2, 2, 66, -30, "shipped"),
    (6, 1, 1, 48, -12, "shipped"),
    (8, 4, 1, 33, 3, "pack"),
    (9, 0, 2, 27, 6, "clear"),
    (3, 8, 2, 22, 9, "paint"),
    (0, 5, 2, 16, 14, "fit"),
    (2, 7, 1, 11, 18, "seal"),
    (1, 3, 2, 7, 24, "accepted"),
    (5, 0, 1, 2, 30, "enquiry"),
    (6, 11, 4, 1, 41, "enquiry"),
)

STOCK_PIECES = ((0, "shipped"), (2, "shipped"), (6, "carve"), (9, "fit"))

TUBS = (
    # product, part, lot, came g, left g, opened days ago, expires in days, price minor, colour, heats
    ("Casting resin", "A", "2231", 1000.0, 412.0, 60, 150, 2890, "", 0),
    ("Casting resin", "B", "2232", 930.0, 368.0, 60, 150, 2690, "", 0),
    ("Casting resin", "A", "2090", 1000.0, 140.0, 300, -20, 2890, "", 0),
    ("Rigid foam 0.16", "A, polyol", "F-118", 500.0, 221.0, 40, 200, 1750, "", 0),
    ("Rigid foam 0.16", "B, isocyanate", "F-119", 550.0, 240.0, 40, 200, 1950, "", 0),
    ("Mould silicone, condensation", "base", "SI-77", 5000.0, 2310.0, 90, 200, 7400, "", 0),
    ("Mould silicone, condensation", "catalyst", "SC-12", 200.0, 96.0, 90, 60, 900, "", 0),
    ("Mould silicone, addition", "A", "AD-4", 1000.0, 640.0, 30, 300, 3400, "", 0),
    ("Mould silicone, addition", "B", "AD-5", 1000.0, 655.0, 30, 300, 3400, "", 0),
    ("Soft plastisol", "plastisol", "P-9", 2000.0, 1340.0, 100, 400, 2600, "", 0),
    ("Soft plastisol", "plastisol", "scrap", 180.0, 95.0, 10, 0, None, "pearl", 1),
    ("Slow epoxy", "resin", "E-31", 500.0, 310.0, 70, 250, 1900, "", 0),
    ("Slow epoxy", "hardener", "E-32", 220.0, 128.0, 70, 250, 1400, "", 0),
)


MADE = (
    # mould, of, lot, days ago, cavities not alive
    (
        "Stubby, four at once",
        "Mould silicone, condensation",
        "SI-70",
        140,
        (("c3", "dead", "torn at the tail"),),
    ),
    (
        "Stubby, four at once",
        "Mould silicone, condensation",
        "SI-77",
        34,
        (("c2", "trim", "nick on the back: sand every casting there"),),
    ),
    ("Mudlark foam pair", "Mould silicone, condensation", "SI-77", 52, ()),
    ("Weed tadpole, soft", "Mould silicone, addition", "AD-4", 21, ()),
    ("Bream fry on edge", "Mould silicone, condensation", "SI-77", 16, ()),
)


BRICKS = {"have": 90, "strip_high_mm": 60.0, "strip_long_mm": 700.0}
"""Wooden building bricks of the shop's own, and a strip of tin."""

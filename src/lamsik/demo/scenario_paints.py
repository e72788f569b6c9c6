"""What is painted in the invented shop: a batch, a repaint, what was tried, what is sprayed through."""

REPAINT = (
    (
        "Harbour lure, a customer's",
        "deepflank",
        102,
        36,
        19,
        "beech",
        "small",
        None,
        "Harbour repaint",
        "sinks",
        "Holm mere",
    ),
    (
        {"do": "set", "path": "source.kind", "text": "not_for_sale"},
        {"do": "set", "path": "source.note", "text": "belongs to Piet Vanderlo, here for new paint"},
    ),
)
"""A customer's bait that came to be painted anew; what it weighed as it came, and its volume by that."""
CAME_G, CAME_ML = 31.2, 24.0
CAME = (("Harbour lure, as it came", "bait", CAME_G, None, 27.00, 34.22, (), "", "fresh water", 1, 2),)
FLOAT = ("Green stick 3 g", "stick", ({"do": "size", "text": "3 g", "by": "length"},))
"""A float that a scheme paints: name, kind, edits."""
BATCH = (0, 0, 0, 3, 3, 9, 9)
"""Bodies of the seven pieces that are painted together: hung and weighed, bare of paint."""
PATCHES = (
    # under, over, after h, result, days ago, note
    ("epoxy", "water", 12, "held", 210, "thinned seal, airbrush acrylic"),
    ("water", "epoxy", 1, "held", 208, "acrylic dry to the touch, slow epoxy"),
    ("water", "solvent", 2, "wrinkled", 160, "acrylic under a lacquer clear: crept at once"),
    ("water", "solvent", 48, "held", 150, "two days, thin mist first"),
    ("epoxy", "urethane", 24, "peeled", 90, "not scuffed"),
    ("epoxy", "epoxy", 8, "held", 88, "within its window"),
    ("water", "uv", 4, "held", 30, ""),
)
TOOLS = (
    # name, kind, from, body, side, hangs, note
    ("Bars, seven teeth", "comb", "cut from card", None, "both", "board, upper row", ""),
    ("Perch bars, left twin", "stencil", "cut here, polyester sheet", 0, "left", "board, left nail", ""),
    ("Perch bars, right twin", "stencil", "cut here, polyester sheet", 0, "right", "board, left nail", ""),
    ("Tollhouse bars, left twin", "stencil", "cut here, polyester sheet", 3, "left", "board, middle", ""),
    ("Tollhouse bars, right twin", "stencil", "cut here, polyester sheet", 3, "right", "board, middle", ""),
    ("Bream gill, left twin", "stencil", "cut here, drawing film", 8, "left", "board, right nail", ""),
    ("Bream gill, right twin", "stencil", "cut here, drawing film", 8, "right", "board, right nail", ""),
    ("Fruit net, fine", "net", "a bag of oranges", None, "both", "drawer 2", "draw tight, clip below"),
)

SHELF_BODY = (
    "Lock runner 85",
    "slim",
    85,
    20,
    15,
    "basswood",
    "small",
    "lip-m",
    "Perch, off the shelf",
    "slow rise",
    "fresh water",
)
"""A body whose paints all stand on the shelf."""
MIXED_FOR = ("Belly cream", 5, 0.09, 0.42)
"""What was mixed for so many of it; which share of it was weighed back out of cup and brush, and which of
what could stay the pieces gained.
"""

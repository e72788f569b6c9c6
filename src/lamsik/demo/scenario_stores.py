"""What the invented shop has in its stores: whom it buys from, what lies where, what is short."""

from dataclasses import dataclass

SUPPLIERS = (
    # name, how to reach them, days they say
    ("Tarn Hardware", "orders@tarnhardware.example", 6),
    ("Blackwell Timber", "+44 20 7946 0991", 3),
    ("Coats & Clears", "desk@coatsclears.example", 10),
)
INCIDENT = (0, "Forty hangers of the last box were bent", "Sent anew without a charge")


@dataclass(frozen=True)
class Kept:
    """An item: its name, how much lies there and where, its pack with the price in cents, the least there
    should be, whose it is; of what is no part: its kind and unit, what designs call it, whether one goes with
    each piece.
    """

    name: str
    lies: float
    place: str
    pack: float
    minor: int
    least: float
    supplier: int
    kind: str = ""
    unit: str = "piece"
    called: str = ""
    each: float = 0.0


KEPT = (
    Kept("Treble hook size 8", 12, "Drawer 3", 25, 950, 25, 0),
    Kept("Treble hook size 6", 40, "Drawer 3", 25, 980, 25, 0),
    Kept("Treble hook size 4", 31, "Drawer 3", 25, 1020, 0, 0),
    Kept("Split ring 4 mm", 140, "Drawer 2", 100, 640, 50, 0),
    Kept("Split ring 6 mm", 60, "Drawer 2", 100, 680, 50, 0),
    Kept("Hook hanger, screw eye 0.9 × 13", 85, "Drawer 1", 100, 520, 40, 0),
    Kept("Line tie, screw eye 0.9 × 16", 44, "Drawer 1", 100, 560, 20, 0),
    Kept("Shallow lip 12 × 10, polycarbonate", 9, "Drawer 4", 10, 700, 0, 0),
    Kept("lead rod 5 mm", 420, "Lead box", 500, 890, 100, 0),
    Kept("lead rod 8 mm", 310, "Lead box", 500, 890, 100, 0),
    Kept("tungsten rod 4 mm", 64, "Lead box", 50, 2350, 0, 0),
    Kept("Maple stick 40 × 25", 2400, "Wood rack", 1000, 890, 500, 1, "wood", "mm", "maple"),
    Kept("Basswood stick 40 × 25", 5200, "Wood rack", 1000, 560, 500, 1, "wood", "mm", "basswood"),
    Kept("Jelutong stick 40 × 25", 130, "Wood rack", 1000, 740, 300, 1, "wood", "mm", "jelutong"),
    Kept("Red cedar stick 40 × 25", 1800, "Wood rack", 1000, 620, 500, 1, "wood", "mm", "red cedar"),
    Kept("Poplar stick 40 × 25", 900, "Wood rack", 1000, 480, 0, 1, "wood", "mm", "poplar"),
    Kept("Flat eyes 5 mm", 64, "Drawer 5", 100, 450, 40, 0, "part", "piece", "Eyes, 5 mm"),
    Kept("Domed eyes 6 mm", 22, "Drawer 5", 50, 790, 20, 0, "part", "piece", "Domed eyes, glued on last"),
    Kept("Bait box 150 × 50", 34, "Shelf 2", 50, 2100, 20, 2, "box", "piece", "", 1),
    Kept("Care card, printed", 80, "Shelf 2", 100, 600, 20, 2, "sheet", "piece", "", 1),
)
DELIVERIES = (
    # item, how much, price in cents, ordered and come so many days ago
    ("Treble hook size 6", 25, 980, 41, 33),
    ("Split ring 4 mm", 100, 640, 41, 33),
    ("Bait box 150 × 50", 50, 2100, 26, 17),
)
STAND_INS = (("Treble hook size 8", "Treble hook size 6"), ("Split ring 4 mm", "Split ring 6 mm"))
MACHINES = (
    # name, state, steps that need it, what is done without it
    ("Band saw", "up", ("carve",), "Cut the blank with the coping saw; twice as long"),
    ("Drying wheel", "up", ("clear", "seal"), "Turn by hand every five minutes for an hour"),
    ("Compressor", "down", ("colour", "prime", "stencil"), "Brush the base; the airbrush waits"),
)
RATES = (
    # to, up to so many grams, what it costs in cents
    ("Here", 250.0, 390),
    ("Here", 1000.0, 620),
    ("Neighbours", 250.0, 890),
    ("Neighbours", 1000.0, 1340),
    ("Overseas", 250.0, 1450),
    ("Overseas", 1000.0, 2680),
)
MOULD_COST = ("Stubby, four at once", 8600, 60)
"""A mould, what it cost in cents, how many shots are expected of it."""

"""Sheet-metal attractor blades: a strip with a nose bend, a cup to each side and holes for snaps."""

from dataclasses import dataclass
from math import pi, radians, tan

from lamsik.core.errors import finite_between, require
from lamsik.core.materials import METALS
from lamsik.core.shapes.sources import OWN, Source

FREE, RESTRICTED, TEARS = "free", "restricted", "tears out"
FREE_RATIO = 1.5
"""A snap swings freely in a hole of at least this many times its wire."""

LEAST_EDGE_SHARE, LEAST_EDGE_MM = 1.5, 0.8
"""Metal left between hole and edge: less than 1.5 thicknesses, or than 0.8 mm, tears out (a shop's rule of
thumb).
"""

K_FACTOR = 0.42
"""Where the neutral line lies in the thickness of soft sheet bent by hand (0.33 sharp to 0.5 wide)."""

UNEVEN_DEG = 1.0
SNAPS = ("front", "rear")


@dataclass(frozen=True)
class SnapHole:
    """A hole for a snap: centre from the strip's own end along it, diameter, the snap's wire and the room
    in its bow, all [mm].
    """

    key: str
    edge_mm: float
    diameter_mm: float
    wire_mm: float
    bow_mm: float


@dataclass(frozen=True)
class Blade:
    """A blade as bent: legs along the outside to the nose bend, strip width and thickness [mm], bends [°].

    `nose_deg` turns the nose up; a cup turns its edge down (`left_deg`, `right_deg`, over `cup_mm` from each
    edge). Negative angles turn the other way.
    """

    name: str
    metal: str
    nose_mm: float
    rear_mm: float
    width_mm: float
    thickness_mm: float
    nose_deg: float
    radius_mm: float
    cup_mm: float
    left_deg: float
    right_deg: float
    holes: tuple[SnapHole, ...]
    source: str = OWN
    source_note: str = ""

    def __post_init__(self) -> None:
        require(bool(self.name.strip()), "name", self.name, "give the blade a name")
        Source(self.source, self.source_note)
        require(self.metal in METALS, "metal", self.metal, f"one of {', '.join(METALS)}")
        for field, low, high in (
            ("nose_mm", 3, 200),
            ("rear_mm", 3, 300),
            ("width_mm", 2, 100),
            ("thickness_mm", 0.2, 4),
            ("radius_mm", 0, 20),
            ("cup_mm", 0, 40),
        ):
            finite_between(field, getattr(self, field), low, high, "mm")
        for field in ("nose_deg", "left_deg", "right_deg"):
            finite_between(field, getattr(self, field), -90.0, 90.0, "°")
        require(
            2 * self.cup_mm < self.width_mm,
            "cup_mm",
            self.cup_mm,
            f"less than half the width, {self.width_mm / 2:g} mm",
        )
        for hole in self.holes:
            finite_between(f"{hole.key} hole", hole.diameter_mm, 0.5, 20.0, "mm")
            finite_between(f"{hole.key} hole from the end", hole.edge_mm, 0.5, 40.0, "mm")
            finite_between(f"{hole.key} snap wire", hole.wire_mm, 0.2, 5.0, "mm")
            finite_between(f"{hole.key} snap bow", hole.bow_mm, 0.5, 40.0, "mm")
            require(
                hole.diameter_mm < self.width_mm,
                f"{hole.key} hole",
                hole.diameter_mm,
                f"narrower than the strip, {self.width_mm:g} mm",
            )

    @property
    def flat_mm(self) -> float:
        """Length of the flat strip [mm].

        Notes: legs to the mould line less the bend deduction 2(R + t)·tan(A/2) − A(R + K·t), as in
            sheet-metal work.
        """
        angle = radians(abs(self.nose_deg))
        allowance = angle * (self.radius_mm + K_FACTOR * self.thickness_mm)
        return (
            self.nose_mm
            + self.rear_mm
            - (2 * (self.radius_mm + self.thickness_mm) * tan(angle / 2) - allowance)
        )

    @property
    def bend_mm(self) -> float:
        """Where the bend's middle line is drawn on the flat strip, from the nose end [mm]."""
        angle = radians(abs(self.nose_deg))
        back = (self.radius_mm + self.thickness_mm) * tan(angle / 2)
        return self.nose_mm - back + angle * (self.radius_mm + K_FACTOR * self.thickness_mm) / 2

    @property
    def mass_g(self) -> float:
        """Mass [g]: strip with rounded ends (half circles, or halves of an ellipse where it is shorter
        than wide) less the holes.
        """
        long, wide = self.flat_mm, self.width_mm
        end = min(wide, long) / 2
        area = wide * (long - 2 * end) + pi * wide * end / 2
        area -= sum(pi * hole.diameter_mm**2 / 4 for hole in self.holes)
        return area * self.thickness_mm * METALS[self.metal] / 1000.0


STARTING_BLADE = Blade(
    "Attractor blade",
    "brass",
    14.0,
    52.0,
    18.0,
    0.8,
    25.0,
    1.5,
    3.0,
    12.0,
    12.0,
    (SnapHole("front", 3.5, 2.4, 1.0, 4.0), SnapHole("rear", 3.5, 2.4, 1.0, 4.0)),
)
"""What a new blade begins as."""


@dataclass(frozen=True)
class Swing:
    """Whether a snap swings in its hole: free, restricted or tears out, and why."""

    verdict: str
    why: str


def swing(blade: Blade, hole: SnapHole) -> Swing:
    """The verdict on one hole: metal left at the edge, room round the wire, edge within the snap's bow."""
    left = hole.edge_mm - hole.diameter_mm / 2
    least = max(LEAST_EDGE_SHARE * blade.thickness_mm, LEAST_EDGE_MM)
    if left < least - 1e-9:
        return Swing(TEARS, f"only {left:.1f} mm of metal between hole and edge; leave {least:.1f} mm")
    if hole.diameter_mm < FREE_RATIO * hole.wire_mm - 1e-9:
        return Swing(
            RESTRICTED,
            f"the hole is {hole.diameter_mm / hole.wire_mm:.2f} × the wire; drill at least"
            f" {FREE_RATIO * hole.wire_mm:.1f} mm",
        )
    if left > hole.bow_mm + 1e-9:
        return Swing(
            RESTRICTED,
            f"{left:.1f} mm of metal does not fit the {hole.bow_mm:.1f} mm bow; set the hole nearer to the"
            " edge",
        )
    return Swing(
        FREE, f"{left:.1f} mm of metal at the edge, hole {hole.diameter_mm / hole.wire_mm:.1f} × the wire"
    )


def remarks(blade: Blade) -> tuple[str, ...]:
    """What will make it run badly, in words."""
    found = []
    if abs(blade.left_deg - blade.right_deg) > UNEVEN_DEG:
        found.append(
            f"cup {blade.left_deg:.0f}° left and {blade.right_deg:.0f}° right: it runs to one side; bend both"
            " alike"
        )
    cup = blade.left_deg + blade.right_deg
    if blade.nose_deg * cup < 0:
        found.append("the nose bends the same way as the cup: bend it against the cup")
    if cup == 0 and blade.nose_deg != 0:
        found.append("without a cup it planes and spins: cup both edges")
    return tuple(found)

"""Sheet-metal attractor blades: a strip with a nose bend, a cup to each side and holes for snaps."""

from dataclasses import dataclass
from math import pi, radians, tan
from typing import Annotated

from annotated_types import Len, MaxLen

from lamsik.core.errors import require, rule
from lamsik.core.findings import Finding, finding
from lamsik.core.limits import Between, Key, Name, OneOf, held
from lamsik.core.materials import METALS
from lamsik.core.shapes.sources import MOST_NOTE, OWN, SAYS, Source

FREE, RESTRICTED, TEARS = "free", "restricted", "tears out"
K_FACTOR = 0.42
"""Where the neutral line lies in the thickness of soft sheet bent by hand (0.33 sharp to 0.5 wide)."""

SNAPS = ("front", "rear")


@dataclass(frozen=True)
class SnapRules:
    """What a blade is held to, a shop's rules of thumb.

    Args:
        free_ratio: a snap swings freely in a hole of at least so many times its wire.
        edge_share, edge_mm: metal between hole and edge, less than so many thicknesses or so much tears out.
        uneven_deg: cups that differ by more run to one side.
    """

    free_ratio: float = 1.5
    edge_share: float = 1.5
    edge_mm: float = 0.8
    uneven_deg: float = 1.0


USUAL_RULES = SnapRules()


@dataclass(frozen=True)
class SnapHole:
    """A hole for a snap: centre from the strip's own end along it, diameter, the snap's wire and the room
    in its bow, all [mm].
    """

    key: Key
    edge_mm: Annotated[float, Between(0.5, 40, "mm", "its centre from the strip's end")]
    diameter_mm: Annotated[float, Between(0.5, 20, "mm")]
    wire_mm: Annotated[float, Between(0.2, 5, "mm", "wire of the snap")]
    bow_mm: Annotated[float, Between(0.5, 40, "mm", "room in the snap's bow")]

    def __post_init__(self) -> None:
        held(self, f"{self.key} hole ")


Bend = Annotated[float, Between(-90, 90, "°")]


@dataclass(frozen=True)
class Blade:
    """A blade as bent: legs along the outside to the nose bend, strip width and thickness [mm], bends [°].

    `nose_deg` turns the nose up; a cup turns its edge down (`left_deg`, `right_deg`, over `cup_mm` from each
    edge). Negative angles turn the other way.
    """

    name: Name
    metal: Annotated[str, OneOf(tuple(METALS))]
    nose_mm: Annotated[float, Between(3, 200, "mm")]
    rear_mm: Annotated[float, Between(3, 300, "mm")]
    width_mm: Annotated[float, Between(2, 100, "mm")]
    thickness_mm: Annotated[float, Between(0.2, 4, "mm")]
    nose_deg: Bend
    radius_mm: Annotated[float, Between(0, 20, "mm", "inside radius of the bend")]
    cup_mm: Annotated[float, Between(0, 40, "mm")]
    left_deg: Bend
    right_deg: Bend
    holes: Annotated[tuple[SnapHole, ...], Len(len(SNAPS), len(SNAPS))]
    source: Annotated[str, OneOf(tuple(SAYS))] = OWN
    source_note: Annotated[str, MaxLen(MOST_NOTE)] = ""

    def __post_init__(self) -> None:
        require(bool(self.name.strip()), "name", self.name, rule("give-blade"))
        Source(self.source, self.source_note)
        held(self)
        require(
            2 * self.cup_mm < self.width_mm,
            "cup_mm",
            self.cup_mm,
            rule("less-half", value=self.width_mm / 2),
        )
        for hole in self.holes:
            require(
                hole.diameter_mm < self.width_mm,
                f"{hole.key} hole",
                hole.diameter_mm,
                rule("narrower-strip", width_mm=self.width_mm),
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
    why: Finding


def swing(blade: Blade, hole: SnapHole, rules: SnapRules = USUAL_RULES) -> Swing:
    """The verdict on one hole: metal left at the edge, room round the wire, edge within the snap's bow."""
    left = hole.edge_mm - hole.diameter_mm / 2
    least = max(rules.edge_share * blade.thickness_mm, rules.edge_mm)
    if left < least - 1e-9:
        return Swing(
            TEARS,
            finding("snap-tears-out", left=left, least=least),
        )
    if hole.diameter_mm < rules.free_ratio * hole.wire_mm - 1e-9:
        return Swing(
            RESTRICTED,
            finding(
                "snap-hole-small",
                diameter=hole.diameter_mm / hole.wire_mm,
                free_ratio=rules.free_ratio * hole.wire_mm,
            ),
        )
    if left > hole.bow_mm + 1e-9:
        return Swing(
            RESTRICTED,
            finding("snap-bow-small", left=left, bow=hole.bow_mm),
        )
    return Swing(
        FREE,
        finding("snap-free", left=left, diameter=hole.diameter_mm / hole.wire_mm),
    )


def remarks(blade: Blade, rules: SnapRules = USUAL_RULES) -> tuple[Finding, ...]:
    """What will make it run badly, in words."""
    remarked = []
    if abs(blade.left_deg - blade.right_deg) > rules.uneven_deg:
        remarked.append(finding("cups-uneven", left=blade.left_deg, right=blade.right_deg))
    cup = blade.left_deg + blade.right_deg
    if blade.nose_deg * cup < 0:
        remarked.append(finding("nose-bends-with-cup"))
    if cup == 0 and blade.nose_deg != 0:
        remarked.append(finding("no-cup"))
    return tuple(remarked)

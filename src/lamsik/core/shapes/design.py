"""A design: one body with its material, hardware, ballast, coats, water and wanted behaviour."""

from dataclasses import dataclass, field

from lamsik.core.errors import finite_between, require
from lamsik.core.paints.coats import Coat
from lamsik.core.shapes.ballast_holes import Hole
from lamsik.core.shapes.body import Body
from lamsik.core.shapes.hardware import Lip, Placement
from lamsik.core.water import Water

CONSTRUCTIONS = ("wood", "foam", "cast", "print")


@dataclass(frozen=True)
class Host:
    """What the body is made of: density and one-sigma spread [g/cm³], and where the figure is from."""

    name: str
    density_g_cm3: float
    spread_g_cm3: float
    construction: str = "wood"
    source: str = "table"

    def __post_init__(self) -> None:
        finite_between("material.density_g_cm3", self.density_g_cm3, 0.02, 9.0, "g/cm³")
        finite_between("material.spread_g_cm3", self.spread_g_cm3, 0.0, 2.0, "g/cm³")
        require(self.construction in CONSTRUCTIONS, "material.construction", self.construction, f"one of {', '.join(CONSTRUCTIONS)}")


@dataclass(frozen=True)
class Want:
    """The wanted behaviour: rising (+) or sinking (−) speed [cm/s] and pitch [°], nose up positive."""

    behaviour: str = "slow rise"
    speed_cm_s: float = 6.0
    pitch_deg: float = 0.0

    def __post_init__(self) -> None:
        finite_between("want.speed_cm_s", self.speed_cm_s, -60.0, 60.0, "cm/s")
        finite_between("want.pitch_deg", self.pitch_deg, -80.0, 80.0, "°")


@dataclass(frozen=True)
class Design:
    """Everything the Tank needs to know about one bait or float."""

    name: str
    form: str
    purpose: str
    body: Body
    host: Host
    hardware: tuple[Placement, ...] = ()
    lip: Lip | None = None
    ballast: tuple[Hole, ...] = ()
    coats: tuple[Coat, ...] = ()
    scheme: str = ""
    glue_g: float = 0.0
    water: Water = field(default_factory=Water)
    want: Want = field(default_factory=Want)

    def __post_init__(self) -> None:
        require(bool(self.name.strip()), "name", self.name, "give the design a name")
        finite_between("glue_g", self.glue_g, 0.0, 50.0, "g")
        for group, keys in (
            ("hardware", [p.key for p in self.hardware]),
            ("ballast", [h.key for h in self.ballast]),
            ("coats", [c.key for c in self.coats]),
        ):
            require(len(set(keys)) == len(keys), f"{group}.key", keys, "each key once")
        for hole in self.ballast:
            require(hole.x_mm <= self.body.length_mm, f"ballast.{hole.key}.x_mm", hole.x_mm, f"allowed is 0 to {self.body.length_mm:g} mm")

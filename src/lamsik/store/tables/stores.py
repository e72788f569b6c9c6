"""What the shop has: waters, hardware, slugs, drills."""

from sqlmodel import Field

from lamsik.store.tables.shared import Typed


class ShopWater(Typed, table=True):
    """A named water of the shop."""

    __tablename__ = "water"

    id: int | None = Field(default=None, primary_key=True)
    name: str = Field(unique=True)
    temperature_c: float
    salinity_psu: float = 0.0
    measured_g_cm3: float | None = None


class Hardware(Typed, table=True):
    """A catalogue part; lips carry a plate's size instead of a mass.

    `pack_count` is how many come in a pack, `weighed_count` how many lay on the scale together when it was
    weighed.
    """

    id: int | None = Field(default=None, primary_key=True)
    code: str = Field(unique=True)
    name: str
    kind: str
    mass_g: float = 0.0
    density_g_cm3: float = 7.85
    outside_share: float = 1.0
    reach_mm: float = 0.0
    weighed: bool = False
    width_mm: float | None = None
    length_mm: float | None = None
    thickness_mm: float | None = None
    angle_deg: float | None = None
    material: str = "steel"
    wire_mm: float = 0.0
    shank_mm: float = 0.0
    bore_mm: float = 0.0
    outline: str = "round"
    pack_count: int = 0
    weighed_count: int = 0


class SlugStock(Typed, table=True):
    """Ballast metal at hand."""

    id: int | None = Field(default=None, primary_key=True)
    code: str = Field(unique=True)
    name: str
    form: str
    metal: str
    density_g_cm3: float
    diameter_mm: float


class Drill(Typed, table=True):
    """A drill size on the bench [mm]."""

    id: int | None = Field(default=None, primary_key=True)
    diameter_mm: float = Field(unique=True)

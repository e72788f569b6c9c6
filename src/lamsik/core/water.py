"""Water: density by temperature and salinity (TEOS-10), or as measured."""

from dataclasses import dataclass
from functools import lru_cache
from math import hypot
from typing import Annotated

import gsw

from lamsik.core.limits import Between, Name, held
from lamsik.core.quantities import plainly, said

TEMPERATURE_SD_C, SALINITY_SD_SHARE, MEASURED_SD_G_CM3 = 0.5, 0.02, 0.00025
"""How far a water may be from what is said of it, one sigma: its temperature [°C], its salinity [share], a
density read off a hydrometer [g/cm³].
"""


@dataclass(frozen=True)
class Water:
    """A water by temperature [°C] and practical salinity, or by a measured density [g/cm³].

    `salinity_psu` is practical salinity, never absolute: near 35 the two differ by enough
    to move a near-neutral 75 g object by 0.01 g.
    """

    name: Name = "fresh water"
    temperature_c: Annotated[float, Between(-2, 40, "°C", "temperature")] = 12.0
    salinity_psu: Annotated[float, Between(0, 42, "PSU", "practical salinity")] = 0.0
    measured_g_cm3: Annotated[float, Between(0.95, 1.25, "g/cm³", "measured density")] | None = None

    def __post_init__(self) -> None:
        held(self)

    @property
    def density_g_cm3(self) -> float:
        """Density [g/cm³] at the surface."""
        if self.measured_g_cm3 is not None:
            return self.measured_g_cm3
        return density(self.temperature_c, self.salinity_psu)

    @property
    def spread_g_cm3(self) -> float:
        """How far its density may be off [g/cm³], one sigma: by its temperature and salinity, or as it was
        measured.
        """
        if self.measured_g_cm3 is not None:
            return MEASURED_SD_G_CM3
        warmer = (
            density(min(self.temperature_c + TEMPERATURE_SD_C, 40.0), self.salinity_psu) - self.density_g_cm3
        )
        saltier = (
            density(self.temperature_c, self.salinity_psu * (1 + SALINITY_SD_SHARE)) - self.density_g_cm3
        )
        return hypot(warmer, saltier)

    def describe(self) -> str:
        """The water in words, with its temperature: `12 °C fresh water`, `Holm mere at 14 °C`; one that
        was only measured by its density.
        """
        if self.measured_g_cm3 is not None and self.name == Water.name:
            return f"water of {said(self.measured_g_cm3, 'density', 4)}"
        if self.name[:1].isupper():
            return f"{self.name} at {plainly(self.temperature_c, 'temperature')}"
        return f"{plainly(self.temperature_c, 'temperature')} {self.name}"


SEA = Water("sea water", 10.0, 35.0)
"""The sea where a shop has no water of its own."""


@lru_cache(maxsize=256)
def density(temperature_c: float, salinity_psu: float) -> float:
    """Density of water [g/cm³] at the surface.

    Args:
        temperature_c: in-situ temperature [°C].
        salinity_psu: practical salinity [PSU]; taken to reference-composition absolute
            salinity, since a pond has no position on the ocean's anomaly atlas.

    Reference: IOC, SCOR and IAPSO (2010), TEOS-10, the 75-term expression as in gsw.
    """
    absolute = gsw.SR_from_SP(salinity_psu)
    conservative = gsw.CT_from_t(absolute, temperature_c, 0.0)
    return float(gsw.rho(absolute, conservative, 0.0)) / 1000.0

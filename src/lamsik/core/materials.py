"""What bodies, ballast and hardware are made of: densities to start from, never constants.

Typical trade ranges; a weighed stick or a weighed blank beats any row here.
"""

from dataclasses import dataclass

from lamsik.core.errors import Refused, rule


@dataclass(frozen=True)
class Material:
    """A material: density and its one-sigma spread between sticks or batches, both [g/cm³]."""

    name: str
    density_g_cm3: float
    spread_g_cm3: float
    kind: str


def _row(name: str, low: float, high: float, kind: str, typical: float | None = None) -> Material:
    # A quoted range is read as about two sigma either side.
    return Material(name, typical or round((low + high) / 2, 3), round((high - low) / 4, 4), kind)


BODY_MATERIALS: dict[str, Material] = {
    row.name: row
    for row in (
        _row("balsa", 0.08, 0.22, "wood", 0.16),
        _row("paulownia", 0.25, 0.32, "wood"),
        _row("red cedar", 0.32, 0.40, "wood"),
        _row("basswood", 0.38, 0.55, "wood", 0.42),
        _row("poplar", 0.40, 0.50, "wood"),
        _row("jelutong", 0.42, 0.48, "wood"),
        _row("maple", 0.65, 0.75, "wood"),
        _row("beech", 0.65, 0.75, "wood"),
        _row("bamboo", 0.60, 0.80, "wood"),
        _row("foam board", 0.20, 0.60, "foam"),
        _row("rigid foam", 0.06, 0.50, "foam", 0.25),
        _row("cast urethane", 1.03, 1.10, "cast"),
        _row("filled urethane", 0.60, 1.00, "cast", 0.80),
        _row("printed resin", 1.10, 1.20, "print"),
        _row("printed PLA", 1.22, 1.26, "print"),
    )
}
"""Body materials by name, as the makers call them."""

USUAL_WOOD, FLOAT_WOOD = "basswood", "balsa"
"""What a bait and a float are begun in where nobody says otherwise."""

FLOAT_WOODS = ("balsa", "paulownia", "red cedar", "basswood")
"""Woods a float is turned of."""
LIGHT_BELOW_G_CM3 = 0.3
FILLINGS = tuple(
    name
    for name, row in BODY_MATERIALS.items()
    if row.kind == "foam" or row.density_g_cm3 < LIGHT_BELOW_G_CM3
)
"""What a hollow body can be filled with beside air."""

METALS: dict[str, float] = {
    "lead": 11.34,
    "tungsten": 18.0,
    "tin": 7.3,
    "bismuth": 9.8,
    "steel": 7.85,
    "brass": 8.5,
    "copper": 8.96,
    "aluminium": 2.70,
}
"""Density of ballast and hardware metals [g/cm³]; tungsten beads run 17 to 19 by alloy."""

PART_MATERIALS: dict[str, float] = {**METALS, "plastic": 0.95, "acrylic": 1.19, "glass": 2.2, "silicone": 1.1}
"""Density of what bought parts are made of [g/cm³]."""

PLATES: dict[str, float] = {"polycarbonate": 1.20, "circuit board": 1.85, "steel": 7.85}
"""Density of lip plates [g/cm³]."""

EPOXY_FILLER_G_CM3 = 1.15
"""Cured epoxy that covers a slug [g/cm³]; thickened epoxies run 1.1 to 1.2."""


def body_material(name: str) -> Material:
    """The body material of that name. Raises `Refused` with the names there are."""
    if name not in BODY_MATERIALS:
        raise Refused("material", name, rule("known", listed=", ".join(BODY_MATERIALS)))
    return BODY_MATERIALS[name]

"""How much wider than its insert a hole is drilled, by what goes in and what it goes into: the shop's own
table.

Negative is a pilot hole, smaller than the screw. An insert is tight in soft wood and needs room in metal and
hard plastic.
"""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from lamsik.core.errors import finite_between
from lamsik.core.shapes.design import Design, Host
from lamsik.core.shapes.hardware import Item

INSERTS = ("screw", "wire", "tube", "slug", "plate", "stem")
HOSTS = ("soft wood", "hard wood", "foam", "cast", "print")
SOFT_BELOW_G_CM3 = 0.5

START_MM: dict[tuple[str, str], float] = {
    ("screw", "soft wood"): -0.2,
    ("screw", "hard wood"): -0.1,
    ("screw", "foam"): 0.0,
    ("screw", "cast"): 0.1,
    ("screw", "print"): 0.1,
    ("wire", "soft wood"): 0.2,
    ("wire", "hard wood"): 0.3,
    ("wire", "foam"): 0.0,
    ("wire", "cast"): 0.4,
    ("wire", "print"): 0.4,
    ("tube", "soft wood"): 0.0,
    ("tube", "hard wood"): 0.1,
    ("tube", "foam"): 0.0,
    ("tube", "cast"): 0.2,
    ("tube", "print"): 0.3,
    ("slug", "soft wood"): 0.0,
    ("slug", "hard wood"): 0.1,
    ("slug", "foam"): 0.0,
    ("slug", "cast"): 0.2,
    ("slug", "print"): 0.3,
    ("plate", "soft wood"): 0.0,
    ("plate", "hard wood"): 0.1,
    ("plate", "foam"): 0.0,
    ("plate", "cast"): 0.2,
    ("plate", "print"): 0.2,
    ("stem", "soft wood"): 0.1,
    ("stem", "hard wood"): 0.1,
    ("stem", "foam"): 0.1,
    ("stem", "cast"): 0.1,
    ("stem", "print"): 0.1,
}
"""What a new shop starts with [mm on the diameter or thickness]."""

MOST_MM = 3.0


def host_class(host: Host) -> str:
    """Soft or hard wood by its density, else how it is made."""
    if host.construction == "wood":
        return "soft wood" if host.density_g_cm3 < SOFT_BELOW_G_CM3 else "hard wood"
    return "cast" if host.construction == "soft" else host.construction


@dataclass(frozen=True)
class Clearances:
    """The shop's table: clearance [mm] by (insert, host); what is not in it is as a new shop starts."""

    own: tuple[tuple[str, float], ...] = ()

    def of(self, insert: str, host: Host) -> float:
        """Clearance [mm] of an insert in a host."""
        return self.at(insert, host_class(host))

    def at(self, insert: str, host: str) -> float:
        """Clearance [mm] of one cell."""
        return dict(self.own).get(f"{insert}|{host}", START_MM[insert, host])


def clearances(rows: Mapping[str, float]) -> Clearances:
    """The table of a shop's rows `screw|foam` → mm. Raises `Refused` for a figure beyond ±3 mm."""
    return Clearances(
        tuple(
            (key, finite_between(f"clearance {key.replace('|', ' in ')}", value, -MOST_MM, MOST_MM, "mm"))
            for key, value in sorted(rows.items())
        )
    )


def drill_for(size_mm: float, clearance_mm: float, drills: Sequence[float]) -> float:
    """The drill for an insert [mm]: the next at hand that leaves the clearance; for a pilot the next smaller
    one.

    Where no drill at hand fits, the wanted diameter itself.
    """
    wanted = size_mm + clearance_mm
    if clearance_mm < 0:
        return max((d for d in drills if d <= wanted + 1e-9 and d > 0.6 * wanted), default=round(wanted, 2))
    return min((d for d in drills if d >= wanted - 1e-9 and d < wanted + 0.6), default=round(wanted, 2))


def pilot_mm(design: Design, item: Item, table: Clearances, drills: Sequence[float]) -> float | None:
    """The drill for a part's own hole [mm]; None for parts that need none."""
    insert = item.of.insert
    if not insert or item.wire_mm <= 0:
        return None
    return drill_for(item.wire_mm, table.of(insert, design.host), drills)

"""One design in several sizes and materials: what each would be, before any is cut."""

from collections.abc import Sequence
from dataclasses import dataclass, replace

from lamsik.core.errors import finite_between, require, rule
from lamsik.core.materials import body_material
from lamsik.core.shapes.design import Design, host_of
from lamsik.core.shapes.scaling import scaled

MOST_LENGTHS, MOST_MATERIALS = 8, 6
FIRST_SIZES = (0.8, 1.0, 1.25)
"""Lengths of a family to begin with, of the design's own."""


@dataclass(frozen=True)
class Member:
    """One of a family: its mark, length [mm], material, and the design scaled to it; hardware is still the
    first one's.
    """

    key: str
    length_mm: float
    material: str
    design: Design


def mark(length_mm: float, material: str) -> str:
    """What a member is called in the list of those left out: `90|balsa`."""
    return f"{length_mm:g}|{material}"


def members(design: Design, lengths_mm: Sequence[float], materials: Sequence[str]) -> tuple[Member, ...]:
    """Every length in every material, by length. Raises `Refused` for too many, or one that cannot be."""
    require(
        1 <= len(lengths_mm) <= MOST_LENGTHS,
        "lengths",
        len(lengths_mm),
        rule("lengths", most_lengths=MOST_LENGTHS),
    )
    require(
        1 <= len(materials) <= MOST_MATERIALS,
        "materials",
        len(materials),
        rule("materials", most_materials=MOST_MATERIALS),
    )
    enlarged = []
    for length in sorted(set(lengths_mm)):
        finite_between("lengths", length, 10.0, 600.0, "mm")
        grown = scaled(design, length / design.body.length_mm)
        for name in dict.fromkeys(materials):
            wood = body_material(name)
            host = design.host if name == design.host.name else host_of(wood)
            enlarged.append(Member(mark(length, name), length, name, replace(grown, host=host)))
    return tuple(enlarged)

"""A piece born of a pour: its design as it was really cast, not as its original was carved."""

from dataclasses import dataclass, replace

from lamsik.core.castings.inserts import of_design
from lamsik.core.paints.roles import SEALS
from lamsik.core.shapes.design import Design, Host

SOFT, CAST, FOAMED = "soft", "cast", "foam"
CONSTRUCTION = {"plastisol": SOFT, "foam": FOAMED}
"""How a product's kind makes a body; everything else is cast hard."""

SPREAD = 0.03
"""How far the density of a casting may be off, one sigma [share]: weighing, bubbles, temperature."""


@dataclass(frozen=True)
class Born:
    """How it was cast: the product's name and kind, the casting's own density [g/cm³], whether its inserts
    were cast in, and of two pours from the middle of its volume to its centre of mass [mm].
    """

    product: str
    kind: str
    density_g_cm3: float
    inserts: bool = True
    uneven_mm: tuple[float, float, float] | None = None


def as_cast(design: Design, born: Born) -> Design:
    """The design with the material it was cast in, and only what that kind of body has.

    Slugs cast in lie in the casting's own material; nothing hard is sealed against water, and soft plastic
    takes neither paint, lip nor glue, and no hardware that was not cast in.
    """
    construction = CONSTRUCTION.get(born.kind, CAST)
    host = Host(
        born.product,
        born.density_g_cm3,
        SPREAD * born.density_g_cm3,
        construction,
        "poured",
        uneven_mm=born.uneven_mm,
    )
    layers = () if construction == SOFT else tuple(one for one in design.layers if one.does != SEALS)
    slugs = tuple(
        (
            replace(hole, drill_mm=hole.slug.diameter_mm, filler_g_cm3=born.density_g_cm3)
            if born.inserts
            else hole
        )
        for hole in design.ballast
    )
    changed = replace(design, host=host, layers=layers, ballast=slugs, segment_hosts=(), shell=None, pours=())
    if construction != SOFT:
        return changed
    kept = {insert.key for insert in of_design(design)} if born.inserts else set()
    hardware = tuple(
        placed
        for placed in design.hardware
        if placed.key in kept and placed.seat != "lip" and placed.hung_on is None
    )
    return replace(
        changed,
        lip=None,
        glue_g=0.0,
        hardware=hardware,
        ballast=slugs if born.inserts else (),
        cavities=(),
        trials=(),
        allowances=(),
    )

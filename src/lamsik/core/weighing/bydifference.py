"""A float weighed by difference: a sinker under water alone, then with the float pulled down to each of
its marks.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from math import hypot

from lamsik.core.errors import Allowed, Refused, finite_between, require, rule
from lamsik.core.water import Water
from lamsik.core.weighing.inwater import converted_lift

MARKS = ("shoulder", "scale mark", "tip", "wholly under")
"""Marks makers name; a float may have its own."""


@dataclass(frozen=True)
class Capacity:
    """What a float carries to a mark: in the water measured [g], in the one wanted [g] (None where it
    cannot be converted), one-sigma [g].
    """

    mark: str
    measured_g: float
    wanted_g: float | None
    sd_g: float


def capacities(
    sinker_g: float,
    readings: Sequence[tuple[str, float]],
    measured: Water,
    wanted: Water,
    own_air_g: float | None,
    sd_g: float = 0.0,
) -> tuple[tuple[Capacity, ...], Allowed]:
    """The carrying capacity at every mark, and why there is no conversion where there is none.

    Args:
        sinker_g: the sinker's mass in water alone [g].
        readings: marks from the lowest up, each with the scale's reading with the float pulled down to it
            [g].
        measured: the water it was done in.
        wanted: the water it shall be used in.
        own_air_g: the float's own mass in air [g], None if not weighed.
        sd_g: one-sigma of one reading [g].

    Raises:
        Refused: no mark, a mark twice, a reading above the sinker's own, or capacities that fall from a lower
            mark to a higher.

    Notes: C = sinker − reading, as the float pulls up with what it carries.
    """
    finite_between("sinker_in_water", sinker_g, 0.001, 1e5, "g")
    require(bool(readings), "marks", 0, rule("weigh-down"))
    names = [name for name, _ in readings]
    require(len(set(names)) == len(names), "marks", ", ".join(names), rule("each-mark"))
    rows, before = [], None
    why: Allowed = ""
    for name, reading in readings:
        finite_between(name, reading, 0.0, 1e5, "g")
        carried = sinker_g - reading
        if carried < 0:
            raise Refused(name, reading, rule("sinker-own", sinker_g=sinker_g))
        if before is not None and carried < before[1] - 2 * sd_g - 1e-9:
            raise Refused(
                name,
                reading,
                rule("pulled-further", called=name, carried=carried, value=before[0], value2=before[1]),
            )
        before = (name, carried)
        try:
            other: float | None = converted_lift(carried, own_air_g, measured, wanted)
        except Refused as refused:
            other, why = None, refused.allowed
        rows.append(Capacity(name, carried, other, hypot(sd_g, sd_g)))
    return tuple(rows), why

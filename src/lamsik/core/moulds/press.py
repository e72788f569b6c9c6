"""Press moulds: what the over-filled half pushes out, and whether wells and the gap at the walls take it."""

from dataclasses import dataclass

from lamsik.core.errors import finite_between
from lamsik.core.findings import Finding, finding
from lamsik.core.moulds.layout import Mould, box, cavity_ml

SKIN_MM = 0.3
"""The film that stays between pressed halves [mm]; thinner under boards."""


@dataclass(frozen=True)
class Pressed:
    """What is filled in, what closing pushes out, what wells and the film between the halves take, what
    then runs over the walls [ml].
    """

    filled_ml: float
    excess_ml: float
    wells_ml: float
    film_ml: float

    @property
    def missing_ml(self) -> float:
        """Room that is missing [ml]; 0 where all of it is taken."""
        return max(self.excess_ml - self.wells_ml - self.film_ml, 0.0)

    @property
    def says(self) -> Finding:
        """In words."""
        if self.excess_ml <= 0:
            return finding("press-not-over-filled")
        taken = self.wells_ml + self.film_ml
        if self.missing_ml > 0:
            return finding(
                "press-runs-over",
                excess=self.excess_ml,
                wells=self.wells_ml + self.film_ml,
                missing=self.missing_ml,
            )
        return finding("press-wells-take", excess=self.excess_ml, wells=taken)


def pressed(mould: Mould, film_mm: float = SKIN_MM) -> Pressed:
    """A press mould closed over its over-filled half; boards keep the film to a third."""
    finite_between("film_mm", film_mm, 0.0, 5.0, "mm")
    each, count = cavity_ml(mould), len(mould.cavities)
    film = box(mould).area_mm2 * film_mm * (1 / 3 if mould.boards else 1.0) / 1000.0
    return Pressed(
        each * count + mould.overfill_ml,
        mould.overfill_ml,
        sum(well.volume_mm3 for well in mould.wells) / 1000.0,
        film,
    )

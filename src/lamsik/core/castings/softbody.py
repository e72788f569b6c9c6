"""A soft body over a hook: how much of the point stands out when a fish bites."""

from dataclasses import dataclass

from lamsik.core.errors import finite_between
from lamsik.core.findings import Finding, finding


@dataclass(frozen=True)
class Exposed:
    """Millimetres of point that stand out: at rest and squeezed (below 0 it stays covered)."""

    rest_mm: float
    squeezed_mm: float

    @property
    def says(self) -> Finding:
        """In words."""
        if self.squeezed_mm <= 0:
            return finding("point-stays-under", under=-self.squeezed_mm)
        return finding("point-shows" if self.rest_mm > 0 else "point-covered", squeezed=self.squeezed_mm)


def exposed(gap_mm: float, thickness_mm: float, squeeze: float) -> Exposed:
    """A hook of this gap through a body so thick there [mm] that is squeezed by a share: gap − t(1 − s)."""
    gap = finite_between("gap_mm", gap_mm, 1.0, 80.0, "mm")
    thick = finite_between("thickness_mm", thickness_mm, 0.5, 80.0, "mm")
    s = finite_between("squeeze", squeeze, 0.0, 0.95)
    return Exposed(gap - thick, gap - thick * (1.0 - s))

"""A recipe as what is weighed out or dropped: its parts by volume, and what of it stays when it dries."""

from collections.abc import Sequence
from dataclasses import dataclass

from lamsik.core.errors import require, rule
from lamsik.core.mixes.product import VOLUME, MixPart, Product
from lamsik.core.paints.shelf import ShelfPaint

TOLERANCE_PERCENT = 10.0
"""How far a paint may be off its share: a drop of ten."""
NAME_MOST, CODED_MOST = 120, 40


@dataclass(frozen=True)
class Dropped:
    """A paint that goes into a mix, by drops."""

    code: str
    paint: ShelfPaint
    drops: int

    @property
    def called(self) -> str:
        """Its name in the guide: no two of a mix are called alike."""
        return f"{self.paint.name[:CODED_MOST]} {self.code}"

    @property
    def ml(self) -> float:
        """What its drops are [ml]."""
        return self.drops * self.paint.drop_ml

    @property
    def grams(self) -> float:
        """What its drops weigh [g]."""
        return self.drops * drop_g(self.paint)


def drop_g(paint: ShelfPaint) -> float:
    """What one drop of a paint weighs [g]."""
    return paint.drop_ml * paint.wet_g_cm3


def as_product(name: str, parts: Sequence[Dropped]) -> Product:
    """The recipe as a product that is mixed by volume. Raises `Refused` where nothing goes in."""
    counted = [one for one in parts if one.drops > 0]
    require(bool(counted), "drops", 0, rule("a-drop"))
    rows = tuple(MixPart(one.called, one.ml, one.paint.wet_g_cm3, one.code) for one in counted)
    first = next((one.paint.caution for one in counted if one.paint.caution), "")
    return Product(
        name[:NAME_MOST], "other", VOLUME, rows, tolerance_percent=TOLERANCE_PERCENT, caution=first
    )


def dry_share(parts: Sequence[Dropped]) -> float:
    """What of a gram of the mix stays when it dries: Σ vᵢ·solidsᵢ·ρ_dry / Σ vᵢ·ρ_wet."""
    dry = sum(one.ml * one.paint.solids_percent / 100.0 * one.paint.density_g_cm3 for one in parts)
    return dry / sum(one.grams for one in parts)

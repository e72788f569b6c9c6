"""Pours in layers: face, bulk, cap, each mixed by itself, each waiting until the one before has gelled."""

from collections.abc import Sequence
from dataclasses import dataclass

from lamsik.core.errors import require, rule
from lamsik.core.mixes.amount import WeighedMix, weighed_out
from lamsik.core.mixes.clocks import at_temperature
from lamsik.core.mixes.product import Product
from lamsik.core.quantities import plainly, said

ADDS_UP = 0.01
USUAL = (("face", 0.15), ("bulk", 0.70), ("cap", 0.15))


@dataclass(frozen=True)
class PouredLayer:
    """A layer: its name, its portions, and when it can be poured after the first [min]."""

    name: str
    weighed: WeighedMix
    after_min: float


def layered(
    product: Product, total_g: float, shares: Sequence[tuple[str, float]], step_g: float, at_c: float
) -> tuple[PouredLayer, ...]:
    """The batch in layers of these shares.

    Raises:
        Refused: shares that do not add up to 1 within 1 %, or a scale too coarse for so small layers to add
            up within 1 %.
    """
    total = sum(share for _, share in shares)
    require(
        abs(total - 1.0) <= ADDS_UP and all(share > 0 for _, share in shares),
        "layers",
        said(100 * total, "percent"),
        rule("layers-add"),
    )
    wait = at_temperature(product.gel_min, product.reference_c, at_c)
    rows = tuple(
        PouredLayer(name, weighed_out(product, total_g * share / total, step_g), n * wait)
        for n, (name, share) in enumerate(shares)
    )
    summed = sum(row.weighed.total_g for row in rows)
    require(
        abs(summed / total_g - 1) <= ADDS_UP,
        "step_g",
        plainly(step_g, "mass"),
        rule("rounded-layers", summed=summed, total_g=total_g),
    )
    return rows

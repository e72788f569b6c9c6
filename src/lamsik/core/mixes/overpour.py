"""Weighed something other than planned: what of the other parts puts it right, or that it is out of tolerance."""

from collections.abc import Sequence
from dataclasses import dataclass

from lamsik.core.errors import finite_between, require
from lamsik.core.mixes.amount import ratio_error, rounded
from lamsik.core.mixes.product import Product, mass_shares


@dataclass(frozen=True)
class Remedy:
    """Where a batch stands: error of the ratio now [%], what to add of each part [g], the total that gives [g], in words."""

    error_percent: float
    within: bool
    add_g: tuple[float, ...]
    total_g: float
    says: str


def put_right(product: Product, grams: Sequence[float], step_g: float, left_g: Sequence[float | None] = ()) -> Remedy:
    """What puts a batch right whose parts weigh `grams` so far (0: not poured yet).

    Args:
        product: whose ratio and tolerance hold.
        grams: what is in the cup of each part [g].
        step_g: the scale's step [g].
        left_g: what is left in each part's tub [g]; None where that is not known.

    Notes: the part furthest over its share sets the batch: T = max(mᵢ/wᵢ); the others are filled up to wᵢT. Nothing is taken out.
    """
    require(len(grams) == len(product.parts), "grams", len(grams), f"one for each of {len(product.parts)} parts")
    shares = mass_shares(product)
    values = [finite_between(part.name, g, 0.0, 200_000.0, "g") for part, g in zip(product.parts, grams, strict=True)]
    require(sum(values) > 0, "grams", list(grams), "nothing was weighed yet")
    lead = max(range(len(values)), key=lambda i: values[i] / shares[i])
    total = values[lead] / shares[lead]
    add = tuple(max(rounded(share * total - value, step_g), 0.0) for share, value in zip(shares, values, strict=True))
    error, all_in = ratio_error(product, values), all(value > 0 for value in values)
    within = all_in and error <= product.tolerance_percent
    if within:
        return Remedy(error, True, add, total, f"Off by {error:.1f} %, within the {product.tolerance_percent:g} % it allows: mix it as it is.")
    short = [part.name for part, more, left in zip(product.parts, add, left_g, strict=False) if left is not None and more > left]
    words = ", ".join(f"{more:.{digits(step_g)}f} g more {part.name}" for part, more in zip(product.parts, add, strict=True) if more > 0)
    if short:
        return Remedy(error, False, add, total, f"Out of tolerance: {words} would be needed and the tub of {', '.join(short)} has not so much. Do not pour it.")
    return Remedy(error, False, add, total, f"{words[0].upper() + words[1:]} puts it right: {total:.{digits(step_g)}f} g in all." if words else "It is right.")


def digits(step_g: float) -> int:
    """Decimals a scale of this step shows."""
    return next((n for n in range(5) if step_g >= 10.0**-n - 1e-12), 4)

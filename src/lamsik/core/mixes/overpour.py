"""Grams something other than planned: what of the other parts puts it right, or that it is out of
tolerance.
"""

from collections.abc import Sequence
from dataclasses import dataclass

from lamsik.core.errors import finite_between, require, rule
from lamsik.core.findings import Finding, Grams, finding
from lamsik.core.mixes.amount import ratio_error, rounded
from lamsik.core.mixes.product import Product, mass_shares


@dataclass(frozen=True)
class Remedy:
    """Where a batch stands: error of the ratio now [%], what to add of each part [g], the total that gives
    [g] and how far that is over its plan [%].
    """

    error_percent: float
    within: bool
    add_g: tuple[float, ...]
    total_g: float
    over_percent: float
    says: Finding


def put_right(
    product: Product,
    grams: Sequence[float],
    step_g: float,
    left_g: Sequence[float | None] = (),
    planned_g: float | None = None,
) -> Remedy:
    """What puts a batch right whose parts weigh `grams` so far (0: not poured yet).

    Args:
        product: whose ratio and tolerance hold.
        grams: what is in the cup of each part [g].
        step_g: the scale's step [g].
        left_g: the most that can be had of each part from one tub [g]; None where that is not known.
        planned_g: the whole batch as planned [g]; None: nothing is said about it.

    Notes: the part furthest over its share sets the batch: T = max(mᵢ/wᵢ); the others are filled up to wᵢT.
        Nothing is taken out.
    """
    require(
        len(grams) == len(product.parts), "grams", len(grams), rule("each-parts", count=len(product.parts))
    )
    shares = mass_shares(product)
    values = [
        finite_between(part.name, g, 0.0, 200_000.0, "g")
        for part, g in zip(product.parts, grams, strict=True)
    ]
    require(sum(values) > 0, "grams", list(grams), rule("nothing-was-weighed"))
    lead = max(range(len(values)), key=lambda i: values[i] / shares[i])
    total = values[lead] / shares[lead]
    add = tuple(
        max(rounded(share * total - value, step_g), 0.0) for share, value in zip(shares, values, strict=True)
    )
    error, all_in = ratio_error(product, values), all(value > 0 for value in values)
    within = all_in and error <= product.tolerance_percent
    if within:
        total = sum(values)
    over = 100.0 * (total / planned_g - 1.0) if planned_g else 0.0
    if planned_g and abs(total - planned_g) <= len(values) * step_g:
        over = 0.0  # rounding and the hand's last drop
    if within:
        return Remedy(error, True, add, total, over, _within(product, error, over, total, planned_g, step_g))
    return Remedy(error, False, add, total, over, _put_right(product, add, left_g, step_g, total, over))


def _put_right(
    product: Product,
    add: Sequence[float],
    left_g: Sequence[float | None],
    step_g: float,
    total: float,
    over: float,
) -> Finding:
    """What is to be poured in, or that no tub has so much, or that nothing is."""
    more = tuple(
        finding("more-of-part", more=Grams(grams, digits(step_g)), part=part.name)
        for part, grams in zip(product.parts, add, strict=True)
        if grams > 0
    )
    short = [
        part.name
        for part, grams, left in zip(product.parts, add, left_g, strict=False)
        if left is not None and grams > left + 1e-9
    ]
    if short:
        return finding("no-tub-has-so-much", more=more, short=short)
    if not more:
        return finding("mix-is-right")
    all_in = Grams(total, digits(step_g))
    if over > 0:
        return finding("puts-it-right-over-plan", more=more, total=all_in, over=over)
    return finding("puts-it-right", more=more, total=all_in)


def _within(
    product: Product, error: float, over: float, total: float, planned_g: float | None, step_g: float
) -> Finding:
    """What to do with a batch whose ratio holds."""
    ratio = finding("ratio-within", error=error, tolerance=product.tolerance_percent)
    if not over or planned_g is None:
        return finding("mix-as-it-is", ratio=ratio)
    beside = finding("and-the-ratio", ratio=ratio) if len(product.parts) > 1 else None
    n = digits(step_g)
    return finding(
        "mix-over-plan" if over > 0 else "mix-under-plan",
        off=abs(over),
        total=Grams(total, n),
        planned=Grams(planned_g, n),
        ratio=beside,
    )


def digits(step_g: float) -> int:
    """Decimals a scale of this step shows."""
    return next((n for n in range(5) if step_g >= 10.0**-n - 1e-12), 4)

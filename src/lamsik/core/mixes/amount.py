"""How much to mix: from the job's volume, with the loss learned, split by the ratio and rounded to what
the scale shows.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from math import ceil
from statistics import stdev

from lamsik.core.errors import Refused, finite_between, require, rule
from lamsik.core.learning import SHOP, Learned
from lamsik.core.mixes.product import FOAM, NO_FOAM_DENSITY, Product, liquid_g_cm3, mass_shares
from lamsik.core.quantities import plainly

MOST_LOSS = 1.0


@dataclass(frozen=True)
class MixJob:
    """What a mix is for: net volume and sprue [ml], and the loss as a share of both (cup, stirrer, drips)."""

    net_ml: float
    sprue_ml: float = 0.0
    loss: float = 0.05

    def __post_init__(self) -> None:
        finite_between("net_ml", self.net_ml, 0.0, 100_000.0, "ml")
        finite_between("sprue_ml", self.sprue_ml, 0.0, 100_000.0, "ml")
        finite_between("loss", self.loss, 0.0, MOST_LOSS)
        require(self.net_ml + self.sprue_ml > 0, "net_ml", self.net_ml, rule("say-filled"))

    @property
    def total_ml(self) -> float:
        """To be mixed [ml]."""
        return (self.net_ml + self.sprue_ml) * (1.0 + self.loss)


USUAL_LOSS = 0.05
"""What is lost of a mix in cup and stick while no batch has taught it [share]."""


def learned_loss(pairs: Sequence[tuple[float, float]], default: float = USUAL_LOSS) -> Learned:
    """The loss to plan with from (filled, used) of earlier batches [any one unit each]: Σused/Σfilled − 1,
    held to 0 … 100 %.

    Fewer than three batches are drawn towards the default as if there were three.
    """
    good = [(filled, used) for filled, used in pairs if filled > 0 and used > 0]
    if not good:
        return Learned(default)
    each = [used / filled - 1.0 for filled, used in good]
    seen = sum(used for _, used in good) / sum(filled for filled, _ in good) - 1.0
    weight = min(len(good) / 3.0, 1.0)
    value = min(max(weight * seen + (1 - weight) * default, 0.0), MOST_LOSS)
    return Learned(value, len(good), stdev(each) if len(each) > 1 else None, SHOP)


@dataclass(frozen=True)
class Portion:
    """One part to weigh: exact and as the scale shows it [g], its volume [ml], and s/2m, what rounding can
    err by [share].
    """

    name: str
    exact_g: float
    scale_g: float
    ml: float
    rounding: float


@dataclass(frozen=True)
class WeighedMix:
    """A batch to weigh out: its portions, and the ratio error rounding made [%]."""

    portions: tuple[Portion, ...]
    error_percent: float
    tolerance_percent: float

    @property
    def total_g(self) -> float:
        """As the scale will show [g]."""
        return sum(portion.scale_g for portion in self.portions)

    @property
    def holds(self) -> bool:
        """Whether the rounded ratio is within the product's tolerance."""
        return self.error_percent <= self.tolerance_percent


def rounded(grams: float, step_g: float) -> float:
    """The nearest the scale can show [g]."""
    return round(round(grams / step_g) * step_g, 6)


def ratio_error(product: Product, grams: Sequence[float]) -> float:
    """How far the parts are off the ratio [%]: the greatest |(mᵢ/M)/wᵢ − 1|."""
    total = sum(grams)
    require(total > 0, "grams", list(grams), rule("nothing-was"))
    return 100.0 * max(abs(grams[i] / total / share - 1.0) for i, share in enumerate(mass_shares(product)))


def weighed_out(product: Product, total_g: float, step_g: float) -> WeighedMix:
    """Portions of a batch of `total_g` [g] on a scale of `step_g` [g]. A total T of a:b is T·a/(a+b).

    Raises:
        Refused: so little that a part rounds to nothing.
    """
    finite_between("total_g", total_g, 0.001, 200_000.0, "g")
    finite_between("step_g", step_g, 1e-4, 1000.0, "g")
    rows = []
    for part, share in zip(product.parts, mass_shares(product), strict=True):
        exact = total_g * share
        shown = rounded(exact, step_g)
        require(
            shown > 0,
            "total_g",
            plainly(total_g, "mass"),
            rule("would-less", called=part.name, exact=exact, step_g=step_g),
        )
        rows.append(Portion(part.name, exact, shown, shown / part.density_g_cm3, step_g / (2 * exact)))
    return WeighedMix(
        tuple(rows), ratio_error(product, [row.scale_g for row in rows]), product.tolerance_percent
    )


def least_g(product: Product, step_g: float) -> float:
    """The smallest batch [g] whose rounding cannot leave the tolerance on this scale: s/2m on the smallest
    part, every part rounding against it.
    """
    share = min(mass_shares(product))
    worst = step_g / 2 * (1.0 + len(product.parts) * share)
    return ceil(10 * worst / (share * product.tolerance_percent / 100.0)) / 10


def poured_g_cm3(
    product: Product, wanted_g_cm3: float | None = None, free_rise_g_cm3: float | None = None
) -> float:
    """What a millilitre to be filled weighs [g/cm³]: the liquid's density, and of a foam what it has become.

    Args:
        product: what is mixed.
        wanted_g_cm3: a foam's density wanted; None for its cured density, else its free rise.
        free_rise_g_cm3: its free rise as it is now, warm or cold; None for the tin's.

    Raises:
        Refused: a foam without any of these, one lighter than its free rise or no lighter than its liquid; a
            density for what does not rise.
    """
    liquid = liquid_g_cm3(product)
    if product.kind != FOAM:
        require(
            wanted_g_cm3 is None,
            "density",
            plainly(wanted_g_cm3 or 0, "density"),
            rule("say-filler"),
        )
        return liquid
    free = free_rise_g_cm3 or product.free_rise_g_cm3
    density = wanted_g_cm3 or product.cured_g_cm3 or free
    if density is None:
        raise Refused("density", "", NO_FOAM_DENSITY)
    require(
        density < liquid,
        "density",
        plainly(density, "density"),
        rule("amount-56", liquid=liquid),
    )
    require(
        free is None or density >= free - 1e-9,
        "density",
        plainly(density, "density"),
        rule("foam-cannot-lighter", value=free or 0),
    )
    return density


TEACHES_WITHIN = 0.02
"""A batch weighed further over its plan than this [share] was not poured whole, so that it says nothing
about the loss.
"""


def used_g(planned_g: float, weighed_g: float, left_g: float = 0.0) -> float | None:
    """What of a batch was really poured for its volume [g]; None where nobody can tell.

    What was left over, weighed, comes off. A batch over plan without it is no lesson: the surplus is a slip,
    not a loss.
    """
    used = weighed_g - left_g
    return used if 0 < used <= planned_g * (1.0 + TEACHES_WITHIN) else None

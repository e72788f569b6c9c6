"""What a shop's own observations teach: one shape for every figure that is learned."""

from dataclasses import dataclass

TABLE, SHOP = "table", "shop"
"""Where a figure is from: the trade's table, or what the shop has seen itself."""


@dataclass(frozen=True)
class Learned:
    """A learned figure.

    Args:
        value: in the stored unit of what it is.
        n: how many observations taught it.
        spread: one standard deviation of a single observation, None where they do not tell.
        source: `TABLE` while nothing taught it, else `SHOP`.
    """

    value: float
    n: int = 0
    spread: float | None = None
    source: str = TABLE

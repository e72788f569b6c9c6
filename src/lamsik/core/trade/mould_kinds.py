"""Kinds of mould: how each is filled, and whether what shrinks away is fed from a funnel. A kind more is one
row here, and its parting in `moulds/pull.py`.
"""

from collections.abc import Mapping
from dataclasses import dataclass

OPEN, TWO_PART, SPLIT, PRESS, INJECTION = "open", "two-part", "split", "press", "injection"


@dataclass(frozen=True)
class MouldKind:
    """A kind of mould: its key, how it is filled, and whether a funnel feeds it."""

    key: str
    filled: str
    is_fed: bool = True


_FUNNEL = "A thin stream into the funnel, from high"
_ROWS = (
    MouldKind(OPEN, "From one corner, letting it creep over", is_fed=False),
    MouldKind(TWO_PART, _FUNNEL),
    MouldKind(SPLIT, _FUNNEL),
    MouldKind(PRESS, "Over-fill the lower half, close it on one side first", is_fed=False),
    MouldKind(INJECTION, "Push it in slowly until it shows at the vents"),
)
MOULD_KINDS: Mapping[str, MouldKind] = {row.key: row for row in _ROWS}
"""By key."""

"""Kinds of mould: whether what shrinks away is fed from a funnel. A kind more is one row here, its parting in
`moulds/pull.py`, and how it is filled in `words/moulds.py`.
"""

from collections.abc import Mapping
from dataclasses import dataclass

OPEN, TWO_PART, SPLIT, PRESS, INJECTION = "open", "two-part", "split", "press", "injection"


@dataclass(frozen=True)
class MouldKind:
    """A kind of mould: its key, and whether a funnel feeds it."""

    key: str
    is_fed: bool = True


_ROWS = (
    MouldKind(OPEN, is_fed=False),
    MouldKind(TWO_PART),
    MouldKind(SPLIT),
    MouldKind(PRESS, is_fed=False),
    MouldKind(INJECTION),
)
MOULD_KINDS: Mapping[str, MouldKind] = {row.key: row for row in _ROWS}
"""By key."""

"""Waiting for what another process, thread or page does. No test fails because a machine is busy: what does
not happen at all is told after so long that nothing slow is taken for it.
"""

import time
from collections.abc import Callable
from typing import TypeVar

PATIENCE_S = 120.0

Seen = TypeVar("Seen")


def until(look: Callable[[], Seen], wanted: Callable[[Seen], object] = bool, every_s: float = 0.03) -> Seen:
    """What `look` gave when that was first as wanted."""
    end = time.monotonic() + PATIENCE_S
    while not wanted(seen := look()):
        assert time.monotonic() < end, f"not within {PATIENCE_S:.0f} s: {seen!r:.400}"
        time.sleep(every_s)
    return seen

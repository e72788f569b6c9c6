"""In which order several workers take the tests: each has its share of the long ones early, so that at the
end nobody waits for one who has only just begun a walk.
"""

from collections.abc import Sequence

LONG = (
    "tests/browser/",
    "tests/cli/test_commands.py",
    "tests/store/test_earlier.py",
    "tests/web/test_growth.py",
    "tests/web/test_robust.py",
    "tests/web/test_units.py",
)
"""Where tests take long, each or together."""

LEAD = ("tests/core/moulds/", "tests/core/shapes/", "tests/core/tank/")
"""What needs no demo shop and takes a while: while the first worker builds it the others do some of this."""


def shared_out(names: Sequence[str], workers: int) -> list[int]:
    """Tests by their place among these names, in an order of which each worker takes the next part as large
    as the others'.
    """
    every = range(len(names))
    long = [n for n in every if names[n].startswith(LONG)]
    heavy = [n for n in every if names[n].startswith(LEAD)]
    size = len(names) // workers
    lead = heavy[: size // 5 * (workers - 1)]
    taken = {*long, *lead}
    others = [n for n in every if n not in taken]
    order: list[int] = []
    for worker in range(workers):
        part = (len(names) - len(order)) // (workers - worker)
        mine = [*(lead[worker - 1 :: workers - 1] if worker else ()), *long[worker::workers]]
        room = part - len(mine)
        order += mine + others[:room]
        others = others[room:]
    return order

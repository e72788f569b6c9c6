"""Which cautions stand beside a step, and which are still to be read; `words.cautions` says them."""

from collections.abc import Collection, Iterable, Mapping

CAUTIONS = (
    "wood_dust",
    "blades",
    "lead",
    "metal_dust",
    "epoxy",
    "isocyanate",
    "solvent",
    "print_dust",
    "uv_resin",
    "silicone",
    "sphere_dust",
    "plastisol",
    "hooks",
    "paint_dust",
)
"""What can hurt, by key."""

EACH_BATCH = frozenset({"isocyanate", "plastisol"})
"""Cautions that are read for every batch; the others once a day."""


def to_read(
    keys: Iterable[str], read_for_batch: Collection[str], read_on: Mapping[str, str], today: str
) -> tuple[str, ...]:
    """Which cautions are still to be read before a batch is weighed.

    Args:
        keys: cautions of what goes in.
        read_for_batch: those ticked for this very batch.
        read_on: day each was last ticked, as ISO text.
        today: this day, as ISO text.
    """
    return tuple(
        dict.fromkeys(
            k
            for k in keys
            if k in CAUTIONS and k not in read_for_batch and (k in EACH_BATCH or read_on.get(k) != today)
        )
    )


def of_metals(metals: Iterable[str]) -> tuple[str, ...]:
    """The cautions for working ballast metals: lead has its own, every other is filed and drilled to dust."""
    worked = set(metals)
    return (("lead",) if "lead" in worked else ()) + (("metal_dust",) if worked - {"lead"} else ())

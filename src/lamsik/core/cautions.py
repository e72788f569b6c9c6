"""Short cautions that stand beside the steps that can hurt someone."""

from collections.abc import Collection, Iterable, Mapping

DEFER = "Follow the product's safety data sheet and your local rules."

CAUTIONS: dict[str, str] = {
    "wood_dust": "Wood dust: dust mask and extraction; cedar and tropical woods sensitise.",
    "blades": (
        "Blades and spinning tools: cut away from the hand; glasses on; no gloves near a spindle; no tied"
        " triggers."
    ),
    "lead": (
        "Lead: wash hands, no food at the bench, no dry filing; filing or drilling it makes dust. Tackle lead"
        " is restricted in places."
    ),
    "metal_dust": "Cutting metal: glasses on; keep metal dust away from flames.",
    "epoxy": "Epoxy: nitrile gloves, keep uncured resin off the skin, air the room.",
    "isocyanate": "Isocyanates: fitted respirator, not a dust mask; skin covered.",
    "solvent": "Solvent and spray: ventilate, no flames, respirator for vapours.",
    "print_dust": "Printed plastic: nozzle and bed burn; sand it wet or with a dust mask, air the room.",
    "uv_resin": "UV resin: gloves; keep uncured resin off the skin and do not look into the lamp.",
    "silicone": "Silicone and its catalyst: gloves; keep catalyst off skin and eyes; air the room.",
    "sphere_dust": "Fine filler: dust mask, no draught, no flames; it floats in the air for long.",
    "plastisol": (
        "Hot plastisol, 150 to 180 °C (300 to 355 °F): sleeves, gloves, face shield; dry mould and jug;"
        " overheated it gives"
        " off acid fumes. No shared kitchen oven or jug."
    ),
    "hooks": "Hooks: fit them last; hold them with pliers; nobody stands behind a test cast.",
}
"""Caution by key; every one is shown together with `DEFER`."""


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


def caution(key: str) -> str:
    """The caution's text followed by who decides, or an empty text for an unknown or empty key."""
    return f"{CAUTIONS[key]} {DEFER}" if key in CAUTIONS else ""


def of_metals(metals: Iterable[str]) -> tuple[str, ...]:
    """The cautions for working ballast metals: lead has its own, every other is filed and drilled to dust."""
    worked = set(metals)
    return (("lead",) if "lead" in worked else ()) + (("metal_dust",) if worked - {"lead"} else ())

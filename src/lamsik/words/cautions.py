"""Short cautions that stand beside the steps that can hurt someone."""

from collections.abc import Iterable

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
    "paint_dust": (
        "Old paint can hold lead: sand it wet, dust mask, no food at the bench, wash hands; keep the dust"
        " out of the drain."
    ),
}
"""Caution by key; every one is shown together with `DEFER`."""


def caution(key: str) -> str:
    """The caution's text followed by who decides, or an empty text for an unknown or empty key."""
    return f"{CAUTIONS[key]} {DEFER}" if key in CAUTIONS else ""


def all_of(keys: Iterable[str]) -> tuple[str, ...]:
    """Cautions as sentences; to be shown with `DEFER`."""
    return tuple(CAUTIONS[key] for key in keys if key in CAUTIONS)

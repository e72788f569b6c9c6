"""The connected scale: one port for the application, opened at the first question, changed in its
settings; and its board on a page.
"""

import threading
from typing import Any

from flask import current_app

from lamsik.core.quantities import HAS_UNIT, unit_of
from lamsik.core.units import CHOICES, parse
from lamsik.core.weighing.instrument import CHANGE_STEPS, LEAST_STEPS
from lamsik.devices.readings import UNITS
from lamsik.devices.scale_port import ScalePort, Settings
from lamsik.store import pieces, stores
from lamsik.web.shared.db import db

_LOCK = threading.Lock()


def settings() -> Settings:
    """The settings kept in Stores."""
    kept = stores.setting(db(), "scale")
    return Settings(kept["url"], kept["baud"], kept["unit"], kept["step_g"])


def typed_weight(text: str, field: str) -> float:
    """Grams that were typed while weighing: a bare number is in the unit of the scale, which is the one it is
    set to or else the shop's.
    """
    return parse(text, "mass", field, typed_unit()).value


def as_weighed(text: str) -> str:
    """What was typed while weighing, with the unit it was read in where it has none of its own."""
    text = text.strip()
    return text if HAS_UNIT.search(text) else f"{text} {typed_unit()}"


def typed_unit() -> str:
    """The unit of a bare number while weighing."""
    unit = UNITS.get(settings().unit) or ""
    return unit if unit in CHOICES["mass"] else unit_of("mass")


def hosts() -> list[str]:
    """The private addresses named for the shop's scales."""
    return list(stores.setting(db(), "scale_hosts")["addresses"])


def board(page: str) -> dict[str, Any]:
    """What a page with the scale's board shows: the settings, which of the shop's scales it is, the page
    whose zero it keeps, what lies there as it opens.
    """
    kept = stores.setting(db(), "scale")
    held, step = port(), float(kept["step_g"])
    return {
        "scale": {
            **kept,
            "instrument": _instrument(kept),
            "rest_g": held.state.rest_g if held else None,
            "least_g": LEAST_STEPS * step,
            "change_g": CHANGE_STEPS * step,
        },
        "scale_page": page,
        "typed_unit": typed_unit(),
    }


def _instrument(kept: dict[str, Any]) -> int | None:
    """The scale of the shop that is connected: the one said when it was, else the only one with its step."""
    rows = pieces.instruments(db())
    said = next((row.id for row in rows if row.id == kept["instrument"]), None)
    alike = [row.id for row in rows if row.step_g == kept["step_g"]]
    return (said or (alike[0] if len(alike) == 1 else None)) if kept["url"] else None


def port() -> ScalePort | None:
    """The open port of the settings as they are now; None where no scale is set."""
    wanted = settings()
    with _LOCK:
        held: ScalePort | None = current_app.extensions.get("scale")
        if held is not None and held.settings != wanted:
            held.close()
            held = None
        if held is None and wanted.url:
            held = ScalePort(wanted)
        current_app.extensions["scale"] = held
        return held

"""The shop's days and hours, the bricks and strip its mould boxes are built of, and how it mixes: shown
and kept.
"""

from collections.abc import Mapping
from datetime import date, time
from typing import Any

from flask import request
from werkzeug.datastructures import MultiDict

from lamsik.core.errors import Refused, finite_between
from lamsik.core.moulds.silicone import Bricks
from lamsik.core.quantities import kept_or, plainly, read_measure
from lamsik.core.route.workdays import Workdays
from lamsik.core.trade.figures import FIGURES
from lamsik.core.units import STORED
from lamsik.store import stores
from lamsik.web.shared.db import db
from lamsik.words.figures import FIGURES as CALLED

BRICKS = {
    "long_mm": "Brick long",
    "wide_mm": "Brick wide",
    "high_mm": "A course is high",
    "have": "Bricks there are",
    "strip_high_mm": "Strip high",
    "strip_long_mm": "Strip long",
}
USUAL = {(setting, figure.key): figure for setting in ("mixing", "casting") for figure in FIGURES[setting]}
"""How the shop mixes and casts."""


def shown() -> dict[str, Any]:
    """As the form shows it; what was just sent stays."""
    kept, bricks = (stores.setting(db(), key) for key in ("days", "bricks"))
    texts = {"begins": kept["begins"], "ends": kept["ends"], "closed": ", ".join(kept["closed"])}
    texts |= {name: plainly(bricks[name], "number" if name == "have" else "length") for name in BRICKS}
    texts |= {
        name: plainly(stores.setting(db(), setting)[name], figure.quantity)
        for (setting, name), figure in USUAL.items()
    }
    if request.method == "POST" and request.endpoint == "stores.keep_days":
        texts |= {name: request.form.get(name, "") for name in texts}
    return {
        "days": kept["days"],
        "after_hours": kept["after_hours"],
        "texts": texts,
        "bricks": BRICKS,
        "called": {name: CALLED[setting][name] for setting, name in USUAL},
    }


def keep(form: "MultiDict[str, str]") -> None:
    """Check it all, then keep it. Raises `Refused` naming the field; nothing is kept then."""
    days = tuple(sorted({int(day) for day in form.getlist("day") if day in "0123456" and len(day) == 1}))
    begins, ends = _clock(form, "begins"), _clock(form, "ends")
    closed = tuple(_day(text.strip()) for text in form.get("closed", "").split(",") if text.strip())
    Workdays(days, begins, ends, closed)
    bricks = {
        name: _measure(
            form, name, "number" if name == "have" else "length", "" if name == "have" else "mm", words
        )
        for name, words in BRICKS.items()
    }
    had = stores.setting(db(), "bricks")
    bricks = {name: kept_or(value, float(had[name]), "length") for name, value in bricks.items()}
    if not bricks["have"].is_integer():
        raise Refused("have", form.get("have"), "a whole number of bricks")
    Bricks(**{name: value for name, value in bricks.items() if name != "have"}, have=int(bricks["have"]))
    own: dict[str, dict[str, float]] = {}
    for (setting, name), one in USUAL.items():
        unit = STORED[one.quantity]
        value = _measure(form, name, one.quantity, unit, CALLED[setting][name])
        kept = stores.setting(db(), setting)[name]
        checked = finite_between(name, value, one.least, one.most, unit)
        own.setdefault(setting, {})[name] = kept_or(checked, kept, one.quantity)
    hours = {
        "begins": f"{begins:%H:%M}",
        "ends": f"{ends:%H:%M}",
        "after_hours": bool(form.get("after_hours")),
    }
    stores.put_setting(
        db(), "days", {"days": list(days), "closed": [day.isoformat() for day in closed], **hours}
    )
    stores.put_setting(db(), "bricks", {**bricks, "have": int(bricks["have"])})
    for setting, figures in own.items():
        stores.put_setting(db(), setting, figures)


def _measure(form: Mapping[str, str], name: str, quantity: str, unit: str, words: str) -> float:
    try:
        return read_measure(form.get(name, ""), quantity, words, unit)
    except Refused as refused:
        raise Refused(name, form.get(name), refused.allowed) from refused


def _clock(form: Mapping[str, str], name: str) -> time:
    try:
        return time.fromisoformat(form.get(name, ""))
    except ValueError as error:
        raise Refused(name, form.get(name), "a time such as 09:00") from error


def _day(text: str) -> date:
    try:
        return date.fromisoformat(text)
    except ValueError as error:
        raise Refused("closed", text, "days such as 2027-12-24, with commas between") from error

"""What the shop says its quantities in, and what a guest's browser wants instead."""

from dataclasses import asdict, fields
from typing import Any

from flask import Blueprint, flash, redirect, request, url_for
from flask.typing import ResponseReturnValue
from werkzeug.wrappers import Response

from lamsik.core.quantities import INCHES, METRIC, OFFERED, UnitChoice, choice_of, code_of, coded
from lamsik.drawings.paper import SHEETS
from lamsik.store import stores
from lamsik.web.shared import units
from lamsik.web.shared.db import db

blueprint = Blueprint("stores_units", __name__, url_prefix="/stores/units")

ASKED = {
    "length": "Lengths",
    "inch": "Inches to",
    "mass": "Masses",
    "volume": "Volumes",
    "temperature": "Temperatures",
    "distance": "Distances, depths run",
    "pace": "Towing speed",
    "film": "Paint films",
    "density": "Densities",
    "decimal": "Decimal mark",
    "clock": "Clock",
    "pressure": "Air at the brush",
}
"""What each choice is called."""

SAID = {
    "mm": "mm, cm/s, cm²",
    "in": "inches, in/s, in²",
    64: "sixty-fourths",
    32: "thirty-seconds",
    16: "sixteenths",
    0: "decimals",
    "g": "grams",
    "oz": "ounces",
    "grain": "grains",
    "fl oz": "US fl oz, cups and pints",
    "imp fl oz": "imperial fl oz, cups and pints",
    ".": "point, 2.5",
    ",": "comma, 2,5",
    "24 h": "24 hours, 16:05",
    "12 h": "12 hours, 4:05 pm",
}
"""What is offered, where its unit alone does not say it."""

PRESETS = {"metric": ("Millimetres and grams", METRIC), "inches": ("Inches and ounces", INCHES)}
YEAR_S = 365 * 24 * 3600


def shown() -> dict[str, Any]:
    """The form: every choice with what is offered, and what is chosen; what this browser wants."""
    own = asdict(units.shops())
    rows = [
        (name, ASKED[name], [(value, SAID.get(value, value), value == own[name]) for value in OFFERED[name]])
        for name in (one.name for one in fields(UnitChoice))
    ]
    here = coded(request.cookies.get(units.COOKIE, ""))
    return {
        "rows": rows,
        "presets": {key: words for key, (words, _) in PRESETS.items()},
        "here": next((key for key, (_, choice) in PRESETS.items() if choice == here), ""),
        "paper": stores.setting(db(), "saw")["paper"],
        "papers": list(SHEETS),
        "currency": stores.setting(db(), "shop")["currency"],
    }


@blueprint.post("")
def keep() -> ResponseReturnValue:
    """Keep what the shop says its quantities in, its paper and its currency."""
    sent = request.form
    if sent.get("preset") in PRESETS:
        kept = asdict(PRESETS[sent["preset"]][1])
    else:
        by_text = {name: {str(value): value for value in values} for name, values in OFFERED.items()}
        kept = asdict(choice_of({name: values.get(sent.get(name, "")) for name, values in by_text.items()}))
    stores.put_setting(db(), "units", kept)
    if sent.get("paper") in SHEETS:
        stores.put_setting(db(), "saw", {"paper": sent["paper"]})
    money = sent.get("currency", "").strip().upper()
    if money and not (len(money) == 3 and money.isascii() and money.isalpha()):
        flash(
            f"{money} is no currency: type its three letters, such as EUR or USD. The rest is kept.",
            "refused",
        )
        return redirect(url_for("stores.index", _anchor="units"))
    if money:
        stores.put_setting(db(), "shop", {"currency": money})
    flash("Kept: every page, drawing and card says it so from now on.")
    return redirect(url_for("stores.index", _anchor="units"))


@blueprint.post("/here")
def here() -> Response:
    """What this browser wants, whatever the shop has: a guest from another country."""
    way = request.form.get("here", "")
    answer = redirect(url_for("stores.index", _anchor="units"))
    if way in PRESETS:
        answer.set_cookie(
            units.COOKIE, code_of(PRESETS[way][1]), max_age=YEAR_S, httponly=True, samesite="Lax"
        )
    else:
        answer.delete_cookie(units.COOKIE)
    return answer

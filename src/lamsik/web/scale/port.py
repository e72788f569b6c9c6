"""The connected scale: one port for the application, opened at the first question, changed in its
settings.
"""

import threading
from typing import Any

from flask import Blueprint, Response, current_app, flash, jsonify, redirect, request, url_for
from flask.typing import ResponseReturnValue

from lamsik.core.errors import Refused, finite_between, require
from lamsik.core.units import parse
from lamsik.devices import scale_address
from lamsik.devices.readings import UNITS
from lamsik.devices.scale_port import ScalePort, Settings, State
from lamsik.store import pieces, stores
from lamsik.store.tables import Instrument
from lamsik.web.lan.pairing import is_local
from lamsik.web.shared.db import db, sent_row

blueprint = Blueprint("scale_port", __name__, url_prefix="/scale")

BAUDS = (1200, 2400, 4800, 9600, 19200, 38400, 57600, 115200)
_LOCK = threading.Lock()


def settings() -> Settings:
    """The settings kept in Stores."""
    kept = stores.setting(db(), "scale")
    return Settings(kept["url"], kept["baud"], kept["unit"], kept["step_g"])


def hosts() -> list[str]:
    """The private addresses named for the shop's scales."""
    return list(stores.setting(db(), "scale_hosts")["addresses"])


def board(page: str) -> dict[str, Any]:
    """What a page with the scale's board shows: the settings, which of the shop's scales it is, the page
    whose zero it keeps, what lies there as it opens.
    """
    kept = stores.setting(db(), "scale")
    held = port()
    return {
        "scale": {**kept, "instrument": _instrument(kept), "rest_g": held.state.rest_g if held else None},
        "scale_page": page,
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


@blueprint.get("/live")
def live() -> Response:
    """What the scale says at this moment."""
    held = port()
    return jsonify(held.view() if held else {**State().__dict__})


@blueprint.post("/connect")
def connect() -> ResponseReturnValue:
    """Keep where the scale is and how it speaks; an empty address lets it go."""
    # the page holds this form, and this form is on that page
    from lamsik.web.scale.views import bench_page  # noqa: PLC0415

    sent = {
        name: request.form.get(name, "").strip() for name in ("url", "baud", "unit", "step", "instrument")
    }
    try:
        if sent["url"]:
            scale_address.check(sent["url"], hosts())
        require(
            sent["unit"] in ("", *(name for name, to in UNITS.items() if to)),
            "unit",
            sent["unit"],
            "g, kg, mg, oz, lb, gn or ct; empty if it sends its own",
        )
        require(
            sent["baud"].isdecimal() and int(sent["baud"]) in BAUDS,
            "speed",
            sent["baud"],
            f"one of {', '.join(map(str, BAUDS))} baud",
        )
        chosen = sent_row(Instrument, "instrument", "that scale is not in Stores any more: choose another")
        step = finite_between("step", parse(sent["step"], "mass", "step", "g").value, 0.0001, 100.0, "g")
    except Refused as refused:
        return bench_page(connecting=refused.says, asked=sent), 422
    stores.put_setting(
        db(),
        "scale",
        {
            "url": sent["url"],
            "baud": int(sent["baud"]),
            "unit": sent["unit"],
            "step_g": step,
            "instrument": chosen.id if chosen else None,
        },
    )
    flash(
        "The scale is connected as soon as it answers."
        if sent["url"]
        else "No scale is connected now: type the masses."
    )
    return redirect(url_for("scale.bench"))


@blueprint.post("/hosts")
def name_hosts() -> ResponseReturnValue:
    """Name the private addresses at which a scale may be; on the shop's own machine only, so that a tablet
    cannot send it to strangers.
    """
    from lamsik.web.scale.views import bench_page  # noqa: PLC0415 - as above

    typed = request.form.get("hosts", "")
    try:
        require(is_local(), "addresses", None, "named on the shop's own machine")
        named = scale_address.named(typed)
    except Refused as refused:
        return bench_page(connecting=refused.says, asked={"hosts": typed}), 422
    stores.put_setting(db(), "scale_hosts", {"addresses": named})
    flash(f"A scale may be at {', '.join(named)}." if named else "A scale may be at a serial port only.")
    return redirect(url_for("scale.bench", _anchor="connect"))

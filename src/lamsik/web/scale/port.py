"""The connected scale: one port for the application, opened at the first question, changed in its
settings.
"""

from flask import Blueprint, Response, flash, jsonify, redirect, request, url_for
from flask.typing import ResponseReturnValue

from lamsik.core.errors import Refused, finite_between, require
from lamsik.core.quantities import read_measure
from lamsik.devices import scale_address
from lamsik.devices.readings import UNITS
from lamsik.devices.scale_port import PortState
from lamsik.store import stores
from lamsik.store.tables import Instrument
from lamsik.web.lan.pairing import is_local
from lamsik.web.shared.db import db, sent_row
from lamsik.web.shared.scale import hosts, port
from lamsik.words import refusals

blueprint = Blueprint("scale_port", __name__, url_prefix="/scale")

BAUDS = (1200, 2400, 4800, 9600, 19200, 38400, 57600, 115200)


@blueprint.get("/live")
def live() -> Response:
    """What the scale says at this moment."""
    held = port()
    return jsonify(held.view() if held else {**PortState().__dict__})


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
        step = finite_between("step", read_measure(sent["step"], "mass", "step"), 0.0001, 100.0, "g")
    except Refused as refused:
        return bench_page(connecting=refusals.says(refused), asked=sent), 422
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
        return bench_page(connecting=refusals.says(refused), asked={"hosts": typed}), 422
    stores.put_setting(db(), "scale_hosts", {"addresses": named})
    flash(f"A scale may be at {', '.join(named)}." if named else "A scale may be at a serial port only.")
    return redirect(url_for("scale.bench", _anchor="connect"))

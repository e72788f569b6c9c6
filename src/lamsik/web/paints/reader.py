"""The hand colour reader: where it is, and what it reads into a paint's swatch or a wanted colour."""

from flask import Blueprint, flash, redirect, request, url_for
from flask.typing import ResponseReturnValue

from lamsik.core.errors import Refused, named, require
from lamsik.core.paints.shelf import READER
from lamsik.core.quantities import said
from lamsik.devices import colour_port, scale_address
from lamsik.store import stores
from lamsik.web.paints.looks import PAGES, PARTS, read_into
from lamsik.web.shared.db import db, load_document
from lamsik.words import refusals

blueprint = Blueprint("paints_reader", __name__, url_prefix="/paints/reader")


def hosts() -> list[str]:
    """Private addresses that the shop has named for its devices."""
    return [str(one) for one in stores.setting(db(), "scale_hosts")["addresses"]]


@blueprint.post("/connect")
def connect() -> ResponseReturnValue:
    """Keep where the reader is; an empty address lets it go."""
    url = request.form.get("url", "").strip()
    try:
        if url:
            scale_address.check(url, hosts())
    except Refused as refused:
        flash(f"The reader is not connected. {refusals.says(refused)}", "refused")
        return redirect(url_for("paints_shelf.index", _anchor="reader"))
    stores.put_setting(db(), "reader", {**stores.setting(db(), "reader"), "url": url[:200]})
    flash("The reader is asked there." if url else "No reader.")
    return redirect(url_for("paints_shelf.index", _anchor="reader"))


@blueprint.post("/<any(paint, match):kind>/<int:key>")
def read(kind: str, key: int) -> ResponseReturnValue:
    """Read a look into a part of a document; what is wrong with the reader is said, nothing is lost."""
    row, part = load_document(kind, key), request.form.get("part", "")
    require(part in PARTS[kind], "part", part, named(PARTS[kind]))
    url = stores.setting(db(), "reader")["url"]
    try:
        require(bool(url), "reader", "none", "connect a colour reader first, on the shelf's page")
        seen = colour_port.read(url, hosts())
    except Refused as refused:
        flash(f"Nothing was read. {refusals.says(refused)}", "refused")
        return redirect(url_for(PAGES[kind], key=key))
    read_into(row, part, seen.look, READER, "by the colour reader")
    flash(f"Read: {seen.look.said}; its readings lie within ΔE {said(seen.apart, 'number', 1)}.")
    return redirect(url_for(PAGES[kind], key=key))

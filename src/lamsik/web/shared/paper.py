"""Cards that are printed: one page for the screen, the same as PDF."""

from typing import Any

from flask import render_template
from flask.typing import ResponseReturnValue

from lamsik.store import stores
from lamsik.web.shared import printing
from lamsik.web.shared.db import db
from lamsik.web.shared.files import as_pdf


def sheet() -> str:
    """The paper that cards of any length are printed on: the shop's own."""
    return "Letter" if stores.setting(db(), "saw")["paper"] == "Letter" else "A4"


def needs_japanese(*texts: str) -> bool:
    """Whether a card needs the fonts of wide scripts."""
    return any(ord(sign) > 0x2E7F for text in texts for sign in text)


def as_printed(template: str, shown: dict[str, Any], name: str, instead: str) -> ResponseReturnValue:
    """A card as PDF; where none can be made, what to install, and the page to print `instead`."""
    try:
        data = printing.pdf(render_template(template, **shown, screen=False))
    except printing.CannotPrint as error:
        return render_template("shared/cannot_print.html", instead=instead, message=str(error)), 501
    return as_pdf(data, name)

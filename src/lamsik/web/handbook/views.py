"""The Handbook: cautions, what the words mean, a converter for typed measures."""

from flask import Blueprint, render_template, request

from lamsik.core.errors import Refused
from lamsik.core.materials import BODY_MATERIALS, METALS
from lamsik.core.quantities import show
from lamsik.core.units import parse
from lamsik.words import handbook, refusals
from lamsik.words.cautions import CAUTIONS, DEFER

blueprint = Blueprint("handbook", __name__, url_prefix="/handbook")


@blueprint.get("")
def index() -> str:
    """The one page."""
    text, kind = request.args.get("text", "").strip(), request.args.get("kind", "length")
    answer, problem = "", ""
    if text and kind in ("length", "mass", "temperature"):
        answer, problem = _converted(text, kind)
    return render_template(
        "handbook/index.html",
        cautions=CAUTIONS,
        defer=DEFER,
        words=handbook.MEANINGS.items(),
        materials=BODY_MATERIALS,
        metals=METALS,
        text=text,
        kind=kind,
        answer=answer,
        problem=problem,
    )


def _converted(text: str, kind: str) -> tuple[str, str]:
    try:
        value = parse(text, kind, "measure").value
    except Refused as error:
        return "", f"{error.given} cannot be read: {refusals.allowed(error)}."
    shown = {
        "length": (show(value, "length", 2, "mm"), show(value, "length", 0, "in")),
        "mass": (show(value, "mass", 2, "g"), show(value, "mass", 3, "oz"), show(value, "mass", 1, "grain")),
        "temperature": (show(value, "temperature", 1, "°C"), show(value, "temperature", 1, "°F")),
    }[kind]
    return " = ".join(shown), ""

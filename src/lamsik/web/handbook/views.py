"""The Handbook: cautions, what the words mean, a converter for typed measures."""

from flask import Blueprint, render_template, request

from lamsik.core.cautions import CAUTIONS, DEFER
from lamsik.core.errors import Refused
from lamsik.core.materials import BODY_MATERIALS, METALS
from lamsik.core.quantities import show
from lamsik.core.units import parse
from lamsik.words import refusals

blueprint = Blueprint("handbook", __name__, url_prefix="/handbook")

WORDS = (
    (
        "Net lift",
        "What water lifts beyond the bait's own weight, everything under. Above 0 it rises, below it sinks.",
    ),
    ("G", "Centre of gravity: where all weight acts."),
    ("B", "Centre of buoyancy: the middle of the water pushed aside. At rest B stands straight above G."),
    ("Pitch", "The angle of the body to the water; + is nose up."),
    (
        "Roll recovery",
        (
            "How fast it swings back when it leans, in swings a second: high is steady, low is lively. A"
            " number to compare two baits by."
        ),
    ),
    (
        "BG, GM",
        "How far B lies over G under water; the same for a floater at the surface. More rights it harder.",
    ),
    ("Righting arm", "How far apart weight and lift pull at a heel: positive turns the bait back upright."),
    ("C_d", "Drag coefficient: how hard water brakes the bait. The shop's until you time a rise or sink."),
    (
        "Allowance",
        (
            "Grams set aside for what is not on the drawing yet: you drill for the finished bait, not for the"
            " bare one."
        ),
    ),
    ("Freeboard", "How far the highest point stands out of the water."),
    (
        "Suspends",
        ("Moves less than the shop's limit in Stores; a band only a few hundredths of a gram wide."),
    ),
    ("Recoat window", "After the least wait and before the longest a coat takes the next one."),
    (
        "Lip angle",
        (
            "Between lip and body axis: small lies along the axis and dives deep, large stands across and"
            " stays shallow."
        ),
    ),
    (
        "Assumed / label / weighed",
        "Where a mass is from: a table or a formula, the maker's label, or your scale.",
    ),
)


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
        words=WORDS,
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

"""Routes of what is made beside bodies: blades and floats; the same steps, minutes and cautions."""

from lamsik.core.cautions import of_metals
from lamsik.core.floats.design import Float
from lamsik.core.floats.parts import FloatPart
from lamsik.core.quantities import said
from lamsik.core.route.steps import MADE, Made, Route, Step, timed
from lamsik.core.trade.step_kinds import Minutes

TURNED = Made(
    "carve",
    "Turn the body",
    "Square a blank of {}, drill it through, turn it to the profile.",
    ("wood_dust", "blades"),
)
"""A float of wood; its stem goes through."""
BY_KIND = {"bulk foam": "foam", "live bait": "foam", "cast": "cast", "printed": "print"}
"""How a float of some kinds is made, as a body of that construction is; all others are turned."""

PACK = Step("pack", "pack", "Photograph and pack", "Label on; both sides and the tip.")
SHIP = Step("ship", "ship", "Ship", "Note the parcel; the order is told.")


def of_blade(metal: str, own: Minutes | None = None) -> Route:
    """The route of one blade of a metal, from the strip to shipping.

    Args:
        metal: one of `METALS`.
        own: the shop's own minutes by kind of step; the table's where it has none.
    """
    return timed(
        (
            Step(
                "bend",
                "bend",
                "Cut, drill and bend",
                "Cut the strip to the template, drill and deburr its holes, bend nose and cup to the angles.",
                weigh="carved",
                batch_key=f"bend: {metal}",
                cautions=(*of_metals({metal}), "blades"),
            ),
            Step(
                "rig",
                "rig",
                "Snaps and hooks",
                "Fit them; every edge deburred.",
                "rigged",
                cautions=("hooks",),
            ),
            Step(
                "swim",
                "swim",
                "Swim test",
                "It starts at walking pace.",
                batch_key="swim",
                cautions=("hooks",),
            ),
            PACK,
            SHIP,
        ),
        own,
    )


def body_of(design: Float) -> FloatPart:
    """The part that is the float's body: the largest that is not inside another."""
    outside = [part for part in design.parts if not part.inside]
    return max(outside, key=lambda part: part.length_mm * part.diameter_mm**2)


def construction_of(design: Float) -> str:
    """How its body is made, as of a bait."""
    return BY_KIND.get(design.kind, "wood")


def of_float(design: Float, own: Minutes | None = None) -> Route:
    """The route of one float, from its blank to shipping; without paint or varnish none is put on.

    Args:
        design: what is made.
        own: the shop's own minutes by kind of step; the table's where it has none.
    """
    way = MADE[construction_of(design)] if design.kind in BY_KIND else TURNED
    body = f"material of {said(body_of(design).density_g_cm3, 'density', 2)}"
    rows = [
        Step(
            "carve",
            way.kind,
            way.name,
            way.says.format(body),
            weigh="carved",
            batch_key=f"{way.kind}: {body}",
            cautions=way.cautions,
        ),
        Step(
            "fit",
            "assemble",
            "Stem, eye, load",
            "Glue stem, eye and load; straight to the eye.",
            cautions=("epoxy",),
        ),
    ]
    if way is TURNED:
        rows.insert(1, Step("seal", "seal", "Seal", "Bare wood drinks: seal it all, the bore too.", "sealed"))
    if design.paint_g:
        rows.append(
            Step("colour", "colour", "Bands and tip", "Bands by the marks, the tip last.", batch_key="bands")
        )
    if design.varnish_g:
        rows.append(
            Step("clear", "clear", "Varnish", "Two thin coats; hang it by the tip.", "cleared", wait_h=12.0)
        )
    tub = "Shot it to its mark in the tub; note what it carries."
    rows.append(Step("tub", "tub", "Shot and weigh", tub, batch_key="tub"))
    return timed((*rows, PACK, SHIP), own)

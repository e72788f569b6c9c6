"""Routes of what is made beside bodies: blades and floats; the same steps, minutes and cautions."""

from lamsik.core.cautions import of_metals
from lamsik.core.findings import finding
from lamsik.core.floats.design import Float
from lamsik.core.floats.parts import FloatPart
from lamsik.core.route.steps import MADE, Made, Route, Step, timed
from lamsik.core.trade.step_kinds import Minutes

TURNED = Made(
    "carve",
    "turn-the-body",
    "turn-to-profile",
    ("wood_dust", "blades"),
)
"""A float of wood; its stem goes through."""
BY_KIND = {"bulk foam": "foam", "live bait": "foam", "cast": "cast", "printed": "print"}
"""How a float of some kinds is made, as a body of that construction is; all others are turned."""

PACK = Step("pack", "pack", finding("photograph-and-pack"), finding("pack-other"))
SHIP = Step("ship", "ship", finding("ship"), finding("note-the-parcel"))


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
                finding("cut-drill-bend"),
                finding("cut-the-strip"),
                weigh="carved",
                batch_key=f"bend: {metal}",
                cautions=(*of_metals({metal}), "blades"),
            ),
            Step(
                "rig",
                "rig",
                finding("snaps-and-hooks"),
                finding("fit-snaps"),
                "rigged",
                cautions=("hooks",),
            ),
            Step(
                "swim",
                "swim",
                finding("swim-test"),
                finding("starts-at-walking-pace"),
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
    density = body_of(design).density_g_cm3
    rows = [
        Step(
            "carve",
            way.kind,
            finding(way.name),
            finding(way.says, material=finding("material-of", density=density)),
            weigh="carved",
            batch_key=f"{way.kind}: {density:.2f}",
            cautions=way.cautions,
        ),
        Step(
            "fit",
            "assemble",
            finding("stem-eye-load"),
            finding("glue-stem"),
            cautions=("epoxy",),
        ),
    ]
    if way is TURNED:
        rows.insert(1, Step("seal", "seal", finding("seal-step"), finding("seal-it-all"), "sealed"))
    if design.paint_g:
        rows.append(
            Step(
                "colour", "colour", finding("bands-and-tip"), finding("bands-by-the-marks"), batch_key="bands"
            )
        )
    if design.varnish_g:
        rows.append(
            Step("clear", "clear", finding("varnish-step"), finding("two-thin-coats"), "cleared", wait_h=12.0)
        )
    tub = finding("shot-to-its-mark")
    rows.append(Step("tub", "tub", finding("shot-and-weigh"), tub, batch_key="tub"))
    return timed((*rows, PACK, SHIP), own)

"""The steps of a piece in the order of the bench, with waits, weighings and cautions."""

from collections.abc import Collection, Sequence
from dataclasses import dataclass

from lamsik.core.cautions import CAUTIONS, of_metals
from lamsik.core.paints.layers import SEALS, Layer
from lamsik.core.paints.paint import BOTH
from lamsik.core.shapes.design import Design


@dataclass(frozen=True)
class Step:
    """One step: what to do, the stage to weigh at its end, the wait before the next [h], cautions."""

    key: str
    name: str
    says: str
    weigh: str | None = None
    wait_h: float = 0.0
    window_h: float | None = None
    cautions: tuple[str, ...] = ()


ROUTES = 1
"""Raised by one whenever the steps of a design change: what stands on older routes is told anew."""

MAKING, READY, SHIPPED = "making", "ready", "shipped"
LAST = "ship"


def stand(route: Sequence[str], done: Collection[str]) -> str:
    """Where a piece stands, from every step of its route: shipped once all are done, ready once only
    shipping is left.
    """
    left = [key for key in route if key not in done]
    return SHIPPED if not left else READY if left == [LAST] else MAKING


def open_before(route: Sequence[str], done: Collection[str], step: str) -> tuple[str, ...]:
    """Steps before this one that are neither done nor left out: they come first, or are left out for a
    reason.
    """
    return tuple(key for key in route[: list(route).index(step)] if key not in done)


def steps(design: Design) -> tuple[Step, ...]:
    """The steps of one piece of this design, from its blank to shipping: what it is of says which."""
    seals = [one for one in design.layers if one.does == SEALS]
    paints = [one for one in design.layers if one.does != SEALS]
    rows = [_body(design)]
    rows += [_coat(one, weigh="sealed" if one is seals[-1] else None) for one in seals]
    if (
        design.host.construction != "soft"
        or design.ballast
        or design.lip
        or any(placed.hung_on is None for placed in design.hardware)
    ):
        rows.append(_fit(design))
    rows.append(
        Step("tub", "Tub test", "Clip the hooks on, float it, compare with the Tank.", cautions=("hooks",))
    )
    rows += [_coat(one, weigh="cleared" if one is paints[-1] else None) for one in paints]
    rows += [
        Step(
            "rig",
            "Rings and hooks",
            "Fit rings and hooks; clean line tie and hangers of paint.",
            weigh="rigged",
            cautions=("hooks",),
        ),
        Step("swim", "Swim test", "Tracks straight both ways, starts at walking pace.", cautions=("hooks",)),
        Step("pack", "Photograph and pack", "Both sides and the back; points covered."),
        Step(LAST, "Ship", "Note the parcel; the order is told."),
    ]
    return tuple(rows)


NAMES = {
    "wood": "Carve the body",
    "foam": "Shape the body",
    "cast": "Cast the body",
    "print": "Print the body",
    "soft": "Cast the body",
}


def _body(design: Design) -> Step:
    construction = design.host.construction
    poured = design.host.source == "poured"
    says = {
        "wood": (
            f"Saw the side pattern, then the top pattern, then round to the section in {design.host.name}."
        ),
        "foam": (
            f"Foam it in its mould with {design.host.name}, trim the seam."
            if poured
            else f"Cut and sand {design.host.name} to both templates."
        ),
        "cast": f"Cast in {design.host.name}, trim the seam.",
        "print": f"Print in {design.host.name}, clean and sand.",
        "soft": f"Pour {design.host.name} hot, trim the port.",
    }[construction]
    hazards = {
        "wood": ("wood_dust", "blades"),
        "foam": ("isocyanate",) if poured else ("blades",),
        "cast": ("isocyanate",),
        "print": ("uv_resin",) if "resin" in design.host.name.lower() else ("print_dust",),
        "soft": ("plastisol",),
    }
    return Step(
        "carve",
        "Cast the body" if poured else NAMES[construction],
        says,
        weigh="carved",
        cautions=hazards[construction],
    )


def body_cautions(design: Design) -> tuple[str, ...]:
    """What can hurt while the body itself is made."""
    return _body(design).cautions


def _fit(design: Design) -> Step:
    if design.host.source == "poured" and design.host.construction == "soft":
        return Step(
            "fit",
            "Hardware",
            "See that what was cast in sits straight and moves.",
            weigh="ballasted",
            cautions=("hooks",),
        )
    hazards = (*of_metals(design.metals), "epoxy")
    return Step(
        "fit",
        "Drill, ballast, hardware",
        "Drill to the map, glue slugs, fill, set lip, tie and hangers.",
        weigh="ballasted",
        wait_h=12.0,
        cautions=hazards,
    )


def _coat(layer: Layer, weigh: str | None) -> Step:
    """The coat that puts a layer on."""
    return Step(
        f"coat:{layer.key}",
        layer.name,
        layer.note or _doing(layer),
        weigh,
        layer.wait_h,
        layer.window_h,
        (layer.paint.caution,) if layer.paint.caution else (),
    )


def _doing(layer: Layer) -> str:
    if layer.mass_g is not None:
        return "Set both eyes level."
    passes = f"{layer.passes} passes, each a dry film of" if layer.passes > 1 else "Dry film"
    where = "" if layer.place.side == BOTH else f", on the {layer.place.side} side only"
    return f"{passes} {layer.film_um:.0f} µm{where}."


def warnings(step: Step) -> tuple[str, ...]:
    """The step's cautions as sentences; to be shown with `cautions.DEFER`."""
    return tuple(CAUTIONS[key] for key in step.cautions if key in CAUTIONS)

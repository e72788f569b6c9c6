"""The steps of a piece in the order of the bench, with waits, weighings and cautions."""

from dataclasses import dataclass

from lamsik.core.cautions import CAUTIONS
from lamsik.core.paints.coats import Coat
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


def steps(design: Design) -> tuple[Step, ...]:
    """The steps of one piece of this design, carving to shipping."""
    seals = [c for c in design.coats if c.role == "seal"]
    paints = [c for c in design.coats if c.role != "seal"]
    rows = [_carve(design)]
    rows += [_coat(c, weigh="sealed" if c is seals[-1] else None) for c in seals]
    rows += [_fit(design), Step("tub", "Tub test", "Clip the hooks on, float it, compare with the Tank.", cautions=("hooks",))]
    rows += [_coat(c, weigh="cleared" if c is paints[-1] else None) for c in paints]
    rows += [
        Step("rig", "Rings and hooks", "Fit rings and hooks; clean line tie and hangers of paint.", weigh="rigged", cautions=("hooks",)),
        Step("swim", "Swim test", "Tracks straight both ways, starts at walking pace.", cautions=("hooks",)),
        Step("pack", "Photograph and pack", "Both sides and the back; points covered."),
        Step("ship", "Ship", "Note the parcel; the order is told."),
    ]
    return tuple(rows)


def _carve(design: Design) -> Step:
    says = {
        "wood": f"Saw the side pattern, then the top pattern, then round to the section in {design.host.name}.",
        "foam": f"Cut and sand {design.host.name} to both templates.",
        "cast": f"Cast in {design.host.name}, trim the seam.",
        "print": f"Print in {design.host.name}, clean and sand.",
    }[design.host.construction]
    hazards = {"wood": ("wood_dust", "blades"), "foam": ("blades",), "cast": ("isocyanate",), "print": ("uv_resin",)}
    return Step("carve", "Carve the body", says, weigh="carved", cautions=hazards[design.host.construction])


def _fit(design: Design) -> Step:
    metals = {hole.slug.metal for hole in design.ballast}
    hazards = (("lead",) if "lead" in metals else ()) + (("metal_dust",) if metals - {"lead"} else ()) + ("epoxy",)
    return Step("fit", "Drill, ballast, hardware", "Drill to the map, glue slugs, fill, set lip, tie and hangers.", weigh="ballasted", wait_h=12.0, cautions=hazards)


def _coat(coat: Coat, weigh: str | None) -> Step:
    says = coat.note or (f"Dry film {coat.film_um:.0f} µm." if coat.mass_g is None else "Set both eyes level.")
    return Step(f"coat:{coat.key}", coat.name, says, weigh, coat.wait_h, coat.window_h, (coat.caution,) if coat.caution else ())


def warnings(step: Step) -> tuple[str, ...]:
    """The step's cautions as sentences; to be shown with `cautions.DEFER`."""
    return tuple(CAUTIONS[key] for key in step.cautions if key in CAUTIONS)

"""What a design in its scheme shows: the painted silhouette and its coats in order."""

from collections.abc import Sequence
from dataclasses import dataclass

from lamsik.core.paints.coats import Coat
from lamsik.core.tank.evaluate import Outcome
from lamsik.core.tank.parts import Part
from lamsik.drawings.body import paint_view
from lamsik.drawings.svg import Node
from lamsik.web.shared.view import Panel, Removable, edit


@dataclass(frozen=True, kw_only=True)
class CoatOn(Removable):
    """A coat on this body: its colour, dry mass, wait, and the path of its film."""

    name: str
    role: str
    colour: str
    mass: str
    wait: str
    path: str
    film: bool
    film_says: str


@dataclass(frozen=True)
class PaintPanel(Panel):
    """The painted body, its coats and their sums."""

    picture: Node
    coats: Sequence[CoatOn]
    no_coats: bool
    coats_total: str


def paint_panel(outcome: Outcome, unit: str) -> PaintPanel:
    """The Paint side of a design: picture, coats with their dry mass, sums."""
    design = outcome.design
    total = sum(p.mass_g for p in outcome.budget.parts if p.key.startswith("coat:"))
    hours = sum(c.wait_h for c in design.coats)
    return PaintPanel(
        picture=paint_view(design, unit),
        coats=[
            _coat_row(c, next(p for p in outcome.budget.parts if p.key == f"coat:{c.key}"))
            for c in design.coats
        ],
        no_coats=not design.coats,
        coats_total=f"{total:.2f} g dry, {len(design.coats)} coats, {hours:.0f} h of waiting",
    )


def _coat_row(coat: Coat, part: Part) -> CoatOn:
    window = f" to {coat.window_h:g} h" if coat.window_h else ""
    return CoatOn(
        key=coat.key,
        name=coat.name,
        role=coat.role,
        colour=coat.colour,
        mass=f"{part.mass_g:.2f} g",
        wait=f"wait {coat.wait_h:g}{window}{'' if window else ' h'}",
        path=f"coats.{coat.key}.film_um",
        film=coat.mass_g is None,
        film_says=f"{coat.name} dry film",
        remove=edit("remove", group="coats", key=coat.key),
        remove_says=f"Leave out {coat.name}",
    )

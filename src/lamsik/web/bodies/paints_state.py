"""What a design in its scheme shows: the painted silhouette and its layers in order."""

from collections.abc import Sequence
from dataclasses import dataclass

from lamsik.core.paints.adjusting import LEFT_OUT
from lamsik.core.paints.layers import Layer
from lamsik.core.paints.lifts import Patch
from lamsik.core.paints.rules import ruled
from lamsik.core.paints.waiting import waiting_h
from lamsik.core.quantities import counted, plain_numeral, plainly, said
from lamsik.core.shapes.design import Design
from lamsik.core.tank.evaluate import Outcome
from lamsik.drawings.scheme import Shown, scheme_view
from lamsik.drawings.svg import Node
from lamsik.store import documents, tried
from lamsik.web.shared.db import db
from lamsik.web.shared.view import Panel, Removable, Said, edit
from lamsik.words import paints


@dataclass(frozen=True, kw_only=True)
class LayerOn(Removable):
    """A layer on this body: its colour, dry mass, wait, the paths of its film and of its marks; what is
    otherwise here than in the scheme, and the way back; whether it is warned of, and where that is answered.
    """

    name: str
    kind: str
    colour: str
    mass: str
    wait: str
    path: str
    film: bool
    film_says: str
    count: str
    counted: bool
    choose: str
    count_says: str
    otherwise: str
    as_in_scheme: str
    as_says: str
    doubted: bool
    intended: str
    intended_says: str


@dataclass(frozen=True)
class LeftOut:
    """A layer of the scheme that this body does without, and its way back."""

    key: str
    name: str
    as_in_scheme: str


@dataclass(frozen=True)
class PaintPanel(Panel):
    """The painted body, its layers and their sums, what is wrong with their order, what is left out here;
    which version of which scheme lies on it.
    """

    picture: Node
    layers: Sequence[LayerOn]
    no_layers: bool
    layers_total: str
    left_out: Sequence[LeftOut]
    facing: str
    lies: str
    warnings: Sequence[Said]


def patches() -> list[Patch]:
    """The shop's test patches."""
    return tried.patches(db())


def paint_panel(outcome: Outcome, facing: str = "", is_moving: bool = False) -> PaintPanel:
    """The Paint side of a design: picture, layers with their dry mass, sums."""
    design = outcome.design
    dry = {p.key: p.mass_g for p in outcome.budget.parts if p.key.startswith("coat:")}
    hours, warnings = waiting_h(design.layers), told(design, patches())
    doubted = {one.key.partition(":")[0] for one in warnings}
    doubted |= {layer.key for layer in design.layers if layer.intended}
    return PaintPanel(
        picture=scheme_view(design, Shown(facing, is_moving=is_moving)),
        facing=facing,
        lies=_lies(design),
        layers=[
            _row(design, layer, dry[f"coat:{layer.key}"], layer.key in doubted) for layer in design.layers
        ],
        no_layers=not design.layers,
        layers_total=f"{said(sum(dry.values()), 'mass')} dry, {counted(len(design.layers), 'layer')},"
        f" {said(hours, 'time', 0)} of waiting",
        left_out=[
            LeftOut(one.layer, str(one.value or one.layer), edit("as_in_scheme", key=one.layer))
            for one in design.adjustments
            if one.field == LEFT_OUT
        ],
        warnings=warnings,
    )


def _lies(design: Design) -> str:
    """Which version of its scheme lies on a body, and whether a newer one is out."""
    row = documents.coded(db(), "scheme", design.scheme) if design.scheme else None
    if row is None:
        return ""
    return paints.lies(row.name, row.code, design.scheme_version, row.current)


def told(design: Design, patches: Sequence[Patch], free: Sequence[Layer] | None = None) -> list[Said]:
    """What is wrong with layers on a body, a sentence each."""
    warnings = ruled(design, patches, free)
    return [
        Said(f"{one.layer}:{one.name}:{one.other}", says)
        for one, says in paints.warnings(design.layers, warnings)
    ]


def _row(design: Design, layer: Layer, dry_g: float, doubted: bool) -> LayerOn:
    begins = (plain_numeral if layer.window_h else plainly)(layer.wait_h, "time")
    window = f" to {plainly(layer.window_h, 'time')}" if layer.window_h else ""
    fields = [one.field for one in design.adjustments if one.layer == layer.key]
    return LayerOn(
        key=layer.key,
        name=layer.name,
        kind=paints.KINDS[layer.kind],
        colour=layer.paint.colour,
        mass=said(dry_g, "mass"),
        wait=f"wait {begins}{window}",
        path=f"layers.{layer.key}.film_um",
        film=layer.mass_g is None,
        film_says=f"{layer.name} dry film",
        count=f"layers.{layer.key}.place.count",
        counted=layer.is_counted,
        count_says=f"How many in {layer.name}",
        choose=f"Show where {layer.name} lies",
        otherwise=f"otherwise here: {paints.fields(fields)}" if fields else "",
        as_in_scheme=edit("as_in_scheme", key=layer.key),
        as_says=f"{layer.name} as in the scheme",
        doubted=doubted,
        intended=f"layers.{layer.key}.intended",
        intended_says=f"Why {layer.name} is meant so",
        remove=edit("remove", group="layers", key=layer.key),
        remove_says=f"Leave out {layer.name}",
    )

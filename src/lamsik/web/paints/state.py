"""What a scheme's page shows: the layers on a reference bait, in order, with what each takes and waits."""

from typing import Any

from lamsik.core.paints.layers import KINDS, Layer
from lamsik.core.quantities import said
from lamsik.core.tank import evaluate
from lamsik.documents.rows import Document
from lamsik.documents.schemes.document import read
from lamsik.drawings.body import paint_view
from lamsik.web.bodies.paints_state import told
from lamsik.web.paints.view import LayerRow, SchemePanel, SchemeView
from lamsik.web.shared.cards import reference
from lamsik.web.shared.facts import Fact
from lamsik.web.shared.fields import fields
from lamsik.web.shared.view import Head, RowField, edit, plain
from lamsik.words import paints


def view(document: Document) -> dict[str, Any]:
    """The computed part of the state."""
    layers = read(document)
    head = Head(
        fields=fields(document),
        settled=True,
        near=None,
        sentence=paints.sentence(layers),
        selected={},
    )
    return plain(SchemeView(head, _scheme(layers)))


def _scheme(layers: tuple[Layer, ...]) -> SchemePanel:
    design = reference(layers)
    dry = {
        part.key: part.mass_g for part in evaluate.drag(design).budget.parts if part.key.startswith("coat:")
    }
    waits = said(sum(layer.wait_h for layer in layers), "time", digits=0)
    return SchemePanel(
        picture=paint_view(design),
        layers=[_row(layer, n, dry[f"coat:{layer.key}"]) for n, layer in enumerate(layers, start=1)],
        no_layers=not layers,
        warnings=told(layers),
        facts=[
            Fact(
                "dry",
                "Dry",
                said(sum(dry.values()), "mass"),
                "all layers on the reference bait",
                estimate=True,
            ),
            Fact("waits", "Waiting", waits, "all waits, one after the other"),
        ],
    )


def _row(layer: Layer, order: int, dry_g: float) -> LayerRow:
    path, kind, name = f"layers.{layer.key}", KINDS[layer.kind], layer.name
    return LayerRow(
        key=layer.key,
        order=f"{order}. {layer.kind}",
        name=RowField(f"{path}.name", f"Name of layer {order}"),
        colour=RowField(f"{path}.paint.colour", f"Colour of {name}"),
        paint=RowField(f"{path}.paint.name", f"Paint of {name}"),
        film=RowField(f"{path}.film_um", f"Dry film of {name}"),
        is_film=layer.mass_g is None,
        passes=RowField(f"{path}.passes", f"Passes of {name}"),
        pair=f"{said(layer.mass_g, 'mass')} the pair" if layer.mass_g is not None else "",
        wait=RowField(f"{path}.wait_h", f"Wait after {name}"),
        side=RowField(f"{path}.place.side", f"Side of {name}"),
        count=RowField(f"{path}.place.count", f"How many {layer.kind}"),
        has_count=kind.is_counted,
        edge=RowField(f"{path}.place.edge_share", f"Softness of {name}"),
        has_edge=kind.has_edge,
        dry=said(dry_g, "mass"),
        up=edit("up", key=layer.key),
        up_says=f"Move {name} up",
        first="it goes on first already" if order == 1 else "",
        remove=edit("remove", group="layers", key=layer.key),
        remove_says=f"Take {name} off",
    )

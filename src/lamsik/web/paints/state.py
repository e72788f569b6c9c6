"""What a scheme's page shows: the layers on a reference bait, in order, with what each takes and waits."""

from collections.abc import Sequence
from typing import Any

from lamsik.core.paints.dressed import layers_on
from lamsik.core.paints.job import MatchJob, changes
from lamsik.core.paints.laid import Laid
from lamsik.core.paints.layers import Layer
from lamsik.core.paints.masks import SHAPES
from lamsik.core.paints.place import Anchors
from lamsik.core.paints.roles import CLEARS, COLOURS, SPRAYED
from lamsik.core.paints.waiting import waiting_h
from lamsik.core.quantities import said
from lamsik.documents.rows import Document
from lamsik.documents.schemes.document import job_of, read
from lamsik.drawings.scheme import Shown, scheme_view
from lamsik.web.bodies.paints_state import patches, told
from lamsik.web.paints.view import ChosenLayer, JobRow, LayerRow, PlaceRow, SchemePanel, SchemeView
from lamsik.web.shared.cards import reference
from lamsik.web.shared.facts import Fact
from lamsik.web.shared.fields import fields
from lamsik.web.shared.live_document import Looking
from lamsik.web.shared.view import Head, RowField, edit, plain
from lamsik.words import paints

UPTO, ALL = "upto", "all"
ALONG, ROUND, WORDED = ("begins", "ends"), ("top", "bottom"), ("outline", "words")


def view(document: Document, sight: Looking) -> dict[str, Any]:
    """The computed part of the state."""
    layers = read(document)
    head = Head(
        fields=fields({**document, "match_before": None}),
        settled=not sight.is_moving,
        near=None,
        sentence=paints.sentence(layers),
        selected={},
    )
    return plain(SchemeView(head, _scheme(layers, sight, job_of(document))))


def _scheme(layers: tuple[Layer, ...], sight: Looking, job: MatchJob | None) -> SchemePanel:
    design = reference(layers)
    rows = layers_on(design)
    chosen = _looked_at(rows, sight.facing)
    key, is_upto = chosen[0].key if chosen else "", sight.looks == UPTO
    waits = said(waiting_h(layers), "time", digits=0)
    return SchemePanel(
        picture=scheme_view(design, Shown(key, is_upto, sight.is_moving)),
        layers=[_row(layer, on, n) for n, (layer, on) in enumerate(rows, start=1)],
        no_layers=not layers,
        chosen=[_chosen(*chosen)] if chosen else [],
        facing=key,
        looks=UPTO if is_upto else ALL,
        warnings=told(design, patches(), _free(layers)),
        facts=[
            Fact(
                "dry",
                "Dry",
                said(sum(on.mass_g for _, on in rows), "mass"),
                "all layers on the reference bait, each over the surface its shape takes",
                estimate=True,
            ),
            Fact(
                "waits",
                "Waiting",
                waits,
                "recoat waits one after the other, and the cure of the last clear",
            ),
        ],
        job=_job(layers, job),
        job_says=paints.job(job, layers),
        in_job=job is not None,
    )


def _job(layers: tuple[Layer, ...], job: MatchJob | None) -> list[JobRow]:
    """Each layer of a scheme that is matched, with what of it changed."""
    if job is None:
        return []
    changed = {one.now.key: paints.changed(one) for one in changes(job.before, layers) if one.now}
    return [
        JobRow(
            one.key,
            changed.get(one.key, f"{one.name}, {'locked' if one.locked else 'may change'}"),
            f"layers.{one.key}.locked",
            f"{one.name} is locked",
            one.locked,
        )
        for one in layers
    ]


def _looked_at(rows: Sequence[tuple[Layer, Laid]], key: str) -> tuple[Layer, Laid] | None:
    """The layer that was chosen; on a page that is opened the last of the pattern."""
    patterns = [row for row in rows if row[0].does == COLOURS]
    return next((row for row in rows if row[0].key == key), (patterns or rows)[-1] if rows else None)


def _free(layers: tuple[Layer, ...]) -> list[Layer]:
    """Layers that ask for nothing the reference bait lacks: it has no joint and no hanger."""
    return [one for one in layers if not Anchors().lacks(one.place)]


def _takes(on: Laid) -> str:
    return f"{said(100.0 * on.share, 'percent', 0)} of the skin, {said(on.area_mm2 / 100.0, 'area')}"


def _row(layer: Layer, on: Laid, order: int) -> LayerRow:
    return LayerRow(
        key=layer.key,
        order=str(order),
        name=layer.name,
        kind=paints.KINDS[layer.kind],
        colour=layer.paint.colour,
        takes=f"{said(100.0 * on.share, 'percent', 0)}",
        dry=said(on.mass_g, "mass", 3),
        locked=layer.locked,
        up=edit("up", key=layer.key),
        up_says=f"Move {layer.name} up",
        first="it goes on first already" if order == 1 else "",
        stays="it is locked: unlock it first" if layer.locked else "",
        remove=edit("remove", group="layers", key=layer.key),
        remove_says=f"Take {layer.name} off",
    )


def _chosen(layer: Layer, on: Laid) -> ChosenLayer:
    name = layer.name

    def at(path: str, says: str) -> RowField:
        return RowField(f"layers.{layer.key}.{path}", f"{says} of {name}")

    return ChosenLayer(
        key=layer.key,
        title=paints.KINDS[layer.kind].capitalize(),
        from_shelf=edit("shelf", key=layer.key, code="$"),
        name=at("name", "Name"),
        colour=at("paint.colour", "Colour"),
        paint=at("paint.name", "Paint on the rack"),
        paint_kind=at("paint.kind", "Kind of paint"),
        chemistry=at("paint.chemistry", "Chemistry"),
        covering=at("paint.covering_percent", "Covering power"),
        solids=at("paint.solids_percent", "Solids"),
        film=at("film_um", "Dry film"),
        is_film=layer.mass_g is None,
        mass=at("mass_g", "Mass"),
        is_part=layer.mass_g is not None,
        passes=at("passes", "Passes"),
        by=at("by", "How it goes on"),
        pressure=at("pressure_bar", "Air"),
        distance=at("distance_mm", "Distance"),
        is_sprayed=layer.by == SPRAYED,
        eye=at("eye", "Kind of eyes"),
        wait=at("wait_h", "Wait after"),
        window=at("window_h", "Longest wait after"),
        cure=at("cure_h", "Cure"),
        is_clear=layer.does == CLEARS,
        side=at("place.side", "Side"),
        shape=at("place.shape", "Shape"),
        place=[_place(layer, name) for name in SHAPES[layer.place.shape].uses],
        note=at("note", "Note"),
        intended=at("intended", "Why it is meant so"),
        scuff=f"layers.{layer.key}.scuff",
        scuffed=layer.scuff,
        scuff_says=f"{name} is scuffed before the next",
        lock=f"layers.{layer.key}.locked",
        locked=layer.locked,
        lock_says=f"{name} stays as it is",
        takes=f"{_takes(on)}, {said(on.mass_g, 'mass', 3)} dry",
    )


def _place(layer: Layer, field: str) -> PlaceRow:
    path, label = f"layers.{layer.key}.place.{field}", paints.place_word(layer.place.shape, field)
    says, is_station = f"{label} of {layer.name}", field in (*ALONG, *ROUND)
    figure = f"{path}.at_percent" if is_station else path
    return PlaceRow(
        key=field,
        label=label,
        anchor=RowField(f"{path}.anchor", f"{label} from, of {layer.name}"),
        has_anchor_along=field in ALONG,
        has_anchor_round=field in ROUND,
        figure=RowField(figure, says if field not in WORDED else ""),
        has_figure=field not in WORDED,
        more=RowField(f"{path}.more_mm", f"{label}, and so far on, of {layer.name}"),
        outline=RowField(path, says if field == "outline" else ""),
        has_outline=field == "outline",
        words=RowField(path, says if field == "words" else ""),
        has_words=field == "words",
    )

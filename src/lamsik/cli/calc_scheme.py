"""`lamsik calc scheme`: what each layer of a scheme takes of a body, as JSON with units in the names."""

from dataclasses import replace
from pathlib import Path
from typing import Any

from lamsik.core.paints.dressed import layers_on
from lamsik.core.paints.laid import Laid
from lamsik.core.paints.layers import Layer, warned
from lamsik.core.shapes.design import Design
from lamsik.core.shapes.solid import solid
from lamsik.documents.body.document import to_design
from lamsik.documents.schemes.document import SCHEME, read
from lamsik.formats import document_file
from lamsik.formats.body_file import opened


def calc_scheme(scheme: Path, body: Path) -> dict[str, Any]:
    """A scheme laid on a body: surface, dry film, mass and centre of every layer."""
    layers = read(document_file.read(SCHEME, scheme.read_bytes()))
    return report(replace(to_design(opened(body.read_bytes())[0]), layers=layers))


def report(design: Design) -> dict[str, Any]:
    """What the layers on a design take of it."""
    rows = layers_on(design)
    return {
        "format": "lamsik-scheme-laid",
        "version": 1,
        "body": design.name,
        "area_cm2": round(solid(design.body).area_mm2 / 100.0, 4),
        "mass_g": round(sum(on.mass_g for _, on in rows), 4),
        "layers": [_layer(layer, on) for layer, on in rows],
        "warnings": [
            {"layer": one.layer, "what": one.name, "other": one.other} for one in warned(design.layers)
        ],
    }


def _layer(layer: Layer, on: Laid) -> dict[str, Any]:
    return {
        "key": layer.key,
        "kind": layer.kind,
        "name": layer.name,
        "area_cm2": round(on.area_mm2 / 100.0, 4),
        "share_percent": round(100.0 * on.share, 3),
        "film_um": layer.dry_um,
        "volume_ml": round(on.film_ml, 5),
        "mass_g": round(on.mass_g, 5),
        "centre_mm": [round(one, 3) for one in on.at_mm],
    }

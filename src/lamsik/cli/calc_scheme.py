"""`lamsik calc scheme`: what each layer of a scheme takes of a body, as JSON with units in the names."""

import json
from collections.abc import Sequence
from dataclasses import replace
from pathlib import Path
from typing import Any

from lamsik.core.paints.dressed import layers_on
from lamsik.core.paints.laid import Laid
from lamsik.core.paints.layers import Layer, warned
from lamsik.core.paints.odd import Warned
from lamsik.core.paints.other_skins import laid_on_other, skin_of_blade, skin_of_float
from lamsik.core.paints.rules import ruled
from lamsik.core.paints.skin import PaintedSkin
from lamsik.core.shapes.design import Design
from lamsik.core.shapes.solid import solid
from lamsik.documents.blades.document import BLADE, blade_of
from lamsik.documents.body.document import to_design
from lamsik.documents.floats.document import to_float
from lamsik.documents.floats.edits import FLOAT
from lamsik.documents.schemes.document import SCHEME, read
from lamsik.formats import document_file
from lamsik.formats.body_file import opened


def calc_scheme(scheme: Path, body: Path) -> dict[str, Any]:
    """A scheme laid on a body, a float or a blade: surface, dry film, mass and centre of every layer."""
    layers, data = read(document_file.read(SCHEME, scheme.read_bytes())), body.read_bytes()
    other = OTHERS.get(_format_of(data))
    if other is None:
        return report(replace(to_design(opened(data)[0]), layers=layers))
    name, skin = other(data)
    return _report(name, skin.area_mm2, laid_on_other(layers, skin), warned(layers))


def _format_of(data: bytes) -> str:
    """What a file says it is; empty where it says nothing that can be read."""
    try:
        content = json.loads(data)
    except ValueError:
        return ""
    return str(content.get("format", "")) if isinstance(content, dict) else ""


def _float(data: bytes) -> tuple[str, PaintedSkin]:
    design = to_float(document_file.read(FLOAT, data))
    return design.name, skin_of_float(design)


def _blade(data: bytes) -> tuple[str, PaintedSkin]:
    blade = blade_of(document_file.read(BLADE, data))
    return blade.name, skin_of_blade(blade)


OTHERS = {FLOAT.format: _float, BLADE.format: _blade}
"""By the format of their files."""


def report(design: Design) -> dict[str, Any]:
    """What the layers on a design take of it."""
    return _report(design.name, solid(design.body).area_mm2, layers_on(design), ruled(design))


def _report(
    name: str, area_mm2: float, rows: Sequence[tuple[Layer, Laid]], warnings: Sequence[Warned]
) -> dict[str, Any]:
    return {
        "format": "lamsik-scheme-laid",
        "version": 1,
        "body": name,
        "area_cm2": round(area_mm2 / 100.0, 4),
        "mass_g": round(sum(on.mass_g for _, on in rows), 4),
        "layers": [_layer(layer, on) for layer, on in rows],
        "warnings": [{"layer": one.layer, "what": one.name, "other": one.other} for one in warnings],
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

"""Designs as lists show them: kept by their content, since lists draw the same bodies at every visit."""

import json
from collections.abc import Callable, Mapping
from dataclasses import replace
from functools import lru_cache
from typing import Any

from markupsafe import Markup

from lamsik.core.materials import USUAL_WOOD, body_material
from lamsik.core.paints.layers import Layer
from lamsik.core.quantities import kept_as_said
from lamsik.core.shapes.design import Design, Want, host_of
from lamsik.core.shapes.forms import form
from lamsik.core.water import Water
from lamsik.documents.blades.document import blade_of
from lamsik.documents.body.document import new_document, to_design
from lamsik.documents.floats.document import to_float
from lamsik.documents.schemes.document import layers_of
from lamsik.drawings.blade import picture as blade_picture
from lamsik.drawings.body import thumbnail
from lamsik.drawings.floats import thumbnail as float_thumbnail
from lamsik.drawings.svg import markup

Content = Mapping[str, Any]


def design_of(content: Content) -> Design:
    """The design a stored document describes."""
    return _design(_text(content))


def card(content: Content, name: str) -> Markup:
    """Its small side view; `name` keeps the picture's own ids apart on a page."""
    return drawn(_design(_text(content)), name)


@kept_as_said(64)
def reference(layers: tuple[Layer, ...]) -> Design:
    """The silhouette schemes are shown on when no design is at hand."""
    wood = host_of(body_material(USUAL_WOOD))
    design = to_design(new_document("Reference", form("slim"), wood, Water(), Want()))
    return replace(design, layers=layers)


def scheme(content: Content) -> Markup:
    """A scheme on the reference shape."""
    return drawn(reference(layers_of(content)), "card")


def dressed(body: Content, painted: Content) -> Markup:
    """A body in a scheme, bare of what is fitted."""
    return drawn(
        replace(
            _design(_text(body)), hardware=(), ballast=(), lip=None, trials=(), layers=layers_of(painted)
        ),
        "swatch",
    )


def of_float(content: Content) -> Markup:
    """A float lying on its side."""
    return markup(float_thumbnail(to_float(dict(content))))


def of_blade(content: Content) -> Markup:
    """A blade, flat and bent."""
    return markup(blade_picture(blade_of(dict(content))))


def picture(kind: str, content: Content) -> Markup:
    """The small picture of a document of a kind."""
    return PICTURES[kind](content)


PICTURES: Mapping[str, Callable[[Content], Markup]] = {
    "body": lambda content: card(content, "card"),
    "scheme": scheme,
    "float": of_float,
    "blade": of_blade,
}


def _text(content: Content) -> str:
    return json.dumps(content, sort_keys=True)


@lru_cache(maxsize=256)
def _design(text: str) -> Design:
    return to_design(json.loads(text))


@lru_cache(maxsize=512)
def drawn(design: Design, name: str) -> Markup:
    """A design's small side view, kept by what it is."""
    return markup(thumbnail(design, name))

"""Designs as lists show them: kept by their content, since lists draw the same bodies at every visit."""

import json
from collections.abc import Mapping
from dataclasses import replace
from functools import lru_cache
from typing import Any

from markupsafe import Markup

from lamsik.core.paints.layers import Layer
from lamsik.core.shapes.design import Design, Host, Want
from lamsik.core.shapes.forms import form
from lamsik.core.water import Water
from lamsik.documents.body.document import new_document, to_design
from lamsik.documents.schemes.document import layers_of
from lamsik.drawings.body import thumbnail
from lamsik.drawings.svg import markup

Content = Mapping[str, Any]


def design_of(content: Content) -> Design:
    """The design a stored document describes."""
    return _design(_text(content))


def card(content: Content, name: str) -> Markup:
    """Its small side view; `name` keeps the picture's own ids apart on a page."""
    return drawn(_design(_text(content)), name)


@lru_cache(maxsize=64)
def reference(layers: tuple[Layer, ...]) -> Design:
    """The silhouette schemes are shown on when no design is at hand."""
    design = to_design(new_document("Reference", form("slim"), Host("basswood", 0.42, 0.04), Water(), Want()))
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


def _text(content: Content) -> str:
    return json.dumps(content, sort_keys=True)


@lru_cache(maxsize=256)
def _design(text: str) -> Design:
    return to_design(json.loads(text))


@lru_cache(maxsize=512)
def drawn(design: Design, name: str) -> Markup:
    """A design's small side view, kept by what it is."""
    return markup(thumbnail(design, name))

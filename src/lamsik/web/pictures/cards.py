"""Designs as lists show them: kept by their content, since lists draw the same bodies at every visit."""

import json
from collections.abc import Mapping
from functools import lru_cache
from typing import Any

from markupsafe import Markup

from lamsik.core.route.steps import steps
from lamsik.core.shapes.design import Design
from lamsik.formats.body_document import to_design
from lamsik.web.pictures.body import thumbnail
from lamsik.web.pictures.svg import markup

Content = Mapping[str, Any]


def design_of(content: Content) -> Design:
    """The design a stored document describes."""
    return _design(_text(content))


def card(content: Content, name: str) -> Markup:
    """Its small side view; `name` keeps the picture's own ids apart on a page."""
    return drawn(_design(_text(content)), name)


def route(content: Content) -> tuple[tuple[str, str], ...]:
    """Key and name of every step of a piece made so."""
    return _route(_text(content))


def _text(content: Content) -> str:
    return json.dumps(content, sort_keys=True)


@lru_cache(maxsize=256)
def _design(text: str) -> Design:
    return to_design(json.loads(text))


@lru_cache(maxsize=512)
def drawn(design: Design, name: str) -> Markup:
    """A design's small side view, kept by what it is."""
    return markup(thumbnail(design, name))


@lru_cache(maxsize=256)
def _route(text: str) -> tuple[tuple[str, str], ...]:
    return tuple((step.key, step.name) for step in steps(_design(text)))

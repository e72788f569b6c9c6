"""What a shop has to choose from when a design is made."""

from collections.abc import Mapping
from dataclasses import dataclass, field

from lamsik.core.paints.layers import Layer
from lamsik.core.shapes.ballast_holes import Slug
from lamsik.core.shapes.hardware import Item, Lip
from lamsik.core.water import Water


@dataclass(frozen=True)
class Catalogue:
    """What the shop has to choose from, by code or id; of schemes also their version."""

    items: Mapping[str, Item] = field(default_factory=dict)
    lips: Mapping[str, Lip] = field(default_factory=dict)
    slugs: Mapping[str, Slug] = field(default_factory=dict)
    waters: Mapping[str, Water] = field(default_factory=dict)
    schemes: Mapping[str, tuple[Layer, ...]] = field(default_factory=dict)
    versions: Mapping[str, int] = field(default_factory=dict)

"""A colour as people tell it apart: CIE Lab (D65, 2°)."""

from dataclasses import dataclass
from typing import Annotated

import numpy as np

from lamsik.core.limits import Between, held
from lamsik.core.shapes.curves import Array


@dataclass(frozen=True)
class Lab:
    """A colour: its lightness, how red it is (or green, below 0), how yellow (or blue)."""

    lightness: Annotated[float, Between(0, 100, "", "L*, 0 black to 100 white")] = 100.0
    red: Annotated[float, Between(-128, 128, "", "a*, green below 0, red over it")] = 0.0
    yellow: Annotated[float, Between(-128, 128, "", "b*, blue below 0, yellow over it")] = 0.0

    def __post_init__(self) -> None:
        held(self)

    @property
    def row(self) -> Array:
        """L*, a*, b*, (3,)."""
        return np.array([self.lightness, self.red, self.yellow])

    @property
    def said(self) -> str:
        """As it is written."""
        return f"L {self.lightness:.1f}, a {self.red:.1f}, b {self.yellow:.1f}"

"""Blocks and sticks: what a body is cut from, what is wasted, how many a stick gives, and the grain."""

from dataclasses import dataclass
from math import floor

from lamsik.core.errors import finite_between
from lamsik.core.shapes.body import Body
from lamsik.core.shapes.solid import solid


@dataclass(frozen=True)
class Block:
    """A block for one body: length, depth, width [mm], volume [ml], share of it that goes to waste."""

    length_mm: float
    depth_mm: float
    width_mm: float
    volume_ml: float
    waste_share: float


@dataclass(frozen=True)
class Cutting:
    """How a stick is laid out: pieces along, across its width and its thickness, rests [mm], and how the
    body lies.
    """

    along: int
    across: int
    layers: int
    rest_mm: float
    on_edge: bool

    @property
    def pieces(self) -> int:
        """Blocks out of one stick."""
        return self.along * self.across * self.layers


def block(body: Body, spare_mm: float) -> Block:
    """The block with something to spare on every side [mm]."""
    finite_between("spare_mm", spare_mm, 0.0, 50.0, "mm")
    length, depth, width = (size + 2 * spare_mm for size in (body.length_mm, body.depth_mm, body.width_mm))
    volume = length * depth * width / 1000.0
    return Block(length, depth, width, volume, 1.0 - solid(body).volume_ml / volume)


KERF_MM, SPARE_MM = 1.5, 3.0
"""What a saw takes, and what is left round a blank that is cut out of a block."""
STICK_MM = (1000.0, 40.0, 25.0)
"""A stick as it is bought: length, width, thickness."""


def pieces_along(stick_mm: float, piece_mm: float, kerf_mm: float) -> int:
    """How many pieces a stick gives: n pieces need n − 1 cuts between them."""
    return max(floor((stick_mm + kerf_mm + 1e-9) / (piece_mm + kerf_mm)), 0)


def cutting(body: Body, stick_mm: tuple[float, float, float], kerf_mm: float, spare_mm: float) -> Cutting:
    """The better of two ways to lay the block in a stick (length × width × thickness [mm]): flat or on
    edge.
    """
    for name, value in zip(("stick length", "stick width", "stick thickness"), stick_mm, strict=True):
        finite_between(name, value, 1.0, 6000.0, "mm")
    finite_between("kerf_mm", kerf_mm, 0.0, 20.0, "mm")
    blanks, need = [], block(body, spare_mm)
    for on_edge, wide, thick in ((False, need.depth_mm, need.width_mm), (True, need.width_mm, need.depth_mm)):
        along = pieces_along(stick_mm[0], need.length_mm, kerf_mm)
        across, layers = pieces_along(stick_mm[1], wide, kerf_mm), pieces_along(stick_mm[2], thick, kerf_mm)
        rest = stick_mm[0] - along * need.length_mm - max(along - 1, 0) * kerf_mm
        blanks.append(Cutting(along, across, layers, rest, on_edge))
    return max(blanks, key=lambda row: row.pieces)

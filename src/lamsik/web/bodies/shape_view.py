"""What Shapes binds of a body's parts."""

from collections.abc import Sequence
from dataclasses import dataclass

from lamsik.web.shared.view import Panel, Removable


@dataclass(frozen=True, kw_only=True)
class HardwareRow(Removable):
    """A part on the body: its mass, its place and the paths of the figures that move it."""

    name: str
    mass: str
    place: str
    estimate: bool
    path: str
    movable: bool
    says: str
    up_path: str
    high: bool
    up_says: str


@dataclass(frozen=True)
class LipRow:
    """What the lip's angle does."""

    says: str


@dataclass(frozen=True, kw_only=True)
class JointRow(Removable):
    """A joint with the paths of its figures."""

    x: str
    slant: str
    kerf: str
    hinge: str
    is_hinge: bool
    kind_path: str
    says: str
    name: str


@dataclass(frozen=True)
class SegmentMaterial:
    """A segment of a group and its own material, empty where it is of the body's."""

    key: str
    label: str
    name: str


@dataclass(frozen=True)
class SegmentRow:
    """A group of segments that moves as one, with its own verdict."""

    key: str
    name: str
    volume: str
    mass: str
    net: str
    says: str
    chain: str
    holds: str
    materials: Sequence[SegmentMaterial]


@dataclass(frozen=True)
class Figure:
    """A typed figure of a row: its label and its path in the document."""

    key: str
    label: str
    path: str


@dataclass(frozen=True, kw_only=True)
class InsideRow(Removable):
    """A poured end or a chamber with its figures."""

    name: str
    says: str
    inputs: Sequence[Figure]


@dataclass(frozen=True)
class MetalRow:
    """The chambers' balls in one metal."""

    key: str
    metal: str
    balls: str
    mass: str
    water: str


@dataclass(frozen=True)
class Metals(Panel):
    """The same chambers with each metal, and what to know before printing."""

    metals: Sequence[MetalRow]
    any_metal: bool
    sink_words: str

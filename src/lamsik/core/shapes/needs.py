"""What each kind of body cannot do without, and which of it is missing."""

from collections.abc import Callable
from dataclasses import dataclass

from lamsik.core.paints.layers import CLEARS, GROUNDS, SEALS
from lamsik.core.shapes.design import Design


@dataclass(frozen=True)
class Need:
    """A missing thing: its name, and why the body needs it."""

    key: str
    name: str
    why: str


Check = Callable[[Design], bool]


def _has_kind(kind: str) -> Check:
    return lambda design: any(p.item.kind == kind for p in design.hardware)


def _has_layer(does: str) -> Check:
    return lambda design: any(layer.does == does for layer in design.layers)


def _held(design: Design) -> bool:
    hangers = {p.key for p in design.hardware if p.item.kind == "hanger"}
    hooks = [p for p in design.hardware if p.item.kind == "hook"]
    rings = {p.key: p.hung_on for p in design.hardware if p.item.kind == "ring"}
    return all((rings.get(hook.hung_on or "", hook.hung_on)) in hangers for hook in hooks)


def _glued(design: Design) -> bool:
    return design.glue_g > 0 or not (design.ballast or design.lip or design.hardware)


def _covered(design: Design) -> bool:
    return all(hole.cover_mm >= 0.5 for hole in design.ballast)


_BAIT_RULES: tuple[tuple[Need, Check, tuple[str, ...]], ...] = (
    (
        Need("seal", "Seal coat", "bare wood drinks water through every pinhole and swells the paint off"),
        _has_layer(SEALS),
        ("wood",),
    ),
    (
        Need("primer", "Primer", "colour needs a keyed, even ground"),
        _has_layer(GROUNDS),
        ("wood", "foam", "cast", "print"),
    ),
    (
        Need("clear", "Clear coat", "hooks scratch bare colour within a day"),
        _has_layer(CLEARS),
        ("wood", "foam", "cast", "print"),
    ),
    (
        Need("tie", "Line tie", "there is nothing to tie the line to"),
        _has_kind("line_tie"),
        ("wood", "foam", "cast", "print"),
    ),
    (
        Need("hanger", "Hook hanger", "each hook hangs on a hanger (through a ring), not on the body"),
        _held,
        ("wood", "foam", "cast", "print"),
    ),
    (
        Need("hook", "Hook", "a bait without hooks is a model; hooks also hang low and steady it"),
        _has_kind("hook"),
        ("wood", "foam", "cast", "print"),
    ),
    (
        Need("glue", "Glue", "screw eyes, lip and slugs are glued in: allow about 0.3 g"),
        _glued,
        ("wood", "foam", "cast", "print"),
    ),
    (
        Need("filler", "Filler over the ballast", "an open hole floods and shows through the paint"),
        _covered,
        ("wood", "foam", "cast"),
    ),
    (
        Need("wire", "Through-wire", "screw eyes pull out of soft foam"),
        _has_kind("wire"),
        ("foam",),
    ),
)

_FLOAT_RULES: tuple[tuple[Need, Check, tuple[str, ...]], ...] = (
    (
        Need("seal", "Seal coat", "a bare stem drinks water and the rating drifts within the hour"),
        _has_layer(SEALS),
        ("wood",),
    ),
    (
        Need("clear", "Varnish", "paint alone chips where the rubbers sit"),
        _has_layer(CLEARS),
        ("wood", "foam"),
    ),
    (
        Need("tie", "Line eye", "a float needs an eye or rubbers for the line"),
        _has_kind("line_tie"),
        ("wood", "foam", "print"),
    ),
)


def missing(design: Design) -> tuple[Need, ...]:
    """What this design's kind of body cannot do without and has not got, in order of work."""
    rules = _FLOAT_RULES if design.purpose == "float" else _BAIT_RULES
    return tuple(need for need, has, kinds in rules if design.host.construction in kinds and not has(design))

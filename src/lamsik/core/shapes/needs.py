"""What each kind of body cannot do without, and which of it is missing."""

from collections.abc import Callable
from dataclasses import dataclass

from lamsik.core.findings import Finding, finding
from lamsik.core.paints.roles import CLEARS, GROUNDS, SEALS
from lamsik.core.shapes.design import Design


@dataclass(frozen=True)
class Need:
    """A missing thing: its name, and why the body needs it."""

    key: str
    name: str
    why: Finding


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
        Need("seal", "Seal coat", finding("bare-wood-drinks")),
        _has_layer(SEALS),
        ("wood",),
    ),
    (
        Need("primer", "Primer", finding("colour-needs-ground")),
        _has_layer(GROUNDS),
        ("wood", "foam", "cast", "print"),
    ),
    (
        Need("clear", "Clear coat", finding("hooks-scratch")),
        _has_layer(CLEARS),
        ("wood", "foam", "cast", "print"),
    ),
    (
        Need("tie", "Line tie", finding("nothing-to-tie-to")),
        _has_kind("line_tie"),
        ("wood", "foam", "cast", "print"),
    ),
    (
        Need("hanger", "Hook hanger", finding("hook-needs-hanger")),
        _held,
        ("wood", "foam", "cast", "print"),
    ),
    (
        Need("hook", "Hook", finding("bait-without-hooks")),
        _has_kind("hook"),
        ("wood", "foam", "cast", "print"),
    ),
    (
        Need("glue", "Glue", finding("glued-in")),
        _glued,
        ("wood", "foam", "cast", "print"),
    ),
    (
        Need("filler", "Filler over the ballast", finding("open-hole-floods")),
        _covered,
        ("wood", "foam", "cast"),
    ),
    (
        Need("wire", "Through-wire", finding("screw-eyes-pull-out")),
        _has_kind("wire"),
        ("foam",),
    ),
)

_FLOAT_RULES: tuple[tuple[Need, Check, tuple[str, ...]], ...] = (
    (
        Need("seal", "Seal coat", finding("bare-stem-drinks")),
        _has_layer(SEALS),
        ("wood",),
    ),
    (
        Need("clear", "Varnish", finding("paint-alone-chips")),
        _has_layer(CLEARS),
        ("wood", "foam"),
    ),
    (
        Need("tie", "Line eye", finding("float-needs-eye")),
        _has_kind("line_tie"),
        ("wood", "foam", "print"),
    ),
)


def missing(design: Design) -> tuple[Need, ...]:
    """What this design's kind of body cannot do without and has not got, in order of work."""
    rules = _FLOAT_RULES if design.purpose == "float" else _BAIT_RULES
    return tuple(need for need, has, kinds in rules if design.host.construction in kinds and not has(design))

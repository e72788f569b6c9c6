"""The finish map of a body: which of its parts may be painted, cleared, brushed, dipped, which are masked and
how, and what is looked at before a piece counts as finished.
"""

from collections.abc import Sequence
from dataclasses import dataclass

from lamsik.core.paints.dressed import anchors_on
from lamsik.core.paints.eyes import EYE_KINDS
from lamsik.core.paints.roles import CLEARS, FITTED
from lamsik.core.shapes.body import station
from lamsik.core.shapes.design import Design
from lamsik.core.shapes.hardware import Placement, lip_point, seat_point

PAINT, CLEAR, BRUSH, _ = MAY = ("paint", "clear", "brush", "dip")
"""What may be done to a zone."""
TAPE, PLUG, BAG, GREASE, OFF = "tape", "plug", "bag", "grease", "off"
"""How a zone is kept bare: taped over, plugged, put in a bag, greased, taken off."""
RUNS, TIES, HANGERS, FREE, SPINS, BARE, CLEAN, DRY, WHOLE, LEVEL = CHECKS = (
    "no_runs",
    "ties_clear",
    "hangers_clear",
    "pivots_free",
    "rotor_spins",
    "contacts_bare",
    "lip_clean",
    "hair_dry",
    "tail_whole",
    "eyes_level",
)
"""What is looked at on a finished piece."""
STOPPED = "dip_stopped"
"""What is looked at of a coat that is dipped no deeper than a joint lets it: it does not count before."""


@dataclass(frozen=True)
class ZoneKind:
    """What is true of zones of a kind.

    Args:
        may: what of `MAY` may be done there.
        mask: how it is kept bare; empty where nothing has to be.
        check: what of `CHECKS` is looked at in the end; empty where nothing is.
        stops_a_dip: whether a clear that the body is dipped in must not reach it, masked or not.
        spoilt_by_clear: whether a clear ruins it, so that a coat all over is warned of.
    """

    may: tuple[str, ...] = ()
    mask: str = ""
    check: str = ""
    stops_a_dip: bool = False
    spoilt_by_clear: bool = False


ZONE_KINDS = {
    "body": ZoneKind(MAY, check=RUNS),
    "joint": ZoneKind((PAINT, CLEAR, BRUSH), check=FREE, stops_a_dip=True),
    "pivot": ZoneKind((), GREASE, FREE, stops_a_dip=True),
    "rotor": ZoneKind((), OFF, SPINS, stops_a_dip=True),
    "lip": ZoneKind((), TAPE, CLEAN),
    "soft tail": ZoneKind((), OFF, WHOLE, stops_a_dip=True, spoilt_by_clear=True),
    "hair": ZoneKind((PAINT,), BAG, DRY, stops_a_dip=True, spoilt_by_clear=True),
    "line tie": ZoneKind((), PLUG, TIES),
    "hanger": ZoneKind((), PLUG, HANGERS),
    "contact": ZoneKind((), TAPE, BARE, stops_a_dip=True, spoilt_by_clear=True),
    "eye": ZoneKind(MAY, check=LEVEL),
    "eye pit": ZoneKind((PAINT, BRUSH), TAPE, LEVEL),
    "kept eye": ZoneKind((), TAPE, LEVEL),
}
"""By name."""

OF_PARTS = {
    "line_tie": "line tie",
    "hanger": "hanger",
    "joint": "pivot",
    "rotor": "rotor",
    "soft_tail": "soft tail",
    "hair": "hair",
    "skirt": "hair",
    "contact": "contact",
}
"""The zone that a part makes, by its kind."""


@dataclass(frozen=True)
class FinishZone:
    """A zone of a body: its key, its kind, its name where it has one, and what of the side view it takes:
    from x to x and from z to z [mm].
    """

    key: str
    kind: str
    name: str
    from_mm: float
    to_mm: float
    low_mm: float
    high_mm: float

    @property
    def of(self) -> ZoneKind:
        """What is true of its kind."""
        return ZONE_KINDS[self.kind]


def zones_on(design: Design) -> tuple[FinishZone, ...]:
    """The finish map of a design: the body itself first, then what is on it from the nose on."""
    body = design.body
    rows = [FinishZone("body", "body", "", 0.0, body.length_mm, *_reach(design, 0.0, body.length_mm))]
    rows += [_joint(design, n) for n in range(len(body.joints))]
    rows += [_part(design, one) for one in design.hardware if one.item.kind in OF_PARTS]
    if design.lip is not None:
        root, tip = (lip_point(design.body, design.lip, far) for far in (0.0, design.lip.length_mm))
        (left, right), (low, high) = sorted((root[0], tip[0])), sorted((root[2], tip[2]))
        rows.append(FinishZone("lip", "lip", design.lip.name, left, right, low, high))
    rows += _eyes(design)
    return (rows[0], *sorted(rows[1:], key=lambda one: one.from_mm))


def _reach(design: Design, from_mm: float, to_mm: float) -> tuple[float, float]:
    """Lowest and highest of the body over a stretch of it, z [mm]."""
    length = design.body.length_mm
    stations = [min(max(x, 0.0), length) for x in (from_mm, (from_mm + to_mm) / 2, to_mm)]
    outline = [station(design.body, x) for x in stations]
    return min(one.bottom_mm for one in outline), max(one.top_mm for one in outline)


def _joint(design: Design, n: int) -> FinishZone:
    joint, cuts = design.body.joints[n], design.body.cuts[n]
    low, high = _reach(design, joint.fore_mm, joint.aft_mm)
    at = [cut.at_height(z) for cut in cuts for z in (low, high)]
    return FinishZone(f"joint:{joint.key}", "joint", "", min(at), max(at), low, high)


def _part(design: Design, placed: Placement) -> FinishZone:
    item, kind = placed.item, OF_PARTS[placed.item.kind]
    x, _, z = seat_point(design.body, placed, design.lip)
    half = max(item.wire_mm, 2.0)
    low, high = _reach(design, x, x) if kind == "pivot" else (z, z)
    return FinishZone(f"part:{placed.key}", kind, item.name, x - half, x + half, low - half, high + half)


def _eyes(design: Design) -> list[FinishZone]:
    rows = []
    last = max((n for n, one in enumerate(design.layers) if one.does == CLEARS), default=-1)
    anchors = anchors_on(design)
    for n, layer in enumerate(design.layers):
        if layer.does == FITTED:
            kind = EYE_KINDS[layer.eye]
            name = "kept eye" if kind.is_there else "eye pit" if kind.may_be_last and n > last >= 0 else "eye"
            at = anchors.x_mm(layer.place.begins, design.body.length_mm)
            low, high = _reach(design, at, at)
            half = max(layer.place.size_share * design.body.depth_mm + layer.place.size_mm, 2.0) / 2
            middle = high - anchors.eye_round * (high - low)
            rows.append(
                FinishZone(
                    f"eyes:{layer.key}", name, layer.name, at - half, at + half, middle - half, middle + half
                )
            )
    return rows


def checks_of(zones: Sequence[FinishZone]) -> tuple[str, ...]:
    """What is looked at before a piece counts as finished, each once."""
    asked = {zone.of.check for zone in zones if zone.of.check}
    return tuple(check for check in CHECKS if check in asked)


def masked(zones: Sequence[FinishZone]) -> tuple[FinishZone, ...]:
    """What is to be masked before paint, from the nose on."""
    return tuple(zone for zone in zones if zone.of.mask)

"""Changing a design's size: the shape scales, everything on it keeps its place in proportion, hardware its
size.
"""

from collections.abc import Sequence
from dataclasses import dataclass, replace
from math import log

from lamsik.core.errors import finite_between
from lamsik.core.shapes.body import Body
from lamsik.core.shapes.curves import Curve
from lamsik.core.shapes.design import Design, Host
from lamsik.core.shapes.inside import stretched
from lamsik.core.shapes.solid import solid


def with_length(design: Design, length_mm: float) -> Design:
    """The design at another length [mm]; depth and width stay, hardware sizes too (they come from stock)."""
    factor = length_mm / design.body.length_mm
    body = _lengthened(design.body, length_mm)  # a length that cannot be is refused as such
    lip = replace(design.lip, x_mm=design.lip.x_mm * factor) if design.lip else None
    return replace(
        design,
        body=body,
        host=_stretched(design.host, factor, 1.0),
        hardware=tuple(p if p.seat == "lip" else replace(p, x_mm=p.x_mm * factor) for p in design.hardware),
        ballast=tuple(
            replace(h, x_mm=h.x_mm * factor, beside_mm=h.beside_mm * factor) for h in design.ballast
        ),
        lip=lip,
        pours=tuple(stretched(p, factor) for p in design.pours),
        cavities=tuple(replace(c, x_mm=c.x_mm * factor) for c in design.cavities),
        trials=tuple(replace(t, x_mm=t.x_mm * factor) for t in design.trials),
    )


def scaled(design: Design, factor: float) -> Design:
    """The whole body larger or smaller by a factor: volume goes with its cube, skin with its square."""
    body = design.body
    grown = replace(
        body,
        skin=(
            replace(body.skin, width_mm=body.skin.width_mm * factor, depth_mm=body.skin.depth_mm * factor)
            if body.skin
            else None
        ),
        top=_times(body.top, factor),
        bottom=_times(body.bottom, factor),
        half_width=_times(body.half_width, factor),
        widest=_times(body.widest, factor) if body.widest else None,
    )
    host = _stretched(design.host, 1.0, factor)
    return with_length(replace(design, body=grown, host=host), body.length_mm * factor)


def _stretched(host: Host, along: float, across: float) -> Host:
    """The material of a body stretched along and across."""
    if host.uneven_mm is None:
        return host
    x, y, z = host.uneven_mm
    return replace(host, uneven_mm=(along * x, across * y, across * z))


def _lengthened(body: Body, length_mm: float) -> Body:
    """The body at another length; kerfs keep the saw's width."""
    factor = length_mm / body.length_mm
    skin = replace(body.skin, length_mm=length_mm) if body.skin else None
    return replace(
        body,
        length_mm=length_mm,
        skin=skin,
        joints=tuple(replace(joint, x_mm=joint.x_mm * factor) for joint in body.joints),
    )


def to_volume(design: Design, volume_ml: float) -> Design:
    """The whole body at another volume [ml], its proportions kept."""
    finite_between("volume_ml", volume_ml, 0.05, 20_000.0, "ml")
    return scaled(design, float((volume_ml / solid(design.body).volume_ml) ** (1 / 3)))


def _times(curve: Curve, factor: float) -> Curve:
    return replace(curve, values_mm=tuple(v * factor for v in curve.values_mm))


@dataclass(frozen=True)
class Offered:
    """A part in stock with the measure that grows with the body: mass [g] of hardware, area [mm²] of a
    plate.
    """

    code: str
    name: str
    size: float


def nearest_size(stock: Sequence[Offered], wanted: float) -> Offered | None:
    """What stock has nearest in proportion to a wanted size; None where it has none."""
    sized = [row for row in stock if row.size > 0]
    return min(sized, key=lambda row: abs(log(row.size / max(wanted, 1e-9))), default=None)

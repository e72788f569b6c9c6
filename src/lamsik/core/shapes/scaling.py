"""Changing a design's length: the shape scales along, everything on it keeps its place in proportion."""

from dataclasses import replace

from lamsik.core.shapes.design import Design


def with_length(design: Design, length_mm: float) -> Design:
    """The design at another length [mm]; depth and width stay, hardware sizes too (they come from stock)."""
    factor = length_mm / design.body.length_mm
    lip = replace(design.lip, x_mm=design.lip.x_mm * factor) if design.lip else None
    return replace(
        design,
        body=replace(design.body, length_mm=length_mm),
        hardware=tuple(replace(p, x_mm=p.x_mm * factor) for p in design.hardware),
        ballast=tuple(replace(h, x_mm=h.x_mm * factor) for h in design.ballast),
        lip=lip,
    )

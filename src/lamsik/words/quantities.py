"""One formatter of quantities: every figure a page shows is to be said by it."""

from lamsik.core.units import STORED, show

DIGITS = {
    "length": 1,
    "mass": 2,
    "volume": 2,
    "density": 3,
    "temperature": 1,
    "angle": 1,
    "thickness": 0,
    "time": 1,
    "speed": 1,
    "salinity": 1,
    "percent": 1,
    "distance": 1,
    "pace": 1,
    "seconds": 1,
    "minutes": 1,
    "days": 0,
    "number": 2,
}
"""Digits shown after the point, by quantity, where the figure's place asks for no others."""


def plainly(value: float, quantity: str) -> str:
    """A figure as short as it is, in the unit it is stored in: `15 min`, `1°`, `0.9`."""
    unit = STORED[quantity]
    return f"{value:g}{unit}" if unit == "°" else f"{value:g} {unit}".strip()


def said(value: float, quantity: str, unit: str = "", digits: int | None = None) -> str:
    """A figure with its unit: `12.5 mm`, `3 17/32 in`, `−0.42 g`.

    Args:
        value: in the unit the quantity is stored in.
        quantity: such as `length` or `mass`.
        unit: the shop's for lengths, `mm` or `in`; other quantities are said in their own.
        digits: after the point; as `DIGITS` has them where left out.
    """
    to = unit if quantity == "length" and unit else STORED[quantity]
    return show(value, quantity, DIGITS[quantity] if digits is None else digits, to or None)

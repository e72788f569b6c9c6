"""Typed measures: a strict grammar of our own for what a maker types; pint only converts.

Every quantity has one stored unit (see `STORED`); text is parsed into it; `quantities` says it.
"""

import re
from dataclasses import dataclass
from fractions import Fraction
from functools import lru_cache

import pint

from lamsik.core.drills import drill_mm
from lamsik.core.errors import Refused, rule

STORED = {
    "length": "mm",
    "mass": "g",
    "volume": "ml",
    "temperature": "°C",
    "warming": "°C",
    "density": "g/cm³",
    "area": "cm²",
    "speed": "cm/s",
    "angle": "°",
    "thickness": "µm",
    "pressure": "bar",
    "time": "h",
    "salinity": "PSU",
    "frequency": "Hz",
    "percent": "%",
    "distance": "m",
    "pace": "m/s",
    "seconds": "s",
    "minutes": "min",
    "days": "d",
    "number": "",
}
"""The unit each quantity is stored and computed in."""

_PINT_NAMES = {
    "mm": "millimeter",
    "cm": "centimeter",
    "m": "meter",
    "in": "inch",
    "ft": "foot",
    "ml": "milliliter",
    "l": "liter",
    "cl": "centiliter",
    "in³": "inch**3",
    "fl oz": "US_fluid_ounce",
    "cup": "US_liquid_cup",
    "pint": "US_pint",
    "imp fl oz": "imperial_fluid_ounce",
    "imp cup": "imperial_cup",
    "imp pint": "imperial_pint",
    "g": "gram",
    "kg": "kilogram",
    "mg": "milligram",
    "oz": "ounce",
    "lb": "pound",
    "grain": "grain",
    "°C": "degC",
    "°F": "degF",
    "g/cm³": "gram/centimeter**3",
    "kg/m³": "kilogram/meter**3",
    "lb/ft³": "pound/foot**3",
    "oz/in³": "ounce/inch**3",
    "cm/s": "centimeter/second",
    "mm/s": "millimeter/second",
    "in/s": "inch/second",
    "km/h": "kilometer/hour",
    "m/s": "meter/second",
    "ft/s": "foot/second",
    "mph": "mile/hour",
    "knots": "knot",
    "cm²": "centimeter**2",
    "mm²": "millimeter**2",
    "in²": "inch**2",
    "g/mm": "gram/millimeter",
    "oz/in": "ounce/inch",
    "g·mm²": "gram*millimeter**2",
    "oz·in²": "ounce*inch**2",
    "mm·rad": "millimeter",
    "in·rad": "inch",
    "s": "second",
    "%": "percent",
    "Hz": "hertz",
    "°": "degree",
    "µm": "micrometer",
    "mil": "thou",
    "bar": "bar",
    "psi": "psi",
    "kPa": "kilopascal",
    "h": "hour",
    "min": "minute",
    "d": "day",
}

_UNITS: dict[str, tuple[str, ...]] = {
    "length": ("mm", "cm", "m", "in", "ft"),
    "mass": ("g", "kg", "mg", "oz", "lb", "grain"),
    "volume": ("ml", "cl", "l", "fl oz", "in³", "cup", "pint", "imp fl oz", "imp cup", "imp pint"),
    "temperature": ("°C", "°F"),
    "warming": ("°C", "°F"),
    "density": ("g/cm³", "kg/m³", "lb/ft³", "oz/in³"),
    "speed": ("cm/s", "mm/s", "in/s"),
    "area": ("cm²", "mm²", "in²"),
    "frequency": ("Hz",),
    "angle": ("°",),
    "thickness": ("µm", "mm", "mil"),
    "pressure": ("bar", "psi", "kPa"),
    "time": ("h", "min", "d"),
    "salinity": ("PSU",),
    "percent": ("%",),
    "distance": ("m", "ft", "cm"),
    "pace": ("m/s", "km/h", "cm/s", "ft/s", "mph", "knots"),
    "seconds": ("s", "min"),
    "minutes": ("min", "s", "h"),
    "days": ("d",),
    "number": (),
}

CHOICES = _UNITS
"""The units a maker may choose from, by quantity."""

_BY_COUNTRY = {
    "floz": "fl oz",
    "cup": "cup",
    "cups": "cup",
    "pint": "pint",
    "pints": "pint",
    "pt": "pint",
}
"""Measures of a volume that are larger in the imperial system, as they are typed."""

_COUNTRIES = {"us": "US", "imp": "imp", "imperial": "imp", "uk": "imp"}

_ALIASES = {
    '"': "in",
    "″": "in",
    "inch": "in",
    "inches": "in",
    "'": "ft",
    "grains": "grain",
    "gn": "grain",
    "C": "°C",
    "F": "°F",
    "℃": "°C",
    "℉": "°F",
    "g/ml": "g/cm³",
    "cm³": "ml",
    "cc": "ml",
    "deg": "°",
    "um": "µm",
    "μm": "µm",
    "hours": "h",
    "hour": "h",
    "days": "d",
    "day": "d",
    "psu": "PSU",
    "ozs": "oz",
    "lbs": "lb",
    "in3": "in³",
    "cups": "cup",
    "pt": "pint",
    "pints": "pint",
    "floz": "fl oz",
    **{f"US{name}": unit for name, unit in _BY_COUNTRY.items()},
    **{f"imp{name}": f"imp {unit}" for name, unit in _BY_COUNTRY.items()},
    "fps": "ft/s",
    "knot": "knots",
    "kn": "knots",
    "kt": "knots",
    "mils": "mil",
    "thou": "mil",
}

_VULGAR = {
    "½": "1/2",
    "¼": "1/4",
    "¾": "3/4",
    "⅛": "1/8",
    "⅜": "3/8",
    "⅝": "5/8",
    "⅞": "7/8",
    "⅓": "1/3",
    "⅔": "2/3",
}

_AMOUNT = re.compile(
    r"(?P<sign>[-+−])?(?:(?P<whole>\d{1,7})[ -](?P<n1>\d{1,4})/(?P<d1>\d{1,4})"
    r"|(?P<n2>\d{1,4})/(?P<d2>\d{1,4})"
    r"|(?P<dec>\d{1,7}(?:[.,]\d{1,6})?|[.,]\d{1,6}))"
).pattern
_TERM = re.compile(rf"\s*{_AMOUNT}\s*(?P<unit>[^\d\s.,+−-][^\d\s]*)?\s*")
_COMPOUND = {("lb", "oz"), ("ft", "in")}


@dataclass(frozen=True)
class Measure:
    """A typed measure: its value in the stored unit of its quantity, and the text as typed."""

    value: float
    quantity: str
    text: str


@lru_cache(maxsize=1)
def _registry() -> "pint.UnitRegistry[float]":
    return pint.UnitRegistry(autoconvert_offset_to_baseunit=True)


def convert(value: float, unit: str, to: str, difference: bool = False) -> float:
    """The value in another unit of the same quantity (units as in this module's tables); a difference of two
    values has no zero of its own.
    """
    if unit == to or not unit or unit == "PSU":
        return value
    begins, times = _line(unit, to)
    return times * value if difference else begins + times * value


@lru_cache(maxsize=256)
def _line(unit: str, to: str) -> tuple[float, float]:
    """Zero of one unit in the other, and what each one of it adds: asked of pint once."""
    zero, hundred = (
        float(_registry().Quantity(value, _PINT_NAMES[unit]).to(_PINT_NAMES[to]).magnitude)
        for value in (0.0, 100.0)
    )
    return zero, (hundred - zero) / 100.0


def parse(text: str, quantity: str, field: str = "value", default_unit: str | None = None) -> Measure:
    """A measure from what was typed, e.g. `12,5 mm`, `1-1/2"`, `2 lb 3 oz`, `54 °F`.

    A bare number takes `default_unit` (the unit the field shows); temperatures never
    have a default. Raises `Refused` for anything that is not one plain measure.
    """
    kept = text.strip()
    if quantity == "length" and (named := drill_mm(kept)) is not None:
        return Measure(named, quantity, kept)
    terms = _terms(kept, quantity, field)
    if len(terms) > 2 or (len(terms) == 2 and (terms[0][1], terms[1][1]) not in _COMPOUND):
        raise Refused(field, kept, rule("type-example", quantity=quantity))
    total = 0.0
    for amount, unit in terms:
        total += convert(
            amount,
            _unit_or_default(unit, quantity, field, kept, default_unit),
            STORED[quantity],
            quantity == "warming",
        )
    return Measure(total, quantity, kept)


_COUNTRY = re.compile(rf"\b({'|'.join(_COUNTRIES)})\.?\s+({'|'.join(_BY_COUNTRY)})\b", re.IGNORECASE)
_NO_COUNTRY = re.compile(
    rf"(?<!imp )(?<!US )(?<![a-zA-Z])(fl\.? ?oz|{'|'.join(_BY_COUNTRY)})(?![a-zA-Z])", re.IGNORECASE
)


def of_country(text: str, imperial: bool) -> str:
    """A typed volume with whose pints, cups or fluid ounces it is in, where it says nothing: `1 US pint`."""
    if _COUNTRY.search(re.sub(r"\bfl\.? ?oz\b", "floz", text)):
        return text
    return _NO_COUNTRY.sub(lambda said: f"{'imp' if imperial else 'US'} {said[0]}", text)


def _terms(text: str, quantity: str, field: str) -> list[tuple[float, str | None]]:
    prepared = (
        text.replace("/cm3", "/cm³").replace("/m3", "/m³").replace("/ft3", "/ft³").replace("/in3", "/in³")
    )
    prepared = _COUNTRY.sub(
        lambda said: f"{_COUNTRIES[said[1].lower()]}{said[2]}", re.sub(r"\bfl\.? ?oz\b", "floz", prepared)
    )
    for sign, plain in _VULGAR.items():
        prepared = re.sub(rf"(?<=\d)\s*{sign}", f" {plain}", prepared).replace(sign, plain)
    terms: list[tuple[float, str | None]] = []
    at = 0
    while at < len(prepared):
        match = _TERM.match(prepared, at)
        if match is None or match.end() == at or (terms and match["sign"]):
            raise Refused(field, text, rule("type-example", quantity=quantity))
        terms.append((_amount(match, field, text, quantity), match["unit"]))
        at = match.end()
    if not terms or len(text) > 40:
        raise Refused(field, text, rule("type-example", quantity=quantity))
    return terms


def _amount(match: re.Match[str], field: str, text: str, quantity: str) -> float:
    number = Fraction(0)
    if match["dec"]:
        number = Fraction(match["dec"].replace(",", "."))
    else:
        top, bottom = (match["n1"], match["d1"]) if match["n1"] else (match["n2"], match["d2"])
        if int(bottom) == 0:
            raise Refused(field, text, rule("type-example", quantity=quantity))
        number = int(match["whole"] or 0) + Fraction(int(top), int(bottom))
    return float(-number if match["sign"] in ("-", "−") else number)


def _unit_or_default(unit: str | None, quantity: str, field: str, text: str, default: str | None) -> str:
    if unit is None:
        if quantity == "number":
            return ""
        if quantity == "temperature" or default is None:
            raise Refused(field, text, rule("unit-missing", quantity=quantity))
        return default
    name = _ALIASES.get(unit, unit)
    if unit == "gr" and quantity == "mass":
        number = text.strip().removesuffix("gr").strip()
        raise Refused(field, text, rule("which-unit", readings=(f"{number} g", f"{number} grains")))
    if name not in _UNITS[quantity]:
        raise Refused(field, text, rule("unit-known", unit=unit, known=tuple(_UNITS[quantity])))
    return name

"""Quantities as a shop says them: one formatter of every figure with a unit, on screens, drawings and papers.

A figure is kept and computed in the stored unit of its quantity; which unit it is said in, and how, is the
shop's choice. The choice belongs to who asks (a request, a print, a command) and so is a context variable.
"""

import math
import re
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from contextvars import ContextVar
from dataclasses import dataclass, fields
from datetime import datetime, time
from fractions import Fraction
from functools import lru_cache, wraps
from typing import Any, ParamSpec, TypeVar

from lamsik.core.errors import Refused, rule
from lamsik.core.units import convert, of_country, parse

P = ParamSpec("P")
T = TypeVar("T")


@dataclass(frozen=True, slots=True)
class UnitChoice:
    """What a shop says its quantities in: a unit by what is measured, the sixteenths, thirty-seconds or
    sixty-fourths its rulers have (0: inches with decimals), its decimal mark, its clock.
    """

    length: str = "mm"
    inch: int = 64
    mass: str = "g"
    volume: str = "ml"
    temperature: str = "°C"
    distance: str = "m"
    pace: str = "m/s"
    film: str = "µm"
    density: str = "g/cm³"
    decimal: str = "."
    clock: str = "24 h"
    pressure: str = "bar"


OFFERED: dict[str, tuple[str | int, ...]] = {
    "length": ("mm", "in"),
    "inch": (64, 32, 16, 0),
    "mass": ("g", "oz", "grain"),
    "volume": ("ml", "fl oz", "in³", "imp fl oz"),
    "temperature": ("°C", "°F"),
    "distance": ("m", "ft"),
    "pace": ("m/s", "km/h", "ft/s", "mph", "knots"),
    "film": ("µm", "mil"),
    "density": ("g/cm³", "lb/ft³", "oz/in³"),
    "decimal": (".", ","),
    "clock": ("24 h", "12 h"),
    "pressure": ("bar", "psi", "kPa"),
}
"""What may be chosen, by field of `UnitChoice`; the first is where a new shop begins."""

IMPERIAL = "imp fl oz"
"""A fluid ounce, and with it cup and pint, of the imperial system; others are those of the US."""

METRIC = UnitChoice()
INCHES = UnitChoice(
    length="in",
    mass="oz",
    volume="fl oz",
    temperature="°F",
    distance="ft",
    pace="ft/s",
    film="mil",
    density="lb/ft³",
    pressure="psi",
)


UNSAID = UnitChoice(length="", mass="")
"""Figures of a text that is kept: they stand in it as values, and are said when it is shown (`resaid`)."""

HELD = re.compile(r"<\|(\w+)\|([\w.+-]*)\|([a-z ]+)\|(\d*)\|(\+?)\|>")


@dataclass(frozen=True, slots=True)
class Quantity:
    """How a quantity is said: its stored unit, digits after the point in it where the place asks for no
    others, the field of `UnitChoice` its unit follows, and what it is in where that differs from the field's
    own unit.
    """

    stored: str
    digits: int
    follows: str = ""
    said_in: tuple[tuple[str, str], ...] = ()


QUANTITIES: dict[str, Quantity] = {
    "length": Quantity("mm", 1, "length"),
    "mass": Quantity("g", 2, "mass"),
    "volume": Quantity("ml", 2, "volume"),
    "density": Quantity("g/cm³", 3, "density"),
    "temperature": Quantity("°C", 1, "temperature"),
    "warming": Quantity("°C", 0, "temperature"),
    "thickness": Quantity("µm", 0, "film"),
    "pressure": Quantity("bar", 1, "pressure"),
    "speed": Quantity("cm/s", 1, "length", (("mm", "cm/s"), ("in", "in/s"))),
    "distance": Quantity("m", 1, "distance"),
    "pace": Quantity("m/s", 1, "pace"),
    "area": Quantity("cm²", 1, "length", (("mm", "cm²"), ("in", "in²"))),
    "small area": Quantity("mm²", 0, "length", (("mm", "mm²"), ("in", "in²"))),
    "mass a length": Quantity("g/mm", 3, "length", (("mm", "g/mm"), ("in", "oz/in"))),
    "roll inertia": Quantity("g·mm²", 0, "length", (("mm", "g·mm²"), ("in", "oz·in²"))),
    "work": Quantity("mm·rad", 2, "length", (("mm", "mm·rad"), ("in", "in·rad"))),
    "angle": Quantity("°", 1),
    "frequency": Quantity("Hz", 1),
    "time": Quantity("h", 1),
    "seconds": Quantity("s", 1),
    "minutes": Quantity("min", 1),
    "days": Quantity("d", 0),
    "salinity": Quantity("PSU", 1),
    "percent": Quantity("%", 1),
    "number": Quantity("", 2),
    "file size": Quantity("MB", 1),
}
"""Every quantity that is said anywhere."""

_CHOSEN: ContextVar[UnitChoice] = ContextVar("units said", default=METRIC)

HAS_UNIT = re.compile(r"[^\d\s.,+/½¼¾⅛⅜⅝⅞⅓⅔−-]")

DIFFERENCE = "warming"
"""By how much warmer: it has no zero to shift."""

COARSER = 2.6
"""How many times as coarse the last digit may become where another unit is said, for a digit the less."""

NEAR_MM = 0.05
"""A length this near to a mark of the ruler is that mark; a small one that is not is said with decimals."""

SMALL_MM = 12.7


def chosen() -> UnitChoice:
    """What quantities are said in here and now."""
    return _CHOSEN.get()


def choose(choice: UnitChoice) -> None:
    """Say quantities so from here on, in this context."""
    _CHOSEN.set(choice)


@contextmanager
def saying(choice: UnitChoice) -> Iterator[None]:
    """Say quantities so within this block."""
    before = _CHOSEN.set(choice)
    try:
        yield
    finally:
        _CHOSEN.reset(before)


def kept_as_said(maxsize: int) -> Callable[[Callable[P, T]], Callable[P, T]]:
    """A cache of what holds words: a result is kept for the units it was said in."""

    def decorate(function: Callable[P, T]) -> Callable[P, T]:
        @lru_cache(maxsize=maxsize)
        def kept(choice: UnitChoice, /, *args: Any, **named: Any) -> T:
            return function(*args, **named)

        of_choice: Callable[..., T] = kept

        @wraps(function)
        def asked(*args: P.args, **named: P.kwargs) -> T:
            return of_choice(chosen(), *args, **named)

        vars(asked).update(cache_info=kept.cache_info, cache_clear=kept.cache_clear)
        return asked

    return decorate


def choice_of(kept: dict[str, Any]) -> UnitChoice:
    """A choice from what was kept of one; what is not offered (any more) is as a new shop has it."""
    values = {one.name: kept.get(one.name) for one in fields(UnitChoice)}
    return UnitChoice(**{name: value for name, value in values.items() if value in OFFERED[name]})


def code_of(choice: UnitChoice) -> str:
    """A choice as a short text, for what a page and a browser carry along."""
    return "".join(str(OFFERED[one.name].index(getattr(choice, one.name))) for one in fields(UnitChoice))


WITHOUT_PRESSURE = 11
"""Length of a code of before a pressure could be chosen; such a browser keeps the rest."""


def coded(code: str) -> UnitChoice | None:
    """The choice of a short text, or none where it is not one."""
    names = [one.name for one in fields(UnitChoice)]
    if len(code) == WITHOUT_PRESSURE:
        code += "0"
    if len(code) != len(names) or not code.isascii() or not code.isdigit():
        return None
    at = dict(zip(names, map(int, code), strict=True))
    if any(place >= len(OFFERED[name]) for name, place in at.items()):
        return None
    return UnitChoice(**{name: OFFERED[name][place] for name, place in at.items()})  # type: ignore[arg-type]


def unit_of(quantity: str) -> str:
    """The unit a quantity is said in here, as in the head of a column: `mm`, `in`, `oz`."""
    of = QUANTITIES[quantity]
    if chosen() == UNSAID:
        return _held("unit_of", None, quantity)
    if not of.follows:
        return of.stored
    unit = str(getattr(chosen(), of.follows))
    return dict(of.said_in).get(unit, unit)


def bare_unit(quantity: str) -> str | None:
    """The unit a bare number means in a field of this quantity: what the field shows; a temperature is never
    guessed.
    """
    return None if quantity == "temperature" else unit_of(quantity)


def read_measure(text: str, quantity: str, field: str, own: str = "") -> float:
    """The value of what was typed, in the stored unit; a bare number means what its field shows.

    Args:
        text: as typed.
        quantity: a key of `QUANTITIES`.
        field: what the field is called, for a refusal.
        own: the unit its field shows of a quantity that no shop chooses: minutes, of a time.

    Raises:
        Refused: what is no measure.
    """
    shown = bare_unit(quantity) if QUANTITIES[quantity].follows else own or QUANTITIES[quantity].stored
    try:
        return parse(_with_country(text, quantity), quantity, field, shown).value
    except Refused as refused:  # what was typed is told, not what was read into it
        raise Refused(refused.field, text.strip(), refused.allowed) from None


def _with_country(text: str, quantity: str) -> str:
    """A volume in pints, cups or fluid ounces with whose they are: the shop's, whose own fluid ounce needs
    none.
    """
    if quantity != "volume" or (chosen().volume == "fl oz" and "oz" in text):
        return text
    return of_country(text, chosen().volume == IMPERIAL)


READINGS = {"mass": ("g", "oz"), "volume": ("ml", "fl oz")}
"""What a number alone could be where a wrong reading is poured or loaded."""


def read_planned(text: str, quantity: str, field: str, own: str = "") -> float:
    """As `read_measure`, of what is poured or loaded: a mass or a volume without a unit is asked for, both
    readings named.
    """
    number = text.strip()
    if quantity in READINGS and number and not HAS_UNIT.search(number):
        could = tuple(_with_country(f"{number} {unit}", quantity) for unit in READINGS[quantity])
        raise Refused(field, number, rule("which-unit", readings=could))
    return read_measure(text, quantity, field, own)


def as_typed(text: str, quantity: str, own: str = "") -> str:
    """What was typed, with the unit it was read in where it has none of its own: `12` as `12 mm`, and whose
    pint it is; arguments as for `read_measure`.
    """
    text = _with_country(text.strip(), quantity)
    if not text or HAS_UNIT.search(text):
        return text
    return _with_unit(
        text, unit_of(quantity) if QUANTITIES[quantity].follows else own or QUANTITIES[quantity].stored
    )


def stands(text: str, value: float, quantity: str) -> bool:
    """Whether a typed text, with its unit, still says this value."""
    try:
        return math.isclose(parse(text, quantity, "").value, value, rel_tol=1e-6, abs_tol=1e-9)
    except Refused:
        return False


def said(value: float, quantity: str, digits: int | None = None, sign: bool = False) -> str:
    """A figure with its unit: `12.5 mm`, `3 17/32 in`, `−0.42 g`, `0.434 oz`.

    Args:
        value: in the unit the quantity is stored in.
        quantity: a key of `QUANTITIES`.
        digits: after the point in the stored unit, for how sure the figure is; another unit gets as many as
            say the same. As `QUANTITIES` has them where left out.
        sign: whether a plus is shown too (zero has none).
    """
    if chosen() == UNSAID:
        return _held("said", value, quantity, digits, sign)
    return _with_unit(numeral(value, quantity, digits, sign), unit_of(quantity))


def numeral(value: float, quantity: str, digits: int | None = None, sign: bool = False) -> str:
    """The same without its unit, where that follows or stands in the head: `4 1/4 × 1 1/8 × 7/8 in`."""
    if chosen() == UNSAID:
        return _held("numeral", value, quantity, digits, sign)
    of, unit = QUANTITIES[quantity], unit_of(quantity)
    least = of.digits if digits is None else digits
    if unit == "in" and chosen().inch and least <= 1 and not sign:
        return _inches(value, least)
    shown = convert(value, of.stored, unit, quantity == DIFFERENCE)
    if unit != of.stored:
        least = max(0, math.ceil(-math.log10(COARSER * _step(of.stored, unit, least))))
    return _marked(_signed(f"{shown:.{least}f}", sign))


def sure_digits(quantity: str, sd: float) -> int:
    """Digits after the point that a figure of this one-sigma uncertainty deserves, in the stored unit.

    The uncertainty is told by one digit, by two where it begins with a 1 (GUM 7.2.6); a figure has never more
    digits than its quantity, and at most one less, so that what is dragged is seen to move.
    """
    usual = QUANTITIES[quantity].digits
    if not math.isfinite(sd) or sd <= 0:
        return usual
    tens = math.floor(math.log10(sd))
    first = round(sd / 10.0**tens, 6)
    return max(usual - 1, min(usual, (1 if first < 2 else 0) - tens), 0)


def sure(value: float, quantity: str, sd: float, sign: bool = False) -> str:
    """A figure with as many digits as its one-sigma uncertainty allows: `2.84 g`, `12.4 g`."""
    return said(value, quantity, sure_digits(quantity, sd), sign)


def give_or_take(quantity: str, sd: float, sigmas: float = 1.0) -> str:
    """The uncertainty itself, so many sigmas of it: `± 0.07 g`, with the digits of the figure it is of."""
    return f"± {said(sigmas * sd, quantity, sure_digits(quantity, sd))}"


def file_size(count: int) -> str:
    """A size of a file, from its bytes: `2.4 MB`, and never nothing for what is small."""
    return said(count / 1e6, "file size", 1 if count >= 1e5 else 3)


def counted(count: int, one: str, more: str = "") -> str:
    """A number of things: `1 shot`, `3 shots`, `2 batches`."""
    return f"{count} {one if count == 1 else more or one + 's'}"


def plainly(value: float, quantity: str) -> str:
    """A figure as short as it is: `15 min`, `1°`, `0.9`, `3/32 in`."""
    if chosen() == UNSAID:
        return _held("plainly", value, quantity)
    return _with_unit(plain_numeral(value, quantity), unit_of(quantity))


def plain_numeral(value: float, quantity: str) -> str:
    """The same without its unit."""
    if chosen() == UNSAID:
        return _held("plain_numeral", value, quantity)
    of, unit = QUANTITIES[quantity], unit_of(quantity)
    if unit == of.stored:
        return _marked(f"{value:g}".replace("-", "−"))
    if unit == "in" and chosen().inch and _off_mark(value, 64) < NEAR_MM / 2:
        return _fraction(value, 64)
    shown = convert(value, of.stored, unit, quantity == DIFFERENCE)
    if of.follows == "temperature":
        return _marked(f"{shown:.{len(f'{value:g}'.partition('.')[2])}f}".replace("-", "−"))
    text = f"{shown:.3f}".rstrip("0").rstrip(".") if unit == "in" else f"{shown:.4g}"
    return _marked(text.replace("-", "−"))


def kept_or(value: float, kept: float, quantity: str) -> float:
    """What was typed, or what was kept where that is said alike: a form that is sent back unchanged changes
    nothing by its rounding.
    """
    return kept if plainly(value, quantity) == plainly(kept, quantity) else value


def _held(how: str, value: float | None, quantity: str, digits: int | None = None, sign: bool = False) -> str:
    figure = "" if value is None else repr(float(value))
    return f"<|{how}|{figure}|{quantity}|{'' if digits is None else digits}|{'+' if sign else ''}|>"


def resaid(text: str) -> str:
    """A text that was kept with its figures unsaid, in the units chosen here and now."""
    return HELD.sub(_resaid, text)


def _resaid(held: re.Match[str]) -> str:
    how, figure, quantity, digits, sign = held.groups()
    if how == "unit_of":
        return unit_of(quantity)
    if how in ("plainly", "plain_numeral"):
        return (plainly if how == "plainly" else plain_numeral)(float(figure), quantity)
    return (said if how == "said" else numeral)(
        float(figure), quantity, int(digits) if digits else None, bool(sign)
    )


def show(value: float, quantity: str, digits: int, unit: str) -> str:
    """A figure in a unit that is not the shop's to choose: what an instrument sends, a table of conversions;
    inches as the nearest 1/64 (`3 17/32 in`).
    """
    if unit == "in":
        return inch_fraction(convert(value, QUANTITIES[quantity].stored, unit))
    return _with_unit(_signed(f"{convert(value, QUANTITIES[quantity].stored, unit):.{digits}f}", False), unit)


def inch_fraction(inches: float) -> str:
    """Inches as a whole and the nearest sixty-fourth, reduced: 3.53 → `3 17/32 in`."""
    return f"{_fraction(inches * 25.4, 64)} in"


def time_of_day(at: time | datetime) -> str:
    """An hour of the day by the clock chosen: `16:05`, `4:05 pm`."""
    if chosen().clock != "12 h":
        return f"{at:%H:%M}"
    return f"{at.hour % 12 or 12}:{at:%M} {'am' if at.hour < 12 else 'pm'}"


def place(mm: float) -> str:
    """Where something is made, from [mm]: a tenth, and the hundredths where there are any, so that holes keep
    their spacing; thousandths of an inch.
    """
    inches = unit_of("length") == "in"
    return said(mm, "length", 1 if not inches and abs(mm - round(mm, 1)) < HUNDREDTH / 2 else 2)


HUNDREDTH = 0.01


def _inches(mm: float, digits: int) -> str:
    """A length in inches by the shop's rulers, or with decimals where it is small and lies between marks."""
    marks = chosen().inch
    if abs(mm) < SMALL_MM and digits and _off_mark(mm, marks) > NEAR_MM:
        return _marked(_signed(f"{mm / 25.4:.3f}", False))
    return _fraction(mm, marks)


def _off_mark(mm: float, marks: int) -> float:
    return abs(mm - round(mm / 25.4 * marks) * 25.4 / marks)


def _fraction(mm: float, marks: int) -> str:
    parts = Fraction(round(abs(mm) / 25.4 * marks), marks)
    minus = "−" if mm < 0 and parts else ""
    whole, rest = divmod(parts, 1)
    pieces = [str(whole)] if whole or not rest else []
    pieces += [f"{rest.numerator}/{rest.denominator}"] if rest else []
    return f"{minus}{' '.join(pieces)}"


@lru_cache(maxsize=256)
def _step(stored: str, unit: str, digits: int) -> float:
    """One of the last digit that is shown in the stored unit, in the other."""
    return abs(convert(10.0**-digits, stored, unit) - convert(0.0, stored, unit))


def _signed(text: str, sign: bool) -> str:
    if not text.strip("-0."):
        return text.removeprefix("-")
    plus = "+" if sign and not text.startswith("-") else ""
    return plus + text.replace("-", "−")


def _marked(text: str) -> str:
    return text.replace(".", ",") if chosen().decimal == "," else text


def _with_unit(text: str, unit: str) -> str:
    return f"{text}{unit}" if unit == "°" else f"{text} {unit}".strip()

"""Values in sentences: `{mass:mass}` says a number as that quantity, `{wall:~length}` as short as it is,
with a `#` without its unit, `{net:mass,2,+}` with so many digits and its sign, `{n:counted,hole}` with what
is counted, `{rows:*; }` with what stands between the rows, `{name:^}` with a capital,
`{at:both}` a temperature in both units, `{quantity:example}` what may be typed for it.
"""

from lamsik.core.findings import Grams, Known
from lamsik.core.quantities import (
    QUANTITIES,
    counted,
    numeral,
    plain_numeral,
    plainly,
    said,
    show,
    sure_digits,
    unit_of,
)
from lamsik.words.examples import EXAMPLES
from lamsik.words.given import brief


class Spoken:
    """A value as a sentence says it."""

    def __init__(self, value: object) -> None:
        self.value = value

    def __format__(self, spec: str) -> str:
        """By the quantity that is named after the colon; with none as a person reads it."""
        if not spec:
            return _listed(self.value)
        if spec.startswith("*"):
            return spec[1:].join(map(str, self.value if isinstance(self.value, list) else [self.value]))
        if spec == "^":
            text = _listed(self.value)
            return f"{text[:1].upper()}{text[1:]}"
        name, *how = spec.lstrip("~#").split(",")
        if name == "counted":
            return counted(int(str(self.value)), *how)
        if name == "example":
            return EXAMPLES[str(self.value)]
        if name == "both":
            return _in_both(float(str(self.value)))
        if name not in QUANTITIES:
            return format(self.value, spec)
        known = self.value if isinstance(self.value, Known) else None
        number = known.value if known else float(str(self.value))
        if spec.startswith("~"):
            return plain_numeral(number, name) if spec.startswith("~#") else plainly(number, name)
        digits, sign = (int(how[0]) if how and how[0] else None), how[1:] == ["+"]
        digits = sure_digits(name, known.sd) if known else digits
        return numeral(number, name, digits) if spec.startswith("#") else said(number, name, digits, sign)


def _in_both(celsius: float) -> str:
    """A temperature as it is said where heat can hurt, in both units: `172 °C (342 °F)`."""
    other = "°F" if unit_of("temperature") == "°C" else "°C"
    return f"{said(celsius, 'temperature', 0)} ({show(celsius, 'temperature', 0, other)})"


def _listed(value: object) -> str:
    if isinstance(value, str):
        return value
    if isinstance(value, Grams):
        return said(value.value, "mass", value.digits)
    return ", ".join(map(str, value)) if isinstance(value, list | tuple) else brief(value) or str(value)

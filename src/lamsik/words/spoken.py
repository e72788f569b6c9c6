"""Values in sentences: `{mass:mass}` says a number as that quantity, `{wall:~length}` as short as it is,
with a `#` without its unit, `{net:mass,2,+}` with so many digits and its sign.
"""

from lamsik.core.errors import brief
from lamsik.core.quantities import QUANTITIES, numeral, plain_numeral, plainly, said


class Spoken:
    """A value as a sentence says it."""

    def __init__(self, value: object) -> None:
        self.value = value

    def __format__(self, spec: str) -> str:
        """By the quantity that is named after the colon; with none as a person reads it."""
        if not spec:
            return _listed(self.value)
        name, *how = spec.lstrip("~#").split(",")
        if name not in QUANTITIES:
            return format(self.value, spec)
        number = float(str(self.value))
        if spec.startswith("~"):
            return plain_numeral(number, name) if spec.startswith("~#") else plainly(number, name)
        digits, sign = (int(how[0]) if how and how[0] else None), how[1:] == ["+"]
        return numeral(number, name, digits) if spec.startswith("#") else said(number, name, digits, sign)


def _listed(value: object) -> str:
    if isinstance(value, str):
        return value
    return ", ".join(map(str, value)) if isinstance(value, list | tuple) else brief(value) or str(value)

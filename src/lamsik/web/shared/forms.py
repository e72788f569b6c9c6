"""Form fields of our own: typed measures in the strict grammar, the typed text kept."""

from collections.abc import Iterable
from functools import partial
from typing import Any

from flask_wtf import FlaskForm
from wtforms import SelectChoice, StringField
from wtforms.validators import ValidationError

from lamsik.core.errors import Refused, finite_between
from lamsik.core.quantities import as_typed, plain_numeral, plainly, read_measure
from lamsik.words import refusals


def typed_texts(form: FlaskForm) -> dict[str, str]:
    """The form's measures as they were typed, by field."""
    return {
        field.short_name: as_typed(field.data or "", field.quantity, field.own)
        for field in form
        if isinstance(field, MeasureField)
    }


def choices(rows: Iterable[tuple[object, str]]) -> list[SelectChoice]:
    """Choices of a select field from (value, words)."""
    return [SelectChoice(value, words) for value, words in rows]


class MeasureField(StringField):
    """A typed measure; `.amount` is its value in the stored unit, `.data` the text as typed."""

    def __init__(
        self,
        label: str,
        quantity: str,
        low: float,
        high: float,
        unit: str | None = None,
        optional: bool = False,
        **more: Any,
    ) -> None:
        self.quantity, self.low, self.high, self.may_lack = quantity, low, high, optional
        self.own = unit or ""
        self.amount: float | None = None
        begins = more.get("default")
        if isinstance(begins, float):
            more["default"] = partial(plainly, begins, quantity)
        super().__init__(label, **more)

    def pre_validate(self, form: FlaskForm) -> None:
        """Read the text; the message says what would be accepted."""
        text = (self.data or "").strip()
        if not text and self.may_lack:
            return
        try:
            self.amount = read_measure(text, self.quantity, self.label.text, self.own)
        except Refused as error:
            raise ValidationError(f"{error.given!r} cannot be read: {refusals.allowed(error)}.") from error
        if not self.low <= self.amount <= self.high:
            raise ValidationError(
                f"{text} is out of range: allowed is {plain_numeral(self.low, self.quantity)} to"
                f" {plainly(self.high, self.quantity)}."
            )


def whole(text: str, name: str, low: int, high: int) -> int:
    """A whole number as typed."""
    value = read_measure(text, "number", name)
    if not value.is_integer():
        raise Refused(name, text, "a whole number")
    return int(finite_between(name, value, low, high))

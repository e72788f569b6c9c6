"""The forms of an enquiry and of a line."""

from typing import Any

from flask_wtf import FlaskForm
from wtforms import DateField, IntegerField, SelectField, StringField, TextAreaField
from wtforms.validators import DataRequired, InputRequired, Length, NumberRange, Optional

from lamsik.core.orders.customer_facts import CUSTOMER_FACTS
from lamsik.core.orders.lines import (
    CLEAR_ONLY,
    DETAIL,
    FLOATS,
    MADE,
    MOST_CLEARS,
    MOST_IN_SET,
    MOST_PIECES,
    PARTS,
    REPAINT,
    STOCK,
)
from lamsik.core.route.repaint import OLD_PAINT
from lamsik.web.shared.forms import MeasureField, choices
from lamsik.words.orders import ASKED, PER

ASKED_FIRST = tuple(fact for fact in CUSTOMER_FACTS if fact.is_asked)
"""What is asked of a customer where an enquiry is taken."""
BODY = ("form", "length", "material")
PRICED = ("price", "per")
FIELDS = {
    MADE: ("quantity", *BODY, "scheme", "clears", "behaviour", "pitch", "water", *PRICED, "note"),
    REPAINT: ("custody", "quantity", *BODY, "old_paint", "scheme", "clears", *PRICED, "note"),
    CLEAR_ONLY: ("custody", "quantity", *BODY, "clears", *PRICED, "note"),
    DETAIL: ("custody", "note", "quantity", *BODY, "clears", *PRICED),
    STOCK: ("piece", *PRICED, "note"),
    FLOATS: ("design", "quantity", "per_set", *PRICED, "note"),
    PARTS: ("note", "quantity", *PRICED),
}
"""What is asked of a line, by its kind."""
EACH, ALL = "each", "all"


class LineForm(FlaskForm):
    """What a line is: the questions of its kind are left on it."""

    custody = SelectField("What of theirs", coerce=int)
    piece = SelectField("Which piece", coerce=int)
    design = SelectField("Which float", coerce=int)
    quantity = IntegerField(
        "How many",
        default=1,
        validators=[InputRequired("How many?"), NumberRange(1, MOST_PIECES, "1 to 500 pieces.")],
    )
    per_set = IntegerField(
        "In a set",
        default=1,
        validators=[
            InputRequired("How many in a set?"),
            NumberRange(1, MOST_IN_SET, "1 to 60 in a set."),
        ],
    )
    form = SelectField("Form")
    length = MeasureField("Length", "length", 5.0, 600.0, default=90.0)
    material = SelectField("Made of")
    old_paint = SelectField("Its old paint is", choices=choices((one, one) for one in OLD_PAINT))
    scheme = SelectField("Scheme", coerce=int)
    clears = IntegerField(
        "Clear coats",
        validators=[Optional(), NumberRange(0, MOST_CLEARS, "0 to 12 coats.")],
    )
    behaviour = SelectField("It should")
    pitch = MeasureField("Hanging at pitch", "angle", -80.0, 80.0, default="0°")
    water = SelectField("In this water", coerce=int)
    price = StringField("Price agreed", validators=[Length(max=12)])
    per = SelectField("It is for", default=EACH)
    note = TextAreaField("Anything else", validators=[Length(max=2000)])

    def of_kind(self, kind: str) -> None:
        """Ask only what is asked of this kind of line."""
        for name in [
            field.short_name for field in self if field.short_name not in (*FIELDS[kind], "csrf_token")
        ]:
            delattr(self, name)
        if "per" in FIELDS[kind]:
            self.per.choices = choices([(EACH, f"each {PER.get(kind, 'piece')}"), (ALL, "all of it")])
        if kind in (DETAIL, PARTS):
            self.note.label.text = "What is put on it" if kind == DETAIL else "What"
            self.note.validators = [DataRequired("What is it, in a word or two?"), *self.note.validators]

    def said(self, name: str, other: Any) -> Any:
        """What was typed in a field; what is known already where it is not asked."""
        return self[name].data if name in self else other


class EnquiryForm(FlaskForm):
    """What a customer wants: which bait, in which scheme, how it should behave, by when."""

    customer = StringField("Customer", validators=[DataRequired("Who is it for?"), Length(max=120)])
    quantity = IntegerField(
        "How many",
        default=1,
        validators=[InputRequired("How many?"), NumberRange(1, MOST_PIECES, "1 to 500 pieces.")],
    )
    form = SelectField("Form")
    length = MeasureField("Length", "length", 5.0, 600.0, default=90.0)
    material = SelectField("Made of")
    scheme = SelectField("Scheme", coerce=int)
    behaviour = SelectField("It should")
    pitch = MeasureField("Hanging at pitch", "angle", -80.0, 80.0, default="0°")
    water = SelectField("In this water", coerce=int)
    due = DateField("Wanted by", validators=[Optional()])
    price = StringField("Price agreed", validators=[Length(max=12)])
    note = TextAreaField("Anything else", validators=[Length(max=2000)])

    def facts(self) -> dict[str, str]:
        """What is said of the customer, by key."""
        return {fact.key: self[f"customer_{fact.key}"].data or "" for fact in ASKED_FIRST}


for _fact in ASKED_FIRST:
    setattr(
        EnquiryForm,
        f"customer_{_fact.key}",
        StringField(ASKED[_fact.key], validators=[Length(max=_fact.most)]),
    )


def offer(asked: FlaskForm, offers: dict[str, Any]) -> None:
    """What its selects offer, of those that are asked."""
    for name, rows in offers.items():
        if name in asked:
            asked[name].choices = choices(rows)

"""The enquiry form."""

from flask_wtf import FlaskForm
from wtforms import DateField, IntegerField, SelectField, StringField, TextAreaField
from wtforms.validators import DataRequired, InputRequired, Length, NumberRange, Optional

from lamsik.core.orders.customer_facts import CUSTOMER_FACTS
from lamsik.web.shared.forms import MeasureField
from lamsik.words.orders import ASKED

ASKED_FIRST = tuple(fact for fact in CUSTOMER_FACTS if fact.is_asked)
"""What is asked of a customer where an enquiry is taken."""


class EnquiryForm(FlaskForm):
    """What a customer wants: which bait, in which scheme, how it should behave, by when."""

    customer = StringField("Customer", validators=[DataRequired("Who is it for?"), Length(max=120)])
    quantity = IntegerField(
        "How many",
        default=1,
        validators=[InputRequired("How many?"), NumberRange(1, 500, "1 to 500 pieces.")],
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

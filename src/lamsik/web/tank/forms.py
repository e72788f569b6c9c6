"""What is typed in the Tank besides the design itself: runs in the tub and on the line."""

from flask_wtf import FlaskForm
from wtforms import SelectField, StringField
from wtforms.validators import Length

from lamsik.web.shared.forms import MeasureField, choices


class TimedForm(FlaskForm):
    """A rise or sink timed in the tub."""

    way = SelectField("It", choices=choices([("rise", "rises"), ("sink", "sinks")]))
    distance = MeasureField("Way", "distance", 0.02, 20.0)
    seconds = MeasureField("Time", "seconds", 0.1, 600.0)
    net = MeasureField("Net, if weighed", "mass", -500.0, 500.0, optional=True)


class TowForm(FlaskForm):
    """A run on the line, as it was towed and how deep it ran, beside a question of the same names."""

    line_out = MeasureField("Line out", "distance", 1.0, 400.0, id="log-line_out")
    speed = MeasureField("Speed", "pace", 0.1, 8.0, id="log-speed")
    line = MeasureField("Line", "length", 0.02, 5.0, id="log-line")
    rod = MeasureField("Rod tip over water", "distance", 0.0, 12.0, id="log-rod")
    lead = MeasureField("Lead at the bait", "mass", 0.0, 500.0, optional=True, default=0.0, id="log-lead")
    depth = MeasureField("It ran at", "distance", 0.0, 100.0, id="log-depth")
    pitch = MeasureField("Pitch, if seen", "angle", -70.0, 45.0, optional=True, id="log-pitch")
    note = StringField("Note", validators=[Length(max=200)], id="log-note")


class Question(FlaskForm):
    """A form sent in the address."""

    class Meta:
        """A question changes nothing, so it needs no token."""

        csrf = False


class TowAsk(Question):
    """How it is towed, asked in the address."""

    speed = MeasureField("Speed", "pace", 0.1, 8.0, default=1.0)
    line = MeasureField("Line", "length", 0.02, 5.0, default=0.28)
    rod = MeasureField("Rod tip over water", "distance", 0.0, 12.0, default=1.5)
    out = MeasureField("Line out", "distance", 1.0, 400.0, default=25.0)
    lead = MeasureField("Lead at the bait", "mass", 0.0, 500.0, optional=True, default=0.0)


class FidelityForm(Question):
    """How close a prototype must come, asked in the address."""

    mass = MeasureField("Mass within", "percent", 0.1, 50.0, default="2 %")
    net = MeasureField("Net lift within", "mass", 0.01, 20.0, default=0.1)
    place = MeasureField("G within", "length", 0.1, 20.0, default=0.5)
    roll = MeasureField("Roll within", "percent", 0.5, 80.0, default="10 %")

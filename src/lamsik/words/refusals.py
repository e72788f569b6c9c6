"""What is said of input that is refused: beside its field, in a line of its own, in the shop's units."""

import re

from lamsik.core.errors import Allowed, Named, Refused, Rule, Within
from lamsik.core.findings import Finding
from lamsik.core.quantities import QUANTITIES, plain_numeral, plainly, unit_of
from lamsik.words.given import brief
from lamsik.words.refused import REFUSALS
from lamsik.words.tell import filled, tell

UNIT = re.compile(r"_(mm|um|g_cm3|g|ml|deg|c|h|min|cm_s|m_s|s|psu|percent)$")
"""The unit at the end of a field's name, which is no part of what it is called."""

QUANTITY_OF = {of.stored: name for name, of in reversed(QUANTITIES.items()) if of.follows}
"""The quantity that a stored unit measures, of those a shop may say in another."""

RULES = {
    "a-document": "a {format} document is needed",
    "a-drop": "a drop of some paint is needed",
    "a-list-of-rows": "a list of rows is needed",
    "a-piece": "one piece at least, and one paint",
    "a-text": "a text is needed",
    "as-in-the-scheme": "it is as in the scheme",
    "at-most-characters": "at most {most} characters",
    "at-most-points": "at most {most} points on a line",
    "balls-in-a-cavity": "balls go in a cavity; rods go in drilled holes",
    "body-in-the-file": "the body it is made from is not in the file",
    "card-agrees": "a card whose three patches agree: is each mark on its patch, is it the card typed?",
    "card-contrast": "a card whose black is 20 darker in lightness than its white: was that patch the black?",
    "drawn-half": "upper or lower, of a drawn body",
    "each-key-once": "each key once",
    "ends-stay": "the points at the ends stay",
    "flag": "{flags}; true or false",
    "free-eye": "no free {kinds}: add one first",
    "hook": "a hook is needed",
    "in-picture": "marks that lie in the picture, a little off its edge",
    "just-rows": "just {most} rows",
    "just-so": "must be {value}",
    "keeps-kind-layer": "a layer keeps its kind: take it off and put another on",
    "keeps-kind-part": "a part keeps its kind: take it off and put another on",
    "layer-locked": "this layer is locked: confirm its change, or untick Locked in its scheme first",
    "known-fields": "unknown field; known are {known}",
    "lip-first": "there is no lip to change: fit one",
    "match-name": "name the colour that is wanted",
    "light-changes": "one light all over the card: turn it from the window, or take a second lamp away",
    "mesh": "this body was brought in as a mesh",
    "mesh-keeps-lines": "this body was brought in as a mesh: its size can be changed, its lines cannot",
    "mesh-mirrored-elsewhere": "this body was brought in as a mesh: mirror it where it was made",
    "mesh-or-round-section": "the section is that of the mesh, or round: it is not set here",
    "needed": "this field is needed",
    "no-field": "no such field on this design",
    "no-lamp": "daylight or one lamp of 2500 to 10 000 K: the cast of this photo is none of a lamp's",
    "no-part": "no such part on this design",
    "marks-on-skin": "marks that lie on the skin: move them off the nose and the tail",
    "no-stencil": "marks with edges: what goes all over, through a net or by chance is not cut",
    "none-there": "there is none",
    "not-in-stores": "not in Stores; add it there first",
    "not-typed": "not typed here",
    "of-kind": "must be {kinds}",
    "one-cavity": "a mould needs one cavity",
    "no-surface": (
        "a look that a surface can have: over white no darker than over black, no lighter than the card"
    ),
    "one-mark": "at least one mark is needed: what it carries is said to a mark",
    "only-in-a-file": "only a file carries it",
    "patch-clipped": "a white that is not burnt out: expose less",
    "patch-order": "white, grey and black of the card, in this order",
    "plain-value": "a plain number, text, list or object is needed",
    "once-in-a-recipe": "it is in the recipe already: change its drops",
    "paint-name": "name the paint, as on its pot",
    "point-there": "there is a point already: move that one",
    "point-clipped": "points off the shine: what is burnt out has no colour",
    "points-on-bait": "1 to 20 points on the bait",
    "recipe-word": "code and drops of each paint, as C-001:3,C-004:1",
    "rows": "{least} to {most} rows",
    "scheme-name": "give the scheme a name",
    "schema": "not of the kind that is needed; the published schema says which",
    "some-ballast": "holes, pours or cavities are needed",
    "thing-of-mould": "a cavity, well or text of this mould",
    "tie-first": "there is no line tie on it yet: put one on in Shape",
    "true-or-false": "true or false",
    "turned-has-one-line": "a turned body has one line: its radius, in the top view",
    "two-holes": "two holes, {holes}",
    "which-unit": "say which it is, {readings}",
    "whole": "a whole number",
    "widest-of-drawn": "only a drawn body has a widest line of its own",
    "width-left": "pull it out: the part has no width left",
    "three-patches": "the white, the grey and the black of the card: mark all three",
}
"""By the rule that a document breaks."""
_SAYS = {**REFUSALS, **RULES}


def allowed(refused: Refused) -> str:
    """What is allowed, without a full stop, in the shop's units."""
    return limits_said(refused.allowed)


def limits_said(limits: Allowed) -> str:
    """The same of what is allowed alone."""
    if isinstance(limits, Within):
        return _between(limits)
    if isinstance(limits, Rule):
        if limits.name == "which-unit":
            return RULES[limits.name].format(
                readings=" or ".join(map(str, _rows(dict(limits.values)["readings"])))
            )
        return filled(_SAYS[limits.name], limits)
    if isinstance(limits, Finding):
        return tell(limits)
    if isinstance(limits, Named):
        first = f"{limits.besides}, or " if limits.besides else ""
        return f"{first}one of {', '.join(limits.names) or 'none: there is none yet'}"
    return limits


def _between(limits: Within) -> str:
    quantity = QUANTITY_OF.get(limits.unit)
    if quantity is None:
        return f"allowed is {limits.low:g} to {limits.high:g} {limits.unit}".rstrip()
    return f"allowed is {plain_numeral(limits.low, quantity)} to {plainly(limits.high, quantity)}"


def readings(refused: Refused) -> tuple[str, ...]:
    """What a figure without a unit could be, to choose from; none where that is not what is wrong."""
    limits = refused.allowed
    if not isinstance(limits, Rule) or limits.name != "which-unit":
        return ()
    return tuple(map(str, _rows(dict(limits.values)["readings"])))


def _rows(held: object) -> list[object]:
    return list(held) if isinstance(held, list | tuple) else []


def _given(refused: Refused) -> str:
    """What was given, a figure in the unit its range is said in."""
    number = isinstance(refused.given, int | float) and not isinstance(refused.given, bool)
    quantity = QUANTITY_OF.get(refused.allowed.unit) if isinstance(refused.allowed, Within) else None
    if number and quantity and unit_of(quantity) != QUANTITIES[quantity].stored:
        return plainly(float(str(refused.given)), quantity)
    return tell(refused.given) if isinstance(refused.given, Finding) else brief(refused.given)


def beside(refused: Refused) -> str:
    """What stands beside the field: what was given and what is allowed; where nothing was given only that."""
    says = allowed(refused)
    if shown := _given(refused):
        return f"{shown} cannot be used: {says}."
    return f"{says[0].upper()}{says[1:]}." if says else ""


def says(refused: Refused) -> str:
    """The same where the field is not in sight: with its name."""
    name = UNIT.sub("", refused.field).replace("_", " ").replace(".", " ")
    shown = _given(refused)
    given = f"{shown}; " if shown else ""
    if not name:
        return beside(refused)
    return f"{name[:1].upper()}{name[1:]}: {given}{allowed(refused)}."


def line(refused: Refused) -> str:
    """In one line, with the field as a script knows it."""
    shown = tell(refused.given) if isinstance(refused.given, Finding) else brief(refused.given)
    given = f"got {shown}; " if shown else ""
    return f"{refused.field}: {given}{allowed(refused)}"

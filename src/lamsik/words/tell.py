"""What the core found, in words: the sentences of every bench, in the shop's units."""

from lamsik.core.findings import Finding
from lamsik.words.sentences import castings, floats, mixes, moulds, orders, route, scale, shapes, tank
from lamsik.words.spoken import Spoken

SENTENCES: dict[str, str] = {
    **castings.SAYS,
    **floats.SAYS,
    **mixes.SAYS,
    **moulds.SAYS,
    **orders.SAYS,
    **route.SAYS,
    **scale.SAYS,
    **shapes.SAYS,
    **tank.SAYS,
}
"""By the name of a finding."""


def tell(what: Finding | None) -> str:
    """The sentence of a finding; empty of none."""
    if what is None:
        return ""
    return filled(SENTENCES[what.name], what)


def filled(sentence: str, what: Finding) -> str:
    """A sentence with the values of a finding."""
    return sentence.format(**{name: _spoken(value) for name, value in what.values})


def told(what: object) -> object:
    """A finding in words; anything else as it is."""
    return tell(what) if isinstance(what, Finding) else what


def capital(what: object) -> str:
    """The same as a sentence begins."""
    text = str(told(what))
    return f"{text[:1].upper()}{text[1:]}"


def within(what: object) -> str:
    """The same within a sentence."""
    text = str(told(what))
    return f"{text[:1].lower()}{text[1:]}"


def _spoken(value: object) -> Spoken:
    if isinstance(value, list | tuple):
        return Spoken([told(one) for one in value if one is not None and one != ""])
    return Spoken(told("" if value is None else value))

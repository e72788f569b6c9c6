"""What is kept of a customer beside the name: forms, pages, the log and the database read this. A field more
is one row here.
"""

from dataclasses import dataclass

from lamsik.core.errors import require, rule

MILLIMETRES, INCHES = "millimetres", "inches"
UNITS = ("", MILLIMETRES, INCHES)
"""What a customer speaks in; empty is what the shop does."""


@dataclass(frozen=True)
class CustomerFact:
    """Something to know of a customer.

    Args:
        key: under which it is kept.
        called: what it is called.
        most: its most letters.
        is_asked: whether it is asked where an enquiry is taken.
        lines: how many lines its field has.
        choices: what it can be, where it is no free text.
    """

    key: str
    called: str
    most: int
    is_asked: bool = False
    lines: int = 1
    choices: tuple[str, ...] = ()


CUSTOMER_FACTS = (
    CustomerFact("contact", "Reach", 200, is_asked=True),
    CustomerFact("mail", "Mail", 200),
    CustomerFact("phone", "Phone", 60),
    CustomerFact("address", "Address", 500, lines=4),
    CustomerFact("sent_to", "Sent elsewhere", 500, lines=4),
    CustomerFact("sizes", "Sizes, hooks", 300),
    CustomerFact("speaks", "Speaks in", 20, choices=UNITS),
    CustomerFact("note", "To know", 300, is_asked=True),
)


def checked(facts: dict[str, str]) -> dict[str, str]:
    """The facts that say something, without blanks at their ends. Raises `Refused` naming the field."""
    known = {fact.key: fact for fact in CUSTOMER_FACTS}
    said = {key: text.strip() for key, text in facts.items() if key in known and text.strip()}
    for key, text in said.items():
        fact = known[key]
        require(len(text) <= fact.most, key, text[:40], rule("at-most-characters", most=fact.most))
        require(not fact.choices or text in fact.choices, key, text[:40], rule("of-kind", kinds=fact.choices))
    return said

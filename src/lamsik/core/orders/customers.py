"""Customers who may be one and the same, and what is known of them when they are."""

import re
import unicodedata
from collections.abc import Mapping

from lamsik.core.paints.names import read_alike

LEAST_DIGITS = 7
"""A telephone number is told by its last digits: before them stand a country and an area, or not."""
MAIL, PHONE, NAME = "mail", "phone", "name"
_MAIL = re.compile(r"[^\s@<>,;]+@[^\s@<>,;]+\.[^\s@<>,;]+")

Facts = Mapping[str, str]


def mail_of(facts: Facts) -> str:
    """The mail address among what is known of a customer, in small letters; empty where there is none."""
    seen = _MAIL.search(f"{facts.get('mail', '')} {facts.get('contact', '')}")
    return seen[0].casefold() if seen else ""


def phone_of(facts: Facts) -> str:
    """The last digits of a telephone number among what is known; empty where there is none."""
    for key in ("phone", "contact"):
        digits = re.sub(r"\D", "", facts.get(key, ""))
        if len(digits) >= LEAST_DIGITS:
            return digits[-LEAST_DIGITS:]
    return ""


def alike(name: str, facts: Facts, other: str, others: Facts) -> str:
    """Why two customers may be one: the same `MAIL`, `PHONE` or a `NAME` that is read for the other's; empty
    where nothing says so.
    """
    if mail_of(facts) and mail_of(facts) == mail_of(others):
        return MAIL
    if phone_of(facts) and phone_of(facts) == phone_of(others):
        return PHONE
    one, two = _words(name), _words(other)
    short = len(one) == len(two) > 1 and all(
        a == b or (min(len(a), len(b)) == 1 and a[0] == b[0]) for a, b in zip(one, two, strict=True)
    )
    same = sorted(one) == sorted(two)
    return NAME if one and two and (same or short or read_alike(" ".join(one), [" ".join(two)])) else ""


def _words(name: str) -> list[str]:
    """A name's words in small letters without accents or stops."""
    plain = unicodedata.normalize("NFKD", name.casefold())
    return re.sub(r"[^\w\s]", " ", "".join(one for one in plain if not unicodedata.combining(one))).split()


def merged(kept: Facts, double: Facts) -> dict[str, str]:
    """What is known of two that are one: what the kept one says, else the other; both notes."""
    facts = {key: text for one in (double, kept) for key, text in one.items() if text}
    notes = [one["note"] for one in (kept, double) if one.get("note")]
    if len(notes) == 2 and notes[0] != notes[1]:
        facts["note"] = "; ".join(notes)
    return facts

"""Customers who may be one, and what is known of them when they are."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from lamsik.core.orders.customer_facts import CUSTOMER_FACTS, checked
from lamsik.core.orders.customers import alike, mail_of, merged, phone_of
from tests.refusing import refusing

FACTS = st.dictionaries(st.sampled_from(["mail", "phone", "note", "address"]), st.text("ab1@. ", max_size=12))


@pytest.mark.parametrize(
    ("one", "other", "why"),
    [
        (("Ärla Brandt", {}), ("Arla  brandt", {}), "name"),
        (("Ärla Brandt", {}), ("A. Brandt", {}), "name"),
        (("Brandt Ärla", {}), ("Ärla Brandt", {}), "name"),
        (("Tove Ekmark", {}), ("Tove Ekmarck", {}), "name"),
        (("Tove Ekmark", {}), ("Jon Halloway", {}), ""),
        (("A. Brandt", {}), ("A. Holt", {}), ""),
        (("", {}), ("", {}), ""),
        (("Tove", {"mail": "T@example.org"}), ("Ekmark & Son", {"contact": "write t@example.org"}), "mail"),
        (("Tove", {"phone": "+00 (555) 01-42-42"}), ("Shop", {"contact": "555 014 242, mornings"}), "phone"),
        (("Tove", {"phone": "555"}), ("Shop", {"phone": "555"}), ""),
    ],
)
def test_two_are_read_as_one_by_mail_telephone_or_name(one, other, why):
    assert alike(*one, *other) == why == alike(*other, *one)


@given(FACTS, FACTS)
def test_of_two_nothing_that_is_known_is_lost_and_the_kept_one_has_the_say(kept, double):
    both = merged(kept, double)
    assert set(both) == {key for one in (kept, double) for key, text in one.items() if text}
    assert all(both[key] == text for key, text in kept.items() if text and key != "note")
    assert kept.get("note", "") in both.get("note", "") and double.get("note", "") in both.get("note", "")
    said = {key: text for key, text in kept.items() if text}
    assert merged(kept, kept) == said == merged(kept, {})


def test_only_what_says_something_is_kept_and_what_is_too_long_is_told():
    assert checked({"mail": " a@b.org ", "phone": " ", "shoe": "42"}) == {"mail": "a@b.org"}
    assert checked({"speaks": "inches"}) and len({fact.key for fact in CUSTOMER_FACTS}) == len(CUSTOMER_FACTS)
    with refusing("at most 60 characters"):
        checked({"phone": "1" * 61})
    with refusing("must be"):
        checked({"speaks": "cubits"})
    assert mail_of({"contact": "Arla <A@B.org>, mornings"}) == "a@b.org" and phone_of({"phone": "12"}) == ""

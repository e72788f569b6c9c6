"""Lines of an order: what they ask for, what they cost; a table that is pasted."""

import csv
import io

import pytest
from hypothesis import given
from hypothesis import strategies as st

from lamsik.core.errors import Refused
from lamsik.core.money import DIGITS, MOST, Money, read
from lamsik.core.orders.grid import number
from lamsik.core.orders.grid import read as read_table
from lamsik.core.orders.lines import LINE_KINDS, STOCK, LineTerms, total_minor
from lamsik.core.paints.roles import CLEARS
from lamsik.core.paints.waiting import waiting_h
from lamsik.core.route.repaint import repainted
from lamsik.core.route.steps import steps
from lamsik.core.tank.sensitivities import with_clear_coats
from tests.bodies import bait


def test_each_kind_has_its_own_price_basis():
    assert LineTerms("made", 7, rate_minor=3200).price_minor == 22_400
    assert LineTerms("clear", 3, clears=2, rate_minor=500).price_minor == 3_000  # six coats
    floats = LineTerms("floats", 2, per_set=5, rate_minor=4000)
    assert (floats.price_minor, floats.wanted) == (8_000, 10)
    assert LineTerms("made", 3, lump_minor=1000).price_minor == 1000 and LineTerms().price_minor is None


@pytest.mark.parametrize(
    ("values", "says"),
    [
        ({"kind": "wish"}, "one-of"),
        ({"quantity": 0}, "between"),
        ({"kind": "clear", "clears": None}, "between"),
        ({"clears": 13}, "between"),
        ({"kind": "stock", "quantity": 2}, "there-is-one"),
        ({"rate_minor": 1, "lump_minor": 1}, "one-price"),
        ({"per_set": 61}, "between"),
    ],
)
def test_what_a_line_cannot_be_is_refused(values, says):
    with pytest.raises(Refused):
        LineTerms(**values)


LINES = st.builds(
    LineTerms,
    st.sampled_from([kind for kind in LINE_KINDS if kind != STOCK]),
    st.integers(1, 500),
    st.integers(1, 60),
    st.integers(1, 12),
    st.integers(0, 10**9),
)


@given(st.lists(LINES, min_size=1, max_size=8), st.sampled_from(["EUR", *DIGITS]))
def test_the_total_is_the_sum_of_its_lines_to_the_minor_unit_in_every_currency(lines, currency):
    said = [Money(line.price_minor, currency).said.split()[0] for line in lines]
    total = Money(total_minor(lines), currency)
    assert sum(int(one.replace(".", "")) for one in said) == int(total.said.split()[0].replace(".", ""))
    assert total_minor([*lines, LineTerms()]) is None and total_minor([]) is None
    if total.amount < MOST:
        assert read(total.said.split()[0], currency) == total


def test_two_clear_coats_more_are_two_recoats_more():
    """Of a line that asks for four where it asked for two; the last one cures in both."""
    two, four = (with_clear_coats(bait(), count) for count in (2, 4))
    recoat = next(layer for layer in two.layers if layer.does == CLEARS).wait_h
    assert waiting_h(four.layers) - waiting_h(two.layers) == pytest.approx(2 * recoat) and recoat > 0
    waits = [sum(step.wait_h for step in steps(one)) for one in (two, four)]
    assert waits[1] - waits[0] == pytest.approx(2 * recoat)


def test_clear_only_and_a_detail_put_on_nothing_else():
    made = with_clear_coats(bait(), 2)
    coats = {
        old: [step.key for step in repainted(made, old) if step.key.startswith("coat:")]
        for old in ("clear", "detail", "kept", "stripped")
    }
    assert coats["clear"] == ["coat:clear1", "coat:clear2"] == coats["detail"] == coats["kept"]
    assert coats["stripped"][0] == "coat:seal1" and len(coats["stripped"]) == 4
    first = [step.key for step in repainted(made, "clear")][:2]
    assert first == ["came", "bared"] and repainted(made, "clear")[1].kind == "key"
    with pytest.raises(Refused):
        repainted(made, "varnished")


BODIES = {"ferry runner": "B-001", "b-001": "B-001", "stubby": "B-002", "b-002": "B-002"}
SCHEMES = {"perch": "S-001", "s-001": "S-001", "smelt": "S-002", "s-002": "S-002"}


@pytest.mark.parametrize("apart", ["\t", ";", ","])
def test_a_table_is_read_as_a_spreadsheet_gives_it(apart):
    rows = [["", "Perch", "s-002"], ["Ferry Runner", "2", ""], ["B-002", "x", " 5 "], ["", "", ""]]
    table = read_table("\ufeff" + "\r\n".join(apart.join(row) for row in rows), BODIES, SCHEMES)
    assert table.cells == {("B-001", "S-001"): 2, ("B-002", "S-002"): 5} and table.problems == ()
    assert table.left_out == {("B-002", "S-001")}


def test_words_in_a_table_are_said_and_the_rest_is_read():
    table = read_table("\tPerch\tTrout\nStubby\ttwo\t1\nEel\t3\nStubby\t4\t", BODIES, SCHEMES)
    assert table.cells == {("B-002", "S-001"): 4}
    assert [one.name for one in table.problems] == ["no-scheme-called", "no-number-there", "no-body-called"]
    assert [dict(one.values).get("row") for one in table.problems] == [None, 2, 3]
    for nothing in ("", "\n\n", "just a word", "\tPerch", "x" * 200_001):
        with pytest.raises(Refused):
            read_table(nothing, BODIES, SCHEMES)


@given(st.lists(st.lists(st.integers(0, 500), min_size=2, max_size=2), min_size=1, max_size=6))
def test_what_is_written_as_a_table_is_read_back(numbers):
    text = io.StringIO()
    csv.writer(text, delimiter="\t").writerows(
        [["", "Perch", "Smelt"], *(["Stubby", *row] for row in numbers)]
    )
    table = read_table(text.getvalue(), BODIES, SCHEMES)
    for n, scheme in enumerate(("S-001", "S-002")):
        assert table.cells.get(("B-002", scheme), 0) == sum(row[n] for row in numbers)


@pytest.mark.parametrize(
    ("text", "many"),
    [
        ("", 0),
        ("-", 0),
        (" 12 ", 12),
        ("500", 500),
        ("501", None),
        ("-1", None),
        ("1.5", None),
        ("٣", None),
        ("9" * 50, None),
    ],
)
def test_a_cell_is_a_number_of_pieces_or_none(text, many):
    assert number(text) == many

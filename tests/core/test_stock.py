"""The ledger, what a piece takes, what is short, a table brought in."""

from dataclasses import replace
from datetime import date, datetime, timedelta

import pytest
from hypothesis import given
from hypothesis import strategies as st

from lamsik.core.errors import Refused
from lamsik.core.floats.design import Float
from lamsik.core.floats.parts import FloatPart, mass_g
from lamsik.core.paints.layers import Layer
from lamsik.core.paints.spraying import cups
from lamsik.core.shapes.ballast_holes import Hole, Slug
from lamsik.core.shapes.blades import STARTING_BLADE
from lamsik.core.shapes.hardware import Item, Placement
from lamsik.core.shapes.solid import solid
from lamsik.core.stock import bringing, ledger, needs
from lamsik.core.stock.short import Claims, StockStand, packs, would_do
from lamsik.core.stock.suppliers import USUAL_DAYS, lead_days
from lamsik.formats import table_csv
from tests.bodies import bait
from tests.refusing import refusing

NOON = datetime(2027, 3, 1, 12)
STEPS = st.lists(
    st.tuples(st.sampled_from(sorted(ledger.SIGNS)), st.floats(0.01, 500.0), st.booleans()), max_size=30
)


@given(STEPS, st.randoms())
def test_what_there_is_is_the_sum_whatever_the_order_and_never_below_nothing(steps, random):
    kept, held = [], 0.0
    for why, amount, is_taken_back in steps:
        try:
            signed = ledger.change(why, amount, held, "g")
        except Refused:
            continue
        if why == ledger.COUNTED:
            assert held + signed == pytest.approx(amount)
        if is_taken_back and held + signed - signed >= 0:
            kept.append(ledger.Change(signed, why, NOON, is_undone=True))
            continue
        kept.append(ledger.Change(signed, why, NOON))
        held += signed
        assert held >= -1e-6
    random.shuffle(kept)
    assert ledger.left(kept) == pytest.approx(held, abs=1e-6)


@pytest.mark.parametrize(
    ("why", "amount", "held", "says"),
    [
        ("used", 5.0, 4.0, "only 4 g are there by the books"),
        ("wasted", 0.5, 0.0, "only 0 g are there by the books"),
        ("corrected", -9.0, 8.0, "only 8 g are there by the books"),
        ("stolen", 1.0, 4.0, "one of bought, used"),
        ("bought", 0.0, 4.0, "0.001 to 999999 g"),
        ("counted", -1.0, 4.0, "0 to 999999 g"),
    ],
)
def test_a_change_that_cannot_be_is_refused(why, amount, held, says):
    with refusing(says):
        ledger.change(why, amount, held, "g")


def test_what_came_before_a_count_is_in_it_and_what_was_used_is_not_taken_back():
    ledger.require_after_count(NOON, None)
    ledger.require_after_count(NOON, NOON)
    with refusing("it was counted on 2027-03-01"):
        ledger.require_after_count(NOON - timedelta(days=1), NOON)
    ledger.require_undoable(5.0, 5.0, "piece")
    with refusing("only 4 are left"):
        ledger.require_undoable(5.0, 4.0, "piece")


@given(st.floats(0, 100), st.floats(0.001, 100))
def test_work_takes_what_was_there_beside_the_books_and_leaves_nothing_negative(held, wanted):
    taken, beside = ledger.used(wanted, held)
    assert taken == wanted and held + beside - taken >= -1e-9
    assert (beside == 0) == (wanted <= held)


def taken_of(design):
    return {(one.of, one.key, one.step): one.amount for one in needs.takes(design)}


def test_a_piece_takes_each_part_its_metal_its_stick_and_its_paint():
    plain = replace(bait(), hardware=(), ballast=(), layers=(), lip=None, cavities=())
    assert taken_of(plain) == {("called", plain.host.name, "carve"): plain.body.length_mm + needs.SAWN_MM}
    ring, hook = (Item(f"{kind}-1", kind, kind, 0.1, 7.85) for kind in ("ring", "hook"))
    hanger = Item("hgr", "hanger", "hanger", 0.1, 7.85)
    rod, ball = Slug("rod", "rod", "lead", 11.34, 6.0), Slug("ball", "ball", "lead", 11.34, 6.0)
    dressed = replace(
        plain,
        hardware=(
            Placement("a", hanger, "belly", 30.0),
            Placement("b", hanger, "belly", 60.0),
            Placement("c", ring, "belly", 30.0, "a"),
            Placement("d", hook, "belly", 30.0, "c"),
        ),
        ballast=(
            Hole("h1", rod, 3.0, 40.0, 6.5),
            Hole("h2", rod, 2.5, 50.0, 6.5),
            Hole("h3", ball, 2 * ball.ball_g, 55.0, 6.5),
        ),
    )
    taken = taken_of(dressed)
    assert taken["hardware", "hgr", "fit"] == 2
    assert taken["hardware", "ring-1", "rig"] == taken["hardware", "hook-1", "rig"] == 1
    assert taken["slug", "rod", "fit"] == pytest.approx(5.5)
    assert taken["slug", "ball", "fit"] == 2


def test_what_is_cast_takes_its_grams_paint_its_ml_and_eyes_come_in_pairs():
    plain = replace(bait(), hardware=(), ballast=(), layers=(), lip=None, cavities=())
    cast = replace(plain, host=replace(plain.host, construction="cast", density_g_cm3=1.2, name="resin"))
    assert taken_of(cast)["called", "resin", "carve"] == pytest.approx(solid(cast.body).volume_ml * 1.2)
    coat = Layer("l1", "base", "Base", film_um=20.0)
    eyes = Layer("l2", "eyes", "Eyes, 6 mm", mass_g=0.05)
    painted = replace(plain, layers=(coat, eyes))
    taken = taken_of(painted)
    name = coat.paint.code or coat.paint.name or "Base"
    wet = next(cup.wet_ml for cup in cups(painted) if cup.layer.key == "l1")
    assert next(v for (_, key, step), v in taken.items() if step == "coat:l1" and key == name) == wet > 0
    assert taken["called", "Eyes, 6 mm", "coat:l2"] == 2


def test_a_float_takes_its_dowel_its_lengths_and_its_load_and_a_blade_its_strip():
    parts = (
        FloatPart("b", "body", "body, balsa", 50.0, 12.0, 0.16, 30.0),
        FloatPart("s", "stem", "stem, bamboo", 120.0, 2.0, 0.6, inside=True),
        FloatPart("l", "loading", "loading, brass", 8.0, 6.0, 8.4, 2.0),
        FloatPart("t", "tip", "tip, bamboo", 20.0, 1.5, 0.6, 80.0),
    )
    turned = Float("stick", "stick", parts)
    taken = {(one.key, one.unit, one.step): one.amount for one in needs.takes_float(turned)}
    assert taken == {
        ("balsa", "mm", "carve"): 50.0 + needs.SAWN_MM,
        ("bamboo", "mm", "fit"): 120.0 + 20.0 + 2 * needs.SAWN_MM,
        ("loading, brass", "piece", "fit"): 1.0,
    }
    foam = {one.key: one for one in needs.takes_float(replace(turned, kind="bulk foam"))}
    assert (foam["body, balsa"].amount, foam["body, balsa"].unit) == (mass_g(parts[0]), "g")
    (strip,) = needs.takes_blade(STARTING_BLADE)
    assert (strip.key, strip.unit, strip.step) == ("brass", "mm", "bend")
    assert strip.amount == STARTING_BLADE.flat_mm + needs.SAWN_MM


STAND = StockStand(10.0, True, Claims.of((1, 4.0), (2, 5.0), (3, 0.0), (4, 3.0), (2, 1.0)), 6.0)


def test_what_there_is_goes_to_who_is_due_first_and_the_rest_is_short():
    assert (STAND.reserved, STAND.free, STAND.lacks, STAND.to_buy) == (13.0, 0.0, 3.0, 9.0)
    assert STAND.stops == (4,) and replace(STAND, held=3.0).stops == (1, 2, 4)
    assert STAND.claims.first(2) == [(1, 4.0), (2, 6.0)] and len(STAND.claims) == 3
    rich = replace(STAND, held=20.0)
    assert (rich.free, rich.lacks, rich.to_buy, rich.stops) == (7.0, 0.0, 0.0, ())


def test_packs_are_whole_and_only_what_is_free_stands_in():
    assert [packs(n, 25.0) for n in (0.0, 1.0, 25.0, 25.5, 51.0)] == [0, 1, 1, 2, 3]
    assert packs(7.0, 0.0) == 0
    claims = Claims.of((7, 7.0))
    others = {1: StockStand(9.0, True, claims), 2: StockStand(3.0, True), 3: StockStand(8.0, True)}
    assert would_do(3.0, others) == [3, 2]


def test_how_long_a_supplier_takes_is_learned_of_what_came():
    assert (lead_days([]).value, lead_days([], 4).value) == (USUAL_DAYS, 4.0)
    days = [(date(2027, 1, 1), date(2027, 1, n)) for n in (5, 9, 7)]
    learned = lead_days([*days, (date(2027, 2, 2), date(2027, 2, 1))], 4)
    assert (learned.value, learned.n, learned.spread, learned.source) == (6.0, 3, 2.0, "shop")


KNOWN = {"S0001": "g", "S0002": "piece"}


def brought(heads, *cells, **answered):
    names = bringing.heads(heads)
    row = {"line": "2", **dict(zip(heads, cells, strict=True))}
    return bringing.read(row, names, KNOWN, answered)


def test_amounts_are_read_in_the_unit_the_file_says():
    heads = ("number", "there is", "unit")
    assert brought(heads, "S0001", "2", "oz").amounts["left"] == pytest.approx(56.699, abs=1e-3)
    assert brought(("number", "there is [kg]"), "S0001", "1.5").amounts["left"] == pytest.approx(1500.0)
    assert brought(("number", "least"), "S0002", "12").amounts["minimum"] == 12
    assert brought(("number", "there is"), "S0001", "3", g="oz").amounts["left"] == pytest.approx(
        85.05, abs=0.01
    )
    new = brought(("name", "kind", "price", "currency"), "Wire", "other", "4.80", "USD")
    assert (new.number, new.kind, new.unit, new.price) == ("", "other", "piece", "4.80 USD")


def test_units_that_a_file_does_not_say_are_asked_for():
    names = bringing.heads(["number", "there is"])
    rows = [
        {"line": "2", "number": "S0001", "there is": "4"},
        {"line": "3", "number": "S0002", "there is": "4"},
    ]
    assert bringing.unasked(rows, names, KNOWN) == ["g"]
    assert bringing.unasked([{**rows[0], "there is": "4 oz"}], names, KNOWN) == []
    assert bringing.unasked(rows[1:], names, KNOWN) == []
    assert bringing.unasked(rows, bringing.heads(["number", "there is [oz]"]), KNOWN) == []


@pytest.mark.parametrize(
    ("heads", "cells", "says"),
    [
        (("number", "there is [g]", "unit"), ("S0001", "4", "oz"), "one unit for there is"),
        (("number", "there is"), ("S0009", "4"), "the number of an item of this shop"),
        (("kind", "name"), ("metal", ""), "a name for a new item"),
        (("kind", "name"), ("gold", "x"), "one of part, metal"),
        (("number", "price"), ("S0001", "4.80"), "a currency beside the price"),
        (("number", "there is", "unit"), ("S0002", "4", "g"), "a number of pieces"),
        (("number", "there is", "unit"), ("S0001", "-4", "g"), "nothing below 0"),
    ],
)
def test_a_row_that_cannot_be_is_refused_with_its_line(heads, cells, says):
    with refusing(says) as refused:
        brought(heads, *cells)
    assert refused.value.field.startswith("line 2, ")


def test_two_columns_of_one_amount_are_two_units():
    with refusing("one unit for there is"):
        bringing.heads(["number", "there is [g]", "there is [oz]"])


@pytest.mark.parametrize(
    ("data", "says"),
    [
        (b"number\xff\nS0001\n", "a CSV in UTF-8: save it so"),
        (b"number\n" + b"S0001\n" * 20_001, "rows at once"),
        (b"name\nHook\n", "a column called number"),
        (b"number\n" + b" " * 4_000_001, "at most 4.0 MB"),
    ],
)
def test_a_file_that_is_no_table_is_refused(data, says):
    with refusing(says):
        table_csv.read(data, ("number",))


def test_a_table_is_read_as_it_was_written_and_no_cell_is_a_formula():
    names = ("name", "n")
    text = table_csv.write(names, [{"name": "=2+2\tx", "n": 1.5}, {"name": 'a, "b"', "n": None}])
    assert "'=2+2 x,1.5" in text
    read = table_csv.read(text.encode(), names)
    assert [(row["line"], row["name"], row["n"]) for row in read] == [
        ("2", "=2+2 x", "1.5"),
        ("3", 'a, "b"', ""),
    ]

"""Drawings of floats and moulds in words: what is told is what is drawn and computed."""

import re

import pytest

from tests import demo_rows as shop
from tests.web.test_inwords import number, table


def test_a_floats_parts_and_marks_are_told_with_their_places_and_masses(demo):
    page = demo.get(f"/floats/{shop.TENCH_ANTENNA_2_5_G}/words").text
    parts, marks = table(page, "parts"), table(page, "marks")
    feet = [number(part[2]) for part in parts]
    assert feet == sorted(feet) and feet[0] == 0.0
    whole = max(number(part[2]) + number(part[3]) for part in parts)
    assert f"≈ {whole:.0f} mm. Foot to tip." in page
    assert sum(number(part[5]) for part in parts) < 1.25  # paint and varnish come to it
    carried = [number(mark[2]) for mark in marks]
    assert carried == sorted(carried) and 0.0 < number(marks[0][1]) < number(marks[-1][1]) <= whole


@pytest.mark.parametrize(("name", "cavities"), [("STUBBY_FOUR_AT_ONCE", 4), ("BREAM_FRY_ON_EDGE", 1)])
def test_a_moulds_cavities_and_keys_are_told_inside_its_box(demo, name, cavities):
    page = demo.get(f"/moulds/{getattr(shop, name)}/words").text
    box = page[page.index("Box inside") :].split("<dd>")[1].split(". ")[0]
    long, wide = (float(side.split()[0]) for side in box.split(" × ")[:2])
    rows = table(page, "cavities")
    assert len(rows) == cavities
    for row in [*rows, *table(page, "keys")]:
        assert 0.0 < number(row[1]) < long and 0.0 < number(row[2]) < wide


def test_where_air_stays_is_told_as_the_verdict_counts_it(demo):
    page = demo.get(f"/moulds/{shop.BREAM_FRY_ON_EDGE}/words").text
    rows = table(page, "air")
    said = float(re.search(r"(\d+) places hold air: ([\d.]+) ml in each casting", page)[2])
    assert len(rows) == 2 and sum(number(row[4]) for row in rows) == pytest.approx(said, abs=0.02)

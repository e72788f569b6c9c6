"""The drawing of a body in words: it adds up to what is drawn."""

import re

import pytest

from tests import demo_rows as shop


def table(text, heading):
    part = text[text.index(f'aria-labelledby="told-{heading}"') :]
    rows = re.findall(r"<tr>(.*?)</tr>", part[: part.index("</table>")], re.S)[1:]
    return [re.findall(r"<t[hd][^>]*>(.*?)</t[hd]>", row, re.S) for row in rows]


def number(cell):
    return float(cell.split()[0].replace("−", "-").replace("+", ""))


def test_the_parts_told_balance_at_the_g_that_is_told(demo):
    things = table(demo.get(f"/tank/{shop.FERRY_RUNNER}/words").text, "things")
    g, _, *parts = things
    masses = [number(part[1]) for part in parts]
    assert sum(masses) == pytest.approx(number(g[1]), abs=0.05)
    for column in (2, 3):
        mean = sum(m * number(part[column]) for m, part in zip(masses, parts, strict=True)) / sum(masses)
        assert mean == pytest.approx(number(g[column]), abs=0.3)
    over = {part[0]: number(part[3]) for part in parts}
    assert over["Hook hanger, screw eye 0.9 × 13"] > 0 > over["Lip 14 × 16, polycarbonate"]
    assert [number(part[2]) for part in parts] == sorted(number(part[2]) for part in parts)


@pytest.mark.parametrize("name", ["FERRY_RUNNER", "SPLIT_EEL", "PRINT_RATTLER", "REED_STICK"])
def test_the_outline_told_is_as_long_and_as_wide_as_the_body(demo, name):
    page = demo.get(f"/tank/{getattr(shop, name)}/words")
    rows = table(page.text, "outline")
    assert page.status_code == 200 and number(rows[0][0]) == 0
    assert len(rows) == 11 and max(number(row[3]) for row in rows) > 0
    assert all(number(row[1]) >= number(row[2]) for row in rows)

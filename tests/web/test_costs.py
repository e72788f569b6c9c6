"""Costs, prices and the year through their pages."""

import re
from datetime import date, timedelta
from fractions import Fraction

import pytest
from sqlmodel import func, select

from lamsik.core.money import Money
from lamsik.store import costs, documents, pieces, year
from lamsik.store.tables import (
    Document,
    OrderLine,
    Payment,
    PieceStep,
    now,
)
from tests.web.pouring import rows
from tests.web.test_doing import opened
from tests.web.test_stock import HOOK, moved, short_of


def test_a_line_says_what_the_hour_earns_and_a_price_pays_the_wanted_hour(demo):
    line = next(
        row for row in rows(demo, OrderLine) if row.kind == "made" and row.rate_minor and row.revision_id
    )
    page = demo.get(f"/stores/costs/line/{line.id}").text
    assert f"At {Money(line.rate_minor, 'EUR').said} each" in page and "the hour earns" in page
    paid = demo.get(f"/stores/costs/line/{line.id}?wanted=30&way=wanted").text
    price = re.search(r"At ([0-9.]+) EUR each.*the hour earns ([0-9.]+) EUR an hour", paid)
    assert 30.0 <= float(price[2]) < 30.02
    again = demo.get(f"/stores/costs/line/{line.id}?price={price[1]}&way=price").text
    assert f"the hour earns {price[2]} EUR" in again
    sums = [
        float(text)
        for text in re.findall(r'<td class="n">([0-9.−-]+) EUR</td>', paid.split("What it takes")[0])
    ]
    assert sum(sums) == pytest.approx(float(price[1]))
    assert demo.get(f"/stores/costs/line/{line.id}?price=lots").status_code == 422


def test_what_is_paid_for_a_pack_and_timed_at_the_bench_is_what_counts(demo):
    with opened(demo) as session:
        line = session.get_one(OrderLine, short_of(session, HOOK).stops[-1])
        before = costs.of_line(session, line)
        many = next(one.minor for one in before.costing.parts if one.name == HOOK) / Fraction(950, 25)
    moved(demo, HOOK, amount="10", price="7.50", new_lot="H-77")
    with opened(demo) as session:
        line = session.get_one(OrderLine, line.id)
        piece = pieces.start(session, session.get_one(Document, line.design_id), line)
        began = now() - timedelta(minutes=20)
        session.add(
            PieceStep(piece_id=piece.id, step="rig", begun_at=began, done_at=began + timedelta(minutes=20))
        )
        session.flush()
        after = costs.of_line(session, line)
        named = next(one for one in after.costing.parts if one.name == f"{HOOK}, lot H-77")
        assert named.minor == many * 75
        stage = next(one for one in after.stages if one.kind == "rig")
        assert stage.minutes == pytest.approx(20, abs=0.2) and stage.times == 1


def test_tools_packing_fees_and_taxes_take_their_share_and_nothing_is_our_word(demo):
    with opened(demo) as session:
        line = session.get_one(OrderLine, short_of(session, HOOK).stops[-1])
        before = costs.of_line(session, line).costing
    sent = {"rate": "30", "fee_percent": "3.5", "fee": "0.25", "packing": "0.80", "unfinished": "5"}
    assert demo.post("/stores/costs/keep", sent).status_code == 302
    unsourced = {"name_0": "VAT", "percent_0": "21"}
    assert "who says so, and as of when" in demo.post("/stores/costs/taxes", unsourced).text
    rule = {
        **unsourced,
        "source_0": "Tax office",
        "as_of_0": "2026-01-01",
        "name_1": "Excise",
        "duty_1": "0.10",
    }
    rule |= {"source_1": "Customs", "as_of_1": "2026-01-01"}
    assert demo.post("/stores/costs/taxes", rule).status_code == 302
    tool = {"kind": "tool", "name": "Carving jig", "price": "80", "uses": "100"}
    assert demo.post("/stores/stock/new", tool).status_code == 302
    with opened(demo) as session:
        after = costs.of_line(session, session.get_one(OrderLine, line.id)).costing
    assert after.beside - before.beside == 80 + 80
    assert (after.terms.tax_percent, after.terms.duty_minor, after.terms.fee_minor) == (21.0, 10, 25)
    for bad in ({**sent, "fee_percent": "99"}, {**sent, "rate": "much"}, {**sent, "unfinished": "0"}):
        assert demo.post("/stores/costs/keep", bad).status_code == 422
    assert "a share in percent" in demo.post("/stores/costs/keep", {**sent, "fee_percent": "x"}).text


def test_a_body_is_priced_in_a_scheme_and_cheaper_when_many_are_made_together(demo):
    with opened(demo) as session:
        body = documents.listed(session, "body")[3]
        scheme = documents.listed(session, "scheme")[2]
        one, ten = (costs.of_body(session, body, scheme, count).costing.hours for count in (1, 10))
    assert ten < one
    page = demo.get(f"/stores/costs/body/{body.id}?scheme={scheme.id}&count=10").text
    assert f'<option value="{scheme.id}" selected' in page
    listed = demo.get(f"/stores/prices?scheme={scheme.id}").text
    csv = demo.get(f"/stores/prices/list.csv?scheme={scheme.id}").text
    assert csv.startswith(f"code,name,as drawn [EUR],{scheme.name} [EUR]")
    assert csv.splitlines()[1].split(",")[2] in listed


def test_a_tool_says_when_it_has_paid_and_a_family_what_a_size_costs(demo):
    sent = {
        "tool": "120",
        "hand_h": "1 h",
        "with_h": "15 min",
        "hand_sum": "1.50",
        "with_sum": "2.10",
        "weekly": "3",
    }
    page = demo.post("/stores/costs/tool", sent).text
    assert "It has paid after 7 pieces" in page and "it frees 45 min on each" in page
    assert (date.today() + timedelta(weeks=7 / 3)).isoformat() in page
    assert "It never pays" in demo.post("/stores/costs/tool", {**sent, "with_h": "2 h"}).text
    assert demo.post("/stores/costs/tool", {**sent, "hand_h": "soon"}).status_code == 422
    sizes = {"length_1": "90 mm", "sum_1": "20", "length_2": "120 mm", "sum_2": "26", "length": "150 mm"}
    assert "at 150 mm 32.00 EUR" in demo.post("/stores/costs/family", sizes).text
    same = demo.post("/stores/costs/family", {**sizes, "length_2": "90 mm"})
    assert same.status_code == 422 and "two sizes of different lengths" in same.text


def test_the_year_sums_what_went_out_what_is_open_and_what_waits(demo):
    with opened(demo) as session:
        sold = year.sales(session, date.today().year)
        total = sum(one.minor for one in sold)
        unpaid = year.unpaid(session)
        paid = dict(
            session.exec(select(Payment.order_id, func.sum(Payment.minor)).group_by(Payment.order_id)).all()
        )
        for one in unpaid:
            owed = one.order.price_minor + (one.order.shipping_minor or 0)
            assert one.minor == owed - paid.get(one.order.id, 0) > 0
        waits = year.unfinished(session)
        assert all(piece.stand == "making" for piece in waits) and len(waits) > 3
    page = demo.get("/stores/year").text
    assert f"sold {Money(total, 'EUR').said} in {len(sold)} lines" in page
    csv = demo.get("/stores/year/sold.csv").text.splitlines()
    assert len(csv) == len(sold) + 1 and csv[0] == "on,order,kind,body,scheme,pieces,sum [EUR],hours [h]"
    assert sum(round(100 * float(line.split(",")[6])) for line in csv[1:]) == total
    assert "sold 0.00 EUR in 0 lines" in demo.get("/stores/year?year=1999").text

"""Costs, prices and the year through their pages."""

import re
from collections import Counter
from datetime import date, timedelta
from fractions import Fraction

import pytest
from sqlmodel import col, func, select, update

from lamsik.core.money import Money
from lamsik.core.stock.year import by, by_month
from lamsik.drawings.money_bar import COLOURS, money_bar
from lamsik.drawings.months import DESK, PHONE, month_bars
from lamsik.drawings.svg import markup
from lamsik.store import costs, documents, mixes, moulds, pieces, routes, stands, year
from lamsik.store.claims import COMPOUND_LOSS, Losses
from lamsik.store.tables import (
    Batch,
    Document,
    MouldMade,
    Order,
    OrderLine,
    Payment,
    Piece,
    PieceStep,
    StockItem,
    now,
)
from lamsik.web.stores.costs import mass_of
from tests import demo_rows
from tests.web.pouring import rows
from tests.web.test_doing import opened
from tests.web.test_slice import ENQUIRY
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
        another = pieces.start(session, session.get_one(Document, line.design_id), line)
        left_running = {"begun_at": now() - timedelta(hours=30), "done_at": now()}
        session.add(PieceStep(piece_id=another.id, step="rig", **left_running))
        session.flush()
        stage = next(one for one in costs.of_line(session, line).stages if one.kind == "rig")
        assert stage.times == 1 and stage.minutes == pytest.approx(20, abs=0.2)


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
    assert csv.startswith(f"code,name,size,as drawn [EUR],{scheme.name} [EUR]")
    assert csv.splitlines()[1].split(",")[3] in listed


def test_a_price_list_has_its_sizes_and_the_larger_one_takes_more(demo):
    with opened(demo) as session:
        body = session.get_one(Document, demo_rows.FERRY_RUNNER)
        small, large = (
            costs.of_body(session, body, None, 1, length_mm=mm).costing.beside for mm in (80.0, 140.0)
        )
        assert small < large
    inches = demo.get("/stores/prices?length=4+1/4+in").text
    assert inches.count("at 4 1/4 in") > 3 and "cannot be" not in inches
    csv = demo.get("/stores/prices/list.csv?length=80+mm&length=5+1/2+in").text.splitlines()
    sizes = [line.split(",")[2] for line in csv[1:]]
    assert len(sizes) % 3 == 0 and sizes[:3] == ["", "80 mm", "5 1/2 in"]
    page = demo.get("/stores/prices?length=80+mm").text
    assert page.count("at 80 mm") == page.count('class="text-muted">') > 3
    wrong = demo.get("/stores/prices?length=long")
    assert wrong.status_code == 422 and 'value="long"' in wrong.text and "As drawn" in wrong.text
    assert demo.get("/stores/prices/list.csv?length=long").status_code == 422


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
    assert "It has paid after 7 pieces" in page
    assert "it frees 45 min on each, 5.2 h by then, 117 h in a year." in page
    assert (date.today() + timedelta(weeks=7 / 3)).isoformat() in page
    assert "It never pays" in demo.post("/stores/costs/tool", {**sent, "with_h": "2 h"}).text
    assert demo.post("/stores/costs/tool", {**sent, "hand_h": "soon"}).status_code == 422
    sizes = {"length_1": "90 mm", "sum_1": "20", "length_2": "120 mm", "sum_2": "26", "length": "150 mm"}
    assert "at 150 mm 32.00 EUR" in demo.post("/stores/costs/family", sizes).text
    same = demo.post("/stores/costs/family", {**sizes, "length_2": "90 mm"})
    assert same.status_code == 422 and "two sizes of different lengths" in same.text


def sold(session):
    return year.sales(session, year.sent_in(session, date.today().year, is_each=True))


def test_what_was_taken_off_an_order_comes_off_what_its_lines_brought(demo):
    with opened(demo) as session:
        order = session.get_one(Order, year.sent_in(session, date.today().year, is_each=True)[0].order)
        before = sum(one.minor for one in sold(session) if one.order == order.number)
        order.discount_percent = 12.5
        session.add(order)
        stands.order_anew(session, order)
        after = [one.minor for one in sold(session) if one.order == order.number]
        assert sum(after) == order.price_minor == before - round(before / 8) < before


def test_lines_that_are_the_same_are_added_up_together_to_what_each_of_them_comes_to(demo):
    with opened(demo) as session:
        now = date.today().year
        gone = year.sent_in(session, now, is_each=True)
        lines = [session.get_one(OrderLine, sent.key).model_dump(exclude={"id"}) for sent in gone]
        for at, line in enumerate(lines):
            session.add_all(OrderLine(**line) for _ in range(1 + at % 3))
        assert gone[0].on.month != gone[-2].on.month  # the same in another month is of that month
        session.add(OrderLine(**{**lines[0], "order_id": gone[-2].order}))
        session.get_one(Order, gone[-1].order).discount_percent = 12.5
        session.flush()
        each, together = (year.sales(session, year.sent_in(session, now, one)) for one in (True, False))
        assert len(together) < len(each) == sum(one.lines for one in together)
        assert by_month(together) == by_month(each)
        for sort in (lambda one: one.body, lambda one: one.scheme, lambda one: one.kind):
            assert by(together, sort) == by(each, sort)


@pytest.mark.parametrize(("day", "year_of"), [("01-01", 0), ("12-31", 0), ("12-31", -1)])
def test_what_went_out_on_the_first_and_the_last_day_of_a_year_is_of_that_year(demo, day, year_of):
    now = date.today().year
    with opened(demo) as session:
        order = session.get_one(Order, year.sent_in(session, now, is_each=True)[0].order)
        order.gone_on = date.fromisoformat(f"{now + year_of}-{day}")
        session.flush()
        years = {
            at
            for at in (now - 1, now)
            for one in year.sent_in(session, at, is_each=True)
            if one.order == order.id
        }
        assert years == {now + year_of}


def test_a_line_costs_its_own_beside_one_that_is_nearly_alike(demo):
    with opened(demo) as session:
        found = year.sent_in(session, date.today().year, is_each=True)
        sent = next(one for one in found if one.agreed and one.scheme)
        line, keys = session.get_one(OrderLine, sent.key), [sent.key]
        for changes in ({"clears": 5}, {"clears": 2}, {}, {"quantity": line.quantity + 3}):
            twin = OrderLine(**{**line.model_dump(exclude={"id"}), "revision_id": None, **changes})
            session.add(twin)
            session.flush()
            keys.append(twin.id)
        again = {one.key: one for one in year.sent_in(session, date.today().year, is_each=True)}
        rows = [again[key] for key in keys]
        together = year.sales(session, rows)
        assert together == [sale for row in rows for sale in year.sales(session, [row])]
        for key, sale in zip(keys, together, strict=True):
            one = costs.of_line(session, session.get_one(OrderLine, key))
            assert sale.left == one.costing.left(sale.minor, sale.pieces)
        each = [sale.hours / sale.pieces for sale in together]
        assert each[1] > each[2] and each[3] > each[4]  # coats, and what is laid out once for more of them


def test_the_year_sums_what_went_out_what_is_open_and_what_waits(demo):
    with opened(demo) as session:
        gone = sold(session)
        total = sum(one.minor for one in gone)
        ahead = session.exec(select(Order).where(Order.stand == "making")).first()
        paid_so_far = stands.paid_minor(session, ahead)
        ahead.shipping_minor = paid_so_far - ahead.price_minor  # all of it is paid, and nothing sent
        stands.order_anew(session, ahead)
        still_open, unpaid = year.unpaid(session)
        paid = dict(
            session.exec(select(Payment.order_id, func.sum(Payment.minor)).group_by(Payment.order_id)).all()
        )
        owed = Counter()
        for order in session.exec(select(Order).where(col(Order.accepted_at).is_not(None))).all():
            left = (order.price_minor or 0) + (order.shipping_minor or 0) - paid.get(order.id, 0)
            if left > 0 and order.cancelled_at is None and order.deleted_at is None:
                owed[order.customer_id] += left
        assert {one.customer.id: one.minor for one in unpaid} == dict(owed) and len(owed) > 3
        assert still_open == sum(owed.values()) and all(one.many == len(one.orders) for one in unpaid)
        assert [one.minor for one in unpaid] == sorted(owed.values(), reverse=True)
        many, waits = year.unfinished(session)
        going = session.exec(select(Piece).where(*pieces.GOING)).all()
        ended = routes.ended(session, going)
        assert {piece.id for piece in waits} == {
            key
            for key, steps in ended.items()
            if "carve" in steps and not any(step.startswith("coat:") for step in steps)
        }
        assert many == len(waits) > 3
    page = demo.get("/stores/year").text
    assert f"sold {Money(total, 'EUR').said} in {len(gone)} lines" in page
    csv = demo.get("/stores/year/sold.csv").text.splitlines()
    assert len(csv) == len(gone) + 1 and csv[0] == "on,order,kind,body,scheme,pieces,sum [EUR],hours [h]"
    assert sum(round(100 * float(line.split(",")[6])) for line in csv[1:]) == total
    assert "sold 0.00 EUR in 0 lines" in demo.get("/stores/year?year=1999").text


def test_the_year_names_the_first_and_counts_the_others(demo, monkeypatch):
    with opened(demo) as session:
        owing = session.exec(select(Order).where(col(Order.accepted_at).is_not(None))).all()
        for order in owing:
            order.customer_id = owing[0].customer_id
        before, _ = year.unpaid(session)
        waiting, _ = year.unfinished(session)
    monkeypatch.setattr(year, "MOST", 2)
    monkeypatch.setattr(year, "MOST_NAMED", 3)
    with opened(demo) as session:
        still_open, (alone,) = year.unpaid(session)
        assert still_open == alone.minor == before and len(alone.orders) == 3 < alone.many
        many, first = year.unfinished(session)
        assert many == waiting > 2 == len(first)
    page = demo.get("/stores/year").text
    assert f"and {alone.many - 3} more" in page and f"and {many - 2} more" in page
    assert f'aria-label="{many} of 40"' in page


RATES = {"zone_0": "Here", "up_to_0": "250 g", "costs_0": "3.90", "zone_1": "Here", "up_to_1": "2 kg"}
RATES |= {
    "costs_1": "7.20",
    "on_1": "2026-01-01",
    "zone_2": "Overseas",
    "up_to_2": "50 g",
    "costs_2": "14.50",
}


def test_a_way_costs_by_zone_and_weight_on_an_order_and_in_a_price(demo):
    assert demo.post("/stores/costs/shipping", RATES).status_code == 302
    page = demo.get("/stores/costs").text
    assert 'value="2 kg"' in page or 'value="2000 g"' in page
    body = f"/stores/costs/body/{demo_rows.FERRY_RUNNER}?price=40"
    plain, sent = demo.get(body).text, demo.get(f"{body}&zone=Here&count=5").text
    weighs = float(re.search(r"One weighs ([0-9.]+) g", plain)[1])
    whole = 390 if 5 * weighs <= 250 else 720
    assert f"{whole / 500:.2f} EUR" in sent.split("shipping")[1][:80] and "</svg> shipping" not in plain
    over = demo.get(f"{body}&zone=Overseas&count=40")
    assert over.status_code == 422 and "50 g at most to Overseas, and this weighs" in over.text
    order = f"/orders/{demo_rows.ORDER_FERRY_RUNNER_90_ACCEPTED}"
    demo.post(f"{order}/price", {"to": "Here"})
    with opened(demo) as session:
        lines = session.exec(
            select(OrderLine).where(OrderLine.order_id == demo_rows.ORDER_FERRY_RUNNER_90_ACCEPTED)
        ).all()
        kept = session.get_one(Order, demo_rows.ORDER_FERRY_RUNNER_90_ACCEPTED).shipping_minor
        mass = sum(
            one.quantity * mass_of(documents.content(session, session.get_one(Document, one.design_id)))
            for one in lines
        )
    assert kept == (390 if mass <= 250 else 720)
    demo.post(f"{order}/price", {"to": "Here", "shipping": "5"})
    assert "5.00 EUR" in demo.get(order).text.split("Shipping</dt>")[1][:60]
    wrong = demo.post("/stores/costs/shipping", {**RATES, "up_to_0": "light"})
    assert wrong.status_code == 422 and 'value="light"' in wrong.text
    assert len(rates_of(demo)) == 3


def rates_of(demo):
    with opened(demo) as session:
        return costs.rates(session)


def test_an_order_of_which_nothing_is_drawn_has_no_weight(empty):
    empty.post("/stores/costs/shipping", RATES)
    empty.post("/orders/new", {**ENQUIRY, "design": ""})
    (order,) = rows(empty, Order)
    answer = empty.post(f"/orders/{order.id}/price", {"to": "Here"})
    assert answer.status_code == 422 and "what this line weighs is not drawn yet" in answer.text


def test_minutes_that_are_typed_at_a_step_count_before_its_clock(demo):
    key = demo_rows.PIECE_FERRY_RUNNER_90
    with opened(demo) as session:
        piece = session.get_one(Piece, key)
        step = next(
            row
            for row in session.exec(select(PieceStep).where(PieceStep.piece_id == key)).all()
            if row.done_at is not None
        )
        line = session.exec(select(OrderLine).where(OrderLine.design_id == piece.design_id)).first()
        kind = next(one.kind for one in routes.of_many(session, [piece])[key] if one.key == step.step)
    sent = {"step": step.step, "note": "sharp gouge", "hands": "1.5 h"}
    assert demo.post(f"/pieces/{key}/steps/note", sent).status_code == 302
    page = demo.get(f"/pieces/{key}").text
    assert "90 min of work" in page and 'value="90 min"' in page
    with opened(demo) as session:
        stage = next(one for one in costs.of_line(session, line).stages if one.kind == kind)
        assert stage.times >= 1 and stage.timed_min == pytest.approx(90.0 / stage.times, rel=0.6)
    for wrong in ("soon", "0 min", "900 h"):
        assert demo.post(f"/pieces/{key}/steps/note", {**sent, "hands": wrong}).status_code == 422
    demo.post(f"/pieces/{key}/steps/note", {**sent, "hands": ""})
    assert "90 min of work" not in demo.get(f"/pieces/{key}").text


def test_a_mould_shares_what_it_cost_over_the_castings_expected_of_it(demo):
    with opened(demo) as session:
        made = session.exec(
            select(MouldMade).where(
                MouldMade.mould_id == demo_rows.STUBBY_FOUR_AT_ONCE, col(MouldMade.retired_at).is_(None)
            )
        ).all()[-1]
        content = documents.content(session, session.get_one(Document, made.mould_id))
        body, castings = content["master"]["body_id"], 40 * len(moulds.alive(made))
    card = f"/moulds/made/{made.id}/price"
    refused = demo.post(card, {"cost": "64", "shots": ""})
    assert refused.status_code == 422 and "over how many shots what it cost is shared" in refused.text
    assert 'value="64"' in refused.text
    assert demo.post(card, {"cost": "64", "shots": "0"}).status_code == 422
    assert demo.post(card, {"cost": "64", "shots": "40"}).status_code == 302
    assert 'value="64.00"' in demo.get(f"/moulds/{made.mould_id}/card").text
    with opened(demo) as session:
        costed = costs.of_body(session, session.get_one(Document, body), None, 1)
        part = next(one for one in costed.costing.parts if one.share == "tools" and "version" in one.name)
        assert part.minor == Fraction(6400, castings)
    demo.post(f"/moulds/made/{made.id}/retire")
    with opened(demo) as session:
        costed = costs.of_body(session, session.get_one(Document, body), None, 1)
        assert not [one for one in costed.costing.parts if "version" in one.name]


def test_a_compound_is_reserved_with_the_loss_its_own_batches_taught(demo):
    with opened(demo) as session:
        product = session.get_one(Document, demo_rows.CASTING_RESIN)
        item = session.exec(
            select(StockItem).where(StockItem.of == "product", StockItem.of_id == product.id)
        ).first()
        learned = mixes.loss_of(session, product.id)
        told = Losses(session).of(item, "g")
        assert told == (learned.value if learned.n else COMPOUND_LOSS)
        assert Losses(session).of(None, "g") == COMPOUND_LOSS
        session.exec(update(Batch).where(Batch.product_id == product.id).values(state="dropped"))
        assert Losses(session).of(item, "g") == COMPOUND_LOSS
    assert learned.n > 0


def rects(drawn):
    return [
        dict(re.findall(r'([a-z-]+)="([^"]*)"', rect)) for rect in re.findall(r"<rect[^>]*>", markup(drawn))
    ]


def test_bars_are_as_high_and_as_long_as_their_sums_on_the_desk_and_on_a_phone():
    for wide in (DESK, PHONE):
        drawn = month_bars([0.0, 40.0, 80.0, *[0.0] * 9], "EUR", wide)
        february, march = rects(drawn)
        assert float(march["height"]) == pytest.approx(2 * float(february["height"]), abs=0.1)
        assert float(march["x"]) - float(february["x"]) == pytest.approx((wide - 16) / 12, abs=0.1)
    pieces = rects(money_bar({"materials": 100, "hours": 300, "tax": -5}, ""))
    assert [one["fill"] for one in pieces] == [COLOURS["materials"], COLOURS["hours"]]
    assert float(pieces[1]["width"]) / float(pieces[0]["width"]) == pytest.approx(3, rel=0.03)

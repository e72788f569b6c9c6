"""The stores through their pages: the ledger, what is short, stand-ins, counting, tables in and out."""

import io
import re
import zipfile
from datetime import date, timedelta

import pytest
from sqlmodel import select

from lamsik.core.route.steps import SHIPPED
from lamsik.store import (
    ahead,
    documents,
    ledger,
    mixes,
    needs,
    orders,
    pieces,
    reserved,
    stands,
    suppliers,
    used,
)
from lamsik.store import moved as went
from lamsik.store.claims import Losses
from lamsik.store.tables import (
    Document,
    Drill,
    Hardware,
    Incident,
    Machine,
    Movement,
    Order,
    OrderLine,
    Piece,
    Revision,
    StockItem,
    StockLot,
    Supplier,
)
from lamsik.web.stores import items, short
from lamsik.words.stock import amount
from tests import demo_rows
from tests.refusing import refusing
from tests.until import until
from tests.web.pouring import RESIN, rows
from tests.web.test_doing import opened

HOOK, OTHER_HOOK, LIP = "Treble hook size 8", "Treble hook size 6", "Shallow lip 12 × 10, polycarbonate"


def item(session, name):
    return session.exec(select(StockItem).where(StockItem.name == name)).one()


def key_of(demo, name):
    with opened(demo) as session:
        return item(session, name).id


def held(demo, name):
    with opened(demo) as session:
        return ledger.held(session, item(session, name).id)


def moved(demo, name, **sent):
    return demo.post(f"/stores/stock/{key_of(demo, name)}/move", {"why": "bought", **sent})


def test_what_moves_an_item_is_summed_taken_back_and_counts_again(demo):
    key = key_of(demo, HOOK)
    assert held(demo, HOOK) == 12
    assert moved(demo, HOOK, amount="2 packs", price="18.50", ordered="2026-11-01").status_code == 302
    assert held(demo, HOOK) == 62
    bought = rows(demo, Movement)[-1]
    assert (bought.price_minor, bought.currency, str(bought.ordered_on)) == (1850, "EUR", "2026-11-01")
    assert moved(demo, HOOK, why="wasted", amount="7", note="bent").status_code == 302
    assert held(demo, HOOK) == 55
    page = demo.get(f"/stores/stock/{key}").text
    assert "55 there" in page and "bent" in page and "18.50 EUR" in page
    demo.post(f"/stores/stock/moves/{bought.id}/undo")
    assert held(demo, HOOK) == 5 and "taken back" in demo.get(f"/stores/stock/{key}").text
    demo.post(f"/stores/stock/moves/{bought.id}/redo")
    assert held(demo, HOOK) == 55
    demo.post(f"/stores/stock/{key}/move", {"why": "used", "amount": "50"})
    refused = demo.post(f"/stores/stock/moves/{bought.id}/undo")
    assert refused.status_code == 422 and "only 5 are left" in refused.text and held(demo, HOOK) == 5


@pytest.mark.parametrize(
    ("sent", "says"),
    [
        ({"why": "used", "amount": "13"}, "only 12 are there by the books"),
        ({"why": "counted", "amount": "lots"}, "lots"),
        ({"why": "bought", "amount": "4", "on": "2020-01-01"}, "it was counted on"),
        ({"why": "bought", "amount": "4", "on": "2999-01-01"}, "a day that is not to come"),
        ({"why": "bought", "amount": "4", "on": "monday"}, "a date such as 2027-03-31"),
        ({"why": "bought", "amount": "4", "price": "4.80 Euro"}, "a currency of three letters"),
        ({"why": "stolen", "amount": "4"}, "one of bought, counted"),
    ],
)
def test_a_movement_that_cannot_be_is_said_and_what_was_typed_is_kept(demo, sent, says):
    answer = moved(demo, HOOK, **sent)
    assert answer.status_code == 422 and says in answer.text
    assert f'value="{sent["amount"]}"' in answer.text and held(demo, HOOK) == 12


def test_a_part_a_metal_a_drill_more_is_an_item_more_and_its_movements_outlive_it(demo):
    demo.post("/stores/add/drill", {"drill-diameter": "3/32 in"})
    with opened(demo) as session:
        drill = session.exec(select(Drill).where(Drill.diameter_mm.between(2.38, 2.383))).one()
        kept = ledger.item_of(session, "drill", drill.id)
        assert kept.name == "Drill 3/32 in" and ledger.held(session, kept.id) == 1
        part = session.exec(select(Hardware).where(Hardware.name == HOOK)).one()
    demo.post(f"/stores/remove/hardware/{part.id}")
    assert held(demo, HOOK) == 12


def test_a_tub_is_a_lot_of_its_part_and_shows_every_batch_and_piece_it_went_into(demo):
    with opened(demo) as session:
        tub = session.exec(select(StockLot).where(StockLot.product_id == RESIN)).first()
        before, key = tub.left, tub.item_id
        batch = mixes.batches(session)[0]
        ledger.draw(session, tub, 12.5, ledger.Cause("batch", batch.id))
        assert tub.left == pytest.approx(before - 12.5)
        called = batch.purpose
    page = demo.get(f"/stores/stock/{key}").text
    assert "went into" in page and called in page and "−12.5" in page
    demo.post(f"/mixes/products/tubs/{tub.id}/gone")
    with opened(demo) as session:
        assert session.get_one(StockLot, tub.id).left == pytest.approx(0)
    gone = rows(demo, Movement)[-1]
    demo.post(f"/stores/stock/moves/{gone.id}/undo")
    with opened(demo) as session:
        again = session.get_one(StockLot, tub.id)
        assert again.left == pytest.approx(before - 12.5) and again.gone_at is None


def test_the_pots_of_a_paint_are_what_the_ledger_has_of_it(demo):
    with opened(demo) as session:
        row = next(
            one for one in documents.listed(session, "paint") if documents.content(session, one)["pots"]
        )
        content = documents.content(session, row)
        pots = [{**content["pots"][0], "left_ml": 7.5}, {"key": "p9", "lot": "NEW", "left_ml": 30.0}]
        documents.save(session, row, {**content, "pots": pots, "name": "Renamed"}, row.current)
        kept = ledger.item_of(session, "paint", row.id)
        assert kept.name == "Renamed" and ledger.held(session, kept.id) == pytest.approx(37.5)
        assert sorted(lot.left for lot in ledger.lots(session, kept.id)) == [7.5, 30.0]
        documents.undo(session, row)
        was = sum(pot["left_ml"] for pot in content["pots"])
        assert ledger.held(session, kept.id) == pytest.approx(was)
        assert {lot.lot for lot in ledger.lots(session, kept.id)} == {pot["lot"] for pot in content["pots"]}


def short_of(session, name):
    told = reserved.reserved(session)
    return reserved.stood(session, told.claims, [item(session, name).id])[item(session, name).id]


def test_open_lines_say_how_many_pieces_they_ask_for(demo):
    with opened(demo) as session:
        row = session.get_one(OrderLine, reserved.open_lines(session)[0].key)
        row.kind, row.quantity, row.per_set = "floats", 3, 5
        session.flush()
        wanted = {line.key: line.wanted for line in reserved.open_lines(session)}
        assert wanted[row.id] == 15
        assert wanted == {key: stands.as_line(session.get_one(OrderLine, key)).wanted for key in wanted}


def test_lines_that_are_not_looked_at_yet_are_counted(demo, monkeypatch):
    agreed = select(Order).where(Order.accepted_at.is_not(None), Order.deleted_at.is_(None))
    with opened(demo) as session:
        queue = session.exec(agreed.where(Order.queue < stands.DONE)).all()
        many = sum(len(stands.lines_of(session, order)) for order in queue)
    for most, says in ((many, ""), (many - 1, "; 1 line due after these is"), (2, f"; {many - 2} lines due")):
        monkeypatch.setattr(reserved, "MOST_LINES", most)
        for page in ("/stores/short", "/stores/short/list"):
            text = " ".join(demo.get(page).text.split())
            assert says in text and ("not in it yet" in text) == bool(says)


def test_what_stops_many_names_the_first_and_counts_the_others(demo, monkeypatch):
    monkeypatch.setattr(short, "FIRST_ORDERS", 1)
    monkeypatch.setattr(short, "FIRST_LINES", 1)
    monkeypatch.setattr(items, "FIRST_CLAIMS", 1)
    with opened(demo) as session:
        hook, other = item(session, HOOK).id, item(session, OTHER_HOOK).id
        claims = len(short_of(session, HOOK).claims)
    assert ">A0022</a> and 1 more" in demo.get("/stores/short").text
    assert "and 1 more. Pieces that are begun" in demo.get(f"/stores/short/{hook}/by/{other}").text
    assert f"and {claims - 1} more, due later" in demo.get(f"/stores/stock/{hook}").text and claims > 2


def test_what_is_short_stops_orders_and_a_stand_in_shows_what_it_changes(demo):
    page = demo.get("/stores/short").text
    assert HOOK in page and "A0022" in page and "What would do" in page
    with opened(demo) as session:
        one, other = item(session, HOOK).id, item(session, OTHER_HOOK).id
        stand = short_of(session, HOOK)
        assert stand.lacks == 6 and len(stand.stops) == 2
        was = {line: session.get_one(OrderLine, line).revision_id for line in stand.stops}
    seen = demo.get(f"/stores/short/{one}/by/{other}").text
    masses = [float(text) for text in re.findall(r"<dt>Mass</dt><dd>([0-9.]+)", seen)]
    with opened(demo) as session:
        parts = {row.name: row.mass_g for row in session.exec(select(Hardware)).all()}
    assert masses[1] - masses[0] == pytest.approx(2 * (parts[OTHER_HOOK] - parts[HOOK]), abs=0.011)
    assert demo.post(f"/stores/short/{one}/by/{other}").status_code == 302
    with opened(demo) as session:
        for line, revision in was.items():
            row = session.get_one(OrderLine, line)
            codes = {part["name"] for part in documents.content_at(session, row.revision_id)["hardware"]}
            assert row.revision_id != revision and OTHER_HOOK in codes and HOOK not in codes
            assert HOOK in session.get_one(Revision, row.revision_id).note
    demo.get("/stores/short")  # it says what was done
    assert HOOK not in demo.get("/stores/short").text
    assert demo.post(f"/stores/short/{one}/by/{other}").status_code == 422  # nothing waits for it any more


def test_what_no_drawing_shows_is_taken_for_the_lines_that_wait(demo):
    with opened(demo) as session:
        jelutong, basswood = item(session, "Jelutong stick 40 × 25"), item(session, "Basswood stick 40 × 25")
        ledger.pair(session, jelutong, basswood)
        line = short_of(session, jelutong.name).stops[0]
    seen = demo.get(f"/stores/short/{jelutong.id}/by/{basswood.id}").text
    assert "in the Tank nothing changes" in seen
    demo.post(f"/stores/short/{jelutong.id}/by/{basswood.id}")
    with opened(demo) as session:
        assert session.get_one(OrderLine, line).swaps == {"called|jelutong": basswood.id}
        assert short_of(session, jelutong.name).reserved == 0
        assert short_of(session, basswood.name).reserved > 100


def test_the_shopping_list_goes_by_supplier_in_whole_packs(demo):
    page = demo.get("/stores/short/list").text
    assert "Tarn Hardware" in page and "2 packs of Treble hook size 8" in page and "mailto:" in page
    csv = demo.get("/stores/short/list.csv").text
    assert "Tarn Hardware,S0008,Treble hook size 8,31.0,piece,2" in csv


def steps_done(session, piece, *keys):
    for key in keys:
        pieces.end_step(session, piece, key)


def test_a_step_that_is_done_takes_its_parts_and_gives_them_back(demo):
    with opened(demo) as session:
        rigged = "rig"
        line = session.get_one(OrderLine, short_of(session, HOOK).stops[-1])
        piece = pieces.start(session, session.get_one(Document, line.design_id), line)
        taken = {
            need.key: need.amount
            for need in needs.told(session, {piece.revision_id})[piece.revision_id]
            if need.step == rigged
        }
        counted = {
            row.name: ledger.held(session, row.id)
            for row in session.exec(select(StockItem).where(StockItem.of == "hardware")).all()
            if ledger.is_counted(session, row.id)
        }
        before = short_of(session, HOOK)
        steps_done(session, piece, rigged, "pack")
        after = short_of(session, HOOK)
        codes = {row.code: row.name for row in session.exec(select(Hardware)).all()}
        used = {codes[key]: amount for key, amount in taken.items() if codes[key] in counted}
        assert used[HOOK] > 0
        for name, amount in used.items():
            assert ledger.held(session, item(session, name).id) == counted[name] - amount
        assert before.lacks == after.lacks and after.reserved == before.reserved - used[HOOK]
        assert ledger.held(session, item(session, "Bait box 150 × 50").id) == 33
        pieces.take_back_step(session, piece, rigged)
        assert ledger.held(session, item(session, HOOK).id) == counted[HOOK]
        pieces.end_step(session, piece, rigged, "left out")
        assert ledger.held(session, item(session, HOOK).id) == counted[HOOK]


@pytest.mark.parametrize(
    ("key", "takes"),
    [
        (demo_rows.ESTUARY_BLADE, {("brass", "mm", "bend")}),
        (demo_rows.REED_STICK_2_G, {("balsa", "mm", "carve"), ("bamboo", "mm", "fit")}),
        (demo_rows.CASTING_RESIN, set()),
    ],
)
def test_floats_and_blades_take_what_they_are_cut_off_and_it_is_kept(demo, key, takes):
    with opened(demo) as session:
        revision = documents.revision(session, session.get_one(Document, key)).id
        looked = needs.looked_up(session, revision)
        kept = needs.told(session, {revision})[revision]
        assert {(one.key, one.unit, one.step) for one in looked} == takes
        assert [(one.key, one.amount) for one in looked] == [(one.key, one.amount) for one in kept]


def test_a_step_that_is_ticked_again_takes_once_and_packing_takes_what_goes_with_each(demo):
    with opened(demo) as session:
        line = session.get_one(OrderLine, short_of(session, HOOK).stops[-1])
        piece = pieces.start(session, session.get_one(Document, line.design_id), line)
        box, hook = (item(session, name) for name in ("Bait box 150 × 50", HOOK))
        promised = reserved.reserved(session).claims
        boxes, hooks = ledger.held(session, box.id), ledger.held(session, hook.id)
        used.by_step(session, piece, "rig")
        once = ledger.held(session, hook.id)
        used.by_step(session, piece, "rig")
        assert once == ledger.held(session, hook.id) < hooks
        steps_done(session, piece, "pack")
        assert ledger.held(session, box.id) == boxes - 1
        after = reserved.reserved(session).claims
        before, then = (of[box.id].total for of in (promised, after))
        assert then == before - 1


def shipped_unticked(session):
    """One more of the first line that waits for hooks, shipped with no step of it ticked."""
    line = session.get_one(OrderLine, short_of(session, HOOK).stops[0])
    piece = pieces.start(session, session.get_one(Document, line.design_id), line)
    piece.stand = SHIPPED
    session.flush()
    return piece


def test_what_is_shipped_takes_nothing_more_whatever_was_not_ticked(demo):
    with opened(demo) as session:
        box, hook = (item(session, name) for name in ("Bait box 150 × 50", HOOK))
        session.get_one(OrderLine, short_of(session, HOOK).stops[0]).quantity += 1
        promised = reserved.reserved(session).claims
        of = needs.known(session, [shipped_unticked(session).revision_id]).values()
        hooks = sum(need.amount for rows in of for need in rows if needs.resolved(session).of(need) is hook)
        after = reserved.reserved(session).claims
        assert after[hook.id].total == promised[hook.id].total - hooks < promised[hook.id].total
        assert after[box.id].total == promised[box.id].total - 1


def test_where_no_line_is_open_nothing_is_promised(demo):
    with opened(demo) as session:
        order = session.get_one(Order, reserved.open_lines(session)[-1].order)
        parts = stands.lines_of(session, order)[0]
        parts.kind = "parts"
        for other in session.exec(select(Order).where(Order.id != order.id)).all():
            other.accepted_at = None
        session.flush()
        told = reserved.reserved(session)
        assert (told.claims, told.unknown, told.lines) == ({}, (), {})
        assert ahead.missing_for(session, order) == []
        assert any(item.each_piece > 0 for item in session.exec(select(StockItem)).all())
        session.commit()
    for page in ("/stores/short", "/stores/stock", "/stores/short/list", f"/orders/{order.id}"):
        assert demo.get(page).status_code == 200


def test_of_what_is_mixed_so_much_more_is_promised_as_is_lost(demo, monkeypatch):
    with opened(demo) as session:
        promised = []
        for lost in (0.0, 0.5):
            monkeypatch.setattr(Losses, "of", lambda _, item, unit, lost=lost: lost * (unit == "ml"))
            promised.append({(one.name, one.unit): one.amount for one in reserved.reserved(session).unknown})
        pure, mixed = promised
        assert mixed == {key: pytest.approx(amount * 1.5) for key, amount in pure.items()} and len(pure) > 5


def test_a_step_takes_of_the_lot_that_is_open_then_of_the_oldest_and_a_lot_opens_to_its_pieces(demo):
    with opened(demo) as session:
        hook = item(session, HOOK)
        loose = ledger.held(session, hook.id)
        old, new = (
            StockLot(item_id=hook.id, lot="H-1"),
            StockLot(item_id=hook.id, lot="H-2", opened_on=date.today()),
        )
        for lot, amount in ((old, 4.0), (new, 3.0)):
            ledger.bring(session, lot, amount)
        piece = session.get_one(Piece, demo_rows.PIECE_FERRY_RUNNER_90)
        cause = ledger.Cause("piece:rig", piece.id)
        ledger.use(session, hook, 5.0, cause)
        assert (new.left, old.left, ledger.held(session, hook.id)) == (0.0, 2.0, loose + 2.0)
        assert went.into_pieces(session, new) == [(piece, 3.0)]
        page, number = f"/stores/stock/{hook.id}", piece.number
    shown = demo.get(page).text
    assert "went into 1 piece" in shown and shown.count(f">{number}</a>, 3") == 1
    piece_page = demo.get(f"/pieces/{demo_rows.PIECE_FERRY_RUNNER_90}").text
    assert f"{HOOK}</a>, lot H-2: 3" in piece_page and f"{HOOK}</a>, lot H-1: 2" in piece_page
    with opened(demo) as session:
        ledger.use(session, item(session, HOOK), 2.0 + loose + 1.0, ledger.Cause("piece:rig", 2))
        assert ledger.held(session, hook.id) == 0.0
        ledger.unused(session, ledger.Cause("piece:rig", 2))
        ledger.unused(session, cause)
        lots = {lot.lot: lot.left for lot in ledger.lots(session, hook.id)}
        assert lots == {"H-1": 4.0, "H-2": 3.0} and ledger.held(session, hook.id) == loose + 7.0


def test_a_shelf_counts_each_lot_that_lies_there_by_itself(demo):
    with opened(demo) as session:
        hook = item(session, HOOK)
        place, other = hook.place, StockLot(item_id=hook.id, lot="H-2", place="Attic")
        ledger.count(session, _added(session, StockLot(item_id=hook.id, lot="H-1")), 4.0)
        ledger.count(session, _added(session, other), 3.0)
        lots = {lot.lot: lot.id for lot in ledger.lots(session, hook.id)}
        before = ledger.held(session, hook.id)
    page = demo.get("/stores/count/shelf", query_string={"place": place}).text
    assert f"{HOOK}, lot H-1" in page and "H-2" not in page and f'name="item_{hook.id}"' not in page
    assert "Attic" in demo.get("/stores/count").text
    assert "lot H-2" in demo.get("/stores/count/shelf?place=Attic").text
    sent = {f"lot_{lots['H-1']}": "6"}
    assert demo.post(f"/stores/count/shelf?place={place}", sent).status_code == 302
    with opened(demo) as session:
        assert session.get_one(StockLot, lots["H-1"]).left == 6.0
        assert ledger.held(session, hook.id) == before + 2.0


def _added(session, lot):
    session.add(lot)
    session.flush()
    return lot


def test_work_that_takes_more_than_the_books_have_leaves_nothing_negative(demo):
    with opened(demo) as session:
        hook = item(session, HOOK)
        ledger.use(session, hook, 20.0, ledger.Cause("piece:rig", 1))
        assert ledger.held(session, hook.id) == 0
        ledger.unused(session, ledger.Cause("piece:rig", 1))
        assert ledger.held(session, hook.id) == 12


def test_what_is_cancelled_is_promised_no_more_and_what_is_taken_up_again_is(demo):
    with opened(demo) as session:
        before = short_of(session, HOOK).reserved
        line = short_of(session, HOOK).stops[-1]
        order = session.get_one(Order, session.get_one(OrderLine, line).order_id)
        orders.say(session, order, "cancel")
        less = short_of(session, HOOK)
        assert less.reserved < before and less.held == 12
        orders.say(session, order, "reopen")  # as it was quoted: agreed anew it waits again
        assert short_of(session, HOOK).reserved == before


def test_a_shelf_is_counted_by_its_label_with_one_number_each(demo):
    with opened(demo) as session:
        hook = item(session, HOOK)
    for label in (hook.number, hook.number.lower(), f"http://tablet:5000/stores/count/{hook.number}"):
        answer = demo.get("/stores/count", query_string={"label": label})
        assert answer.location == f"/stores/count/item/{hook.id}"
    assert "label=P-Drawer+3" in demo.get("/stores/count/P-Drawer 3").location
    assert "place=Drawer+3" in demo.get("/stores/count?label=P-Drawer+3").location
    assert "place=Drawer+3" in demo.get("/stores/count?label=Drawer+3").location
    lot = rows(demo, StockLot)[0]
    assert f"lot={lot.id}" in demo.get(f"/stores/count?label=L-{lot.id}").location
    assert "/moulds/" in demo.get("/stores/count?label=M-1").location
    nothing = demo.get("/stores/count?label=Z-9")
    assert nothing.status_code == 404 and "a label of this shop" in nothing.text
    assert demo.post(f"/stores/count/item/{hook.id}", {"amount": "17"}).status_code == 302
    assert held(demo, HOOK) == 17
    shelf = "/stores/count/shelf?place=Drawer+3"
    assert demo.post(shelf, {f"item_{hook.id}": "19"}).status_code == 302
    assert held(demo, HOOK) == 19 and held(demo, OTHER_HOOK) == 40
    assert demo.post(shelf, {}).status_code == 422
    wrong = demo.post(shelf, {f"item_{hook.id}": "3", f"item_{key_of(demo, OTHER_HOOK)}": "some"})
    assert wrong.status_code == 422 and held(demo, HOOK) == 19 and 'value="some"' in wrong.text
    lots = demo.get(f"/stores/count/item/{lot.item_id}?lot={lot.id}").text
    assert "The books have" in lots
    demo.post(f"/stores/count/item/{lot.item_id}?lot={lot.id}", {"amount": "123 g"})
    with opened(demo) as session:
        assert session.get_one(StockLot, lot.id).left == pytest.approx(123)


def test_labels_carry_a_code_and_words(demo):
    page = demo.get(f"/stores/labels?item={key_of(demo, HOOK)}&lot=1&mould=1&place=Drawer+3").text
    assert page.count('class="stock-label') == 4 and page.count("<svg xmlns") >= 4
    assert ">S0008<" in page and ">L-1<" in page and ">M-1<" in page and ">P-Drawer 3<" in page


def test_a_supplier_takes_as_long_as_deliveries_say_and_what_went_wrong_has_an_end(demo):
    demo.post("/stores/suppliers/new", {"name": "Reed Works", "lead": "4"})
    row = rows(demo, Supplier)[-1]
    assert "about 4 d, as they say" in demo.get(f"/stores/suppliers/{row.id}").text
    ordered = (date.today() - timedelta(days=11)).isoformat()
    moved(demo, LIP, amount="10", supplier=str(row.id), ordered=ordered, price="7")
    page = demo.get(f"/stores/suppliers/{row.id}").text
    assert "about 11 d, by 1 delivery" in page and LIP in page
    demo.post(f"/stores/suppliers/{row.id}/incident", {"text": "wet box"})
    assert demo.post(f"/stores/suppliers/{row.id}/incident", {"text": " "}).status_code == 422
    wrong = rows(demo, Incident)[-1]
    demo.post(f"/stores/suppliers/incident/{wrong.id}/outcome", {"outcome": "credited"})
    assert rows(demo, Incident)[-1].outcome == "credited"
    twice = demo.post("/stores/suppliers/new", {"name": "reed works"})
    assert twice.status_code == 422 and "no other supplier" in twice.text
    demo.post(f"/stores/suppliers/{row.id}/keep", {"name": "Reed & Co"})
    demo.post(f"/stores/suppliers/{row.id}/put_away")
    demo.get("/stores/suppliers")
    assert "Reed" not in demo.get("/stores/suppliers").text
    with opened(demo) as session:
        only = [one.name for one in suppliers.only_theirs(session, session.get_one(Supplier, 1))]
    assert "Hook hanger, screw eye 0.9 × 13" in only and HOOK not in only  # that one has a stand-in


def test_a_machine_that_is_down_says_since_when_and_who_waits(demo):
    page = demo.get("/stores/machines").text
    assert "Compressor is down since" in page and "2 pieces wait for it" in page
    row = next(one for one in rows(demo, Machine) if one.name == "Compressor")
    demo.post(f"/stores/machines/{row.id}/keep", {"name": "Compressor", "state": "up", "step": ["colour"]})
    kept = next(one for one in rows(demo, Machine) if one.id == row.id)
    assert kept.state == "up" and kept.since > row.since and kept.steps == ["colour"]
    assert demo.post("/stores/machines/new", {"name": "compressor"}).status_code == 422
    assert demo.post("/stores/machines/new", {"name": "Oven", "state": "broken"}).status_code == 422
    demo.post("/stores/machines/new", {"name": "Oven", "state": "away", "fallback": "The sun"})
    assert "Meanwhile: The sun" in demo.get("/stores/machines").text
    demo.post(f"/stores/machines/{row.id}/off")
    assert "Compressor" not in {one.name for one in rows(demo, Machine)}


def test_items_are_found_sorted_added_kept_paired_and_put_away(demo):
    page = demo.get("/stores/stock?q=treble&kind=part&sort=place&show=price").text
    assert HOOK in page and "9.50 EUR" in page and "Bait box" not in page
    assert demo.post("/stores/stock/new", {"kind": "wood", "name": " "}).status_code == 422
    sent = {"kind": "wood", "name": "Ash board", "pack": "1 m", "price": "12", "tax": "21", "material": "ash"}
    assert demo.post("/stores/stock/new", {**sent, "density": "0.62 g/cm³"}).status_code == 302
    row = rows(demo, StockItem)[-1]
    assert (row.pack, row.unit, row.price_minor, row.tax_percent) == (1000.0, "mm", 1200, 21.0)
    assert row.density_g_cm3 == 0.62 and row.number == f"S{row.id:04d}"
    assert demo.post(f"/stores/stock/{row.id}/keep", {**sent, "tax": "lots"}).status_code == 422
    demo.post(f"/stores/stock/{row.id}/keep", {**sent, "name": "Ash stick"})
    wood = key_of(demo, "Maple stick 40 × 25")
    demo.post(f"/stores/stock/{row.id}/pair", {"other": str(wood)})
    assert "Ash stick" in demo.get(f"/stores/stock/{wood}").text
    assert demo.post(f"/stores/stock/{row.id}/pair", {"other": str(wood)}).status_code == 422
    assert demo.post(f"/stores/stock/{row.id}/pair", {"other": str(key_of(demo, HOOK))}).status_code == 422
    demo.post(f"/stores/stock/{wood}/unpair/{row.id}")
    assert "Ash stick</a>" not in demo.get(f"/stores/stock/{wood}").text
    demo.post(f"/stores/stock/{row.id}/put_away")
    demo.get("/stores/stock")
    assert "Ash stick" not in demo.get("/stores/stock?q=ash").text.split("<table")[-1]
    demo.post(f"/stores/stock/{row.id}/bring_back")
    assert "Ash stick" in demo.get("/stores/stock?q=ash").text


def test_what_designs_name_and_no_item_is_called_is_added_with_one_press(demo):
    page = demo.get("/stores/short").text
    assert "Not in the stores" in page
    name = re.search(r'name="name" value="([^"]+)"', page)[1]
    demo.post("/stores/stock/new", {"kind": "paint", "name": name, "material": name})
    assert f'value="{name}"' not in demo.get("/stores/short").text
    assert name in demo.get("/stores/short").text.split("Never counted")[-1]


def test_of_an_item_and_itself_neither_stands_in(demo):
    with opened(demo) as session, refusing("another item"):
        ledger.pair(session, item(session, HOOK), item(session, HOOK))


def test_a_piece_that_is_no_ones_takes_too(demo):
    with opened(demo) as session:
        piece = session.exec(select(Piece).where(Piece.line_id.is_(None), Piece.stand == "making")).first()
        had = len(session.exec(select(Movement)).all())
        pieces.end_step(session, piece, "pack")
        assert len(session.exec(select(Movement)).all()) == had + 2


def test_all_of_it_is_written_beside_the_request_and_taken_along(demo):
    key = demo.send("/stores/everything", {}).json["job"]
    told = until(
        lambda: demo.get(f"/stores/everything/{key}").json,
        lambda told: told["done"] or told["problem"] or not 0 <= told["share"] <= 1,
    )
    assert told["done"] and not told["problem"]
    whole = zipfile.ZipFile(io.BytesIO(demo.get(told["url"]).data))
    names = set(whole.namelist())
    assert {"manifest.json", "tables/movement.csv", "due.ics", "documents/body/B-001.json"} <= names
    assert whole.testzip() is None and told["size"].endswith("MB")
    assert demo.send(f"/stores/everything/{key}/drop", {}).status_code == 200
    for gone in (key, f"{key}.zip"):
        assert demo.get(f"/stores/everything/{gone}").status_code == 404
    assert b"BEGIN:VCALENDAR" in demo.get("/stores/everything/due.ics").data


def test_an_order_says_which_of_its_lines_waits_for_what_is_short(demo):
    with opened(demo) as session:
        lines = [session.get_one(OrderLine, key) for key in short_of(session, HOOK).stops]
        waits = {line.order_id: line.title for line in lines}
        first = reserved.open_lines(session)[0].order
    for order, title in waits.items():
        assert f"{title} waits for {HOOK}" in demo.get(f"/orders/{order}").text
    assert f"waits for {HOOK}" not in demo.get(f"/orders/{first}").text
    moved(demo, HOOK, amount="2 packs")
    assert all(f"waits for {HOOK}" not in demo.get(f"/orders/{order}").text for order in waits)


def test_an_order_alone_says_what_all_of_them_together_say_of_it(demo):
    for name in (HOOK, "Split ring 4 mm", "Bait box 150 × 50", "Domed eyes 6 mm", "Basswood stick 40 × 25"):
        moved(demo, name, why="counted", amount="3 mm" if "stick" in name else "3")
    with opened(demo) as session:
        session.get_one(OrderLine, short_of(session, HOOK).stops[0]).quantity += 1
        shipped_unticked(session)
        needs.told(session, reserved.untold(session, reserved.open_lines(session)))
        told = reserved.reserved(session)
        stands_now = reserved.stood(session, told.claims, list(told.claims))
        named = {row.id: row.name for row in session.exec(select(StockItem)).all()}
        together = {}
        for key, stand in stands_now.items():
            for line in stand.stops if stand.is_known else ():
                order, row = reserved.orders_of(session, [line])[0]
                together.setdefault(order.id, set()).add((row.title, named[key]))
        orders = [session.get_one(Order, line.order) for line in told.lines.values()]
        alone = {order.id: set(ahead.missing_for(session, order)) for order in orders}
        assert {key: missing for key, missing in alone.items() if missing} == together and len(together) > 3


def test_a_lot_that_is_no_tub_is_not_seen_to_at_its_product(demo):
    with opened(demo) as session:
        pot = session.exec(select(StockLot).where(StockLot.product_id.is_(None))).first()
    for way in ("gone", "stirred", "count"):
        assert demo.post(f"/mixes/products/tubs/{pot.id}/{way}", {"grams": "5 g"}).status_code == 404


def test_a_lot_of_another_item_is_not_moved_with_this_one(demo):
    lot = rows(demo, StockLot)[0]
    answer = moved(demo, HOOK, why="counted", amount="3", lot=str(lot.id))
    assert answer.status_code == 422 and "a lot of this very item" in answer.text and held(demo, HOOK) == 12
    assert demo.get(f"/stores/count/item/{key_of(demo, HOOK)}?lot={lot.id}").status_code == 404


def test_what_work_used_is_not_taken_back_by_hand(demo):
    with opened(demo) as session:
        ledger.use(session, item(session, HOOK), 2.0, ledger.Cause("piece:rig", 1))
    answer = demo.post(f"/stores/stock/moves/{rows(demo, Movement)[-1].id}/undo")
    assert answer.status_code == 422 and "taken back at its bench" in answer.text and held(demo, HOOK) == 10


def test_a_pot_is_counted_by_its_label_in_its_paint_and_in_the_ledger(demo):
    with opened(demo) as session:
        lot, paint = session.exec(
            select(StockLot, StockItem)
            .join(StockItem)
            .where(StockItem.of == "paint", StockLot.gone_at.is_(None))
        ).first()
        before, other = lot.left, ledger.held(session, paint.id) - lot.left
    page = demo.get(f"/stores/count/item/{paint.id}").text
    assert "Each lot of it is counted by itself" in page and f"?lot={lot.id}" in page
    led = demo.get(f"/stores/count?label=L-{lot.id}")
    assert led.headers["Location"] == f"/stores/count/item/{paint.id}?lot={lot.id}"
    demo.post(f"/stores/count/item/{paint.id}?lot={lot.id}", {"amount": "6.5 ml"})
    with opened(demo) as session:
        row = session.get_one(Document, paint.of_id)
        left = {pot["key"]: pot["left_ml"] for pot in documents.content(session, row)["pots"]}
        assert left[lot.part] == 6.5 != before
        assert session.get_one(StockLot, lot.id).left == pytest.approx(6.5)
        assert ledger.held(session, paint.id) == pytest.approx(other + 6.5)
        last = max(
            session.exec(select(Movement).where(Movement.lot_id == lot.id)).all(), key=lambda one: one.id
        )
        assert (last.why, last.counted) == ("counted", 6.5)
    over = demo.post(f"/stores/count/item/{paint.id}?lot={lot.id}", {"amount": "30 l"})
    assert over.status_code == 422 and held(demo, paint.name) == pytest.approx(other + 6.5)


def test_pots_are_counted_on_their_paint_and_lots_each_by_itself(demo):
    with opened(demo) as session:
        paint = next(
            one
            for one in session.exec(select(StockItem).where(StockItem.of == "paint")).all()
            if ledger.lots(session, one.id)
        )
        had = ledger.held(session, paint.id)
        tub = session.exec(select(StockLot).where(StockLot.product_id == RESIN)).first()
    answer = demo.post(f"/stores/count/item/{paint.id}", {"amount": "3 ml"})
    assert answer.status_code == 422 and "they are counted on the page of the paint" in answer.text
    answer = demo.post(f"/stores/stock/{tub.item_id}/move", {"why": "counted", "amount": "3 g"})
    assert answer.status_code == 422 and "each is counted and used by itself" in answer.text
    with opened(demo) as session:
        assert ledger.held(session, paint.id) == had


@pytest.mark.parametrize(
    ("value", "unit", "says"),
    [(0.0034, "ml", "0.0034 ml"), (0.02, "ml", "0.02 ml"), (0.0, "g", "0.00 g"), (12.34, "g", "12.3 g")],
)
def test_a_little_of_something_is_never_said_to_be_nothing(value, unit, says):
    assert amount(value, unit) == says

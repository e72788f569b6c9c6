"""Lists of the stores as tables: out, and in with units asked and what would change seen first."""

import io

import pytest
from sqlmodel import select

from lamsik.store.tables import Machine, Movement, StockLot, Supplier
from tests.web.pouring import rows
from tests.web.test_doing import opened
from tests.web.test_stock import HOOK, held, item

TABLE = "number,name,kind,there is,unit,price,currency,supplier\n"


def sent_table(demo, text, **more):
    return demo.post("/stores/bring", {"text": text, **more})


def test_a_table_shows_what_would_change_before_anything_does(demo):
    with opened(demo) as session:
        hook = item(session, HOOK)
    text = f"{TABLE}{hook.number},,,20,,11.00,EUR,New House\n,Glass beads,other,500,,,,\n"
    seen = sent_table(demo, text)
    assert seen.status_code == 200 and "2 of 2 rows would change something" in seen.text
    assert "<td>12</td><td>20</td>" in seen.text and "9.50 EUR" in seen.text and "11.00 EUR" in seen.text
    assert held(demo, HOOK) == 12
    assert sent_table(demo, text, way="take").status_code == 302
    assert held(demo, HOOK) == 20 and held(demo, "Glass beads") == 500
    with opened(demo) as session:
        assert session.get_one(Supplier, item(session, HOOK).supplier_id).name == "New House"
    assert (
        "Nothing would change" in sent_table(demo, f"{TABLE}{hook.number},,,20,,11.00,EUR,New House\n").text
    )


def test_a_table_without_units_asks_and_one_of_two_units_is_refused(demo):
    with opened(demo) as session:
        rod = item(session, "lead rod 5 mm")
    asked = sent_table(demo, f"number,there is\n{rod.number},3\n")
    assert "does not say its units" in asked.text and 'name="unit_g"' in asked.text
    taken = sent_table(demo, f"number,there is\n{rod.number},3\n", unit_g="oz", way="take")
    assert taken.status_code == 302 and held(demo, rod.name) == pytest.approx(85.05, abs=0.01)
    for text, says in (
        (f"number,there is [g],unit\n{rod.number},3,oz\n", "one unit for there is"),
        (f"number,price\n{rod.number},4.80\n", "a currency beside the price"),
        ("number\n", "a row for each item under it"),
        ("number,number\nS0001,S0001\n", "each column once"),
    ):
        answer = sent_table(demo, text, way="take")
        assert answer.status_code == 422 and says in answer.text
    file = {"file": (io.BytesIO(f"number;least [g]\n{rod.number};200\n".encode()), "a.csv")}
    assert "200" in demo.post("/stores/bring", file, content_type="multipart/form-data").text


def test_lists_go_out_as_tables(demo):
    with opened(demo) as session:
        count = len(session.exec(select(Movement)).all())
    lines = demo.get("/stores/movements.csv").text.splitlines()
    assert len(lines) == count + 1 and lines[0].startswith("at,number,item,why,amount,unit")
    assert (
        f"S0008,{HOOK},part,piece,12.0,25.0,25.0,Drawer 3,,9.50,EUR,Tarn Hardware,"
        in demo.get("/stores/stock.csv").text
    )
    assert "Tarn Hardware,orders@tarnhardware.example,6,8.0," in demo.get("/stores/suppliers.csv").text
    assert "Compressor,down," in demo.get("/stores/machines.csv").text


def brought_in(demo, what, text, **more):
    return demo.post(f"/stores/bring/{what}", {"text": text, **more})


@pytest.mark.parametrize("what", ["suppliers", "machines", "movements"])
def test_a_list_that_went_out_comes_in_and_changes_nothing(demo, what):
    text = demo.get(f"/stores/{what}.csv").get_data(as_text=True)
    before = demo.get(f"/stores/{what}.csv").text
    assert "Nothing would change." in brought_in(demo, what, text).text
    assert brought_in(demo, what, text, way="take").status_code == 302
    assert demo.get(f"/stores/{what}.csv").text == before


def test_suppliers_and_machines_come_in_by_name_and_nothing_is_done_before_it_is_seen(demo):
    text = "name,reach,days said\ntarn hardware,new@tarn.example,9\nReed & Rush,by post,4\n"
    seen = brought_in(demo, "suppliers", text).text
    assert "2 of 2 rows would change something. Nothing is done yet." in seen and "9 days" in seen
    assert "Reed & Rush" not in {row.name for row in rows(demo, Supplier)}
    brought_in(demo, "suppliers", text, way="take")
    kept = {row.name: row for row in rows(demo, Supplier)}
    assert (kept["Tarn Hardware"].lead_days, kept["Tarn Hardware"].reach) == (9, "new@tarn.example")
    assert kept["Reed & Rush"].lead_days == 4
    machines = "name,state,steps,fallback\nBand saw,down,carve fit,by hand\nKiln,up,,\n"
    assert "by hand" in brought_in(demo, "machines", machines).text
    brought_in(demo, "machines", machines, way="take")
    saw = next(row for row in rows(demo, Machine) if row.name == "Band saw")
    assert (saw.state, saw.steps, saw.fallback) == ("down", ["carve", "fit"], "by hand")
    assert "Kiln" in {row.name for row in rows(demo, Machine)}


def test_movements_come_in_with_their_unit_their_lot_and_their_price(demo):
    with opened(demo) as session:
        hook, lead = item(session, HOOK), item(session, "lead rod 5 mm")
        numbers = {"hook": hook.number, "lead": lead.number}
    head = "number,why,amount,at,lot,price,currency,supplier,note\n"
    text = f"{head}{numbers['hook']},bought,40,,H-9,12.50,EUR,Tarn Hardware,a box\n"
    seen = brought_in(demo, "movements", text).text
    assert "1 of 1 row would change something." in seen and "<td>12</td><td>52</td>" in seen.replace(
        " <td>", "<td>"
    )
    assert held(demo, HOOK) == 12
    brought_in(demo, "movements", text, way="take")
    assert held(demo, HOOK) == 52
    bought = rows(demo, Movement)[-1]
    assert (bought.price_minor, bought.currency, bought.note) == (1250, "EUR", "a box")
    lots = [row.lot for row in rows(demo, StockLot) if row.id == bought.lot_id]
    assert lots == ["H-9"]
    bare = f"{head}{numbers['lead']},wasted,2,,,,,,\n"
    assert "does not say its units" in brought_in(demo, "movements", bare).text
    before = held(demo, "lead rod 5 mm")
    brought_in(demo, "movements", bare, unit_g="oz", way="take")
    assert held(demo, "lead rod 5 mm") == pytest.approx(before - 2 * 28.349523125)
    assert brought_in(
        demo, "movements", "number,why,amount [g]\n" + f"{numbers['lead']},corrected,-3\n", way="take"
    )
    assert held(demo, "lead rod 5 mm") == pytest.approx(before - 2 * 28.349523125 - 3)


@pytest.mark.parametrize(
    ("what", "text", "says"),
    [
        ("movements", "number,why,amount\nS9999,used,1\n", "the number of an item of this shop"),
        ("movements", "number,why,amount\nS0008,eaten,1\n", "one of bought"),
        ("movements", "number,why,amount\nS0008,used,100\n", "only 11 are there by the books"),
        ("movements", "number,why,amount,at\nS0008,used,1,2020-01-01\n", "it was counted on"),
        ("movements", "number,why,amount,at\nS0008,used,1,2099-01-01\n", "a day that is not to come"),
        ("movements", "number,why,amount,at\nS0008,used,1,spring\n", "a day such as 2027-03-31"),
        ("movements", "number,why,amount,of\nS0008,used,1,piece 4\n", "what work used is noted at its bench"),
        ("movements", "number,why,amount,price\nS0008,bought,1,4\n", "a currency beside the price"),
        ("machines", "name,state\nBand saw,broken\n", "one of up, down, away"),
        ("machines", "name,steps\nBand saw,dance\n", "one of carve"),
        ("machines", "state\nup\n", "what it is called"),
        ("suppliers", "name,days said\nTarn Hardware,2.5\n", "a whole number"),
        ("suppliers", "reach\nby post\n", "whom it is from, by name"),
    ],
)
def test_a_row_that_cannot_be_is_refused_with_its_line_and_none_of_the_file_is_taken(demo, what, text, says):
    head, row = text.splitlines()
    good = {"movements": "S0008,wasted,1", "machines": "Kiln,up", "suppliers": "Reed & Rush,2"}[what]
    if head.startswith(("number", "name")):
        text = f"{head}\n{good}{',' * (head.count(',') - good.count(','))}\n{row}\n"
    before = demo.get(f"/stores/{what}.csv").text
    answer = brought_in(demo, what, text, way="take")
    assert answer.status_code == 422 and says in answer.text and "Line " in answer.text
    assert demo.get(f"/stores/{what}.csv").text == before


def test_a_movement_that_was_taken_back_elsewhere_is_not_taken_here(demo):
    gone = "number,why,amount,undone at\nS0008,wasted,5,2026-11-01T10:00:00\n"
    assert "Nothing would change." in brought_in(demo, "movements", gone).text
    brought_in(demo, "movements", gone, way="take")
    assert held(demo, HOOK) == 12

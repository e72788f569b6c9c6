"""Lines of an order through their pages: each kind, the grid, what stays as agreed, ready stock of one."""

import re
from datetime import timedelta

import pytest
from sqlmodel import select

from lamsik.store import documents, order_lines, pieces, ready_stock, routes, stands
from lamsik.store.tables import (
    CustodyItem,
    Document,
    Order,
    OrderChange,
    OrderLine,
    PaintTool,
    Piece,
    PieceStep,
    now,
)
from tests.demo_rows import BREAM_WAGGLER, FERRY_RUNNER, GRANDFATHER_S_PIKE_LURE
from tests.refusing import refusing
from tests.web.pouring import rows
from tests.web.test_doing import opened

ASKED = 24
"""An enquiry for one bait."""
BAIT = {
    "quantity": "2",
    "form": "slim",
    "length": "90 mm",
    "material": "basswood",
    "scheme": "0",
    "clears": "",
    "behaviour": "slow rise",
    "pitch": "0°",
    "water": "1",
    "price": "32",
    "per": "each",
    "old_paint": "kept",
    "note": "",
}


def line_of(visitor, kind, order=ASKED):
    return [row for row in rows(visitor, OrderLine) if row.kind == kind and row.order_id == order][-1]


def put(visitor, kind, order=ASKED, **sent):
    return visitor.post(f"/orders/{order}/line/new?kind={kind}", {**BAIT, **sent})


def test_lines_of_every_kind_make_an_order_and_its_sum(demo):
    before = next(row for row in rows(demo, Order) if row.id == ASKED)
    with opened(demo) as session:
        item = session.get_one(CustodyItem, 1)
        item.customer_id = before.customer_id
        ready = made_ready(session)
    assert put(demo, "made").status_code == 302
    assert put(demo, "repaint", custody="1", old_paint="stripped", price="40").status_code == 302
    assert put(demo, "clear", custody="1", clears="2", quantity="3", price="5").status_code == 302
    assert put(demo, "detail", custody="1", note="new eyes").status_code == 302
    assert put(demo, "stock", piece=str(ready), price="45").status_code == 302
    assert put(demo, "floats", design=str(BREAM_WAGGLER), per_set="3").status_code == 302
    assert put(demo, "parts", note="ten split rings", per="all", price="4").status_code == 302
    after = next(row for row in rows(demo, Order) if row.id == ASKED)
    assert after.price_minor - before.price_minor == 6400 + 8000 + 3000 + 6400 + 4500 + 6400 + 400
    assert after.quantity - before.quantity == 2 + 2 + 3 + 2 + 1 + 6 + 2 and "and 7 more lines" in after.title
    text = " ".join(demo.get(f"/orders/{ASKED}").text.split())
    assert "6 × 5.00 EUR" in text and "its old paint stripped" in text and "3 in a set" in text
    assert "kept for them until" in text and "ten split rings" in text and "K0001" in text
    for row in rows(demo, OrderLine):
        if row.order_id == ASKED:
            assert demo.get(f"/orders/{ASKED}/line/{row.id}").status_code == 200


@pytest.mark.parametrize(
    ("kind", "sent", "says"),
    [
        ("made", {"price": "much"}, "type an amount"),
        ("made", {"length": "wide"}, "cannot be read"),
        ("made", {"clears": "13"}, "0 to 12 coats"),
        ("made", {"quantity": ""}, "How many?"),
        ("clear", {"custody": "0", "clears": "0"}, "0"),
        ("floats", {"design": "0", "per_set": "61"}, "1 to 60"),
        ("parts", {"note": " "}, "in a word or two"),
        ("detail", {"custody": "0", "note": ""}, "in a word or two"),
        ("stock", {}, "Not a valid choice"),
        ("repaint", {"custody": "1"}, "Not a valid choice"),
    ],
)
def test_a_line_that_cannot_be_is_said_beside_its_field_and_kept_typed(demo, kind, sent, says):
    answer = put(demo, kind, **sent)
    assert answer.status_code == 422 and says in answer.text and 'class="problem"' in answer.text
    assert len([row for row in rows(demo, OrderLine) if row.order_id == ASKED]) == 1


def test_clear_coats_of_a_line_are_put_on_what_is_made_for_it(demo):
    put(demo, "made", clears="4")
    line = line_of(demo, "made")
    demo.post(f"/orders/{ASKED}/line/{line.id}/design", {"design": str(FERRY_RUNNER)})
    demo.post("/pieces/start", {"design": str(FERRY_RUNNER), "line": str(line.id)})
    demo.post("/pieces/start", {"design": str(FERRY_RUNNER), "line": str(line.id)})
    with opened(demo) as session:
        mine = [row for row in session.exec(pieces.listed(order_id=ASKED)).all()]
        assert [sum("coat:clear" in step.key for step in routes.of(session, row)) for row in mine] == [4, 4]
        assert mine[0].revision_id == mine[1].revision_id and mine[0].line_id == line.id
        design = session.get_one(Document, FERRY_RUNNER)
        assert documents.revision(session, design).id != mine[0].revision_id  # the design stays as it is
    repaint = put(demo, "repaint")
    assert repaint.status_code == 302
    again = line_of(demo, "repaint")
    demo.post(f"/orders/{ASKED}/line/{again.id}/design", {"design": str(FERRY_RUNNER)})
    demo.post("/pieces/start", {"design": str(FERRY_RUNNER), "line": str(again.id)})
    piece = rows(demo, Piece)[-1]
    assert piece.repaint == "kept"
    with opened(demo) as session:
        item = session.get_one(CustodyItem, 1)
        session.get_one(OrderLine, again.id).custody_id = item.id
        item.place = "drawer 7"
    route = " ".join(demo.get(f"/pieces/{piece.id}").text.split())
    assert "K0001 her father&#39;s harbour lure, drawer 7" in route and "its bag K0001 goes back on" in route


def test_what_is_agreed_stays_and_changes_only_with_their_yes(demo):
    page, line = f"/orders/{ASKED}", line_of(demo, "made")
    demo.post(f"{page}/line/{line.id}/design", {"design": str(FERRY_RUNNER)})
    demo.post(f"{page}/accept")
    agreed = line_of(demo, "made")
    assert agreed.revision_id and agreed.agreed["rate_minor"] == line.rate_minor
    assert agreed.agreed["water"]["temperature_c"] and agreed.agreed["scheme_version"] == 1
    sent = {**BAIT, "quantity": "5", "scheme": str(line.scheme_id), "price": "30"}
    demo.post(f"{page}/line/{line.id}", sent)
    assert line_of(demo, "made").quantity == line.quantity  # not before they said yes
    text = " ".join(demo.get(page).text.split())
    assert f"how many: {line.quantity} → 5" in text and "They said yes" in text
    assert (
        "the answer to its last change first"
        in demo.post(f"{page}/line/{line.id}", {**sent, "quantity": "6"}).text
    )
    change = rows(demo, OrderChange)[-1]
    assert "water_id" not in change.after or line.water_id  # nothing is asked that nobody typed
    demo.post(f"{page}/line/change/{change.id}/yes", {"word": "five is fine"})
    changed = line_of(demo, "made")
    assert (changed.quantity, changed.rate_minor, changed.revision_id) == (5, 3000, agreed.revision_id)
    assert changed.agreed["quantity"] == 5 and "five is fine" in demo.get(page).text
    assert demo.post(f"{page}/line/change/{change.id}/no", {}, follow_redirects=True).text.count(
        "waits for an answer"
    )
    demo.post(f"{page}/line/{line.id}/off")
    off = rows(demo, OrderChange)[-1]
    demo.post(f"{page}/line/change/{off.id}/no")
    assert line_of(demo, "made").deleted_at is None
    history = demo.get(f"/history?of=order&id={ASKED}").text
    for said in ("accepted", "a change is asked for: how many", "they said yes to a change", "a line: "):
        assert said in history


def test_a_body_drawn_on_after_the_yes_is_made_as_it_was_agreed(demo):
    page, line = f"/orders/{ASKED}", line_of(demo, "made")
    demo.post(f"{page}/line/{line.id}/design", {"design": str(FERRY_RUNNER)})
    demo.post(f"{page}/accept")
    with opened(demo) as session:
        row = session.get_one(Document, FERRY_RUNNER)
        content = documents.content(session, row)
        documents.save(session, row, {**content, "note": "drawn on"}, row.current, "drawn on")
        newest = documents.revision(session, row).id
    assert "it was drawn on since" in demo.get(page).text
    demo.post("/pieces/start", {"design": str(FERRY_RUNNER), "line": str(line.id)})
    agreed = line_of(demo, "made").revision_id
    assert rows(demo, Piece)[-1].revision_id == agreed != newest
    demo.post(f"{page}/line/{line.id}/body")
    demo.post(f"{page}/line/change/{rows(demo, OrderChange)[-1].id}/yes")
    with opened(demo) as session:
        its = documents.content_at(session, line_of(demo, "made").revision_id)
    assert its["note"] == "drawn on" and "drawn on since" not in demo.get(page).text


DOORS = {
    "a design that is taken": lambda demo: demo.post(
        f"/orders/{ASKED}/line/{ASKED}/design",
        {"design": str(GRANDFATHER_S_PIKE_LURE)},
        follow_redirects=True,
    ),
    "a grid": lambda demo: demo.post(
        f"/orders/{ASKED}/grid", {"sizes": "own size", "c:B-018:S-001": "2", "do": "keep"}
    ),
    "a grid at another size": lambda demo: demo.post(
        f"/orders/{ASKED}/grid",
        {"sizes": "own size; 80 mm", "was": "80 mm", "c:B-018:S-001": "2", "do": "keep"},
    ),
}


@pytest.mark.parametrize("door", DOORS)
def test_what_is_not_for_sale_is_on_no_order_by_any_door(demo, door):
    answer = DOORS[door](demo)
    assert "traced from an old one" in answer.text
    assert {row.design_id for row in rows(demo, OrderLine)} & {GRANDFATHER_S_PIKE_LURE} == set()
    assert {row.like_id for row in rows(demo, OrderLine)} & {GRANDFATHER_S_PIKE_LURE} == set()


@pytest.mark.parametrize("way", ["quote", "accept"])
def test_what_was_flagged_after_it_was_put_on_is_neither_quoted_nor_accepted(demo, way):
    with opened(demo) as session:
        session.get_one(OrderLine, ASKED).design_id = GRANDFATHER_S_PIKE_LURE
    answer = demo.post(f"/orders/{ASKED}/{way}", follow_redirects=True)
    assert "stays as it stands" in answer.text and "traced from an old one" in answer.text
    assert next(row.stand for row in rows(demo, Order) if row.id == ASKED) == "enquiry"
    start = {"design": str(GRANDFATHER_S_PIKE_LURE), "line": str(ASKED)}
    assert "No piece is started" in demo.post("/pieces/start", start, follow_redirects=True).text


def test_the_grid_carries_its_numbers_from_tab_to_tab_and_makes_lines(demo):
    page = f"/orders/{ASKED}/grid"
    sent = {
        "sizes": "own size; 80 mm",
        "was": "own size",
        "c:B-001:S-001": "2",
        "c:B-001:S-002": "x1",
        "tab": "80 mm",
    }
    text = demo.post(page, sent).text
    kept = re.search(r'name="kept" value="([^"]*)"', text)[1].replace("&#34;", '"')
    assert '"B-001:S-001": "2"' in kept and "own size (2)" in " ".join(text.split())
    sent = {
        "sizes": "own size; 80 mm",
        "was": "80 mm",
        "kept": kept,
        "c:B-002:S-002": "3",
        "price": "30",
        "do": "keep",
    }
    wrong = demo.post(page, sent)
    assert (
        wrong.status_code == 422 and "“x1” is no number of pieces" in wrong.text and 'value="3"' in wrong.text
    )
    assert len([row for row in rows(demo, OrderLine) if row.order_id == ASKED]) == 1  # nothing was put on
    made = demo.post(page, {**sent, "kept": kept.replace("x1", "4")})
    assert made.status_code == 302
    lines = [row for row in rows(demo, OrderLine) if row.order_id == ASKED][1:]
    assert [(row.quantity, row.rate_minor) for row in lines] == [(2, 3000), (4, 3000), (3, 3000)]
    assert lines[0].design_id == FERRY_RUNNER and lines[2].design_id is None and lines[2].length_mm == 80
    demo.post(f"/orders/{ASKED}/line/{lines[2].id}/design")
    with opened(demo) as session:
        drawn = session.get_one(Document, session.get_one(OrderLine, lines[2].id).design_id)
        content = documents.content(session, drawn)
        scheme = session.get_one(Document, lines[2].scheme_id)
        assert content["scheme"] == scheme.code == "S-002"
        length = (
            max(one["x_mm"] for one in content["body"]["stations"]) if "stations" in content["body"] else 80
        )
        assert length == pytest.approx(80, abs=0.5)


def test_a_pasted_table_fills_the_tab_and_what_is_wrong_of_it_stays_to_be_put_right(demo):
    page = f"/orders/{ASKED}/grid"
    table = "\tSilver fry\tNobody's\nFerry runner 90\t3\t1\nSlim one\t2\n"
    answer = demo.post(page, {"sizes": "own size", "do": "table", "table": table})
    assert answer.status_code == 422 and "no scheme is called “Nobody&#39;s”" in answer.text.replace("’", "'")
    assert (
        "row 3: no body is called “Slim one”" in answer.text
        and "Slim one" in answer.text.split("<textarea")[1]
    )
    assert 'name="c:B-001:S-001" value="3"' in answer.text.replace("\n", " ")
    out = demo.post(page, {"sizes": "own size", "do": "table", "table": "\tSilver fry\nFerry runner 90\tx\n"})
    assert "not made together" in out.text and 'name="c:B-001:S-001"' not in out.text
    put_on = demo.post(page, {"sizes": "own size", "c:B-001:S-001": "3", "do": "keep"})
    assert "not made together in this shop" in put_on.text
    demo.post(page, {"sizes": "own size", "do": "allow", "pair": "B-001:S-001"})
    assert 'name="c:B-001:S-001"' in demo.get(page).text
    for nothing in (
        {"do": "keep"},
        {"do": "table", "table": "words"},
        {"sizes": "wide"},
        {"kept": "[1", "do": "keep"},
    ):
        assert demo.post(page, {"sizes": "own size", **nothing}).status_code == 422


def made_ready(session):
    """A piece for stock, all of it done but its way out; its id."""
    piece = pieces.start(session, session.get_one(Document, FERRY_RUNNER))
    for step in routes.of(session, piece):
        if not step.of.hands_over:
            pieces.end_step(session, piece, step.key)
    return piece.id


def test_the_first_who_asks_has_the_piece_then_the_next_and_two_cannot_buy_it(demo):
    with opened(demo) as session:
        ready = made_ready(session)
    put(demo, "stock", piece=str(ready), price="45")
    second = put(demo, "stock", order=25, piece=str(ready), price="45")
    assert "number 1 after them" in demo.get(second.headers["Location"]).text
    first = line_of(demo, "stock")
    assert next(row for row in rows(demo, Piece) if row.id == ready).line_id == first.id
    assert timedelta(hours=71) < first.kept_until - now() < timedelta(hours=73)
    refused = demo.post("/orders/25/accept", follow_redirects=True).text
    assert "a piece that nobody else has" in refused and "stays as it stands" in refused
    with opened(demo) as session:
        session.get_one(OrderLine, first.id).kept_until = now() - timedelta(minutes=1)
        session.flush()
        ready_stock.settle_all(session)
    behind = line_of(demo, "stock", 25)
    assert next(row for row in rows(demo, Piece) if row.id == ready).line_id == behind.id
    assert behind.kept_until > now()
    demo.post("/orders/25/accept")
    assert (
        next(row.stand for row in rows(demo, Order) if row.id == 25) == "making"
    )  # its other line is not begun
    late = demo.post(f"/orders/{ASKED}/accept", follow_redirects=True).text
    assert "a piece that nobody else has" in late
    demo.post("/orders/25/cancel")
    assert next(row for row in rows(demo, Piece) if row.id == ready).line_id is None  # its time was over


def test_a_line_that_is_taken_off_lets_its_piece_go(demo):
    with opened(demo) as session:
        ready = made_ready(session)
    put(demo, "stock", piece=str(ready), price="45")
    demo.post(f"/orders/{ASKED}/line/{line_of(demo, 'stock').id}/off")
    assert next(row for row in rows(demo, Piece) if row.id == ready).line_id is None
    with opened(demo) as session:
        assert ready in {piece.id for piece, _ in ready_stock.offered(session)}


def test_ready_pieces_are_offered_with_their_way_and_kept_for_who_asks(demo):
    with opened(demo) as session:
        ready = made_ready(session)
    page = "/orders/ready"
    demo.post(f"{page}/shipping", {"shipping": "At home 4.90\nOver the sea 14,50", "hours": "48"})
    demo.post(f"{page}/{ready}/price", {"price": "45"})
    text = demo.get(page).text
    assert "At home: 49.90 EUR" in text and "Over the sea: 59.50 EUR" in text
    order = demo.post(f"{page}/{ready}/keep", {"customer": "Tove Ask", "to": "2"}).headers["Location"]
    seen = " ".join(demo.get(order).text.split())
    assert "59.50 EUR" in seen and "kept for them until" in seen
    assert (
        "after them" in demo.post(f"{page}/{ready}/keep", {"customer": "Une Ask"}, follow_redirects=True).text
    )
    assert "Kept for" in demo.get(page).text and "Next in line:" in demo.get(page).text
    for way, sent, says in (
        ("shipping", {"shipping": "free", "hours": "48"}, "a destination and its price"),
        ("shipping", {"shipping": "Home much", "hours": "48"}, "type an amount"),
        ("shipping", {"shipping": "", "hours": "soon"}, "whole hours, 1 to"),
        (f"{ready}/price", {"price": "lots"}, "type an amount"),
        (f"{ready}/keep", {"customer": " "}, "who asks for it"),
    ):
        answer = demo.post(f"{page}/{way}", sent)
        assert answer.status_code == 422 and says in answer.text


def test_an_order_may_begin_with_who_and_get_its_lines_after(demo):
    sent = {**BAIT, "customer": "Nils Later", "later": "1", "price": ""}
    page = demo.post("/orders/new", sent).headers["Location"]
    assert (
        "Nothing on it yet" in demo.get(page).text and "nothing on it yet" in demo.get("/orders?q=nils").text
    )
    assert "put a line on it first" in demo.post(f"{page}/quote").text
    key = int(page.rsplit("/", 1)[1])
    with opened(demo) as session:
        order = session.get_one(Order, key)
        with refusing("something of theirs that is here"):
            order_lines.keep(session, OrderLine(order_id=key, kind="repaint", custody_id=1))
        with refusing("one that is ready and not sold"):
            order_lines.keep(session, OrderLine(order_id=key, kind="stock"))
        with refusing("there is one of it"):
            order_lines.keep(session, OrderLine(order_id=key, kind="stock", quantity=2))
        with refusing("one that may be sold, or ask whoever it is from"):
            order_lines.keep(session, OrderLine(order_id=key, design_id=GRANDFATHER_S_PIKE_LURE))
        piece = session.get_one(Piece, made_ready(session))
        piece.order_id, piece.line_id = 1, 1
        with refusing("one of stock: that was made for an order"):
            ready_stock.ask(session, OrderLine(order_id=key, kind="stock", piece_id=piece.id))
        for _ in range(order_lines.MOST_LINES):
            session.add(OrderLine(order_id=key))
        session.flush()
        with refusing(" lines on an order"):
            order_lines.begun(session, order)


def test_a_day_is_promised_with_its_reason_and_a_revised_one_is_remembered(demo):
    page = f"/orders/{ASKED}"
    text = " ".join(demo.get(f"{page}?when=1").text.split())
    assert "The bench has it ready on" in text and "of coats and cures" in text
    assert "No day is promised yet." in text and "waits for its shape" in text
    demo.post(f"{page}/promise", {"on": "2031-03-01", "why": "two coats to go"})
    demo.post(f"{page}/promise", {"on": "2031-04-01", "why": "the resin came late"})
    text = " ".join(demo.get(page).text.split())
    assert "two coats to go" in text and "the resin came late" in text and "revised" in text
    assert str(next(row.due_on for row in rows(demo, Order) if row.id == ASKED)) == "2031-04-01"
    for sent, says in (
        ({"on": "soon"}, "a day, as"),
        ({"on": "2031-05-01", "why": "x" * 501}, "at most 500 letters"),
    ):
        answer = demo.post(f"{page}/promise", sent)
        assert answer.status_code == 422 and says in answer.text
    for key in range(19, 27):  # every kind of line has a route or none
        assert demo.get(f"/orders/{key}?when=1").status_code == 200


def test_a_scheme_that_is_not_for_sale_is_on_no_order_by_any_door(demo):
    with opened(demo) as session:
        ready = made_ready(session)
        line = session.get_one(OrderLine, ASKED)
        scheme, line.design_id = line.scheme_id, FERRY_RUNNER
        code = session.get_one(Document, scheme).code
    demo.post(f"/paints/{scheme}/rights", {"note": "drawn for the club"})
    assert "not for sale: drawn for the club" in demo.get(f"/paints/{scheme}").text
    assert "at most 300 letters" in demo.post(f"/paints/{scheme}/rights", {"note": "x" * 301}).text
    doors = (
        put(demo, "made", scheme=str(scheme)),
        put(demo, "repaint", scheme=str(scheme)),
        demo.post(f"/orders/{ASKED}/grid", {"sizes": "own size", f"c:B-001:{code}": "1", "do": "keep"}),
        demo.post(f"/orders/{ASKED}/accept", follow_redirects=True),
        demo.post("/pieces/start", {"design": str(FERRY_RUNNER), "line": str(ASKED)}, follow_redirects=True),
    )
    assert all("drawn for the club" in answer.text for answer in doors)
    assert f'name="c:B-001:{code}"' not in demo.get(f"/orders/{ASKED}/grid").text
    with opened(demo) as session:  # a ready bait that is painted in it
        design = documents.content(session, session.get_one(Document, FERRY_RUNNER))
    own = next(row for row in rows(demo, Document) if row.code == design["scheme"])
    demo.post(f"/paints/{own.id}/rights", {"note": "of a friend"})
    assert "of a friend" in put(demo, "stock", piece=str(ready)).text
    assert "of a friend" in demo.post(f"/orders/ready/{ready}/keep", {"customer": "Tove"}).text
    demo.post(f"/paints/{own.id}/rights", {"sold": "1"})
    assert put(demo, "stock", piece=str(ready)).status_code == 302
    demo.post(f"/paints/{own.id}/rights", {"note": "of a friend of ours"})
    with opened(demo) as session:
        last = [step.key for step in routes.of(session, session.get_one(Piece, ready))][-2:]
        for step in session.exec(select(PieceStep).where(PieceStep.piece_id == ready)).all():
            step.done_at = now() - timedelta(days=30)  # its clear is hard
    sent = {"step": last[1], "done": "1"}
    assert (
        "its scheme is not for sale: of a friend"
        in demo.post(f"/pieces/{ready}/steps/tick", sent, follow_redirects=True).text
    )


def test_another_scheme_or_length_after_the_yes_is_that_ones_own(demo):
    page = f"/orders/{ASKED}"
    with opened(demo) as session:
        scheme = next(
            row for row in session.exec(documents.matching("scheme")).all() if row.name == "Zander clay"
        )
        line = session.get_one(OrderLine, ASKED)
        line.scheme_version, line.length_mm = 7, 90.0
        other = scheme.id
    demo.post(f"{page}/line/{ASKED}/design", {"design": str(FERRY_RUNNER)})
    with opened(demo) as session:
        session.get_one(OrderLine, ASKED).scheme_version = 1
    demo.post(f"{page}/accept")
    demo.post(f"{page}/line/{ASKED}", {**BAIT, "scheme": str(other), "length": "110 mm", "price": ""})
    demo.post(f"{page}/line/change/1/yes")
    line = line_of(demo, "made")
    assert (line.scheme_id, line.scheme_version, line.length_mm) == (other, 1, 110)
    assert "110" in line.title and "not as ordered: make it so in Shape" in demo.get(page).text
    with opened(demo) as session:
        assert documents.content_at(session, line.revision_id)["scheme"] == "S-004"


def test_a_stencil_that_is_not_for_sale_keeps_its_body_and_its_scheme_off_orders(demo):
    tools = rows(demo, PaintTool)
    cut = next(row for row in tools if row.body_id)
    demo.post(f"/paints/known/tool/{cut.id}/rights", {"note": "lent by a friend"})
    page = demo.get("/paints/known").text
    assert "not for sale: lent by a friend" in page and "It may be sold after all" in page
    taken = demo.post(
        f"/orders/{ASKED}/line/{ASKED}/design", {"design": str(cut.body_id)}, follow_redirects=True
    )
    assert "lent by a friend" in taken.text and cut.name in taken.text
    demo.post(f"/paints/known/tool/{cut.id}/rights", {"sold": "1"})
    assert "lent by a friend" not in demo.get("/paints/known").text
    with opened(demo) as session:
        scheme = session.get_one(Document, session.get_one(OrderLine, ASKED).scheme_id)
        session.get_one(PaintTool, cut.id).name = documents.content(session, scheme)["layers"][0]["name"]
    demo.post(f"/paints/known/tool/{cut.id}/rights", {"note": "of the club"})
    assert "of the club" in put(demo, "made", scheme=str(scheme.id)).text


def test_a_change_asks_for_nothing_that_nobody_typed_and_what_a_line_is_done_to_goes_back_with_its_order(
    demo,
):
    page = "/orders/26"
    with opened(demo) as session:
        lent = next(row for row in stands.lines_of(session, session.get_one(Order, 26)) if row.custody_id)
        assert session.get_one(CustodyItem, lent.custody_id).order_id == 26
    assert "Nothing of theirs came for it" not in demo.get(page).text
    line = line_of(demo, "made", 26)
    demo.post(f"{page}/accept")
    form = demo.get(f"{page}/line/{line.id}").text
    sent = {name: value for name, value in re.findall(r'<input[^>]*name="(\w+)"[^>]*value="([^"]*)"', form)}
    for name, body in re.findall(r'<select[^>]*name="(\w+)"[^>]*>(.*?)</select>', form, re.S):
        chosen = re.search(r'<option selected value="([^"]*)"', body) or re.search(r'value="([^"]*)"', body)
        sent[name] = chosen[1]
    demo.post(f"{page}/line/{line.id}", {**BAIT, **sent, "quantity": "9"})
    assert rows(demo, OrderChange)[-1].after == {"quantity": 9}

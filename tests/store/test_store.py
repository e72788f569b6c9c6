"""The store: revisions, undo, search in any script, weighings, orders."""

import pytest
from sqlmodel import select

from lamsik.core.errors import Refused
from lamsik.core.tank.ballast_base import Bench
from lamsik.core.tank.evaluate import Rules
from lamsik.store import documents, orders, pieces, stands, stores
from lamsik.store.documents import Stale
from lamsik.store.search import fold, pattern
from lamsik.store.tables import Hardware, Instrument, Order, OrderLine, ShopWater, now


@pytest.fixture
def scale(session):
    return session.exec(select(Instrument)).first()


def a_design(session, name="Ärla runner"):
    return documents.create(
        session, "body", documents.next_code(session, "body", "B"), {"name": name, "size": 1}
    )


class TestRevisions:
    def test_saving_makes_a_revision_and_undo_goes_back(self, session):
        row = a_design(session)
        for size in (2, 3):
            documents.save(session, row, {"name": "Ärla runner", "size": size}, row.current)
        assert documents.undo(session, row) and documents.content(session, row)["size"] == 2
        assert documents.undo(session, row) and documents.content(session, row)["size"] == 1
        assert not documents.undo(session, row)
        assert documents.redo(session, row) and documents.redo(session, row)
        assert documents.content(session, row)["size"] == 3
        assert not documents.redo(session, row)

    def test_a_save_after_undo_keeps_the_other_branch_too(self, session):
        row = a_design(session)
        documents.save(session, row, {"name": "x", "size": 2}, 1)
        documents.undo(session, row)
        documents.save(session, row, {"name": "x", "size": 9}, 1)
        assert documents.revision(session, row, 2).content["size"] == 2
        assert documents.redo(session, row) is False
        documents.undo(session, row)
        documents.redo(session, row)
        assert documents.content(session, row)["size"] == 9

    def test_the_same_content_makes_no_revision(self, session):
        row = a_design(session)
        assert documents.save(session, row, {"name": "Ärla runner", "size": 1}, 1).number == 1

    def test_a_stale_save_is_refused(self, session):
        row = a_design(session)
        documents.save(session, row, {"name": "x", "size": 2}, 1)
        with pytest.raises(Stale, match="revision 2 was saved elsewhere after revision 1"):
            documents.save(session, row, {"name": "x", "size": 3}, 1)

    def test_a_branch_for_a_piece_leaves_the_design_alone(self, session):
        row = a_design(session)
        made = documents.branch(session, row, {"name": "x", "size": 7}, 1, "for a piece")
        assert (row.current, made.number) == (1, 2)
        assert not documents.redo(session, row)

    def test_the_deleted_are_not_listed_and_their_codes_not_used_again(self, session):
        row = a_design(session)
        row.deleted_at = now()
        session.flush()
        assert row not in documents.listed(session, "body")
        assert documents.next_code(session, "body", "B") == "B-002"


SEARCHES = [
    ("Ärla Brandt", "arla"),
    ("Ärla Brandt", "ÄRLA"),
    ("Arla", "ärla"),
    ("三浦 かおり", "かお"),
    ("三浦 かおり", "三浦"),
    ("Siri Åkerøy", "akeroy"),
    ("Marek Dubný", "DUBNY"),
    ("Straße", "strasse"),
    ("ﬁne", "fine"),
    ("Łódź", "lodz"),
    ("100% tin_rod", "100% tin_"),
    ("Ёлка", "елка"),
]


@pytest.mark.parametrize(("name", "asked"), SEARCHES)
def test_search_finds_any_script_accents_aside(session, name, asked):
    orders.customer_named(session, name)
    orders.customer_named(session, "Someone else")
    assert [c.name for c in session.exec(orders.customers(asked)).all()] == [name]


def test_search_signs_are_not_wildcards(session):
    orders.customer_named(session, "Plain")
    orders.place(
        session,
        Order(number="A1", customer_id=0, title="bait", search=""),
        orders.customer_named(session, "Plain"),
    )
    assert all(
        session.exec(query(sign)).all() == []
        for sign in ("%", "_", '"', "%%%", "___", '"""')
        for query in (orders.customers, orders.listed)
    )


@pytest.mark.parametrize(("name", "asked"), SEARCHES)
def test_orders_are_found_by_any_part_of_their_customers_name(session, name, asked):
    for number, who in (("A1", name), ("A2", "Someone else")):
        orders.place(
            session,
            Order(number=number, customer_id=0, title="bait", search=""),
            orders.customer_named(session, who),
        )
    assert [row.number for row, _ in session.exec(orders.listed(asked)).all()] == ["A1"]
    session.delete(session.exec(orders.listed(asked)).one()[0])
    session.flush()
    assert session.exec(orders.listed(asked)).all() == []


def test_a_voicing_mark_makes_another_word():
    assert fold("がき") != fold("かき")
    assert pattern("50%") == "%50\\%%"


def test_one_customer_however_the_name_is_written(session):
    one = orders.customer_named(session, "Ärla  Brandt", {"contact": "a@example.org"})
    two = orders.customer_named(session, "arla brandt", {"contact": "", "note": "left-handed"})
    assert one.id == two.id and two.facts == {"contact": "a@example.org", "note": "left-handed"}


def test_orders_are_listed_by_due_date_and_tell_where_they_stand(session):
    from datetime import date  # noqa: PLC0415

    customer = orders.customer_named(session, "Tove")
    for due in (None, date(2030, 5, 1), date(2030, 1, 1)):
        orders.place(
            session,
            Order(number=orders.next_number(session), customer_id=0, due_on=due),
            customer,
            OrderLine(order_id=0),
        )
    rows = [order for order, _ in session.exec(orders.listed()).all()]
    assert [r.due_on for r in rows] == [date(2030, 1, 1), date(2030, 5, 1), None]
    assert [r.stand for r in rows] == ["enquiry"] * 3
    design = a_design(session)
    (line,) = stands.lines_of(session, rows[0])
    line.design_id = design.id
    assert orders.waiting_for(session, design.id) is None  # not before it is agreed
    rows[0].accepted_at = now()
    session.flush()
    assert orders.waiting_for(session, design.id) == rows[0]
    pieces.start(session, design, line)
    assert orders.waiting_for(session, design.id) is None
    assert [o.number for o, _ in session.exec(orders.listed("tove")).all()] == [r.number for r in rows]


class TestWeighings:
    def test_the_newest_counts_and_can_be_taken_back(self, session, scale):
        piece = pieces.start(session, a_design(session))
        pieces.weigh(session, piece, "stage:carved", 5.1, "5.1 g", scale)
        second = pieces.weigh(session, piece, "stage:carved", 5.3, "5,3 g", scale)
        assert pieces.readings(session, piece)["stage:carved"].weighing.value == 5.3
        pieces.take_back(session, piece, second.id)
        found = pieces.readings(session, piece)
        assert found["stage:carved"].weighing.value == 5.1
        assert pieces.measured(found).stages == (("carved", 5.1, pytest.approx(0.0289, abs=1e-3)),)

    def test_parts_and_stages_are_told_apart(self, session, scale):
        piece = pieces.start(session, a_design(session))
        pieces.weigh(session, piece, "part:hook1", 0.5, "0.5", scale)
        assert pieces.measured(pieces.readings(session, piece)).parts[0][:2] == ("hook1", 0.5)

    @pytest.mark.parametrize(
        ("target", "mass", "field"),
        [
            ("stage:dipped", 5, "target"),
            ("whole", 5, "target"),
            ("stage:carved", 0, "mass"),
            ("stage:carved", 9e9, "mass"),
        ],
    )
    def test_bad_readings_are_refused(self, session, scale, target, mass, field):
        piece = pieces.start(session, a_design(session))
        with pytest.raises(Refused) as refusal:
            pieces.weigh(session, piece, target, mass, str(mass), scale)
        assert refusal.value.field == field


def test_a_piece_remembers_its_revision(session):
    row = a_design(session)
    piece = pieces.start(session, row)
    documents.save(session, row, {"name": "x", "size": 2}, 1)
    assert pieces.document_of(session, piece)["size"] == 1


def test_a_new_shop_has_what_a_first_bait_needs(session):
    kinds = {part.kind for part in stores.hardware(session)}
    assert {"line_tie", "hanger", "ring", "hook", "lip"} <= kinds
    bench = stores.bench(session)
    assert len(bench.slugs) >= 6 and len(bench.drills_mm) >= 6
    assert len(stores.catalogue(session).schemes) >= 2
    assert {w.name for w in session.exec(select(ShopWater)).all()} >= {"fresh water", "sea water"}
    assert all(any(s.diameter_mm <= d <= s.diameter_mm + 2 for d in bench.drills_mm) for s in bench.slugs)


def test_a_setting_that_was_not_kept_is_not_told(session):
    stores.put_setting(session, "bench", {"wall_mm": 3.0})
    session.commit()
    stores.put_setting(session, "bench", {"wall_mm": 4.0})
    with session.begin_nested() as step:
        stores.put_setting(session, "bands", {"suspends_cm_s": 2.0})
        step.rollback()
    assert stores.setting(session, "bands") == stores.DEFAULTS["bands"]
    session.rollback()
    assert stores.setting(session, "bench")["wall_mm"] == 3.0


def test_settings_keep_what_is_not_changed(session):
    stores.put_setting(session, "bench", {"wall_mm": 3.0})
    session.flush()
    assert stores.bench(session).wall_mm == 3.0 and stores.bench(session).cover_mm == 2.0
    stores.put_setting(session, "bands", {"suspends_cm_s": 2.0})
    assert stores.rules(session).bands.suspends_cm_s == 2.0


def test_a_shop_that_set_nothing_goes_by_what_the_core_stands_on(session):
    assert stores.rules(session) == Rules()
    shop = stores.bench(session)
    assert Bench(shop.slugs, shop.drills_mm) == shop and shop.wall_mm == Rules().wall_mm


def test_a_lip_keeps_the_plate_it_has():
    sizes = {"width_mm": 21.0, "length_mm": 26.0, "thickness_mm": 2.2, "angle_deg": 50.0}
    lip = stores.lip_of(Hardware(code="l", name="lip", kind="lip", **sizes))
    assert {name: getattr(lip, name) for name in sizes} == sizes

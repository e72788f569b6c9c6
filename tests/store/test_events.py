"""The event log: whatever is done is written down with who did it, holds the state of what it is of, and is
taken back only while nothing came after it.
"""

import pytest
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st
from sqlalchemy.exc import IntegrityError
from sqlmodel import delete, select

from lamsik.core.errors import Refused
from lamsik.core.route.steps import steps
from lamsik.core.shapes.design import Host, Want
from lamsik.core.shapes.forms import form
from lamsik.core.water import Water
from lamsik.documents.body.document import new_document, to_design
from lamsik.store import documents, events, orders, people, pieces, routes, stores
from lamsik.store.tables import Drill, Hardware, Instrument, LogEntry, Observation, Order, Person, Piece, now
from lamsik.words.events import said

SLIM = new_document("Slim", form("slim"), Host("basswood", 0.42, 0.04), Water(), Want())
ROUTE = [step.key for step in steps(to_design(SLIM))]


@pytest.fixture
def piece(session):
    return pieces.start(session, documents.create(session, "body", "B-001", SLIM))


def by(session, name):
    row = session.exec(select(Person).where(Person.name == name)).first() or people.named(session, name)
    session.info[events.WHO] = row.id
    return row


def act(session, piece, what, number):
    step = ROUTE[number % len(ROUTE)]
    if what == "begin":
        pieces.begin_step(session, piece, step)
    elif what == "end":
        pieces.end_step(session, piece, step, note="so" * (number % 2))
    elif what == "leave out":
        pieces.end_step(session, piece, step, reason="not wanted")
    elif what == "take back":
        pieces.take_back_step(session, piece, step)
    elif what == "note":
        pieces.note_step(session, piece, step, f"note {number}")
    elif what == "weigh":
        scale = session.exec(select(Instrument)).first()
        pieces.weigh(session, piece, "stage:carved", 9.0 + number, f"{9 + number}", scale)
    elif what == "unweigh":
        pieces.take_back(session, piece, number)
    else:
        piece.deleted_at = now() if number % 2 else None
        session.add(piece)
        session.flush()


DOING = ["begin", "end", "leave out", "take back", "note", "weigh", "unweigh", "put away"]
ACTS = st.lists(
    st.tuples(st.sampled_from(DOING), st.integers(0, 12), st.sampled_from(["Ann", "Bo"])), max_size=20
)


@settings(max_examples=25, suppress_health_check=[HealthCheck.function_scoped_fixture])
@given(acts=ACTS)
def test_it_rebuilds_the_state_of_a_piece_whatever_was_done_by_whom(session, acts):
    nested = session.begin_nested()
    session.info.pop(events.WHO, None)  # the last example's people are rolled back
    try:
        piece = pieces.start(session, documents.create(session, "body", "B-001", SLIM))
        for what, number, name in acts:
            who, before = by(session, name).id, len(session.exec(select(LogEntry)).all())
            try:
                act(session, piece, what, number)
            except Refused:
                continue
            new = session.exec(select(LogEntry).order_by(LogEntry.id).offset(before)).all()
            assert {one.person_id for one in new} <= {who}
        rows = [*routes.touched(session, piece).values()]
        weighings = session.exec(select(Observation).where(Observation.of_id == piece.id)).all()
        wanted = {
            ("", piece.id): events.state_of(piece),
            **{("step", row.id): events.state_of(row) for row in rows},
            **{("observed", row.id): events.state_of(row) for row in weighings},
        }
        assert events.rebuilt(session, "piece", piece.id) == wanted
    finally:
        nested.rollback()
        session.expire_all()


def test_what_is_rolled_back_was_never_done(session, piece):
    session.commit()
    pieces.end_step(session, piece, "carve")
    assert "step" in {one.part for one in session.exec(events.listed("piece", piece.id)).all()}
    session.rollback()
    assert {one.part for one in session.exec(events.listed("piece", piece.id)).all()} == {""}


def test_a_step_holds_when_it_was_begun_and_ended_by_whom_and_why_it_was_left_out(session, piece):
    ann = by(session, "Ann")
    pieces.begin_step(session, piece, "carve")
    with pytest.raises(Refused, match="begun already"):
        pieces.begin_step(session, piece, "carve")
    assert [row.step for row, _ in routes.running(session, 8)] == ["carve"] and piece.stand == "making"
    assert routes.ended(session, [piece])[piece.id] == set()
    bo = by(session, "Bo")
    pieces.end_step(session, piece, "carve", note="knot at the tail")
    pieces.end_step(session, piece, "tub", reason="no water")
    pieces.end_step(session, piece, "tub", reason="another")
    row, tub = (routes.touched(session, piece)[key] for key in ("carve", "tub"))
    assert row.begun_at <= row.done_at and (row.note, row.reason) == ("knot at the tail", "")
    assert row.person_id == bo.id != ann.id and tub.reason == "no water"
    assert routes.running(session, 8) == []
    with pytest.raises(Refused, match="begin it or tick it first"):
        pieces.note_step(session, piece, "ship", "x")


def test_the_newest_change_is_taken_back_and_an_older_one_only_after_it(session):
    ring = session.exec(select(Hardware).where(Hardware.kind == "ring")).first()
    was, key = ring.mass_g, ring.id
    for mass in (1.5, 2.5):
        ring.mass_g = mass
        session.add(ring)
        session.flush()
    second, first = session.exec(
        events.listed("item").where(LogEntry.row_id == key, LogEntry.part == "part")
    ).all()[:2]
    with pytest.raises(Refused, match="undo what came after it first"):
        events.take_back(session, first)
    events.take_back(session, second)
    assert ring.mass_g == 1.5
    events.take_back(session, first)
    assert ring.mass_g == was


@pytest.mark.parametrize("logged", [True, False])
def test_what_was_put_away_comes_back_by_what_the_log_says_of_it(session, piece, logged):
    for _ in range(2):
        piece.deleted_at = now()
        session.add(piece)
        session.flush()
        if not logged:  # put away by a release that kept no log
            session.exec(delete(LogEntry))
        events.bring_back(session, piece)
        session.flush()
        assert piece.deleted_at is None
    told = session.exec(events.listed("piece", piece.id)).first()
    assert told.after == {"deleted_at": None} and (told.before["deleted_at"] is not None)


def test_what_is_known_of_a_customer_is_told_one_by_one(session):
    row = orders.customer_named(session, "Ann", {"contact": "a@example.org"})
    orders.customer_named(session, "ann", {"contact": "by the quay", "note": "left-handed"})
    told = events.last_of(session, row.id, "customer")
    assert said("customer", "", told.before, told.after, {}) == (
        "“How to reach them”: a@example.org → by the quay; “Good to know of them”: none → left-handed"
    )
    events.take_back(session, told)
    assert row.facts == {"contact": "a@example.org"}


def test_what_was_taken_out_comes_back_as_it_was_unless_its_place_is_taken(session):
    drill = session.exec(select(Drill)).first()
    held, size = events.state_of(drill), drill.diameter_mm
    stores.take_out(session, drill)
    gone = events.last_of(session, held["id"], "item", "drill")
    session.add(Drill(diameter_mm=size))
    session.flush()
    with pytest.raises((IntegrityError, Refused)):
        events.take_back(session, gone)
    session.delete(session.exec(select(Drill).where(Drill.diameter_mm == size)).one())
    session.flush()
    events.take_back(session, gone)
    assert events.state_of(session.get(Drill, held["id"])) == held


def test_what_has_consequences_is_not_undone_by_itself(session, piece):
    begun = events.last_of(session, piece.id, "piece")
    assert not events.can_take_back(session.exec(events.listed("document")).first())
    with pytest.raises(Refused, match="gone back on at its own bench"):
        events.take_back(session, begun)
    order = orders.place(
        session,
        Order(number="A0001", customer_id=0, title="bait", search=""),
        orders.customer_named(session, "Tove"),
    )
    order.deleted_at = now()
    session.add(order)
    session.flush()
    events.take_back(session, events.last_of(session, order.id, "order"))
    assert order.deleted_at is None


def test_a_shop_has_five_at_most_and_who_left_keeps_a_name(session):
    rows = [people.named(session, f"Hand {n}") for n in range(5)]
    for name in ("", " ", "hånd 3"):
        with pytest.raises(Refused, match="type a name|that name is taken"):
            people.named(session, name)
    with pytest.raises(Refused, match="a shop has at most"):
        people.named(session, "Sixth")
    assert people.named(session, "Hand zero", rows[0]).name == "Hand zero"
    people.leaves(session, rows[1])
    assert len(people.here(session)) == 4 and people.names(session)[rows[1].id] == "Hand 1"
    people.named(session, "Hand 1")
    with pytest.raises(Refused, match="that name is taken"):
        people.named(session, "Hand 2", rows[0])


def test_pieces_of_one_design_share_their_route_and_keep_it_when_the_shop_gets_quicker(session, piece):
    other = pieces.start(session, session.get(documents.Document, piece.design_id))
    assert other.route_id == piece.route_id
    routes.keep_minutes(session, {**routes.own_minutes(session), "carve": (1.0, 2.0)})
    third = pieces.start(session, session.get(documents.Document, piece.design_id))
    first, new = (routes.of(session, row)[0] for row in (piece, third))
    assert (first.setup_min, first.each_min) == (15.0, 42.0) and (new.setup_min, new.each_min) == (1.0, 2.0)
    assert stores.setting(session, "minutes")["own"] == {"carve": [1.0, 2.0]}
    assert session.exec(select(Piece).where(Piece.route_id == piece.route_id)).all() == [piece, other]
    with pytest.raises(Refused, match="set-up"):
        routes.keep_minutes(session, {"carve": (-1.0, 2.0)})

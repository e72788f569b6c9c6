"""Where pieces and orders stand is what their facts tell, whatever was done to them, in whatever order."""

from contextlib import suppress
from datetime import date, timedelta

import pytest
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st
from sqlmodel import select

from lamsik.core.errors import Refused
from lamsik.core.orders.status import WAYS
from lamsik.core.route.steps import steps
from lamsik.core.shapes.design import Host, Want
from lamsik.core.shapes.forms import form
from lamsik.core.water import Water
from lamsik.documents.body.document import new_document, to_design
from lamsik.store import documents, history, orders, pieces, stands
from lamsik.store.starter import scheme
from lamsik.store.tables import Order, OrderLine, Payment, Piece, Revision, now
from tests.documents.before import with_coats

SLIM = new_document("Slim", form("slim"), Host("basswood", 0.42, 0.04), Water(), Want())
ROUTE = [step.key for step in steps(to_design(SLIM))]


@pytest.fixture
def design(session):
    return documents.create(session, "body", "B-001", SLIM)


def told(session):
    rows = *session.exec(select(Piece)).all(), *session.exec(select(Order)).all()
    kept = ("number", "stand", "queue", "gone_on", "owed_minor")
    return [tuple(getattr(row, name, None) for name in kept) for row in rows]


ACTS = st.lists(
    st.tuples(
        st.sampled_from(
            ["place", *WAYS, "pay", "pay", "start", "stock", "tick", "all", "untick", "delete", "back"]
        ),
        st.integers(0, 40),
    ),
    max_size=25,
)


@settings(max_examples=25, suppress_health_check=[HealthCheck.function_scoped_fixture])
@given(acts=ACTS)
def test_what_is_kept_is_what_the_facts_tell(session, acts):
    nested = session.begin_nested()
    try:
        done_to_a_shop(session, acts)
        kept = told(session)
        stands.all_anew(session)
        assert told(session) == kept
    finally:
        nested.rollback()
        session.expire_all()


def done_to_a_shop(session, acts):
    design = documents.create(session, "body", "B-001", SLIM)
    customer = orders.customer_named(session, "Tove")
    for act, number in acts:
        made, placed = session.exec(select(Piece)).all(), session.exec(select(Order)).all()
        if act == "place":
            orders.place(
                session,
                Order(number=orders.next_number(session), customer_id=0),
                customer,
                *(
                    OrderLine(order_id=0, quantity=1 + number % 2, lump_minor=number % 3 or None)
                    for _ in range(1 + number % 2)
                ),
            )
        elif act in WAYS and placed:
            with suppress(Refused):
                orders.say(session, placed[number % len(placed)], act)
        elif act == "pay" and placed:
            sum_minor = number % 4 - 1 or 2
            one = Payment(order_id=0, paid_on=date(2030, 1, 1), minor=sum_minor, how="cash")
            orders.pay(session, placed[number % len(placed)], one)
        elif act in ("start", "stock"):
            lines = session.exec(select(OrderLine)).all()
            pieces.start(session, design, lines[number % len(lines)] if lines and act == "start" else None)
        elif act in ("tick", "untick", "all") and made:
            for step in ROUTE if act == "all" else [ROUTE[number % len(ROUTE)]]:
                turn = pieces.take_back_step if act == "untick" else pieces.end_step
                turn(session, made[number % len(made)], step)
        elif act in ("delete", "back") and made:
            made[number % len(made)].deleted_at = now() if act == "delete" else None
            stands.anew(session, made[number % len(made)])


def test_a_shipped_order_goes_behind_the_open_ones_and_comes_back(session, design):
    customer = orders.customer_named(session, "Tove")
    first, second = (
        orders.place(
            session,
            Order(
                number=orders.next_number(session),
                customer_id=0,
                due_on=date(2030, 1, day),
                accepted_at=now(),
            ),
            customer,
            OrderLine(order_id=0),
        )
        for day in (1, 2)
    )
    piece = pieces.start(session, design, stands.lines_of(session, first)[0])
    for key in ROUTE:
        pieces.end_step(session, piece, key)
    listed = [order.number for order, _ in session.exec(orders.listed()).all()]
    assert (first.stand, piece.stand, listed) == ("shipped", "shipped", [second.number, first.number])
    assert pieces.due_first(session, 8) == [] and [order for order, _ in orders.promised(session, 8)] == [
        second
    ]
    pieces.take_back_step(session, piece, "ship")
    assert (first.stand, piece.stand) == ("ready", "ready") and orders.promised(session, 8)[0][0] == first


def test_what_is_at_work_comes_by_due_date_then_for_stock(session, design):
    customer = orders.customer_named(session, "Tove")
    stock = pieces.start(session, design)
    late, soon, gone = (
        orders.place(
            session,
            Order(number=orders.next_number(session), customer_id=0, due_on=due),
            customer,
            OrderLine(order_id=0),
        )
        for due in (None, date(2030, 1, 1), date(2029, 1, 1))
    )
    mine = [pieces.start(session, design, stands.lines_of(session, order)[0]) for order in (late, soon, gone)]
    gone.deleted_at = now()
    session.flush()
    assert [piece for piece, _, _ in pieces.due_first(session, 8)] == [mine[1], mine[0], stock, mine[2]]
    assert [piece for piece, _, _ in pieces.due_first(session, 3)] == [mine[1], mine[0], stock]


class TestHistory:
    def test_old_revisions_are_packed_and_read_back_as_they_were(self, session, design):
        contents = self.saved(session, design, 260)
        long_ago = now() + timedelta(days=400)
        assert history.pack(session, design, long_ago) > 40
        session.expire_all()
        packed = session.exec(
            select(Revision).where(Revision.document_id == design.id, Revision.packed.is_not(None))
        ).all()
        assert {row.number for row in packed} <= set(range(2, 61)) and 1 not in {row.number for row in packed}
        assert sum(len(row.packed) for row in packed) < 400 * len(packed)
        for number, content in enumerate(contents, 1):
            assert documents.revision(session, design, number).content == content
        assert history.pack(session, design, long_ago) == 0

    def test_the_last_days_and_steps_stay_whole(self, session, design):
        self.saved(session, design, 260)
        assert history.pack(session, design) == 0
        assert history.pack(session, design, now() + timedelta(days=31)) > 0

    def test_undo_walks_back_through_what_is_packed(self, session, design):
        contents = self.saved(session, design, 230)
        history.pack(session, design, now() + timedelta(days=31))
        session.expire_all()
        for content in reversed(contents[:-1]):
            assert documents.undo(session, design) and documents.content(session, design) == content

    def test_what_was_written_before_layers_is_raised_as_it_is_read_packed_or_whole(self, session, design):
        painted = scheme("Roach", "#D6DEE2", "#4D6470", bars="#22332B")
        painted["layers"] = [{**row, "cure_h": None} for row in painted["layers"]]  # nothing said it then
        contents = self.saved(session, design, 230, layers=painted["layers"])
        row = documents.create(session, "scheme", "S-9", painted)
        for kept in session.exec(select(Revision)).all():
            version = {"version": 3} if "body" in kept.content else {}
            kept.content = with_coats(kept.content, **version)
        plain = session.exec(select(Revision).where(Revision.document_id == row.id)).one()
        plain.content = {name: plain.content[name] for name in ("name", "coats")}
        session.commit()
        assert history.pack(session, design, now() + timedelta(days=400)) > 10
        session.commit()
        session.expire_all()
        for number in (1, 2, 9, 230):
            assert documents.revision(session, design, number).content == contents[number - 1]
        assert documents.content(session, row)["layers"] == painted["layers"]
        session.commit()  # reading wrote nothing
        written = session.exec(select(Revision.content).where(Revision.id == plain.id)).one()
        assert set(written) == {"name", "coats"}

    def saved(self, session, design, many, **more):
        contents = [documents.content(session, design)]
        for step in range(many - 1):
            contents.append(
                {
                    **SLIM,
                    **more,
                    "name": f"Slim {step}",
                    "body": {**SLIM["body"], "length_mm": 60.0 + step / 7},
                }
            )
            documents.save(session, design, contents[-1], design.current)
        return contents

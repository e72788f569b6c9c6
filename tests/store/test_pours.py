"""Pours and cups in any order of events: each is done or refused, stock and counts are always right, and the
log holds the state of all of it.
"""

from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st
from sqlmodel import select

from lamsik.core.castings.pouring import CURE, DONE, FAILED, HAPPENINGS, MIXED, POURED, WEIGHING, can
from lamsik.core.errors import Refused
from lamsik.store import events, mixes, moulds, pours
from lamsik.store.tables import Batch, Piece, Pour, StockLot
from tests.store.test_moulds import batch, shop  # noqa: F401 (a fixture)

HELD = (WEIGHING, MIXED, POURED, FAILED)
"""Cups whose grams are out of their tubs."""
STEPS = [*HAPPENINGS, "begin", "weigh", "unweigh", "other product"]
WALK = ["begin", "begin weighing", "weigh", "mix", "pour", "demould", "take out", "count"]
ACTS = st.lists(st.tuples(st.sampled_from([*STEPS, "whole walk"]), st.integers(0, 3)), max_size=25)


class Bench:
    """A mould, its tubs, and what is done with them."""

    def __init__(self, session, found):
        _, self.mould, self.resin, self.tubs = found
        self.session, self.made = session, moulds.make(session, self.mould, "silicone", "", "")
        self.product = mixes.product_of(session, self.resin.id)
        self.first = {tub.id: tub.left for tub in self.tubs}

    def do(self, what, number):
        if what == "whole walk":
            for one in WALK:
                self.do(one, -1)
            return
        going = self.session.exec(select(Pour).order_by(Pour.id)).all()
        if what == "begin":
            pours.begin(self.session, self.made, self.resin.id, {}, 20.0)
            return
        pour = going[number if number < len(going) else -1] if going else None
        if pour is None:
            return
        stand = pours.stand_of(self.session, pour)
        cup = pours.batch_of(self.session, pour)
        try:
            self.happens(what, number, pour, cup)
        except Refused:
            assert what not in HAPPENINGS or what == "begin weighing" or not can(stand, what)
            assert pours.stand_of(self.session, pour) == stand
            return
        assert what not in HAPPENINGS or can(stand, what)

    def happens(self, what, number, pour, cup):
        session, tub = self.session, self.tubs[number % 2]
        castings = [pours.Counted(line["cavity"], True, ()) for line in pour.castings]
        others = [key for key in mixes.products(session) if key != pour.product_id]
        of_pours = {
            "begin weighing": lambda: batch(session, self.resin, pour_id=pour.id),
            "demould": lambda: pours.demould(session, pour),
            "take out": lambda: pours.take_out(session, pour),
            "give up": lambda: pours.give_up(session, pour),
            "count": lambda: pours.count(session, pour, castings),
            "fail": lambda: pours.fail(session, pour, "tacky"),
            "other product": lambda: pours.correct(session, pour, others[number % len(others)], {}, 18.0),
        }
        of_cups = {
            "weigh": lambda: mixes.weigh(session, cup, tub.part, 2.0 + number, tub, more=number % 2 == 1),
            "unweigh": lambda: mixes.take_back(session, cup, tub.part),
            "mix": lambda: pours.mix(session, cup, self.product),
            "unmix": lambda: pours.unmix(session, cup),
            "pour": lambda: pours.pour_out(session, cup, self.product),
            "put back": lambda: pours.put_back(session, cup),
            "spoil": lambda: pours.spoil(session, cup),
        }
        if what in of_cups and cup is None:
            raise Refused("batch", "", "no cup")
        (of_pours | of_cups)[what]()

    def check(self):
        session = self.session
        batches = session.exec(select(Batch)).all()
        for tub in session.exec(select(StockLot)).all():
            out = sum(
                line["grams"]
                for row in batches
                if row.state in HELD
                for line in row.weighed
                if line["tub"] == tub.id
            )
            assert abs(tub.left + out - self.first[tub.id]) < 1e-9
        rows = session.exec(select(Pour).order_by(Pour.poured_at, Pour.id)).all()
        poured = [row for row in rows if row.poured_at]
        assert sorted(row.shot for row in poured) == list(range(1, len(poured) + 1))
        assert sum(row.purge for row in poured) == min(len(poured), 1)
        pieces = session.exec(select(Piece)).all()
        named = [c["piece"] for row in rows for c in row.castings if c["piece"]]
        assert sorted(named) == sorted(piece.id for piece in pieces)
        assert all((row.finished_at is not None) == (row.step in ("done", "dropped")) for row in rows)
        for of, found in (("pour", rows), ("batch", batches)):
            for row in found:
                assert events.rebuilt(session, of, row.id) == {("", row.id): events.state_of(row)}
        running = {clock.batch_id for clock in mixes.running(session)}
        assert running <= {row.id for row in batches if row.state in (MIXED, POURED)}


@settings(max_examples=25, suppress_health_check=[HealthCheck.function_scoped_fixture])
@given(acts=ACTS)
def test_any_order_is_done_or_refused_and_stock_and_counts_are_right(session, shop, acts):  # noqa: F811
    nested = session.begin_nested()
    try:
        bench = Bench(session, shop)
        for what, number in acts:
            bench.do(what, number)
            bench.check()
    finally:
        nested.rollback()
        session.expire_all()


def test_a_pour_whose_cup_nobody_knows_any_more_goes_on_to_its_end(session, shop):  # noqa: F811
    _, mould, resin, _ = shop
    made = moulds.make(session, mould, "silicone", "", "")
    pour = pours.begin(session, made, resin.id, {}, 20.0)
    pour.step = CURE  # as one of an earlier release was brought up
    pours.demould(session, pour)
    pours.take_out(session, pour)
    born = pours.count(session, pour, [pours.Counted(line["cavity"], True, ()) for line in pour.castings])
    assert (pour.step, born) == (DONE, []) and all(line["good"] for line in pour.castings)  # a purge

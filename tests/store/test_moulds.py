"""Stock drawn as it is weighed, moulds made, shots counted, castings that become pieces: nothing lost,
nothing twice.
"""

import pytest
from sqlmodel import select

from lamsik.core.castings.gates import Curing
from lamsik.core.errors import Refused
from lamsik.core.learning import Learned
from lamsik.documents.moulds.document import first_layout, of_body
from lamsik.store import documents, ledger, mixes, moulds, pours, routes, weighed
from lamsik.store.tables import Batch, Clock, Document, Pour
from tests.documents.test_body import full


@pytest.fixture
def shop(session):
    mixes.starter(session)
    body = documents.create(session, "body", "B-001", full())
    block, master = of_body(body.name, body.id, 1, documents.content(session, body))
    mould = documents.create(
        session,
        "mould",
        "M-001",
        {
            **first_layout(block, master),
            "cavities": [
                {"key": k, "x_mm": 90.0, "y_mm": y, "turn_deg": 0.0} for k, y in (("c1", 40.0), ("c2", 90.0))
            ],
        },
    )
    resin = next(row for row, product in mixes.products(session).values() if product.kind == "resin")
    tubs = [mixes.tub_of(session, resin, part, f"L{part}") for part in "AB"]
    for tub, left in zip(tubs, (100.0, 80.0), strict=True):
        ledger.bring(session, tub, 500)
        ledger.count(session, tub, left)
    return body, mould, resin, tubs


def batch(session, resin, **more):
    row = Batch(product_id=resin.id, purpose="a shot", plan={"filled_ml": 30.0, "rows": []}, **more)
    pours.begin_weighing(session, row)
    return row


class TestStock:
    def test_what_is_weighed_is_kept_and_drawn_and_weighing_again_replaces_it(self, session, shop):
        _, _, resin, (a, _) = shop
        row = batch(session, resin)
        mixes.weigh(session, row, "A", 23.4, a)
        assert a.left == pytest.approx(76.6) and a.opened_on is not None and mixes.weighed_g(row, "A") == 23.4
        mixes.weigh(session, row, "A", 22.0, a)
        assert a.left == pytest.approx(78.0) and row.weighed == [
            {"part": "A", "grams": 22.0, "tub": a.id, "lot": "LA"}
        ]
        with pytest.raises(Refused, match="below nothing"):
            mixes.weigh(session, row, "A", 120.0, a)
        assert mixes.lots_of(row) == "A LA"

    def test_a_dropped_batch_goes_back_on_the_books(self, session, shop):
        _, _, resin, (a, b) = shop
        row = batch(session, resin)
        mixes.weigh(session, row, "A", 20.0, a)
        mixes.weigh(session, row, "B", 18.0, b)
        pours.put_back(session, row)
        assert row.state == "dropped" and (a.left, b.left) == (100.0, 80.0)

    def test_clocks_run_from_mixing_and_from_pouring_and_the_loss_is_learned(self, session, shop):
        _, _, resin, (a, b) = shop
        product = mixes.product_of(session, resin.id)
        row = batch(session, resin, at_c=10.0)
        mixes.weigh(session, row, "A", 18.0, a)
        mixes.weigh(session, row, "B", 16.7, b)
        pours.mix(session, row, product)
        clock = mixes.running(session)[-1]
        assert (clock.ends_at - clock.started_at).total_seconds() == pytest.approx(
            600, abs=2
        )  # 5 min at 20 °C are 10 at 10 °C
        with pytest.raises(Refused, match="mixed already"):
            pours.mix(session, row, product)
        with pytest.raises(Refused, match="mixed already"):
            mixes.weigh(session, row, "A", 1.0, a)
        pours.pour_out(session, row, product)
        assert clock.stopped_at is not None and [c.kind for c in mixes.running(session)] == [
            "demould",
            "full cure",
        ]
        loss = mixes.loss_of(session, resin.id)
        assert (loss.n, loss.spread, loss.source) == (1, None, "shop")
        assert loss.value == pytest.approx(0.05 * 2 / 3 + (34.7 / 1.06 / 30 - 1) / 3, rel=1e-6)

    def test_what_failed_half_weighed_teaches_no_loss(self, session, shop):
        _, _, resin, (a, _) = shop
        row = batch(session, resin)
        mixes.weigh(session, row, "A", 3.0, a)
        pours.spoil(session, row)
        assert mixes.loss_of(session, resin.id) == Learned(0.05)


def out_of_the_mould(session, pour, row):
    """A pour walked until its castings can be counted."""
    product = mixes.product_of(session, pour.product_id)
    pours.mix(session, row, product)
    pours.pour_out(session, row, product)
    pours.demould(session, pour)
    pours.take_out(session, pour)


class TestShots:
    def test_the_first_shot_is_a_purge_and_good_castings_of_the_second_become_pieces(self, session, shop):
        body, mould, resin, (a, _) = shop
        made = moulds.make(session, mould, "silicone", "SI-1", "")
        moulds.mark(session, made, "c2", "dead", "torn")
        assert moulds.alive(made) == ["c1"]
        purge = pours.begin(session, made, resin.id, {}, 20.0)
        out_of_the_mould(session, purge, batch(session, resin, pour_id=purge.id))
        assert purge.purge and pours.count(session, purge, [pours.Counted("c1", True, ())]) == []
        shot = pours.begin(session, made, resin.id, {}, 20.0)
        row = batch(session, resin, pour_id=shot.id)
        mixes.weigh(session, row, "A", 20.0, a)
        out_of_the_mould(session, shot, row)
        (piece,) = pours.count(session, shot, [pours.Counted("c1", True, ())])
        assert (
            piece.design_id == body.id
            and piece.pour_id == shot.id
            and piece.cavity == "c1"
            and "lot A LA" in piece.note
            and "shot 2" in piece.note
        )
        assert set(routes.touched(session, piece)) == {"carve"} and shot.castings[0]["piece"] == piece.id
        with pytest.raises(Refused, match="only once"):
            pours.count(session, shot, [pours.Counted("c1", True, ())])

    def test_a_dead_cavity_needs_a_reason_and_none_alive_no_shot(self, session, shop):
        _, mould, resin, _ = shop
        made = moulds.make(session, mould, "silicone", "", "")
        for state, reason, says in (("dead", "", "say why"), ("asleep", "x", "one of"), ("dead", "x", "")):
            if says:
                with pytest.raises(Refused, match=says):
                    moulds.mark(session, made, "c1", state, reason)
        for key in ("c1", "c2"):
            moulds.mark(session, made, key, "dead", "worn")
        with pytest.raises(Refused, match="none alive"):
            pours.begin(session, made, resin.id, {}, 20.0)
        assert (
            moulds.make(session, mould, "silicone", "", "").version == 2
            and moulds.master_use(session, mould.id, 2).last
        )

    def test_a_mould_remembers_the_body_revision_it_was_made_from(self, session, shop):
        body, mould, _, _ = shop
        block = documents.content(session, mould)["master"]
        documents.save(session, body, {**full(), "name": "Another"}, 1)
        assert moulds.body_content(session, block)["name"] == full()["name"]
        with pytest.raises(Refused, match="not in this shop"):
            moulds.body_content(session, {**block, "revision": 99})

    def test_an_abandoned_pour_is_no_shot_and_the_purge_is_the_first_one_poured(self, session, shop):
        _, mould, resin, (a, _) = shop
        made = moulds.make(session, mould, "silicone", "", "")
        given_up, other = (pours.begin(session, made, resin.id, {}, 20.0) for _ in range(2))
        row, before = batch(session, resin, pour_id=given_up.id), a.left
        mixes.weigh(session, row, "A", 20.0, a)
        pours.give_up(session, given_up)
        assert (
            a.left == before
            and row.state == "dropped"
            and list(pours.of_moulds(session, [made.id])) == [other]
            and list(pours.going(session)) == [other]
        )
        cup = batch(session, resin, pour_id=other.id)
        pours.mix(session, cup, mixes.product_of(session, resin.id))
        pours.pour_out(session, cup, mixes.product_of(session, resin.id))
        later = pours.begin(session, made, resin.id, {}, 20.0)
        assert (other.shot, other.purge, later.shot, later.purge) == (1, True, 2, False)
        with pytest.raises(Refused, match="poured already"):
            pours.give_up(session, other)

    def test_when_its_material_is_cured_is_known_from_the_batches_it_was_poured_from(self, session, shop):
        _, mould, resin, (a, _) = shop
        made = moulds.make(session, mould, "silicone", "", "")
        assert moulds.curing(session, made) == Curing()
        row = batch(session, resin, mould_id=mould.id)
        mixes.weigh(session, row, "A", 20.0, a)
        product = mixes.product_of(session, resin.id)
        pours.mix(session, row, product)
        assert {clock.kind for clock in mixes.running(session)} == {"pot life"} | (
            {"stir"} if product.stir_s else set()
        )
        pours.unmix(session, row)
        assert row.state == "weighing" and not mixes.running(session)
        pours.mix(session, row, product)
        pours.pour_out(session, row, product)
        demould, cure = mixes.running(session)
        assert moulds.curing(session, made) == Curing(demould.ends_at.astimezone(), cure.ends_at.astimezone())

    def test_what_may_not_be_sold_is_said_with_its_reason_through_every_door(self, session, shop):
        body, mould, _, _ = shop
        block = documents.content(session, mould)["master"]
        assert moulds.not_for_sale(session, block) == "" == moulds.not_for_sale(session, {"body_id": None})
        assert "not for sale" in moulds.not_for_sale(
            session, {**block, "source": {"kind": "not_for_sale", "note": ""}}
        )
        assert "bought" in moulds.not_for_sale(
            session, {"document": {"source": {"kind": "not_for_sale", "note": "bought"}}}
        )
        documents.save(session, body, {**full(), "source": {"kind": "not_for_sale", "note": "an old one"}}, 1)
        assert (
            moulds.not_for_sale(session, block)
            == "not for sale: an old one"
            == moulds.not_for_sale(session, {"body_id": body.id})
        )
        documents.save(session, body, full(), 2)
        assert moulds.not_for_sale(session, block) == ""
        thing = weighed.keep(
            session,
            weighed.Weighed(name="Bought", air_g=10.0, source={"kind": "not_for_sale", "note": "bought"}),
        )
        assert moulds.not_for_sale(session, {"weighed_id": thing.id}) == "not for sale: bought"


def test_starters_come_once_and_not_again_after_they_were_put_away(session):
    mixes.starter(session)
    rows = session.exec(select(Document).where(Document.kind == "product")).all()
    for row in rows:
        row.deleted_at = mixes.now()
        session.add(row)
    session.flush()
    mixes.starter(session)
    assert len(session.exec(select(Document).where(Document.kind == "product")).all()) == len(
        rows
    ) and not mixes.products(session)
    assert session.exec(select(Clock)).all() == [] == session.exec(select(Pour)).all()

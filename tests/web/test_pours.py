"""The walk of a pour: from the ticks to its pieces."""

import json
import re

import pytest
from sqlmodel import select

from lamsik.store import ledger
from lamsik.store.database import session_of
from lamsik.store.tables import Batch, Clock, MouldMade, Order, OrderLine, Piece, Pour, Revision, StockLot
from tests.demo_rows import GRANDFATHER_S_PIKE_LURE
from tests.web.pouring import (
    MUDLARK,
    PIKE,
    RESIN,
    SOFT,
    STUBBY,
    begun,
    live,
    poured,
    rows,
    state,
    ticked,
    weighed_in,
)


class TestPour:
    def test_from_the_checklist_to_pieces_with_their_lot_and_the_loss(self, demo):
        made = rows(demo, MouldMade, MouldMade.mould_id == STUBBY)[-1]
        demo.post(f"/moulds/made/{made.id}/cavity", {"cavity": "c4", "state": "dead", "reason": "torn"})
        pour = begun(demo, dense="2 ml", dense_density="1.6")
        assert [line["cavity"] for line in pour.castings] == ["c1", "c2", "c3"]
        held = demo.post(f"/pours/{pour.id}/next")
        assert held.status_code == 422 and "tick first" in held.text
        for on, stands in (
            ("1", True),
            ("1", True),
            ("0", False),
            ("0", False),
        ):  # two tablets that tick the same box both tick it
            demo.post(f"/pours/{pour.id}/tick", {"tick": "level", "on": on})
            assert ("level" in rows(demo, Pour, Pour.id == pour.id)[0].ticks) == stands
        ticked(demo, pour)
        demo.post(f"/pours/{pour.id}/next")
        row = rows(demo, Batch)[-1]
        before = {
            tub.part: tub.left
            for tub in rows(demo, StockLot, StockLot.product_id == RESIN)
            if tub.lot.startswith("22")
        }
        wanted = {line["part"]: line["grams"] for line in row.plan["rows"]}
        demo.post(f"/mixes/batch/{row.id}/weigh", {"part": "A", "grams": f"{wanted['A']} g"})
        over = demo.post(
            f"/mixes/batch/{row.id}/weigh",
            {"part": "B", "grams": f"{wanted['B'] + 4} g"},
            follow_redirects=True,
        )
        more = re.search(r"(\d+\.\d) g more A puts it right", over.text).group(1)
        early = demo.post(f"/mixes/batch/{row.id}/mixed")
        assert early.status_code == 422 and "put it right first" in early.text
        demo.post(f"/mixes/batch/{row.id}/weigh", {"part": "A", "grams": more, "more": "1"})
        assert "Pour now" in demo.post(f"/mixes/batch/{row.id}/mixed", follow_redirects=True).text
        assert "Let it be" in demo.post(f"/pours/{pour.id}/next", follow_redirects=True).text
        assert [
            clock.kind for clock in rows(demo, Clock, Clock.batch_id == row.id, Clock.stopped_at.is_(None))
        ] == ["demould", "full cure"]
        soft = demo.post(f"/pours/{pour.id}/next")
        assert (
            soft.status_code == 422
            and re.search(r"Demould: not before \d\d:\d\d", soft.text)
            and "take it out before that" in soft.text
        )
        assert rows(demo, Pour, Pour.id == pour.id)[0].step == "cure"
        demo.post(f"/pours/{pour.id}/next", {"early": "1"})
        demo.post(f"/pours/{pour.id}/next")
        lacking = demo.post(f"/pours/{pour.id}/count", {"good-c1": "yes", "good-c2": "no", "good-c3": "yes"})
        assert lacking.status_code == 422 and "at least one fault" in lacking.text
        count = {
            "good-c1": "yes",
            "good-c2": "no",
            "faults-c2": "face",
            "good-c3": "yes",
            "firmness-c1": "firm",
        }
        told = demo.post(f"/pours/{pour.id}/count", count, follow_redirects=True).text
        pieces = rows(demo, Piece, Piece.pour_id == pour.id)
        assert (
            len(pieces) == 2
            and all(piece.number in told for piece in pieces)
            and "lot A 2231, B 2232" in pieces[0].note
        )
        born = demo.get(f"/pieces/{pieces[0].id}").text
        assert (
            "Cast:" in born
            and "Cast in Casting resin, trim the seam" not in born
            and "Cast the body" in born
            and "coat:seal" not in born
        )
        material = rows(demo, Revision, Revision.id == pieces[0].revision_id)[0].content["material"]
        assert material["name"] == "Casting resin" and any(abs(way) > 0.2 for way in material["uneven_mm"])
        after = {
            tub.part: tub.left
            for tub in rows(demo, StockLot, StockLot.product_id == RESIN)
            if tub.lot.startswith("22")
        }
        assert before["A"] - after["A"] == pytest.approx(wanted["A"] + float(more)) and before["B"] - after[
            "B"
        ] == pytest.approx(wanted["B"] + 4)
        assert (
            "learned from 6 batches" in demo.get(f"/moulds/{STUBBY}/cast").text
        )  # one put right after an over-pour is no lesson
        assert "2 of 3" in demo.get(f"/moulds/{STUBBY}/card").text

    def test_what_was_poured_is_neither_dropped_nor_failed_from_the_weighing_page(self, demo):
        poured = rows(demo, Batch, Batch.state == "poured", Batch.pour_id.is_not(None))[-1]
        for way in ("dropped", "failed"):
            answer = demo.post(f"/mixes/batch/{poured.id}/{way}")
            assert answer.status_code == 422 and "stays on the books" in answer.text
        assert (
            rows(demo, Batch, Batch.id == poured.id)[0].state == "poured"
            and rows(demo, Pour, Pour.id == poured.pour_id)[0].step == "done"
        )

    def test_too_little_in_the_tub_is_said_before_anything_is_mixed(self, demo):
        with session_of(demo.http.application.extensions["engine"]) as session:
            for tub in session.exec(select(StockLot).where(StockLot.product_id == RESIN)).all():
                ledger.count(session, tub, 3.0)
        pour = begun(demo)
        ticked(demo, pour)
        answer = demo.post(f"/pours/{pour.id}/next")
        assert (
            answer.status_code == 422
            and "too little" in answer.text
            and rows(demo, Pour)[-1].step == "prepare"
        )
        assert "should be mixed yet" in demo.get("/mixes?net=42+ml").text

    def test_a_pour_follows_the_mould_that_was_made_and_not_what_is_drawn_since(self, demo):
        pour = begun(demo)
        before = re.search(r"To fill</dt> ?<dd>([\d.]+ ml)", demo.get(f"/pours/{pour.id}").text).group(1)
        assert live(demo, STUBBY, {"do": "set", "path": "shrink_percent", "text": "9 %"}).get_json()["saved"]
        assert before in demo.get(f"/pours/{pour.id}").text
        demo.post(f"/moulds/{STUBBY}/delete")
        assert before in demo.get(f"/pours/{pour.id}").text

    def test_a_batch_dropped_while_it_is_weighed_lets_the_pour_begin_again(self, demo):
        pour = begun(demo)
        ticked(demo, pour)
        demo.post(f"/pours/{pour.id}/next")
        assert (
            "Go on: weigh"
            in demo.post(f"/mixes/batch/{rows(demo, Batch)[-1].id}/dropped", follow_redirects=True).text
        )
        assert (
            "Put the empty cup on" in demo.post(f"/pours/{pour.id}/next", follow_redirects=True).text
            and rows(demo, Batch)[-1].pour_id == pour.id
        )

    def test_a_failed_batch_tags_its_shot_and_makes_no_piece(self, demo):
        pour = poured(demo)
        demo.post(f"/pours/{pour.id}/failed", {"fault": "tacky"})
        found = rows(demo, Pour)[-1]
        assert (
            found.failed
            and all(line["faults"] == ["tacky"] and not line["good"] for line in found.castings)
            and not rows(demo, Piece, Piece.pour_id == pour.id)
        )
        assert demo.post(f"/pours/{pour.id}/failed", {"fault": "tacky"}).status_code == 422

    def test_what_is_not_poured_is_dropped_and_is_no_shot(self, demo):
        pour = begun(demo)
        ticked(demo, pour)
        demo.post(f"/pours/{pour.id}/next")
        early = demo.post(f"/pours/{pour.id}/failed", {"fault": "tacky"})
        assert early.status_code == 422 and "before that drop it" in early.text
        assert "counts as no shot" in demo.post(f"/pours/{pour.id}/drop", follow_redirects=True).text
        assert (
            rows(demo, Batch)[-1].state == "dropped"
            and "is no shot of the mould" in demo.get(f"/pours/{pour.id}").text
        )
        assert (
            f"/pours/{pour.id}" not in demo.get(f"/moulds/{STUBBY}/card").text
            and begun(demo).shot == pour.shot
        )
        assert demo.post(f"/pours/{poured(demo).id}/drop").status_code == 422

    def test_a_pour_is_put_right_until_it_is_poured_and_its_batch_follows(self, demo):
        pour = begun(demo)
        ticked(demo, pour)
        demo.post(f"/pours/{pour.id}/next")
        before = rows(demo, Batch)[-1].plan["total_g"]
        page = demo.get(f"/moulds/{STUBBY}/cast?pour={pour.id}").text
        assert "Put shot" in page and "Begin a pour" not in page
        demo.post(
            f"/pours/{pour.id}/correct",
            {"product": str(RESIN), "density": "0.8 g/cm³", "filler": "hollow microspheres", "at": "15 °C"},
        )
        batch, now = rows(demo, Batch)[-1], rows(demo, Pour)[-1]
        assert (
            batch.plan["total_g"] < before
            and batch.plan["extras"][0]["part"] == "hollow microspheres"
            and (batch.at_c, now.at_c) == (15.0, 15.0)
        )
        refused = demo.post(
            f"/pours/{pour.id}/correct", {"product": str(RESIN), "at": "172 °C"}, follow_redirects=True
        ).text
        assert (
            "stays as it was" in refused
            and "the melt has a field of its own" in refused
            and rows(demo, Pour)[-1].at_c == 15.0
        )
        demo.post(f"/pours/{pour.id}/correct", {"product": str(SOFT), "melt": "160 °C"})
        assert (
            rows(demo, Batch)[-1].state == "dropped"
            and rows(demo, Pour)[-1].step == "prepare"
            and rows(demo, Pour)[-1].product_id == SOFT
        )

    def test_mixed_by_mistake_goes_back_to_the_scale(self, demo):
        pour = begun(demo)
        row = weighed_in(demo, pour)
        demo.post(f"/mixes/batch/{row.id}/mixed")
        other = {"product": str(SOFT), "melt": "160 °C"}
        kept = demo.post(f"/pours/{pour.id}/correct", other, follow_redirects=True)
        assert "the batch is mixed: pour it, or drop this pour" in kept.text
        assert {
            clock.kind for clock in rows(demo, Clock, Clock.batch_id == row.id, Clock.stopped_at.is_(None))
        } == {"pot life", "stir"}
        demo.post(f"/mixes/batch/{row.id}/unmixed")
        assert (
            rows(demo, Batch)[-1].state == "weighing"
            and rows(demo, Pour)[-1].step == "weigh"
            and not rows(demo, Clock, Clock.batch_id == row.id, Clock.stopped_at.is_(None))
        )

    def test_what_is_not_for_sale_goes_on_no_order(self, demo):
        order = next(row for row in rows(demo, Order) if row.accepted_at is None)
        told = demo.post(
            f"/orders/{order.id}/line/{order.id}/design",
            {"design": str(GRANDFATHER_S_PIKE_LURE)},
            follow_redirects=True,
        ).text
        assert (
            "traced from an old one" in told
            and rows(demo, OrderLine, OrderLine.id == order.id)[0].design_id is None
        )
        demo.post(f"/moulds/{PIKE}/made", {"material": "silicone"})
        refused = demo.post(
            f"/pours/begin/{PIKE}", {"product": str(RESIN), "order": str(order.id)}, follow_redirects=True
        )
        assert (
            "No pour is begun" in refused.text
            and "traced from an old one" in refused.text
            and not rows(demo, Pour, Pour.order_id == order.id)
        )

    def test_a_body_flagged_after_its_mould_was_made_is_flagged_where_it_is_cast(self, demo):
        before = demo.get(f"/moulds/{MUDLARK}/cast").text
        assert "on no order" not in before and "Whether a copied shape" not in before
        body = state(demo, MUDLARK)["document"]["master"]["body_id"]
        held = json.loads(re.search(r'id="state">(.*?)</script>', demo.get(f"/shapes/{body}").text, re.S)[1])
        bought = {"do": "set", "path": "source.kind", "text": "not_for_sale"}
        sent = {"bench": "shapes", "document": held["document"], "base": held["base"], "edits": [bought]}
        assert demo.send(f"/designs/{body}/live", sent | {"save": True}).get_json()["saved"]
        for page in ("cast", "card"):
            assert "Whether a copied shape" in demo.get(f"/moulds/{MUDLARK}/{page}").text
        assert "on no order" in demo.get(f"/moulds/{MUDLARK}/cast").text
        seen = state(demo, MUDLARK)["view"]
        assert seen["not_for_sale"] and seen["source"] == "not for sale"

"""Moulds, casting, pours and mixes over the web: what is shown, kept, refused beside its field; stock,
lots and pieces where they belong.
"""

import io
import json
import re
import time
from datetime import timedelta

import pytest
from sqlmodel import select

from lamsik.formats import stl
from lamsik.store.database import session_of
from lamsik.store.tables import Batch, Clock, MouldMade, Order, Piece, Pour, Revision, ShopTub, now
from tests.lean import Known

STUBBY, MUDLARK, TADPOLE, PIKE, RESIN, FOAM, SILICONE, SOFT = 53, 54, 55, 58, 47, 48, 49, 51


def rows(visitor, table, *where):
    with session_of(visitor.http.application.extensions["engine"]) as session:
        return list(session.exec(select(table).where(*where).order_by(table.id)).all())


def state(visitor, key):
    page = visitor.get(f"/moulds/{key}").text
    found = json.loads(re.search(r'id="state">(.*?)</script>', page, re.S).group(1))
    return found | {"view": Known().read(found["view"])}


def live(visitor, key, *edits, **more):
    held = state(visitor, key)
    return visitor.send(
        f"/moulds/{key}/live",
        {
            "document": held["document"],
            "base": held["base"],
            "edits": list(edits),
            "mode": "settled",
            "save": True,
            **more,
        },
    )


class TestLayout:
    def test_a_mould_of_a_body_of_a_weighed_thing_and_of_measures(self, demo):
        made = demo.post("/moulds/new/body", {"body": "17"}, follow_redirects=True)
        assert "Mudlark mould" in made.text and made.status_code == 200
        weighed = demo.post(
            "/moulds/new/weighed",
            {"thing": "3", "length": "118 mm", "width": "20 mm", "depth": "36 mm"},
            follow_redirects=True,
        )
        assert "stand-in of the same size" in weighed.text
        box = demo.post(
            "/moulds/new/box",
            {"name": "Plug", "length": "80 mm", "width": "20 mm", "depth": "30 mm", "volume": "28 ml"},
            follow_redirects=True,
        )
        assert "28.00 ml" in box.text

    @pytest.mark.parametrize(
        ("way", "form", "says"),
        [
            (
                "box",
                {"length": "80", "width": "20 mm", "depth": "30 mm", "volume": "280 ml"},
                "one of the figures is wrong",
            ),
            ("box", {"length": "wide", "width": "1", "depth": "1"}, "type a length"),
            (
                "weighed",
                {"thing": "3", "length": "40 mm", "width": "20 mm", "depth": "36 mm"},
                "one of the figures is wrong",
            ),
        ],
    )
    def test_what_cannot_be_a_master_is_said_in_its_place(self, demo, way, form, says):
        answer = demo.post(f"/moulds/new/{way}", form)
        assert answer.status_code == 422 and says in answer.text and form["length"] in answer.text

    def test_edits_save_undo_and_refuse_beside_their_field(self, demo):
        answer = live(demo, STUBBY, {"do": "set", "path": "edge_mm", "text": "15 mm"}).get_json()
        assert (
            answer["saved"] and answer["view"]["fields"]["edge_mm"] == "15.0 mm" and answer["view"]["tight"]
        )
        bad = live(demo, STUBBY, {"do": "set", "path": "length_mm", "text": "20 mm"}).get_json()
        assert (
            bad["errors"][0]["field"] == "length_mm"
            and "smaller than what lies in it" in bad["errors"][0]["message"]
        )
        hot = live(demo, STUBBY, {"do": "set", "path": "casting_c", "text": "172"}).get_json()
        assert "unit is missing" in hot["errors"][0]["message"]
        back = demo.send(f"/moulds/{STUBBY}/undo", {}).get_json()
        assert back["view"]["fields"]["edge_mm"] == "12.0 mm" and back["moved"]

    @pytest.mark.parametrize(
        "spoil",
        [{"cavities": True}, {"vents": {}}, {"keys": 3}, {"master": []}, {"edge_mm": "x"}, {"texts": [{}]}],
    )
    def test_a_document_that_is_none_is_refused_and_nothing_is_kept(self, demo, spoil):
        now = state(demo, STUBBY)
        body = {
            "document": {**now["document"], **spoil},
            "base": now["base"],
            "edits": [{"do": "arrange"}],
            "mode": "settled",
            "save": True,
        }
        answer = demo.send(f"/moulds/{STUBBY}/live", body)
        assert (
            answer.status_code == 422
            and answer.get_json()["error"]["message"]
            and state(demo, STUBBY)["base"] == now["base"]
        )

    def test_what_the_box_takes_and_costs_and_what_is_short(self, demo):
        view = state(demo, STUBBY)["view"]
        assert (
            len(view["halves"]) == 2
            and view["halves"][0]["g"].endswith(" g")
            and "EUR too much" in view["saved"]
            and "pins" in view["lift"]
        )
        link = view["halves"][0]["mix"]
        assert "product=49" in link and "first+half+of" in link and "courses" in view["walls"]
        assert 'value="first half of Stubby, four at once"' in demo.get(link).text
        demo.post(
            "/mixes/weigh", {"product": "49", "net": "100 ml", "mould": str(STUBBY), "purpose": "first half"}
        )
        row = rows(demo, Batch)[-1]
        demo.post(f"/mixes/batch/{row.id}/read")
        demo.post(f"/mixes/batch/{row.id}/weigh", {"part": "base", "grams": "110 g"})
        assert row.mould_id == STUBBY and 'value="base SI-77"' in demo.get(f"/moulds/{STUBBY}/card").text
        assert (
            "close to the 180 °C"
            in live(demo, STUBBY, {"do": "set", "path": "casting_c", "text": "172 °C"}).get_json()["view"][
                "heat"
            ]
        )

    def test_a_mould_goes_out_and_comes_back_as_a_file(self, demo):
        data = demo.get(f"/moulds/{STUBBY}/mould.json").data
        token = re.search(r'csrf-token" content="([^"]+)', demo.get("/").text).group(1)
        answer = demo.http.post(
            "/moulds/bring-in",
            data={"csrf_token": token, "file": (io.BytesIO(data), "m.json")},
            follow_redirects=True,
        )
        assert answer.status_code == 200 and "Stubby, four at once" in answer.text
        bad = demo.http.post(
            "/moulds/bring-in", data={"csrf_token": token, "file": (io.BytesIO(b"{}"), "m.json")}
        )
        assert bad.status_code == 422 and "lamsik-mould" in bad.text

    def test_halves_are_worked_out_beside_the_request_and_taken_as_stl(self, demo):
        job = demo.send(f"/moulds/{STUBBY}/halves", {}).get_json()["job"]
        for _ in range(200):
            answer = demo.get(f"/moulds/{STUBBY}/halves/{job}").get_json()
            if answer["done"]:
                break
            time.sleep(0.05)
        assert (
            answer["problem"] == ""
            and [part["name"] for part in answer["parts"]] == ["upper half", "lower half"]
            and "off by 0.0" in answer["sum"]
        )
        found = stl.read(demo.get(answer["parts"][0]["url"]).data)
        assert found.mesh.faces.shape[0] > 1000 and found.notes == ()
        broken = live(demo, STUBBY, {"do": "point", "line": "c1", "x_mm": 47.0, "value_mm": 60.0})
        assert broken.status_code == 200
        job = demo.send(f"/moulds/{STUBBY}/halves", {}).get_json()["job"]
        for _ in range(200):
            answer = demo.get(f"/moulds/{STUBBY}/halves/{job}").get_json()
            if answer["done"]:
                break
            time.sleep(0.05)
        assert "run into each other" in answer["problem"]

    def test_it_is_copied_deleted_and_brought_back(self, demo):
        assert "copy" in demo.post(f"/moulds/{STUBBY}/copy", follow_redirects=True).text
        demo.post(f"/moulds/{STUBBY}/delete")
        assert demo.get(f"/moulds/{STUBBY}").status_code == 404
        demo.post(f"/moulds/{STUBBY}/bring_back")
        assert demo.get(f"/moulds/{STUBBY}").status_code == 200


class TestCard:
    def test_a_cavity_is_dead_with_its_reason_or_not_at_all(self, demo):
        made = rows(demo, MouldMade, MouldMade.mould_id == STUBBY)[-1]
        bad = demo.post(f"/moulds/made/{made.id}/cavity", {"cavity": "c4", "state": "dead", "reason": ""})
        assert bad.status_code == 422 and "say why" in bad.text
        assert (
            "3 of 4 cavities cast"
            in demo.post(
                f"/moulds/made/{made.id}/cavity",
                {"cavity": "c4", "state": "dead", "reason": "torn"},
                follow_redirects=True,
            ).text
        )
        assert "to fill, 3 alive" in demo.get(f"/moulds/{STUBBY}/cast").text

    def test_a_masters_last_demoulding_asks_for_a_copy_first(self, demo):
        assert "durable copy" in demo.get("/moulds/57/card").text
        assert demo.post("/moulds/57/made", {"material": "silicone"}).status_code == 422
        assert (
            "Version 1 is made"
            in demo.post(
                "/moulds/57/made", {"material": "silicone", "copy_first": "1"}, follow_redirects=True
            ).text
        )

    def test_what_may_touch_what_is_asked(self, demo):
        assert (
            "may stay sticky"
            in demo.get(f"/moulds/{STUBBY}/card?poured=addition+silicone&against=sulphur+clay").text
        )
        assert demo.get(f"/moulds/{STUBBY}/card?poured=cheese&against=wood").status_code == 422

    def test_a_worn_out_version_is_not_cast_in(self, demo):
        for made in rows(demo, MouldMade, MouldMade.mould_id == STUBBY):
            demo.post(f"/moulds/made/{made.id}/retire")
        assert (
            "is made" in demo.get(f"/moulds/{STUBBY}/cast").text
            and "Begin a pour" not in demo.get(f"/moulds/{STUBBY}/cast").text
        )


class TestCasting:
    @pytest.mark.parametrize(
        ("url", "says"),
        [
            (f"/moulds/{STUBBY}/cast?density=0.9", "by mass; "),
            (f"/moulds/{STUBBY}/cast?match=1", "Like the carved original"),
            (f"/moulds/{STUBBY}/cast?dense=4+ml&dense_density=1.6&waited=20+min", "within its bond window"),
            (f"/moulds/{MUDLARK}/cast?density=0.25&spread=10+%25", "close it"),
            (f"/moulds/{MUDLARK}/cast?ratio=5", "cavity"),
            (f"/moulds/{MUDLARK}/cast?test_g=20&test_ml=100+ml", "it rises just to the rim"),
            (f"/moulds/{TADPOLE}/cast?colours=pearl,+black&way=hot+on+hot", "sinks to the nose"),
            (f"/moulds/{TADPOLE}/cast?gap=6+mm&thick=14+mm", "mm under"),
            (f"/moulds/{STUBBY}/cast?no_inserts=1", "20.82 ml each"),
            (f"/moulds/{MUDLARK}/cast?shank_from=8+mm&shank_to=40+mm", "over hook shank"),
        ],
    )
    def test_each_kind_of_material_has_its_amounts(self, demo, url, says):
        answer = demo.get(url)
        assert answer.status_code == 200 and says in answer.text

    @pytest.mark.parametrize(
        ("url", "says"),
        [
            (f"/moulds/{STUBBY}/cast?density=1.5", "between the filler"),
            (f"/moulds/{STUBBY}/cast?dense=400+ml&dense_density=1.6", "the cavity holds"),
            (f"/moulds/{STUBBY}/cast?dense=4+ml", "how dense"),
            (f"/moulds/{MUDLARK}/cast?density=0.1", "lighter than its free rise"),
            (f"/moulds/{MUDLARK}/cast?ratio=0.2", "allowed is"),
            (f"/moulds/{TADPOLE}/cast?jug=20+g", "heat more"),
            (f"/moulds/{STUBBY}/by-when?wanted=2.5&by=2031-01-01", "whole number"),
            (f"/moulds/{STUBBY}/by-when?wanted=5&by=soon", "a day such as"),
            (f"/moulds/{MUDLARK}/cast?at=20", "unit is missing"),
            (f"/moulds/{MUDLARK}/cast?shank_from=8+mm", "from where to where"),
            (f"/moulds/{MUDLARK}/cast?dense_density=1.6", "how many ml are poured first"),
            (f"/moulds/{MUDLARK}/cast?shank_from=8+mm&shank_to=4+mm", "behind where it begins"),
        ],
    )
    def test_what_cannot_be_is_said_beside_its_field_and_kept(self, demo, url, says):
        answer = demo.get(url)
        assert answer.status_code == 422 and says in answer.text and 'role="alert"' in answer.text


def begun(visitor, mould=STUBBY, **form):
    visitor.post(f"/pours/begin/{mould}", {"product": str(RESIN), **form})
    return rows(visitor, Pour)[-1]


def ticked(visitor, pour):
    page = visitor.get(f"/pours/{pour.id}").text
    for name in re.findall(r'name="tick" value="([^"]+)" aria-pressed="false"', page):
        visitor.post(f"/pours/{pour.id}/tick", {"tick": name})


def mixed_g(row, part):
    return sum(line["grams"] for line in row.weighed if line["part"] == part)


def weighed_in(visitor, pour):
    """Tick all, and weigh every part just to its mark."""
    ticked(visitor, pour)
    visitor.post(f"/pours/{pour.id}/next")
    row = rows(visitor, Batch)[-1]
    for line in [*row.plan["rows"], *row.plan["extras"]]:
        visitor.post(f"/mixes/batch/{row.id}/weigh", {"part": line["part"], "grams": f"{line['grams']} g"})
    return row


def poured(visitor):
    pour = begun(visitor)
    visitor.post(f"/mixes/batch/{weighed_in(visitor, pour).id}/mixed")
    visitor.post(f"/pours/{pour.id}/next")
    return rows(visitor, Pour, Pour.id == pour.id)[0]


def test_a_dense_rear_under_foam_is_poured_and_leaves_less_for_the_foam(demo):
    alone = float(
        re.search(r"([\d.]+) g of foam in each cavity", demo.get(f"/moulds/{MUDLARK}/cast").text)[1]
    )
    page = demo.get(f"/moulds/{MUDLARK}/cast?dense=1.0+ml&dense_density=1.6&prop=20&waited=10+min").text
    dense, foam = map(float, re.search(r"([\d.]+) g dense first, then ([\d.]+) g of foam", page).groups())
    assert dense == pytest.approx(1.6) and foam == pytest.approx(alone - 0.16, abs=0.06)
    assert "within its bond window" in page
    late = demo.get(f"/moulds/{MUDLARK}/cast?dense=1.0+ml&dense_density=1.6&waited=90+min").text
    assert re.search(r'class="warned">\s*60 min too late to bond by itself', late)


class TestHeat:
    def test_melt_mould_and_room_are_three_temperatures_and_a_melt_is_no_room(self, demo):
        assert "is close to the" in demo.get(f"/moulds/{TADPOLE}/cast?melt=210+%C2%B0C").text
        page = demo.get(f"/moulds/{TADPOLE}/cast?at=172+%C2%B0C")
        assert (
            page.status_code == 422
            and "the melt has a field of its own" in page.text
            and 'name="melt"' in page.text
        )
        pour = begun(demo, TADPOLE, product=str(SOFT), melt="172 °C", mould_at="40 °C", at="18 °C")
        assert pour.plan["melt"] == "172 °C" and pour.at_c == 18.0
        weighed_in(demo, pour)
        assert "40 °C" in demo.get(f"/pours/{pour.id}").text

    @pytest.mark.parametrize(
        ("form", "says"),
        [
            ({"mould_at": "190 °C", "melt": "172 °C"}, "never sets it"),
            ({"melt": "172"}, "unit is missing"),
            ({"at": "172 °C"}, "field of its own"),
        ],
    )
    def test_temperatures_that_cannot_be_are_refused_before_a_pour_begins(self, demo, form, says):
        told = demo.post(
            f"/pours/begin/{TADPOLE}", {"product": str(SOFT), **form}, follow_redirects=True
        ).text
        assert "No pour is begun" in told and says in told

    def test_a_melt_over_the_moulds_limit_stops_the_pour_until_it_is_answered_in_the_same_words(self, demo):
        words = "218 °C (424 °F) is 3 °C over what Mould silicone, addition may take"
        assert words in demo.get(f"/moulds/{TADPOLE}/cast?melt=218+%C2%B0C").text
        assert (
            words
            in live(demo, TADPOLE, {"do": "set", "path": "casting_c", "text": "218 °C"}).get_json()["view"][
                "heat"
            ]
        )
        stopped = demo.post(
            f"/pours/begin/{TADPOLE}", {"product": str(SOFT), "melt": "218 °C"}, follow_redirects=True
        ).text
        assert words in stopped and "No pour is begun" in stopped
        pour = begun(demo, TADPOLE, product=str(SOFT), melt="218 °C", heat_yes="1")
        assert pour.product_id == SOFT and words in demo.get(f"/pours/{pour.id}").text
        demo.post("/stores/heat", {"margin_c": "1 °C"})
        assert "is close to the" in demo.get(f"/pours/{pour.id}").text

    def test_a_limit_nobody_gave_is_asked_for_and_kept(self, demo):
        demo.post(f"/moulds/{TADPOLE}/made", {"material": "own blend"})
        stopped = demo.post(f"/pours/begin/{TADPOLE}", {"product": str(SOFT)}, follow_redirects=True).text
        assert "nobody has said what heat own blend stands" in stopped and 'name="limit"' in stopped
        pour = begun(demo, TADPOLE, product=str(SOFT), limit="200 °C")
        assert (
            "Own blend stands 200 °C" in demo.get(f"/pours/{pour.id}").text
            and "own blend" in demo.get("/stores").text
        )

    def test_a_mould_is_not_cast_in_before_it_is_set_nor_hot_before_it_is_cured(self, demo):
        mould = rows(demo, MouldMade, MouldMade.mould_id == TADPOLE)[-1]
        with session_of(demo.http.application.extensions["engine"]) as session:
            batch = Batch(
                product_id=SILICONE,
                purpose="its silicone",
                mould_id=TADPOLE,
                state="poured",
                plan={"rows": []},
            )
            session.add(batch)
            session.flush()
            for kind, hours in (("demould", 2), ("full cure", 20)):
                session.add(
                    Clock(name=kind, kind=kind, batch_id=batch.id, ends_at=now() + timedelta(hours=hours))
                )
            number = batch.id
        assert (
            mould.retired_at is None and "is not set: not before" in demo.get(f"/moulds/{TADPOLE}/cast").text
        )
        assert (
            "is not set: not before"
            in demo.post(f"/pours/begin/{TADPOLE}", {"product": str(RESIN)}, follow_redirects=True).text
        )
        with session_of(demo.http.application.extensions["engine"]) as session:
            clock = session.exec(select(Clock).where(Clock.batch_id == number, Clock.kind == "demould")).one()
            clock.ends_at = now() - timedelta(hours=1)
            session.add(clock)
        assert (
            "full cure: not before"
            in demo.post(f"/pours/begin/{TADPOLE}", {"product": str(SOFT)}, follow_redirects=True).text
        )
        assert (
            "cold casting may be tried"
            in demo.post(f"/pours/begin/{TADPOLE}", {"product": str(RESIN)}, follow_redirects=True).text
        )
        assert begun(demo, TADPOLE, product=str(RESIN), early_yes="1").product_id == RESIN


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
            tub.part: tub.left_g
            for tub in rows(demo, ShopTub, ShopTub.product_id == RESIN)
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
            tub.part: tub.left_g
            for tub in rows(demo, ShopTub, ShopTub.product_id == RESIN)
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
            for tub in session.exec(select(ShopTub).where(ShopTub.product_id == RESIN)).all():
                tub.left_g = 3.0
                session.add(tub)
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
        assert early.status_code == 422 and "nothing is poured yet" in early.text
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
        told = demo.post(f"/orders/{order.id}/design", {"design": "32"}, follow_redirects=True).text
        assert (
            "traced from an old one" in told and rows(demo, Order, Order.id == order.id)[0].design_id is None
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


class TestMixes:
    def test_a_foam_is_planned_by_its_own_density_or_its_expansion(self, demo):
        assert "of foam at 0.16 g/cm³" in demo.get(
            f"/mixes?product={FOAM}&net=30+ml&loss=0+%25"
        ).text and "4.8 g" in demo.get(f"/mixes?product={FOAM}&net=30+ml&loss=0+%25").text.replace(
            "2.3 g", ""
        ).replace("2.5 g", "4.8 g")
        page = demo.get(f"/mixes?product={FOAM}&net=100+ml&loss=0+%25&ratio=4")
        assert "of foam at 0.286 g/cm³" in page.text
        both = demo.get(f"/mixes?product={FOAM}&net=30+ml&ratio=4&density=0.3")
        assert both.status_code == 422 and "not both" in both.text
        assert (
            "leave the filler out"
            in demo.get(f"/mixes?product={FOAM}&net=30+ml&filler=brass+powder&density=0.3").text
        )
        assert (
            "only a foam expands" in demo.get(f"/mixes?product={RESIN}&net=30+ml&ratio=4").text
            and "with which filler" in demo.get(f"/mixes?product={RESIN}&net=30+ml&density=0.8").text
        )

    def test_cautions_are_read_for_every_batch_of_isocyanate_and_once_a_day_for_the_rest(self, demo):
        for product, again in ((RESIN, True), (SILICONE, False)):
            for turn in (1, 2):
                demo.post("/mixes/weigh", {"product": str(product), "net": "30 ml"})
                row = rows(demo, Batch)[-1]
                part = row.plan["rows"][0]
                asked = turn == 1 or again
                page = demo.get(f"/mixes/batch/{row.id}").text
                assert ("I have read this" in page) == asked
                first = demo.post(
                    f"/mixes/batch/{row.id}/weigh", {"part": part["part"], "grams": f"{part['grams']} g"}
                )
                assert first.status_code == (422 if asked else 302)
                demo.post(f"/mixes/batch/{row.id}/read")
                assert (
                    demo.post(
                        f"/mixes/batch/{row.id}/weigh", {"part": part["part"], "grams": f"{part['grams']} g"}
                    ).status_code
                    == 302
                )

    def test_a_part_is_taken_back_and_an_over_pour_moves_every_mark(self, demo):
        demo.post("/mixes/weigh", {"product": str(RESIN), "net": "60 ml"})
        row = rows(demo, Batch)[-1]
        demo.post(f"/mixes/batch/{row.id}/read")
        a, b = row.plan["rows"]
        page = demo.post(
            f"/mixes/batch/{row.id}/weigh",
            {"part": "A", "grams": f"{1.25 * a['grams']:.1f} g"},
            follow_redirects=True,
        ).text
        target = float(re.findall(r'data-target="([\d.]+)"', page)[1])
        assert target == pytest.approx(1.25 * b["grams"], abs=0.2) and f"planned {b['grams']:.1f} g" in page
        assert re.search(r"2[45]\.\d % over plan", page) and "Now to mix" in page
        tub = next(tub for tub in rows(demo, ShopTub) if tub.lot == "2231")
        demo.post(f"/mixes/batch/{row.id}/take-back", {"part": "A"})
        assert (
            next(t.left_g for t in rows(demo, ShopTub) if t.id == tub.id)
            == pytest.approx(tub.left_g + round(1.25 * a["grams"], 1))
            and not rows(demo, Batch)[-1].weighed
        )
        assert "it was not weighed" in demo.post(f"/mixes/batch/{row.id}/take-back", {"part": "A"}).text

    def test_over_plan_in_the_right_ratio_is_said_and_teaches_nothing(self, demo):
        demo.post("/mixes/weigh", {"product": str(RESIN), "net": "60 ml"})
        row = rows(demo, Batch)[-1]
        demo.post(f"/mixes/batch/{row.id}/read")
        for line in row.plan["rows"]:
            page = demo.post(
                f"/mixes/batch/{row.id}/weigh",
                {"part": line["part"], "grams": f"{1.25 * line['grams']:.2f} g"},
                follow_redirects=True,
            ).text
        assert "25.0 % over plan" in page and "Mix it, pour what the job takes" in page
        demo.post(f"/mixes/batch/{row.id}/mixed")
        taught = re.search(r"learned from (\d+)", demo.get(f"/mixes?product={RESIN}").text)[1]
        bad = demo.post(f"/mixes/batch/{row.id}/poured", {"left": "900 g"})
        assert bad.status_code == 422 and "that were weighed" in bad.text
        assert (
            "says nothing about the loss"
            in demo.post(f"/mixes/batch/{row.id}/poured", follow_redirects=True).text
        )
        assert re.search(r"learned from (\d+)", demo.get(f"/mixes?product={RESIN}").text)[1] == taught

    def test_more_of_a_part_comes_from_a_fuller_tub_where_the_first_is_empty(self, demo):
        demo.post("/mixes/weigh", {"product": str(RESIN), "net": "60 ml"})
        row = rows(demo, Batch)[-1]
        demo.post(f"/mixes/batch/{row.id}/read")
        a, b = row.plan["rows"]
        demo.post(f"/mixes/batch/{row.id}/weigh", {"part": "A", "grams": f"{a['grams']} g"})
        with session_of(demo.http.application.extensions["engine"]) as session:
            first = session.get(ShopTub, rows(demo, Batch)[-1].weighed[0]["tub"])
            first.left_g = 0.5
            session.add_all(
                [first, ShopTub(product_id=RESIN, part="A", lot="FULL", received_g=900, left_g=900)]
            )
        page = demo.post(
            f"/mixes/batch/{row.id}/weigh",
            {"part": "B", "grams": f"{b['grams'] + 6:.1f} g"},
            follow_redirects=True,
        ).text
        more = re.search(r"(\d+\.\d) g more A puts it right", page)[1]
        demo.post(f"/mixes/batch/{row.id}/weigh", {"part": "A", "grams": more, "more": "1"})
        assert [line["lot"] for line in rows(demo, Batch)[-1].weighed] == [
            "2231",
            "2232",
            "FULL",
        ] and mixed_g(rows(demo, Batch)[-1], "A") == pytest.approx(a["grams"] + float(more))

    @pytest.mark.parametrize(
        ("query", "says"),
        [
            ("net=0.01+ml", "less than the scale"),
            ("net=wide", "type a volume"),
            ("net=42&density=0.3&filler=hollow+microspheres", "pack to 62 %"),
            ("net=42&filler=hollow+microspheres", "Say which density"),
            ("net=42&at=20", "unit is missing"),
            ("net=42&pigment=1&drops=3", "a percentage or drops"),
            ("net=42&step=0", "allowed is"),
        ],
    )
    def test_what_cannot_be_mixed_is_said_and_what_was_typed_stays(self, demo, query, says):
        answer = demo.get(f"/mixes?product={RESIN}&{query}")
        assert answer.status_code == 422 and says in answer.text

    def test_a_batch_is_dropped_and_its_grams_are_back(self, demo):
        demo.post("/mixes/weigh", {"product": str(RESIN), "net": "30 ml", "purpose": "patches"})
        row = rows(demo, Batch)[-1]
        before = next(tub.left_g for tub in rows(demo, ShopTub) if tub.lot == "2231")
        demo.post(f"/mixes/batch/{row.id}/read")
        for text, says in (("lots", "type a mass"), ("0 g", "more than nothing"), ("900 g", "no good tub")):
            bad = demo.post(f"/mixes/batch/{row.id}/weigh", {"part": "A", "grams": text})
            assert bad.status_code == 422 and says in bad.text
        demo.post(f"/mixes/batch/{row.id}/weigh", {"part": "A", "grams": "16.5 g"})
        demo.post(f"/mixes/batch/{row.id}/dropped")
        assert (
            next(tub.left_g for tub in rows(demo, ShopTub) if tub.lot == "2231") == before
            and rows(demo, Batch)[-1].state == "dropped"
        )

    TIN = {
        "name": "Clear two",
        "kind": "clear",
        "ratio": "2:1",
        "basis": "mass",
        "part_1": "resin",
        "density_1": "1.1",
        "part_2": "hardener",
        "density_2": "1.0",
        "tolerance_percent": "3 %",
        "pot_life_min": "25 min",
        "gel_min": "60 min",
        "demould_h": "8 h",
        "cure_h": "3 d",
        "reference_c": "20 °C",
        "open_days": "180 d",
        "stir_s": "0 s",
        "recoat_from_h": "2 h",
        "recoat_to_h": "12 h",
        "shrink_percent": "0 %",
    }

    def test_a_tin_is_typed_and_its_tubs_received_counted_and_gone(self, demo):
        page = demo.post("/mixes/products/new", self.TIN, follow_redirects=True).text
        assert "2:1 by mass" in page and 'value="72 h"' in page
        key = int(re.search(r"/mixes/products/(\d+)/tubs", page).group(1))
        assert (
            "type the lot"
            in demo.post(f"/mixes/products/{key}/tubs", {"part": "resin", "lot": "", "grams": "1 kg"}).text
        )
        demo.post(
            f"/mixes/products/{key}/tubs",
            {"part": "resin", "lot": "Q1", "grams": "1 kg", "expires": "2031-01-01"},
        )
        (tub,) = rows(demo, ShopTub, ShopTub.product_id == key)
        assert tub.left_g == 1000.0
        assert demo.post(f"/mixes/products/tubs/{tub.id}/count", {"grams": "-5 g"}).status_code == 422
        demo.post(f"/mixes/products/tubs/{tub.id}/count", {"grams": "612 g"})
        demo.post(f"/mixes/products/tubs/{tub.id}/stirred")
        assert (
            rows(demo, ShopTub, ShopTub.id == tub.id)[0].left_g == 612.0
            and rows(demo, ShopTub, ShopTub.id == tub.id)[0].stirred_at
        )
        demo.post(f"/mixes/products/tubs/{tub.id}/gone")
        assert "No tub yet" in demo.get(f"/mixes/products/{key}").text

    @pytest.mark.parametrize(
        ("change", "says"),
        [
            ({"basis": ""}, "by mass or by volume"),
            ({"ratio": "0:1"}, "more than 0"),
            ({"density_1": "heavy"}, "type a density"),
            ({"reference_c": "20"}, "unit is missing"),
            ({"cured_g_cm3": "2.2"}, "one of the densities is wrong"),
            ({"part_2": ""}, "as on the tin"),
            ({"cure_h": "1 h"}, "cannot come before"),
            ({"kind": "resin"}, "A resin can hurt: say which caution"),
        ],
    )
    def test_a_tin_that_contradicts_itself_is_refused_and_kept_in_the_form(self, demo, change, says):
        answer = demo.post("/mixes/products/new", {**self.TIN, **change})
        assert answer.status_code == 422 and says in answer.text and "Clear two" in answer.text

    def test_an_expired_tub_is_marked_where_it_stands(self, demo):
        page = demo.get(f"/mixes/products/{RESIN}").text
        assert page.count("expired ") == 1 and "lot 2090" in page

    def test_clocks_are_asked_for_and_stopped(self, demo):
        first = demo.get("/mixes/clocks.json").get_json()["clocks"][0]
        assert demo.send(f"/mixes/clocks/{first['id']}/stop", {}).status_code in (200, 302)
        assert first["id"] not in [row["id"] for row in demo.get("/mixes/clocks.json").get_json()["clocks"]]


class TestStores:
    DAYS = {
        "day": ["0", "1", "5"],
        "begins": "08:00",
        "ends": "12:00",
        "closed": "2031-12-24",
        "long_mm": "30 mm",
        "wide_mm": "15 mm",
        "high_mm": "10 mm",
        "have": "40",
        "strip_high_mm": "0 mm",
        "strip_long_mm": "0 mm",
        "step_g": "0.01 g",
        "room_c": "17 °C",
        "scoop_ml": "5 ml",
    }

    def test_days_bricks_and_mixing_are_kept(self, demo):
        assert "Kept." in demo.post("/stores/days", self.DAYS, follow_redirects=True).text
        assert (
            "08:00 to 12:00" in demo.get(f"/moulds/{STUBBY}/by-when").text
            and "0.01 g" in demo.get("/mixes?net=42+ml").text
        )

    @pytest.mark.parametrize(
        ("change", "says"),
        [
            ({"day": []}, "at least one day"),
            ({"ends": "07:00"}, "after it begins"),
            ({"closed": "soon"}, "2027-12-24"),
            ({"have": "2.5"}, "whole number"),
            ({"room_c": "17"}, "unit is missing"),
        ],
    )
    def test_days_that_cannot_be_are_said_and_stay_typed(self, demo, change, says):
        answer = demo.post("/stores/days", {**self.DAYS, **change})
        assert answer.status_code == 422 and says in answer.text

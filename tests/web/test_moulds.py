"""Moulds, casting, pours and mixes over the web: what is shown, kept, refused beside its field; stock,
lots and pieces where they belong.
"""

import io
import re
from datetime import timedelta

import pytest
from sqlmodel import select

from lamsik.formats import stl
from lamsik.store.database import session_of
from lamsik.store.tables import Batch, Clock, Document, MouldMade, now
from tests import demo_rows
from tests.until import until
from tests.web.pouring import (
    FOAM,
    MUDLARK,
    RESIN,
    SILICONE,
    SOFT,
    STUBBY,
    TADPOLE,
    begun,
    live,
    rows,
    state,
    weighed_in,
)
from tests.web.test_products import live as on_a_tin
from tests.web.test_products import set_to


class TestLayout:
    def test_a_mould_of_a_body_of_a_weighed_thing_and_of_measures(self, demo):
        made = demo.post("/moulds/new/body", {"body": str(demo_rows.MUDLARK)}, follow_redirects=True)
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
        assert answer["saved"] and answer["view"]["fields"]["edge_mm"] == "15 mm" and answer["view"]["tight"]
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
        def told():
            return demo.get(f"/moulds/{STUBBY}/halves/{job}").get_json()

        job = demo.send(f"/moulds/{STUBBY}/halves", {}).get_json()["job"]
        answer = until(told, lambda answer: answer["done"])
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
        answer = until(told, lambda answer: answer["done"])
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
        assert "durable copy" in demo.get(f"/moulds/{demo_rows.OLD_GLIDER}/card").text
        assert demo.post(f"/moulds/{demo_rows.OLD_GLIDER}/made", {"material": "silicone"}).status_code == 422
        assert (
            "Version 1 is made"
            in demo.post(
                f"/moulds/{demo_rows.OLD_GLIDER}/made",
                {"material": "silicone", "copy_first": "1"},
                follow_redirects=True,
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
            (f"/moulds/{MUDLARK}/cast?test_g=20+g&test_ml=100+ml", "it rises just to the rim"),
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

    @pytest.mark.parametrize(
        ("mould", "product", "path", "says"),
        [
            (TADPOLE, SOFT, "process_c", "say how hot it is poured: the tin does not"),
            (MUDLARK, FOAM, "free_rise_g_cm3", "pour a little into a cup and type what it rose to"),
        ],
    )
    def test_what_a_tin_does_not_say_is_asked_for(self, demo, mould, product, path, says):
        on_a_tin(demo, set_to(path, ""), page=f"/mixes/products/{product}")
        live(demo, mould, set_to("casting_c", ""))
        demo.post(f"/moulds/{mould}/made", {"material": "own blend"})
        form = {"product": str(product), "density": "0.3"}
        told = demo.post(f"/pours/begin/{mould}", form, follow_redirects=True).text
        assert "No pour is begun" in told and says in told
        answered = {"limit": "300 °C", "early_yes": "1", "heat_yes": "1", "melt": "172 °C"}
        tried = begun(demo, mould, **form, **answered, test_g="10 g", test_ml="60 ml")
        assert tried.product_id == product

    def test_without_a_product_nothing_is_cast(self, demo):
        for row in rows(demo, Document, Document.kind == "product"):
            demo.post(f"/mixes/products/{row.id}/delete")
        told = demo.post(f"/pours/begin/{STUBBY}", follow_redirects=True).text
        assert "keep a product first: type what stands on its tin" in told

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
        assert words in stopped and "No pour is begun" in stopped and "or tick that" in stopped
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

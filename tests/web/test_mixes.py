"""Mixes: amounts, tubs, the weighing page, what puts a batch right, what Stores keeps of it."""

import json
import re

import pytest

from lamsik.core.trade.figures import FIGURES
from lamsik.core.units import STORED
from lamsik.store import ledger, mixes
from lamsik.store.database import session_of
from lamsik.store.tables import Batch, Document, StockLot
from tests.lean import Known
from tests.web.pouring import FOAM, RESIN, SILICONE, STUBBY, mixed_g, rows


class TestMixes:
    def test_a_foam_is_planned_by_its_own_density_or_its_expansion(self, demo):
        assert "of foam at 0.160 g/cm³" in demo.get(
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
        tub = next(tub for tub in rows(demo, StockLot) if tub.lot == "2231")
        demo.post(f"/mixes/batch/{row.id}/take-back", {"part": "A"})
        assert (
            next(t.left for t in rows(demo, StockLot) if t.id == tub.id)
            == pytest.approx(tub.left + round(1.25 * a["grams"], 1))
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
            first = session.get(StockLot, rows(demo, Batch)[-1].weighed[0]["tub"])
            ledger.count(session, first, 0.5)
            resin = session.get_one(Document, RESIN)
            ledger.bring(session, mixes.tub_of(session, resin, "A", "FULL"), 900)
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
            ("net=42+ml&density=0.3&filler=hollow+microspheres", "pack to 62 %"),
            ("net=42+ml&filler=hollow+microspheres", "Say which density"),
            ("net=42+ml&at=20", "unit is missing"),
            ("net=42+ml&pigment=1&drops=3", "a percentage or drops"),
            ("net=42+ml&step=0", "allowed is"),
        ],
    )
    def test_what_cannot_be_mixed_is_said_and_what_was_typed_stays(self, demo, query, says):
        answer = demo.get(f"/mixes?product={RESIN}&{query}")
        assert answer.status_code == 422 and says in answer.text

    def test_a_batch_is_dropped_and_its_grams_are_back(self, demo):
        demo.post("/mixes/weigh", {"product": str(RESIN), "net": "30 ml", "purpose": "patches"})
        row = rows(demo, Batch)[-1]
        before = next(tub.left for tub in rows(demo, StockLot) if tub.lot == "2231")
        demo.post(f"/mixes/batch/{row.id}/read")
        for text, says in (("lots", "type a mass"), ("0 g", "more than nothing"), ("900 g", "no good tub")):
            bad = demo.post(f"/mixes/batch/{row.id}/weigh", {"part": "A", "grams": text})
            assert bad.status_code == 422 and says in bad.text
        demo.post(f"/mixes/batch/{row.id}/weigh", {"part": "A", "grams": "16.5 g"})
        demo.post(f"/mixes/batch/{row.id}/dropped")
        assert (
            next(tub.left for tub in rows(demo, StockLot) if tub.lot == "2231") == before
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
        state = json.loads(re.search(r'id="state">(.*?)</script>', page, re.S)[1])
        fields = Known().read(state["view"])["fields"]
        assert "2:1 by mass" in page and fields["cure_h"] == "72 h"
        key = int(re.search(r"/mixes/products/(\d+)/tubs", page).group(1))
        assert (
            "type the lot"
            in demo.post(f"/mixes/products/{key}/tubs", {"part": "resin", "lot": "", "grams": "1 kg"}).text
        )
        demo.post(
            f"/mixes/products/{key}/tubs",
            {"part": "resin", "lot": "Q1", "grams": "1 kg", "expires": "2031-01-01"},
        )
        (tub,) = rows(demo, StockLot, StockLot.product_id == key)
        assert tub.left == 1000.0
        assert demo.post(f"/mixes/products/tubs/{tub.id}/count", {"grams": "-5 g"}).status_code == 422
        demo.post(f"/mixes/products/tubs/{tub.id}/count", {"grams": "612 g"})
        demo.post(f"/mixes/products/tubs/{tub.id}/stirred")
        assert (
            rows(demo, StockLot, StockLot.id == tub.id)[0].left == 612.0
            and rows(demo, StockLot, StockLot.id == tub.id)[0].stirred_at
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
    MIX = FIGURES["mixing"] + FIGURES["casting"]
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
        **{one.key: f"{one.usual:g} {STORED[one.quantity]}" for one in MIX},
        "step_g": "0.01 g",
        "room_c": "17 °C",
        "scoop_ml": "5 ml",
        **dict(zip(("near_percent", "in_percent", "counts_percent"), ("80 %", "2 %", "90 %"), strict=True)),
        **dict(zip(("pour_min", "good_percent"), ("25 min", "80 %"), strict=True)),
    }

    def test_days_bricks_and_mixing_are_kept(self, demo):
        assert "Kept." in demo.post("/stores/days", self.DAYS, follow_redirects=True).text
        assert (
            "08:00 to 12:00" in demo.get(f"/moulds/{STUBBY}/by-when").text
            and "0.01 g" in demo.get("/mixes?net=42+ml").text
        )

    def test_what_the_shop_has_otherwise_is_gone_by_and_stands_in_the_form(self, demo):
        demo.post("/stores/days", self.DAYS)
        asked = f"/moulds/{STUBBY}/by-when?wanted=12&by=2031-03-31&start=2031-03-03T09:00"
        page = demo.get(asked).text
        assert 'placeholder="25 min"' in page and 'placeholder="80 %"' in page
        typed = demo.get(f"{asked}&before=25+min&yield=80+%25").text
        plan = re.compile(r"<ol.*?</ol>|<svg.*?</svg>|<table.*?</table>")
        assert (
            plan.findall(page) == plan.findall(typed) != plan.findall(demo.get(f"{asked}&before=90+min").text)
        )
        assert "table: 15 min" in demo.get("/stores").text
        demo.post("/mixes/weigh", {"product": str(RESIN), "net": "42 ml"})
        where = f"/mixes/batch/{rows(demo, Batch)[-1].id}"
        demo.post(f"{where}/read")
        cup = demo.get(where).text
        assert 'data-near="0.8" data-within="0.02"' in cup
        target, counts = (float(re.search(f'data-{name}="([^"]+)"', cup)[1]) for name in ("target", "from"))
        assert counts == pytest.approx(0.9 * target)

    @pytest.mark.parametrize(
        ("change", "says"),
        [
            ({"good_percent": "120 %"}, "5 to 100"),
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


def test_a_number_alone_is_asked_for_before_it_is_poured(demo):
    """It could be millilitres or fluid ounces: both are offered, and the one picked is planned."""
    page = demo.get("/mixes?net=30").text
    assert "say which it is, 30 ml or 30 US fl oz" in page and 'aria-describedby="m-net-problem"' in page
    for reading in ("30 ml", "30 US fl oz"):
        assert f'data-reading="m-net" value="{reading}"' in page
        assert "say which" not in demo.get("/mixes", query_string={"net": reading}).text

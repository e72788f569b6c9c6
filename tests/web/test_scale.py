"""The scale bench on the wire: weighing, cards, trimming, pairs, tables; the port against the simulated
scale.
"""

import io
import re

import pytest
from sqlmodel import select

from lamsik.store.database import session_of
from lamsik.store.tables import ShopWater
from lamsik.web.shared.waters import shop_waters
from tests.devices.test_scale import Bench
from tests.until import until

FLOAT, SPOON, GLIDER = "/scale/things/8", "/scale/things/2", "/scale/things/3"


def noted(shop, **fields):
    return shop.post("/scale", {"name": "Thing", "kind": "bait", **fields}, page="/scale")


class TestBench:
    def test_a_sinker_in_air_and_water_becomes_a_card(self, demo):
        answer = noted(
            demo,
            name="Ärmel spoon",
            air="12,5 g",
            water="1/3 oz",
            water_by="typed",
            temperature="15 °C",
            salinity="0 PSU",
            instrument="2",
        )
        card = demo.get(answer.headers["Location"]).text
        assert (
            "Casts at 12.50 g and sinks with 9.45 g in 15 °C fresh water" in card
            and "3.05 ml" in card
            and "Fine scale 0.01 g" in card
        )
        assert (
            "Ärmel spoon" in demo.get("/scale?q=armel").text
            and "Nothing is called that" in demo.get("/scale?q=zzz").text
        )

    def test_a_floater_under_a_sinker_with_its_line(self, demo):
        card = demo.get(
            noted(demo, air="10 g", sinker="30 g", both="24 g", line="0.3 mm", line_under="400 mm").headers[
                "Location"
            ]
        ).text
        assert "floats with 5.97 g of lift" in card and "0.028 ml" in card

    def test_a_float_by_difference_in_the_water_wanted(self, demo):
        where = noted(
            demo,
            kind="float",
            air="3 g",
            sinker="30 g",
            mark_1="shoulder",
            reading_1="27 g",
            mark_2="tip",
            reading_2="26.5 g",
            stage="varnished",
        ).headers["Location"]
        card = demo.get(f"{where}?water=sea+water").text
        assert "Carries 3.00 g to the shoulder, 3.50 g to the tip" in card and "3.17 g" in card
        bare = noted(demo, kind="float", sinker="30 g", mark_1="tip", reading_1="27 g").headers["Location"]
        assert "No conversion: weigh it in air first" in demo.get(bare).text

    @pytest.mark.parametrize(
        ("fields", "where", "says"),
        [
            ({"name": "", "air": "5 g"}, "name-problem", "Name what is weighed"),
            ({}, "air-problem", "Weigh it in air"),
            ({"air": "heavy"}, "air-problem", "type a mass"),
            ({"air": "7 gr"}, "air-problem", "7 g or 7 grains"),
            ({"air": "5 g", "water": "6 g"}, "alert", "displaces some water"),
            ({"air": "5 g", "both": "20 g"}, "sinker-problem", "sinker alone"),
            ({"air": "5 g", "sinker": "20 g", "both": "-2 g"}, "alert", "heavier one"),
            (
                {"air": "5 g", "water_by": "typed", "temperature": "12"},
                "temperature-problem",
                "unit is missing",
            ),
            ({"air": "5 g", "water_by": "measured", "measured": "2 g/cm³"}, "alert", "0.95 to 1.25"),
            (
                {"air": "5 g", "sinker": "20 g", "mark_1": "tip", "reading_1": "25 g"},
                "alert",
                "a float pulls up",
            ),
            ({"air": "5 g", "line": "9 mm", "line_under": "2 mm"}, "alert", "line diameter"),
            (
                {"air": "5 g", "water_by": "ratio", "temperature": "12 °C", "ratio": "3"},
                "ratio-problem",
                "0.95 to 1.1",
            ),
        ],
    )
    def test_bad_input_comes_back_in_its_place_with_all_that_was_typed(self, demo, fields, where, says):
        before = demo.get("/scale").text.count("/scale/things/")
        answer = noted(demo, note="keep me", **fields)
        assert (
            answer.status_code == 422
            and where in answer.text
            and says in answer.text
            and 'value="keep me"' in answer.text
        )
        assert demo.get("/scale").text.count("/scale/things/") == before

    def test_deleting_is_undone(self, demo):
        demo.post(f"{SPOON}/delete", page="/scale")
        assert (
            demo.get(SPOON).status_code == 404
            and "Bought spoon" not in demo.get("/scale").text.split("Weighed</h2>")[1]
        )
        demo.post(f"{SPOON}/bring_back", page="/scale")
        assert demo.get(SPOON).status_code == 200

    def test_an_old_or_light_check_is_said(self, demo):
        card = demo.get(noted(demo, air="180 g", water="20 g", instrument="2").headers["Location"]).text
        assert "ends at 100 g" in card and "less than half of this load" in card
        assert (
            "was never checked" in demo.get(noted(demo, air="18 g", instrument="1").headers["Location"]).text
        )


class TestCard:
    def test_trimming_says_what_and_how_long_and_where_it_flips(self, demo):
        found = demo.get(f"{GLIDER}?to=0+g&metal=lead&where=outside&wire=1+mm&water=Holm+mere").text
        assert (
            re.search(r"Add 1\.4\d g of lead outside, 1\d\d mm of 1 mm wire", found)
            and "neither floats nor sinks at 0.9992 g/cm³" in found
        )
        assert "sealed inside" in demo.get(f"{GLIDER}?to=0+g&where=inside").text

    def test_any_other_water_by_density_or_temperature(self, demo):
        assert (
            "water of 1.012 g/cm³" in demo.get(f"{SPOON}?other=1.012+g/cm³").text
            and "4 °C fresh water" in demo.get(f"{SPOON}?other=4+°C").text
        )

    @pytest.mark.parametrize(
        "query",
        [
            "other=12",
            "other=thick",
            "to=soon",
            "to=1+g&metal=cheese",
            "to=1+g&wire=0+mm",
            "slug_mass=5+g&slug_to=9+g&slug_length=20+mm",
            "slug_mass=x",
            "with=99999",
        ],
    )
    def test_bad_questions_are_answered_beside_them(self, demo, query):
        answer = demo.get(f"{GLIDER}?{query}")
        assert answer.status_code == 422 and 'role="alert"' in answer.text

    def test_a_slug_is_cut_or_filed_with_the_dust_beside_it(self, demo):
        assert (
            "Take 8.0 mm off the 20 mm"
            in demo.get(f"{SPOON}?slug_mass=5+g&slug_to=3+g&slug_length=20+mm").text
        )
        found = demo.get(f"{SPOON}?slug_mass=5+g&slug_to=4+g").text
        assert "take off about 0.75 g, then weigh again" in found and "catch the filings" in found

    def test_a_load_and_its_float_in_every_water(self, demo):
        found = demo.get(f"{SPOON}?with={FLOAT.rsplit('/', 1)[1]}").text
        assert found.count("goes under") >= 4 and "No water there is carries it" in found
        light = noted(demo, air="2 g", water="1.8 g", instrument="2").headers["Location"]
        assert "to spare" in demo.get(f"{light}?with={FLOAT.rsplit('/', 1)[1]}").text


class TestTable:
    def sent(self, shop, text, **fields):
        return shop.post(
            "/scale/things.csv", {"file": (io.BytesIO(text.encode()), "x.csv"), **fields}, page="/scale"
        )

    def test_out_and_in_again(self, demo):
        text = demo.get("/scale/things.csv").text
        assert "Bought spoon" in text and "air [g]" in text
        assert self.sent(demo, text).status_code == 302 and demo.get("/scale").text.count("Bought spoon") == 1
        assert self.sent(demo, text.replace("Bought spoon", "Found spoon")).status_code == 302
        assert (
            demo.get("/scale").text.count("Bought spoon") == demo.get("/scale").text.count("Found spoon") == 1
        )

    def test_a_column_without_a_unit_is_asked_for_and_nothing_is_kept_before(self, demo):
        asked = self.sent(demo, "name,air\nPebble,5\n")
        assert (
            asked.status_code == 422
            and "do not say their unit" in asked.text
            and "unit_air" in asked.text
            and "Pebble" not in demo.get("/scale").text
        )
        again = demo.post(
            "/scale/things.csv", {"csv": "name,air\nPebble,5\n", "unit_air": "oz"}, page="/scale"
        )
        assert again.status_code == 302 and "141.75 g" in demo.get("/scale").text

    def test_a_bad_row_keeps_nothing(self, demo):
        answer = self.sent(demo, "name,air [g],water [g]\nGood,5,2\nBad,5,9\n")
        assert answer.status_code == 422 and "Good" not in demo.get("/scale").text


class TestPort:
    def test_the_connected_scale_is_read_named_and_let_go(self, demo):
        bench = Bench()
        try:
            bench.set(load_g="7.5", settle_s="0.1", noise_g="0")
            assert demo.get("/scale/live").json["state"] == "off"
            fields = {"url": bench.where["scale"], "baud": "9600", "unit": "", "step": "0.01 g"}
            assert demo.post("/scale/connect", fields, page="/scale").status_code == 302
            until(
                lambda: demo.get("/scale/live").json,
                lambda s: s["stable"] and s["value_g"] == pytest.approx(7.5, abs=0.01),
            )
            assert 'data-instrument="2"' in demo.get("/scale").text  # the shop's only scale of that step
            demo.post("/scale/connect", {**fields, "instrument": "1"}, page="/scale")
            assert 'data-instrument="1"' in demo.get("/scale").text
            assert (
                demo.post("/scale/connect", {**fields, "url": ""}, page="/scale").status_code == 302
                and demo.get("/scale/live").json["state"] == "off"
            )
        finally:
            bench.stop()

    @pytest.mark.parametrize(
        ("change", "says"),
        [
            ({"url": "spy:///dev/ttyUSB0?file=/tmp/x"}, "a serial port that is plugged in"),
            ({"url": "/etc/passwd"}, "a serial port that is plugged in"),
            ({"url": "/dev/ttyUSB77"}, "a serial port that is plugged in"),
            ({"url": "/dev/../etc/passwd"}, "a serial port that is plugged in"),
            ({"url": "socket://192.168.1.20:22"}, "named for the shop"),
            ({"url": "socket://printer.local:9100"}, "in digits"),
            ({"url": "socket://127.0.0.1:99999"}, "in digits"),
            ({"baud": "fast"}, "baud"),
            ({"unit": "gr"}, "g, kg"),
            ({"step": "wide"}, "type a mass"),
        ],
    )
    def test_an_address_that_is_none_is_refused(self, demo, change, says):
        answer = demo.post(
            "/scale/connect",
            {"url": "socket://127.0.0.1:9", "baud": "9600", "unit": "", "step": "0.01 g", **change},
            page="/scale",
        )
        assert answer.status_code == 422 and says in answer.text and "connect-problem" in answer.text

    def test_a_network_scale_is_named_on_the_shops_own_machine_first(self, demo):
        fields = {"url": "socket://192.168.1.20:4000", "baud": "9600", "unit": "", "step": "0.01 g"}
        for wrong, says in (
            ("8.8.8.8", "a private one"),
            ("bench scale", "in digits"),
            ("0.0.0.0", "a private one"),
        ):
            answer = demo.post("/scale/hosts", {"hosts": wrong}, page="/scale")
            assert answer.status_code == 422 and says in answer.text and f'value="{wrong}"' in answer.text
        assert (
            demo.post("/scale/hosts", {"hosts": "192.168.1.20, 10.0.0.4"}, page="/scale").status_code == 302
        )
        assert demo.post("/scale/connect", fields, page="/scale").status_code == 302
        assert (
            demo.post(
                "/scale/connect", {**fields, "url": "socket://192.168.1.21:4000"}, page="/scale"
            ).status_code
            == 422
        )
        demo.post("/scale/connect", {**fields, "url": ""}, page="/scale")

    def test_a_tablet_cannot_name_where_a_scale_may_be(self, demo, monkeypatch):
        monkeypatch.setattr("lamsik.web.scale.port.is_local", lambda: False)
        answer = demo.post("/scale/hosts", {"hosts": "192.168.1.20"}, page="/scale")
        assert answer.status_code == 422 and "own machine" in answer.text


def test_a_shop_that_has_no_water_yet_has_fresh_and_sea_to_choose_from(empty):
    app = empty.http.application
    with session_of(app.extensions["engine"]) as session:
        for row in session.exec(select(ShopWater)).all():
            session.delete(row)
    with app.test_request_context():
        fresh, sea = shop_waters()
    assert (fresh.temperature_c, fresh.salinity_psu) == (12.0, 0.0)
    assert (sea.temperature_c, sea.salinity_psu) == (10.0, 35.0)

"""The `lamsik` command as scripts use it, and the rules of the house."""

import io
import json
import os
import socket
import subprocess
import sys
import tomllib
from hashlib import sha256
from pathlib import Path
from urllib.request import urlopen

import pytest
import trimesh
from jsonschema import Draft202012Validator

from lamsik.cli.calc import calc_body, report
from lamsik.cli.calc_more import calc_ballast
from lamsik.cli.main import main
from lamsik.core.paints.lab import Lab
from lamsik.core.paints.layers import begun
from lamsik.core.paints.other_skins import skin_of_blade, skin_of_float
from lamsik.core.paints.shelf import ShelfPaint
from lamsik.core.paints.swatch import Swatch
from lamsik.core.paints.wanted import WantedColour
from lamsik.core.shapes.design import Host
from lamsik.core.shapes.inside import Cavity
from lamsik.core.shapes.meshing import check, measured
from lamsik.core.shapes.skins import Mesh
from lamsik.core.tank.evaluate import settle
from lamsik.core.water import Water
from lamsik.documents.blades.document import BLADE, blade_of
from lamsik.documents.blades.document import blank as blade_blank
from lamsik.documents.body.lines import blank as blank_body
from lamsik.documents.body.lines import with_mesh
from lamsik.documents.body.shape import BODY_SCHEMA
from lamsik.documents.floats.document import blank, to_float
from lamsik.documents.floats.document import blank as float_blank
from lamsik.documents.floats.edits import FLOAT
from lamsik.documents.matches.document import begun as match_begun
from lamsik.documents.moulds.document import first_layout, master_of
from lamsik.documents.paints.document import begun as paint_begun
from lamsik.documents.schemes.document import SCHEME, of_layers
from lamsik.formats import document_file, match_file
from lamsik.formats.body_file import write as body_file_text
from lamsik.formats.json_text import json_text
from lamsik.store import skins
from lamsik.store.database import FILE_NAME, open_database
from tests.bodies import LEAD_BALL, bait
from tests.browser.conftest import Server
from tests.documents.test_body import full
from tests.kinds import body_text as dumps
from tests.kinds import float_text
from tests.until import PATIENCE_S

ROOT = Path(__file__).parent.parent.parent


def lamsik(*words, home=None, expect=0):
    done = subprocess.run(
        [sys.executable, "-m", "lamsik.cli", *map(str, words)],
        capture_output=True,
        text=True,
        timeout=PATIENCE_S,
        env={**os.environ, "LAMSIK_HOME": str(home or "/nonexistent/shop")},
    )
    assert done.returncode == expect, done.stderr
    return done


@pytest.fixture
def body_file(tmp_path):
    file = tmp_path / "body.json"
    file.write_text(dumps(full()), encoding="utf-8")
    return file


class TestCalc:
    def test_prints_what_the_tank_shows(self, body_file):
        found = json.loads(lamsik("calc", "body", body_file).stdout)
        assert found == json.loads(json_text(calc_body(body_file)))
        assert found["verdict"].endswith(".") and found["water"]["density_g_cm3"] > 1.02
        assert found["mass_g"] == pytest.approx(sum(p["mass_g"] for p in found["parts"]), abs=1e-3)
        assert found["net_g"] == pytest.approx(
            found["displaced_ml"] * found["water"]["density_g_cm3"] - found["mass_g"], abs=1e-3
        )
        assert all(
            place["force_residual"] < 1e-4 and place["moment_residual"] < 1e-4 for place in found["floating"]
        )
        assert (
            found["flooded_net_g"] == found["net_g"]
            and found["roll_hz"] > 0
            and found["drag_source"] == "shop"
        )
        assert found["missing"] == []

    WRONG = [
        (lambda d: d["body"].update(length_mm=-5), "body.length_mm", "-5"),
        (lambda d: d["water"].update(temperature_c="warm"), "water.temperature_c", "warm"),
        (lambda d: d.pop("layers"), "layers", "needed"),
        (lambda d: d["ballast"][0].update(x_mm=400), "ballast.b1.x_mm", "400"),
    ]

    @pytest.mark.parametrize(("spoil", "field", "says"), WRONG)
    def test_wrong_input_exits_2_with_one_line(self, body_file, capsys, spoil, field, says):
        found = full()
        spoil(found)
        body_file.write_text(json.dumps(found), encoding="utf-8")
        assert main(["calc", "body", str(body_file)]) == 2
        error = capsys.readouterr().err
        assert error.startswith(f"lamsik: {field}: ") and says in error and len(error.splitlines()) == 1

    def test_a_file_that_is_not_there_or_no_json(self, tmp_path, capsys):
        assert (
            main(["calc", "body", str(tmp_path / "none.json")]) == 2
            and "No such file" in capsys.readouterr().err
        )
        junk = tmp_path / "junk.json"
        junk.write_bytes(b"\x00\x01")
        assert main(["calc", "body", str(junk)]) == 2 and len(capsys.readouterr().err.splitlines()) == 1

    def test_a_body_that_is_a_mesh_is_computed_from_the_file_alone_and_follows_the_published_schema(
        self, tmp_path
    ):
        made = measured(check(*_egg()).mesh)
        packed = skins.pack(made.shares)
        content = with_mesh(
            blank_body("Egg", Host("printed resin", 1.15, 0.01, "print"), Water()),
            made,
            sha256(packed).hexdigest(),
            "egg.stl",
        )
        file = tmp_path / "egg.json"
        file.write_text(body_file_text(content, packed), encoding="utf-8")
        Draft202012Validator(BODY_SCHEMA.schema).validate(json.loads(file.read_text()))
        assert calc_body(file)["body"]["volume_ml"] == pytest.approx(
            trimesh.Trimesh(*_egg()).volume / 1000, rel=1e-5
        )
        assert calc_ballast(file)["name"] == "Egg"

    @pytest.mark.parametrize(
        "spoil", [lambda s: s * 1e5, lambda s: s * 0.0, lambda s: s + [0, 0, 1e9], lambda s: s * [1, 1, 3]]
    )
    def test_a_mesh_of_absurd_size_is_refused_in_one_line(self, tmp_path, capsys, spoil):
        made = measured(check(*_egg()).mesh)
        packed = skins.pack(Mesh(spoil(made.shares.vertices), made.shares.faces))
        content = with_mesh(
            blank_body("Egg", Host("printed resin", 1.15, 0.01, "print"), Water()),
            made,
            sha256(packed).hexdigest(),
            "egg.stl",
        )
        (tmp_path / "egg.json").write_text(body_file_text(content, packed), encoding="utf-8")
        assert main(["calc", "body", str(tmp_path / "egg.json")]) == 2
        assert len(capsys.readouterr().err) < 250

    def test_another_kind_of_file_is_refused_in_one_short_line(self, tmp_path, capsys):
        (tmp_path / "float.json").write_text(float_text(blank("Float", "stick", Water())), encoding="utf-8")
        assert main(["calc", "body", str(tmp_path / "float.json")]) == 2
        said = capsys.readouterr().err
        assert "lamsik-float" in said and len(said) < 250


def _egg():
    ball = trimesh.creation.icosphere(3)
    return ball.vertices * [45, 7, 10], ball.faces


class TestServing:
    def test_run_creates_the_shop_and_backup_and_restore_work_while_it_runs(self, tmp_path):
        shop, copy = tmp_path / "shop", tmp_path / "copy.sqlite3"
        shop.mkdir()
        server = Server(shop)
        try:
            assert "saved in" in lamsik("backup", copy, home=shop).stdout
            with urlopen(f"{server.url}/stores", timeout=PATIENCE_S) as page:
                assert b"Treble hook size 8" in page.read()
            assert "before-restore" in lamsik("restore", copy, home=shop).stdout
            with urlopen(f"{server.url}/stores", timeout=PATIENCE_S) as page:
                assert b"Treble hook size 8" in page.read()
            assert f"Lamsik is at {server.url}/" in server.log.read_text()
        finally:
            server.stop()

    @pytest.mark.parametrize(
        ("words", "shop", "says"),
        [
            (("restore", "none"), "shop", "no such file"),
            (("backup", "x"), "other", "no shop here"),
            (("backup", "no/such/x"), "shop", "lamsik: "),
        ],
    )
    def test_bad_backups_are_said_in_one_line(self, tmp_path, capsys, monkeypatch, words, shop, says):
        open_database(tmp_path / "shop").dispose()
        monkeypatch.setenv("LAMSIK_HOME", str(tmp_path / shop))
        assert main([words[0], str(tmp_path / words[1])]) == 2
        error = capsys.readouterr().err
        assert says in error and len(error.splitlines()) == 1

    def test_demo_starts_with_fresh_data_on_its_port_and_its_scale_ends_with_it(self, demo_started):
        assert demo_started["address"] in demo_started["said"][4]
        assert "Ärla Brandt" in demo_started["orders"]
        assert demo_started["scale"]["state"] == "reading" and demo_started["ended"]

    def test_demo_spares_other_folders(self, tmp_path):
        mine = tmp_path / "mine"
        mine.mkdir()
        (mine / "letter.txt").write_text("keep")
        done = subprocess.run(
            [sys.executable, "-m", "lamsik.cli", "demo"],
            capture_output=True,
            text=True,
            env={**os.environ, "LAMSIK_DEMO_HOME": str(mine)},
        )
        assert (
            done.returncode == 2 and "a folder of its own" in done.stderr and (mine / "letter.txt").exists()
        )


class TestOneLine:
    @pytest.mark.parametrize(
        ("words", "says"),
        [
            (["run", "--port", "99999"], "99999"),
            (["run", "--port", "abc"], "1 to 65535"),
            (["fly"], "invalid choice"),
            (["calc", "body"], "required"),
            (["calc", "body", "/nonexistent.json"], "No such file"),
            (["calc"], "required"),
        ],
    )
    def test_wrong_words_are_answered_in_one_line(self, words, says, capsys):
        try:
            status = main(words)
        except SystemExit as ended:
            status = ended.code
        told = capsys.readouterr()
        assert (
            status == 2
            and says in told.err
            and told.err.startswith("lamsik: ")
            and told.err.count("\n") == 1
            and told.out == ""
        )

    def test_a_port_out_of_the_environment_is_checked_too(self, monkeypatch, capsys):
        monkeypatch.setenv("LAMSIK_PORT", "abc")
        with pytest.raises(SystemExit) as ended:
            main(["run"])
        assert ended.value.code == 2 and "LAMSIK_PORT" in capsys.readouterr().err

    def test_a_busy_port_is_said(self, tmp_path, monkeypatch, capsys):
        monkeypatch.setenv("LAMSIK_HOME", str(tmp_path))
        with socket.socket() as taken:
            taken.bind(("127.0.0.1", 0))
            taken.listen()
            assert main(["run", "--port", str(taken.getsockname()[1])]) == 2
        told = capsys.readouterr().err
        assert "port: got" in told and "one that is free" in told

    def test_a_float_is_no_body_and_an_endless_file_is_not_printed(self, tmp_path, capsys):
        for text in (
            json.dumps(blank("F", "antenna", Water())),
            '{"format": "lamsik-body", "version": 3, "name": "' + "x" * 400_000 + '"}',
        ):
            (tmp_path / "f.json").write_text(text)
            assert main(["calc", "body", str(tmp_path / "f.json")]) == 2
            told = capsys.readouterr().err
            assert told.count("\n") == 1 and len(told) < 400

    def test_standard_input_and_the_version(self, body_file, monkeypatch, capsys):
        class Stdin:
            buffer = io.BytesIO(body_file.read_bytes())

        monkeypatch.setattr("sys.stdin", Stdin)
        assert main(["calc", "body", "-"]) == 0 and json.loads(capsys.readouterr().out)["mass_g"] > 0
        with pytest.raises(SystemExit):
            main(["--version"])
        assert (
            capsys.readouterr().out
            == f"lamsik {tomllib.loads((ROOT / 'pyproject.toml').read_text())['project']['version']}\n"
        )


class TestHouse:
    def test_imports_go_downward_only(self):
        done = subprocess.run(
            [Path(sys.executable).parent / "lint-imports"], cwd=ROOT, capture_output=True, text=True
        )
        assert done.returncode == 0, done.stdout

    def test_pinned_requirements_name_no_index(self):
        for name in ("requirements.txt", "requirements-dev.txt"):
            rows = [row for row in (ROOT / name).read_text().splitlines() if row and not row.startswith("#")]
            assert all(row.count("==") == 1 for row in rows)

    def test_what_is_vendored_is_listed_with_licences(self):
        listed = (ROOT / "src/lamsik/web/static/vendor/README.md").read_text()
        wanted = json.loads((ROOT / "scripts/vendor.json").read_text())["dependencies"]
        builders = ("sass", "purgecss", "esbuild")
        sent = {name: version for name, version in wanted.items() if name not in builders}
        assert all(f"| {name} | {version} |" in listed for name, version in sent.items())

    def test_screenshots_are_linked_and_few(self):
        shots = list((ROOT / "docs/screenshots").glob("*.png"))
        readme = (ROOT / "README.md").read_text()
        assert 8 <= len(shots) < 20 and all(shot.name in readme for shot in shots)

    def test_no_shop_file_is_in_the_checkout(self):
        assert not (ROOT / FILE_NAME).exists()


class TestCalcMore:
    """The other questions: by the command, against closed forms."""

    @pytest.fixture
    def ask(self, tmp_path, capsys):
        """What the command prints for a document, asked in this process: starting one takes seconds."""

        def asked(what, document, *more, expect=0):
            file = tmp_path / f"{what}.json"
            file.write_text(document if isinstance(document, str) else json.dumps(document), encoding="utf-8")
            status = main(["calc", what, str(file), *map(str, more)])
            told = capsys.readouterr()
            assert status == expect, told.err
            return json.loads(told.out) if expect == 0 else told.err

        return asked

    def test_a_scheme_on_a_float_and_on_a_blade_takes_what_their_skins_have(self, tmp_path, ask):
        scheme = document_file.write(SCHEME, of_layers("Bands", [begun("base", "all"), begun("band", "b1")]))
        for kind, content, skin in (
            (FLOAT, float_blank("Rod", "stick", Water()), lambda made: skin_of_float(to_float(made))),
            (BLADE, blade_blank(), lambda made: skin_of_blade(blade_of(made))),
        ):
            other = tmp_path / f"{kind.name}.json"
            other.write_text(document_file.write(kind, content))
            told = ask("scheme", scheme, other)
            area = skin(content).area_mm2 / 100.0
            assert told["area_cm2"] == told["layers"][0]["area_cm2"] == pytest.approx(area, abs=1e-3)
            assert 0 < told["layers"][1]["share_percent"] < 25

    def test_recipes_for_a_colour_from_the_paints_of_its_file(self, ask):
        paints = {
            code: paint_begun(ShelfPaint(code, swatch=Swatch(white, black), source="typed"))
            for code, white, black in (
                ("Y", Lab(80, 4, 70), Lab(66, -2, 48)),
                ("R", Lab(46, 52, 32), Lab(40, 42, 25)),
            )
        }
        asked = match_begun(WantedColour("Fin", Lab(60, 34, 48)))
        told = ask("match", match_file.write(asked, paints, []))
        assert told["recipes"] and set(told["recipes"][0]["drops"]) <= {"Y", "R"}
        assert told["recipes"][0]["delta_e"] <= min(one["delta_e"] for one in told["recipes"]) + 0.5
        assert told["model"] == {
            "swatches": 0,
            "median_delta_e": None,
            "worst_delta_e": None,
            "strengths": {"Y": 1.0, "R": 1.0},
        }

    def test_ballast_for_the_walker_with_the_starter_stock_and_with_another(self, tmp_path, ask):
        walker = (Path(__file__).parent.parent / "cases" / "walker-119.json").read_text()
        found = ask("ballast", walker)
        first = found["answers"][0]
        assert (
            abs(first["net_error_g"]) <= 0.05
            and abs(first["pitch_error_deg"]) <= 2.0
            and first["wall_mm"] >= 2.0
            and found["binds"] is None
        )
        assert {"x_mm", "mass_g", "drill_mm", "depth_mm"} < set(first["holes"][0])
        stock = tmp_path / "stock.json"
        stock.write_text(
            json.dumps(
                {
                    "format": "lamsik-stock",
                    "version": 1,
                    "slugs": [
                        {"name": "tin", "form": "rod", "metal": "tin", "density_g_cm3": 7.3, "diameter_mm": 3}
                    ],
                    "drills_mm": [3],
                }
            )
        )
        other = ask("ballast", walker, "--stock", stock)
        assert other["binds"]["what"] in ("mass", "place", "wall", "stroke") and other["binds"]["says"]
        heavy = json.loads(walker)
        heavy["material"]["density_g_cm3"] = 1.4
        none = ask("ballast", heavy)
        assert none["answers"] == [] and none["binds"]["what"] == "mass"

    def test_a_float_to_its_marks(self, ask):
        found = ask("float", blank("F", "antenna", Water("fresh water", 14.0)))
        assert [row["mark"] for row in found["marks"]][:2] == ["shoulder", "ring"] and found["marks"][1][
            "on_the_line_g"
        ] > found["marks"][0]["on_the_line_g"] > 0
        assert found["stands"] in ("stands", "half-lies", "lies")

    def test_a_mould_of_measures(self, ask):
        block = {
            "kind": "box",
            "name": "plug",
            "length_mm": 80.0,
            "width_mm": 20.0,
            "depth_mm": 15.0,
            "volume_ml": None,
            "mass_g": None,
            "demouldings": None,
            "source": {"kind": "own", "note": ""},
        }
        document = {
            **first_layout(block, master_of(block)),
            "length_mm": 150.0,
            "width_mm": 60.0,
            "height_mm": 25.0,
        }
        found = ask("mould", document)
        assert found["box"]["volume_ml"] == 225.0 and found["cavity_ml"] == pytest.approx(24.0, rel=1e-3)
        assert sum(half["box_ml"] for half in found["halves"]) == pytest.approx(225.0, abs=0.01)

    MIX = {
        "format": "lamsik-mix",
        "version": 1,
        "net_ml": 30,
        "loss_percent": 0,
        "product": {
            "name": "Rigid foam",
            "kind": "foam",
            "basis": "mass",
            "parts": [
                {"name": "A", "figure": 100, "density_g_cm3": 1.06},
                {"name": "B", "figure": 110, "density_g_cm3": 1.23},
            ],
            "caution": "isocyanate",
            "free_rise_g_cm3": 0.16,
            "reference_c": 20,
        },
    }

    def test_a_mix_of_foam_is_planned_by_what_it_becomes(self, ask):
        found = ask("mix", self.MIX)
        assert found["total_g"] == pytest.approx(4.8, abs=0.1) and found["portions"][0][
            "exact_g"
        ] == pytest.approx(4.8 * 100 / 210, rel=1e-4)
        over = ask("mix", {**self.MIX, "weighed_g": [10, 11]})
        assert over["remedy"]["over_plan_percent"] > 300 and over["remedy"]["within_tolerance"]

    PAIR = {
        "format": "lamsik-pair",
        "version": 1,
        "float": {
            "name": "F",
            "air_g": 4.0,
            "sinker_g": 30.0,
            "marks": [{"name": "ring", "reading_g": 23.0}, {"name": "top", "reading_g": 21.0}],
            "water": {"measured_g_cm3": 1.0},
            "sd_g": 0.01,
        },
        "load": {"name": "L", "air_g": 12.0, "water_g": 6.5, "water": {"measured_g_cm3": 1.0}},
        "waters": [{"name": "sea", "temperature_c": 10, "salinity_psu": 35}],
    }

    def test_a_pair_has_a_row_for_each_mark_and_the_water_at_which_it_turns(self, ask):
        ring, top = ask("pair", self.PAIR)["marks"]
        assert (
            ring["turns_at_g_cm3"] == pytest.approx((4 + 12) / (11.0 + 5.5), abs=2e-4)
            and top["turns_at_g_cm3"] < ring["turns_at_g_cm3"]
        )
        assert ring["waters"][0]["margin_g"] == pytest.approx(
            11.0 * ring["waters"][0]["density_g_cm3"] - 4 - (12 - 5.5 * ring["waters"][0]["density_g_cm3"]),
            abs=1e-3,
        )

    @pytest.mark.parametrize(
        ("what", "document", "says"),
        [
            ("mix", {**MIX, "net_ml": -3}, "net_ml"),
            ("mix", {**MIX, "product": {**MIX["product"], "free_rise_g_cm3": None}}, "cured density"),
            ("mix", "{", "JSON text"),
            ("pair", {**PAIR, "waters": []}, "waters"),
            ("pair", {**PAIR, "float": {**PAIR["float"], "air_g": None}}, "in air"),
            ("float", {"format": "x"}, "lamsik-float"),
            ("mould", {"format": "x"}, "format"),
            ("ballast", {"format": "x"}, "needed"),
        ],
    )
    def test_bad_input_is_one_line_and_status_two(self, ask, what, document, says):
        told = ask(what, document, expect=2)
        assert says in told and told.count("\n") == 1


def test_a_body_that_cannot_be_built_gets_no_figures_of_how_it_swims():
    crossed = bait(cavities=(Cavity("c1", LEAD_BALL, 1, 33.0, 7.0),))
    told, plain = report(settle(crossed)), report(settle(bait()))
    assert "runs into the chamber" in told["cannot_be_built"][0] and all(
        told[name] is None for name in ("net_g", "hanging_free", "floating", "roll_hz")
    )
    assert told["mass_g"] > 0 and plain["cannot_be_built"] == [] and plain["net_g"] is not None


def test_the_glossary_is_one_whole_table():
    lines = (ROOT / "docs" / "glossary.md").read_text(encoding="utf-8").splitlines()
    rows = [at for at, line in enumerate(lines) if line.startswith("|")]
    assert rows == list(range(rows[0], rows[-1] + 1)) and all(
        lines[at].count("|") == 4 and "||" not in lines[at] for at in rows
    )
    names = [lines[at].split("|")[1].strip() for at in rows[2:]]
    assert len(set(names)) == len(names) > 55

    def test_a_cost_is_a_price_for_the_pay_or_the_pay_of_a_price(self, ask):
        asked = {
            "format": "lamsik-cost",
            "version": 1,
            "currency": "EUR",
            "hours": 1.5,
            "materials": [{"name": "all", "amount": 1, "price": 6.4, "pack": 1}],
            "fee_percent": 2.0,
            "fee": 0.3,
            "tax_percent": 25.0,
            "duty": 0.1,
        }
        told = ask("cost", {**asked, "price": 50})
        assert told["hourly"] == 21.47 and told["goes"]["hours"] == 32.2 and told["goes"]["tax"] == 10.1
        assert sum(told["goes"].values()) == pytest.approx(50.0)
        paid = ask("cost", {**asked, "hourly": 21.46, "tools": [{"name": "jig", "price": 8, "uses": 10}]})
        assert paid["price"] == pytest.approx(50.0 + 0.8 / 0.78, abs=0.02) and len(paid["parts"]) == 2
        yen = ask("cost", {**asked, "currency": "JPY", "price": 5000})
        assert yen["price"] == 5000 and yen["beside_the_hands"] == 6
        assert "one of the two" in ask("cost", asked, expect=2)
        assert "hours" in ask("cost", {**asked, "price": 1, "hours": -1}, expect=2)


def test_the_whole_shop_goes_out_and_in_by_command(tmp_path, monkeypatch, capsys, stocked_home):
    monkeypatch.setenv("LAMSIK_HOME", str(stocked_home))
    assert main(["export", str(tmp_path / "out")]) == 0 and "files are in" in capsys.readouterr().out
    monkeypatch.setenv("LAMSIK_HOME", str(tmp_path / "shop"))
    assert main(["import", str(tmp_path / "out")]) == 0 and "rows" in capsys.readouterr().out
    assert (tmp_path / "shop" / FILE_NAME).exists()
    monkeypatch.setenv("LAMSIK_HOME", str(tmp_path / "nothing"))
    assert main(["export", str(tmp_path / "more")]) == 2
    assert "a shop: none is there" in capsys.readouterr().err

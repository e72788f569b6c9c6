"""The simulated colour reader in its own process: asked over its port, set on its page, faults told."""

import json
import subprocess
import sys
from urllib.error import HTTPError
from urllib.parse import urlencode
from urllib.request import Request, urlopen

import pytest
from coloraide import Color

from lamsik.devices import colour_port
from lamsik.devices.colour_reader import ColourReader
from tests.refusing import refusing


@pytest.fixture(scope="module")
def reader():
    process = subprocess.Popen(
        [sys.executable, "-m", "lamsik.devices.colour_reader"],
        stdin=subprocess.PIPE,
        stdout=subprocess.PIPE,
        text=True,
    )
    where = json.loads(process.stdout.readline())
    yield where
    process.stdin.close()
    process.stdout.close()
    assert process.wait(10) == 0


def lay(where, **values):
    with urlopen(Request(where["page"], urlencode(values).encode())) as answer:
        return answer.read().decode()


def test_what_lies_under_it_is_read_and_averaged(reader):
    lay(reader, lightness=61, red=-12.5, yellow=33, noise=0.1, drift_h=0, light="D65", fault="none")
    told = colour_port.read(reader["reader"])
    assert told.look.row == pytest.approx([61, -12.5, 33], abs=0.4) and 0 < told.apart < 1.0


def test_what_it_says_for_another_light_is_adapted(reader):
    lay(reader, lightness=52, red=24, yellow=30, noise=0, light="D50")
    wanted = Color("lab", [52, 24, 30]).convert("lab-d65").coords()
    assert colour_port.read(reader["reader"]).look.row == pytest.approx(wanted, abs=0.02)
    lay(reader, light="D65")


@pytest.mark.parametrize(
    ("fault", "says"),
    [
        ("silent", "press its button once"),
        ("garbled", "a line such as LAB D65"),
        ("busy", "a reader that is at rest: wait for its light"),
    ],
)
def test_every_fault_has_its_words_and_it_comes_back(reader, fault, says):
    lay(reader, fault=fault)
    with refusing(says):
        colour_port.read(reader["reader"])
    lay(reader, fault="none", noise=8)
    with refusing("hold it flat, on one colour, and still"):
        for _ in range(5):
            colour_port.read(reader["reader"])
    lay(reader, noise=0.1)
    assert colour_port.read(reader["reader"]).apart < 1.0


def test_where_no_reader_is_that_is_told(reader):
    with refusing("is it switched on, is the address right"):
        colour_port.read("socket://127.0.0.1:9")
    with refusing("socket://address:port"):
        colour_port.read("socket://example.org:80")


def test_its_page_takes_what_can_be_and_keeps_what_cannot(reader):
    assert 'value="44.5"' in lay(reader, lightness="44.5", drift_h="0")
    for values in ({"lightness": "many"}, {"red": "500"}, {"what": "3"}):
        with pytest.raises(HTTPError) as error:
            lay(reader, **values)
        with error.value as answer:
            assert answer.code == 422 and "44.5" in answer.read().decode()
    strange = Request(reader["page"], b"lightness=1", {"Origin": "http://elsewhere"})
    with pytest.raises(HTTPError) as error:
        urlopen(strange)
    with error.value as answer:
        assert answer.code == 403


def test_it_drifts_by_the_hour():
    still, drifting = ColourReader(noise=0.0, drift_h=0.0), ColourReader(noise=0.0, drift_h=50.0)
    still._began -= 3600
    drifting._began -= 3600
    lights = [float(one.answer().split()[2]) for one in (still, drifting)]
    assert lights[1] - lights[0] == pytest.approx(50.0, abs=0.1)


def test_one_that_is_unplugged_while_it_is_asked_is_told(monkeypatch):
    class Gone:
        def write(self, data):
            raise OSError("gone")

        def close(self):
            pass

    monkeypatch.setattr(colour_port.serial, "serial_for_url", lambda *_, **__: Gone())
    with refusing("a reader that answers: plug it in"):
        colour_port.read("socket://127.0.0.1:9")

"""The scale port against the simulated bench scale in a process of its own: settling, units, tare, faults,
coming back; lines as readings.
"""

import json
import socket
import subprocess
import sys
import time
from urllib.error import HTTPError
from urllib.parse import urlencode
from urllib.request import Request, urlopen

import pytest
from hypothesis import given
from hypothesis import strategies as st

from lamsik.core.errors import Refused
from lamsik.devices import scale_address
from lamsik.devices.readings import Steady, reading_g
from lamsik.devices.scale_port import GARBLED, GONE, READING, SILENT, ScalePort, Settings
from tests.until import PATIENCE_S, until


class Bench:
    """The simulated scale as a test drives it."""

    def __init__(self):
        self.process = subprocess.Popen(
            [sys.executable, "-m", "lamsik.devices.bench_scale"],
            stdin=subprocess.PIPE,
            stdout=subprocess.PIPE,
            text=True,
        )
        self.where = json.loads(self.process.stdout.readline())

    def set(self, **values):
        with urlopen(Request(self.where["page"], urlencode(values).encode()), timeout=PATIENCE_S) as answer:
            return answer.read().decode()

    def stop(self):
        self.process.stdin.close()
        self.process.wait(5)
        self.process.stdout.close()


@pytest.fixture
def bench():
    found = Bench()
    found.set(settle_s="0.2", noise_g="0")
    yield found
    found.stop()


@pytest.fixture
def port(bench):
    found = ScalePort(Settings(bench.where["scale"]))
    yield found
    found.close()


def stands(port, wanted):
    return until(lambda: port.state, wanted)


def test_it_settles_and_counts_what_settled(bench, port):
    bench.set(load_g="12.34")
    first = stands(port, lambda s: s.stable and abs(s.value_g - 12.34) < 0.006)
    assert first.state == READING and first.settled >= 1 and first.says == "Lies still."
    bench.set(load_g="15.34")
    assert stands(port, lambda s: s.stable and s.settled > first.settled and abs(s.value_g - 15.34) < 0.006)


@pytest.mark.parametrize("unit", ["oz", "kg", "gn"])
def test_whatever_unit_it_is_set_to_grams_come_out(bench, port, unit):
    bench.set(load_g="28.35", unit=unit)
    assert stands(port, lambda s: s.stable and s.value_g and s.value_g > 20).value_g == pytest.approx(
        28.35, abs=0.03
    )


def test_what_trembles_is_not_stable(bench, port):
    bench.set(load_g="10", noise_g="0.2")
    stands(port, lambda s: s.value_g and s.value_g > 8)
    time.sleep(1.0)
    assert not port.state.stable
    bench.set(noise_g="0")
    stands(port, lambda s: s.stable)


def test_every_fault_has_its_words_and_the_scale_comes_back(bench, port):
    bench.set(load_g="5")
    stands(port, lambda s: s.stable)
    bench.set(fault="unplugged")
    gone = stands(port, lambda s: s.state == GONE)
    assert "plugged in" in gone.says and gone.value_g is None and not gone.stable
    bench.set(fault="none")
    stands(port, lambda s: s.stable and s.value_g == pytest.approx(5, abs=0.01))
    bench.set(fault="silent")
    assert "sends nothing" in stands(port, lambda s: s.state == SILENT).says
    bench.set(fault="garbled")
    assert "cannot be read" in stands(port, lambda s: s.state == GARBLED).says
    bench.set(fault="no unit")
    assert "its unit" in stands(port, lambda s: s.state == GARBLED and "unit" in s.says).says
    bench.set(fault="none")
    stands(port, lambda s: s.stable and s.value_g == pytest.approx(5, abs=0.01))


def test_it_does_not_tell_what_else_answers_at_an_address():
    """A closed port, one that is mute, one that talks of something else: the same words after the same
    time, so that nobody looks round the network with it.
    """
    now = [100.0]
    with (
        socket.create_server(("127.0.0.1", 0)) as mute,
        socket.create_server(("127.0.0.1", 0)) as talks,
        socket.socket() as closed,
    ):
        closed.bind(("127.0.0.1", 0))
        ports = [
            ScalePort(Settings(f"socket://127.0.0.1:{found.getsockname()[1]}"), clock=lambda: now[0])
            for found in (mute, talks, closed)
        ]
        talking, _ = talks.accept()

        def told() -> set[tuple[str, str, int]]:
            return {(port.state.state, port.state.says, port.state.garbled) for port in ports}

        try:
            before = told()
            assert len(before) == 1
            for now[0] in (*5 * (100.0,), *5 * (102.4,)):
                talking.sendall(b"220 mail ready\r\n")
                time.sleep(0.1)
                assert told() == before
            now[0] = 102.6
            last = [stands(port, lambda s: s.state == GONE) for port in ports]
            assert told() == {(GONE, last[0].says, 0)} and "No reading comes" in last[0].says
        finally:
            talking.close()
            for port in ports:
                port.close()


@pytest.mark.parametrize("link", ["/dev/null", "/dev/zero", "/etc/hostname"])
def test_a_link_that_is_no_serial_port_is_not_opened(tmp_path, link):
    (tmp_path / "ttyUSB0").symlink_to(link)
    with pytest.raises(Refused, match="plugged in"):
        scale_address.check(str(tmp_path / "ttyUSB0"))


def test_a_stable_name_of_a_plugged_in_port_is_taken(tmp_path, monkeypatch):
    (tmp_path / "ttyUSB0").touch()
    (tmp_path / "by-id").symlink_to(tmp_path / "ttyUSB0")
    monkeypatch.setattr(scale_address, "serial_ports", lambda: [str(tmp_path / "ttyUSB0")])
    scale_address.check(str(tmp_path / "by-id"))


def test_its_page_refuses_what_cannot_be_and_strangers_pages(bench):
    for values in (
        {"load_g": "heavy"},
        {"step_g": "0"},
        {"fault": "fire"},
        {"unit": "stone"},
        {"load_g": "nan"},
        {"other": "1"},
    ):
        with pytest.raises(HTTPError) as refused:
            bench.set(**values)
        assert refused.value.code == 422
        refused.value.close()
    with pytest.raises(HTTPError) as refused:
        urlopen(
            Request(bench.where["page"], b"load_g=1", {"Origin": "http://evil.example"}), timeout=PATIENCE_S
        )
    assert refused.value.code == 403
    refused.value.close()
    assert "&lt;" not in bench.set(load_g="3.5") and 'value="3.5"' in bench.set(load_g="3.5")


LINES = [
    ("+  12.34 g", 12.34),
    ("-0,5 g", -0.5),
    ("N  1.50 oz", 42.5243),
    ("0.0125 kg", 12.5),
    ("250 mg", 0.25),
    ("65 gn", 4.2119),
    ("5.0 ct", 1.0),
    ("7.5", None),
    ("7 gr", None),
    ("", None),
    ("g", None),
    ("12.3.4 g", None),
    ("1e5 g", None),
    ("x" * 200, None),
    ("nan g", None),
    ("12.5 stone", None),
    ("ST \x00\x01 ??", None),
]


@pytest.mark.parametrize(("line", "grams"), LINES)
def test_lines_become_grams_or_are_refused(line, grams):
    if grams is None:
        with pytest.raises(Refused):
            reading_g(line)
    else:
        assert reading_g(line) == pytest.approx(grams, rel=1e-4)
    assert reading_g("7.5", "g") == 7.5


@given(st.text(max_size=60))
def test_any_line_is_a_finite_reading_or_a_refusal(line):
    try:
        assert abs(reading_g(line, "g")) < 1e9
    except Refused as refused:
        assert refused.allowed


@given(st.floats(-500, 500), st.floats(0.0, 0.01), st.integers(6, 20))
def test_a_run_within_the_band_for_long_enough_is_stable_and_a_jump_ends_it(value, wobble, count):
    steady = Steady(0.02)
    found = [steady.take(value + (wobble if i % 2 else 0.0), 0.1 * i) for i in range(count)]
    assert found == [i >= 6 for i in range(count)]
    assert not steady.take(value + 1.0, 0.1 * count)

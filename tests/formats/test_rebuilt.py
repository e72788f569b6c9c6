"""A body rebuilt from its file alone, as docs/formats.md says it; nothing of the program is imported here."""

import json
import re
import subprocess
import sys
from math import gamma, pi
from pathlib import Path

import numpy as np
import pytest
from scipy.interpolate import PchipInterpolator

ROOT = Path(__file__).parent.parent.parent


def rebuilt(document):
    body, holes, wood = document["body"], document["ballast"], document["material"]["density_g_cm3"]
    ways = {
        (1, 1): lambda f: f / pi,
        (1, 0): lambda f: np.sin(f / 2),
        (0, 1): lambda f: 1 - np.cos(f / 2),
        (0, 0): lambda f: (1 - np.cos(f)) / 2,
    }
    way = ways[int(body["round_nose"]), int(body["round_tail"])]
    angle = lambda share: np.arccos(1 - 2 * np.asarray(share, dtype=float))  # noqa: E731

    def curve(rows, size):
        return PchipInterpolator(way(angle([r[0] for r in rows])), [r[1] * size for r in rows])

    top, bottom = (curve(body[name], body["depth_mm"]) for name in ("top_shares", "bottom_shares"))
    half = curve(body["half_width_shares"], body["width_mm"])
    phi = pi * (np.arange(100_000) + 0.5) / 100_000
    x, dx = body["length_mm"] * (1 - np.cos(phi)) / 2, body["length_mm"] * np.sin(phi) / 2 * pi / 100_000
    a, up, low = half(way(phi)), top(way(phi)), bottom(way(phi))
    middle, b = (up + low) / 2, (up - low) / 2
    quarter = [
        gamma(1 + 1 / n) ** 2 / gamma(1 + 2 / n) for n in (body["upper_exponent"], body["lower_exponent"])
    ]
    area = 2 * a * b * sum(quarter)
    volume = float(dx @ area)
    lever = [
        gamma(2 / n) * gamma(1 + 1 / n) / gamma(1 + 3 / n) / n
        for n in (body["upper_exponent"], body["lower_exponent"])
    ]
    centre = (
        np.array([dx @ (x * area), 0.0, dx @ (middle * area + 2 * a * b**2 * (lever[0] - lever[1]))]) / volume
    )
    rows = [(wood * volume / 1000, centre)]
    for hole in holes:
        slug, belly = hole["slug"], float(bottom(way(angle(hole["x_mm"] / body["length_mm"]))))
        tall = hole["mass_g"] * 1000 / slug["density_g_cm3"] / (pi / 4 * slug["diameter_mm"] ** 2)
        depth, bore, cover = tall + hole["cover_mm"], pi / 4 * hole["drill_mm"] ** 2, hole["cover_mm"]
        beside = bore * tall - hole["mass_g"] * 1000 / slug["density_g_cm3"]
        filler_at = (bore * cover * cover / 2 + beside * (cover + tall / 2)) / (bore * cover + beside)
        # the mouth: what the skin leaves out of the flat disc at the belly line, by squares
        dx, dy = np.meshgrid(*[(np.arange(400) + 0.5) / 400 * hole["drill_mm"] - hole["drill_mm"] / 2] * 2)
        dx, dy = (v[np.hypot(dx, dy) < hole["drill_mm"] / 2] for v in (dx, dy))
        t = way(angle((hole["x_mm"] + dx) / body["length_mm"]))
        width, floor, n = half(t), bottom(t), body["lower_exponent"]
        sag = (top(t) + floor) / 2 - (top(t) - floor) / 2 * (1 - (np.abs(dy) / width) ** n) ** (1 / n) - belly
        ground = pi / 4 * hole["drill_mm"] ** 2 / len(dx) / 1000 * (wood - hole["filler_g_cm3"])
        rows += [
            (
                ground * sag.sum(),
                np.array([hole["x_mm"] + dx @ sag / sag.sum(), 0.0, belly + (sag @ sag) / 2 / sag.sum()]),
            )
        ]
        at = lambda height, x=hole["x_mm"], belly=belly: np.array([x, 0.0, belly + height])  # noqa: E731
        rows += [
            (hole["mass_g"], at(cover + tall / 2)),
            (-wood * bore * depth / 1000, at(depth / 2)),
            (hole["filler_g_cm3"] * (bore * cover + beside) / 1000, at(filler_at)),
        ]
    mass = sum(m for m, _ in rows)
    return {
        "volume_ml": volume / 1000,
        "b_mm": centre,
        "mass_g": mass,
        "g_mm": sum(m * p for m, p in rows) / mass,
    }


def example():
    return json.loads(
        re.search(
            r"```json\n(.*?)```", (ROOT / "docs" / "formats.md").read_text(encoding="utf-8"), re.DOTALL
        ).group(1)
    )


@pytest.mark.parametrize(("nose", "tail"), [(True, True), (True, False), (False, True), (False, False)])
def test_the_worked_example_and_its_kin_come_out_as_the_program_says(tmp_path, nose, tail):
    document = example()
    document["body"] |= {
        "round_nose": nose,
        "round_tail": tail,
        "upper_exponent": 2.0 + nose,
        "lower_exponent": 2.5,
    }
    file = tmp_path / "body.json"
    file.write_text(json.dumps(document), encoding="utf-8")
    told = json.loads(
        subprocess.run(
            [sys.executable, "-m", "lamsik.cli", "calc", "body", str(file)],
            check=True,
            capture_output=True,
            text=True,
        ).stdout
    )
    mine = rebuilt(document)
    assert mine["volume_ml"] == pytest.approx(told["body"]["volume_ml"], rel=1e-5) and mine[
        "mass_g"
    ] == pytest.approx(told["mass_g"], abs=1e-3)
    for name in ("b_mm", "g_mm"):
        assert mine[name] == pytest.approx(told[name], abs=2e-3)
    assert told["net_g"] == pytest.approx(
        told["water"]["density_g_cm3"] * mine["volume_ml"] - mine["mass_g"], abs=2e-3
    )


def test_the_figures_in_the_text_are_those_of_the_example():
    text, mine = (ROOT / "docs" / "formats.md").read_text(encoding="utf-8"), rebuilt(example())
    said = re.search(
        r"volume ([\d.]+) ml, B at x ([\d.]+) mm, mass ([\d.]+) g, G at x ([\d.]+) mm and z (−?[\d.]+) mm",
        text,
    )
    found = [float(part.replace("−", "-")) for part in said.groups()]
    assert found == pytest.approx(
        [mine["volume_ml"], mine["b_mm"][0], mine["mass_g"], mine["g_mm"][0], mine["g_mm"][2]], abs=0.006
    )

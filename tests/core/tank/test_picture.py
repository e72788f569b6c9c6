"""The Tank's picture from the side: what is read in it lies free."""

import re
from dataclasses import replace
from math import cos, radians, sin

import pytest

from lamsik.core.quantities import said
from lamsik.core.shapes.hardware import seat_point
from lamsik.core.tank import evaluate
from lamsik.drawings.tank import UNDER, scene
from tests.bodies import bait


def nodes(root):
    yield root
    for child in root["children"]:
        if not isinstance(child, str):
            yield from nodes(child)


@pytest.mark.parametrize("x_mm", range(24, 76, 4))
def test_the_weight_is_read_beside_the_ring_of_a_hook(x_mm):
    hardware = tuple(replace(p, x_mm=x_mm) if p.key == "h1" else p for p in bait().hardware)
    outcome = evaluate.settle(bait(hardware=hardware))
    shown = list(nodes(scene(outcome, UNDER)))
    px = float(shown[0]["attrs"]["viewBox"].split()[2]) / 880
    body = next(n["attrs"]["transform"] for n in shown if n["attrs"].get("class") == "body")
    dx, dy, turn = map(float, re.findall(r"-?[\d.]+", body))
    x, _, z = seat_point(outcome.design.body, next(p for p in hardware if p.key == "h1"))
    ring_x = dx + x * cos(radians(turn)) + z * sin(radians(turn))
    ring_y = dy + x * sin(radians(turn)) - z * cos(radians(turn))
    read = next(n for n in shown if n["children"] == [said(outcome.budget.mass_g, "mass", 1)])
    size, at = float(read["attrs"]["font-size"]), float(read["attrs"]["x"])
    wide = 0.6 * size * len(read["children"][0])
    left = at if read["attrs"]["text-anchor"] == "start" else at - wide
    middle_y = float(read["attrs"]["y"]) - 0.3 * size
    apart_x = max(left - ring_x, ring_x - left - wide) / px
    apart_y = abs(middle_y - ring_y) / px
    assert apart_x > 9 or apart_y > 20, (apart_x, apart_y)

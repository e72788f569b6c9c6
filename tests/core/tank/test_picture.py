"""The Tank's picture from the side: what is read in it lies free."""

import re
from dataclasses import replace
from math import cos, radians, sin
from xml.etree import ElementTree

import pytest

from lamsik.core.quantities import said
from lamsik.core.shapes.hardware import seat_point
from lamsik.core.tank import evaluate
from lamsik.drawings.svg import markup
from lamsik.drawings.tank import UNDER, scene
from tests.bodies import bait


@pytest.mark.parametrize("x_mm", range(24, 76, 4))
def test_the_weight_is_read_beside_the_ring_of_a_hook(x_mm):
    hardware = tuple(replace(p, x_mm=x_mm) if p.key == "h1" else p for p in bait().hardware)
    outcome = evaluate.settle(bait(hardware=hardware))
    shown = ElementTree.fromstring(str(markup(scene(outcome, UNDER))))
    px = float(shown.get("viewBox").split()[2]) / 880
    dx, dy, turn = map(float, re.findall(r"-?[\d.]+", shown.find(".//*[@class='body']").get("transform")))
    x, _, z = seat_point(outcome.design.body, next(p for p in hardware if p.key == "h1"))
    ring_x = dx + x * cos(radians(turn)) + z * sin(radians(turn))
    ring_y = dy + x * sin(radians(turn)) - z * cos(radians(turn))
    read = next(one for one in shown.iter() if one.text == said(outcome.budget.mass_g, "mass", 1))
    size, at, y = (float(read.get(name)) for name in ("font-size", "x", "y"))
    wide = 0.6 * size * len(read.text)
    left = at if read.get("text-anchor") == "start" else at - wide
    apart_x, apart_y = max(left - ring_x, ring_x - left - wide) / px, abs(y - 0.3 * size - ring_y) / px
    assert apart_x > 9 or apart_y > 20, (apart_x, apart_y)

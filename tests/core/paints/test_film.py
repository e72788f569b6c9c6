"""Films of paint against what is known of them: covering, passes, limits, surfaces, colours."""

from dataclasses import replace

import numpy as np
import pytest
from coloraide import Color
from hypothesis import given, settings
from hypothesis import strategies as st

from lamsik.core.paints.film import (
    CARD_WHITE,
    Curves,
    bcoth,
    curves,
    curves_of,
    over,
    over_surface,
    under_surface,
)
from lamsik.core.paints.light import LEAST, MOST, coded_of, linear_of, observer, reflectance, seen
from lamsik.core.paints.paint import PAINT_KINDS, Paint
from tests.core.paints.swatches import hex_of, looks_like

COLOURS = ("#3B5B45", "#E8C33A", "#A8281E", "#D6DEE2", "#16283A", "#5A7FB0", "#FFFFFF", "#000000")
SHARES = st.floats(0.02, 0.99)


@pytest.mark.parametrize("colour", COLOURS[:-2])
def test_a_reflectance_looks_like_its_colour(colour):
    row = reflectance(colour)
    assert row.min() >= LEAST and row.max() <= MOST
    wanted, found = Color(colour), Color(hex_of(seen(row)))
    assert wanted.delta_e(found, method="2000") < 1.0


def test_the_observer_agrees_with_the_library_on_a_spectrum():
    """A band alone against the tables at its middle: the same hue."""
    for n, nm in ((4, 480), (7, 540), (11, 620)):
        band = np.zeros(16)
        band[n] = 1.0
        linear = seen(band)
        assert int(np.argmax(linear)) == {480: 2, 540: 1, 620: 0}[nm]
    assert observer().sum(axis=0) == pytest.approx([1.0, 1.0, 1.0])
    grey = seen(np.full(16, 0.5))
    assert grey == pytest.approx([0.5, 0.5, 0.5])


@pytest.mark.parametrize("colour", COLOURS)
def test_coding_agrees_with_the_library(colour):
    assert linear_of(colour) == pytest.approx(Color(colour).convert("srgb-linear").coords(), abs=1e-6)
    assert hex_of(linear_of(colour)) == colour
    assert (coded_of(np.array([-0.2, 0.0, 1.0, 7.0])) == [0, 0, 255, 255]).all()


@settings(max_examples=60, deadline=None)
@given(st.sampled_from(COLOURS), SHARES, st.floats(1, 200))
def test_a_swatch_looks_as_it_was_said_over_white_and_over_black(colour, covering, swatch):
    paint = curves(colour, covering, swatch)
    film = np.array([swatch])
    white = over(paint, film, np.full((16, 1), CARD_WHITE))[:, 0]
    black = over(paint, film, np.zeros((16, 1)))[:, 0]
    wanted = np.clip(under_surface(reflectance(colour)), 1e-4, 0.995 * CARD_WHITE)
    real = paint.a > 1.0 + 1e-6
    assert white[real] == pytest.approx(wanted[real], rel=2e-3, abs=1e-4)
    assert black[real] == pytest.approx(covering * wanted[real], rel=2e-2, abs=1e-4)
    assert (paint.s_um > 0).all() and ((paint.s_um * (paint.a - 1.0)) >= 0).all()


@settings(max_examples=60, deadline=None)
@given(st.sampled_from(COLOURS), SHARES, st.floats(0.5, 80), st.floats(0.5, 80), st.floats(0, 1))
def test_two_films_of_a_paint_are_one_as_thick_as_both(colour, covering, one, other, ground):
    paint, under = curves(colour, covering, 20.0), np.full((16, 1), ground)
    twice = over(paint, np.array([other]), over(paint, np.array([one]), under))
    assert twice == pytest.approx(over(paint, np.array([one + other]), under), rel=1e-6, abs=1e-9)


def test_limits():
    paint, under = curves_of(Paint("#A8281E")), np.full((16, 1), 0.7)
    assert over(paint, np.array([1e-6]), under) == pytest.approx(under, rel=1e-4)  # no film
    deep = over(paint, np.array([1e5]), under)[:, 0]
    assert deep == pytest.approx(paint.a - paint.b, rel=1e-6)  # hides all: R∞ = a − b
    clear = Curves(np.full(16, 1.0 + 5e4), np.sqrt((1.0 + 5e4) ** 2 - 1.0) * np.ones(16), np.full(16, 1e-7))
    film = 60.0  # S → 0 is a filter: Rg·exp(−2Kh)
    assert over(clear, np.array([film]), under)[:, 0] == pytest.approx(
        0.7 * np.exp(-2.0 * (clear.s_um * (clear.a - 1.0)) * film), rel=1e-3
    )
    assert np.isfinite(bcoth(paint, np.array([0.0, 1e9]))).all()


@pytest.mark.parametrize("colour", COLOURS[:4])
def test_a_clear_deepens_and_surfaces_undo_each_other(colour):
    row = reflectance(colour)
    assert over_surface(under_surface(row), is_glossy=True) == pytest.approx(row, rel=1e-9)
    matt, glossy = (looks_like(Paint(colour), 60.0, "#FFFFFF", is_glossy=one) for one in (False, True))
    assert (matt > glossy).all()


def test_kinds_of_paint_do_what_they_are_called():
    over_dark = {
        kind: looks_like(
            Paint("#E8C33A", kind=kind, covering_percent=100 * of.covering_share), 20.0, "#101010"
        )[1]
        for kind, of in PAINT_KINDS.items()
    }
    assert over_dark["opaque"] > 4 * over_dark["candy"] and over_dark["opaque"] > 4 * over_dark["transparent"]
    assert over_dark["clear"] < 0.05
    blue_over_yellow = looks_like(
        Paint("#2F6BC0", kind="transparent", covering_percent=15.0), 15.0, "#F2D53C"
    )
    assert blue_over_yellow[1] == max(blue_over_yellow)  # blue and yellow make green
    thin, thick = (looks_like(Paint("#3B5B45"), film, "#FFFFFF") for film in (3.0, 30.0))
    assert (thin > thick).all()


def test_more_covering_power_hides_more():
    dark = [
        looks_like(replace(Paint("#E8C33A"), covering_percent=c), 20.0, "#000000")[1] for c in (10, 40, 90)
    ]
    assert dark == sorted(dark) and dark[2] > 3 * dark[0]

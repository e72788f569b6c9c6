"""Light fluorescent paint adds: fitted to its looks, fed by what reaches it, held back by a film on it."""

from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from lamsik.core.paints.colour import difference, lab_seen
from lamsik.core.paints.film import OUTER, curves, over, over_surface, through, under_surface
from lamsik.core.paints.fluorescent import BROAD_NM, band, held_back
from lamsik.core.paints.lab import Lab
from lamsik.core.paints.layers import begun
from lamsik.core.paints.light import BANDS_NM
from lamsik.core.paints.look import looks
from lamsik.core.paints.measured import curves_measured, known_of, measured, smoothest
from lamsik.core.paints.paint import Paint
from lamsik.core.paints.place import Anchors
from lamsik.core.paints.swatch import CARD, Swatch
from tests.bodies import bait
from tests.refusing import refusing

ORANGE = Swatch(Lab(70.0, 62.0, 66.0), Lab(52.0, 44.0, 44.0), 30.0)
YELLOW = Swatch(Lab(88.0, -30.0, 95.0), Lab(70.0, -25.0, 70.0), 30.0)
PLAIN = Swatch(Lab(46.0, 54.0, 34.0), Lab(41.0, 43.0, 26.0), 20.0)
GROUNDS = [under_surface(smoothest(one, "card")) for one in CARD]
COARSE = (24, 12)


def look(known, film_um, ground):
    """What such a film looks like, matt."""
    film = over(curves_measured(known.k_um, known.s_um), np.array([film_um]), ground[:, None])
    return lab_seen(
        over_surface(film[:, 0], False) + known.lit.added(np.array([film_um]), ground[:, None])[:, 0]
    )


@pytest.mark.parametrize(
    "swatch", [ORANGE, YELLOW, Swatch(Lab(60.0, 75.0, 20.0), Lab(45.0, 50.0, 12.0), 30.0)]
)
def test_the_film_of_the_swatch_looks_as_it_was_seen_over_both_grounds(swatch):
    known = measured(swatch, True)
    for ground, wanted in zip(GROUNDS, (swatch.white, swatch.black), strict=True):
        assert difference(look(known, swatch.film_um, ground), wanted.row) < 1.0
    assert known.over_white.max() <= 0.97 and (known.over_black <= known.over_white + 1e-9).all()
    assert known.lit.over_white > known.lit.over_black > 0.0


def test_a_look_that_no_surface_has_is_one_of_light_that_is_added():
    with refusing("a look that a surface can have"):
        measured(ORANGE)
    assert measured(ORANGE, True).lit.over_white > 0.2
    assert measured(PLAIN, True).lit.over_white < 0.06  # an ordinary one is told by an ordinary surface
    assert measured(PLAIN).lit is None
    assert known_of(Paint(swatch=ORANGE)) is None and known_of(Paint(kind="fluorescent", swatch=ORANGE)).lit


@pytest.mark.parametrize("peak", [540.0, 580.0, 620.0])
def test_a_strong_band_that_was_planted_is_found(peak):
    red, dark = (smoothest(one, "look") for one in (Lab(60.0, 20.0, 40.0), Lab(50.0, 15.0, 30.0)))
    seen = [
        Lab(*(float(one) for one in lab_seen(row + OUTER + more * band(peak))))
        for row, more in ((red, 0.9), (dark, 0.4))
    ]
    lit = measured(Swatch(*seen, 25.0), True).lit
    assert abs(lit.peak_nm - peak) <= 40.0 and 0.05 < lit.over_white <= 0.95  # the least that explains it


@settings(max_examples=40)
@given(st.floats(0.0, 200.0), st.floats(0.0, 200.0), st.floats(0.0, 0.95), st.floats(0.0, 0.95))
def test_more_film_and_more_light_add_more_and_no_film_adds_nothing(thin, thick, dark, light):
    lit = measured(ORANGE, True).lit
    thin, thick = sorted((thin, thick))
    dark, light = sorted((dark, light))
    added = lit.added(np.array([thin, thick]), np.full((16, 2), light))
    assert (added[:, 0] <= added[:, 1] + 1e-12).all() and (added >= 0).all()
    assert (lit.added(np.array([thick]), np.full((16, 1), dark)) <= added[:, 1:] + 1e-12).all()
    assert not lit.added(np.array([0.0]), np.ones((16, 1))).any()
    assert lit.added(np.array([1e6]), np.ones((16, 1))).max() < 5 * lit.over_white  # it ends somewhere


@settings(max_examples=40)
@given(st.floats(0.0, 60.0), st.floats(0.0, 60.0), st.floats(0.05, 0.9))
def test_what_a_film_lets_through_is_a_share_less_in_thicker_ones_and_with_what_comes_back_no_more_than_all(
    one, two, covering
):
    paint = curves("#7A5A30", covering, 20.0)
    thin, thick = sorted((one, two))
    passed = through(paint, np.array([0.0, thin, thick]))
    assert passed[:, 0] == pytest.approx(1.0) and (np.diff(passed, axis=1) <= 1e-12).all()
    back = over(paint, np.array([thick]), np.zeros((16, 1)))
    assert (passed[:, 2:] + back <= 1.0 + 1e-9).all() and (passed >= 0).all()
    assert (held_back(paint, np.array([thick])) <= passed[:, 2:].max() + 1e-12).all()


def painted(*layers):
    left, _ = looks(layers, bait().body, Anchors(), COARSE)
    return left.colour[COARSE[0] // 2, COARSE[1] // 2]


def layer(does, **paint):
    return replace(begun(does, does), film_um=30.0, paint=Paint(**paint))


def test_on_a_body_it_shines_over_white_less_over_black_and_not_under_what_hides_it():
    glowing = {"kind": "fluorescent", "colour": "#F06020", "swatch": ORANGE, "swatch_um": 30.0}
    shines, flat = layer("base", **glowing), layer("base", **{**glowing, "swatch": None})
    white, black = layer("primer", colour="#F8F8F8"), layer("primer", colour="#101010", covering_percent=99.0)
    bright, dull = painted(white, shines), painted(black, shines)
    assert bright[0] > dull[0] and bright[0] > 0.8
    assert bright[0] > painted(white, flat)[0] * 0.9
    hidden = replace(layer("base", colour="#202020", covering_percent=99.0), key="over")
    assert painted(white, shines, hidden) == pytest.approx(painted(white, hidden), abs=0.01)
    veiled = replace(layer("base", colour="#202020", covering_percent=30.0), key="over", film_um=10.0)
    assert painted(white, hidden)[0] < painted(white, shines, veiled)[0] < bright[0]


def test_the_band_is_as_broad_as_said():
    half = BROAD_NM * np.sqrt(2 * np.log(2))
    assert np.interp(540.0 + half, BANDS_NM, band(540.0)) == pytest.approx(0.5, abs=0.04)
    assert band(540.0).max() == 1.0


def test_a_yellow_film_holds_the_exciting_blue_back_and_with_it_the_orange():
    yellow, film = curves("#F0D820", 0.2, 20.0), np.array([40.0])
    passes, left = through(yellow, film)[:, 0], held_back(yellow, film)[:, 0]
    orange = int(np.searchsorted(BANDS_NM, 620.0))
    assert passes[orange] > 0.5 and passes[2] < 0.5 * passes[orange]
    assert left[orange] == pytest.approx(passes[orange] * passes[: orange + 1].mean())
    assert left[orange] < 0.8 * passes[orange]

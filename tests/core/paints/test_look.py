"""What a painted body looks like: films over films where layers lie, seen from four sides."""

from dataclasses import replace

import numpy as np
import pytest

from lamsik.core.paints import look as looking
from lamsik.core.paints.laid import anchors_of
from lamsik.core.paints.layers import begun
from lamsik.core.paints.light import linear_of
from lamsik.core.paints.look import BARE, looks
from lamsik.core.paints.paint import Paint
from lamsik.core.paints.place import Along, Place, Round
from lamsik.core.paints.skin import COARSE, skin_of
from lamsik.core.paints.views import VIEWS, view
from tests.bodies import bait
from tests.core.paints.swatches import looks_like
from tests.core.paints.test_skin import BODIES

BODY = bait().body
KINDS = ["seal", "primer", "base", "fade", "bars", "eyes", "clear"]
LAYERS = tuple(begun(kind, f"{kind}1") for kind in KINDS)


def seen(layers, body=BODY, cells=COARSE):
    return looks(layers, body, anchors_of(layers, body), cells)


def at(look, x, share, cells=COARSE):
    """The colour at a station of the length and a share round from the back."""
    row = int(np.arccos(1 - 2 * x) / np.pi * cells[0])
    return look.colour[row, int(share * cells[1])]


def test_a_bare_body_is_bare_and_a_thick_coat_is_its_paint():
    left, _ = seen(())
    assert at(left, 0.5, 0.5) == pytest.approx(linear_of(BARE) + 0.04, abs=0.01)  # matt
    painted, _ = seen(
        (replace(begun("base", "b"), film_um=300.0, paint=Paint("#A8281E")), begun("clear", "c"))
    )
    assert at(painted, 0.5, 0.5) == pytest.approx(linear_of("#A8281E"), abs=0.03)


def test_passes_are_a_film_so_many_times_as_thick():
    one = replace(begun("base", "b"), film_um=4.0, passes=3)
    thick = replace(one, film_um=12.0, passes=1)
    assert seen((one,))[0].colour == pytest.approx(seen((thick,))[0].colour, abs=1e-5)


def test_a_cell_is_the_film_that_the_closed_form_gives():
    ground = replace(begun("base", "g"), film_um=2000.0, paint=Paint("#D6DEE2", covering_percent=99.0))
    film = replace(
        begun("base", "f"), film_um=9.0, paint=Paint("#2F6BC0", kind="candy", covering_percent=12.0)
    )
    found = at(seen((ground, film))[0], 0.5, 0.5)
    assert found == pytest.approx(looks_like(film.paint, 9.0, "#D6DEE2", is_glossy=False), abs=0.01)


def test_marks_are_where_they_are_said_and_rims_thin_out():
    bars = replace(
        begun("bars", "b"), place=Place("bars", Along(), Along("tail"), count=3, size_percent=30.0)
    )
    left, _ = seen((begun("primer", "p"), bars))
    dark = [at(left, x, 0.1).sum() for x in (1 / 6, 1 / 3, 1 / 2)]
    assert dark[0] < 0.4 < dark[1] and dark[2] < 0.4
    fade = replace(begun("fade", "f"), place=Place(bottom=Round(at_percent=80.0), edge_percent=100.0))
    tones = [at(seen((begun("primer", "p"), fade))[0], 0.5, share).sum() for share in (0.02, 0.3, 0.5, 0.9)]
    assert tones == sorted(tones) and tones[1] < tones[2] < tones[3]


def test_one_side_alone():
    left, right = seen(
        (begun("primer", "p"), replace(begun("base", "b"), place=Place(side="right"), paint=Paint("#A8281E")))
    )
    assert at(left, 0.5, 0.5)[1] > 3 * at(right, 0.5, 0.5)[1]
    both = seen(LAYERS)
    assert both[0] is both[1]  # nothing is painted twice


def test_foil_shines_where_it_lies_until_something_opaque_hides_it():
    foil = begun("foil", "f")
    left, _ = seen((foil,))
    assert left.mirror.max() == pytest.approx(0.8) and left.mirror[:, 2].max() == 0  # not on the back
    candy = replace(begun("base", "c"), paint=Paint("#A8281E", kind="candy", covering_percent=12.0))
    hidden, tinted = (seen((foil, one))[0] for one in (begun("base", "b"), candy))
    assert hidden.mirror.max() < 0.1 and tinted.mirror.max() == pytest.approx(0.8)
    middle = tinted.tint[COARSE[0] // 2, COARSE[1] // 2]
    assert middle[0] > 1.5 * middle[1]
    turning = replace(begun("base", "i"), paint=Paint("#5A7FB0", kind="iridescent", covering_percent=15.0))
    assert seen((turning,))[0].turn.max() == pytest.approx(0.35)


def test_an_eye_has_a_pupil():
    eyes = replace(begun("eyes", "e"), place=replace(begun("eyes", "e").place, size_percent=40.0))
    left, _ = seen((begun("primer", "p"), eyes))
    assert at(left, 0.085, 0.41).sum() < 0.2  # the pupil; at its rim it is yellow
    row = left.colour[int(np.arccos(1 - 2 * 0.115) / np.pi * COARSE[0])]
    assert (row[:, 0] - row[:, 2]).max() > 0.3


def test_what_lies_under_a_changed_layer_is_kept(monkeypatch):
    seen(LAYERS)
    laid_on = []
    real = looking._with

    def counted(laying, layer, *more):
        laid_on.append(layer.kind)
        return real(laying, layer, *more)

    monkeypatch.setattr(looking, "_with", counted)
    seen((*LAYERS[:-2], replace(LAYERS[-2], film_um=7.0), LAYERS[-1]))
    assert laid_on == ["eyes", "clear"]
    laid_on.clear()
    seen(tuple(replace(one, note="another", wait_h=0.5) for one in LAYERS))  # what does not show
    assert laid_on == []


@pytest.mark.parametrize("name", ["slim", "popper", "cone", "jointed", "mesh", "slab below"])
@pytest.mark.parametrize("side", VIEWS)
def test_every_view_is_a_picture_of_the_body(name, side):
    body = BODIES[name]
    layers = (begun("primer", "p"), replace(begun("fade", "f"), paint=Paint("#16283A")), begun("clear", "c"))
    picture = view(side, skin_of(body, COARSE), seen(layers, body), 3.0)
    high, wide, channels = picture.pixels.shape
    assert channels == 3 and wide == round(picture.width_mm * 3)
    assert high == pytest.approx(picture.height_mm * 3, abs=2)
    middle = picture.pixels[high // 2, wide // 2].astype(float).sum()
    if side == "back":
        assert middle < 300  # the dark back
    if side == "belly":
        assert middle > 450
    if side in ("left", "right"):
        top, bottom = (
            picture.pixels[int(high * share), wide // 2].astype(float).sum() for share in (0.06, 0.8)
        )
        assert top < bottom


def test_left_and_right_are_mirror_twins_and_the_nose_is_where_it_is_said():
    skin, painted = skin_of(BODY, COARSE), seen(LAYERS)
    left, right = (view(side, skin, painted, 3.0).pixels for side in ("left", "right"))
    assert (left == right[:, ::-1]).all()
    eye = np.argwhere(left[..., 0].astype(int) - left[..., 2] > 90)
    assert len(eye) and eye[:, 1].mean() < 0.2 * left.shape[1]
    apart = seen(
        (*LAYERS, replace(begun("spots", "s"), place=replace(begun("spots", "s").place, side="left")))
    )
    only = view("right", skin, apart, 3.0).pixels
    assert np.abs(only.astype(int) - right).max() <= 6


def test_the_lit_side_faces_the_lamp():
    skin, painted = skin_of(BODY, COARSE), seen((begun("primer", "p"),))
    above, below = (
        view("left", skin, painted, 3.0, np.array([0.0, up, 0.8])).pixels.astype(float) for up in (0.9, -0.9)
    )
    rows = above.shape[0]
    assert above[: rows // 4].mean() > above[-rows // 4 :].mean()
    assert below[: rows // 4].mean() < below[-rows // 4 :].mean()


def test_glow_is_where_it_lies_and_what_hides_it_takes_it_away():
    glow = replace(begun("band", "g"), paint=Paint("#CFE8B8", kind="glow", covering_percent=50.0))
    whole = replace(glow, place=Place())
    over = replace(begun("base", "o"), place=Place(side="left"))

    def much(*layers):
        return [float(side.glow.mean()) for side in seen(layers)]

    assert much(begun("base", "b")) == [0.0, 0.0]
    assert much(whole) == [1.0, 1.0] and 0.0 < much(glow)[0] < 0.2
    left, right = much(whole, over)
    assert left == pytest.approx(1.0 - over.paint.covering_share, abs=1e-6) and right == 1.0
    assert much(whole, begun("clear", "c"))[0] > 0.9


def test_what_does_not_show_is_not_looked_at_again():
    layer = begun("bars", "b")
    other = replace(layer, by="brushed", pressure_bar=3.0, distance_mm=9.0, scuff=True, eye="domed")
    assert looking._plain(other) == looking._plain(layer)
    for shows in (replace(layer, film_um=33.0), replace(layer, paint=Paint("#123456"))):
        assert looking._plain(shows) != looking._plain(layer)


def test_flakes_of_glitter_spark_each_its_own_way_and_an_opaque_coat_hides_them():
    ground = begun("base", "g")
    glitter = replace(begun("glitter", "f"), place=Place(shape="region"))
    even = replace(glitter, paint=replace(glitter.paint, kind="pearl"))
    bright = {
        name: view("left", skin_of(BODY, COARSE), seen(rows), 4.0).pixels.astype(float).max(axis=-1)
        for name, rows in {
            "glitter": (ground, glitter),
            "pearl": (ground, even),
            "hidden": (ground, glitter, replace(begun("base", "o"), film_um=200.0)),
        }.items()
    }
    rough = {name: np.abs(np.diff(rows, axis=1)).mean() for name, rows in bright.items()}
    assert rough["glitter"] > 3 * rough["pearl"] and rough["glitter"] > 2 * rough["hidden"]
    lit = [
        view("left", skin_of(BODY, COARSE), seen((ground, glitter)), 4.0, np.array(lamp)).pixels
        for lamp in ((-0.5, 0.2, 0.8), (0.5, 0.6, 0.8))
    ]
    one, other = (rows.astype(float).max(axis=-1) > 250 for rows in lit)
    assert (one & ~other).any() and (other & ~one).any()

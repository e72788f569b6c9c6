"""Photos traced: a drawn and a cut template, in perspective and noise, within half a millimetre; outlines
as lines.
"""

from dataclasses import replace
from functools import lru_cache

import numpy as np
import pytest
from PIL import Image, ImageDraw
from shapely.geometry import LineString
from skimage import transform

from lamsik.core.errors import Refused
from lamsik.core.shapes.body import Body, side_outline, top_outline
from lamsik.core.shapes.curves import Curve, phi_of_share, share_of_phi
from lamsik.core.shapes.forms import FORMS, body_from
from lamsik.core.shapes.outlining import edges_at, lines_of, width_line
from lamsik.core.shapes.tracing import Marks, corners, frame, straightened, trace

BODY = body_from(FORMS["stubby"], 88, 30, 20)
OUTLINE = side_outline(BODY, 161)
SHEET, PX = (148.0, 105.0), 10.0
NOSE, TAIL = (30.0, 50.0 - OUTLINE[0, 1]), (118.0, 50.0 - OUTLINE[160, 1])
VIEWS = {
    "straight": [(110, 120), (1590, 120), (1590, 1170), (110, 1170)],
    "slanted": [(150, 130), (1560, 220), (1500, 1150), (190, 1090)],
}


@lru_cache(maxsize=4)
def shot(drawn, view):
    """A photo of a template on a sheet on a bench, with light falling off and noise, and the map from
    sheet mm to pixels.
    """
    flat = Image.new("RGB", (int(SHEET[0] * PX), int(SHEET[1] * PX)), (244, 241, 232))
    pen = ImageDraw.Draw(flat)
    points = [((30 + x) * PX, (50 - z) * PX) for x, z in OUTLINE]
    if drawn:
        pen.line([*points, points[0]], fill=(35, 35, 70), width=int(0.8 * PX), joint="curve")
    else:
        pen.polygon(points, fill=(105, 80, 60))
    pen.rectangle((20 * PX, 88 * PX, 130 * PX, 96 * PX), outline=(0, 0, 0), width=2)
    corner = np.array(VIEWS[view], dtype=float)
    sheet = np.array([(0, 0), (SHEET[0], 0), SHEET, (0, SHEET[1])], dtype=float)
    back = transform.ProjectiveTransform.from_estimate(corner, sheet * PX).params
    out = flat.transform(
        (1700, 1300),
        Image.Transform.PERSPECTIVE,
        tuple((back / back[2, 2]).ravel()[:8]),
        Image.Resampling.BILINEAR,
        fillcolor=(112, 104, 96),
    )
    noise = np.random.default_rng(4).normal(0, 7, (1300, 1700, 3))
    picture = np.asarray(out) * np.linspace(0.86, 1.04, 1700)[None, :, None] + noise
    return np.clip(picture, 0, 255).astype(np.uint8), transform.ProjectiveTransform.from_estimate(
        sheet, corner
    )


def marks(to_px, by, **more):
    def at(*spots):
        return tuple((float(x), float(y)) for x, y in to_px(np.array(spots)))

    ends = {"nose": at(NOSE)[0], "tail": at(TAIL)[0], "on": at((70, 50))[0], **more}
    if by == "sheet":
        return Marks(sheet=at((0, 0), (SHEET[0], 0), SHEET, (0, SHEET[1])), sheet_mm=SHEET, **ends)
    return Marks(ruler=at((20, 88), (120, 88)), ruler_mm=100.0, **ends)


def straight_template():
    """The template as a maker straightens it: nose and tail level."""
    way = OUTLINE[160] - OUTLINE[0]
    cos, sin = way / np.hypot(*way)
    points = OUTLINE @ np.array([[cos, -sin], [sin, cos]])
    low, high = points.min(axis=0), points.max(axis=0)
    return points - [low[0], (low[1] + high[1]) / 2]


def as_line(lines):
    shares = share_of_phi(np.linspace(0, np.pi, 301))
    rows = [Curve(tuple(s for s, _ in row), tuple(v for _, v in row)) for row in (lines.upper, lines.lower)]
    upper, lower = (
        np.column_stack([lines.length_mm * shares, row.at(np.linspace(0, np.pi, 301))]) for row in rows
    )
    return LineString(np.vstack([upper, lower[::-1], upper[:1]]))


@pytest.mark.parametrize("drawn", [True, False], ids=["drawn", "cut"])
@pytest.mark.parametrize(("view", "by"), [("slanted", "sheet"), ("straight", "sheet"), ("straight", "ruler")])
def test_a_template_is_traced_within_half_a_millimetre(drawn, view, by):
    picture, to_px = shot(drawn, view)
    found = trace(picture, marks(to_px, by))
    true = LineString(np.vstack([straight_template(), straight_template()[:1]]))
    assert found.drawn == drawn and len(found.lines.upper) <= 32
    assert as_line(found.lines).hausdorff_distance(true) < 0.5
    assert found.lines.length_mm == pytest.approx(88, abs=0.4) and found.lines.depth_mm == pytest.approx(
        30, abs=0.4
    )


def test_the_points_to_correct_are_few_and_lie_on_the_outline():
    picture, to_px = shot(False, "slanted")
    given = marks(to_px, "sheet")
    found = trace(picture, given)
    few = corners(found)
    assert 8 <= len(few) <= 80
    again = lines_of(
        straightened(
            transform.ProjectiveTransform.from_estimate(
                np.array(given.sheet), np.array([(0, 0), (148, 0), (148, -105), (0, -105)])
            )(few),
            given,
        )
    )
    assert as_line(again).hausdorff_distance(as_line(found.lines)) < 0.3


def test_an_outline_always_makes_a_body_however_the_tips_were_marked():
    picture, to_px = shot(False, "slanted")
    shake, straight = np.random.default_rng(0), 0
    for _ in range(12):
        given = marks(to_px, "sheet")
        given = replace(
            given,
            nose=tuple(np.array(given.nose) + shake.normal(0, 2, 2)),
            tail=tuple(np.array(given.tail) + shake.normal(0, 2, 2)),
        )
        lines = lines_of(straightened(frame(given)(corners(trace(picture, given))), given))
        upper, lower = (
            Curve(tuple(s for s, _ in row), tuple(v for _, v in row)) for row in (lines.upper, lines.lower)
        )
        Body(lines.length_mm, upper, lower, upper)
        straight += abs(lines.depth_mm - 30) < 0.6
    assert straight == 12


def test_a_picture_with_the_belly_up_is_turned_over():
    picture, to_px = shot(False, "straight")
    up, down = (trace(picture, marks(to_px, "ruler", flip=flip)).lines for flip in (False, True))
    assert max(v for _, v in up.upper) == pytest.approx(-min(v for _, v in down.lower), abs=0.05)


REFUSED = [
    ({"ruler": None}, "mark two points"),
    ({"ruler": ((0, 0), (5, 5)), "ruler_mm": 10.0}, "further apart"),
    ({"ruler": ((0, 0), (500, 5)), "ruler_mm": 0.0}, "1 to 3000 mm"),
    ({"sheet": ((0, 0), (0, 90), (90, 90), (90, 0)), "sheet_mm": (90.0, 90.0)}, "clockwise"),
    ({"sheet": ((0, 0), (90, 0), (90, 90), (0, 90)), "sheet_mm": (90.0, float("nan"))}, "sheet height"),
]


@pytest.mark.parametrize(("given", "says"), REFUSED)
def test_marks_that_give_no_scale_are_refused(given, says):
    with pytest.raises(Refused, match=says):
        Marks(**given)


def test_pictures_with_nothing_to_trace_say_so():
    ruler = Marks(ruler=((10.0, 10.0), (300.0, 10.0)), ruler_mm=100.0)
    with pytest.raises(Refused, match="plain ground"):
        trace(np.full((400, 600, 3), 200, dtype=np.uint8), ruler)
    cut_off = np.full((400, 600, 3), 230, dtype=np.uint8)
    cut_off[150:250, 300:] = 40
    with pytest.raises(Refused, match="reaches the edge"):
        trace(cut_off, ruler)


def deviation_mm(lines, outline):
    """Greatest difference in height from an outline with the same nose, 1 % from either end left out."""
    x = np.linspace(0.01, 0.99, 201) * lines.length_mm
    high, low = edges_at(outline, float(outline[:, 0].min()) + x)
    upper, lower = (
        Curve(*zip(*row, strict=True)).at(phi_of_share(x / lines.length_mm))
        for row in (lines.upper, lines.lower)
    )
    return max(np.abs(upper - high).max(), np.abs(lower - low).max())


class TestLines:
    @pytest.mark.parametrize("form", ["slim", "stubby", "glider", "popper", "walker", "tadpole"])
    def test_every_form_is_found_again_from_its_outline(self, form):
        start = FORMS[form]
        body = body_from(start, 90, 22, 16)
        side, top = side_outline(body, 241), top_outline(body, 241)
        assert deviation_mm(lines_of(side), side) < 0.25
        plan = width_line(top)
        assert 2 * max(v for _, v in plan.upper) == pytest.approx(16, abs=0.1) and len(plan.upper) <= 35

    @pytest.mark.parametrize(
        ("points", "says"),
        [
            ([(0, 0), (1, 1)], "3 to"),
            ([(0, 0), (50, float("inf")), (90, 0)], "finite"),
            ([(0, 0), (2, 1), (1, 2)], "5 to 600 mm"),
            ([(0, 0), (9000, 5), (50, 9)], "unit or the scale"),
            ([(0, 0), (50, 0.1), (90, 0)], "0.5 to 300 mm"),
        ],
    )
    def test_outlines_that_are_no_body_are_refused(self, points, says):
        with pytest.raises(Refused, match=says):
            lines_of(np.array(points, dtype=float))

"""A photo of a template or a bait as an outline in millimetres: scale, straightening, and the outline itself
by scikit-image.

Picture coordinates are pixels (x right, y down); template coordinates millimetres (y up).
"""

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray
from scipy import ndimage
from skimage import color, filters, measure, morphology, transform

from lamsik.core.errors import Refused, finite_between, require, rule
from lamsik.core.findings import finding
from lamsik.core.quantities import said
from lamsik.core.shapes.curves import Array
from lamsik.core.shapes.outlining import Lines, lines_of

Pixel = tuple[float, float]

WORK_PIXELS = 1_600_000
"""The outline is looked for on a picture no larger than this; its edge is then known to a fraction of a
pixel.
"""

SHEET_SHARE = 0.3
"""What covers more of the picture than this is the paper the thing lies on."""

TIP_SHARE = 0.02
"""A marked tip is believed this far beyond the outline, as a share of the length."""

GRAIN = 3.0
"""How far the outline is smoothed along itself, in its points: the grain of the picture, not the shape."""

DRAWN_BELOW = 0.55
"""A shape of which less than this share is dark was drawn as a line, not cut out."""


@dataclass(frozen=True)
class Marks:
    """What the maker marks in the picture.

    `ruler` are two points `ruler_mm` apart. `sheet` are the four corners of a flat sheet of known size
    (width, height [mm]), clockwise from its top left: with it perspective is taken out. `on` is a point on
    the thing itself, `nose` and `tail` its ends. `flip` says that the picture shows it belly up.
    """

    ruler: tuple[Pixel, Pixel] | None = None
    ruler_mm: float = 0.0
    sheet: tuple[Pixel, Pixel, Pixel, Pixel] | None = None
    sheet_mm: tuple[float, float] = (0.0, 0.0)
    on: Pixel | None = None
    nose: Pixel | None = None
    tail: Pixel | None = None
    flip: bool = False

    def __post_init__(self) -> None:
        require(
            self.ruler is not None or self.sheet is not None,
            "scale",
            None,
            rule("mark-two"),
        )
        if self.sheet is not None:
            for name, value in zip(("sheet width", "sheet height"), self.sheet_mm, strict=True):
                finite_between(name, value, 10.0, 3000.0, "mm")
            require(
                _is_convex(self.sheet),
                "sheet",
                self.sheet,
                rule("mark-four"),
            )
        elif self.ruler is not None:
            finite_between("ruler", self.ruler_mm, 1.0, 3000.0, "mm")
            far = np.hypot(self.ruler[0][0] - self.ruler[1][0], self.ruler[0][1] - self.ruler[1][1])
            require(
                bool(far >= 20),
                "ruler",
                f"{far:.0f} pixels apart",
                rule("mark-two-points"),
            )


def _is_convex(corners: tuple[Pixel, ...]) -> bool:
    """Whether four corners go round clockwise (y down) without a dent."""
    p = np.array(corners)
    a, b = np.roll(p, -1, axis=0) - p, np.roll(p, -2, axis=0) - np.roll(p, -1, axis=0)
    return bool(np.all(a[:, 0] * b[:, 1] - a[:, 1] * b[:, 0] > 1.0))


@dataclass(frozen=True, eq=False)
class Traced:
    """A traced outline: points in the picture (n, 2) [px], in the template's frame (n, 2) [mm], its lines,
    how it was drawn.
    """

    pixels: Array
    points: Array
    lines: Lines
    drawn: bool
    mm_per_pixel: float


def frame(marks: Marks) -> transform.ProjectiveTransform:
    """The map from picture pixels to millimetres, y up, before straightening."""
    if marks.sheet is not None:
        wide, high = marks.sheet_mm
        corners = np.array([(0.0, 0.0), (wide, 0.0), (wide, -high), (0.0, -high)])
        return transform.ProjectiveTransform.from_estimate(np.array(marks.sheet, dtype=float), corners)
    assert marks.ruler is not None
    a, b = np.array(marks.ruler[0]), np.array(marks.ruler[1])
    scale = marks.ruler_mm / float(np.hypot(*(a - b)))
    return transform.ProjectiveTransform(matrix=np.diag([scale, -scale, 1.0]))


def trace(picture: NDArray[np.uint8], marks: Marks) -> Traced:
    """The outline of the thing in a picture (h, w, 3).

    Raises:
        Refused: no scale, nothing stands out from the background, or the thing reaches the picture's edge.
    """
    step = max(1, int(np.ceil((picture.shape[0] * picture.shape[1] / WORK_PIXELS) ** 0.5)))
    small = _reduced(picture, step)
    lab = np.asarray(color.rgb2lab(ndimage.uniform_filter(small, (3, 3, 1))), dtype=np.float32)
    inside = _sheet_mask(small.shape[:2], marks, step)
    dark = _stands_out(lab, inside)
    here = _the_thing(ndimage.binary_fill_holes(dark), marks, step)
    if marks.sheet is None and here.mean() > SHEET_SHARE:  # that is the paper it lies on: look again on it
        inside = ndimage.binary_erosion(here, iterations=max(3, min(here.shape) // 100))
        dark = _stands_out(lab, inside)
        here = _the_thing(ndimage.binary_fill_holes(dark), marks, step)
    drawn = float((dark & here).sum()) < DRAWN_BELOW * float(here.sum())
    edge = _edge(here, dark & here if drawn else None)
    pixels = _tipped((edge[:, ::-1] + 0.5) * step - 0.5, marks)
    flat = frame(marks)(pixels)
    points = straightened(flat, marks)
    if np.ptp(points[:, 0]) < 5.0:
        raise Refused(
            "outline",
            f"{said(np.ptp(points[:, 0]), 'length')} long",
            rule("too-small"),
        )
    span = float(np.ptp(points[:, 0])) / max(float(np.ptp(pixels[:, 0])), float(np.ptp(pixels[:, 1])), 1.0)
    return Traced(pixels, points, lines_of(points), drawn, span)


def _reduced(picture: NDArray[np.uint8], step: int) -> NDArray[np.uint8]:
    """The picture at a whole fraction of its size, each pixel the mean of a block."""
    if step == 1:
        return picture
    rows, columns = picture.shape[0] // step, picture.shape[1] // step
    total = np.zeros((rows, columns, 3), dtype=np.uint16)
    for i in range(step):
        for j in range(step):
            total += picture[i : rows * step : step, j : columns * step : step]
    return np.asarray(total // step**2, dtype=np.uint8)


def _stands_out(lab: NDArray[np.float32], inside: NDArray[np.bool_]) -> NDArray[np.bool_]:
    """Where the picture differs from its background, by Otsu's threshold on the colour difference to it."""
    background = np.median(lab[_rim(inside)], axis=0)
    far = np.sqrt(((lab - background) ** 2).sum(axis=2))
    far = np.maximum(far - _shade(far, inside), 0.0)
    limit = float(filters.threshold_otsu(far[inside]))
    if limit < 2.0:
        raise Refused("picture", finding("nothing-stands-out"), rule("put-plain"))
    mask = (far > limit) & inside
    return np.asarray(
        morphology.remove_small_objects(
            morphology.closing(mask, morphology.disk(2)), max_size=max(64, mask.size // 20_000)
        )
    )


def _shade(far: Array, inside: NDArray[np.bool_]) -> float:
    """The noise of the ground: what half of it differs by."""
    return float(np.median(far[inside])) * 0.5


def _sheet_mask(shape: tuple[int, ...], marks: Marks, step: int) -> NDArray[np.bool_]:
    """The sheet's own area, a little inside its corners; the whole picture without one."""
    if marks.sheet is None:
        return np.ones(shape[:2], dtype=bool)
    corners = np.array(marks.sheet) / step
    inner = corners + 0.015 * (corners.mean(axis=0) - corners)
    return np.asarray(measure.grid_points_in_poly((int(shape[0]), int(shape[1])), inner[:, ::-1]))


def _rim(inside: NDArray[np.bool_]) -> NDArray[np.bool_]:
    """A band along the edge of the area looked at: mostly ground."""
    width = max(2, min(inside.shape) // 30)
    return inside & ~ndimage.binary_erosion(inside, iterations=width, border_value=0)


def _the_thing(filled: NDArray[np.bool_], marks: Marks, step: int) -> NDArray[np.bool_]:
    """The region under the maker's point, or nearest to it; without a point the largest that does not
    touch the edge.
    """
    label = measure.label(filled)
    if label.max() == 0:
        raise Refused("picture", finding("nothing-stands-out"), rule("put-plain"))
    if marks.on is not None:
        y, x = (
            int(np.clip(v / step, 0, size - 1))
            for v, size in zip((marks.on[1], marks.on[0]), label.shape, strict=True)
        )
        if label[y, x] == 0:
            _, (rows, columns) = ndimage.distance_transform_edt(label == 0, return_indices=True)
            y, x = int(rows[y, x]), int(columns[y, x])
        thing = label == label[y, x]
    else:
        regions = sorted(measure.regionprops(label), key=lambda r: -r.area)
        free = [
            r
            for r in regions
            if r.bbox[0] > 0 and r.bbox[1] > 0 and r.bbox[2] < label.shape[0] and r.bbox[3] < label.shape[1]
        ]
        thing = label == (free or regions)[0].label
    if thing[0].any() or thing[-1].any() or thing[:, 0].any() or thing[:, -1].any():
        raise Refused(
            "picture",
            finding("reaches-the-edge"),
            rule("whole-outline"),
        )
    return np.asarray(thing)


def _edge(region: NDArray[np.bool_], line: NDArray[np.bool_] | None) -> Array:
    """The region's edge to a fraction of a pixel, (n, 2) rows and columns; of a drawn line the middle of
    the stroke.
    """
    rows, columns = np.nonzero(region)
    low, high = np.maximum((rows.min() - 6, columns.min() - 6), 0), (rows.max() + 7, columns.max() + 7)
    area = np.pad(region[low[0] : high[0], low[1] : high[1]], 2)
    level = filters.gaussian(area.astype(float), 0.8)
    at = 0.5
    if line is not None:
        level = ndimage.distance_transform_edt(area) - ndimage.distance_transform_edt(~area)
        level, at = filters.gaussian(level, 1.0), _stroke(line, region) / 2
    contour = max(measure.find_contours(level, at), key=len)
    smooth = ndimage.gaussian_filter1d(contour[:-1], GRAIN, axis=0, mode="wrap")
    return np.asarray(smooth - 2 + low)


def _stroke(line: NDArray[np.bool_], region: NDArray[np.bool_]) -> float:
    """Width of a drawn outline [px]: its area over its length."""
    return float(line.sum()) / max(float(measure.perimeter(region)), 1.0)


def _tipped(pixels: Array, marks: Marks) -> Array:
    """The outline with the marked tips put in where it falls a little short of them: a fine point is lost
    in the picture's grain.
    """
    if marks.nose is None or marks.tail is None:
        return pixels
    ends = np.array([marks.nose, marks.tail], dtype=float)
    span = float(np.hypot(*(ends[0] - ends[1])))
    for end, other in (ends, ends[::-1]):
        way = (end - other) / max(span, 1e-9)
        short = float(end @ way - (pixels @ way).max())
        if 0.0 < short < TIP_SHARE * span:
            near = int(np.argmin(np.hypot(*(pixels - end).T)))
            pixels = np.insert(pixels, near + 1, end, axis=0)
    return pixels


def straightened(points: Array, marks: Marks) -> Array:
    """Points [mm] turned so that the body lies along x, nose at x = 0, back up, z = 0 in the middle of its
    height.

    The ends are those marked, else the axis of the least box round it.
    """
    to_mm = frame(marks)
    if marks.nose is not None and marks.tail is not None:
        nose, tail = (to_mm(np.array([end], dtype=float))[0] for end in (marks.nose, marks.tail))
        way = tail - nose
        require(float(np.hypot(*way)) > 1.0, "tail", marks.tail, rule("mark-nose"))
    else:
        way = _long_axis(points)
    cos, sin = way / np.hypot(*way)
    turned = points @ np.array([[cos, -sin], [sin, cos]])
    if marks.flip:
        turned = turned * np.array([1.0, -1.0])
    low, high = turned.min(axis=0), turned.max(axis=0)
    return np.asarray(turned - np.array([low[0], (low[1] + high[1]) / 2]))


def _long_axis(points: Array) -> Array:
    """Direction of the least box round the points, its long side, towards +x."""
    turns = np.radians(np.arange(-90.0, 90.0, 0.25))
    across = np.outer(-np.sin(turns), points[:, 0]) + np.outer(np.cos(turns), points[:, 1])
    best = float(turns[int(np.argmin(np.ptp(across, axis=1)))])
    return np.array([np.cos(best), np.sin(best)])


CORNERS_OFF_MM, MOST_CORNERS = 0.08, 80


def warm() -> None:
    """Load the picture library's parts, which it else does at their first use."""
    dot = np.zeros((8, 8, 3), dtype=np.uint8)
    dot[2:6, 2:6] = 255
    level = filters.gaussian(color.rgb2lab(dot)[:, :, 0], 1.0)
    measure.find_contours(level, filters.threshold_otsu(level))
    morphology.disk(1)
    transform.ProjectiveTransform()


def corners(traced: Traced) -> Array:
    """The outline's points [px] that a maker corrects: as few as keep it within 0.08 mm, more coarsely
    where that is too many.
    """
    off = CORNERS_OFF_MM / traced.mm_per_pixel
    kept = measure.approximate_polygon(traced.pixels, off)
    while len(kept) > MOST_CORNERS:
        off *= 1.4
        kept = measure.approximate_polygon(traced.pixels, off)
    return np.asarray(kept[:-1])

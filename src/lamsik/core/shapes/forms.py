"""Parametric starting forms of our own: shares of length, depth and width to begin a body from."""

from dataclasses import dataclass, replace

import numpy as np
from scipy.interpolate import Akima1DInterpolator

from lamsik.core.errors import Refused, require, rule
from lamsik.core.shapes.body import Body
from lamsik.core.shapes.curves import Array, Curve, phi_of_share, share_of_phi

Points = tuple[tuple[float, float], ...]


@dataclass(frozen=True)
class Form:
    """A starting form: outlines as (share of length, share of depth or width), typical sizes in mm.

    `top` and `bottom` span one depth between them; `half` peaks at 0.5 of the width.
    """

    key: str
    name: str
    purpose: str
    length_mm: float
    depth_mm: float
    width_mm: float
    top: Points
    bottom: Points
    half: Points
    upper_exponent: float = 2.0
    lower_exponent: float = 2.0
    round_nose: bool = True
    round_tail: bool = True
    turned: bool = False


def faired(form: Form, count: int = 15) -> Form:
    """The form with its few points faired into `count`: what a long spline batten would do.

    Floats keep their straight stems.
    """
    if form.purpose == "float":
        return form
    top, bottom, half = (_fair(form, points, count) for points in (form.top, form.bottom, form.half))
    tall = (_highest(form.top) - _lowest(form.bottom)) / (_highest(top) - _lowest(bottom))
    wide = _highest(form.half) / _highest(half)
    return replace(
        form, top=_stretched(top, tall), bottom=_stretched(bottom, tall), half=_stretched(half, wide)
    )


def _highest(points: Points) -> float:
    return max(value for _, value in points)


def _lowest(points: Points) -> float:
    return min(value for _, value in points)


def _stretched(points: Points, factor: float) -> Points:
    return tuple((share, round(value * factor, 5)) for share, value in points)


def _fair(form: Form, points: Points, count: int) -> Points:
    """Points on the smooth (makima) curve through the given ones, in the curve's own parameter."""
    shares, values = np.array([p[0] for p in points]), np.array([p[1] for p in points])
    t, _ = Curve(tuple(shares), tuple(values), form.round_nose, form.round_tail).parameter(
        phi_of_share(shares)
    )
    smooth = Akima1DInterpolator(t, values, method="makima")
    between = np.linspace(0.0, 1.0, count)
    at = np.unique(np.concatenate([between[np.abs(between[:, None] - t).min(axis=1) > 0.3 / count], t]))
    back = np.interp(at, *_parameter_table(form))
    return tuple((round(float(s), 5), float(v)) for s, v in zip(back, smooth(at), strict=True))


def _parameter_table(form: Form) -> tuple[Array, Array]:
    """Curve parameter against share of length, for reading it backwards."""
    shares = share_of_phi(np.linspace(0.0, np.pi, 4001))
    shares[-1] = 1.0
    t, _ = Curve((0.0, 1.0), (0.0, 0.0), form.round_nose, form.round_tail).parameter(phi_of_share(shares))
    return t, shares


FORMS: dict[str, Form] = {
    form.key: faired(form)
    for form in (
        Form(
            "slim",
            "Slim runner",
            "bait",
            90,
            18,
            13,
            top=((0, 0.06), (0.1, 0.28), (0.3, 0.47), (0.5, 0.46), (0.75, 0.3), (1, 0.1)),
            bottom=((0, 0.06), (0.1, -0.24), (0.35, -0.53), (0.6, -0.45), (0.85, -0.12), (1, 0.1)),
            half=((0, 0.0), (0.1, 0.3), (0.32, 0.5), (0.6, 0.42), (0.85, 0.2), (1, 0.0)),
        ),
        Form(
            "stubby",
            "Stubby diver",
            "bait",
            60,
            26,
            21,
            top=((0, 0.02), (0.12, 0.33), (0.38, 0.5), (0.65, 0.33), (0.9, 0.1), (1, 0.02)),
            bottom=((0, 0.02), (0.1, -0.28), (0.36, -0.5), (0.65, -0.36), (0.9, -0.1), (1, 0.02)),
            half=((0, 0.0), (0.12, 0.34), (0.36, 0.5), (0.68, 0.33), (0.9, 0.12), (1, 0.0)),
        ),
        Form(
            "glider",
            "Slab glider",
            "bait",
            120,
            34,
            18,
            top=((0, 0.02), (0.08, 0.27), (0.35, 0.48), (0.7, 0.36), (0.92, 0.2), (1, 0.12)),
            bottom=((0, 0.02), (0.08, -0.24), (0.4, -0.52), (0.72, -0.4), (0.92, -0.18), (1, -0.1)),
            half=((0, 0.0), (0.08, 0.34), (0.35, 0.5), (0.7, 0.44), (0.92, 0.26), (1, 0.16)),
            upper_exponent=3.2,
            lower_exponent=3.2,
            round_tail=False,
        ),
        Form(
            "popper",
            "Cupped popper",
            "bait",
            80,
            20,
            20,
            top=((0, 0.5), (0.15, 0.47), (0.4, 0.38), (0.7, 0.3), (0.9, 0.22), (1, 0.0)),
            bottom=((0, -0.5), (0.15, -0.45), (0.4, -0.37), (0.7, -0.3), (0.9, -0.22), (1, 0.0)),
            half=((0, 0.5), (0.15, 0.46), (0.4, 0.38), (0.7, 0.3), (0.9, 0.22), (1, 0.0)),
        ),
        Form(
            "chugger",
            "Chugger",
            "bait",
            70,
            20,
            20,
            top=((0, 0.44), (0.06, 0.5), (0.22, 0.36), (0.45, 0.38), (0.7, 0.42), (0.9, 0.3), (1, 0.0)),
            bottom=(
                (0, -0.44),
                (0.06, -0.5),
                (0.22, -0.36),
                (0.45, -0.38),
                (0.7, -0.42),
                (0.9, -0.3),
                (1, 0.0),
            ),
            half=((0, 0.44), (0.06, 0.5), (0.22, 0.36), (0.45, 0.38), (0.7, 0.42), (0.9, 0.3), (1, 0.0)),
            turned=True,
        ),
        Form(
            "poppinghead",
            "Popper head",
            "bait",
            24,
            12,
            12,
            top=((0, 0.5), (0.35, 0.47), (0.7, 0.32), (0.86, 0.2), (1, 0.18)),
            bottom=((0, -0.5), (0.35, -0.47), (0.7, -0.32), (0.86, -0.2), (1, -0.18)),
            half=((0, 0.5), (0.35, 0.47), (0.7, 0.32), (0.86, 0.2), (1, 0.18)),
            round_nose=False,
            round_tail=False,
            turned=True,
        ),
        Form(
            "divinghead",
            "Diver head",
            "bait",
            26,
            12,
            12,
            top=((0, 0.0), (0.15, 0.26), (0.45, 0.45), (0.7, 0.5), (0.88, 0.46), (1, 0.4)),
            bottom=((0, 0.0), (0.15, -0.26), (0.45, -0.45), (0.7, -0.5), (0.88, -0.46), (1, -0.4)),
            half=((0, 0.0), (0.15, 0.26), (0.45, 0.45), (0.7, 0.5), (0.88, 0.46), (1, 0.4)),
            round_tail=False,
            turned=True,
        ),
        Form(
            "walker",
            "Surface walker",
            "bait",
            105,
            19,
            19,
            top=((0, 0.0), (0.12, 0.26), (0.45, 0.45), (0.7, 0.5), (0.9, 0.34), (1, 0.0)),
            bottom=((0, 0.0), (0.12, -0.28), (0.45, -0.46), (0.7, -0.5), (0.9, -0.34), (1, 0.0)),
            half=((0, 0.0), (0.12, 0.27), (0.45, 0.46), (0.7, 0.5), (0.9, 0.34), (1, 0.0)),
        ),
        Form(
            "deepflank",
            "Deep flank",
            "bait",
            75,
            34,
            14,
            top=((0, 0.0), (0.1, 0.22), (0.4, 0.48), (0.7, 0.26), (0.9, 0.08), (1, 0.1)),
            bottom=((0, 0.0), (0.1, -0.2), (0.42, -0.52), (0.72, -0.28), (0.9, -0.06), (1, -0.08)),
            half=((0, 0.0), (0.1, 0.3), (0.38, 0.5), (0.7, 0.32), (0.9, 0.14), (1, 0.1)),
            lower_exponent=1.5,
            round_tail=False,
        ),
        Form(
            "tadpole",
            "Tadpole",
            "bait",
            70,
            24,
            22,
            top=((0, 0.0), (0.14, 0.42), (0.3, 0.5), (0.5, 0.32), (0.75, 0.14), (1, 0.05)),
            bottom=((0, 0.0), (0.14, -0.4), (0.3, -0.5), (0.5, -0.33), (0.75, -0.14), (1, -0.05)),
            half=((0, 0.0), (0.14, 0.42), (0.3, 0.5), (0.5, 0.3), (0.75, 0.14), (1, 0.06)),
            round_tail=False,
        ),
        Form(
            "stick",
            "Stick float",
            "float",
            160,
            7,
            7,
            top=((0, 0.28), (0.04, 0.34), (0.2, 0.46), (0.35, 0.5), (0.6, 0.3), (1, 0.18)),
            bottom=((0, -0.28), (0.04, -0.34), (0.2, -0.46), (0.35, -0.5), (0.6, -0.3), (1, -0.18)),
            half=((0, 0.28), (0.04, 0.34), (0.2, 0.46), (0.35, 0.5), (0.6, 0.3), (1, 0.18)),
            round_nose=False,
            round_tail=False,
        ),
        Form(
            "antenna",
            "Antenna float",
            "float",
            180,
            16,
            16,
            top=((0, 0.06), (0.48, 0.06), (0.53, 0.13), (0.68, 0.5), (0.82, 0.14), (0.86, 0.08), (1, 0.07)),
            bottom=(
                (0, -0.06),
                (0.48, -0.06),
                (0.53, -0.13),
                (0.68, -0.5),
                (0.82, -0.14),
                (0.86, -0.08),
                (1, -0.07),
            ),
            half=((0, 0.06), (0.48, 0.06), (0.53, 0.13), (0.68, 0.5), (0.82, 0.14), (0.86, 0.08), (1, 0.07)),
            round_nose=False,
            round_tail=False,
        ),
    )
}
"""Starting forms by key; bait forms first."""


def form(key: str) -> Form:
    """The starting form of that key. Raises `Refused` with the keys there are."""
    if key not in FORMS:
        raise Refused("form", key, rule("known", listed=", ".join(FORMS)))
    return FORMS[key]


def scaled(points: Points, size_mm: float, round_nose: bool, round_tail: bool) -> Curve:
    """A curve through the points with their shares taken of `size_mm`."""
    shares = tuple(float(p[0]) for p in points)
    return Curve(shares, tuple(float(p[1]) * size_mm for p in points), round_nose, round_tail)


def body_from(
    start: Form,
    length_mm: float,
    depth_mm: float,
    width_mm: float,
    upper: float | None = None,
    lower: float | None = None,
) -> Body:
    """The form's body at a length, depth and width [mm], its section exponents kept unless given."""
    require(0.5 <= depth_mm <= 300, "depth_mm", depth_mm, rule("allowed-mm"))
    require(0.5 <= width_mm <= 300, "width_mm", width_mm, rule("allowed-mm"))
    ends = (start.round_nose, start.round_tail)
    return Body(
        length_mm=float(length_mm),
        top=scaled(start.top, depth_mm, *ends),
        bottom=scaled(start.bottom, depth_mm, *ends),
        half_width=scaled(start.half, width_mm, *ends),
        upper_exponent=start.upper_exponent if upper is None else upper,
        lower_exponent=start.lower_exponent if lower is None else lower,
    )

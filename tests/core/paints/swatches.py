"""A film of a paint on a ground, by the closed form alone: what whole bodies are held against."""

import numpy as np

from lamsik.core.paints.film import curves_of, over, over_surface, under_surface
from lamsik.core.paints.light import coded_of, reflectance, seen


def looks_like(paint, film_um, on, is_glossy=True):
    """What is seen of a film of a paint on a ground of a colour, linear (3,)."""
    ground = under_surface(reflectance(on))[:, None]
    return seen(over_surface(over(curves_of(paint), np.array([film_um]), ground)[:, 0], is_glossy))


def hex_of(linear):
    red, green, blue = (int(one) for one in coded_of(np.asarray(linear, dtype=float)))
    return f"#{red:02X}{green:02X}{blue:02X}"

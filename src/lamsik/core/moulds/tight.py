"""Where in a mould something lies too near to something else."""

from dataclasses import dataclass

import numpy as np
from scipy.spatial import cKDTree

from lamsik.core.findings import Finding, finding
from lamsik.core.moulds.layout import Mould, box, key_places, outline
from lamsik.core.shapes.curves import Array


@dataclass(frozen=True)
class Tight:
    """A distance that is less than wanted: between what, how much there is [mm], where in the plan."""

    what: Finding
    distance_mm: float
    x_mm: float
    y_mm: float


def tight_places(mould: Mould) -> tuple[Tight, ...]:
    """Where walls between cavities, the box and the keys are thinner than the edge distance."""
    walls, tights = box(mould), []
    lines = {spot.key: dense(outline(mould, spot)) for spot in mould.cavities}
    for key, points in lines.items():
        gaps = np.column_stack(
            [points[:, 0], walls.length_mm - points[:, 0], points[:, 1], walls.width_mm - points[:, 1]]
        )
        at = np.unravel_index(int(np.argmin(gaps)), gaps.shape)
        if gaps[at] < mould.edge_mm - 0.05:
            tights.append(
                Tight(
                    finding("cavity-and-wall", cavity=key[1:]),
                    float(gaps[at]),
                    float(points[at[0], 0]),
                    float(points[at[0], 1]),
                )
            )
        keys = np.array(key_places(mould)).reshape(-1, 2)
        if len(keys) and mould.parts == 2:
            near, where = cKDTree(points).query(keys)
            low = int(np.argmin(near))
            if near[low] - mould.keys.base_mm / 2 < 1.0:
                tights.append(
                    Tight(
                        finding("cavity-and-key", cavity=key[1:]),
                        float(near[low] - mould.keys.base_mm / 2),
                        float(keys[low, 0]),
                        float(keys[low, 1]),
                    )
                )
    names = list(lines)
    for n, one in enumerate(names):
        for other in names[n + 1 :]:
            near, _ = cKDTree(lines[one]).query(lines[other])
            low = int(np.argmin(near))
            if near[low] < mould.edge_mm - 0.05:
                tights.append(
                    Tight(
                        finding("two-cavities", one=one[1:], other=other[1:]),
                        float(near[low]),
                        float(lines[other][low, 0]),
                        float(lines[other][low, 1]),
                    )
                )
    return tuple(tights)


def dense(points: Array, step_mm: float = 1.0) -> Array:
    """A closed outline with points about so far apart [mm], its corners among them."""
    closed = np.vstack([points, points[:1]])
    along = np.concatenate([[0.0], np.cumsum(np.hypot(*np.diff(closed, axis=0).T))])
    at = np.unique(np.concatenate([along[:-1], np.arange(0.0, along[-1], step_mm)]))
    return np.column_stack([np.interp(at, along, closed[:, k]) for k in range(2)])

"""What a master shows to a pull direction: flat side, projected area, undercuts, thinnest section; and the
kind of mould that suits it.
"""

from dataclasses import dataclass
from functools import lru_cache

import numpy as np
from numpy.typing import NDArray

from lamsik.core.findings import Finding, finding
from lamsik.core.moulds.geometry import below_mm3, face_normals, seen
from lamsik.core.shapes.curves import Array
from lamsik.core.shapes.skins import Mesh
from lamsik.core.trade.mould_kinds import INJECTION, MOULD_KINDS, OPEN, PRESS, SPLIT, TWO_PART

KINDS = tuple(MOULD_KINDS)
FLAT_SHARE, FLAT_DEG = 0.45, 3.0
DRAFT = 0.035
"""sin of the lean (2°) from which a face counts as leaning in."""
MUCH_UNDERCUT = 0.04
THIN_MM = 2.0


@dataclass(frozen=True, eq=False)
class Features:
    """What counts for the choice: cavity [mm³], shadow [mm²], undercut faces and their share of the
    shadow, flat side, thinnest section [mm] and its x.
    """

    volume_mm3: float
    projected_mm2: float
    undercut: NDArray[np.bool_]
    undercut_mm2: float
    flat: str
    flat_mm2: float
    thinnest_mm: float
    thinnest_x_mm: float

    @property
    def undercut_share(self) -> float:
        """Undercut area over the shadow."""
        return self.undercut_mm2 / self.projected_mm2 if self.projected_mm2 else 0.0


def parting_heights(points: Array, parting_mm: float, slant_deg: float) -> Array:
    """Height of the parting plane [mm] at points (…, ≥1); it leans along x about the master's middle."""
    return np.asarray(parting_mm + np.tan(np.radians(slant_deg)) * points[..., 0])


@lru_cache(maxsize=32)
def features(
    mesh: Mesh, parting_mm: float = 0.0, slant_deg: float = 0.0, shadow_mm2: float | None = None
) -> Features:
    """What the laid master shows to a pull along +z (upper half) and −z (lower half).

    A face is undercut where it leans in under the half that is to come off it. `shadow_mm2` is its area seen
    along the pull where that is known.
    """
    shadow = seen(mesh)[1] if shadow_mm2 is None else shadow_mm2
    normals, areas = face_normals(mesh)
    middles = mesh.vertices[mesh.faces].mean(axis=1)
    upper = middles[:, 2] > parting_heights(middles, parting_mm, slant_deg)
    off = 0.02 * float(np.ptp(mesh.vertices[:, 2]))
    leaning = np.where(upper, -normals[:, 2], normals[:, 2])
    undercut = leaning > DRAFT
    low, high = mesh.vertices[:, 2].min(), mesh.vertices[:, 2].max()
    flat, flat_mm2 = _flat_side(shadow, normals, areas, middles, float(low), float(high))
    if flat == "lower":  # an open pour has no lower half: nothing is pulled down
        undercut &= middles[:, 2] > low + off
    thin, at = thinnest(mesh)
    return Features(
        below_mm3(mesh, np.array([0.0, 0.0, 1.0]), float(high) + 1.0),
        shadow,
        undercut,
        float((areas * np.abs(normals[:, 2]))[undercut].sum()),
        flat,
        flat_mm2,
        thin,
        at,
    )


def best_parting(mesh: Mesh, slant_deg: float = 0.0) -> float:
    """The height of the parting [mm] at which least leans in under the halves, the nearest to the middle
    of equals.
    """
    normals, areas = face_normals(mesh)
    middles = mesh.vertices[mesh.faces].mean(axis=1)
    low, high = float(mesh.vertices[:, 2].min()), float(mesh.vertices[:, 2].max())
    size = areas * np.abs(normals[:, 2])
    heights = np.linspace(low, high, 81)[1:-1]
    leans = middles[:, 2] - parting_heights(middles, 0.0, slant_deg)
    caught = [float(size[np.where(leans > h, -normals[:, 2], normals[:, 2]) > DRAFT].sum()) for h in heights]
    least = min(caught) + 1e-3 * float(size.sum())
    return float(
        min(
            (h for h, c in zip(heights, caught, strict=True) if c <= least),
            key=lambda h: abs(h - (low + high) / 2),
        )
    )


def _flat_side(
    shadow: float, normals: Array, areas: Array, middles: Array, low: float, high: float
) -> tuple[str, float]:
    """`lower` or `upper` where most of the shadow is one flat face; empty otherwise."""
    reach, lean = 0.02 * (high - low), float(np.cos(np.radians(FLAT_DEG)))
    for name, way, level in (("lower", -1.0, low), ("upper", 1.0, high)):
        flat = (normals[:, 2] * way > lean) & (np.abs(middles[:, 2] - level) < reach)
        area = float(areas[flat].sum())
        if area > FLAT_SHARE * shadow:
            return name, area
    return "", 0.0


def sections(mesh: Mesh, count: int = 49) -> tuple[Array, Array]:
    """Extents across (y, z) of the mesh's sections [mm], (count, 2), at x [mm] (count,): both ends left
    out.
    """
    low, high = float(mesh.vertices[:, 0].min()), float(mesh.vertices[:, 0].max())
    x = low + (high - low) * np.linspace(0.03, 0.97, count)
    ends = mesh.vertices[
        np.concatenate([mesh.faces[:, [0, 1]], mesh.faces[:, [1, 2]], mesh.faces[:, [2, 0]]])
    ]
    a, b = ends[:, 0], ends[:, 1]
    rows = []
    for at in x:
        crosses = (a[:, 0] > at) != (b[:, 0] > at)  # a corner just on the plane counts as before it
        p, q = a[crosses], b[crosses]
        cut = p[:, 1:] + ((at - p[:, 0]) / (q[:, 0] - p[:, 0]))[:, None] * (q - p)[:, 1:]
        rows.append(np.ptp(cut, axis=0) if len(cut) else np.zeros(2))
    return np.array(rows), x


def thinnest(mesh: Mesh) -> tuple[float, float]:
    """The thinnest section [mm] and its x [mm], the rounded ends apart."""
    sizes, x = sections(mesh)
    inner = sizes[3:-3].min(axis=1)
    at = int(np.argmin(inner))
    return float(inner[at]), float(x[3:-3][at])


@dataclass(frozen=True)
class Choice:
    """A kind of mould: whether it suits, and why."""

    kind: str
    suits: bool
    why: Finding


def choices(seen_features: Features, thin_mm: float = THIN_MM, injector: bool = False) -> tuple[Choice, ...]:
    """Every kind with its reason, the advised one first."""
    flat, thin = seen_features.flat == "lower", seen_features.thinnest_mm < thin_mm
    caught = seen_features.undercut_share > MUCH_UNDERCUT
    share = finding("share-of-outline", undercut_share=100 * seen_features.undercut_share)
    slim = finding("at-its-thinnest", thinnest=seen_features.thinnest_mm)
    rows = [
        Choice(OPEN, flat, _open(seen_features)),
        Choice(TWO_PART, not flat and not caught and not thin, _two_part(flat, caught, thin, share, slim)),
        Choice(
            SPLIT,
            caught and not flat,
            (finding("undercut-split", share=share) if caught else finding("nothing-holds-it")),
        ),
        Choice(
            PRESS,
            thin and not caught and not flat and not injector,
            (finding("press-it", slim=slim) if thin else finding("thick-enough")),
        ),
        Choice(
            INJECTION,
            thin and injector,
            finding("inject-it", slim=slim) if thin else finding("inject-many"),
        ),
    ]
    rows.sort(key=lambda row: not row.suits)
    if not rows[0].suits:
        rows.sort(key=lambda row: row.kind != TWO_PART)
    return tuple(rows)


def _open(seen_features: Features) -> Finding:
    if seen_features.flat == "lower":
        return finding("flat-side", flat_mm2=seen_features.flat_mm2 / 100)
    return finding("flat-side-up") if seen_features.flat else finding("no-flat-side")


def _two_part(flat: bool, caught: bool, thin: bool, share: Finding, slim: Finding) -> Finding:
    if flat:
        return finding("no-second-half")
    if caught:
        return finding("undercut-two-part", share=share)
    if thin:
        return finding("too-thin-to-pour", slim=slim)
    return finding("two-part-suits")

"""Mixed paints: what a recipe in drops looks like over a base, by what its paints absorb and scatter."""

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from lamsik.core.errors import require, rule
from lamsik.core.paints.colour import lab_seen
from lamsik.core.paints.film import over, over_surface
from lamsik.core.paints.measured import curves_measured
from lamsik.core.shapes.curves import Array


@dataclass(frozen=True, eq=False)
class Tint:
    """A paint as it is mixed: its code, K and S per µm of dry film (16,), its strength among others.

    Args:
        strength: what a drop of it does of what its swatch says, 1 until the shop's mixes say otherwise.
        drop_ml, price_ml: of one drop, and of one ml in the shop's money.
    """

    code: str
    k_um: Array
    s_um: Array
    strength: float = 1.0
    drop_ml: float = 0.05
    price_ml: float = 0.0


@dataclass(frozen=True, eq=False)
class Backing:
    """What a mixture is laid on, in how thick a film: reflectance under the surface (16,), dry film [µm]; and
    whether it is looked at under a gloss.
    """

    under: Array
    film_um: float = 20.0
    is_glossy: bool = False


def shares(tints: Sequence[Tint], drops: Sequence[float]) -> Array:
    """The share of the wet volume that each paint of a recipe is (n,). Raises `Refused` for no drops."""
    volumes = np.array([max(count, 0.0) * one.drop_ml for one, count in zip(tints, drops, strict=True)])
    require(float(volumes.sum()) > 0, "drops", 0, rule("a-drop"))
    return np.asarray(volumes / volumes.sum())


def mixed(tints: Sequence[Tint], parts: Array, strength: Array) -> tuple[Array, Array]:
    """K and S per µm (…, 16) of mixtures of n paints.

    Args:
        tints: the paints.
        parts: of each mixture, the share of its wet volume that each paint is (…, n).
        strength: of each paint (n,).

    Notes: K and S add by concentration, the volume of wet paint times the paint's strength.
    """
    weights = parts * strength
    return (
        np.asarray(weights @ np.array([one.k_um for one in tints])),
        np.asarray(weights @ np.array([one.s_um for one in tints])),
    )


def labs_mixed(tints: Sequence[Tint], parts: Array, strength: Array, grounds: Sequence[Backing]) -> Array:
    """Lab (m, 3) of m mixtures of n paints, each over its own ground: see `mixed`."""
    k_um, s_um = mixed(tints, parts, strength)
    films, under = np.array([one.film_um for one in grounds]), np.array([one.under for one in grounds])
    inside = over(curves_measured(k_um.T, s_um.T), films, under.T[:, None])[:, 0].T
    is_glossy = np.array([[one.is_glossy] for one in grounds])
    return lab_seen(np.where(is_glossy, over_surface(inside, True), over_surface(inside, False)))


def lab_mixed(tints: Sequence[Tint], drops: Sequence[float], ground: Backing) -> Array:
    """Lab (3,) of a mixture over a ground. Raises `Refused` for no drops at all."""
    strength = np.array([one.strength for one in tints])
    return np.asarray(labs_mixed(tints, shares(tints, drops)[None], strength, [ground])[0])

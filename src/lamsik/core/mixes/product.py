"""Products that are mixed: parts as named on the tin, a ratio with its basis, clocks, caution."""

import re
from dataclasses import dataclass, field
from typing import Annotated

from annotated_types import MaxLen

from lamsik.core.cautions import CAUTIONS
from lamsik.core.errors import Refused, require, rule
from lamsik.core.limits import Between, OneOf, Pattern, Says, held
from lamsik.core.quantities import plainly

MASS, VOLUME = "mass", "volume"
BASES = (MASS, VOLUME)
KINDS = ("resin", "foam", "silicone", "plastisol", "epoxy", "clear", "other")
FOAM = "foam"
MOST_PARTS, ON_A_TIN = 12, 3
"""What is mixed of paints has more parts than a tin."""
NO_FOAM_DENSITY = rule("foam-by-what-it-becomes")
FAMILIES = ("", "condensation", "addition")
"""How a silicone cures; the two must not touch."""

CONTRADICTS = 0.15
"""A cured density further than this share from that of the mixed parts contradicts them; filling and
foaming are said elsewhere.
"""


@dataclass(frozen=True)
class MixPart:
    """A part as named on the tin: its figure in the ratio and its density [g/cm³]; its key stays when it is
    renamed.
    """

    name: Annotated[str, MaxLen(60)]
    figure: Annotated[float, Between(0, 1e4, "", "in the ratio")]
    density_g_cm3: Annotated[float, Between(0.3, 12, "g/cm³")]
    key: Annotated[str, Pattern("^[a-zA-Z0-9_-]*$", 0, 40)] = field(default="", compare=False)

    def __post_init__(self) -> None:
        require(bool(self.name.strip()), "parts.name", self.name, rule("name-part"))
        held(self, "parts.")
        require(
            self.figure > 0,
            "ratio",
            f"{self.figure:g}",
            rule("every-part-needs"),
        )


@dataclass(frozen=True)
class Product:
    """A product of one part, of two or more.

    Times: pot life, gel [min]; demould, full cure, recoat window [h], all at `reference_c` [°C]. Shelf:
        `open_days` once opened.
    `tolerance_percent` is how far a part may be off its share. `free_rise_g_cm3` is a foam's own density when
    it rises freely.
    `heat_limit_c` is what it stands as a mould, `process_c` where it is poured hot, `shrink_percent` its
    linear shrinkage.
    """

    name: Annotated[str, MaxLen(120)]
    kind: Annotated[str, OneOf(KINDS)]
    basis: Annotated[str, MaxLen(10), Says("mass or volume")]
    parts: Annotated[tuple[MixPart, ...], MaxLen(MOST_PARTS)]
    tolerance_percent: Annotated[float, Between(0.1, 50, "%", "how far a part may be off its share")] = 3.0
    pot_life_min: Annotated[float, Between(0.05, 1e4, "min")] = 10.0
    gel_min: Annotated[float, Between(0.05, 1e4, "min")] = 20.0
    demould_h: Annotated[float, Between(0, 2000, "h")] = 4.0
    cure_h: Annotated[float, Between(0, 5000, "h", "full cure")] = 24.0
    reference_c: Annotated[float, Between(-20, 250, "°C", "at which all times are meant")] = 20.0
    recoat_from_h: Annotated[float, Between(0, 2000, "h")] = 0.0
    recoat_to_h: Annotated[float, Between(0, 5000, "h")] = 0.0
    open_days: Annotated[float, Between(1, 5000, "d", "good once opened")] = 365.0
    stir_s: Annotated[float, Between(0, 3600, "s")] = 0.0
    caution: Annotated[str, OneOf(("", *CAUTIONS))] = ""
    family: Annotated[str, OneOf(FAMILIES)] = ""
    cured_g_cm3: Annotated[float, Between(0.02, 12, "g/cm³", "cured, unfilled")] | None = None
    free_rise_g_cm3: Annotated[float, Between(0.01, 1.5, "g/cm³", "of a foam, rising freely")] | None = None
    shrink_percent: Annotated[float, Between(0, 20, "%", "linear")] = 0.0
    heat_limit_c: Annotated[float, Between(20, 600, "°C", "stands, as a mould")] | None = None
    process_c: Annotated[float, Between(20, 400, "°C", "poured hot at")] | None = None

    def __post_init__(self) -> None:
        require(bool(self.name.strip()), "name", self.name, rule("name-product"))
        held(self)
        require(bool(self.parts), "parts", 0, rule("three-parts"))
        require(
            len({part.name for part in self.parts}) == len(self.parts),
            "parts.name",
            [part.name for part in self.parts],
            rule("each-part"),
        )
        if self.basis not in BASES:
            raise Refused(
                "basis",
                ratio_text(self),
                rule("say-whether-ratio"),
            )
        require(
            self.cure_h >= self.demould_h,
            "cure_h",
            plainly(self.cure_h, "time"),
            rule("full-cure", demould_h=self.demould_h),
        )
        self._agree()

    def _agree(self) -> None:
        """Refuse densities that contradict each other."""
        mixed = liquid_g_cm3(self)
        if self.cured_g_cm3 is not None and self.kind != FOAM:
            off = abs(self.cured_g_cm3 / mixed - 1)
            require(
                off <= CONTRADICTS,
                "cured_g_cm3",
                plainly(self.cured_g_cm3, "density"),
                rule("parts-mix", mixed=mixed),
            )
        if self.free_rise_g_cm3 is not None:
            require(self.kind == FOAM, "free_rise_g_cm3", self.free_rise_g_cm3, rule("only-foam"))
            require(
                self.free_rise_g_cm3 < mixed,
                "free_rise_g_cm3",
                plainly(self.free_rise_g_cm3, "density"),
                rule("lighter-liquid", mixed=mixed),
            )

    @property
    def density_g_cm3(self) -> float:
        """Of what comes out of the mould, unfilled: cured if known, a foam's free rise, else of the mixed
        liquid [g/cm³].

        Raises:
            Refused: a foam of which neither is known: its liquid is up to ten times denser than what it
                becomes.
        """
        if self.cured_g_cm3 is not None:
            return self.cured_g_cm3
        if self.kind != FOAM:
            return liquid_g_cm3(self)
        if self.free_rise_g_cm3 is None:
            raise Refused("density", "", NO_FOAM_DENSITY)
        return self.free_rise_g_cm3


HARMFUL = ("resin", "foam", "plastisol")
"""Kinds that are never kept without a caution."""


def keepable(product: Product) -> Product:
    """The product, if it may be kept so. Raises `Refused` for more parts than a tin has, for a resin, foam or
    hot plastic without a caution.
    """
    require(len(product.parts) <= ON_A_TIN, "parts", len(product.parts), rule("three-parts"))
    require(
        product.kind not in HARMFUL or bool(product.caution),
        "caution",
        "none",
        rule("can-hurt", kind=product.kind),
    )
    return product


def mass_shares(product: Product) -> tuple[float, ...]:
    """Share of each part by mass; they add up to 1.

    Notes: by mass aᵢ/Σa; by volume aᵢρᵢ/Σaρ.
    """
    weights = [
        part.figure * (part.density_g_cm3 if product.basis == VOLUME else 1.0) for part in product.parts
    ]
    return tuple(weight / sum(weights) for weight in weights)


def liquid_g_cm3(product: Product) -> float:
    """Density of the mixed liquid [g/cm³]: 1/ρ = Σ wᵢ/ρᵢ, volumes add."""
    return 1.0 / sum(
        share / part.density_g_cm3 for share, part in zip(mass_shares(product), product.parts, strict=True)
    )


def ratio_text(product: Product) -> str:
    """`100:45 by mass`."""
    figures = ":".join(f"{part.figure:g}" for part in product.parts)
    return f"{figures} by {product.basis}" if product.basis in BASES else figures


_RATIO = re.compile(
    r"\s*(\d{1,4}(?:[.,]\d{1,3})?(?:\s*:\s*\d{1,4}(?:[.,]\d{1,3})?){0,2})\s*(?:by\s+)?(mass|weight|volume)?\s*",
    re.IGNORECASE,
)


def parse_ratio(text: str, basis: str = "") -> tuple[tuple[float, ...], str]:
    """Figures and basis of a ratio as typed: `100:45 by mass`, `1:1` with the basis beside it.

    Raises:
        Refused: no ratio, a zero in it, or no basis.
    """
    read = _RATIO.fullmatch(text)
    if read is None:
        raise Refused("ratio", text, rule("type-tin"))
    figures = tuple(float(figure.replace(",", ".")) for figure in read[1].split(":"))
    require(all(figure > 0 for figure in figures), "ratio", text, rule("every-part"))
    said = (read[2] or basis).lower().replace("weight", MASS)
    require(
        said in BASES or len(figures) == 1,
        "ratio",
        text,
        rule("say-whether-mass"),
    )
    return figures, said or MASS

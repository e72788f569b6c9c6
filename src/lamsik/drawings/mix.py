"""A product on a picture: what of each part makes the mix, and its clocks one over the other."""

from math import log10

from lamsik.core.mixes.product import Product, mass_shares
from lamsik.core.quantities import said
from lamsik.drawings.ink import CARD, INK, MUTED, PALE, TIP, WATER
from lamsik.drawings.svg import Node, framed, label, node

WIDE, HIGH, LEFT = 480.0, 26.0, 96.0
INKS = (WATER, "#B9813A", "#6C7A45")
LEAST_MIN = 1.0
"""Where the scale of times begins [min]."""


def mix(product: Product) -> Node:
    """Two bars, the parts by mass and by volume; under them how long each clock runs, in powers of ten."""
    by_mass = mass_shares(product)
    volumes = [share / part.density_g_cm3 for share, part in zip(by_mass, product.parts, strict=True)]
    rows = _bar(0.0, "by mass", by_mass, product)
    rows += _bar(HIGH + 12, "by volume", [volume / sum(volumes) for volume in volumes], product)
    clocks = (
        ("pot life", product.pot_life_min),
        ("gels", product.gel_min),
        ("demould", 60 * product.demould_h),
        ("full cure", 60 * product.cure_h),
    )
    most = max(60.0, *(minutes for _, minutes in clocks))
    y = 2 * (HIGH + 12) + 10
    for n, (name, minutes) in enumerate(clocks):
        rows += _clock(y + 20 * n, name, minutes, most)
    return framed(rows, 0, -4, LEFT + WIDE + 4, y + 84, f"{product.name}: its parts and its clocks")


def _bar(y: float, name: str, shares: "tuple[float, ...] | list[float]", product: Product) -> list[Node]:
    rows, x = [label(name, LEFT - 8, y + 17, 12, fill=MUTED, text_anchor="end")], LEFT
    for share, part, ink in zip(shares, product.parts, INKS, strict=False):
        wide = share * WIDE
        rows.append(node("rect", x=x, y=y, width=wide, height=HIGH, fill=ink, stroke=CARD))
        says = f"{part.name} {said(100 * share, 'percent')}"
        if wide > 6.6 * len(says):
            rows.append(label(says, x + 6, y + 17, 12, fill=CARD))
        x += wide
    return rows


def _clock(y: float, name: str, minutes: float, most: float) -> list[Node]:
    reach = log10(max(minutes, LEAST_MIN) / LEAST_MIN) / log10(most / LEAST_MIN)
    says = said(minutes, "minutes", 0) if minutes < 100 else said(minutes / 60, "time", 0)
    wide = max(reach * (WIDE - 70), 2.0)
    return [
        label(name, LEFT - 8, y + 11, 12, fill=MUTED, text_anchor="end"),
        node("rect", x=LEFT, y=y, width=wide, height=12, fill=PALE, stroke=TIP if reach < 0.5 else WATER),
        label(says, LEFT + wide + 6, y + 11, 12, fill=INK),
    ]

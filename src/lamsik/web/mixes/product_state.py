"""What a product's page shows of its document: parts and clocks drawn, fields, what follows from them."""

from typing import Any

from lamsik.core.cautions import caution
from lamsik.core.errors import Refused
from lamsik.core.mixes.product import Product, liquid_g_cm3, mass_shares, ratio_text
from lamsik.core.units import STORED
from lamsik.documents.products.document import to_product
from lamsik.documents.rows import Document
from lamsik.documents.typed import quantity_of
from lamsik.drawings.mix import mix
from lamsik.web.mixes.view import ProductPanel, ProductView, TinPart
from lamsik.web.shared.facts import Fact
from lamsik.web.shared.fields import fields
from lamsik.web.shared.view import Head, edit, plain
from lamsik.words import refusals
from lamsik.words.quantities import said


def view(document: Document) -> dict[str, Any]:
    """The computed part of the state."""
    product = to_product(document)
    ratio = ratio_text(product)
    head = Head(
        fields=fields({**document, "typed": {}}, "mm") | _as_on_the_tin(document),
        settled=True,
        near=None,
        sentence=f"{ratio[0].upper()}{ratio[1:]}.",
        selected={},
    )
    return plain(ProductView(head, _product(product)))


def _as_on_the_tin(document: Document) -> dict[str, str]:
    """Figures with no more digits than the tin has: 45 min are 0.75 h, not 0.8."""
    figures = document | {
        f"parts.{row['key']}.density_g_cm3": row["density_g_cm3"] for row in document["parts"]
    }
    return {
        path: f"{value:g} {STORED[quantity_of(path)]}"
        for path, value in figures.items()
        if isinstance(value, int | float) and quantity_of(path) != "number"
    }


def _product(product: Product) -> ProductPanel:
    liquid = said(liquid_g_cm3(product), "density")
    facts = [Fact("liquid", "Mixed liquid", liquid, "the parts, volumes added")]
    try:
        density = said(product.density_g_cm3, "density")
        facts.append(Fact("density", "Unfilled", density, "what comes out of the mould, no filler in it"))
    except Refused as refused:
        facts.append(Fact("density", "Unfilled", "not known", f"{refusals.allowed(refused)}."))
    return ProductPanel(
        picture=mix(product),
        parts=_parts(product),
        facts=facts,
        caution=caution(product.caution) if product.caution else "",
    )


def _parts(product: Product) -> list[TinPart]:
    only = "a product has one part at least" if len(product.parts) == 1 else ""
    return [
        TinPart(
            key=part.key,
            name=f"parts.{part.key}.name",
            name_says=f"Part {n}, as on the tin",
            figure=f"parts.{part.key}.figure",
            figure_says=f"{part.name} in the ratio",
            density=f"parts.{part.key}.density_g_cm3",
            density_says=f"Density of {part.name}",
            share=said(100 * share, "percent"),
            only=only,
            remove=edit("remove", group="parts", key=part.key),
            remove_says=f"Take {part.name} off",
        )
        for n, (part, share) in enumerate(zip(product.parts, mass_shares(product), strict=True), start=1)
    ]

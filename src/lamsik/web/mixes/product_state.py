"""What a product's page shows of its document: parts and clocks drawn, fields, what follows from them."""

from typing import Any

from lamsik.core.errors import Refused
from lamsik.core.mixes.product import Product, liquid_g_cm3, mass_shares, ratio_text
from lamsik.core.quantities import said
from lamsik.documents.products.document import to_product
from lamsik.documents.rows import Document
from lamsik.drawings.mix import mix
from lamsik.web.mixes.view import ProductPanel, ProductView, TinPart
from lamsik.web.shared.facts import Fact
from lamsik.web.shared.fields import as_typed
from lamsik.web.shared.view import Head, RowField, edit, plain
from lamsik.words import refusals
from lamsik.words.cautions import caution


def view(document: Document) -> dict[str, Any]:
    """The computed part of the state."""
    product = to_product(document)
    ratio = ratio_text(product)
    head = Head(
        fields=as_typed(document),
        settled=True,
        near=None,
        sentence=f"{ratio[0].upper()}{ratio[1:]}.",
        selected={},
    )
    return plain(ProductView(head, _product(product)))


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
            name=RowField(f"parts.{part.key}.name", f"Part {n}, as on the tin"),
            figure=RowField(f"parts.{part.key}.figure", f"{part.name} in the ratio"),
            density=RowField(f"parts.{part.key}.density_g_cm3", f"Density of {part.name}"),
            share=said(100 * share, "percent"),
            only=only,
            remove=edit("remove", group="parts", key=part.key),
            remove_says=f"Take {part.name} off",
        )
        for n, (part, share) in enumerate(zip(product.parts, mass_shares(product), strict=True), start=1)
    ]

"""The Mixes bench: what stands in the header, and where its pages are."""

from lamsik.web.mixes import product_live, products, views
from lamsik.web.shared.bench import BenchPages

BENCH = BenchPages(
    "Mixes",
    "mixes.index",
    (
        views.blueprint,
        products.blueprint,
        product_live.blueprint,
    ),
)

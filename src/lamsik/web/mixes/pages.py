"""The Mixes bench: what stands in the header, and where its pages are."""

from lamsik.web.mixes import products, views
from lamsik.web.shared.bench import BenchPages

BENCH = BenchPages(
    "Mixes",
    "mixes.index",
    (
        views.blueprint,
        products.blueprint,
    ),
)

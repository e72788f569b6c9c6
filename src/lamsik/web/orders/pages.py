"""The Orders bench: what stands in the header, and where its pages are."""

from lamsik.web.orders import custody, customers, grid, letters, lines, papers, parcels, ready, views
from lamsik.web.shared.bench import BenchPages

BENCH = BenchPages(
    "Orders",
    "orders.index",
    (
        views.blueprint,
        lines.blueprint,
        grid.blueprint,
        ready.blueprint,
        letters.blueprint,
        papers.blueprint,
        parcels.blueprint,
        customers.blueprint,
        custody.blueprint,
    ),
)

"""The Stores bench: what stands in the header, and where its pages are."""

from lamsik.web.shared.bench import BenchPages
from lamsik.web.stores import (
    backups,
    costs,
    count,
    everything,
    items,
    labels,
    machines,
    people,
    prices,
    short,
    stock,
    suppliers,
    tables,
    units,
    views,
    year,
)

BENCH = BenchPages(
    "Stores",
    "stores_stock.index",
    (
        views.blueprint,
        stock.blueprint,
        items.blueprint,
        short.blueprint,
        count.blueprint,
        labels.blueprint,
        suppliers.blueprint,
        machines.blueprint,
        tables.blueprint,
        everything.blueprint,
        costs.blueprint,
        prices.blueprint,
        year.blueprint,
        backups.blueprint,
        people.blueprint,
        units.blueprint,
    ),
)

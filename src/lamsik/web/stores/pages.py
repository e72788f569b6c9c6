"""The Stores bench: what stands in the header, and where its pages are."""

from lamsik.web.shared.bench import BenchPages
from lamsik.web.stores import backups, people, units, views

BENCH = BenchPages(
    "Stores",
    "stores.index",
    (
        views.blueprint,
        backups.blueprint,
        people.blueprint,
        units.blueprint,
    ),
)

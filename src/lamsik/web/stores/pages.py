"""The Stores bench: what stands in the header, and where its pages are."""

from lamsik.web.shared.bench import Bench
from lamsik.web.stores import backups, views

BENCH = Bench(
    "Stores",
    "stores.index",
    (
        views.blueprint,
        backups.blueprint,
    ),
)

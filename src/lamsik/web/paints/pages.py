"""The Paints bench: what stands in the header, and where its pages are."""

from lamsik.web.paints import live, views
from lamsik.web.shared.bench import Bench

BENCH = Bench(
    "Paints",
    "paints.index",
    (
        views.blueprint,
        live.blueprint,
    ),
)

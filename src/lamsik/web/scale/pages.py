"""The Scale bench: what stands in the header, and where its pages are."""

from lamsik.web.scale import port, things, views
from lamsik.web.shared.bench import BenchPages

BENCH = BenchPages(
    "Scale",
    "scale.bench",
    (
        views.blueprint,
        port.blueprint,
        things.blueprint,
    ),
)

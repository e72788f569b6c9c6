"""The Floats bench: what stands in the header, and where its pages are."""

from lamsik.web.floats import inwords, live, make, shots, views
from lamsik.web.shared.bench import BenchPages

BENCH = BenchPages(
    "Floats",
    "floats.index",
    (
        views.blueprint,
        live.blueprint,
        inwords.blueprint,
        make.blueprint,
        shots.blueprint,
    ),
)

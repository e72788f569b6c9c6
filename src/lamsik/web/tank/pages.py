"""The Tank bench: what stands in the header, and where its pages are."""

from lamsik.web.shared.bench import BenchPages
from lamsik.web.tank import history, inwords, live, running, stability, twins, views

BENCH = BenchPages(
    "Tank",
    "tank.index",
    (
        views.blueprint,
        live.blueprint,
        stability.blueprint,
        twins.blueprint,
        running.blueprint,
        inwords.blueprint,
        history.blueprint,
    ),
)

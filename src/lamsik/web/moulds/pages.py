"""The Moulds bench: what stands in the header, and where its pages are."""

from lamsik.web.moulds import card, cast, live, pour, printing, views
from lamsik.web.shared.bench import BenchPages

BENCH = BenchPages(
    "Moulds",
    "moulds.index",
    (
        views.blueprint,
        live.blueprint,
        cast.blueprint,
        printing.blueprint,
        card.blueprint,
        pour.blueprint,
    ),
)

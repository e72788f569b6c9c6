"""The Moulds bench: what stands in the header, and where its pages are."""

from lamsik.web.moulds import card, cast, inwords, live, pour, printing, views
from lamsik.web.shared.bench import BenchPages

BENCH = BenchPages(
    "Moulds",
    "moulds.index",
    (
        views.blueprint,
        live.blueprint,
        inwords.blueprint,
        cast.blueprint,
        printing.blueprint,
        card.blueprint,
        pour.blueprint,
    ),
)

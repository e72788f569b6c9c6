"""The Pieces bench: what stands in the header, and where its pages are."""

from lamsik.web.pieces import steps, views
from lamsik.web.shared.bench import BenchPages

BENCH = BenchPages("Pieces", "pieces.index", (views.blueprint, steps.blueprint))

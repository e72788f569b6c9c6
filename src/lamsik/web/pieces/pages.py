"""The Pieces bench: what stands in the header, and where its pages are."""

from lamsik.web.pieces import views
from lamsik.web.shared.bench import Bench

BENCH = Bench("Pieces", "pieces.index", (views.blueprint,))

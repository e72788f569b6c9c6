"""The Handbook bench: what stands in the header, and where its pages are."""

from lamsik.web.handbook import views
from lamsik.web.shared.bench import BenchPages

BENCH = BenchPages("Handbook", "handbook.index", (views.blueprint,))

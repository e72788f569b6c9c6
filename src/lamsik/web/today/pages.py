"""The Today bench: what stands in the header, and where its pages are."""

from lamsik.web.shared.bench import BenchPages
from lamsik.web.today import views

BENCH = BenchPages("Today", "today.board", (views.blueprint,))

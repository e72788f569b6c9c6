"""The Today bench: what stands in the header, and where its pages are."""

from lamsik.web.shared.bench import BenchPages
from lamsik.web.today import history, views

BENCH = BenchPages("Today", "today.board", (views.blueprint, history.blueprint))

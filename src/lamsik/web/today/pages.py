"""The Today bench: what stands in the header, and where its pages are."""

from lamsik.web.shared.bench import Bench
from lamsik.web.today import views

BENCH = Bench("Today", "today.board", (views.blueprint,))

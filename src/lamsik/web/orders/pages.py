"""The Orders bench: what stands in the header, and where its pages are."""

from lamsik.web.orders import custody, customers, views
from lamsik.web.shared.bench import BenchPages

BENCH = BenchPages("Orders", "orders.index", (views.blueprint, customers.blueprint, custody.blueprint))

"""The benches, in the order they stand in the header."""

from lamsik.web.floats.pages import BENCH as floats
from lamsik.web.handbook.pages import BENCH as handbook
from lamsik.web.mixes.pages import BENCH as mixes
from lamsik.web.moulds.pages import BENCH as moulds
from lamsik.web.orders.pages import BENCH as orders
from lamsik.web.paints.pages import BENCH as paints
from lamsik.web.pieces.pages import BENCH as pieces
from lamsik.web.scale.pages import BENCH as scale
from lamsik.web.shapes.pages import BENCH as shapes
from lamsik.web.stores.pages import BENCH as stores
from lamsik.web.tank.pages import BENCH as tank
from lamsik.web.today.pages import BENCH as today

BENCHES = (today, orders, shapes, tank, floats, scale, moulds, mixes, paints, pieces, stores, handbook)

"""The benches, in the order they stand in the header."""

from dataclasses import dataclass

from flask import Blueprint

from lamsik.web.bodies.live import blueprint as live
from lamsik.web.floats.live import blueprint as floats_live
from lamsik.web.floats.make import blueprint as floats_make
from lamsik.web.floats.views import blueprint as floats
from lamsik.web.handbook.views import blueprint as handbook
from lamsik.web.mixes.products import blueprint as mixes_products
from lamsik.web.mixes.views import blueprint as mixes
from lamsik.web.moulds.card import blueprint as moulds_card
from lamsik.web.moulds.cast import blueprint as moulds_cast
from lamsik.web.moulds.live import blueprint as moulds_live
from lamsik.web.moulds.pour import blueprint as moulds_pour
from lamsik.web.moulds.printing import blueprint as moulds_print
from lamsik.web.moulds.views import blueprint as moulds
from lamsik.web.orders.views import blueprint as orders
from lamsik.web.paints.live import blueprint as paints_live
from lamsik.web.paints.views import blueprint as paints
from lamsik.web.pieces.views import blueprint as pieces
from lamsik.web.scale.port import blueprint as scale_port
from lamsik.web.scale.things import blueprint as scale_things
from lamsik.web.scale.views import blueprint as scale
from lamsik.web.shapes.blades import blueprint as blades
from lamsik.web.shapes.bring import blueprint as shapes_bring
from lamsik.web.shapes.compare import blueprint as shapes_compare
from lamsik.web.shapes.family import blueprint as shapes_family
from lamsik.web.shapes.joints import blueprint as shapes_joints
from lamsik.web.shapes.make import blueprint as shapes_make
from lamsik.web.shapes.trace import blueprint as shapes_trace
from lamsik.web.shapes.views import blueprint as shapes
from lamsik.web.stores.backups import blueprint as stores_backups
from lamsik.web.stores.views import blueprint as stores
from lamsik.web.tank.history import blueprint as tank_history
from lamsik.web.tank.live import blueprint as tank_live
from lamsik.web.tank.running import blueprint as tank_running
from lamsik.web.tank.stability import blueprint as tank_stability
from lamsik.web.tank.twins import blueprint as tank_twins
from lamsik.web.tank.views import blueprint as tank
from lamsik.web.today.views import blueprint as today


@dataclass(frozen=True)
class Bench:
    """A bench: its word, its blueprint, its first page; `listed` ones stand in the header."""

    name: str
    blueprint: Blueprint
    first: str = ""

    @property
    def listed(self) -> bool:
        """Whether it stands in the header."""
        return bool(self.first)


BENCHES = (
    Bench("Today", today, "today.board"),
    Bench("Orders", orders, "orders.index"),
    Bench("Shapes", shapes, "shapes.index"),
    Bench("Tank", tank, "tank.index"),
    Bench("Floats", floats, "floats.index"),
    Bench("Scale", scale, "scale.bench"),
    Bench("Moulds", moulds, "moulds.index"),
    Bench("Mixes", mixes, "mixes.index"),
    Bench("Paints", paints, "paints.index"),
    Bench("Pieces", pieces, "pieces.index"),
    Bench("Stores", stores, "stores.index"),
    Bench("Backups", stores_backups),
    Bench("Handbook", handbook, "handbook.index"),
    Bench("Live", live),
    Bench("Floats, live", floats_live),
    Bench("Paints, live", paints_live),
    Bench("Floats, making", floats_make),
    Bench("Scale, port", scale_port),
    Bench("Scale, cards", scale_things),
    Bench("Moulds, live", moulds_live),
    Bench("Moulds, casting", moulds_cast),
    Bench("Moulds, halves", moulds_print),
    Bench("Moulds, cards", moulds_card),
    Bench("Moulds, pours", moulds_pour),
    Bench("Mixes, products", mixes_products),
    Bench("Shapes, bring in", shapes_bring),
    Bench("Shapes, trace", shapes_trace),
    Bench("Shapes, revisions", shapes_compare),
    Bench("Shapes, joints", shapes_joints),
    Bench("Shapes, family", shapes_family),
    Bench("Shapes, print pack", shapes_make),
    Bench("Shapes, blades", blades),
    Bench("Tank, live", tank_live),
    Bench("Tank, stability", tank_stability),
    Bench("Tank, material twins", tank_twins),
    Bench("Tank, running depth", tank_running),
    Bench("Tank, revisions", tank_history),
)

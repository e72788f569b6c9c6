"""What the Tank's settled answers need of the shop: hooks, waters, ballast bench, the tub's timed runs."""

from lamsik.core.shapes.catalogue import Catalogue
from lamsik.store import stores, tub
from lamsik.web.bodies.tank_state import TankShop
from lamsik.web.shared.db import db


def tank_shop(design_id: int) -> TankShop:
    """The shop as the Tank sees it for one design."""
    catalogue: Catalogue = stores.catalogue(db())
    hooks = tuple(item for item in catalogue.items.values() if item.kind == "hook")
    return TankShop(hooks, tuple(catalogue.waters.values()), stores.bench(db()), tub.timed(db(), design_id))

"""The waters of the shop, to choose from."""

from lamsik.core.water import SEA, Water
from lamsik.store import stores
from lamsik.web.shared.db import db


def shop_waters() -> list[Water]:
    """The shop's waters, or fresh and sea where it has none."""
    return [stores.water_of(row) for row in stores.waters(db())] or [Water(), SEA]

"""What a casting form goes by where nothing is typed: the shop's own figures, else the table's."""

from lamsik.core.quantities import plainly
from lamsik.core.trade.figures import FIGURES
from lamsik.store import stores
from lamsik.web.shared.db import db

MINUTES = 60.0


def usual(key: str) -> float:
    """A figure of casting, in the stored unit of its quantity."""
    return float(stores.setting(db(), "casting")[key])


def usual_h(key: str) -> float:
    """A time of casting that is kept in minutes [h]."""
    return usual(key) / MINUTES


def usual_said() -> dict[str, str]:
    """All of them as a form shows them in its empty fields."""
    return {one.key: plainly(usual(one.key), one.quantity) for one in FIGURES["casting"]}

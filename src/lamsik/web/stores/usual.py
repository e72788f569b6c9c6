"""What the trade's tables have, beside what the shop has otherwise."""

from lamsik.core.moulds import heat
from lamsik.core.quantities import plainly
from lamsik.core.shapes.clearance import HOSTS, INSERTS, START_MM, clearances
from lamsik.core.trade.figures import FIGURES
from lamsik.core.trade.step_kinds import minutes
from lamsik.store import routes, stores
from lamsik.web.shared.db import db


def beside() -> dict[str, str]:
    """By the name of its field: what the table has, of each figure that the shop has otherwise."""
    rows = [
        (figure.key, stores.setting(db(), setting)[figure.key], figure.usual, figure.quantity)
        for setting, figures in FIGURES.items()
        for figure in figures
    ]
    stands = heat.limits(stores.setting(db(), "heat")["limits"])
    rows += [(f"limit:{name}", stands[name], limit, "temperature") for name, limit in heat.LIMITS_C.items()]
    wider = clearances(stores.setting(db(), "clearances"))
    rows += [
        (f"{insert}|{host}", wider.at(insert, host), START_MM[insert, host], "length")
        for insert in INSERTS
        for host in HOSTS
    ]
    own, table = routes.own_minutes(db()), minutes()
    rows += [
        (f"minutes:{kind}:{which}", own[kind][at], table[kind][at], "minutes")
        for kind in table
        for at, which in enumerate(("setup", "each"))
    ]
    return {name: f"table: {plainly(usual, of)}" for name, own, usual, of in rows if own != usual}

"""How the stores stand: what open orders take, told before a page says it."""

from collections.abc import Collection
from dataclasses import dataclass
from datetime import date, timedelta

from sqlmodel import col, func, select

from lamsik.core.mixes.tubs import SOON_DAYS
from lamsik.core.stock.short import StockStand
from lamsik.store import needs, reserved
from lamsik.store.reserved import Reserved
from lamsik.store.tables import StockLot
from lamsik.web.shared.db import db, in_short


@dataclass(frozen=True)
class AllStanding:
    """What is reserved, and how every item that something of is reserved stands."""

    reserved: Reserved
    stands: dict[int, StockStand]

    @property
    def short(self) -> list[int]:
        """The items that are missing, and those nobody ever counted."""
        return [key for key, stand in self.stands.items() if stand.lacks and stand.is_known]

    @property
    def uncounted(self) -> list[int]:
        """The items that are taken and were never counted."""
        return [key for key, stand in self.stands.items() if stand.reserved > 0 and not stand.is_known]

    @property
    def stopped(self) -> set[int]:
        """The orders that wait for something."""
        lines = {line for key in self.short for line in self.stands[key].stops}
        return {self.reserved.lines[line].order for line in lines}


def standing() -> AllStanding:
    """How the stores stand against what is agreed."""
    told = reserved.reserved(db())
    if told.untold:
        in_short(lambda session: needs.told(session, told.untold))
        db().rollback()  # what it read before is of a moment ago
        told = reserved.reserved(db())
    return AllStanding(told, reserved.stood(db(), told.claims, list(told.claims)))


def stood(ids: Collection[int], now: AllStanding) -> dict[int, StockStand]:
    """How these items stand."""
    return reserved.stood(db(), now.reserved.claims, ids)


def ending() -> int:
    """How many lots end soon, or have ended and are not gone."""
    soon = date.today() + timedelta(days=SOON_DAYS)
    query = select(func.count()).select_from(StockLot)
    return db().exec(query.where(col(StockLot.expires_on) <= soon, col(StockLot.gone_at).is_(None))).one()

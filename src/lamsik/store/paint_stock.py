"""Paints of the shelf in the ledger: their pots are lots [ml], and what changes in a pot is a movement."""

from collections.abc import Iterator, Mapping
from contextlib import contextmanager
from typing import Any

from sqlalchemy import Engine
from sqlmodel import Session, col, select

from lamsik.core.stock.kinds import FINEST
from lamsik.core.stock.ledger import COUNTED, RETURNED, USED
from lamsik.store import history, ledger
from lamsik.store.ledger import Cause
from lamsik.store.tables import Document, Revision, StockItem, StockLot

PAINT = "paint"
_CAUSE = "cause of a pot"


@contextmanager
def because(session: Session, cause: Cause) -> Iterator[None]:
    """What changes in pots within is caused by this; else someone counted them."""
    session.info[_CAUSE] = cause
    try:
        yield
    finally:
        session.info.pop(_CAUSE)


def follow(session: Session, row: Document, content: Mapping[str, Any]) -> None:
    """The ledger has of a paint what its pots hold; of any other document nothing is there to follow."""
    if row.kind != PAINT:
        return
    pots = {str(pot["key"]): pot for pot in content.get("pots", ())}
    item = ledger.item_of(session, PAINT, row.id)
    if item is None:
        item = StockItem(kind="paint", name=row.name, of=PAINT, of_id=row.id, unit="")
    if item.id is None or item.name != row.name:
        item.name = row.name
        ledger.named(session, item)
    lots = {
        lot.part: lot
        for lot in session.exec(
            select(StockLot).where(StockLot.item_id == item.id).order_by(col(StockLot.id))
        )
    }
    for key, pot in pots.items():
        lot = lots.get(key) or StockLot(item_id=item.id or 0, part=key, lot=str(pot["lot"]))
        lot.lot, lot.gone_at = str(pot["lot"]), None
        session.add(lot)
        session.flush()
        _level(session, item, lot, float(pot["left_ml"]))
    for key, lot in lots.items():
        if key not in pots and lot.gone_at is None:
            ledger.gone(session, lot)


def _level(session: Session, item: StockItem, lot: StockLot, left_ml: float) -> None:
    more, cause = left_ml - lot.left, session.info.get(_CAUSE)
    if abs(more) <= FINEST:
        return
    if cause is None:
        ledger.move(session, item, COUNTED, left_ml, lot)
    elif more < 0:
        ledger.move(session, item, USED, -more, lot, cause)
    else:
        ledger.move(session, item, RETURNED, more, lot, cause)


def keep_true(engine: Engine) -> None:
    """Every paint is in the ledger with what its pots hold: those of an earlier version are not yet."""
    with Session(engine) as session:
        known = select(StockItem.of_id).where(StockItem.of == PAINT)
        without = select(Document).where(Document.kind == PAINT, col(Document.id).not_in(known))
        for row in session.exec(without).all():
            kept = session.exec(
                select(Revision).where(Revision.document_id == row.id, Revision.number == row.current)
            ).one()
            history.ready(session, [kept])
            follow(session, row, kept.content)
        session.commit()

"""Parcels: what lies in each, what it weighs, when it went out; an order goes out in as many as it takes."""

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date

from sqlmodel import Session, col, func, select

from lamsik.core.errors import Refused, require
from lamsik.core.orders.lines import PARTS
from lamsik.core.route.steps import READY
from lamsik.store import custody, pieces, routes, stands
from lamsik.store.tables import CustodyItem, Order, OrderLine, Parcel, ParcelItem, Piece


@dataclass(frozen=True)
class Packed:
    """What lies in a parcel: pieces, things of the customer's, so many of lines of parts."""

    pieces: tuple[Piece, ...]
    theirs: tuple[CustodyItem, ...]
    parts: tuple[tuple[OrderLine, int], ...]


def of_order(session: Session, order: Order) -> Sequence[Parcel]:
    """The parcels of an order, in their order."""
    return session.exec(select(Parcel).where(Parcel.order_id == order.id).order_by(col(Parcel.id))).all()


def packed(session: Session, parcel: Parcel) -> Packed:
    """What lies in a parcel."""
    rows = session.exec(
        select(ParcelItem).where(ParcelItem.parcel_id == parcel.id).order_by(col(ParcelItem.id))
    ).all()
    return Packed(
        tuple(session.get_one(Piece, row.piece_id) for row in rows if row.piece_id),
        tuple(session.get_one(CustodyItem, row.custody_id) for row in rows if row.custody_id),
        tuple((session.get_one(OrderLine, row.line_id), row.count) for row in rows if row.line_id),
    )


def to_pack(session: Session, order: Order) -> Packed:
    """What is ready of an order and lies in no parcel yet."""
    in_one = select(ParcelItem.piece_id).where(col(ParcelItem.piece_id).is_not(None))
    here = Piece.order_id == order.id, Piece.stand == READY, col(Piece.deleted_at).is_(None)
    lent = custody.of_order(session, order.id or 0)
    lying = {
        row.custody_id
        for row in session.exec(select(ParcelItem).join(Parcel).where(Parcel.order_id == order.id)).all()
    }
    parts = [
        (row, row.quantity - _in_parcels(session, row))
        for row in stands.lines_of(session, order)
        if row.kind == PARTS and row.picked_at
    ]
    return Packed(
        tuple(
            session.exec(
                select(Piece).where(*here, col(Piece.id).not_in(in_one)).order_by(col(Piece.id))
            ).all()
        ),
        tuple(one for one in lent if one.returned_on is None and not one.written_off and one.id not in lying),
        tuple((row, left) for row, left in parts if left > 0),
    )


def _in_parcels(session: Session, row: OrderLine) -> int:
    asked = select(func.coalesce(func.sum(ParcelItem.count), 0)).where(ParcelItem.line_id == row.id)
    return int(session.exec(asked).one())


def pack(
    session: Session,
    order: Order,
    box: str,
    box_g: float | None,
    piece_ids: Sequence[int] = (),
    custody_ids: Sequence[int] = (),
    line_ids: Sequence[int] = (),
) -> Parcel:
    """A new parcel with some of what is ready. Raises `Refused` for nothing, and for what is not ready or
    lies in another.
    """
    may = to_pack(session, order)
    chosen: list[ParcelItem] = []
    for name, ids, known in (
        ("piece_id", piece_ids, {one.id: 1 for one in may.pieces}),
        ("custody_id", custody_ids, {one.id: 1 for one in may.theirs}),
        ("line_id", line_ids, {row.id: left for row, left in may.parts}),
    ):
        for key in dict.fromkeys(ids):
            require(key in known, "parcel", key, "what is ready and in no other parcel")
            chosen.append(ParcelItem(parcel_id=0, count=known[key], **{name: key}))
    require(bool(chosen), "parcel", "", "put something into it")
    require(len(box) <= 120, "box", f"{len(box)} letters", "at most 120 letters")
    count = session.exec(select(func.max(Parcel.id))).one() or 0
    parcel = Parcel(order_id=order.id or 0, number=f"S{count + 1:04d}", box=box.strip(), box_g=box_g)
    session.add(parcel)
    session.flush()
    for item in chosen:
        item.parcel_id = parcel.id or 0
        session.add(item)
    session.flush()
    return parcel


def unpack(session: Session, parcel: Parcel) -> None:
    """A parcel is emptied. Raises `Refused` for one that went out."""
    require(parcel.sent_on is None, "parcel", parcel.number, "one that is still here")
    for row in session.exec(select(ParcelItem).where(ParcelItem.parcel_id == parcel.id)).all():
        session.delete(row)
    session.flush()
    session.delete(parcel)
    session.flush()


def send(session: Session, parcel: Parcel, on: date) -> None:
    """It went out: each piece's route is done with that, what is theirs went back. Raises `Refused` for one
    that went already, and while a bag is not matched.
    """
    require(parcel.sent_on is None, "parcel", parcel.number, "one that is still here")
    inside = packed(session, parcel)
    for piece in inside.pieces:
        require(piece.stand == READY, "piece", piece.number, "all of its route done but the way out")
    for item in inside.theirs:
        custody.give_back(session, item, on)
    parcel.sent_on = on
    session.add(parcel)
    session.flush()
    for piece in inside.pieces:
        for step in routes.of(session, piece):
            if step.of.hands_over:
                pieces.end_step(session, piece, step.key)
    stands.order_anew(session, session.get_one(Order, parcel.order_id))


def take_back(session: Session, parcel: Parcel) -> None:
    """It did not go out after all: its pieces are ready again, what is theirs is here."""
    if parcel.sent_on is None:
        raise Refused("parcel", parcel.number, "one that went out")
    inside = packed(session, parcel)
    parcel.sent_on = None
    session.add(parcel)
    session.flush()
    for piece in inside.pieces:
        route = routes.of(session, piece)
        pieces.take_back_step(session, piece, route[-1].key)
    for item in inside.theirs:
        custody.take_back(session, item)
    stands.order_anew(session, session.get_one(Order, parcel.order_id))

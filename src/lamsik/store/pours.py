"""Pours and the cups they are poured from: what happens to them is written here and nowhere else, as the
core's table of events allows it. Stock, clocks, shots and pieces follow.
"""

from collections.abc import Callable, Sequence
from dataclasses import dataclass
from datetime import timedelta
from typing import Any

from sqlmodel import Session, col, func, select

from lamsik.core.castings import pouring
from lamsik.core.castings.pouring import PREPARE, Stand
from lamsik.core.errors import require
from lamsik.core.mixes.clocks import at_temperature
from lamsik.core.mixes.product import Product
from lamsik.core.moulds import masters
from lamsik.store import documents, mixes, moulds, order_lines, paint_mixes, pieces, routes, skins
from lamsik.store.tables import Batch, Document, MouldMade, Piece, Pour, Revision, now


def of_moulds(session: Session, made_ids: Sequence[int]) -> Sequence[Pour]:
    """Pours of these moulds, the newest first; those that were dropped are no shots."""
    return session.exec(
        select(Pour)
        .where(col(Pour.made_id).in_(made_ids), Pour.step != pouring.GIVEN_UP)
        .order_by(col(Pour.id).desc())
    ).all()


def going(session: Session) -> Sequence[Pour]:
    """Pours that are not finished."""
    return session.exec(select(Pour).where(col(Pour.finished_at).is_(None)).order_by(col(Pour.id))).all()


def shots(session: Session, made_id: int) -> int:
    """How often a mould was really poured."""
    return session.exec(
        select(func.count())
        .select_from(Pour)
        .where(Pour.made_id == made_id, col(Pour.poured_at).is_not(None))
    ).one()


def batch_of(session: Session, pour: Pour) -> Batch | None:
    """The batch of a pour, the newest that was not dropped."""
    query = (
        select(Batch)
        .where(Batch.pour_id == pour.id, Batch.state != pouring.PUT_BACK)
        .order_by(col(Batch.id).desc())
    )
    return session.exec(query).first()


def begin(
    session: Session,
    row: MouldMade,
    product_id: int,
    plan: dict[str, Any],
    at_c: float,
    order_id: int | None = None,
) -> Pour:
    """The next shot of a mould: which it is stands fast once it is poured. Raises `Refused` where no
    cavity is alive.
    """
    require(bool(moulds.alive(row)), "cavities", "none alive", "trim one, or make a new mould")
    count = shots(session, row.id or 0)
    castings: list[Any] = [
        {"cavity": key, "good": None, "faults": [], "firmness": "", "piece": None}
        for key in moulds.alive(row)
    ]
    pour = Pour(
        made_id=row.id or 0,
        product_id=product_id,
        shot=count + 1,
        purge=count == 0,
        plan=plan,
        castings=castings,
        at_c=at_c,
        order_id=order_id,
    )
    session.add(pour)
    session.flush()
    return pour


def stand_of(session: Session, pour: Pour) -> Stand:
    """Where a pour and its cup stand."""
    batch = _cup(session, pour)
    return Stand(pour.step, batch.state if batch else pouring.NONE)


def _cup(session: Session, pour: Pour) -> Batch | None:
    """The cup it is to be poured from: one that went off before it is laid out anew is none."""
    return None if pour.step == PREPARE else batch_of(session, pour)


def _happens(session: Session, event: str, pour: Pour | None, batch: Batch | None) -> None:
    """An event happens to a pour, a cup, or both: the one place where either goes on.

    Raises:
        Refused: it cannot happen from where they stand; nothing is changed then.
    """
    step, cup = pour.step if pour else pouring.ALONE, batch.state if batch else pouring.NONE
    stand = pouring.after(Stand(step, cup), event)
    if pour is not None:
        pour.step = stand.step
        session.add(pour)
    if batch is not None and stand.cup != cup:
        mixes.stop_clocks(session, batch.id)
        if stand.cup == pouring.PUT_BACK:
            mixes.put_back(session, batch)
        batch.state = stand.cup
        session.add(batch)
    session.flush()


def _both(session: Session, batch: Batch) -> Pour | None:
    return session.get(Pour, batch.pour_id) if batch.pour_id else None


def link_of(batch: Batch) -> str:
    """Where the clocks of a batch lead: to the pour it is for, else to itself."""
    return f"/pours/{batch.pour_id}" if batch.pour_id else f"/mixes/batch/{batch.id}"


def lay_out(session: Session, pour: Pour, name: str, there: bool) -> None:
    """Something is laid out, or is not after all: said twice it stays so."""
    pour.ticks = sorted({*pour.ticks, name} if there else {*pour.ticks} - {name})
    session.add(pour)
    session.flush()


def replan(session: Session, batch: Batch, plan: dict[str, Any], at_c: float) -> None:
    """A cup that is still weighed follows what is asked for now; cautions that were read for it stay read."""
    read = {name: value for name, value in batch.plan.items() if name == "cautions_read"}
    batch.plan, batch.at_c = {**plan, **read}, at_c
    session.add(batch)
    session.flush()


def begin_weighing(session: Session, batch: Batch) -> None:
    """A cup is weighed from now on; the pour it is for was laid out. Raises `Refused`: nothing is kept."""
    pour = _both(session, batch)
    pouring.after(Stand(pour.step if pour else pouring.ALONE, batch.state), "begin weighing")
    session.add(batch)
    session.flush()
    _happens(session, "begin weighing", pour, batch)


def mix(session: Session, batch: Batch, product: Product) -> None:
    """The parts are in one cup: the pot life runs, and beside it how long it is stirred, where the product
    wants that; of paint no clock runs. Raises `Refused`.
    """
    _happens(session, "mix", _both(session, batch), batch)
    batch.mixed_at = now()
    if paint_mixes.is_paint(batch):
        return
    link = link_of(batch)
    if product.stir_s:
        name = f"Stir {batch.purpose}, to the bottom and the walls"
        ends = now() + timedelta(seconds=product.stir_s)
        mixes.start_clock(session, name, mixes.STIR, ends, link, batch)
    minutes = at_temperature(product.pot_life_min, product.reference_c, batch.at_c)
    ends = now() + timedelta(minutes=minutes)
    mixes.start_clock(session, f"Pot life, {batch.purpose}", "pot life", ends, link, batch)


def unmix(session: Session, batch: Batch) -> None:
    """It was not mixed after all: its clocks stop, its parts can be put right. Raises `Refused`."""
    _happens(session, "unmix", _both(session, batch), batch)
    batch.mixed_at = None
    session.add(batch)
    session.flush()


def pour_out(session: Session, batch: Batch, product: Product, left_g: float | None = None) -> None:
    """It is poured: the pot's clock stops, demoulding and full cure run; of a mould it is a shot now, the
    first of them the purge. Raises `Refused`.

    Args:
        batch: what is poured.
        product: what it is.
        left_g: what was left over, weighed [g].
    """
    pour = _both(session, batch)
    _happens(session, "pour", pour, batch)
    if left_g is not None:
        mixes.note_left(batch, left_g)
    if paint_mixes.is_paint(batch):
        return
    if pour is not None:
        count = shots(session, pour.made_id)
        pour.shot, pour.purge, pour.poured_at = count + 1, count == 0, now()
        session.add(pour)
    times = {"gel": float(batch.plan.get("gel_min") or 0.0) / 60.0} | {
        kind: at_temperature(hours, product.reference_c, batch.at_c)
        for kind, hours in (("demould", product.demould_h), ("full cure", product.cure_h))
    }
    names = {"gel": "Gelled, {}: the next layer", "demould": "Demould, {}", "full cure": "Full cure, {}"}
    for kind, hours in times.items():
        if kind != "gel" or hours:
            ends = now() + timedelta(hours=hours)
            mixes.start_clock(session, names[kind].format(batch.purpose), kind, ends, link_of(batch), batch)
    session.flush()


def demould(session: Session, pour: Pour) -> None:
    """It is set: the mould is opened. Raises `Refused`."""
    _happens(session, "demould", pour, batch_of(session, pour))


def take_out(session: Session, pour: Pour) -> None:
    """It is out of the mould. Raises `Refused`."""
    _happens(session, "take out", pour, batch_of(session, pour))


def give_up(session: Session, pour: Pour) -> None:
    """Give a pour up before anything is poured.

    What was weighed goes back on the books; what was mixed is used up. Raises `Refused` once it is poured.
    """
    _happens(session, "give up", pour, _cup(session, pour))
    pour.finished_at = now()
    session.add(pour)
    session.flush()


def put_back(session: Session, batch: Batch) -> None:
    """A cup that is weighed is dropped: its grams are back in their tubs. Raises `Refused` once it is
    mixed.
    """
    _happens(session, "put back", _both(session, batch), batch)


def spoil(session: Session, batch: Batch) -> None:
    """A cup went off, or was weighed wrong for good: what is in it is used up. Raises `Refused` once it is
    poured.
    """
    _happens(session, "spoil", _both(session, batch), batch)


@dataclass(frozen=True)
class Counted:
    """What came out of one cavity: good or not, its faults, firmness."""

    cavity: str
    good: bool
    faults: tuple[str, ...]
    firmness: str = ""


Born = Callable[[dict[str, Any]], dict[str, Any]]


def fail(session: Session, pour: Pour, fault: str) -> None:
    """What was poured failed: every casting of the shot is tagged. Raises `Refused` before it is poured and
    once it is counted.
    """
    _happens(session, "fail", pour, batch_of(session, pour))
    pour.failed = True
    _counted(session, pour, [Counted(line["cavity"], False, (fault,)) for line in pour.castings], None)


def count(session: Session, pour: Pour, counted: Sequence[Counted], born: Born | None = None) -> list[Piece]:
    """Count a shot: good castings become pieces with their lot and shot, unless it was a purge or the mould
    has no body.

    Args:
        pour: what is out of the mould.
        counted: what came out, by cavity.
        born: turns the body's document into that of what was cast: material, route and required parts
            follow how the piece was made.

    Raises:
        Refused: it is not out of the mould, or counted already.
    """
    batch = batch_of(session, pour)
    _happens(session, "count", pour, batch)
    mixes.stop_clocks(session, batch.id if batch else None, "demould")
    return _counted(session, pour, counted, born)


def _counted(session: Session, pour: Pour, counted: Sequence[Counted], born: Born | None) -> list[Piece]:
    row = session.get_one(MouldMade, pour.made_id)
    mould = session.get_one(Document, row.mould_id)
    block = documents.revision(session, mould, row.revision).content["master"]
    has_body = block["kind"] == masters.BODY and bool(block.get("body_id"))
    becomes = has_body and not pour.purge and not pour.failed
    new: list[Piece] = []
    castings: list[dict[str, Any]] = []
    made_as: Revision | None = None
    for one in counted:
        piece = None
        if one.good and becomes:
            made_as = made_as or _made_as(session, pour, block, born)
            piece = _piece(session, pour, row, block, one.cavity, made_as)
            new.append(piece)
        told = {"good": one.good, "faults": list(one.faults), "firmness": one.firmness}
        castings.append({"cavity": one.cavity, **told, "piece": piece.id if piece else None})
    pour.castings, pour.finished_at = castings, now()
    session.add(pour)
    session.flush()
    return new


def _made_as(session: Session, pour: Pour, block: dict[str, Any], born: Born | None) -> Revision:
    """The revision pieces of a shot are made from: beside the design, as it was cast."""
    body = session.get_one(Document, block["body_id"])
    drawn = session.exec(
        select(Revision).where(Revision.document_id == body.id, Revision.number == block["revision"])
    ).one()
    if born is None:
        return drawn
    skins.ready(session, [drawn.content])
    return documents.branch(session, body, born(drawn.content), drawn.number, f"as cast, shot {pour.shot}")


def _piece(
    session: Session, pour: Pour, row: MouldMade, block: dict[str, Any], cavity: str, made_as: Revision
) -> Piece:
    body = session.get_one(Document, block["body_id"])
    is_sold = pour.order_id is not None and not moulds.not_for_sale(session, block)
    line = order_lines.waiting_for(session, block["body_id"], pour.order_id) if is_sold else None
    piece = pieces.start(session, body, line)
    batch = batch_of(session, pour)
    piece.revision_id, piece.pour_id, piece.cavity = made_as.id or 0, pour.id, cavity
    piece.note = f"cavity {cavity[1:]} of mould version {row.version}, shot {pour.shot}" + (
        f", lot {mixes.lots_of(batch)}" if batch and mixes.lots_of(batch) else ""
    )
    routes.follow(session, piece)
    for step in routes.of(session, piece):
        if step.of.makes_body:
            pieces.end_step(session, piece, step.key)
    return piece


def correct(session: Session, pour: Pour, product_id: int, plan: dict[str, Any], at_c: float) -> Batch | None:
    """Something was asked for wrongly: until it is poured a pour can be put right. A cup of another product
    is put back; what is mixed keeps its product.

    Returns:
        The cup that is still weighed and follows what is asked for now; None where there is none.

    Raises:
        Refused: it is poured already, or the cup is mixed of another product.
    """
    require(pour.step in pouring.UNTIL_POURED, "pour", f"shot {pour.shot}", "it is poured already")
    batch = _cup(session, pour)
    if batch is not None and pour.product_id != product_id:
        require(
            batch.state == pouring.WEIGHING,
            "product",
            mixes.product_of(session, product_id).name,
            "the batch is mixed: pour it, or drop this pour",
        )
        _happens(session, "put back", pour, batch)
        batch = None
    pour.product_id, pour.plan, pour.at_c = product_id, plan, at_c
    session.add(pour)
    session.flush()
    return batch if batch is not None and batch.state == pouring.WEIGHING else None

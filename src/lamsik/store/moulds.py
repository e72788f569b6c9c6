"""Moulds: the body they are made from, moulds really made, shots, and castings that become pieces."""

from collections.abc import Callable, Sequence
from dataclasses import dataclass
from typing import Any

from sqlmodel import Session, col, func, select

from lamsik.core.castings.gates import Curing
from lamsik.core.castings.session import DROPPED, UNTIL_POURED
from lamsik.core.errors import Refused, require
from lamsik.core.moulds import masters
from lamsik.core.moulds.faults import MasterUse
from lamsik.core.shapes.sources import Source
from lamsik.store import documents, mixes, pieces, skins
from lamsik.store.tables import Batch, Clock, Document, MouldMade, Piece, Pour, Revision, Weighed, now

ALIVE, TRIM, DEAD = "alive", "trim", "dead"
STATES = (ALIVE, TRIM, DEAD)


def body_content(session: Session, block: dict[str, Any]) -> dict[str, Any]:
    """The body document a mould was made from, of the revision it was made from."""
    if "document" in block and not block.get("body_id"):
        skins.ready(session, [block["document"]])
        return dict(block["document"])
    query = select(Revision).where(
        Revision.document_id == block.get("body_id"), Revision.number == block.get("revision")
    )
    row = session.exec(query).first()
    if row is None:
        raise Refused("master", block.get("name"), "the body it is made from is not in this shop")
    skins.ready(session, [row.content])
    return row.content


def versions(session: Session, mould_id: int) -> Sequence[MouldMade]:
    """Moulds made of a design, the newest first."""
    return session.exec(
        select(MouldMade).where(MouldMade.mould_id == mould_id).order_by(col(MouldMade.id).desc())
    ).all()


def make(session: Session, row: Document, material: str, lot: str, release: str) -> MouldMade:
    """A mould was made: a new version, all its cavities alive; each version is one demoulding of the
    master.
    """
    content = documents.content(session, row)
    count = session.exec(
        select(func.count()).select_from(MouldMade).where(MouldMade.mould_id == row.id)
    ).one()
    cavities = [{"key": spot["key"], "state": ALIVE, "reason": ""} for spot in content["cavities"]]
    mould_made = MouldMade(
        mould_id=row.id or 0,
        revision=row.current,
        version=count + 1,
        material=material,
        lot=lot,
        release=release,
        cavities=cavities,
    )
    session.add(mould_made)
    session.flush()
    return mould_made


def mark(session: Session, row: MouldMade, key: str, state: str, reason: str) -> None:
    """A cavity is alive, to be trimmed, or dead for good; trim and dead need a reason."""
    require(state in STATES, "state", state, f"one of {', '.join(STATES)}")
    require(state == ALIVE or bool(reason.strip()), "reason", reason, "say why: it stands on the card")
    require(any(cavity["key"] == key for cavity in row.cavities), "cavity", key, "one of this mould's")
    row.cavities = [
        {"key": key, "state": state, "reason": reason.strip()[:120]} if cavity["key"] == key else cavity
        for cavity in row.cavities
    ]
    session.add(row)
    session.flush()


def alive(row: MouldMade) -> list[str]:
    """Keys of the cavities that are cast in."""
    return [cavity["key"] for cavity in row.cavities if cavity["state"] != DEAD]


TRIM_WORTH = 0.5
"""What a cavity that has to be trimmed yields of a whole one until its castings were counted."""


def worth(session: Session, row: MouldMade, yield_share: float) -> float:
    """How many whole cavities those that are cast in count as; one to be trimmed by what its castings came
    to.
    """
    seen: dict[str, list[bool]] = {}
    for shot in pours(session, [row.id or 0]):
        for line in shot.castings if shot.finished_at and not shot.purge else []:
            seen.setdefault(line["cavity"], []).append(bool(line["good"]))
    total = 0.0
    for cavity in row.cavities:
        if cavity["state"] == ALIVE:
            total += 1.0
        elif cavity["state"] == TRIM:
            counted = seen.get(cavity["key"], [])
            total += min(sum(counted) / len(counted) / yield_share, 1.0) if counted else TRIM_WORTH
    return total


def master_use(session: Session, mould_id: int, expected: int | None) -> MasterUse:
    """How often the master was taken out of a mould."""
    done = session.exec(
        select(func.count()).select_from(MouldMade).where(MouldMade.mould_id == mould_id)
    ).one()
    return MasterUse(expected, done)


def pours(session: Session, made_ids: Sequence[int]) -> Sequence[Pour]:
    """Pours of these moulds, the newest first; those that were dropped are no shots."""
    return session.exec(
        select(Pour)
        .where(col(Pour.made_id).in_(made_ids), Pour.step != DROPPED)
        .order_by(col(Pour.id).desc())
    ).all()


def open_pours(session: Session) -> Sequence[Pour]:
    """Pours that are not finished."""
    return session.exec(select(Pour).where(col(Pour.finished_at).is_(None)).order_by(col(Pour.id))).all()


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
    require(bool(alive(row)), "cavities", "none alive", "trim one, or make a new mould")
    count = shots(session, row.id or 0)
    castings: list[Any] = [
        {"cavity": key, "good": None, "faults": [], "firmness": "", "piece": None} for key in alive(row)
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


def shots(session: Session, made_id: int) -> int:
    """How often a mould was really poured."""
    return session.exec(
        select(func.count())
        .select_from(Pour)
        .where(Pour.made_id == made_id, col(Pour.poured_at).is_not(None))
    ).one()


def poured(session: Session, pour: Pour) -> None:
    """It is in the mould: now it is a shot, and the first of its mould is the purge."""
    count = shots(session, pour.made_id)
    pour.shot, pour.purge, pour.poured_at = count + 1, count == 0, now()
    session.add(pour)
    session.flush()


def drop(session: Session, pour: Pour) -> None:
    """Give a pour up before anything is poured.

    What was weighed goes back on the books; what was mixed is used up. Raises `Refused` once it is poured.
    """
    require(
        pour.step in UNTIL_POURED,
        "pour",
        f"shot {pour.shot}",
        "it is poured already: count it, or tag it as failed",
    )
    batch = batch_of(session, pour)
    if batch is not None:
        if batch.state == mixes.WEIGHING:
            mixes.put_back(session, batch)
            batch.state = mixes.DROPPED
        elif batch.state == mixes.MIXED:
            batch.state = mixes.FAILED
        mixes.stop_clocks(session, batch.id)
        session.add(batch)
    pour.step, pour.finished_at = DROPPED, now()
    session.add(pour)
    session.flush()


def curing(session: Session, row: MouldMade) -> Curing:
    """When a mould's own material is set and when it is cured, by the clocks of the batches it was poured
    from; local times.
    """
    before = session.exec(
        select(MouldMade.made_at)
        .where(MouldMade.mould_id == row.mould_id, col(MouldMade.id) < row.id)
        .order_by(col(MouldMade.id).desc())
    ).first()
    own = select(Batch.id).where(
        Batch.mould_id == row.mould_id, col(Batch.pour_id).is_(None), Batch.state == mixes.POURED
    )
    query = select(Clock).where(col(Clock.batch_id).in_(own), col(Clock.kind).in_(("demould", "full cure")))
    ends: dict[str, list[Any]] = {}
    for clock in session.exec(query).all():
        if before is None or clock.started_at >= before:
            ends.setdefault(clock.kind, []).append(clock.ends_at.astimezone())
    return Curing(max(ends.get("demould", []), default=None), max(ends.get("full cure", []), default=None))


def batch_of(session: Session, pour: Pour) -> Batch | None:
    """The batch of a pour, the newest that was not dropped."""
    query = (
        select(Batch)
        .where(Batch.pour_id == pour.id, Batch.state != mixes.DROPPED)
        .order_by(col(Batch.id).desc())
    )
    return session.exec(query).first()


@dataclass(frozen=True)
class Counted:
    """What came out of one cavity: good or not, its faults, firmness."""

    cavity: str
    good: bool
    faults: tuple[str, ...]
    firmness: str = ""


def finish(
    session: Session,
    pour: Pour,
    counted: Sequence[Counted],
    born: Callable[[dict[str, Any]], dict[str, Any]] | None = None,
) -> list[Piece]:
    """Count a shot: good castings become pieces with their lot and shot, unless it was a purge or the mould
    has no body.

    `born` turns the body's document into that of what was cast: material, route and required parts follow how
    the piece was made.

    Raises:
        Refused: it is counted already.
    """
    require(pour.finished_at is None, "pour", f"shot {pour.shot}", "it is counted already")
    row = session.get_one(MouldMade, pour.made_id)
    mould = session.get_one(Document, row.mould_id)
    content = documents.revision(session, mould, row.revision).content
    block, new = content["master"], []
    castings: list[dict[str, Any]] = []
    made_as: Revision | None = None
    for one in counted:
        piece = None
        if (
            one.good
            and not pour.purge
            and not pour.failed
            and block["kind"] == masters.BODY
            and block.get("body_id")
        ):
            made_as = made_as or _made_as(session, pour, block, born)
            piece = _piece(session, pour, row, block, one.cavity, made_as)
            new.append(piece)
        castings.append(
            {
                "cavity": one.cavity,
                "good": one.good,
                "faults": list(one.faults),
                "firmness": one.firmness,
                "piece": piece.id if piece else None,
            }
        )
    pour.castings, pour.finished_at, pour.step = castings, now(), "done"
    session.add(pour)
    session.flush()
    return new


def _made_as(
    session: Session,
    pour: Pour,
    block: dict[str, Any],
    born: Callable[[dict[str, Any]], dict[str, Any]] | None,
) -> Revision:
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
    piece = pieces.start(session, body, None if not_for_sale(session, block) else pour.order_id)
    batch = batch_of(session, pour)
    piece.revision_id, piece.pour_id, piece.cavity = made_as.id or 0, pour.id, cavity
    piece.note = f"cavity {cavity[1:]} of mould version {row.version}, shot {pour.shot}" + (
        f", lot {mixes.lots_of(batch)}" if batch and mixes.lots_of(batch) else ""
    )
    session.add(piece)
    session.flush()
    pieces.tick(session, piece, "carve", True)
    return piece


def source_of(session: Session, block: dict[str, Any]) -> Source:
    """Whose shape a master is: what forbids its sale first, then what the mould itself says of it.

    What the body or the weighed thing is flagged with now counts, not only what was so as the mould was made.
    """
    said = [block, block.get("document") or {}]
    row = session.get(Document, block.get("body_id") or 0)
    if row is not None:
        said.append(documents.content(session, row))
        if block.get("revision"):
            said.append(body_content(session, block))
    thing = session.get(Weighed, block.get("weighed_id") or 0)
    if thing is not None:
        said.append({"source": thing.source})
    named = [Source(**content["source"]) for content in said if content.get("source")]
    named.sort(key=lambda source: (source.may_sell, source == Source()))
    return named[0] if named else Source()


def not_for_sale(session: Session, block: dict[str, Any]) -> str:
    """Why what is cast of a master may not be sold; empty where it may."""
    source = source_of(session, block)
    return "" if source.may_sell else source.describe()

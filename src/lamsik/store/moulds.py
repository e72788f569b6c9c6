"""Moulds: the body they are made from, moulds really made, shots, and castings that become pieces."""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Any

from sqlmodel import Session, col, func, select

from lamsik.core.castings.gates import Curing
from lamsik.core.castings.pouring import GIVEN_UP, POURED
from lamsik.core.errors import Refused, finite_between, require
from lamsik.core.moulds.faults import MasterUse
from lamsik.core.shapes.sources import Source
from lamsik.store import documents, skins, stores
from lamsik.store.tables import Batch, Clock, Document, MouldMade, Pour, Revision, WeighedThing

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


MOST_SHOTS = 100_000
MOST_PRICED = 200


def price(session: Session, row: MouldMade, cost_minor: int | None, shots: int | None) -> None:
    """What a mould cost, in minor units of the shop's currency, and how many shots are expected of it: its
    castings share the one by the other. Raises `Refused`.
    """
    require(
        cost_minor is None or shots is not None,
        "shots expected",
        shots,
        "over how many shots what it cost is shared",
    )
    if shots is not None:
        finite_between("shots expected", shots, 1, MOST_SHOTS)
    row.cost_minor, row.expected_shots = cost_minor, shots
    row.currency = str(stores.setting(session, "shop")["currency"]) if cost_minor is not None else ""
    session.add(row)
    session.flush()


@dataclass(frozen=True)
class PricedMould:
    """A mould whose castings share what it cost: its name and version, the sum, how many castings."""

    name: str
    version: int
    minor: int
    castings: int


def priced(session: Session) -> dict[int, PricedMould]:
    """By body: the newest mould in use whose cost is known; a piece comes out of one."""
    body = func.json_extract(Revision.content, "$.master.body_id")
    is_current = (col(Revision.document_id) == Document.id) & (col(Revision.number) == Document.current)
    query = (
        select(MouldMade, Document.name, body)
        .join(Document, col(Document.id) == MouldMade.mould_id)
        .join(Revision, is_current)
        .where(
            col(MouldMade.cost_minor).is_not(None),
            col(MouldMade.retired_at).is_(None),
            MouldMade.currency == str(stores.setting(session, "shop")["currency"]),
            col(Document.deleted_at).is_(None),
        )
        .order_by(col(MouldMade.id).desc())
        .limit(MOST_PRICED)
    )
    of: dict[int, PricedMould] = {}
    for row, name, key in session.exec(query).all():
        castings = (row.expected_shots or 0) * len(alive(row))
        if key and castings:
            of.setdefault(key, PricedMould(name, row.version, row.cost_minor or 0, castings))
    return of


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
    finished = select(Pour).where(
        Pour.made_id == row.id, col(Pour.finished_at).is_not(None), Pour.step != GIVEN_UP
    )
    for shot in session.exec(finished.order_by(col(Pour.id).desc())).all():
        for line in shot.castings if not shot.purge else []:
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
        Batch.mould_id == row.mould_id, col(Batch.pour_id).is_(None), Batch.state == POURED
    )
    query = select(Clock).where(col(Clock.batch_id).in_(own), col(Clock.kind).in_(("demould", "full cure")))
    ends: dict[str, list[Any]] = {}
    for clock in session.exec(query).all():
        if before is None or clock.started_at >= before:
            ends.setdefault(clock.kind, []).append(clock.ends_at.astimezone())
    return Curing(max(ends.get("demould", []), default=None), max(ends.get("full cure", []), default=None))


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
    thing = session.get(WeighedThing, block.get("weighed_id") or 0)
    if thing is not None:
        said.append({"source": thing.source})
    named = [Source(**content["source"]) for content in said if content.get("source")]
    named.sort(key=lambda source: (source.may_sell, source == Source()))
    return named[0] if named else Source()


def not_for_sale(session: Session, block: dict[str, Any]) -> str:
    """Why what is cast of a master may not be sold; empty where it may."""
    source = source_of(session, block)
    return "" if source.may_sell else source.describe()

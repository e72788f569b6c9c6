"""Moulds: the body they are made from, moulds really made, shots, and castings that become pieces."""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Any

from sqlmodel import Session, col, func, select

from lamsik.core.errors import Refused, require
from lamsik.core.moulds import masters
from lamsik.core.moulds.faults import MasterUse
from lamsik.core.shapes.sources import Source
from lamsik.store import documents, mixes, pieces, skins
from lamsik.store.tables import Batch, Document, MouldMade, Piece, Pour, Revision, now

ALIVE, TRIM, DEAD = "alive", "trim", "dead"
STATES = (ALIVE, TRIM, DEAD)


def body_content(session: Session, block: dict[str, Any]) -> dict[str, Any]:
    """The body document a mould was made from, of the revision it was made from."""
    if "document" in block and not block.get("body_id"):
        skins.ready(session, [block["document"]])
        return dict(block["document"])
    query = select(Revision).where(Revision.document_id == block.get("body_id"), Revision.number == block.get("revision"))
    row = session.exec(query).first()
    if row is None:
        raise Refused("master", block.get("name"), "the body it is made from is not in this shop")
    skins.ready(session, [row.content])
    return row.content


def made(session: Session, mould_id: int) -> Sequence[MouldMade]:
    """Moulds made of a design, the newest first."""
    return session.exec(select(MouldMade).where(MouldMade.mould_id == mould_id).order_by(col(MouldMade.id).desc())).all()


def make(session: Session, row: Document, material: str, lot: str, release: str) -> MouldMade:
    """A mould was made: a new version, all its cavities alive; each version is one demoulding of the master."""
    content = documents.content(session, row)
    count = session.exec(select(func.count()).select_from(MouldMade).where(MouldMade.mould_id == row.id)).one()
    cavities = [{"key": spot["key"], "state": ALIVE, "reason": ""} for spot in content["cavities"]]
    found = MouldMade(mould_id=row.id or 0, revision=row.current, version=count + 1, material=material, lot=lot, release=release, cavities=cavities)
    session.add(found)
    session.flush()
    return found


def mark(session: Session, row: MouldMade, key: str, state: str, reason: str) -> None:
    """A cavity is alive, to be trimmed, or dead for good; trim and dead need a reason."""
    require(state in STATES, "state", state, f"one of {', '.join(STATES)}")
    require(state == ALIVE or bool(reason.strip()), "reason", reason, "say why: it stands on the card")
    require(any(cavity["key"] == key for cavity in row.cavities), "cavity", key, "one of this mould's")
    row.cavities = [{"key": key, "state": state, "reason": reason.strip()[:120]} if cavity["key"] == key else cavity for cavity in row.cavities]
    session.add(row)
    session.flush()


def alive(row: MouldMade) -> list[str]:
    """Keys of the cavities that are cast in."""
    return [cavity["key"] for cavity in row.cavities if cavity["state"] != DEAD]


def master_use(session: Session, mould_id: int, expected: int | None) -> MasterUse:
    """How often the master was taken out of a mould."""
    done = session.exec(select(func.count()).select_from(MouldMade).where(MouldMade.mould_id == mould_id)).one()
    return MasterUse(expected, done)


def pours(session: Session, made_ids: Sequence[int]) -> Sequence[Pour]:
    """Pours of these moulds, the newest first."""
    return session.exec(select(Pour).where(col(Pour.made_id).in_(made_ids)).order_by(col(Pour.id).desc())).all()


def open_pours(session: Session) -> Sequence[Pour]:
    """Pours that are not finished."""
    return session.exec(select(Pour).where(col(Pour.finished_at).is_(None)).order_by(col(Pour.id))).all()


def begin(session: Session, row: MouldMade, product_id: int, plan: dict[str, Any], at_c: float, order_id: int | None = None) -> Pour:
    """The next shot of a mould; the first of a version is a purge. Raises `Refused` where no cavity is alive."""
    require(bool(alive(row)), "cavities", "none alive", "trim one, or make a new mould")
    count = session.exec(select(func.count()).select_from(Pour).where(Pour.made_id == row.id)).one()
    castings: list[Any] = [{"cavity": key, "good": None, "faults": [], "firmness": "", "piece": None} for key in alive(row)]
    found = Pour(made_id=row.id or 0, product_id=product_id, shot=count + 1, purge=count == 0, plan=plan, castings=castings, at_c=at_c, order_id=order_id)
    session.add(found)
    session.flush()
    return found


def batch_of(session: Session, pour: Pour) -> Batch | None:
    """The batch of a pour, the newest that was not dropped."""
    query = select(Batch).where(Batch.pour_id == pour.id, Batch.state != mixes.DROPPED).order_by(col(Batch.id).desc())
    return session.exec(query).first()


@dataclass(frozen=True)
class Counted:
    """What came out of one cavity: good or not, its faults, firmness."""

    cavity: str
    good: bool
    faults: tuple[str, ...]
    firmness: str = ""


def finish(session: Session, pour: Pour, counted: Sequence[Counted]) -> list[Piece]:
    """Count a shot: good castings become pieces with their lot and shot, unless it was a purge or the mould has no body.

    Raises:
        Refused: it is counted already.
    """
    require(pour.finished_at is None, "pour", f"shot {pour.shot}", "it is counted already")
    row = session.get_one(MouldMade, pour.made_id)
    mould = session.get_one(Document, row.mould_id)
    content = documents.revision(session, mould, row.revision).content
    block, new = content["master"], []
    castings: list[dict[str, Any]] = []
    for one in counted:
        piece = None
        if one.good and not pour.purge and not pour.failed and block["kind"] == masters.BODY and block.get("body_id"):
            piece = _piece(session, pour, row, block, one.cavity)
            new.append(piece)
        castings.append({"cavity": one.cavity, "good": one.good, "faults": list(one.faults), "firmness": one.firmness, "piece": piece.id if piece else None})
    pour.castings, pour.finished_at, pour.step = castings, now(), "done"
    session.add(pour)
    session.flush()
    return new


def _piece(session: Session, pour: Pour, row: MouldMade, block: dict[str, Any], cavity: str) -> Piece:
    body = session.get_one(Document, block["body_id"])
    piece = pieces.start(session, body, pour.order_id)
    revision = session.exec(select(Revision).where(Revision.document_id == body.id, Revision.number == block["revision"])).one()
    batch = batch_of(session, pour)
    piece.revision_id, piece.pour_id, piece.cavity = revision.id or 0, pour.id, cavity
    piece.note = f"cavity {cavity[1:]} of mould version {row.version}, shot {pour.shot}" + (f", lot {mixes.lots_of(batch)}" if batch and mixes.lots_of(batch) else "")
    session.add(piece)
    session.flush()
    pieces.tick(session, piece, "carve", True)
    return piece


def not_for_sale(session: Session, body_id: int | None) -> str:
    """Why what is made of a body may not be sold; empty where it may."""
    row = session.get(Document, body_id) if body_id is not None else None
    if row is None:
        return ""
    source = Source(**documents.content(session, row).get("source", {}))
    return "" if source.may_sell else source.describe()

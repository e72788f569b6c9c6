"""Photos of what is here and what was made: kept once, small enough, without what the camera says besides."""

from collections.abc import Mapping, Sequence
from pathlib import Path

from sqlmodel import Session, SQLModel, col, func, select

from lamsik.core.errors import require
from lamsik.store import pictures
from lamsik.store.tables import CustodyItem, Order, Photo, Piece

OF: Mapping[str, type[SQLModel]] = {"custody": CustodyItem, "order": Order, "piece": Piece}
"""What photos are taken of."""
MOST_EACH = 40
"""Photos of one thing."""
BUDGET = 500_000_000
"""Bytes of photos from which on the shop is told that backups grow long."""


def taken(session: Session, of: str, of_id: int) -> Sequence[Photo]:
    """The photos of a thing, in the order they were taken."""
    query = select(Photo).where(Photo.of == of, Photo.of_id == of_id, col(Photo.deleted_at).is_(None))
    return session.exec(query.order_by(col(Photo.id))).all()


def keep(session: Session, of: str, of_id: int, jpeg: bytes, size: tuple[int, int]) -> Photo:
    """Keep a photo of a thing; the same one twice is kept once. Raises `Refused` where there are too many."""
    before = taken(session, of, of_id)
    require(len(before) < MOST_EACH, "photo", len(before) + 1, f"at most {MOST_EACH} of one thing")
    digest = pictures.put(pictures.folder_of(session), jpeg)
    known = next((one for one in before if one.digest == digest), None)
    if known is not None:
        return known
    row = Photo(of=of, of_id=of_id, digest=digest, width_px=size[0], height_px=size[1], bytes=len(jpeg))
    session.add(row)
    session.flush()
    return row


def stored_bytes(session: Session) -> int:
    """What all photos take, each once."""
    each = select(Photo.digest, func.max(Photo.bytes).label("bytes")).group_by(Photo.digest).subquery()
    return int(session.exec(select(func.coalesce(func.sum(each.c.bytes), 0))).one())


def jpeg_of(session: Session, row: Photo) -> bytes:
    """A photo as it is kept. Raises `Refused` where its file is not what it was."""
    shop: Path = pictures.folder_of(session)
    return pictures.get(shop, row.digest)

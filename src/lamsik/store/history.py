"""Old revisions, kept as what differs from a neighbour: nothing of a document's history is ever lost, and
it stays small.
"""

import json
import zlib
from collections.abc import Collection, Mapping, Sequence
from datetime import datetime, timedelta
from typing import Any

from sqlalchemy.orm.attributes import set_committed_value
from sqlmodel import Session, col, select

from lamsik.documents.registry import KINDS
from lamsik.store import skins
from lamsik.store.tables import Document, Revision, now

WHOLE_STEPS = 200
"""The last steps of a document stay whole, however old."""
WHOLE_FOR = timedelta(days=30)
"""So do all of the last days, however many."""
ON_ONE = 64
"""Revisions, by number, that are kept on the first of them."""
PACK_EVERY = 32
"""Saves from one packing to the next."""
AT_ONCE = 256
"""Most that one save packs: an older shop is packed by and by."""


def ready(session: Session, rows: Sequence[Revision]) -> None:
    """Make packed revisions whole, raise those of an earlier version, and bring the meshes that any of them
    names. What is in the database stays as it was written.
    """
    packed = [row for row in rows if row.packed is not None]
    texts = _as_written(session, {row.packed_on for row in packed})
    for row in packed:
        set_committed_value(row, "content", _unpacked(row.packed or b"", texts[row.packed_on]))
    for row in rows:
        kind = session.get_one(Document, row.document_id).kind
        set_committed_value(row, "content", KINDS[kind].schema.brought_up(row.content))
    skins.ready(session, (row.content for row in rows))


def _as_written(session: Session, keys: Collection[int | None]) -> dict[int | None, bytes]:
    """What others are packed on, as it was written: never as it was raised since."""
    if not keys:
        return {}
    query = select(Revision.id, Revision.content).where(col(Revision.id).in_(keys))
    return {key: _text(content) for key, content in session.exec(query).all()}


def pack(session: Session, document: Document, today: datetime | None = None) -> int:
    """Pack what is older than both limits; how many were packed."""
    old = select(Revision).where(
        Revision.document_id == document.id,
        Revision.number <= _newest(session, document) - WHOLE_STEPS,
        Revision.number != document.current,
        col(Revision.saved_at) < (today or now()) - WHOLE_FOR,
        col(Revision.packed).is_(None),
        col(Revision.id).not_in(
            select(Revision.packed_on).where(
                Revision.document_id == document.id, col(Revision.packed_on).is_not(None)
            )
        ),
    )
    revisions = session.exec(old.order_by(col(Revision.number)).limit(AT_ONCE)).all()
    done = 0
    for row in revisions:
        base = _base(session, row)
        if base.id != row.id and base.packed is None:
            written = _as_written(session, {base.id})[base.id]
            row.packed, row.packed_on, row.content = _packed(row.content, written), base.id, {}
            session.add(row)
            done += 1
    session.flush()
    return done


def _newest(session: Session, document: Document) -> int:
    query = (
        select(Revision.number)
        .where(Revision.document_id == document.id)
        .order_by(col(Revision.number).desc())
    )
    return session.exec(query.limit(1)).one()


def _base(session: Session, row: Revision) -> Revision:
    """The first revision of the span a revision lies in; it is never packed itself."""
    first = row.number - row.number % ON_ONE
    query = (
        select(Revision)
        .where(Revision.document_id == row.document_id, col(Revision.number) >= first)
        .order_by(col(Revision.number))
    )
    return session.exec(query.limit(1)).one()


def _text(content: Mapping[str, Any]) -> bytes:
    return json.dumps(content, ensure_ascii=False, sort_keys=True).encode("utf-8")


def _packed(content: dict[str, Any], base: bytes) -> bytes:
    """What a text adds to that of its base: deflate with the base as its dictionary (RFC 1950, preset
    dictionary).
    """
    work = zlib.compressobj(9, zdict=base)
    return work.compress(json.dumps(content, ensure_ascii=False).encode("utf-8")) + work.flush()


def _unpacked(data: bytes, base: bytes) -> dict[str, Any]:
    work = zlib.decompressobj(zdict=base)
    content: dict[str, Any] = json.loads(work.decompress(data) + work.flush())
    return content

"""Old revisions, kept as what differs from a neighbour: nothing of a document's history is ever lost, and
it stays small.
"""

import json
import zlib
from collections.abc import Sequence
from datetime import datetime, timedelta
from typing import Any

from sqlalchemy.orm.attributes import set_committed_value
from sqlmodel import Session, col, select

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
    """Make packed revisions whole, and bring the meshes that any of them names."""
    packed = [row for row in rows if row.packed is not None]
    bases = {row.packed_on for row in packed}
    texts = (
        {
            row.id: _text(row.content)
            for row in session.exec(select(Revision).where(col(Revision.id).in_(bases))).all()
        }
        if bases
        else {}
    )
    for row in packed:
        set_committed_value(row, "content", _unpacked(row.packed or b"", texts[row.packed_on]))
    skins.ready(session, (row.content for row in rows))


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
    found = session.exec(old.order_by(col(Revision.number)).limit(AT_ONCE)).all()
    done = 0
    for row in found:
        base = _base(session, row)
        if base.id != row.id and base.packed is None:
            row.packed, row.packed_on, row.content = _packed(row.content, _text(base.content)), base.id, {}
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


def _text(content: dict[str, Any]) -> bytes:
    return json.dumps(content, ensure_ascii=False, sort_keys=True).encode("utf-8")


def _packed(content: dict[str, Any], base: bytes) -> bytes:
    """What a text adds to that of its base: deflate with the base as its dictionary (RFC 1950, preset
    dictionary).
    """
    work = zlib.compressobj(9, zdict=base)
    return work.compress(json.dumps(content, ensure_ascii=False).encode("utf-8")) + work.flush()


def _unpacked(data: bytes, base: bytes) -> dict[str, Any]:
    work = zlib.decompressobj(zdict=base)
    found: dict[str, Any] = json.loads(work.decompress(data) + work.flush())
    return found

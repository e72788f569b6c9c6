"""A stand-in in the place of what is short: what it makes of a body, and taking it for a line."""

from dataclasses import dataclass
from typing import Any

from sqlmodel import Session

from lamsik.core.errors import require
from lamsik.documents.body.edits import BODY
from lamsik.documents.engine import apply
from lamsik.documents.rows import Document as Content
from lamsik.store import documents, stores
from lamsik.store.tables import Document, Hardware, OrderLine, Revision, SlugStock, StockItem


@dataclass(frozen=True)
class Instead:
    """A body with what is short, and with the stand-in."""

    design: Document
    before: Content
    after: Content


def key_of(session: Session, item: StockItem) -> tuple[str, str]:
    """What a design calls an item: what it is of, and its code or name there."""
    table: dict[str, Any] = {"hardware": Hardware, "slug": SlugStock, "paint": Document}
    row = session.get(table[item.of], item.of_id) if item.of in table else None
    if row is None:
        return "called", item.material or item.name
    return item.of, row.name if item.of == "slug" else row.code


def _is_drawn(item: StockItem, other: StockItem) -> bool:
    """Whether both are parts of the catalogue: then the body is other with the one than with the other."""
    return item.of == other.of == "hardware"


def seen(session: Session, row: OrderLine, item: StockItem, other: StockItem) -> Instead | None:
    """The body of a line with either of them; None where nothing is drawn, or the drawing stays the same."""
    design = session.get(Document, row.design_id) if row.design_id else None
    if design is None or design.kind != "body" or not _is_drawn(item, other):
        return None
    before = (
        documents.content_at(session, row.revision_id)
        if row.revision_id
        else documents.content(session, design)
    )
    after = _swapped(session, before, item, other)
    return Instead(design, before, after)


def _swapped(session: Session, content: Content, item: StockItem, other: StockItem) -> Content:
    code, instead = key_of(session, item)[1], key_of(session, other)[1]
    shop = stores.catalogue(session)
    for placed in [one for one in content["hardware"] if one["code"] == code]:
        content = apply(BODY, content, {"do": "swap", "key": placed["key"], "code": instead}, shop)
    return content


def take(session: Session, row: OrderLine, item: StockItem, other: StockItem) -> None:
    """A line takes the stand-in: its body is drawn with it where that is other. Pieces that are begun take it
    at the step that is still to come, their drawing stays. Raises `Refused` for a body that cannot be so.
    """
    require(item.id != other.id, "stand_in", other.name, "another item")
    drawn, (of, key) = seen(session, row, item, other), key_of(session, item)
    row.swaps = {**row.swaps, f"{of}|{key}": other.id or 0}
    if drawn is not None:
        base = session.get(Revision, row.revision_id) if row.revision_id else None
        number = base.number if base is not None else drawn.design.current
        says = f"{other.name} for {item.name}"
        row.revision_id = documents.branch(session, drawn.design, drawn.after, number, says).id
    session.add(row)
    session.flush()

"""What a piece of each revision takes: told from the design once, and kept; and which item each thing is."""

from collections.abc import Callable, Collection, Iterable, Mapping
from contextlib import suppress
from dataclasses import dataclass
from functools import cached_property

from sqlalchemy import tuple_
from sqlmodel import Session, col, select

from lamsik.core.errors import Refused
from lamsik.core.paints.shelf import ShelfPaint
from lamsik.core.stock.kinds import PIECES
from lamsik.core.stock.needs import CALLED, TakenOut, takes, takes_blade, takes_float
from lamsik.documents.blades.document import blade_of
from lamsik.documents.body.document import to_design
from lamsik.documents.floats.document import to_float
from lamsik.documents.rows import Document as Content
from lamsik.store import documents, paint_mixes, shelf
from lamsik.store.search import fold
from lamsik.store.tables import Document, Hardware, OrderLine, PieceNeed, Revision, SlugStock, StockItem


@dataclass(frozen=True)
class Shelf:
    """The paints as they stand: read when the first that is painted asks, once for all that is looked at
    together.
    """

    session: Session

    @cached_property
    def stays(self) -> Mapping[str, float]:
        """What stays on a body of what leaves the cup, by how it goes on."""
        return paint_mixes.stays_shares(self.session)

    @cached_property
    def paints(self) -> Mapping[str, ShelfPaint]:
        """The paints by their codes."""
        return dict(shelf.shelf(self.session))

    @cached_property
    def recipes(self) -> Mapping[str, Mapping[str, float]]:
        """Of each mixed colour the drops of its recipe [ml] by paint."""
        return {
            row.code: {
                part.code: part.drops * self.paints[part.code].drop_ml
                for part in match.parts
                if part.code in self.paints
            }
            for row, match in shelf.matches(self.session)
        }


def known(
    session: Session, revisions: Collection[int], keys: Collection[tuple[str, str]] | None = None
) -> dict[int, list[PieceNeed]]:
    """The needs that are kept of these revisions, all or those of these things; of one that was never told
    there is no entry.
    """
    query = select(PieceNeed).where(col(PieceNeed.revision_id).in_(revisions))
    if keys is not None:
        query = query.where(tuple_(col(PieceNeed.of), col(PieceNeed.key)).in_(list(keys)))
    rows = session.exec(query).all()
    of: dict[int, list[PieceNeed]] = {}
    for row in rows:
        of.setdefault(row.revision_id, []).append(row)
    return {key: [row for row in rows if row.amount > 0] for key, rows in of.items()}


def tell(session: Session, revision_id: int, on: Shelf | None = None) -> None:
    """Keep what a piece of this revision takes. What cannot be read takes nothing."""
    rows: list[PieceNeed] = []
    with suppress(Refused):  # it is said where the body is shown
        rows = _of_revision(session, revision_id, on)
    for row in rows:
        row.revision_id = revision_id
    session.add_all(rows or [PieceNeed(revision_id=revision_id)])
    session.flush()


OTHERS: Mapping[str, Callable[[Content], tuple[TakenOut, ...]]] = {
    "float": lambda content: takes_float(to_float(content)),
    "blade": lambda content: takes_blade(blade_of(content)),
}
"""What one piece takes, by the kind of document that is no body."""


def _of_revision(session: Session, revision_id: int, on: Shelf | None = None) -> list[PieceNeed]:
    kind = session.get_one(Document, session.get_one(Revision, revision_id).document_id).kind
    if kind == "body":
        return of_content(session, documents.content_at(session, revision_id), on)
    other = OTHERS.get(kind)
    return _as_needs(other(documents.content_at(session, revision_id))) if other is not None else []


def _as_needs(taken: Iterable[TakenOut]) -> list[PieceNeed]:
    return [
        PieceNeed(
            revision_id=0,
            of=one.of,
            key=one.key,
            name=one.name,
            amount=one.amount,
            unit=one.unit,
            step=one.step,
        )
        for one in taken
    ]


def of_content(session: Session, content: Content, on: Shelf | None = None) -> list[PieceNeed]:
    """What a piece of a body takes, of no revision yet. Raises `Refused` for one that cannot be read."""
    on, design = on or Shelf(session), to_design(content)
    return _as_needs(_unmixed(on, takes(design, on.stays if design.layers else {})))


def looked_up(session: Session, revision_id: int, on: Shelf | None = None) -> list[PieceNeed]:
    """What a piece of a revision takes, for a page: what is not kept yet is told and not kept."""
    kept = known(session, {revision_id}).get(revision_id)
    if kept is not None:
        return kept
    return _of_revision(session, revision_id, on)


def _unmixed(on: Shelf, taken: Iterable[TakenOut]) -> list[TakenOut]:
    """A colour that is mixed takes the paints of its recipe."""
    told = []
    for one in taken:
        drops = on.recipes.get(one.key, {}) if one.of == "paint" else {}
        total = sum(drops.values())
        told += [
            TakenOut("paint", code, on.paints[code].name, one.amount * ml / total, one.unit, one.step)
            for code, ml in drops.items()
        ] or [one]
    return told


def told(session: Session, revisions: Collection[int]) -> dict[int, list[PieceNeed]]:
    """The needs of these revisions, those that were not kept yet included: they are, then."""
    missing = set(revisions) - known(session, revisions).keys()
    on = Shelf(session)
    for one in missing:
        tell(session, one, on)
    return known(session, revisions)


@dataclass(frozen=True)
class Resolved:
    """Which item a thing of a design is: by what it is of and its key there, or by the name it is called."""

    by_key: Mapping[tuple[str, str], StockItem]
    by_name: Mapping[tuple[str, str], StockItem]
    by_id: Mapping[int, StockItem]

    def of(self, need: PieceNeed) -> StockItem | None:
        """The item of a need; None where the stores have none."""
        if need.of != CALLED:
            return self.by_key.get((need.of, need.key))
        return self.by_name.get((fold(need.key), need.unit)) or self.by_name.get((fold(need.key), PIECES))

    def for_line(self, row: OrderLine | None, need: PieceNeed) -> StockItem | None:
        """The item that a line takes for a need: what stands in for it there, else its own."""
        return self.taken(row.swaps if row is not None else {}, need)

    def taken(self, swaps: Mapping[str, int], need: PieceNeed) -> StockItem | None:
        """The item that is taken for a need where these stand in, by what a design names."""
        return self.by_id.get(swaps.get(f"{need.of}|{need.key}", 0)) or self.of(need)


def resolved(session: Session) -> Resolved:
    """What designs name, as items. Of what is only called by a name: the item that says it is called so, or
    is named so.
    """
    items = session.exec(
        select(StockItem).where(col(StockItem.deleted_at).is_(None)).order_by(col(StockItem.id).desc())
    ).all()
    codes: dict[tuple[str, int], str] = {}
    for of, query in {
        "hardware": select(Hardware.id, Hardware.code),
        "slug": select(SlugStock.id, SlugStock.name),
        "paint": select(Document.id, Document.code).where(Document.kind == "paint"),
    }.items():
        codes |= {(of, key or 0): code for key, code in session.exec(query).all()}
    named = {(fold(row.name), row.unit): row for row in items}
    return Resolved(
        {(row.of, codes[row.of, row.of_id or 0]): row for row in items if (row.of, row.of_id or 0) in codes},
        named | {(fold(row.material), row.unit): row for row in items if row.material},
        {row.id or 0: row for row in items},
    )

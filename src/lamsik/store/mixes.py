"""Products, tubs, batches, clocks: stock drawn as it is weighed, losses learned from what was used."""

from collections.abc import Sequence
from dataclasses import replace
from datetime import date, datetime
from typing import Any

from sqlmodel import Session, col, select

from lamsik.core.castings.pouring import POURED, PUT_BACK, WEIGHING
from lamsik.core.errors import Refused, require
from lamsik.core.learning import Learned
from lamsik.core.mixes.amount import learned_loss, used_g
from lamsik.core.mixes.product import Product, liquid_g_cm3, mass_shares
from lamsik.core.mixes.tubs import Tub, drawn
from lamsik.core.quantities import plainly
from lamsik.documents.products.document import to_product
from lamsik.store import documents, ledger, paint_mixes, pots
from lamsik.store.ledger import BY_HAND, Cause
from lamsik.store.starter_mixes import STARTERS
from lamsik.store.tables import Batch, Clock, Document, StockItem, StockLot, now

STIR = "stir"
PRODUCT = "product"
"""What a part of a product is of in the ledger."""


def products(session: Session, text: str = "") -> dict[int, tuple[Document, Product]]:
    """All products by id; those whose recipe is none are left to `unreadable`."""
    return _sorted(session, text)[0]


def unreadable(session: Session, text: str = "") -> list[tuple[Document, Refused]]:
    """The products whose recipe is none, and why."""
    return _sorted(session, text)[1]


def _sorted(
    session: Session, text: str
) -> tuple[dict[int, tuple[Document, Product]], list[tuple[Document, Refused]]]:
    rows = documents.listed(session, "product", text)
    contents = documents.contents(session, rows)
    good: dict[int, tuple[Document, Product]] = {}
    bad: list[tuple[Document, Refused]] = []
    for row in rows:
        try:
            good[row.id or 0] = (row, to_product(contents[row.id or 0]))
        except Refused as refused:
            bad.append((row, refused))
    return good, bad


def product_of(session: Session, key: int) -> Product:
    """The product of that id, put away or not; its current recipe."""
    return to_product(documents.content(session, session.get_one(Document, key)))


def recipe_of(session: Session, batch: Batch) -> Product:
    """What a batch is of: its product as that is now, a mix of paint as it was planned."""
    if paint_mixes.is_paint(batch):
        return paint_mixes.product_of(batch)
    return product_of(session, batch.product_id)


def add_product(session: Session, product: Product, note: str = "") -> Document:
    """Keep a new product."""
    return documents.new(session, "product", note, product=product)


def tubs(session: Session, product_id: int) -> Sequence[StockLot]:
    """Tubs of a product that are not gone, the newest last."""
    return session.exec(
        select(StockLot)
        .where(StockLot.product_id == product_id, col(StockLot.gone_at).is_(None))
        .order_by(col(StockLot.id))
    ).all()


def tubs_by_product(session: Session) -> dict[int, list[StockLot]]:
    """All tubs that are not gone by product, in one query."""
    by_product: dict[int, list[StockLot]] = {}
    for row in session.exec(
        select(StockLot)
        .where(col(StockLot.gone_at).is_(None), col(StockLot.product_id).is_not(None))
        .order_by(col(StockLot.id))
    ).all():
        by_product.setdefault(row.product_id or 0, []).append(row)
    return by_product


def core_tub(row: StockLot) -> Tub:
    """The tub as the core knows it."""
    return Tub(str(row.id), row.part, row.lot, row.left, row.expires_on, row.opened_on, row.stirred_at)


def draw(session: Session, row: StockLot, grams: float, cause: Cause = BY_HAND) -> None:
    """Take grams out of a tub; the first time opens it. Raises `Refused` instead of going below nothing."""
    drawn(row.left, grams, f"{row.part}, lot {row.lot}")
    ledger.draw(session, row, min(grams, row.left), cause)
    row.opened_on = row.opened_on or date.today()
    session.add(row)


def tub_of(session: Session, product: Document, part: str, lot: str, **more: Any) -> StockLot:
    """A tub of a part of a product, in the ledger under that part; what came in it is brought yet."""
    item = ledger.item_of(session, PRODUCT, product.id, part)
    if item is None:
        item = ledger.named(
            session,
            StockItem(
                kind="compound",
                name=f"{product.name}, {part}",
                of=PRODUCT,
                of_id=product.id,
                part=part,
                unit="",
            ),
        )
    return StockLot(item_id=item.id or 0, product_id=product.id, part=part, lot=lot, **more)


def put_back(session: Session, batch: Batch) -> None:
    """What was weighed and not used goes back on the books."""
    for line in batch.weighed:
        _give_back(session, line, batch)


def _give_back(session: Session, line: dict[str, Any], batch: Batch) -> None:
    """A line's grams are back where they came from."""
    if line.get("pot"):
        pots.give_back(session, line["pot"], float(line["grams"]), _cause(batch))
    row = session.get(StockLot, line.get("tub") or 0)
    if row is not None:
        ledger.give_back(session, row, float(line["grams"]), _cause(batch))


def _cause(batch: Batch) -> Cause:
    return Cause("batch", batch.id)


def weigh(
    session: Session,
    batch: Batch,
    part: str,
    grams: float,
    tub: StockLot | pots.PotOfPart | None,
    more: bool = False,
) -> None:
    """Keep what the scale showed of a part and draw it from its tub.

    Weighed again it takes the place of what was weighed before; `more` of it, from this tub or another, is
    kept beside that.
    """
    require(batch.state == WEIGHING, "batch", batch.state, "its parts are mixed already")
    lines = list(batch.weighed) if more else _without(session, batch, part)
    line = {"part": part, "grams": grams, "tub": None, "lot": tub.lot if tub else ""}
    if isinstance(tub, pots.PotOfPart):
        pots.draw(session, tub, grams, _cause(batch))
        line["pot"] = tub.mark
    elif tub is not None:
        draw(session, tub, grams, _cause(batch))
        line["tub"] = tub.id
    batch.weighed = [*lines, line]
    session.add(batch)
    session.flush()


def _without(session: Session, batch: Batch, part: str) -> list[dict[str, Any]]:
    """A batch's lines less those of a part, whose grams go back to their tubs."""
    lines = []
    for line in batch.weighed:
        if line["part"] != part:
            lines.append(line)
        else:
            _give_back(session, line, batch)
    return lines


def take_back(session: Session, batch: Batch, part: str) -> None:
    """A part was not weighed after all: its grams are back in their tubs. Raises `Refused` once the batch
    is mixed.
    """
    require(batch.state == WEIGHING, "batch", batch.state, "its parts are mixed already")
    require(any(line["part"] == part for line in batch.weighed), "part", part, "it was not weighed")
    batch.weighed = _without(session, batch, part)
    session.add(batch)
    session.flush()


def weighed_g(batch: Batch, part: str) -> float:
    """What is in the cup of a part [g]."""
    return sum(float(line["grams"]) for line in batch.weighed if line["part"] == part)


def lots_of(batch: Batch) -> str:
    """The lots that went in: `A 2231, B 2240`."""
    return ", ".join(sorted({f"{line['part']} {line['lot']}" for line in batch.weighed if line.get("lot")}))


def batches(session: Session, most: int = 12, state: str = "") -> Sequence[Batch]:
    """Batches, the newest first."""
    query = select(Batch).where(Batch.state != PUT_BACK)
    if state:
        query = query.where(Batch.state == state)
    return session.exec(query.order_by(col(Batch.id).desc()).limit(most)).all()


def used_of(batch: Batch) -> float | None:
    """What of a batch was poured for its volume [g]; None where that cannot be told."""
    weighed = sum(float(line["grams"]) for line in batch.weighed)
    planned = float(batch.plan.get("total_g") or weighed) + sum(
        float(extra["grams"]) for extra in batch.plan.get("extras", [])
    )
    return used_g(planned, weighed, float(batch.plan.get("left_g") or 0.0))


MOST_TAUGHT = 60
"""The newest batches that teach what is lost: the shop's hand is as it is now."""


def loss_of(session: Session, product_id: int) -> Learned:
    """The loss to plan with for a product [share].

    Only those poured for a known volume do: one that failed may be half weighed, one over its plan was not
    poured whole.
    """
    rows = session.exec(
        select(Batch)
        .where(Batch.product_id == product_id, Batch.state == POURED)
        .order_by(col(Batch.id).desc())
        .limit(MOST_TAUGHT)
    ).all()
    liquid = liquid_g_cm3(product_of(session, product_id))
    pairs = []
    for row in rows:
        filled, used = row.plan.get("filled_ml"), used_of(row)
        if filled and used:
            pairs.append((float(filled), used / float(row.plan.get("density") or liquid)))
    return learned_loss(pairs)


def start_clock(
    session: Session, name: str, kind: str, ends_at: datetime, link: str = "", batch: Batch | None = None
) -> Clock:
    """A clock from now."""
    row = Clock(name=name[:120], kind=kind, ends_at=ends_at, link=link, batch_id=batch.id if batch else None)
    session.add(row)
    session.flush()
    return row


def running(session: Session) -> Sequence[Clock]:
    """Clocks nobody has stopped, the next to end first."""
    return session.exec(
        select(Clock).where(col(Clock.stopped_at).is_(None)).order_by(col(Clock.ends_at))
    ).all()


def note_left(batch: Batch, left_g: float) -> None:
    """What was left over of a batch, weighed [g]: it says how much was really poured. Raises `Refused` for
    more than was weighed.
    """
    weighed = sum(float(line["grams"]) for line in batch.weighed)
    require(
        0 <= left_g < weighed,
        "left",
        plainly(left_g, "mass"),
        f"less than the {plainly(weighed, 'mass')} that were weighed",
    )
    batch.plan = {**batch.plan, "left_g": left_g}


def stop_clocks(session: Session, batch_id: int | None, kind: str = "") -> None:
    """Stop a batch's clocks, or those of a kind."""
    for clock in session.exec(
        select(Clock).where(Clock.batch_id == batch_id, col(Clock.stopped_at).is_(None))
    ).all():
        if not kind or clock.kind == kind:
            clock.stopped_at = now()
            session.add(clock)


def starter(session: Session) -> None:
    """Products to begin with, in a shop that never had any."""
    if session.exec(select(Document).where(Document.kind == "product")).first() is None:
        for product in STARTERS:
            add_product(session, replace(product), "to begin with: type what stands on your tin")


def stop_linked(session: Session, link: str) -> None:
    """Stop the clocks that lead to a place: someone went on there."""
    for clock in session.exec(select(Clock).where(Clock.link == link, col(Clock.stopped_at).is_(None))).all():
        clock.stopped_at = now()
        session.add(clock)


def weigh_lines(session: Session, product_id: int, product: Product, grams: float) -> list[dict[str, Any]]:
    """A batch's lines at the ratio just as it should be, each from the first tub of its part."""
    lines = []
    for part, share in zip(product.parts, mass_shares(product), strict=True):
        tub = next((row for row in tubs(session, product_id) if row.part == part.name), None)
        lines.append(
            {
                "part": part.name,
                "grams": round(grams * share, 1),
                "tub": tub.id if tub else None,
                "lot": tub.lot if tub else "",
            }
        )
    return lines

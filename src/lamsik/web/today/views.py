"""Today: what to do now; and search over everything."""

from collections.abc import Callable, Iterator
from dataclasses import dataclass
from functools import partial
from typing import Any

from flask import Blueprint, jsonify, render_template, url_for
from flask.typing import ResponseReturnValue

from lamsik.store import documents, mixes, orders, paging, people, pieces, pours, routes, weighed
from lamsik.store.paging import Query
from lamsik.store.tables import Customer, Document, MouldMade, Order, Piece, PieceStep, now
from lamsik.web.batches.clocks import views_of
from lamsik.web.shared import picks
from lamsik.web.shared.db import db
from lamsik.web.shared.lists import asked_text
from lamsik.web.shared.progress import stands
from lamsik.web.shared.reminder import reminder
from lamsik.words.castings import TITLES

blueprint = Blueprint("today", __name__)

MOST_JOBS = 8
"""Jobs, dues and enquiries shown on one page; the rest are on their benches."""
MOST_FOUND = 12
"""Of each kind that search shows."""


@dataclass(frozen=True)
class BenchJob:
    """A piece at the bench: for whom, the step it is at with how many are done of how many, its design
    with the revision that is drawn.
    """

    piece: Piece
    order: Order | None
    customer: Customer | None
    stand: tuple[str, int, int]
    name: str
    revision: int


@blueprint.get("/")
def board() -> str:
    """Pieces at the bench with their next step, what is due, enquiries waiting for an answer."""
    working = pieces.due_first(db(), MOST_JOBS)
    at = stands([piece for piece, _, _ in working])
    designs = {key: db().get_one(Document, key) for key in {piece.design_id for piece, _, _ in working}}
    drawn = documents.currents(db(), list(designs.values()))
    jobs = [
        BenchJob(piece, order, customer, stand, designs[piece.design_id].name, drawn[piece.design_id].id or 0)
        for (piece, order, customer), stand in zip(working, at, strict=True)
    ]
    due = orders.promised(db(), MOST_JOBS)
    waiting = orders.enquiries(db(), MOST_JOBS)
    empty = not jobs and not due and not waiting and pieces.none_yet(db())
    return render_template(
        "today/board.html",
        jobs=jobs,
        more=pieces.count_going(db()) - len(jobs),
        due=due,
        waiting=waiting,
        more_waiting=orders.count_enquiries(db()) - len(waiting),
        empty=empty,
        clocks=views_of(mixes.running(db())),
        now=now(),
        pours=_pours(),
        running_steps=_running(),
        reminder="" if empty else reminder(),
    )


def _running() -> list[tuple[PieceStep, Piece, str, str]]:
    """Steps that hands are on: the step, its piece, what it is called, who is at it."""
    rows, names = routes.running(db(), MOST_JOBS), people.names(db())
    ways = routes.of_many(db(), [piece for _, piece in rows])
    return [
        (
            row,
            piece,
            next((str(step.name) for step in ways[piece.id or 0] if step.key == row.step), row.step),
            names.get(row.person_id or 0, ""),
        )
        for row, piece in rows
    ]


def _pours() -> list[tuple[int, str]]:
    """Pours under way: where they are, what they are."""
    rows = []
    for pour in pours.going(db()):
        mould = db().get_one(Document, db().get_one(MouldMade, pour.made_id).mould_id)
        rows.append((pour.id or 0, f"shot {pour.shot} of {mould.name}: {TITLES[pour.step].lower()}"))
    return rows


@blueprint.get("/search")
def search() -> str:
    """Everything whose name or number holds the text, in any script, accents aside: the first of each
    kind, and where the rest is.
    """
    q = asked_text()
    groups = [group for group in (_orders(q), *_documents(q), *_others(q)) if group.rows] if q else []
    return render_template("today/search.html", q=q, groups=groups)


@dataclass(frozen=True)
class SearchHit:
    """What of one kind holds the text: code, words and link of the first, and the list of all where more
    do.
    """

    name: str
    rows: list[tuple[str, str, str]]
    rest: str = ""


def _group(
    name: str, query: "Query[Any]", show: Callable[[Any], tuple[str, str, str]], rest: str
) -> SearchHit:
    page = paging.page(db(), query, most=MOST_FOUND)
    return SearchHit(name, [show(row) for row in page.rows], rest if page.more else "")


def _orders(q: str) -> SearchHit:
    return _group("Orders", orders.listed(q), _order_line, url_for("orders.index", q=q))


def _order_line(row: tuple[Order, Customer]) -> tuple[str, str, str]:
    order, customer = row
    return order.number, f"{order.title} · {customer.name}", url_for("orders.show", key=order.id)


BENCHES = (
    ("Bodies", "body", "shapes.edit", "shapes.index"),
    ("Floats", "float", "floats.edit", "floats.index"),
    ("Moulds", "mould", "moulds.edit", "moulds.index"),
    ("Products", "product", "mixes_products.show", "mixes.index"),
    ("Schemes", "scheme", "paints.edit", "paints.index"),
    ("Paints", "paint", "paints_shelf.show", "paints_shelf.index"),
    ("Colours", "match", "paints_match.show", "paints_shelf.index"),
    ("Blades", "blade", "shapes_blades.edit", "shapes_blades.index"),
    ("Shot tables", "shots", "floats_shots.show", "floats.index"),
)
"""Documents that are searched: their name, kind, page and list."""


def _documents(q: str) -> Iterator[SearchHit]:
    for name, kind, page, index in BENCHES:
        yield _group(name, documents.matching(kind, q), partial(_document_line, page), url_for(index, q=q))


def _document_line(page: str, row: Document) -> tuple[str, str, str]:
    return row.code, row.name, url_for(page, key=row.id)


def _others(q: str) -> Iterator[SearchHit]:
    """What is weighed, the pieces, the customers."""
    yield _group(
        "Weighed",
        weighed.listed(q),
        lambda row: ("", row.name, url_for("scale_things.show", key=row.id)),
        url_for("scale.bench", q=q),
    )
    yield _group(
        "Pieces",
        pieces.listed(q),
        lambda row: (row.number, "", url_for("pieces.show", key=row.id)),
        url_for("pieces.index", q=q),
    )
    yield _group(
        "Customers",
        orders.customers(q),
        lambda row: ("", row.name, url_for("orders_customers.show", key=row.id)),
        url_for("orders_customers.index", q=q),
    )


@blueprint.get("/find/<any(body, float, scheme, customer, bait):kind>")
def find(kind: str) -> ResponseReturnValue:
    """What a field offers to choose from once something is typed into it: key and words of each."""
    return jsonify([{"key": key, "words": words} for key, words in picks.matching(kind, asked_text())])

"""Today: what to do now; and search over everything."""

from flask import Blueprint, render_template, request

from lamsik.core.castings.session import TITLES
from lamsik.store import documents, mixes, moulds, orders, pieces, weighed
from lamsik.store.tables import Document, MouldMade, now
from lamsik.web.mixes.views import views_of
from lamsik.web.pictures.cards import card
from lamsik.web.pieces.standing import at_work, by_order, stands
from lamsik.web.shared.db import db
from lamsik.web.stores import backups

blueprint = Blueprint("today", __name__)

MOST_JOBS = 8
"""Jobs shown on one page; the rest are in Pieces."""


@blueprint.get("/")
def board() -> str:
    """Pieces at the bench with their next step, what is due, enquiries waiting for an answer."""
    finished = pieces.all_done_steps(db())
    all_pieces = pieces.listed(db())
    made = by_order(all_pieces, finished)
    rows = [(order, customer, orders.status_of(order, made.get(order.id or 0, []))) for order, customer in orders.listed(db())]
    by_id = {order.id: (order, customer) for order, customer, _ in rows}
    going = at_work(all_pieces, finished)
    working = [(p, by_id.get(p.order_id), s) for p, s in zip(going, stands(going, finished), strict=True)]
    working.sort(key=lambda row: (row[1] is None, str(row[1][0].due_on) if row[1] else "", row[0].number))
    waiting = [row for row in rows if row[2] == "enquiry"]
    due = [row for row in rows if row[2] not in ("shipped", "enquiry")][:8]
    working, more = working[:MOST_JOBS], len(working) - MOST_JOBS
    rows_of = [db().get_one(Document, key) for key in {piece.design_id for piece, _, _ in working}]
    contents = documents.contents(db(), rows_of)
    drawn = {row.id: (row.name, contents[row.id or 0]) for row in rows_of}
    designs = {piece.id: (drawn[piece.design_id][0], card(drawn[piece.design_id][1], f"p{piece.id}")) for piece, _, _ in working}
    return render_template(
        "today/board.html",
        working=working,
        waiting=waiting,
        due=due,
        designs=designs,
        more=more,
        empty=not rows and not all_pieces,
        clocks=views_of(mixes.running(db())),
        now=now(),
        pours=_pours(),
        reminder="" if not rows and not all_pieces else backups.reminder(),
    )


def _pours() -> list[tuple[int, str]]:
    """Pours under way: where they are, what they are."""
    found = []
    for pour in moulds.open_pours(db()):
        made = db().get_one(MouldMade, pour.made_id)
        found.append((pour.id or 0, f"shot {pour.shot} of {db().get_one(Document, made.mould_id).name}: {TITLES[pour.step].lower()}"))
    return found


@blueprint.get("/search")
def search() -> str:
    """Everything whose name or number holds the text, in any script, accents aside."""
    q = request.args.get("q", "").strip()
    found: dict[str, list[tuple[str, str, str]]] = {}
    if q:
        found["Orders"] = [(order.number, f"{order.title} · {customer.name}", f"/orders/{order.id}") for order, customer in orders.listed(db(), q)]
        found["Bodies"] = [(row.code, row.name, f"/shapes/{row.id}") for row in documents.listed(db(), "body", q)]
        found["Floats"] = [(row.code, row.name, f"/floats/{row.id}") for row in documents.listed(db(), "float", q)]
        found["Weighed"] = [("", row.name, f"/scale/things/{row.id}") for row in weighed.listed(db(), text=q)]
        found["Moulds"] = [(row.code, row.name, f"/moulds/{row.id}") for row in documents.listed(db(), "mould", q)]
        found["Products"] = [(row.code, row.name, f"/mixes/products/{row.id}") for row in documents.listed(db(), "product", q)]
        found["Schemes"] = [(row.code, row.name, f"/paints/{row.id}") for row in documents.listed(db(), "scheme", q)]
        found["Pieces"] = [(piece.number, "", f"/pieces/{piece.id}") for piece in pieces.listed(db(), q)[:30]]
        found["Customers"] = [("", customer.name, f"/orders?q={customer.name}") for customer in orders.customers(db(), q)]
    return render_template("today/search.html", q=q, found={name: rows for name, rows in found.items() if rows})

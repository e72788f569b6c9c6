"""Where pieces stand on their route: for lists, orders and Today."""

from collections.abc import Sequence

from lamsik.core.route.steps import SHIPPED, stand
from lamsik.store import pieces
from lamsik.store.tables import Piece
from lamsik.web.pictures.cards import route
from lamsik.web.shared.db import db


def stands(rows: Sequence[Piece], finished: dict[int, set[str]] | None = None) -> list[tuple[str, int, int]]:
    """For each piece: the step it is at, how many are done, of how many; `finished` if it is at hand."""
    ticked = pieces.all_done_steps(db()) if finished is None else finished
    routes = {key: route(content) for key, content in pieces.documents_of(db(), rows).items()}
    found = []
    for piece in rows:
        way, done = routes[piece.revision_id], ticked.get(piece.id or 0, set())
        at = next((name for key, name in way if key not in done), "Shipped")
        found.append((at, sum(key in done for key, _ in way), len(way)))
    return found


def by_order(rows: Sequence[Piece], finished: dict[int, set[str]] | None = None) -> dict[int, list[str]]:
    """How each piece of each order stands: making, ready, shipped; told from every step of its route."""
    ticked = pieces.all_done_steps(db()) if finished is None else finished
    mine = [piece for piece in rows if piece.order_id is not None]
    routes = {key: [step for step, _ in route(content)] for key, content in pieces.documents_of(db(), mine).items()}
    found: dict[int, list[str]] = {}
    for piece in mine:
        found.setdefault(piece.order_id or 0, []).append(stand(routes[piece.revision_id], ticked.get(piece.id or 0, set())))
    return found


def at_work(rows: Sequence[Piece], finished: dict[int, set[str]]) -> list[Piece]:
    """Those that are not shipped yet; a last step ticked by itself ships nothing."""
    likely = [piece for piece in rows if "ship" in finished.get(piece.id or 0, ())]
    routes = {key: [step for step, _ in route(content)] for key, content in pieces.documents_of(db(), likely).items()}
    gone = {piece.id for piece in likely if stand(routes[piece.revision_id], finished.get(piece.id or 0, set())) == SHIPPED}
    return [piece for piece in rows if piece.id not in gone]

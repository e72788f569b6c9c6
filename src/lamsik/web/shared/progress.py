"""Where pieces stand on their route: for lists, orders and Today."""

from collections.abc import Sequence

from lamsik.store import pieces
from lamsik.store.stands import route
from lamsik.store.tables import Piece
from lamsik.web.shared.db import db


def stands(rows: Sequence[Piece]) -> list[tuple[str, int, int]]:
    """For each of some pieces: the step it is at, how many are done, of how many."""
    ticked = pieces.ticked(db(), rows)
    routes = {key: route(content) for key, content in pieces.documents_of(db(), rows).items()}
    stages = []
    for piece in rows:
        way, done = routes[piece.revision_id], ticked[piece.id or 0]
        at = next((name for key, name in way if key not in done), "Shipped")
        stages.append((at, sum(key in done for key, _ in way), len(way)))
    return stages

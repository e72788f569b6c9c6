"""Where pieces stand on their route: for lists, orders and Today."""

from collections.abc import Sequence

from lamsik.store import routes
from lamsik.store.tables import Piece
from lamsik.web.shared.db import db


def stands(rows: Sequence[Piece]) -> list[tuple[str, int, int]]:
    """For each of some pieces: the step it is at, how many are done, of how many."""
    ended, ways = routes.ended(db(), rows), routes.of_many(db(), rows)
    stages = []
    for piece in rows:
        way, done = ways[piece.id or 0], ended[piece.id or 0]
        at = next((str(step.name) for step in way if step.key not in done), "Shipped")
        stages.append((at, sum(step.key in done for step in way), len(way)))
    return stages


def waits_at(piece: Piece, step: str) -> str:
    """Where the clock of a step's wait leads: it is known by that."""
    return f"/pieces/{piece.id}#step-{step.replace(':', '-')}"

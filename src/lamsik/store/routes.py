"""The route that each piece follows, kept once for all that follow the same; and where pieces are on it."""

import json
from collections.abc import Callable, Collection, Mapping, Sequence
from hashlib import sha256

from sqlmodel import Session, col, select

from lamsik.core.quantities import UNSAID, kept_as_said, resaid, saying
from lamsik.core.route import steps
from lamsik.core.route.others import of_blade, of_float
from lamsik.core.route.repaint import repainted
from lamsik.core.trade.step_kinds import STEP_KINDS, Minutes, minutes
from lamsik.documents.blades.document import blade_of
from lamsik.documents.body.document import to_design
from lamsik.documents.floats.document import to_float
from lamsik.documents.rows import Document as Content
from lamsik.store import documents, stores
from lamsik.store.tables import Document, Piece, PieceStep, Route
from lamsik.words.route import told_route


def own_minutes(session: Session) -> dict[str, tuple[float, float]]:
    """Set-up and each [min] by kind of step: the shop's own, else the table's."""
    own = stores.setting(session, "minutes")["own"]
    return minutes({key: (float(one[0]), float(one[1])) for key, one in own.items() if key in STEP_KINDS})


def keep_minutes(session: Session, own: Mapping[str, Sequence[float]]) -> None:
    """Keep the shop's own minutes, those that are not the table's. Raises `Refused` for what is no time."""
    table, checked = minutes(), minutes({key: (one[0], one[1]) for key, one in own.items()})
    others = {key: list(one) for key, one in checked.items() if one != table[key]}
    stores.put_setting(session, "minutes", {"own": others})


BUILT: Mapping[str, Callable[[Content, Minutes], steps.Route]] = {
    "body": lambda content, own: steps.steps(to_design(content), own),
    "blade": lambda content, own: of_blade(blade_of(content).metal, own),
    "float": lambda content, own: of_float(to_float(content), own),
}
"""The route of what is made of a document, by its kind: of these kinds pieces can be made."""


def of_document(session: Session, kind: str, content: Content) -> steps.Route:
    """How one of a document is made, in the shop's own minutes."""
    return told_route(BUILT[kind](content, own_minutes(session)))


def follow(session: Session, piece: Piece) -> None:
    """Give a piece the route of what it is made from; one of a document that cannot be read has none."""
    try:
        kind = session.get_one(Document, piece.design_id).kind
        with saying(UNSAID):
            content = documents.content_at(session, piece.revision_id)
            route = (
                told_route(repainted(to_design(content), piece.repaint, own_minutes(session)))
                if piece.repaint
                else of_document(session, kind, content)
            )
    except Exception:  # whatever is wrong with the document is said where it is shown
        piece.route_id = None
    else:
        piece.route_id = _kept(session, route)
    session.add(piece)
    session.flush()


def _kept(session: Session, route: steps.Route) -> int:
    rows = json.loads(json.dumps(steps.content_of(route)))
    digest = sha256(json.dumps(rows, sort_keys=True).encode()).hexdigest()
    kept = session.exec(select(Route).where(Route.digest == digest)).first()
    if kept is None:
        kept = Route(digest=digest, steps=rows)
        session.add(kept)
        session.flush()
    return kept.id or 0


@kept_as_said(256)
def _read(text: str) -> steps.Route:
    return steps.from_content(json.loads(resaid(text)))


def of(session: Session, piece: Piece) -> steps.Route:
    """The steps a piece follows; none where what it is made from cannot be read."""
    return of_many(session, [piece])[piece.id or 0]


def of_many(session: Session, rows: Sequence[Piece]) -> dict[int, steps.Route]:
    """The steps of some pieces, by piece."""
    kept = by_id(session, {row.route_id for row in rows})
    return {row.id or 0: kept.get(row.route_id, ()) for row in rows}


def by_id(session: Session, keys: Collection[int | None]) -> dict[int | None, steps.Route]:
    """Some of the routes that are kept, by their ids."""
    kept = session.exec(select(Route).where(col(Route.id).in_(keys))).all()
    return {row.id: _read(json.dumps(row.steps)) for row in kept}


def painted(session: Session, rows: Sequence[Piece]) -> dict[int, set[str]]:
    """The keys of the layers that each piece's route puts on, by piece: a repaint leaves some out."""
    return {
        key: {step.key.removeprefix(steps.COAT) for step in route if step.key.startswith(steps.COAT)}
        for key, route in of_many(session, rows).items()
    }


def touched(session: Session, piece: Piece) -> dict[str, PieceStep]:
    """What was begun, done or left out of a piece's steps, by step."""
    return {
        row.step: row for row in session.exec(select(PieceStep).where(PieceStep.piece_id == piece.id)).all()
    }


def ended(session: Session, rows: Sequence[Piece]) -> dict[int, set[str]]:
    """Steps that are done or left out by piece, of these."""
    by_piece: dict[int, set[str]] = {row.id or 0: set() for row in rows}
    for piece_id, step in session.exec(
        select(PieceStep.piece_id, PieceStep.step).where(
            col(PieceStep.piece_id).in_(by_piece), col(PieceStep.done_at).is_not(None)
        )
    ).all():
        by_piece[piece_id].add(step)
    return by_piece


def running(session: Session, most: int) -> Sequence[tuple[PieceStep, Piece]]:
    """The steps that are begun and not ended, the newest first."""
    query = (
        select(PieceStep, Piece)
        .join(Piece)
        .where(
            col(PieceStep.done_at).is_(None),
            col(PieceStep.begun_at).is_not(None),
            col(Piece.deleted_at).is_(None),
        )
    )
    return session.exec(query.order_by(col(PieceStep.begun_at).desc()).limit(most)).all()

"""One database session for each request: committed when it went well, else rolled back."""

from collections.abc import Callable
from typing import TypeVar

from flask import Response, abort, current_app, g, request
from flask import session as browser
from sqlmodel import Session, SQLModel

from lamsik.core.errors import require
from lamsik.store.database import for_writing
from lamsik.store.events import WHO
from lamsik.store.tables import Document, Person

Row = TypeVar("Row", bound=SQLModel)
Found = TypeVar("Found")


LIVE = ("tank_live.answers", "tank_live.trials", "tank_live.pictures")
"""What computes and only reads, beside the `live` of every kind of document; what it keeps, it keeps by
`in_short`.
"""


def db() -> Session:
    """This request's session; one that may write holds the shop's one write lock from its first look to
    its end.
    """
    if "session" not in g:
        engine = current_app.extensions["engine"]
        here = request.endpoint or ""
        reads = request.method in ("GET", "HEAD") or here.endswith(".live") or here in LIVE
        g.session = Session(engine if reads else for_writing(engine), expire_on_commit=False)
        if not reads:
            _by_whom(g.session)
    session: Session = g.session
    return session


HERE = "here"
"""Under this name a browser's cookie says who stands at it."""


def _by_whom(session: Session) -> None:
    """Who the log names for what this request does; a cookie may name someone of another shop."""
    said = browser.get(HERE)
    row = session.get(Person, said) if said else None
    session.info[WHO] = row.id if row is not None and row.gone_at is None else None


def in_short(work: Callable[[Session], Found]) -> Found:
    """Write in a transaction of its own, committed at once: what is computed afterwards keeps nobody else
    waiting.
    """
    db().rollback()  # what is read from here on is read anew
    with Session(for_writing(current_app.extensions["engine"]), expire_on_commit=False) as session:
        _by_whom(session)
        result = work(session)
        session.commit()
    return result


def keep(response: Response) -> None:
    """Commit what the request did, if it went well. Raises what the database says: a full disk shows here."""
    if "session" in g:
        if response.status_code < 400:
            g.session.commit()
        else:
            g.session.rollback()


def rollback_session() -> None:
    """Drop what the request did."""
    if "session" in g:
        g.session.rollback()


def close_session(_error: BaseException | None) -> None:
    """Give the connection back."""
    session = g.pop("session", None)
    if session is not None:
        session.close()


def load(table: type[Row], key: int) -> Row:
    """The row of that id, or 404."""
    row = db().get(table, key)
    if row is None:
        abort(404)
    return row


def sent_id(name: str) -> int:
    """The id a form field names, 0 if it is empty; 400 for anything else."""
    text = request.form.get(name, "").strip()
    if text and not (text.isascii() and text.isdigit() and len(text) < 10):
        abort(400, f"The field {name!r} of that form does not name anything: open its page anew.")
    return int(text or 0)


def sent_row(table: type[Row], name: str, says: str) -> Row | None:
    """The row a form field names, None where it is empty.

    Raises:
        Refused: it is not there any more; `says` what to do then.
    """
    key = sent_id(name)
    row = db().get(table, key) if key else None
    require(row is not None or not key, name, None, says)
    return row


def load_document(kind: str, key: int, deleted: bool = False) -> Document:
    """The document of that kind and id, or 404."""
    row = load(Document, key)
    if row.kind != kind or (row.deleted_at is not None and not deleted):
        abort(404)
    g.document = row
    return row


def sent_base(row: Document) -> int:
    """The revision a form was filled in on; what it is now where the form does not say."""
    text = request.form.get("base", "")
    return int(text) if text.isascii() and text.isdigit() and len(text) < 10 else row.current

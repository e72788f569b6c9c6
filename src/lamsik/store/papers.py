"""Issued papers: each as it went out, numbered without gaps, never changed; cancelled by another."""

from collections.abc import Callable, Sequence
from hashlib import sha256

from sqlmodel import Session, col, func, select

from lamsik.core.errors import require
from lamsik.core.orders.papers import COUNTER, PAPER_KINDS, number
from lamsik.store.tables import Order, Paper


def issue(
    session: Session, order: Order, kind: str, written: Callable[[str], str], cancels: Paper | None = None
) -> Paper:
    """Issue a paper under the next number of its kind: the shop's one write lock is held, so no two get the
    same and none is left out.

    Args:
        session: that writes.
        order: whose paper it is.
        kind: which.
        written: gives the paper with its number on it, as HTML.
        cancels: the one it takes back, of a counter-document.
    """
    n = (session.exec(select(func.max(Paper.n)).where(Paper.kind == kind)).one() or 0) + 1
    html = written(number(kind, n))
    row = Paper(
        order_id=order.id or 0,
        kind=kind,
        n=n,
        number=number(kind, n),
        html=html,
        digest=sha256(html.encode()).hexdigest(),
        cancels_id=cancels.id if cancels else None,
    )
    session.add(row)
    session.flush()
    return row


def cancel(session: Session, order: Order, paper: Paper, written: Callable[[str], str]) -> Paper:
    """Take a paper back by a counter-document. Raises `Refused` for one that is taken back already, and for
    one that says no sums: that is just issued anew.
    """
    require(
        PAPER_KINDS[paper.kind].counts and paper.kind != COUNTER, "paper", paper.number, "one that says sums"
    )
    before = session.exec(select(Paper).where(Paper.cancels_id == paper.id)).first()
    require(before is None, "paper", paper.number, "one that is not cancelled yet")
    return issue(session, order, COUNTER, written, cancels=paper)


def of_order(session: Session, order: Order) -> Sequence[Paper]:
    """The papers of an order, the newest first."""
    return session.exec(select(Paper).where(Paper.order_id == order.id).order_by(col(Paper.id).desc())).all()


def is_whole(paper: Paper) -> bool:
    """Whether a paper is as it was issued."""
    return sha256(paper.html.encode()).hexdigest() == paper.digest

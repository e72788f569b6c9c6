"""What the shop has tried of paints on paints, and the stencils, combs and nets it has."""

from collections.abc import Sequence

from sqlmodel import Session, col, select

from lamsik.core.paints.lifts import Patch
from lamsik.store.tables import PaintPatch, PaintTool

MOST = 500
"""Test patches that are looked at, the newest."""


def logged(session: Session) -> Sequence[PaintPatch]:
    """The shop's test patches, the newest first."""
    return session.exec(select(PaintPatch).order_by(col(PaintPatch.id).desc()).limit(MOST)).all()


def patches(session: Session) -> list[Patch]:
    """The same as the core takes them."""
    return [Patch(row.under, row.over, row.after_h, row.result, row.note) for row in logged(session)]


def tools(session: Session) -> Sequence[PaintTool]:
    """The shop's stencils, combs and nets by kind and name."""
    return session.exec(select(PaintTool).order_by(PaintTool.kind, PaintTool.name)).all()


def tools_for(session: Session, body_id: int) -> Sequence[PaintTool]:
    """Those that were cut for a body."""
    return session.exec(
        select(PaintTool).where(PaintTool.body_id == body_id).order_by(PaintTool.kind, PaintTool.name)
    ).all()

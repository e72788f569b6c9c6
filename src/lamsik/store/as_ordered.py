"""A body as a line orders it: in its scheme, in the version that was ordered, with its own clear coats."""

from dataclasses import replace

from sqlmodel import Session, col, select

from lamsik.core.errors import Refused
from lamsik.core.quantities import counted
from lamsik.core.shapes.catalogue import Catalogue
from lamsik.core.tank.sensitivities import with_clear_coats
from lamsik.documents.body.document import to_design, with_design
from lamsik.documents.body.edits import BODY
from lamsik.documents.engine import apply
from lamsik.documents.rows import Document as Content
from lamsik.documents.schemes.document import layers_of
from lamsik.store import documents, history, stores
from lamsik.store.tables import Document, OrderLine, Revision

SAYS = "as ordered"
"""What the note of such a revision begins with."""


def dressed(
    session: Session,
    content: Content,
    row: OrderLine,
    of_version: bool = True,
    shop: Catalogue | None = None,
) -> Content:
    """The body in the scheme of a line and with its clear coats; one that is so already stays as it is.

    Args:
        session: of the shop.
        content: the document of a body.
        row: the line.
        of_version: whether the very version that was ordered goes on, too; else any of the scheme will do.
        shop: what a body can be made of, where that is known already.
    """
    if not row.scheme_id and row.clears is None:
        return content
    scheme = session.get(Document, row.scheme_id) if row.scheme_id else None
    shop = shop or stores.catalogue(session)
    if scheme is not None:
        number = row.scheme_version or scheme.current
        is_on = content["scheme"] == scheme.code
        if not is_on or (of_version and content.get("scheme_version", 0) != number):
            layers = layers_of(documents.revision(session, scheme, number).content)
            shop = replace(shop, schemes={scheme.code: layers}, versions={scheme.code: number})
            content = apply(BODY, content, {"do": "scheme", "code": scheme.code}, shop)
    if row.clears is not None and _coats(content) != row.clears:
        try:
            return apply(BODY, content, {"do": "clear", "count": row.clears}, shop)
        except Refused:  # a coat is locked: what is made for the line is as it was ordered all the same
            return with_design(content, with_clear_coats(to_design(content), row.clears))
    return content


def at_length(session: Session, content: Content, length_mm: float) -> Content:
    """The same body at another length [mm], all of it in proportion. Raises `Refused`."""
    edit = {"do": "resize", "by": "length", "text": f"{round(length_mm, 6)} mm"}
    return apply(BODY, content, edit, stores.catalogue(session))


def _coats(content: Content) -> int:
    return sum(layer["kind"] == "clear" for layer in content["layers"])


def revision_for(
    session: Session, design: Document, drawn: Revision, row: OrderLine, is_agreed: bool
) -> Revision:
    """The revision that is made for a line: as it is drawn where that is as ordered, else one beside it."""
    if design.kind != "body":
        return drawn
    content = dressed(session, drawn.content, row, is_agreed)
    if content == drawn.content:
        return drawn
    same = select(Revision).where(
        Revision.document_id == design.id,
        Revision.parent == drawn.number,
        col(Revision.note).startswith(SAYS),
    )
    for one in session.exec(same).all():
        history.ready(session, [one])
        if one.content == content:
            return one
    coats = f", {counted(row.clears, 'coat')} of clear" if row.clears is not None else ""
    return documents.branch(session, design, content, drawn.number, f"{SAYS}{coats}")

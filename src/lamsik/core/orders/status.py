"""Where an order stands, told from what is agreed and from its pieces."""

from collections.abc import Sequence

from lamsik.core.route.steps import MAKING, READY, SHIPPED

ENQUIRY, ACCEPTED = "enquiry", "accepted"
STATUSES = (ENQUIRY, ACCEPTED, MAKING, READY, SHIPPED)


def status(accepted: bool, wanted: int, pieces: Sequence[str]) -> str:
    """The order's status.

    Args:
        accepted: whether the customer and the shop have agreed.
        wanted: how many pieces are ordered.
        pieces: how each piece made for it stands on its route: making, ready or shipped.
    """
    if pieces and len(pieces) >= wanted and all(stand == SHIPPED for stand in pieces):
        return SHIPPED
    if pieces and len(pieces) >= wanted and all(stand in (READY, SHIPPED) for stand in pieces):
        return READY
    if pieces:
        return MAKING
    return ACCEPTED if accepted else ENQUIRY

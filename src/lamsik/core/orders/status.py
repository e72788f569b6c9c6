"""Where an order stands, told from what is agreed and from its pieces."""

from collections.abc import Sequence

ENQUIRY, ACCEPTED, MAKING, READY, SHIPPED = "enquiry", "accepted", "making", "ready", "shipped"
STATUSES = (ENQUIRY, ACCEPTED, MAKING, READY, SHIPPED)


def status(accepted: bool, wanted: int, pieces: Sequence[frozenset[str]]) -> str:
    """The order's status.

    Args:
        accepted: whether the customer and the shop have agreed.
        wanted: how many pieces are ordered.
        pieces: for each piece made for it, the keys of its finished steps.
    """
    if pieces and len(pieces) >= wanted and all("ship" in done for done in pieces):
        return SHIPPED
    if pieces and len(pieces) >= wanted and all("pack" in done for done in pieces):
        return READY
    if pieces:
        return MAKING
    return ACCEPTED if accepted else ENQUIRY

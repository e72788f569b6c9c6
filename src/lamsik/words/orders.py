"""What is asked where an order is taken, and what its lines are called."""

from collections.abc import Sequence

from lamsik.core.orders.customer_facts import CUSTOMER_FACTS
from lamsik.core.orders.customers import MAIL, NAME, PHONE
from lamsik.core.orders.lines import CLEAR_ONLY, DETAIL, FLOATS, MADE, PARTS, REPAINT, STOCK
from lamsik.core.orders.papers import (
    CARE,
    CONFIRMATION,
    COUNTER,
    INVOICE,
    LABEL,
    PACKING,
    QUOTE,
    RECEIPT,
)
from lamsik.core.quantities import counted

ASKED = {
    **{fact.key: fact.called for fact in CUSTOMER_FACTS},
    "contact": "How to reach them",
    "note": "Good to know of them",
}
"""By the fact of a customer."""
ALIKE = {MAIL: "the same mail", PHONE: "the same telephone", NAME: "names that are read alike"}
"""Why two customers may be one."""
LINES = {
    MADE: "Made to order",
    REPAINT: "Repaint of their own",
    CLEAR_ONLY: "Clear only, on their own",
    DETAIL: "A detail, on their own",
    STOCK: "Ready in stock",
    FLOATS: "Floats",
    PARTS: "Parts",
}
"""By kind of line."""
PER = {CLEAR_ONLY: "coat on each", FLOATS: "set"}
"""What the price of a line is for, where not for each piece."""
COLUMNS = {
    "quantity": "how many",
    "per_set": "in a set",
    "clears": "clear coats",
    "form": "form",
    "length_mm": "length",
    "material": "made of",
    "scheme_id": "scheme",
    "scheme_version": "version of the scheme",
    "behaviour": "behaviour",
    "pitch_deg": "pitch",
    "water_id": "water",
    "design_id": "design",
    "revision_id": "revision of the body",
    "old_paint": "old paint",
    "custody_id": "what of theirs",
    "rate_minor": "price for one",
    "lump_minor": "price of all",
    "note": "note",
    "deleted_at": "on the order",
}
"""What of a line can be agreed otherwise, and what it is called."""


WAITS = {
    "theirs": "what of theirs it is done to: it has not come",
    "shape": "its shape: it is not drawn yet",
    "scheme": "its scheme: it is not chosen yet",
}
"""What a line waits for."""
PAPERS = {
    QUOTE: "Quote",
    CONFIRMATION: "Order confirmation",
    PACKING: "Packing list",
    INVOICE: "Invoice",
    RECEIPT: "Receipt",
    CARE: "Care card",
    LABEL: "Address label",
    COUNTER: "Cancellation",
}
"""By kind of paper."""


def told_line(kind: str, form: str, length: str, what: str, clears: int | None) -> str:
    """What a line is called where it stands in a list.

    Args:
        kind: its kind.
        form, length: of a body, as they are said.
        what: what it is done to or made of by name; empty where nothing is chosen.
        clears: its own clear coats.
    """
    coats = counted(clears or 0, "clear coat")
    said = {
        MADE: f"{what or form}, {length}" if length else what or form,
        REPAINT: f"repaint of {what or 'their own'}",
        CLEAR_ONLY: f"{coats} on {what or 'their own'}",
        DETAIL: f"a detail on {what or 'their own'}",
        STOCK: f"{what or 'a piece'}, ready",
        FLOATS: what or "floats",
        PARTS: what or "parts",
    }
    return said[kind]


def told_lines(titles: Sequence[str]) -> str:
    """What an order is called: its first line, and how many more."""
    if not titles:
        return "nothing on it yet"
    more = len(titles) - 1
    return f"{titles[0]} and {counted(more, 'more line')}" if more else titles[0]

"""What a shop's letters begin as; each can be changed to the shop's own words."""

from lamsik.core.orders.letters import Template

BEGIN, END = "Hello {name},\n\n", "\n\nWith regards from the bench,\n{shop}"
LETTERS = {
    "quote": Template(
        "Your baits, {order}",
        BEGIN + "this is what we talked about:\n\n{lines}\n\nIn all {total}.{deposit} It would be ready by "
        "{due}. Write back with a yes and it goes on the bench." + END,
    ),
    "accepted": Template(
        "{order} is on the bench list",
        BEGIN
        + "thank you, your order is noted as we agreed:\n\n{lines}\n\nIn all {total}, by {due}.{deposit}"
        + END,
    ),
    "delay": Template(
        "{order} takes longer",
        BEGIN + "your order takes longer than we said: it will be ready by {due}. Write if that does not "
        "suit you." + END,
    ),
    "ready": Template(
        "{order} is ready",
        BEGIN + "your order is ready:\n\n{lines}\n\nStill open: {open}. It goes out once that is here." + END,
    ),
    "shipped": Template(
        "{order} is on its way",
        BEGIN + "your parcel is on its way. {tracking}" + END,
    ),
    "care": Template(
        "Looking after your baits",
        BEGIN
        + "rinse them in fresh water after the sea, dry them before they go into the box, keep them from "
        "hot windows and apart from soft baits, and look at hooks and rings before each trip. A chip down to "
        "the wood is dried for a day and sealed before it swims again." + END,
    ),
}
CALLED = {
    "quote": "Quote",
    "accepted": "Accepted",
    "delay": "Delay",
    "ready": "Ready",
    "shipped": "Shipped",
    "care": "Care",
}
"""What each is called."""

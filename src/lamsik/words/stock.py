"""What the stores are called: kinds of item, why an amount changes, amounts in the shop's units."""

from collections.abc import Sequence

from lamsik.core.quantities import counted, plainly, said
from lamsik.core.stock.kinds import MILLIMETRES, PIECES, QUANTITIES

KINDS = {
    "part": "Part",
    "metal": "Ballast metal",
    "wood": "Wood",
    "dowel": "Dowel",
    "compound": "Resin, silicone, foam",
    "paint": "Paint",
    "hair": "Hair",
    "box": "Box, card",
    "sheet": "Printed sheet",
    "brick": "Mould brick",
    "drill": "Drill",
    "stencil": "Stencil",
    "tool": "Tool",
    "other": "Other",
}
"""By kind of item."""
WHYS = {
    "bought": "Bought",
    "counted": "Counted",
    "used": "Used",
    "wasted": "Wasted",
    "returned": "Came back",
    "corrected": "Corrected",
}
"""By why an amount changes, in the order a form offers them."""
ASKED = {
    "bought": "how much came",
    "counted": "how much is there",
    "used": "how much of it",
    "wasted": "how much of it",
    "returned": "how much of it",
    "corrected": "more, or less with a minus",
}
"""What a form asks for each."""
UNITS = {PIECES: "pieces"}
STATES = {"up": "up", "down": "down", "away": "away"}
"""How a machine stands."""


LITTLE = 0.01


def amount(value: float, unit: str, sign: bool = False) -> str:
    """An amount of an item: `24`, `0.34 g`, `120 ml`, `1200 mm`."""
    if unit == PIECES:
        plus = "+" if sign and value > 0 else ""
        return plus + plainly(round(value, 2), "number").replace("-", "−")
    digits = 0 if unit == MILLIMETRES or abs(value) >= 100 else 1 if abs(value) >= 10 else 2
    if 0 < abs(value) < LITTLE and unit != MILLIMETRES:
        digits = 4  # a little is not nothing
    return said(value, QUANTITIES[unit], digits, sign)


def summed_up(short: int, orders: int, under: int, ending: int) -> str:
    """One sentence of how the stores stand.

    Args:
        short: items that are missing for what is agreed.
        orders: the orders they stop.
        under: items below what there should be.
        ending: lots that end soon or have ended.
    """
    more = []
    if under:
        more.append(f"{counted(under, 'item')} below what there should be")
    if ending:
        more.append(f"{counted(ending, 'lot')} near the end of {'its' if ending == 1 else 'their'} life")
    beside = f" {' and '.join(more).capitalize()}." if more else ""
    if short:
        return f"{counted(short, 'item')} short for {counted(orders, 'order')}.{beside}"
    return f"Nothing that is agreed waits for anything.{beside}"


def short_by(short: int, orders: int, unknown: int) -> str:
    """What is short, in one sentence; and of how much nobody knows."""
    beside = f" Of {counted(unknown, 'more thing')} nobody knows what there is." if unknown else ""
    if not short:
        return f"Nothing that is counted is short for what is agreed.{beside}"
    return f"{counted(short, 'item')} short for {counted(orders, 'order')}.{beside}"


def letter(shop: str, rows: Sequence[tuple[str, str, int]]) -> str:
    """An order to a supplier: what, how much of it or how many packs."""
    lines = [
        f"{counted(packs, 'pack')} of {name}" if packs else f"{name}: {much}" for name, much, packs in rows
    ]
    return "\n".join(["Hello,", "", "please send us:", "", *lines, "", "Thank you,", shop])


SHARES = {
    "materials": "materials",
    "hours": "your hours",
    "tools": "tools and moulds",
    "packing": "packing",
    "shipping": "shipping",
    "fees": "fees",
    "tax": "tax and duty",
}
"""Where the money goes."""


def earns(price: str, hourly: str | None, hours: str) -> str:
    """What the hour earns at a price."""
    if hourly is None:
        return f"At {price} no hands are on it."
    return f"At {price} each, {hours} of hands on one, the hour earns {hourly}."


def pays(pieces: int | None, when: str, freed: str, by_then: str, in_a_year: str = "") -> str:
    """When a tool has paid, and the hours it frees: on each, until then, in a year."""
    if pieces is None:
        return "It never pays: by hand costs no more."
    ends = f", about {when}" if when else ""
    year = f", {in_a_year} in a year" if in_a_year else ""
    after = f"It has paid after {counted(pieces, 'piece')}{ends}"
    return f"{after}; it frees {freed} on each, {by_then} by then{year}."


def of_year(year: int, sold: str, lines: int, unpaid: str, waiting: int, limit: int) -> str:
    """A year in one sentence, with what is open and what lies unfinished."""
    over = f", {waiting - limit} more than may" if waiting > limit else f" of the {limit} that may"
    bodies = f"{counted(waiting, 'body', 'bodies')} {'waits' if waiting == 1 else 'wait'} for paint{over}"
    return f"{year}: sold {sold} in {counted(lines, 'line')}; {unpaid} is still open; {bodies}."

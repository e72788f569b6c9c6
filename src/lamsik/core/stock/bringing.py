"""A table of items brought in: what each row would change, before anything does."""

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass, field
from re import fullmatch

from lamsik.core.errors import Refused, require, rule
from lamsik.core.quantities import read_measure
from lamsik.core.stock.kinds import GRAMS, ITEM_KINDS, MILLILITRES, MILLIMETRES, PIECES, QUANTITIES

THERE = "there is"
MEASURED = {THERE: "left", "pack": "pack", "least": "minimum"}
"""Columns that hold an amount in the item's unit, and what they are of an item."""
TEXTS = ("name", "place", "material", "note")
WORDS_OF = {"": PIECES, "piece": PIECES, "pieces": PIECES, "pcs": PIECES}
"""What a column calls pieces."""
ASKED = (GRAMS, MILLILITRES, MILLIMETRES)
"""Units that are asked for where a file does not say them."""


CURRENCY = rule("csv-currency")
"""What a price in a table has beside it."""


@dataclass(frozen=True)
class BroughtRow:
    """A row as it was read: its line in the file, texts by column, amounts in the stored unit."""

    line: int
    number: str
    kind: str
    unit: str
    texts: Mapping[str, str]
    amounts: Mapping[str, float]
    price: str = ""
    supplier: str = ""


@dataclass(frozen=True)
class Heads:
    """What columns are called in a file: by what they hold, and the unit in their name."""

    of: Mapping[str, str]
    unit: Mapping[str, str] = field(default_factory=dict)


def heads(names: Sequence[str]) -> Heads:
    """Columns by what they hold: `there is [oz]` holds what there is, in ounces. Raises `Refused` for two
    columns of one amount: two units.
    """
    of: dict[str, str] = {}
    units: dict[str, str] = {}
    for name in names:
        said = fullmatch(r"(.+?)\s*\[(.+)\]", name)
        key = (said[1] if said else name).strip().lower()
        if key in of:
            raise Refused("file", name, rule("csv-two-units", column=key))
        of[key] = name
        if said:
            units[key] = said[2].strip()
    return Heads(of, units)


def unasked(
    rows: Sequence[Mapping[str, str]],
    names: Heads,
    known: Mapping[str, str],
    amounts: Iterable[str] = tuple(MEASURED),
) -> list[str]:
    """The stored units of amounts whose own unit the file does not say: each is to be asked for.

    Args:
        rows: of the file.
        names: its columns.
        known: the stored unit of items the shop has, by number.
        amounts: the columns that hold an amount.
    """
    if "unit" in names.of:
        return []
    wanted = set()
    for row in rows:
        stored = _stored(row, names, known)
        for key in amounts:
            text = row.get(names.of.get(key, ""), "")
            if text and stored != PIECES and key not in names.unit and _is_bare(text):
                wanted.add(stored)
    return [one for one in ASKED if one in wanted]


def _is_bare(text: str) -> bool:
    return fullmatch(r"[-+0-9.,/ ]+", text) is not None


def _stored(row: Mapping[str, str], names: Heads, known: Mapping[str, str]) -> str:
    number, kind = row.get(names.of.get("number", ""), ""), row.get(names.of.get("kind", ""), "").lower()
    return known.get(number) or (ITEM_KINDS[kind].unit if kind in ITEM_KINDS else PIECES)


def read(
    row: Mapping[str, str], names: Heads, known: Mapping[str, str], answered: Mapping[str, str]
) -> BroughtRow:
    """A row of the file. Raises `Refused` naming the column, with the line.

    Args:
        row, names, known: as of `unasked`.
        answered: by stored unit: the unit that bare numbers are in.
    """
    line = int(row["line"])
    try:
        return _read(line, row, names, known, answered)
    except Refused as refused:
        raise Refused(f"line {line}, {refused.field}", refused.given, refused.allowed) from refused


def _read(
    line: int, row: Mapping[str, str], names: Heads, known: Mapping[str, str], answered: Mapping[str, str]
) -> BroughtRow:
    def said(key: str) -> str:
        return row.get(names.of.get(key, ""), "").strip()

    number, kind = said("number"), said("kind").lower()
    if number:
        require(number in known, "number", number, rule("csv-number"))
    else:
        require(kind in ITEM_KINDS, "kind", kind, rule("one-of", listed=", ".join(ITEM_KINDS)))
        require(bool(said("name")), "name", "", rule("csv-name"))
    stored = _stored(row, names, known)
    amounts = {
        MEASURED[key]: read_amount(key, said(key), said("unit"), stored, names, answered)
        for key in MEASURED
        if said(key)
    }
    price, currency = said("price"), said("currency") or names.unit.get("price", "")
    if price:
        require(bool(currency) or len(price.split()) == 2, "price", price, CURRENCY)
    texts = {key: said(key) for key in TEXTS if key in names.of}
    return BroughtRow(
        line,
        number,
        kind,
        stored,
        texts,
        amounts,
        f"{price} {currency}".strip() if price else "",
        said("supplier"),
    )


def read_amount(
    key: str, text: str, unit: str, stored: str, names: Heads, answered: Mapping[str, str]
) -> float:
    """An amount of a row in the stored unit. Raises `Refused`.

    Args:
        key: the column.
        text: what it says.
        unit: what a column called unit says.
        stored: the unit it is kept in.
        names, answered: as of `read`.
    """
    head = names.unit.get(key, "")
    if head and unit and head != unit:
        raise Refused(key, f"{head}, {unit}", rule("csv-two-units", column=key))
    own = unit or head
    if stored == PIECES:
        require(own.lower() in WORDS_OF, key, f"{text} {own}", rule("csv-pieces"))
        value = read_measure(text, "number", key)
    else:
        own = own or (answered.get(stored, "") if _is_bare(text) else "")
        value = read_measure(f"{text} {own}".strip(), QUANTITIES[stored], key)
    require(0 <= value < 1e7, key, text, rule("csv-amount"))
    return value

"""What an event of the shop's log is called: who did what is said from the values before and after."""

from collections.abc import Callable, Mapping
from typing import Any

from lamsik.core import quantities
from lamsik.core.orders.customer_facts import CUSTOMER_FACTS
from lamsik.core.quantities import plainly
from lamsik.words.orders import ASKED, COLUMNS, LINES, PAPERS
from lamsik.words.paints import CHECKS
from lamsik.words.stock import WHYS

Values = Mapping[str, Any]
Names = Mapping[str, str]
"""Of what is kept by a key: what it is called."""

OF = {
    "piece": "Pieces",
    "pour": "Pours",
    "batch": "Batches",
    "order": "Orders",
    "customer": "Customers",
    "document": "Designs and recipes",
    "thing": "Things weighed",
    "stock": "Stock",
    "item": "Stores",
    "person": "People",
}
"""What the log is of, as a list offers it."""

FIELDS = {
    **{name: called for name, called in COLUMNS.items() if name != "deleted_at"},
    "due_on": "due",
    "price_minor": "the price",
    "shipping_minor": "shipping",
    "discount_percent": "the discount, %",
    "discount_minor": "the discount",
    "discount_why": "why there is a discount",
    "deposit_percent": "the deposit, %",
    "deposit_minor": "the deposit",
    "hands_min": "minutes of hands",
    "cost_minor": "what it cost",
    "expected_shots": "the shots expected of it",
    "paid_on": "paid on",
    "minor": "the sum",
    "quantity": "how many",
    "design_id": "the design",
    "scheme_id": "the scheme",
    "note": "the note",
    **{f"facts.{fact.key}": f"“{ASKED[fact.key]}”" for fact in CUSTOMER_FACTS},
    "name": "the name",
    "mass_g": "the mass",
    "checked_on": "the check",
    "left_g": "what is left",
    "revision_id": "what it is made from",
    "order_id": "the order it is for",
    "cavities": "its cavities",
    "customer_id": "the customer",
}
"""What columns are called where a change of them is told."""

SAID_OF = {
    "quoted_at": ("quoted", "not quoted after all"),
    "accepted_at": ("accepted", "not accepted after all"),
    "declined_at": ("declined", "taken up again"),
    "cancelled_at": ("cancelled", "taken up again"),
}
"""What was said of an order, and what it is called when that is taken back."""
QUIET = frozenset({"typed", "route_id", "current", "at_c", "plan"})
"""Columns that change along with others, as all moments do: they are not told by themselves."""


def said(of: str, part: str, before: Values | None, after: Values | None, names: Names) -> str:
    """What was done, in words; empty where nothing of it is worth a line.

    Args:
        of, part: what it belongs to, and which part of that.
        before, after: the values; None before what was made and after what was taken away.
        names: the names of steps and of the states of a pour, by key.
    """
    tell = TOLD.get((of, part), _anything)
    return tell(before, after, names)


def _anything(before: Values | None, after: Values | None, _names: Names) -> str:
    if before is None:
        return "new"
    if after is None:
        return "taken out"
    if "deleted_at" in after or "gone_at" in after:
        return "put away" if after.get("deleted_at") or after.get("gone_at") else "brought back"
    if "undone_at" in after:
        return "taken back" if after["undone_at"] else "counts again"
    for name, (so, back) in SAID_OF.items():
        if name in after:
            return so if after[name] else back
    before, after = _spread(before), _spread(after)
    loud = [
        name
        for name in after
        if name not in QUIET and name != "at" and not name.endswith("_at") and after[name] != before.get(name)
    ]
    return "; ".join(_change(name, before.get(name), after[name]) for name in loud)


def _spread(values: Values) -> Values:
    """What is known of a customer, one by one."""
    facts = {f"facts.{key}": value for key, value in (values.get("facts") or {}).items()}
    return {**{name: value for name, value in values.items() if name != "facts"}, **facts}


def _change(name: str, was: Any, now: Any) -> str:
    called = FIELDS.get(name, name.removesuffix("_id").replace("_", " "))
    plain = not name.endswith(("_id", "_minor")) and not isinstance(now, list | dict)
    return f"{called}: {_short(was, name)} → {_short(now, name)}" if plain else f"{called} changed"


QUANTITIES = {"_mm": "length", "_g": "mass", "_g_cm3": "density", "_c": "temperature", "_deg": "angle"}
"""What a column is a measure of, by how its name ends."""


def _short(value: Any, name: str) -> str:
    measure = next((is_of for end, is_of in QUANTITIES.items() if name.endswith(end)), "")
    if isinstance(value, float):
        text = quantities.said(value, measure) if measure else quantities.plainly(value, "number")
    else:
        text = "none" if value in (None, "") else str(value)
    return text if len(text) <= 60 else f"{text[:59]}…"


def _piece(before: Values | None, after: Values | None, names: Names) -> str:
    return "begun" if before is None else _anything(before, after, names)


def _step(before: Values | None, after: Values | None, names: Names) -> str:
    step = (after or before or {}).get("step", "")
    name = names.get(step, step)
    if after is None:
        return f"{name}: taken back"
    if before is not None and "note" in after and "done_at" not in after:
        return f"noted: {after['note']}"
    if before is not None and "points" in after:
        had, has = before.get("points") or [], after["points"]
        seen = [f"{CHECKS.get(one, one)}: ticked" for one in has if one not in had]
        return "; ".join(seen + [f"{CHECKS.get(one, one)}: not yet" for one in had if one not in has])
    if after.get("reason"):
        return f"{name}: left out, {after['reason']}"
    if after.get("done_at"):
        return f"{name or 'a step'}: done" + (f", {after['note']}" if after.get("note") else "")
    return f"{name}: begun"


READ = {
    "air": "weighed in air",
    "water": "weighed in water",
    "sinker": "its sinker weighed in water",
    "both": "weighed in water with its sinker",
    "mark": "weighed pulled down to the {}",
}
"""What was read of a thing."""


def _observed(before: Values | None, after: Values | None, names: Names) -> str:
    if before is None and after is not None:
        kind, _, target = after["what"].partition(":")
        if after["of"] == "thing":
            return f"{READ[kind].format(target)}: {after['text'] or quantities.said(after['value'], 'mass')}"
        if target:
            where = " under water" if kind == "water" else ""
            return f"weighed {names.get(target, target)}{where}: {after['text']}"
        tow = kind == "tow"
        figure = quantities.plainly(after["value"], "distance" if tow else "seconds")
        return f"{after['what']}: {figure}{' deep' if tow else ''}"
    return _anything(before, after, names)


def _pour(before: Values | None, after: Values | None, names: Names) -> str:
    if before is None or after is None:
        return "begun"
    if after.get("failed"):
        return "failed"
    if after.get("castings"):
        good = sum(bool(one.get("good")) for one in after["castings"])
        return f"counted: {good} of {len(after['castings'])} good"
    if "step" in after:
        return f"on to: {names.get(after['step'], after['step'])}"
    if "ticks" in after:
        more = set(after["ticks"]) - set(before.get("ticks") or ())
        less = set(before.get("ticks") or ()) - set(after["ticks"])
        return "; ".join(
            [f"{name}: seen to" for name in sorted(more)] + [f"{name}: not yet" for name in less]
        )
    return _anything(before, after, names)


def _batch(before: Values | None, after: Values | None, names: Names) -> str:
    if before is None or after is None:
        return "begun"
    if "state" in after:
        return str(after["state"])
    if "weighed" in after:
        had, has = before.get("weighed") or [], after["weighed"]
        more = [f"{one['part']} {plainly(one['grams'], 'mass')}" for one in has if one not in had]
        less = [f"{one['part']} taken back" for one in had if one not in has and not more]
        return f"weighed {', '.join(more)}" if more else ", ".join(less)
    return _anything(before, after, names)


def _mould_made(before: Values | None, after: Values | None, names: Names) -> str:
    if before is None and after is not None:
        return f"mould made: version {after['version']}, {after['material'] or 'of no named material'}"
    return _anything(before, after, names)


def _document(before: Values | None, after: Values | None, names: Names) -> str:
    if before is not None and after is not None and "current" in after:
        renamed = f", now called {after['name']}" if "name" in after else ""
        return f"revision {before['current']} → {after['current']}{renamed}"
    return _anything(before, after, names)


def _line(before: Values | None, after: Values | None, names: Names) -> str:
    if before is None and after is not None:
        return f"a line: {after['quantity']} × {LINES[after['kind']].lower()}"
    if after is not None and after.get("picked_at"):
        return "parts off the shelf for it"
    loud = {name: value for name, value in (after or {}).items() if name != "agreed"}
    said = _anything(before, loud if after is not None else None, names)
    return f"a line: {said}" if said else ""


def _order_change(before: Values | None, after: Values | None, _names: Names) -> str:
    if before is None and after is not None:
        called = ", ".join(COLUMNS[name] for name in after["after"])
        return f"a change is asked for: {called}"
    return f"they said {after['answer']} to a change" if after and after.get("answer") else ""


def _promise(before: Values | None, after: Values | None, _names: Names) -> str:
    if after is None:
        return "a promise taken off"
    return f"promised for {after['due_on']}" if before is None else "a promise changed"


def _parcel(before: Values | None, after: Values | None, _names: Names) -> str:
    number = (after or before or {}).get("number", "")
    if before is None:
        return f"parcel {number} packed"
    if after is None:
        return f"parcel {number} unpacked"
    if "sent_on" in after:
        return (
            f"parcel {number} went out" if after["sent_on"] else f"parcel {number} did not go out after all"
        )
    return f"parcel {number}: weight or tracking"


def _paper(_before: Values | None, after: Values | None, _names: Names) -> str:
    return f"{PAPERS[after['kind']].lower()} {after['number']} issued" if after else ""


def _letter(before: Values | None, after: Values | None, _names: Names) -> str:
    if after is None:
        return "a letter taken out"
    if before is None:
        way = "a letter came" if after["state"] == "came" else "a letter written"
        return f"{way}: {after['subject']}"
    return {"sent": "a letter went out", "failed": "a letter did not go out"}.get(after.get("state", ""), "")


def _movement(before: Values | None, after: Values | None, _names: Names) -> str:
    if after is None:
        return "a movement taken out"
    why = WHYS[str(after["why"])].lower()
    if before is None:
        figure = after["counted"] if after.get("counted") is not None else abs(after["amount"])
        by = after["of"].partition(":")[0]
        return f"{why}: {plainly(round(figure, 3), 'number')}{f', by a {by}' if by else ''}"
    return f"{why}: {_anything(before, {k: v for k, v in after.items() if k != 'why'}, {})}"


def _lot(before: Values | None, after: Values | None, names: Names) -> str:
    lot = (after or before or {}).get("lot") or "without a number"
    return f"lot {lot}: {_anything(before, after, names)}"


TOLD: dict[tuple[str, str], Callable[[Values | None, Values | None, Names], str]] = {
    ("piece", ""): _piece,
    ("piece", "step"): _step,
    ("piece", "observed"): _observed,
    ("document", "observed"): _observed,
    ("thing", "observed"): _observed,
    ("order", "line"): _line,
    ("order", "change"): _order_change,
    ("order", "promise"): _promise,
    ("order", "parcel"): _parcel,
    ("order", "paper"): _paper,
    ("customer", "message"): _letter,
    ("stock", "movement"): _movement,
    ("stock", "lot"): _lot,
    ("pour", ""): _pour,
    ("batch", ""): _batch,
    ("document", ""): _document,
    ("document", "made"): _mould_made,
}
"""By what it is of and its part; all others are told alike."""

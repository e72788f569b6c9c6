"""Many lines of an order at once: bodies down, schemes across, a tab for each size; pasted, or from a CSV."""

import json
from collections.abc import Iterator, Sequence
from dataclasses import dataclass, field

from flask import Blueprint, flash, redirect, render_template, request, url_for
from flask.typing import ResponseReturnValue

from lamsik.core.errors import Refused, require
from lamsik.core.money import read as read_money
from lamsik.core.orders import grid
from lamsik.core.orders.grid import LEFT_OUT, Cell
from lamsik.core.quantities import counted, plainly, read_measure
from lamsik.documents.body.document import to_design
from lamsik.store import documents, order_lines, rights, stands, stores
from lamsik.store.order_lines import MOST_LINES
from lamsik.store.tables import Document, Order, OrderLine
from lamsik.web.shared.db import db, load
from lamsik.words import refusals
from lamsik.words.tell import told

blueprint = Blueprint("orders_grid", __name__, url_prefix="/orders/<int:order_id>/grid")
OWN = "own size"
MOST_BODIES, MOST_SCHEMES, MOST_SIZES = 12, 60, 5


@dataclass
class GridTyped:
    """What stands in the grid: the sizes and which is shown, what is looked for, the cells by size as they
    were typed, the price, a table that was pasted; what is wrong with any.
    """

    sizes: list[str]
    tab: int = 0
    body: str = ""
    scheme: str = ""
    cells: dict[str, dict[str, str]] = field(default_factory=dict)
    price: str = ""
    table: str = ""
    problems: list[str] = field(default_factory=list)

    @property
    def shown(self) -> dict[str, str]:
        """The cells of the size that is shown."""
        return self.cells.setdefault(self.sizes[self.tab], {})


@blueprint.route("", methods=["GET", "POST"])
def show(order_id: int) -> ResponseReturnValue:
    """The grid; what is typed goes along from tab to tab until it is put on the order."""
    order = load(Order, order_id)
    typed = _typed()
    if request.method == "GET":
        return _page(order, typed)
    try:
        if request.form.get("do") == "table":
            _read_table(typed)
        elif request.form.get("do") in ("leave", "allow"):
            _leave(request.form.get("pair", ""), request.form["do"] == "leave")
        elif request.form.get("do") == "keep":
            with db().begin_nested():
                return _put(order, typed)
    except Refused as refused:
        typed.problems.append(refusals.says(refused))
    return _page(order, typed)


def _typed() -> GridTyped:
    """What was sent. What cannot be read of the sizes is said and left out."""
    typed = GridTyped([OWN])
    if request.method == "GET":
        return typed
    for text in request.form.get("sizes", "").split(";")[: MOST_SIZES + 1]:
        if text.strip() and text.strip() != OWN:
            try:
                mm = read_measure(text.strip(), "length", "size")
                require(5.0 <= mm <= 600.0, "size", text.strip(), "a length a bait can have")
                typed.sizes.append(plainly(mm, "length"))
            except Refused as refused:
                typed.problems.append(refusals.says(refused))
    typed.sizes = list(dict.fromkeys(typed.sizes))[:MOST_SIZES]
    typed.body, typed.scheme = (request.form.get(name, "")[:60] for name in ("body", "scheme"))
    typed.price, typed.table = (
        request.form.get("price", "")[:12],
        request.form.get("table", "")[: grid.MOST_TEXT],
    )
    sent = request.files.get("file")
    if sent is not None and sent.filename:
        typed.table = sent.read(grid.MOST_TEXT).decode("utf-8-sig", errors="replace")
    typed.cells = _kept(request.form.get("kept", ""))
    was = request.form.get("was", OWN)
    for name, text in request.form.items():
        if name.startswith("c:"):
            typed.cells.setdefault(was, {})[name[2:]] = text.strip()[:20]
    tab = request.form.get("tab", was)
    typed.tab = typed.sizes.index(tab) if tab in typed.sizes else 0
    return typed


def _kept(text: str) -> dict[str, dict[str, str]]:
    """What was typed on the other tabs, as the page carries it; nothing of what is no such thing."""
    try:
        held = json.loads(text or "{}")
    except json.JSONDecodeError:
        return {}
    if not isinstance(held, dict):
        return {}
    return {
        str(size)[:40]: {str(cell)[:80]: str(many)[:20] for cell, many in cells.items()}
        for size, cells in list(held.items())[:MOST_SIZES]
        if isinstance(cells, dict) and len(cells) <= grid.MOST_CELLS
    }


def _documents(kind: str, text: str, most: int) -> Sequence[Document]:
    return documents.listed(db(), kind, text, most)


def _read_table(typed: GridTyped) -> None:
    """A table that was pasted fills the cells of the tab that is shown."""
    names: list[dict[str, str]] = []
    for kind in ("body", "scheme"):
        rows = _documents(kind, "", 2000)
        names.append({key.casefold(): row.code for row in rows for key in (row.name, row.code)})
    table = grid.read(typed.table, *names)
    for (body, scheme), many in table.cells.items():
        typed.shown[f"{body}:{scheme}"] = str(many)
    for body, scheme in sorted(table.left_out):
        _leave(f"{body}:{scheme}", True)
    typed.problems += [str(told(one)) for one in table.problems]
    if not table.problems:
        typed.table = ""


def _leave(pair: str, out: bool) -> None:
    """A body and a scheme are not made together, or are after all."""
    body, _, scheme = pair.partition(":")
    held = [one for one in stores.setting(db(), "grid")["left_out"] if one != [body, scheme]]
    stores.put_setting(db(), "grid", {"left_out": [*held, [body, scheme]] if out else held})


def left_out() -> set[Cell]:
    """The bodies and schemes that this shop does not make together."""
    return {(body, scheme) for body, scheme in stores.setting(db(), "grid")["left_out"]}


def _page(order: Order, typed: GridTyped) -> ResponseReturnValue:
    bodies = _documents("body", typed.body, MOST_BODIES)
    schemes = _documents("scheme", typed.scheme, MOST_SCHEMES)
    not_sold = {row.code: why for row in (*bodies, *schemes) if (why := rights.why_not(db(), row.id))}
    sums = {
        size: sum(grid.number(text) or 0 for text in cells.values()) for size, cells in typed.cells.items()
    }
    return render_template(
        "orders/grid.html",
        order=order,
        typed=typed,
        bodies=bodies,
        schemes=schemes,
        not_sold=not_sold,
        left_out=left_out(),
        wrong={cell for cell, text in typed.shown.items() if grid.number(text) is None},
        kept=json.dumps(
            {size: cells for size, cells in typed.cells.items() if size != typed.sizes[typed.tab]}
        ),
        sums=sums,
    ), (422 if typed.problems else 200)


def _put(order: Order, typed: GridTyped) -> ResponseReturnValue:
    """The cells become lines of the order."""
    require(
        order.accepted_at is None,
        "order",
        order.number,
        "an order that is not agreed yet: add lines one by one",
    )
    rate = read_money(typed.price, order.currency).minor if typed.price.strip() else None
    rows = list(_lines(order, typed, rate))
    if typed.problems:
        raise Refused("grid", typed.problems.pop(), "put that right first")
    require(bool(rows), "grid", "", "a number in one of its cells")
    there = len(stands.lines_of(db(), order))
    require(there + len(rows) <= MOST_LINES, "grid", len(rows), f"at most {MOST_LINES} lines on an order")
    for row in rows:
        order_lines.keep(db(), row)
    baits = counted(sum(row.quantity for row in rows), "bait")
    flash(f"{counted(len(rows), 'line')} on {order.number}: {baits}.")
    return redirect(url_for("orders.show", key=order.id, _anchor="lines"))


def _lines(order: Order, typed: GridTyped, rate: int | None) -> Iterator[OrderLine]:
    bodies: dict[str, Document | None] = {}
    schemes: dict[str, Document | None] = {}
    out = left_out()
    for size in typed.sizes:
        for cell, text in typed.cells.get(size, {}).items():
            body, _, scheme = cell.partition(":")
            many = grid.number(text)
            if many == 0:
                continue
            for known, kind, code in ((bodies, "body", body), (schemes, "scheme", scheme)):
                if code not in known:
                    known[code] = documents.coded(db(), kind, code)
            drawn, paint = bodies[body], schemes[scheme]
            if many is None or drawn is None or paint is None or text.casefold() == LEFT_OUT:
                typed.problems.append(f"{body} in {scheme}, {size}: “{text}” is no number of pieces")
            elif (body, scheme) in out:
                typed.problems.append(f"{body} in {scheme}: not made together in this shop")
            else:
                yield _line(order, drawn, paint, size, many, rate)


def _line(
    order: Order, drawn: Document, paint: Document, size: str, many: int, rate: int | None
) -> OrderLine:
    design = to_design(documents.content(db(), drawn))
    row = order_lines.begun(db(), order)
    mm = design.body.length_mm if size == OWN else read_measure(size, "length", "size")
    row.quantity, row.rate_minor, row.scheme_id, row.length_mm = many, rate, paint.id, mm
    row.form, row.material = design.form or row.form, design.host.name
    row.typed = {"length": plainly(mm, "length")}
    row.behaviour, row.pitch_deg = design.want.behaviour, design.want.pitch_deg
    is_own = abs(mm - design.body.length_mm) < 0.05
    row.design_id, row.like_id = (drawn.id, None) if is_own else (None, drawn.id)
    return row

"""Mixes: how much of what, weighed out part by part, with the clocks that then run."""

from collections.abc import Callable
from contextlib import suppress
from datetime import datetime
from typing import Any

from flask import Blueprint, Response, flash, jsonify, redirect, render_template, request, url_for
from flask.typing import ResponseReturnValue

from lamsik.core.castings.pouring import WEIGHING
from lamsik.core.cautions import to_read
from lamsik.core.errors import Refused
from lamsik.core.mixes.fillers import FILLERS
from lamsik.core.mixes.overpour import Remedy, digits, put_right
from lamsik.core.mixes.product import Product, ratio_text
from lamsik.core.mixes.tubs import is_expired
from lamsik.core.quantities import plainly, said
from lamsik.store import mixes, paint_mixes, pours, stores
from lamsik.store.tables import Batch, Clock, Document, Pour, StockLot, now
from lamsik.web.batches.begin import begin, left_g
from lamsik.web.batches.clocks import views_of
from lamsik.web.batches.planning import BatchAsked, error_percent, plan
from lamsik.web.mixes.paint_view import drops_said, mixed_view
from lamsik.web.mixes.sources import is_uncounted, most_g, sent_g, source_of
from lamsik.web.shared.db import db, load, load_document, sent_id
from lamsik.web.shared.scale import board, typed_weight
from lamsik.web.shared.whole import Broken
from lamsik.words import refusals
from lamsik.words.mixes import RULE_OF_THUMB

blueprint = Blueprint("mixes", __name__, url_prefix="/mixes")


@blueprint.get("")
def index() -> ResponseReturnValue:
    """Ask for a mix; clocks that run; products and what is in their tubs."""
    return _page()


def _page(problem: Refused | None = None) -> ResponseReturnValue:
    products = mixes.products(db(), request.args.get("q", ""))
    every = mixes.products(db()) if request.args.get("q") else products
    mix = None
    try:
        chosen = _chosen(every)
    except Refused as refused:
        chosen, problem = next(iter(every), 0), problem or refused
    if (
        chosen
        and (request.args.get("net", "").strip() or request.args.get("sprue", "").strip())
        and problem is None
    ):
        try:
            mix = plan(chosen, every[chosen][1], BatchAsked(request.args), datetime.now())
        except Refused as refused:
            problem = refused
    return render_template(
        "mixes/index.html",
        products=products,
        every=every,
        chosen=chosen,
        asked=request.args,
        plan=mix,
        problem=problem,
        clocks=views_of(mixes.running(db())),
        batches=_last(every),
        fillers=FILLERS,
        rule=RULE_OF_THUMB,
        ratio=ratio_text,
        stock=_stock(products),
        losses={key: mixes.loss_of(db(), key) for key in ([chosen] if chosen else [])},
        q=request.args.get("q", ""),
        room=stores.setting(db(), "mixing"),
        digits=digits,
        now=now(),
        broken=[Broken(row, refusals.says(why)) for row, why in mixes.unreadable(db())],
    ), (422 if problem else 200)


def _chosen(products: dict[int, tuple[Document, Product]]) -> int:
    """The product asked for, else the first there is, 0 where there is none. Raises `Refused` for one that
    is not in the shop.
    """
    text = request.args.get("product", "").strip()
    if text and text not in map(str, products):
        raise Refused("product", None, "that product is not in the shop any more: choose one")
    return int(text) if text else next(iter(products), 0)


def _last(products: dict[int, tuple[Document, Product]]) -> list[tuple[Batch, Product]]:
    """The last batches, each with its product, put away since or not."""
    batches = []
    for row in mixes.batches(db(), 8):
        with suppress(
            Refused
        ):  # of a product whose recipe is none there is nothing to show here; it is listed above
            batches.append(
                (
                    row,
                    (
                        products[row.product_id][1]
                        if row.product_id in products
                        else mixes.recipe_of(db(), row)
                    ),
                )
            )
    return batches


def _stock(products: dict[int, tuple[Document, Product]]) -> dict[int, list[tuple[StockLot, bool]]]:
    """Tubs by product with whether each is past its day."""
    tubs, today = mixes.tubs_by_product(db()), datetime.now().date()
    return {
        key: [(row, is_expired(mixes.core_tub(row), product.open_days, today)) for row in tubs.get(key, [])]
        for key, (_, product) in products.items()
    }


@blueprint.post("/weigh")
def start() -> ResponseReturnValue:
    """Begin weighing a planned mix; too little in the tubs is said before anything is mixed."""
    products = mixes.products(db())
    key = sent_id("product")
    if key not in products:
        raise Refused("product", key, "a product of this shop")
    mix = plan(key, products[key][1], BatchAsked(request.form), datetime.now())
    purpose = request.form.get("purpose", "").strip()[:60] or mix.product.name
    mould = load_document("mould", sent_id("mould")).id if sent_id("mould") else None
    if not mix.layers:
        return redirect(url_for("mixes.batch", key=begin(mix, purpose, mould).id))
    first, *_ = [begin(mix, f"{layer.name} of {purpose}", mould, layer=layer) for layer in mix.layers]
    flash(
        f"{len(mix.layers)} batches, one for each layer: the next is poured once the one before has gelled;"
        " its clock rings."
    )
    return redirect(url_for("mixes.batch", key=first.id))


@blueprint.get("/batch/<int:key>")
def batch(key: int) -> ResponseReturnValue:
    """Weigh a batch part by part."""
    return batch_page(load(Batch, key))


def batch_page(row: Batch, problem: Refused | None = None) -> ResponseReturnValue:
    """The tare-and-fill guide of one batch."""
    return render_template(
        "mixes/batch.html",
        problem=problem,
        **board(f"batch {row.id}"),
        **guide(row),
        back=url_for("moulds_pour.show", key=row.pour_id) if row.pour_id else "",
    ), (422 if problem else 200)


def guide(row: Batch) -> dict[str, object]:
    """What the guide shows: lines with what is to be in the cup of each, weighed, tub; where the ratio
    stands; what puts it right.
    """
    product = mixes.recipe_of(db(), row)
    step = float(row.plan.get("step_g") or 0.1)
    names = [part.name for part in product.parts]
    planned = float(row.plan.get("total_g") or sum(float(line["grams"]) for line in row.plan["rows"]))
    grams = [mixes.weighed_g(row, name) for name in names]
    amends = (
        put_right(product, grams, step, [most_g(row, name) for name in names], planned)
        if any(grams)
        else None
    )
    remedy = amends if amends and (amends.over_percent or (all(grams) and not amends.within)) else None
    wanted = _wanted(row, names, grams, remedy, planned)
    lines = [_line(row, product, line, wanted[line["part"]]) for line in _lines(row)]
    return {
        "row": row,
        "product": product,
        "lines": lines,
        "step": step,
        "digits": digits(step),
        "error": error_percent(product, grams),
        "remedy": remedy,
        "lots": mixes.lots_of(row),
        "unread": unread(row),
        "teaches": mixes.used_of(row) is not None,
        "to_mix": sum(wanted[name] for name in names),
        "planned": planned,
        "at": next((n for n, line in enumerate(lines) if not line["got"]), None),
        "all_in": all(line["got"] for line in lines),
        "ratio": drops_said(row) or ratio_text(product),
        "paint": mixed_view(row),
        "fills": stores.setting(db(), "mixing"),
        "clocks": views_of([clock for clock in mixes.running(db()) if clock.batch_id == row.id]),
        "rule": RULE_OF_THUMB,
        "now": now(),
        "adding": (
            {part.name: more for part, more in zip(product.parts, remedy.add_g, strict=True)}
            if remedy and not remedy.within
            else {}
        ),
    }


def _lines(row: Batch) -> list[dict[str, Any]]:
    """What is weighed in: the parts, then what goes in beside them."""
    return [*row.plan["rows"], *row.plan.get("extras", [])]


def _wanted(
    row: Batch, names: list[str], grams: list[float], remedy: Remedy | None, planned: float
) -> dict[str, float]:
    """What is to be in the cup of each line [g]: what is in it sets the batch, every other line follows."""
    wanted = {line["part"]: float(line["grams"]) for line in _lines(row)}
    if not remedy:
        return wanted
    add = (0.0,) * len(names) if remedy.within else remedy.add_g
    wanted |= {name: have + more for name, have, more in zip(names, grams, add, strict=True)}
    grown = remedy.total_g / planned if remedy.over_percent > 0 else 1.0
    extras = row.plan.get("extras", [])
    return wanted | {line["part"]: round(float(line["grams"]) * grown, 3) for line in extras}


def _line(row: Batch, product: Product, line: dict[str, Any], to: float) -> dict[str, Any]:
    got = mixes.weighed_g(row, line["part"])
    return {
        **line,
        "grams": to,
        "planned": float(line["grams"]),
        "got": got,
        "tub": source_of(product, row, line["part"], max(to - got, 0.0) or to),
        "uncounted": is_uncounted(row, line["part"]),
        "off": got - to,
        "is_part": any(part.name == line["part"] for part in product.parts),
    }


@blueprint.post("/batch/<int:key>/weigh")
def weigh(key: int) -> ResponseReturnValue:
    """Keep what the scale shows of a part; the grams weighed count, not the plan."""
    row = load(Batch, key)
    part, text = request.form.get("part", ""), request.form.get("grams") or request.form.get("drops", "")
    try:
        if unread(row):
            raise Refused(
                "caution",
                "not read",
                "read it and the product's safety data sheet, and tick that, before anything is poured",
            )
        if not any(line["part"] == part for line in [*row.plan["rows"], *row.plan.get("extras", [])]):
            raise Refused("part", part, "a part of this mix")
        grams = sent_g(row, part, request.form)
        if grams <= 0:
            raise Refused(part, text, "more than nothing: tare the cup, then pour")
        more = bool(request.form.get("more"))
        product = mixes.recipe_of(db(), row)
        is_part = any(part == p.name for p in product.parts)
        tub = source_of(product, row, part, grams) if is_part else None
        if is_part and tub is None and not is_uncounted(row, part):
            raise Refused(
                part,
                text,
                "no pot of it holds so much: count what is in its pots on its page, then weigh again"
                if paint_mixes.is_paint(row)
                else "no good tub holds so much: receive one in the product's page, then weigh again",
            )
        mixes.weigh(db(), row, part, round(grams, 4), tub, more)
    except Refused as refused:
        db().rollback()
        return batch_page(load(Batch, key), refused)
    return redirect(url_for("mixes.batch", key=key))


def unread(row: Batch) -> tuple[str, ...]:
    """Cautions to be read before this batch is weighed: of its product and its filler; a pour's are ticked
    with its checklist.
    """
    if row.state != WEIGHING:
        return ()
    pour = db().get(Pour, row.pour_id) if row.pour_id else None
    product = mixes.recipe_of(db(), row)
    fillers = [
        FILLERS[line["part"]].caution for line in row.plan.get("extras", []) if line["part"] in FILLERS
    ]
    ticked = [
        *row.plan.get("cautions_read", []),
        *([product.caution] if pour and "caution" in pour.ticks else []),
    ]
    return to_read(
        [product.caution, *row.plan.get("cautions", []), *fillers],
        ticked,
        stores.setting(db(), "cautions")["read_on"],
        datetime.now().date().isoformat(),
    )


@blueprint.post("/batch/<int:key>/read")
def read(key: int) -> ResponseReturnValue:
    """The cautions of a batch are read: for this batch, and those that are read once a day for the day."""
    row = load(Batch, key)
    now_read, today = unread(row), datetime.now().date().isoformat()
    row.plan = {**row.plan, "cautions_read": sorted({*row.plan.get("cautions_read", []), *now_read})}
    db().add(row)
    stores.put_setting(
        db(),
        "cautions",
        {"read_on": {**stores.setting(db(), "cautions")["read_on"], **dict.fromkeys(now_read, today)}},
    )
    return redirect(url_for("mixes.batch", key=key))


@blueprint.post("/batch/<int:key>/take-back")
def take_back(key: int) -> ResponseReturnValue:
    """A part that was kept was not poured after all, or not so: it is weighed anew."""
    row = load(Batch, key)
    try:
        mixes.take_back(db(), row, request.form.get("part", ""))
    except Refused as refused:
        db().rollback()
        return batch_page(load(Batch, key), refused)
    return redirect(url_for("mixes.batch", key=key))


@blueprint.post("/batch/<int:key>/<any(mixed, unmixed, poured, failed, dropped):way>")
def step(key: int, way: str) -> ResponseReturnValue:
    """Mixed: the pot's clock runs. Poured: demould and cure run. Failed or dropped: it is said so."""
    row = load(Batch, key)
    try:
        HAPPENS[way](row, mixes.recipe_of(db(), row))
    except Refused as refused:
        db().rollback()
        return batch_page(load(Batch, key), refused)
    if row.pour_id and way != "unmixed":
        return redirect(url_for("moulds_pour.show", key=row.pour_id))
    return redirect(
        url_for("mixes.index") if way in ("failed", "dropped") else url_for("mixes.batch", key=key)
    )


def _mixed(row: Batch, product: Product) -> None:
    if unread(row):
        raise Refused("caution", "not read", "read it, and tick that, before the parts meet")
    _ready_to_mix(row, product)
    pours.mix(db(), row, product)


def _failed(row: Batch, _product: Product) -> None:
    pours.spoil(db(), row)
    flash("Noted as failed: its material is used, its lot stays known.")


def _dropped(row: Batch, _product: Product) -> None:
    pours.put_back(db(), row)
    flash("The batch is dropped; what was weighed is back on the books.")


HAPPENS: dict[str, Callable[[Batch, Product], None]] = {
    "mixed": _mixed,
    "unmixed": lambda row, _: pours.unmix(db(), row),
    "poured": lambda row, product: pours.pour_out(db(), row, product, left_g()),
    "failed": _failed,
    "dropped": _dropped,
}
"""By the word in its address: what happens to a batch."""


def _ready_to_mix(row: Batch, product: Product) -> None:
    """Refuse mixing before every part is in, or out of tolerance."""
    grams = [mixes.weighed_g(row, part.name) for part in product.parts]
    lacking = [part.name for part, g in zip(product.parts, grams, strict=True) if not g]
    if lacking:
        raise Refused("parts", ", ".join(lacking), "weigh them in first")
    off = error_percent(product, grams) or 0.0
    if off > product.tolerance_percent:
        raise Refused(
            "ratio",
            f"off by {said(off, 'percent')}",
            f"it allows {plainly(product.tolerance_percent, 'percent')}: put it right first, or drop"
            " the batch",
        )


WEIGHED = {"left_g": "left", "lost_g": "lost", "gained_g": "gained"}
"""What is weighed of a mix of paint after it was used, and where it is typed."""


@blueprint.post("/batch/<int:key>/taught")
def taught(key: int) -> ResponseReturnValue:
    """Keep what was weighed of a mix of paint after it was used."""
    row = load(Batch, key)
    try:
        if not paint_mixes.is_paint(row):
            raise Refused("batch", row.purpose, "a mix of paint")
        weighed = {
            name: typed_weight(text, field) if (text := request.form.get(field, "").strip()) else None
            for name, field in WEIGHED.items()
        }
        paint_mixes.teach(db(), row, weighed)
    except Refused as refused:
        db().rollback()
        return batch_page(load(Batch, key), refused)
    return redirect(url_for("mixes.batch", key=key))


@blueprint.get("/clocks")
def clocks() -> str:
    """Every clock that runs, readable from across the shop."""
    return render_template("mixes/clocks.html", clocks=views_of(mixes.running(db())), now=now())


@blueprint.get("/clocks.json")
def clocks_state() -> Response:
    """Clocks for pages that are left open."""
    return jsonify(
        now=now().isoformat(),
        clocks=[{k: v for k, v in row.items() if k != "ends_at"} for row in views_of(mixes.running(db()))],
    )


@blueprint.post("/clocks/<int:key>/stop")
def stop(key: int) -> ResponseReturnValue:
    """Someone saw to it."""
    row = load(Clock, key)
    row.stopped_at = now()
    db().add(row)
    if request.accept_mimetypes.best == "application/json":
        return jsonify(ok=True)
    flash(f"Stopped: {row.name}.", f"undo:{url_for('mixes.run_on', key=key)}")
    return redirect(url_for("mixes.clocks"))


@blueprint.post("/clocks/<int:key>/run-on")
def run_on(key: int) -> ResponseReturnValue:
    """It was stopped by mistake: it runs on, as if it never stood."""
    row = load(Clock, key)
    row.stopped_at = None
    db().add(row)
    return redirect(url_for("mixes.clocks"))

"""A pour as a guided run: lay out and tick, weigh, mix, pour, cure, demould, count; good castings become pieces."""

from datetime import datetime
from typing import Any

from flask import Blueprint, flash, redirect, render_template, request, url_for
from flask.typing import ResponseReturnValue

from lamsik.core.castings import session as run
from lamsik.core.errors import Refused
from lamsik.core.mixes.fillers import FILLERS
from lamsik.core.mixes.product import Product
from lamsik.core.moulds.faults import FAULTS
from lamsik.core.moulds.layout import Mould
from lamsik.store import mixes, moulds, orders
from lamsik.store.tables import Batch, Document, MouldMade, Piece, Pour, now
from lamsik.web.mixes.planning import Asked, plan
from lamsik.web.mixes.views import begin as begin_batch
from lamsik.web.mixes.views import views_of
from lamsik.web.moulds.cast import FIELDS, castables, design_of, in_use, opened, product_asked, scraps_of
from lamsik.web.moulds.casting import Casting, casting
from lamsik.web.shared.db import db, load, sent_id

blueprint = Blueprint("moulds_pour", __name__, url_prefix="/pours")


@blueprint.post("/begin/<int:key>")
def begin(key: int) -> ResponseReturnValue:
    """Begin a pour in a mould, as asked on its casting page; what stands against it is said there."""
    try:
        pour = _begun(key)
    except Refused as refused:
        db().rollback()
        flash(f"No pour is begun. {refused.field.capitalize()}: {refused.given}; {refused.allowed}.")
        kept: dict[str, Any] = {name: request.form[name] for name in FIELDS if request.form.get(name, "").strip() and name != "at"}
        return redirect(url_for("moulds_cast.show", key=key, **kept))
    return redirect(url_for("moulds_pour.show", key=pour.id))


def _begun(key: int) -> Pour:
    made, asked = in_use(key), Asked(request.form)
    row, content, mould = opened(key, made)
    if made is None:
        raise Refused("mould", row.name, "note on its card that it is made first")
    chosen = product_asked(content, asked, castables())
    if chosen is None:
        raise Refused("product", "", "keep a product first: type what stands on its tin")
    order = sent_id("order") or None
    why = moulds.not_for_sale(db(), content["master"].get("body_id")) if order else ""
    if why:
        raise Refused("order", "not for sale", f"the shape is {why}; pour it for yourself, or ask whoever it is from")
    texts = {name: request.form.get(name, "")[:80] for name in FIELDS if request.form.get(name, "").strip()}
    texts["product"] = str(chosen[0])
    casting(mould, chosen[1], len(moulds.alive(made)) or 1, design_of(content), Asked(texts), scraps_of(chosen[0]))  # what cannot be cast is refused here
    return moulds.begin(db(), made, chosen[0], texts, _temperature(asked), order)


def _temperature(asked: Asked) -> float:
    return float(asked.value("at", "temperature", "temperature", "", 20.0) or 20.0)


@blueprint.get("/<int:key>")
def show(key: int) -> ResponseReturnValue:
    """The step it is at."""
    return _page(load(Pour, key))


def _opened(pour: Pour) -> tuple[MouldMade, Document, Mould, Product, Casting, int]:
    made = load(MouldMade, pour.made_id)
    row, content, mould = opened(made.mould_id, made)
    product = mixes.product_of(db(), pour.product_id)
    found = casting(mould, product, len(pour.castings), design_of(content), Asked(pour.plan), scraps_of(pour.product_id))
    return made, row, mould, product, found, len(found.inserts)


def _page(pour: Pour, problem: Refused | None = None) -> ResponseReturnValue:
    made, row, mould, product, found, inserts = _opened(pour)
    ticks = run.checklist(product, mould, inserts)
    batch = moulds.batch_of(db(), pour)
    used = sum(float(line["grams"]) for line in batch.weighed) if batch else 0.0
    return render_template(
        "moulds/pour.html", pour=pour, made=made, row=row, mould=mould, product=product, found=found, ticks=ticks, left=run.missing(ticks, frozenset(pour.ticks)),
        titles=run.TITLES,
        order=run.ORDER, at=run.ORDER.index(pour.step), batch=batch, clocks=views_of([c for c in mixes.running(db()) if batch and c.batch_id == batch.id]), now=now(),
        problem=problem,
        faults=FAULTS, firmness=run.FIRMNESS, sent=request.form, used=used, fillers=FILLERS, pieces={p.id: p for p in _pieces(pour)},
        lots=mixes.lots_of(batch) if batch else "",
        loss=(used / float(batch.plan.get("density") or 1.0) / float(batch.plan["filled_ml"]) - 1.0) if batch and used and batch.plan.get("filled_ml") else None,
        for_order=next((o for o, _ in orders.listed(db()) if o.id == pour.order_id), None),
    ), 422 if problem else 200  # fmt: skip


def _pieces(pour: Pour) -> list[Piece]:
    return [piece for casting_ in pour.castings if casting_.get("piece") and (piece := db().get(Piece, casting_["piece"]))]


@blueprint.post("/<int:key>/tick")
def tick(key: int) -> ResponseReturnValue:
    """Something is laid out, or is not after all."""
    pour = load(Pour, key)
    name = request.form.get("tick", "")[:40]
    done = set(pour.ticks)
    pour.ticks = sorted(done - {name} if name in done else done | {name})
    db().add(pour)
    return redirect(url_for("moulds_pour.show", key=key))


@blueprint.post("/<int:key>/next")
def forward(key: int) -> ResponseReturnValue:
    """On to the next step; the clock's part does not start before everything is ticked."""
    pour = load(Pour, key)
    made, row, mould, product, found, inserts = _opened(pour)
    to = url_for("moulds_pour.show", key=key)
    try:
        following = run.following(pour.step, run.checklist(product, mould, inserts), frozenset(pour.ticks))
        if following == run.WEIGH:
            batch = _batch(pour, row, made, product, found)
            to = to if found.two else url_for("mixes.batch", key=batch.id)  # a dense pour is mixed first, by itself
        elif following == run.MIX:
            raise Refused("weigh", "not mixed", "weigh the parts and press Mixed on the weighing page")
        elif following == run.CURE:
            _poured(pour, product)
        pour.step = following
        db().add(pour)
    except Refused as refused:
        db().rollback()
        return _page(load(Pour, key), refused)
    return redirect(to)


def _batch(pour: Pour, row: Document, made: MouldMade, product: Product, found: Casting) -> Batch:
    """The batch of a shot, planned for what its cavities take; refused where the tubs do not hold it."""
    texts = {"net": f"{found.mixed_ml if not found.charge else found.poured_ml:.3f} ml", "sprue": f"{found.sprue_ml:.3f} ml", "at": f"{pour.at_c:g} °C"}
    if found.filling and found.filler in FILLERS:
        texts |= {"filler": found.filler, "density": f"{found.density_g_cm3:.4f} g/cm³"}
    planned = plan(pour.product_id, product, Asked(texts), datetime.now())
    return begin_batch(planned, f"shot {pour.shot} of {row.name}"[:80], mould_id=row.id, made_id=made.id, pour_id=pour.id)


def _poured(pour: Pour, product: Product) -> None:
    batch = moulds.batch_of(db(), pour)
    if batch is None or batch.state != mixes.MIXED:
        raise Refused("pour", "not mixed", "weigh and mix it first")
    mixes.pour(db(), batch, product, url_for("moulds_pour.show", key=pour.id))
    pour.poured_at = now()


@blueprint.post("/<int:key>/count")
def count(key: int) -> ResponseReturnValue:
    """Good and bad, cavity by cavity; good ones become pieces with their lot and shot."""
    pour = load(Pour, key)
    try:
        rows = []
        for line in pour.castings:
            cavity = line["cavity"]
            said = request.form.get(f"good-{cavity}")
            if said not in ("yes", "no"):
                raise Refused(f"cavity {cavity[1:]}", "", "say whether its casting is good")
            faults = tuple(f for f in request.form.getlist(f"faults-{cavity}") if f in FAULTS)
            if said == "no" and not faults:
                raise Refused(f"cavity {cavity[1:]}", "bad", "tick at least one fault: the mould's card counts them")
            firmness = request.form.get(f"firmness-{cavity}", "")
            rows.append(moulds.Counted(cavity, said == "yes", faults, firmness if firmness in run.FIRMNESS else ""))
        new = moulds.finish(db(), pour, rows)
    except Refused as refused:
        db().rollback()
        return _page(load(Pour, key), refused)
    batch = moulds.batch_of(db(), pour)
    mixes.stop_clocks(db(), batch.id if batch else None, "demould")
    good = sum(row.good for row in rows)
    flash(
        f"{good} of {len(rows)} are good"
        + (f": {', '.join(p.number for p in new)}." if new else "; the first shot of a mould is a purge and does not count." if pour.purge else ".")
    )
    return redirect(url_for("moulds_pour.show", key=key))


@blueprint.post("/<int:key>/failed")
def failed(key: int) -> ResponseReturnValue:
    """The batch failed: every casting of the shot is tagged."""
    pour = load(Pour, key)
    if pour.finished_at:
        raise Refused("pour", f"shot {pour.shot}", "it is counted already")
    fault = request.form.get("fault", "tacky")
    batch = moulds.batch_of(db(), pour)
    if batch is not None:
        if batch.state == mixes.WEIGHING and not batch.weighed:
            batch.state = mixes.DROPPED
        else:
            batch.state = mixes.FAILED
        db().add(batch)
        mixes.stop_clocks(db(), batch.id)
    pour.failed = True
    moulds.finish(db(), pour, [moulds.Counted(line["cavity"], False, (fault if fault in FAULTS else "tacky",)) for line in pour.castings])
    flash(f"Shot {pour.shot} is noted as failed; its lot stays known, its faults count on the card.")
    return redirect(url_for("moulds_pour.show", key=key))

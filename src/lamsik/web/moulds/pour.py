"""A pour as a guided run: lay out and tick, weigh, mix, pour, cure, demould, count; good castings become
pieces.
"""

from datetime import datetime
from typing import Any

from flask import Blueprint, flash, redirect, render_template, request, url_for
from flask.typing import ResponseReturnValue

from lamsik.core.castings import pouring as run
from lamsik.core.castings.shots import FoamShot, MouldShot, ResinShot
from lamsik.core.errors import Refused
from lamsik.core.mixes.fillers import FILLERS
from lamsik.core.mixes.product import Product
from lamsik.core.moulds.heat import Heat
from lamsik.core.moulds.layout import Mould
from lamsik.core.quantities import plainly, said
from lamsik.documents.body.cast import cast_content
from lamsik.store import documents, mixes, moulds, pours
from lamsik.store.tables import Batch, Document, MouldMade, Order, Piece, Pour, now
from lamsik.web.batches.begin import begin as begin_batch
from lamsik.web.batches.begin import left_g
from lamsik.web.batches.clocks import views_of
from lamsik.web.batches.planning import BatchAsked, MixPlan, plan
from lamsik.web.moulds import gates
from lamsik.web.moulds.cast import FIELDS, castables, design_of, in_use, opened, product_asked, scraps_of
from lamsik.web.moulds.casting import casting
from lamsik.web.shared.db import db, load, sent_row
from lamsik.words import refusals
from lamsik.words.castings import TITLES
from lamsik.words.faults import FAULTS
from lamsik.words.moulds import FILLED

blueprint = Blueprint("moulds_pour", __name__, url_prefix="/pours")


@blueprint.post("/begin/<int:key>")
def begin(key: int) -> ResponseReturnValue:
    """Begin a pour in a mould, as asked on its casting page; what stands against it is said there."""
    try:
        pour = _begun(key)
    except Refused as refused:
        db().rollback()
        flash(f"No pour is begun. {refusals.says(refused)}", "refused")
        return redirect(url_for("moulds_cast.show", key=key, **_kept()))
    return redirect(url_for("moulds_pour.show", key=pour.id))


def _begun(key: int) -> Pour:
    mould_made = in_use(key)
    if mould_made is None:
        raise Refused("mould", load(Document, key).name, "note on its card that it is made first")
    order = _for_order()
    product_id, texts, temperatures = _asked(key, mould_made, order)
    return pours.begin(db(), mould_made, product_id, texts, temperatures.room_c, order)


def _for_order() -> int | None:
    order = sent_row(Order, "order", "that order is not in the shop any more: choose another")
    return order.id if order else None


def _asked(
    key: int, mould_made: MouldMade, order: int | None
) -> tuple[int, dict[str, Any], gates.Temperatures]:
    """The product, the texts and the temperatures a casting page asks for; what cannot be cast, or not
    yet, is refused here.
    """
    asked = BatchAsked(request.form)
    _, content, mould = opened(key, mould_made)
    chosen = product_asked(content, asked, castables())
    if chosen is None:
        raise Refused("product", "", "keep a product first: type what stands on its tin")
    _may_be_sold(content, order)
    texts = {name: request.form.get(name, "")[:80] for name in FIELDS if request.form.get(name, "").strip()}
    texts["product"] = str(chosen[0])
    casting(
        mould,
        chosen[1],
        len(moulds.alive(mould_made)) or 1,
        design_of(content),
        BatchAsked(texts),
        scraps_of(chosen[0]),
    )
    return chosen[0], texts, gates.let_through(content, mould_made, chosen[1], asked)


def _may_be_sold(content: dict[str, Any], order: int | None) -> None:
    """Refuse a pour for an order of a shape that is not for sale."""
    why = moulds.not_for_sale(db(), content["master"]) if order else ""
    if why:
        raise Refused(
            "order", "not for sale", f"the shape is {why}; pour it for yourself, or ask whoever it is from"
        )


@blueprint.post("/<int:key>/correct")
def correct(key: int) -> ResponseReturnValue:
    """Something was asked for wrongly: until it is poured a pour can be put right. What is mixed keeps its
    product and amount.
    """
    pour = load(Pour, key)
    mould_made = load(MouldMade, pour.made_id)
    try:
        product_id, texts, temperatures = _asked(mould_made.mould_id, mould_made, pour.order_id)
        batch = pours.correct(db(), pour, product_id, texts, temperatures.room_c)
        if batch is not None:
            _replan(pour, batch)
    except Refused as refused:
        db().rollback()
        flash(f"The pour stays as it was. {refusals.says(refused)}", "refused")
        return redirect(url_for("moulds_cast.show", key=mould_made.mould_id, pour=key, **_kept()))
    flash("The pour is put right.")
    return redirect(url_for("moulds_pour.show", key=key))


def _kept() -> dict[str, Any]:
    return {name: request.form[name] for name in FIELDS if request.form.get(name, "").strip()}


def _replan(pour: Pour, batch: Batch) -> None:
    """A batch that is still weighed follows what is asked for now; what is in the cup stays in it."""
    opened_ = _opened(pour)
    planned = _planned(pour, opened_[3], opened_[4])
    pours.replan(db(), batch, planned.kept(), planned.at_c)


@blueprint.post("/<int:key>/drop")
def drop(key: int) -> ResponseReturnValue:
    """Given up before anything was poured: no shot of the mould."""
    pour = load(Pour, key)
    mould_made = load(MouldMade, pour.made_id)
    mixed = pours.stand_of(db(), pour).cup == run.MIXED
    try:
        pours.give_up(db(), pour)
    except Refused as refused:
        db().rollback()
        return _page(load(Pour, key), refused)
    flash(
        "The pour is dropped: it counts as no shot. "
        + ("What was mixed is used up." if mixed else "What was weighed is back on the books.")
    )
    return redirect(url_for("moulds_cast.show", key=mould_made.mould_id))


@blueprint.get("/<int:key>")
def show(key: int) -> ResponseReturnValue:
    """The step it is at."""
    return _page(load(Pour, key))


def _opened(pour: Pour) -> tuple[MouldMade, Document, Mould, Product, MouldShot, int]:
    mould_made = load(MouldMade, pour.made_id)
    row, content, mould = opened(mould_made.mould_id, mould_made)
    product = mixes.product_of(db(), pour.product_id)
    cast = casting(
        mould,
        product,
        len(pour.castings),
        design_of(content),
        BatchAsked(pour.plan),
        scraps_of(pour.product_id),
    )
    return mould_made, row, mould, product, cast, len(cast.inserts)


def _page(pour: Pour, problem: Refused | None = None) -> ResponseReturnValue:
    mould_made, row, mould, product, cast, inserts = _opened(pour)
    ticks = run.checklist(product, mould, inserts)
    batch = pours.batch_of(db(), pour)
    used = sum(float(line["grams"]) for line in batch.weighed) if batch else 0.0
    return render_template(
        "moulds/pour.html",
        pour=pour,
        version=mould_made,
        row=row,
        mould=mould,
        filled=FILLED[mould.kind],
        product=product,
        cast=cast,
        ticks=ticks,
        left=run.missing(ticks, frozenset(pour.ticks)),
        titles=TITLES,
        order=run.ORDER,
        at=run.ORDER.index(pour.step) if pour.step in run.ORDER else -1,
        until_poured=run.UNTIL_POURED,
        warm=_warm(pour, mould_made),
        texts=pour.plan,
        batch=batch,
        clocks=views_of([c for c in mixes.running(db()) if batch and c.batch_id == batch.id]),
        now=now(),
        problem=problem,
        faults=FAULTS,
        firmness=run.FIRMNESS,
        sent=request.form,
        used=used,
        fillers=FILLERS,
        pieces={p.id: p for p in _pieces(pour)},
        lots=mixes.lots_of(batch) if batch else "",
        loss=_loss(batch),
        dense_product=next(
            (key for key, (_, p) in mixes.products(db()).items() if p.kind == "resin"), pour.product_id
        ),
        for_order=db().get(Order, pour.order_id) if pour.order_id else None,
    ), (422 if problem else 200)


def _loss(batch: Batch | None) -> float | None:
    """What of a batch did not end in the cavities [share]; None where that cannot be told."""
    used = mixes.used_of(batch) if batch and batch.weighed else None
    if batch is None or used is None or not batch.plan.get("filled_ml"):
        return None
    return used / float(batch.plan.get("density") or 1.0) / float(batch.plan["filled_ml"]) - 1.0


def _warm(pour: Pour, mould_made: MouldMade) -> Heat | None:
    """The melt of a pour against its mould."""
    content = documents.revision(db(), load(Document, mould_made.mould_id), mould_made.revision).content
    try:
        hot = gates.temperatures(mixes.product_of(db(), pour.product_id), content, BatchAsked(pour.plan))
    except Refused:
        return None
    return gates.heat_of(content, mould_made, hot.melt_c)


def _pieces(pour: Pour) -> list[Piece]:
    return [
        piece
        for casting_ in pour.castings
        if casting_.get("piece") and (piece := db().get(Piece, casting_["piece"]))
    ]


@blueprint.post("/<int:key>/tick")
def tick(key: int) -> ResponseReturnValue:
    """Something is laid out, or is not after all: what is sent is how it shall be, so that two tablets
    that tick it both tick it.
    """
    pour = load(Pour, key)
    pours.lay_out(db(), pour, request.form.get("tick", "")[:40], request.form.get("on") != "0")
    return redirect(url_for("moulds_pour.show", key=key))


@blueprint.post("/<int:key>/next")
def forward(key: int) -> ResponseReturnValue:
    """On to the next step; the clock's part does not start before everything is ticked."""
    pour = load(Pour, key)
    try:
        return redirect(_on(pour))
    except Refused as refused:
        db().rollback()
        return _page(load(Pour, key), refused)


def _on(pour: Pour) -> str:
    """What leads on from the step a pour is at happens; where that leads."""
    mould_made, row, mould, product, cast, inserts = _opened(pour)
    batch, here = pours.batch_of(db(), pour), url_for("moulds_pour.show", key=pour.id)
    if pour.step in run.UNTIL_POURED:
        content = documents.revision(db(), row, mould_made.revision).content
        if pour.step == run.PREPARE:
            run.all_laid_out(run.checklist(product, mould, inserts), frozenset(pour.ticks))
        _may_be_sold(content, pour.order_id)
        gates.let_through(content, mould_made, product, BatchAsked({**pour.plan, **request.form}))
    if pour.step == run.PREPARE:
        begun = _batch(pour, row, mould_made, product, cast)
        # a dense pour is mixed first, by itself
        return here if cast.dense else url_for("mixes.batch", key=begun.id)
    if pour.step == run.CURE:
        gates.set_enough(batch.id if batch else None, "early" in request.form)
        pours.demould(db(), pour)
    elif pour.step == run.DEMOULD:
        pours.take_out(db(), pour)
    else:
        pours.pour_out(db(), _mixed(batch), product, left_g())
    return here


def _mixed(batch: Batch | None) -> Batch:
    if batch is None or batch.state != run.MIXED:
        raise Refused("weigh", "not mixed", run.NOT_MIXED)
    return batch


def _batch(pour: Pour, row: Document, mould_made: MouldMade, product: Product, cast: MouldShot) -> Batch:
    """The batch of a shot, planned for what its cavities take; refused where the tubs do not hold it."""
    planned = _planned(pour, product, cast)
    return begin_batch(
        planned,
        f"shot {pour.shot} of {row.name}"[:80],
        mould_id=row.id,
        made_id=mould_made.id,
        pour_id=pour.id,
    )


def _planned(pour: Pour, product: Product, cast: MouldShot) -> MixPlan:
    """What its cavities take."""
    texts = {
        "net": said(cast.mixed_ml, "volume", 3),
        "sprue": said(cast.sprue_ml, "volume", 3),
        "at": plainly(pour.at_c, "temperature"),
    }
    if isinstance(cast, FoamShot):
        texts |= {
            "density": said(cast.charge.target_g_cm3, "density", 5),
            "free": said(cast.charge.free_rise_g_cm3, "density", 5),
        }
    if isinstance(cast, ResinShot) and cast.filling:
        texts |= {"filler": cast.filler, "density": said(cast.density_g_cm3, "density", 4)}
    return plan(pour.product_id, product, BatchAsked(texts), datetime.now())


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
                raise Refused(
                    f"cavity {cavity[1:]}", "bad", "tick at least one fault: the mould's card counts them"
                )
            firmness = request.form.get(f"firmness-{cavity}", "")
            rows.append(
                pours.Counted(cavity, said == "yes", faults, firmness if firmness in run.FIRMNESS else "")
            )
        cast = _opened(pour)[4]
        new = pours.count(db(), pour, rows, lambda content: cast_content(content, cast.born))
    except Refused as refused:
        db().rollback()
        return _page(load(Pour, key), refused)
    good = sum(row.good for row in rows)
    flash(
        f"{good} of {len(rows)} are good"
        + (
            f": {', '.join(p.number for p in new)}."
            if new
            else "; the first shot of a mould is a purge and does not count."
            if pour.purge
            else "."
        )
    )
    return redirect(url_for("moulds_pour.show", key=key))


@blueprint.post("/<int:key>/failed")
def failed(key: int) -> ResponseReturnValue:
    """The batch failed: every casting of the shot is tagged."""
    pour = load(Pour, key)
    fault = request.form.get("fault", "tacky")
    pours.fail(db(), pour, fault if fault in FAULTS else "tacky")
    flash(f"Shot {pour.shot} is noted as failed; its lot stays known, its faults count on the card.")
    return redirect(url_for("moulds_pour.show", key=key))

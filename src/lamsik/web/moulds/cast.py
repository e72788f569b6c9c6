"""Casting in a mould: amounts and how it goes; how many by when."""

from dataclasses import replace
from datetime import datetime, timedelta

from flask import Blueprint, render_template, request
from flask.typing import ResponseReturnValue

from lamsik.core.castings import plastisol
from lamsik.core.castings.inserts import LEAST_COVER_MM, cover_says
from lamsik.core.castings.pouring import UNTIL_POURED
from lamsik.core.castings.shots import FoamShot, HotShot, MouldShot
from lamsik.core.castings.throughput import Cycle, Making, Plan, plan
from lamsik.core.errors import Refused, one_of
from lamsik.core.learning import Learned
from lamsik.core.mixes.amount import USUAL_LOSS
from lamsik.core.mixes.clocks import at_temperature
from lamsik.core.mixes.fillers import FILLERS
from lamsik.core.mixes.product import Product
from lamsik.core.moulds.layout import Mould, pour_up
from lamsik.core.route.workdays import NAMES, Workdays
from lamsik.core.shapes.design import Design
from lamsik.documents.body.document import to_design
from lamsik.documents.moulds.document import to_mould
from lamsik.documents.rows import Document as Content
from lamsik.drawings.plan import timeline
from lamsik.drawings.poured import cast_picture
from lamsik.drawings.svg import Node
from lamsik.store import documents, mixes, moulds, order_lines, pours, stores
from lamsik.store.tables import Document, MouldMade, Pour
from lamsik.web.batches.planning import BatchAsked
from lamsik.web.moulds import gates
from lamsik.web.moulds.casting import casting, height_words, like_original
from lamsik.web.moulds.shop import master_of
from lamsik.web.moulds.usual import usual, usual_h, usual_said
from lamsik.web.shared.db import db, load_document
from lamsik.words.castings import event
from lamsik.words.mixes import RULE_OF_THUMB

blueprint = Blueprint("moulds_cast", __name__, url_prefix="/moulds")

FIELDS = (
    "product",
    "filler",
    "density",
    "ratio",
    "spread",
    "test_g",
    "test_ml",
    "at",
    "dense",
    "dense_density",
    "prop",
    "waited",
    "jug",
    "heat",
    "shot",
    "colours",
    "way",
    "gloss",
    "gloss_yes",
    "melt",
    "mould_at",
    "limit",
    "heat_yes",
    "early_yes",
    "gap",
    "thick",
    "squeeze",
    "no_inserts",
    "shank_from",
    "shank_to",
    "shank_up",
    "shank_across",
)


def opened(key: int, mould_made: MouldMade | None = None) -> tuple[Document, Content, Mould]:
    """A mould of the shop: as it was really made, else as it is drawn now. A pour of one that was deleted
    is still found.
    """
    row = load_document("mould", key, deleted=mould_made is not None)
    content = documents.revision(db(), row, mould_made.revision if mould_made else None).content
    return row, content, to_mould(content, master_of(content["master"]))


def design_of(content: Content) -> Design | None:
    """The design cast in it, of the revision it was made from; None for a mould of a thing without a
    drawing.
    """
    block = content["master"]
    return to_design(moulds.body_content(db(), block)) if block["kind"] == "body" else None


def castables() -> dict[int, tuple[Document, Product]]:
    """What can be cast."""
    return {
        key: (row, product)
        for key, (row, product) in mixes.products(db()).items()
        if product.kind != "silicone"
    }


def product_asked(
    content: Content, asked: BatchAsked, products: dict[int, tuple[Document, Product]]
) -> tuple[int, Product] | None:
    """The product asked for, else the mould's own, else the first. Raises `Refused` for one that cannot be
    cast here.
    """
    text = asked.get("product")
    if text:
        return int(text), one_of(
            "product", text, {str(key): product for key, (_, product) in products.items()}
        )
    key = next(
        (key for key, (row, _) in products.items() if row.code == content.get("casting_product")),
        next(iter(products), None),
    )
    return (key, products[key][1]) if key is not None else None


def scraps_of(product_id: int) -> tuple[plastisol.Scrap, ...]:
    """Reclaimed plastic of a product by colour."""
    return tuple(
        plastisol.Scrap(tub.colour, tub.left, tub.heats) for tub in mixes.tubs(db(), product_id) if tub.colour
    )


def in_use(key: int) -> MouldMade | None:
    """The newest version that is not worn out."""
    return next((version for version in moulds.versions(db(), key) if version.retired_at is None), None)


@blueprint.get("/<int:key>/cast")
def show(key: int) -> ResponseReturnValue:
    """What a shot takes, of what, and how it goes."""
    asked, mould_made = BatchAsked(request.args), in_use(key)
    row, content, mould = opened(key, mould_made)
    products = castables()
    problem, cast, match = None, None, None
    try:
        chosen = product_asked(content, asked, products)
    except Refused:
        chosen, problem = (
            product_asked(content, BatchAsked(), products),
            Refused("product", None, "that product is not in this shop, or cannot be cast: choose one"),
        )
    design, source = design_of(content), moulds.source_of(db(), content["master"])
    alive = len(moulds.alive(mould_made)) if mould_made else len(mould.cavities)
    warm, way = None, None
    if chosen and problem is None:
        try:
            hot = gates.temperatures(chosen[1], content, asked)
            warm = gates.heat_of(
                content, mould_made, hot.melt_c, asked.value("limit", "temperature", "the mould stands", "")
            )
            way = gates.ready(mould_made, hot.melt_c) if mould_made else None
            cast = casting(mould, chosen[1], alive, design, asked, scraps_of(chosen[0]))
            match = (
                like_original(design, chosen[1], asked.get("filler"))
                if design and asked.get("match")
                else None
            )
        except Refused as refused:
            problem = refused
    return render_template(
        "moulds/cast.html",
        row=row,
        picture=drawn(mould, cast) if cast else None,
        mould=mould,
        chosen=chosen,
        asked=request.args,
        cast=cast,
        problem=problem,
        version=mould_made,
        alive=alive,
        design=design,
        match=match,
        fillers=FILLERS,
        covers=[
            (name, mm, cover_says(mm), mm < LEAST_COVER_MM) for name, mm in (cast.covers if cast else ())
        ],
        most_heats=plastisol.MOST_HEATS,
        usual=usual_said(),
        warm=warm,
        way=way,
        pour=_corrected(key),
        room=stores.setting(db(), "mixing"),
        products={k: p for k, (_, p) in products.items()},
        mark=height_words(mould, cast.fill_mark_mm) if isinstance(cast, FoamShot) else "",
        orders=order_lines.for_design(db(), content["master"].get("body_id")) if source.may_sell else [],
        fields=FIELDS,
        rule=RULE_OF_THUMB,
        learned=mixes.loss_of(db(), chosen[0]) if chosen else Learned(USUAL_LOSS),
        gelled=plastisol.GELLED,
        hot=plastisol.HOT,
        source=source,
    ), (422 if problem else 200)


def _corrected(mould_id: int) -> Pour | None:
    """The pour of this mould that is being corrected, if its page was come from."""
    text = request.args.get("pour", "")
    row = db().get(Pour, int(text)) if text.isascii() and text.isdigit() and len(text) < 10 else None
    mould_made = db().get(MouldMade, row.made_id) if row else None
    return (
        row if row and mould_made and mould_made.mould_id == mould_id and row.step in UNTIL_POURED else None
    )


def drawn(mould: Mould, cast: MouldShot) -> Node:
    """The casting as it is poured, with what its kind adds."""
    zones = tuple((zone.from_mm, zone.to_mm) for zone in cast.zones) if isinstance(cast, HotShot) else ()
    if cast.dense:
        return cast_picture(mould, cast.dense.two.level_mm, True, cast.dense.prop_deg, zones)
    low = float((mould.lies.vertices @ pour_up(mould)).min())
    mark = cast.fill_mark_mm + low if isinstance(cast, FoamShot) else None
    return cast_picture(mould, mark, zones=zones)


@blueprint.get("/<int:key>/by-when")
def by_when(key: int) -> ResponseReturnValue:
    """So many castings by a day: every shot, and the day each half of the mould can be poured."""
    row, content, mould = opened(key)
    asked, problem, planned = BatchAsked(request.args), None, None
    products = castables()
    mould_made, chosen, days = in_use(key), product_asked(content, asked, products), stores.workdays(db())
    if asked.get("wanted") and chosen:
        try:
            late = replace(days, after_hours=days.after_hours or bool(asked.get("after_hours")))
            planned = _planned(asked, mould, content, mould_made, chosen[1], late)
        except Refused as refused:
            problem = refused
    return render_template(
        "moulds/by_when.html",
        event=event,
        row=row,
        mould=mould,
        asked=request.args,
        plan=planned,
        problem=problem,
        version=mould_made,
        chosen=chosen,
        alive=len(moulds.alive(mould_made)) if mould_made else len(mould.cavities),
        products={k: p for k, (_, p) in products.items()},
        picture=timeline(planned, days) if planned else None,
        days=days,
        names=NAMES,
        rule=RULE_OF_THUMB,
        usual=usual_said(),
        tomorrow=datetime.now().date() + timedelta(days=14),
    ), (422 if problem else 200)


def _planned(
    asked: BatchAsked,
    mould: Mould,
    content: Content,
    mould_made: MouldMade | None,
    product: Product,
    days: Workdays,
) -> Plan:
    wanted = asked.value("wanted", "number", "castings", "") or 0.0
    if not float(wanted).is_integer() or wanted < 1:
        raise Refused("wanted", asked.get("wanted"), "a whole number of castings, at least one")
    try:
        by = datetime.combine(datetime.fromisoformat(asked.get("by")).date(), days.ends)
    except ValueError as error:
        raise Refused("by", asked.get("by"), "a day such as 2027-03-31") from error
    start = datetime.now().replace(second=0, microsecond=0)
    if asked.get("start"):
        try:
            start = datetime.fromisoformat(asked.get("start"))
        except ValueError as error:
            raise Refused("start", asked.get("start"), "a day and time such as 2027-03-01T09:00") from error
    at = (
        asked.value("at", "temperature", "temperature", "", float(stores.setting(db(), "mixing")["room_c"]))
        or 20.0
    )
    cure = at_temperature(product.demould_h, product.reference_c, at)
    before = 60.0 * (asked.value("before", "time", "to pour", "min", usual_h("pour_min")) or 0.0)
    after = 60.0 * (asked.value("after", "time", "to demould", "min", usual_h("demould_min")) or 0.0)
    good = (asked.value("yield", "percent", "good of all", "%", usual("good_percent")) or 0.0) / 100.0
    alive = len(moulds.alive(mould_made)) if mould_made else len(mould.cavities)
    making = None
    if mould_made is None or asked.get("new_mould"):
        stuff = next(
            (p for r, p in mixes.products(db()).values() if r.code == content.get("mould_product")), None
        )
        half = 60.0 * (asked.value("half", "time", "to pour a half", "min", usual_h("half_min")) or 0.0)
        cures = at_temperature(stuff.demould_h, stuff.reference_c, at) if stuff else usual("half_h")
        making = Making(mould.parts, half, cures)
        alive = len(mould.cavities)
    fresh = making is not None or (mould_made is not None and pours.shots(db(), mould_made.id or 0) == 0)
    worth = None if mould_made is None or making is not None else moulds.worth(db(), mould_made, good)
    return plan(
        int(wanted),
        by,
        start,
        Cycle(before, cure, after, alive, good, worth),
        days,
        making,
        fresh,
    )

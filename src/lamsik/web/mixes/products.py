"""A product's page: what stands on its tin, and its tubs: received, opened, stirred, counted, thrown away."""

from contextlib import suppress
from dataclasses import fields
from datetime import date, datetime

from flask import Blueprint, abort, flash, redirect, render_template, request, url_for
from flask.typing import ResponseReturnValue

from lamsik.core.cautions import CAUTIONS
from lamsik.core.errors import Refused, finite_between, require
from lamsik.core.mixes.product import BASES, FAMILIES, KINDS, MixPart, Product, keepable, parse_ratio
from lamsik.core.mixes.tubs import good_until, is_expired
from lamsik.core.quantities import plainly, read_measure
from lamsik.core.units import STORED
from lamsik.documents.products.document import to_product
from lamsik.store import documents, ledger, mixes
from lamsik.store.tables import Document, StockLot, now
from lamsik.web.batches.planning import BatchAsked, plan
from lamsik.web.mixes.product_live import current
from lamsik.web.shared import keeping
from lamsik.web.shared.db import db, load, load_document
from lamsik.words import refusals
from lamsik.words.mixes import RULE_OF_THUMB

blueprint = Blueprint("mixes_products", __name__, url_prefix="/mixes/products")
keeping.keep_documents(blueprint, "product", "mixes.index", "mixes_products.show")

MEASURES = {
    # field: words, quantity, unit shown, whether it may be left empty
    "tolerance_percent": ("Tolerance of a part", "percent", "%", False),
    "pot_life_min": ("Pot life", "time", "min", False),
    "gel_min": ("Gels after", "time", "min", False),
    "demould_h": ("Demould after", "time", "h", False),
    "cure_h": ("Full cure", "time", "h", False),
    "reference_c": ("These times are at", "temperature", "°C", False),
    "recoat_from_h": ("Recoat or bond from", "time", "h", False),
    "recoat_to_h": ("… to", "time", "h", False),
    "open_days": ("Good once opened for", "time", "d", False),
    "stir_s": ("Stir for, a settled tub and the mix", "seconds", "s", False),
    "cured_g_cm3": ("Density, cured", "density", "g/cm³", True),
    "free_rise_g_cm3": ("Foam, free rise", "density", "g/cm³", True),
    "shrink_percent": ("Linear shrinkage", "percent", "%", False),
    "heat_limit_c": ("Stands, as a mould", "temperature", "°C", True),
    "process_c": ("Poured hot at", "temperature", "°C", True),
}


def of_form(asked: dict[str, str]) -> Product:
    """The product a form describes. Raises `Refused` naming the field."""
    figures, basis = parse_ratio(asked.get("ratio", ""), asked.get("basis", ""))
    parts = []
    for n, figure in enumerate(figures, start=1):
        require(bool(asked.get(f"part_{n}", "").strip()), f"part_{n}", "", "name the part as on the tin")
        parts.append(
            MixPart(
                asked[f"part_{n}"].strip()[:60],
                figure,
                read_measure(asked.get(f"density_{n}", ""), "density", f"density_{n}"),
            )
        )
    values: dict[str, float | None] = {}
    for name, (words, quantity, unit, may_lack) in MEASURES.items():
        text = asked.get(name, "").strip()
        if not text and may_lack:
            values[name] = None
            continue
        try:
            value = read_measure(text, quantity, words, unit)
        except Refused as refused:
            raise Refused(name, text, refusals.allowed(refused)) from refused
        values[name] = value * _times(quantity, unit)
    return keepable(
        Product(
            asked.get("name", "").strip()[:120],
            asked.get("kind", ""),
            basis,
            tuple(parts),
            caution=asked.get("caution", ""),
            family=asked.get("family", ""),
            **values,  # type: ignore[arg-type]
        )
    )


def _times(quantity: str, unit: str) -> float:
    """From the stored unit of a quantity to the field's own."""
    return (
        {("time", "min"): 60.0, ("time", "d"): 1 / 24.0}.get((quantity, unit), 1.0)
        if unit != STORED[quantity]
        else 1.0
    )


@blueprint.get("/new")
def new() -> ResponseReturnValue:
    """An empty tin."""
    begins = {one.name: one.default for one in fields(Product)}
    return _new_page(
        {
            name: plainly(begin, quantity) if unit == STORED[quantity] else f"{begin:g} {unit}"
            for name, (_, quantity, unit, _) in MEASURES.items()
            if isinstance(begin := begins[name], float)
        }
    )


@blueprint.post("/new")
def add() -> ResponseReturnValue:
    """Keep a new product."""
    asked = request.form.to_dict()
    try:
        row = mixes.add_product(db(), of_form(asked))
    except Refused as refused:
        return _new_page(asked, refused)
    flash(f"{row.name} is kept.")
    return redirect(url_for("mixes_products.show", key=row.id))


def _all_of(row: Document) -> None:
    """All that a product's page and a mix of it show, computed and thrown away."""
    _page(row)
    product = to_product(documents.content(db(), row))
    for texts in ({"net": "100 ml"}, {"net": "100 ml", "density": "0.3 g/cm³"}):
        with suppress(Refused):
            plan(row.id or 0, product, BatchAsked(texts), datetime.now())


@blueprint.post("/bring-in")
def bring_in() -> ResponseReturnValue:
    """A product file brought in."""
    try:
        row = keeping.brought_in("product", _all_of)
    except Refused as refused:
        flash(f"It cannot be brought in. {refusals.says(refused)}", "refused")
        return redirect(url_for("mixes.index"))
    return redirect(url_for("mixes_products.show", key=row.id))


@blueprint.get("/<int:key>")
def show(key: int) -> ResponseReturnValue:
    """A product: what stands on its tin, and its tubs."""
    return _page(load_document("product", key))


def _page(row: Document, tub_problem: Refused | None = None) -> ResponseReturnValue:
    product = to_product(documents.content(db(), row))
    loss = mixes.loss_of(db(), row.id or 0)
    return render_template(
        "mixes/product.html",
        row=row,
        state=current(row),
        product=product,
        tub_problem=tub_problem,
        measures=MEASURES,
        kinds=KINDS,
        bases=BASES,
        families=FAMILIES,
        cautions=list(CAUTIONS),
        tubs=_with_day(row.id or 0, product),
        rule=RULE_OF_THUMB,
        loss=loss,
        received=request.form,
    ), (422 if tub_problem else 200)


def _new_page(asked: dict[str, str], problem: Refused | None = None) -> ResponseReturnValue:
    return render_template(
        "mixes/new_product.html",
        asked=asked,
        problem=problem,
        measures=MEASURES,
        kinds=KINDS,
        families=FAMILIES,
        cautions=list(CAUTIONS),
        rule=RULE_OF_THUMB,
    ), (422 if problem else 200)


def _with_day(key: int, product: Product) -> list[tuple[StockLot, date | None, bool]]:
    """Tubs with the day each is good until, opened as it was, and whether that has passed."""
    rows = [(row, mixes.core_tub(row)) for row in mixes.tubs(db(), key)]
    return [
        (row, good_until(tub, product.open_days), is_expired(tub, product.open_days, date.today()))
        for row, tub in rows
    ]


@blueprint.post("/<int:key>/tubs")
def receive(key: int) -> ResponseReturnValue:
    """A tub came in."""
    row = load_document("product", key)
    product = to_product(documents.content(db(), row))
    asked = request.form
    try:
        part = asked.get("part", "")
        require(
            any(part == p.name for p in product.parts),
            "part",
            part,
            f"one of {', '.join(p.name for p in product.parts)}",
        )
        grams = read_measure(asked.get("grams", ""), "mass", "how much")
        finite_between("grams", grams, 0.1, 200_000.0, "g")
        lot = asked.get("lot", "").strip()[:40]
        require(bool(lot), "lot", lot, "type the lot from the tub: castings are traced by it")
        tub = mixes.tub_of(
            db(),
            row,
            part,
            lot,
            expires_on=_day(asked.get("expires", ""), "expires"),
            opened_on=_day(asked.get("opened", ""), "opened"),
            colour=asked.get("colour", "").strip()[:40],
            typed={"grams": asked.get("grams", "")[:40]},
        )
        ledger.bring(db(), tub, grams)
    except Refused as refused:
        return _page(row, refused)
    flash(f"{part}, lot {lot}, is in Stores.")
    return redirect(url_for("mixes_products.show", key=key, _anchor="tubs"))


def _day(text: str, name: str) -> date | None:
    if not text.strip():
        return None
    try:
        return date.fromisoformat(text.strip())
    except ValueError as error:
        raise Refused(name, text, "a date such as 2027-03-31") from error


def _tub(key: int) -> StockLot:
    """A tub of a product; 404 for a lot of anything else: that is looked at in Stores."""
    row = load(StockLot, key)
    if row.product_id is None:
        abort(404)
    return row


@blueprint.post("/tubs/<int:key>/<any(stirred, opened, gone):way>")
def see_to(key: int, way: str) -> ResponseReturnValue:
    """A tub was stirred, opened, or is gone."""
    row = _tub(key)
    if way == "stirred":
        row.stirred_at = now()
    elif way == "opened":
        row.opened_on = date.today()
    else:
        ledger.gone(db(), row)
    db().add(row)
    return redirect(url_for("mixes_products.show", key=row.product_id, _anchor="tubs"))


@blueprint.post("/tubs/<int:key>/count")
def count(key: int) -> ResponseReturnValue:
    """What the tub really holds, weighed; stock is never below nothing."""
    row = _tub(key)
    product_row = load_document("product", row.product_id or 0, deleted=True)
    try:
        grams = read_measure(request.form.get("grams", ""), "mass", "left in the tub")
        finite_between("left in the tub", grams, 0.0, 200_000.0, "g")
        ledger.count(db(), row, grams)
        expires = _day(request.form.get("expires", ""), "expires")
        row.expires_on = expires or row.expires_on
    except Refused as refused:
        return _page(product_row, refused)
    db().add(row)
    return redirect(url_for("mixes_products.show", key=row.product_id, _anchor="tubs"))

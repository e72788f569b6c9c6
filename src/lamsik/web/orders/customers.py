"""Customers: who they are, what they ordered, what of theirs is here, what they wrote."""

import json

from flask import Blueprint, flash, redirect, render_template, request, url_for
from flask.typing import ResponseReturnValue

from lamsik.core.errors import Refused
from lamsik.core.orders.customer_facts import CUSTOMER_FACTS
from lamsik.store import custody, customers, letters, orders
from lamsik.store.tables import Customer
from lamsik.web.orders.post import look_for_answers
from lamsik.web.shared.db import db, load, sent_id
from lamsik.web.shared.files import as_file, plain_name
from lamsik.web.shared.lists import asked_page, asked_text
from lamsik.words import refusals
from lamsik.words.orders import ALIKE

blueprint = Blueprint("orders_customers", __name__, url_prefix="/orders/customers")


@blueprint.get("")
def index() -> str:
    """All customers by name."""
    return render_template(
        "orders/customers.html", page=asked_page(orders.customers(asked_text())), q=asked_text()
    )


@blueprint.get("/<int:key>")
def show(key: int) -> ResponseReturnValue:
    """One customer."""
    return _page(load(Customer, key))


def _page(
    row: Customer, problem: Refused | None = None, typed: dict[str, str] | None = None
) -> ResponseReturnValue:
    if row.merged_into_id is not None:
        return redirect(url_for("orders_customers.show", key=row.merged_into_id))
    key = row.id or 0
    look_for_answers()
    page = asked_page(customers.ordered(key), 12)
    return render_template(
        "orders/customer.html",
        row=row,
        facts=CUSTOMER_FACTS,
        typed=typed or {"name": row.name, **row.facts},
        page=page,
        theirs=customers.theirs_here(db(), key),
        lent=db().exec(custody.of_customer(key).limit(50)).all(),
        words=customers.words(db(), key),
        letters=db().exec(letters.of_customer(key).limit(40)).all(),
        numbers={one.id: one.number for one in page.rows},
        doubles=[] if row.erased_at else [(one, ALIKE[why]) for one, why in customers.doubles(db(), row)],
        problem=problem,
    ), (422 if problem else 200)


@blueprint.post("/<int:key>")
def keep(key: int) -> ResponseReturnValue:
    """Keep what is known of a customer; what cannot be stays in its field."""
    row = load(Customer, key)
    typed = {name: request.form.get(name, "") for name in ("name", *(fact.key for fact in CUSTOMER_FACTS))}
    try:
        _still_known(row)
        facts = {fact.key: typed[fact.key] for fact in CUSTOMER_FACTS}
        customers.keep(db(), row, typed["name"][:120], facts)
    except Refused as refused:
        db().rollback()
        return _page(load(Customer, key), refused, typed)
    flash(f"{row.name} is kept.")
    return redirect(url_for("orders_customers.show", key=key))


def _still_known(row: Customer) -> None:
    if row.erased_at is not None:
        raise Refused("name", row.name, "nobody: what was known of them was erased")


@blueprint.post("/<int:key>/wrote")
def wrote(key: int) -> ResponseReturnValue:
    """Note what they wrote."""
    row, text = load(Customer, key), request.form.get("text", "")
    try:
        _still_known(row)
        customers.note_word(db(), row, text, sent_id("order") or None)
    except Refused as refused:
        db().rollback()
        return _page(load(Customer, key), refused)
    return redirect(url_for("orders_customers.show", key=key, _anchor="wrote"))


@blueprint.post("/<int:key>/merge")
def merge(key: int) -> ResponseReturnValue:
    """Another is this one too."""
    row, double = load(Customer, key), load(Customer, sent_id("double"))
    try:
        customers.merge(db(), row, double)
    except Refused as refused:
        db().rollback()
        return _page(load(Customer, key), refused)
    flash(f"{double.name} is {row.name} now.", f"undo:{url_for('orders_customers.unmerge', key=double.id)}")
    return redirect(url_for("orders_customers.show", key=key))


@blueprint.post("/<int:key>/unmerge")
def unmerge(key: int) -> ResponseReturnValue:
    """They are two after all."""
    kept = customers.unmerge(db(), load(Customer, key))
    flash("They are two again.")
    return redirect(url_for("orders_customers.show", key=kept.id))


@blueprint.get("/<int:key>/customer.json")
def export(key: int) -> ResponseReturnValue:
    """All that is kept of them, to be handed over."""
    row = load(Customer, key)
    text = json.dumps(customers.exported(db(), row), ensure_ascii=False, indent=1)
    return as_file(text, f"{plain_name(row.name)}.json", "application/json")


@blueprint.route("/<int:key>/erase", methods=["GET", "POST"])
def erase(key: int) -> ResponseReturnValue:
    """What leaves and what stays; then it is done."""
    row = load(Customer, key)
    if request.method == "POST":
        try:
            customers.erase(db(), row)
            flash("What was known of them is erased; the orders' figures stay.")
            return redirect(url_for("orders_customers.show", key=key))
        except Refused as refused:
            db().rollback()
            flash(f"Nothing is erased. {refusals.says(refused)}", "refused")
            return redirect(url_for("orders_customers.erase", key=key))
    return render_template("orders/customer_erase.html", row=row, erasing=customers.erasing(db(), row))

"""Letters of an order: begun from a template, read over, sent or copied; how the shop's mail goes."""

from pathlib import Path
from urllib.parse import quote

from flask import Blueprint, current_app, flash, redirect, render_template, request, url_for
from flask.typing import ResponseReturnValue

from lamsik.core.errors import Refused, require
from lamsik.core.money import Money
from lamsik.core.orders.customers import mail_of
from lamsik.core.orders.letters import Template, is_mail
from lamsik.devices.mail import SECURITY
from lamsik.store import letters, parcels, stores
from lamsik.store import stands as stands_of
from lamsik.store.tables import Customer, Message, Order
from lamsik.web.orders import post
from lamsik.web.orders.terms import terms_of
from lamsik.web.shared.context import day
from lamsik.web.shared.db import db, load
from lamsik.words.letters import CALLED

blueprint = Blueprint("orders_letters", __name__, url_prefix="/orders")


def values_of(order: Order, customer: Customer) -> dict[str, str]:
    """What the places of a template are filled with."""
    agreed = stands_of.agreed(order, stands_of.paid_minor(db(), order))
    money = [
        None if one is None else Money(one, order.currency).said
        for one in (agreed.due_minor, agreed.open_minor)
    ]
    rows = stands_of.lines_of(db(), order)
    prices = [(row, stands_of.as_line(row).price_minor) for row in rows]
    told = [
        f"{row.quantity} × {row.title}"
        + (f": {Money(price, order.currency).said}" if price is not None else "")
        for row, price in prices
    ]
    terms = terms_of(order)
    if terms.off:
        told.append(f"Discount{', ' + terms.why if terms.why else ''}: −{terms.off}")
    numbers = [one.tracking for one in parcels.of_order(db(), order) if one.tracking and one.sent_on]
    return {
        "name": customer.name,
        "order": order.number,
        "lines": "\n".join(told),
        "total": money[0] or "a sum still to be said",
        "open": money[1] or "a sum still to be said",
        "deposit": f" Of it {terms.waits} is asked before work begins." if terms.waits else "",
        "due": day(order.due_on) if order.due_on else "a day still to be said",
        "tracking": f"It is followed by {', '.join(numbers)}." if numbers else "",
        "shop": stores.setting(db(), "shop")["name"],
    }


@blueprint.route("/<int:order_id>/letter/<about>", methods=["GET", "POST"])
def write(order_id: int, about: str) -> ResponseReturnValue:
    """A letter of an order, to be read over and sent, or copied out."""
    order = load(Order, order_id)
    customer = load(Customer, order.customer_id)
    require(about in CALLED, "letter", about, f"one of {', '.join(CALLED)}")
    begun, problem = letters.templates(db())[about].filled(values_of(order, customer)), None
    if request.method == "POST":
        way = letters.WAITING if request.form.get("way") == "send" else letters.COPIED
        try:
            words = Template(request.form.get("subject", ""), _plain(request.form.get("text", "")))
            letters.write(db(), order, about, words, way)
            if way == letters.WAITING:
                has_server = bool(stores.setting(db(), "mail")["host"])
                require(
                    has_server, "mail server", "", "say where the shop's mail goes first, or copy the letter"
                )
        except Refused as refused:
            db().rollback()
            problem, order, customer = refused, load(Order, order_id), load(Customer, customer.id or 0)
        else:
            db().commit()
            if way == letters.WAITING:
                post.nudge()
            flash(
                "It goes out now." if way == letters.WAITING else "It is kept as one that you sent yourself."
            )
            return redirect(url_for("orders.show", key=order.id, _anchor="letters"))
    return render_template(
        "orders/letter.html",
        order=order,
        customer=customer,
        called=CALLED[about],
        about=about,
        letter=begun,
        address=mail_of(customer.facts),
        mailto=f"mailto:{quote(mail_of(customer.facts))}?subject={quote(begun.subject)}&body={quote(begun.text)}",
        has_server=bool(stores.setting(db(), "mail")["host"]),
        problem=problem,
    ), (422 if problem else 200)


def _plain(text: str) -> str:
    """What was typed, in which a bracket is no place any more."""
    return text.replace("\r\n", "\n").replace("{", "(").replace("}", ")")


@blueprint.post("/letter/<int:key>/again")
def again(key: int) -> ResponseReturnValue:
    """Send a letter once more that did not go out."""
    row = load(Message, key)
    letters.try_again(db(), row)
    db().commit()
    post.nudge()
    return redirect(url_for("orders.show", key=row.order_id, _anchor="letters"))


@blueprint.get("/mail")
def mail() -> ResponseReturnValue:
    """Where the shop's mail goes, and what its letters begin as."""
    return _mail()


def _mail(problem: Refused | None = None) -> ResponseReturnValue:
    return render_template(
        "orders/mail.html",
        kept={**stores.setting(db(), "mail"), **(request.form if problem else {})},
        has_password=bool(post.password(_home())),
        security=SECURITY,
        templates=letters.templates(db()),
        called=CALLED,
        problem=problem,
    ), (422 if problem else 200)


def _home() -> Path:
    return Path(current_app.config["HOME"])


@blueprint.post("/mail")
def keep_mail() -> ResponseReturnValue:
    """Keep where mail goes; the password lies beside the shop and in no backup."""
    sent = {
        name: request.form.get(name, "").strip()[:300]
        for name in ("host", "security", "user", "sender", "maildir")
    }
    try:
        port = request.form.get("port", "").strip() or "587"
        require(
            port.isascii() and port.isdigit() and 0 < int(port[:6]) < 65536,
            "port",
            port,
            "a port, 1 to 65535",
        )
        require(sent["security"] in SECURITY, "security", sent["security"], f"one of {', '.join(SECURITY)}")
        if sent["host"]:
            require(is_mail(sent["sender"]), "sender", sent["sender"], "the shop's own mail address")
            is_here = sent["host"] in ("localhost", "127.0.0.1", "::1")
            is_secret = is_here or sent["security"] != "none"
            require(
                is_secret,
                "security",
                "none",
                "starttls or tls: without one only for a server on this machine",
            )
        is_box = not sent["maildir"] or (Path(sent["maildir"]) / "new").is_dir()
        require(is_box, "maildir", sent["maildir"], "a folder with cur, new and tmp in it")
    except Refused as refused:
        return _mail(refused)
    stores.put_setting(db(), "mail", {**stores.setting(db(), "mail"), **sent, "port": int(port)})
    if request.form.get("password") or request.form.get("forget"):
        post.keep_password(_home(), request.form.get("password", ""))
    return redirect(url_for("orders_letters.mail"))


@blueprint.post("/mail/template/<about>")
def template(about: str) -> ResponseReturnValue:
    """Keep the shop's own words for a letter."""
    try:
        letters.keep_template(db(), about, request.form.get("subject", ""), request.form.get("text", ""))
    except Refused as refused:
        return _mail(refused)
    return redirect(url_for("orders_letters.mail", _anchor=f"t-{about}"))

"""Forms that are sent twice are done once: each carries a key of its own, kept with where its answer led."""

import secrets
from datetime import timedelta

from flask import Flask, Response, g, redirect, request
from flask.typing import ResponseReturnValue
from flask_wtf.csrf import generate_csrf
from markupsafe import Markup
from sqlmodel import col, delete
from werkzeug.exceptions import RequestEntityTooLarge

from lamsik.core.quantities import chosen, code_of
from lamsik.store.tables import SentForm, now
from lamsik.web.shared import units
from lamsik.web.shared.db import db

FIELD, LENGTH = "once", 22
KEPT = timedelta(days=2)


def install(app: Flask) -> None:
    """Forms get their key, answers are looked up and kept. After the checks of who may send at all."""
    app.before_request(_answered)
    app.jinja_env.globals["sealed"] = sealed


def sealed() -> Markup:
    """The hidden fields of a form: the token that it comes from here, the key that makes it count once, and
    the units that its fields show.
    """
    token, key = generate_csrf(), secrets.token_urlsafe(16)
    return Markup(
        '<input type="hidden" name="csrf_token" value="{}"><input type="hidden" name="{}" value="{}">'
        '<input type="hidden" name="{}" value="{}">'
    ).format(token, FIELD, key, units.FIELD, code_of(chosen()))


def _key() -> str:
    try:
        key = request.form.get(FIELD, "") if request.method == "POST" and not request.is_json else ""
    except RequestEntityTooLarge:  # it is answered by then, and has no key
        return ""
    return key if len(key) == LENGTH and key.isascii() else ""


def _answered() -> ResponseReturnValue | None:
    """Where the same form led before; it waits for one that is still at work, because both want to write."""
    key = _key()
    if not key:
        return None
    row = db().get(SentForm, key)
    return redirect(row.answer, 303) if row is not None else None


def remember(response: Response) -> None:
    """Keep where a form led, in the transaction that did what it asked; one that was refused may be mended
    and sent again.
    """
    key = _key()
    if (
        not key
        or response.status_code not in (301, 302, 303)
        or "session" not in g
        or db().get(SentForm, key) is not None
    ):
        return
    db().execute(delete(SentForm).where(col(SentForm.sent_at) < now() - KEPT))
    db().add(SentForm(key=key, answer=response.headers.get("Location", "/")))

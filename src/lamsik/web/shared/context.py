"""What every template may use: the benches, the shop's name, icons, drawings, filters."""

from collections.abc import Callable
from datetime import date, datetime
from functools import lru_cache
from pathlib import Path
from typing import Any
from urllib.parse import urlencode

from flask import Flask, current_app, g, request
from jinja2 import pass_context
from jinja2.runtime import Context
from markupsafe import Markup, escape

from lamsik import __version__
from lamsik.core.money import Money
from lamsik.core.quantities import (
    chosen,
    code_of,
    counted,
    give_or_take,
    numeral,
    plainly,
    resaid,
    said,
    stands,
    sure,
    time_of_day,
    unit_of,
)
from lamsik.drawings.svg import markup
from lamsik.store.stores import DEFAULTS, setting
from lamsik.store.tables.shared import Typed
from lamsik.web.shared.db import db
from lamsik.web.shared.lean import lean
from lamsik.web.shared.person import at_the_bench
from lamsik.web.shared.view import edit
from lamsik.words import handbook, refusals
from lamsik.words.cautions import DEFER, caution
from lamsik.words.stock import amount
from lamsik.words.tell import capital, told
from lamsik.words.verdict import sentence

THEMES = ("light", "dark")
"""What a browser may be switched to; else it is as its system."""
ICONS = Path(__file__).parent.parent / "static" / "vendor" / "icons"


def install(app: Flask) -> None:
    """Register the context and filters."""
    app.context_processor(_context)
    app.jinja_env.globals.update(
        icon=icon,
        unit_of=unit_of,
        give_or_take=give_or_take,
        units_said=lambda: code_of(chosen()),
        svg=markup,
        other_page=other_page,
        caution=caution,
        defer=DEFER,
        edit=edit,
        word=word,
    )
    app.jinja_env.filters.update(
        capital=capital,
        explained=explained,
        limits=refusals.limits_said,
        counted=counted,
        measure=each_time(said),
        plainly=each_time(plainly),
        sure=each_time(sure),
        numeral=each_time(numeral),
        amount=each_time(amount),
        money=lambda minor, currency: Money(minor, currency).said,
        sentence=sentence,
        day=day,
        local=local,
        time_of_day=time_of_day,
        typed=typed,
        resaid=resaid,
        initials=initials,
        first_state=first_state,
        says=refusals.says,
        beside=refusals.beside,
        readings=refusals.readings,
        allowed=refusals.allowed,
    )
    app.jinja_env.finalize = told
    app.jinja_env.trim_blocks = app.jinja_env.lstrip_blocks = True


def each_time(filter: Callable[..., str]) -> Callable[..., str]:
    """A filter that is asked whenever its page is shown: of constants a template would keep the first answer,
    in the units of who came first.
    """

    @pass_context
    def asked(_context: Context, *args: Any, **named: Any) -> str:
        return filter(*args, **named)

    return asked


def _context() -> dict[str, Any]:
    here = (request.blueprint or "").split("_")[0]  # the rooms of a bench belong to it
    return {
        "benches": current_app.extensions["benches"],
        "here": here,
        "theme": request.cookies.get("theme") if request.cookies.get("theme") in THEMES else "",
        "shop": DEFAULTS["shop"] if g.get("failed") else setting(db(), "shop"),
        "version": __version__,
        "today": date.today(),
        **({} if g.get("failed") else at_the_bench()),
    }


def typed(row: Typed, field: str, value: float, quantity: str) -> str:
    """A measure of a row as it was typed, as long as that is what it is; else as short as it is."""
    text = row.typed.get(field, "")
    return text if text and stands(text, value, quantity) else plainly(value, quantity)


def first_state(state: dict[str, Any]) -> dict[str, Any]:
    """The state that a page begins with, its values named: what is sent later leaves out what stayed."""
    return {**state, "view": {key: lean(value) for key, value in state["view"].items()}}


def other_page(number: int) -> str:
    """The address of another page of the list that is shown, all else as it was asked."""
    asked = [(name, value) for name, value in request.args.items(multi=True) if name != "page"]
    return f"{request.path}?{urlencode([*asked, ('page', number)])}"


@lru_cache(maxsize=64)
def word(name: str, text: str = "") -> Markup:
    """A word that opens its explanation where it stands: the `text` itself, or a mark beside it."""
    asks = Markup("") if text else Markup('aria-label="What does {} mean?"').format(name)
    return Markup(
        '<button type="button" class="word p-0 border-0 bg-none text-reset text-decoration-dotted" '
        'data-bs-toggle="popover" data-bs-title="{}" data-bs-content="{}" {}>{}</button>'
    ).format(name, handbook.MEANINGS[name], asks, text or icon("question-circle"))


def explained(text: str) -> Markup:
    """A text with its first word that the Handbook explains opening there."""
    match = handbook.first_word(text)
    if not match:
        return escape(text)
    name, start, end = match
    return escape(text[:start]) + word(name, text[start:end]) + escape(text[end:])


@lru_cache(maxsize=64)
def icon(name: str) -> Markup:
    """An icon as inline SVG, hidden from screen readers; the button beside it carries the words."""
    text = (ICONS / f"{name}.svg").read_text(encoding="utf-8")
    return Markup(text.replace("<svg ", '<svg aria-hidden="true" focusable="false" ', 1))


def day(value: date | None) -> str:
    """A date as a maker writes it: `Fri 4 Dec`."""
    if value is None:
        return "no date"
    return f"{value:%a} {value.day} {value:%b}" + (
        "" if value.year == date.today().year else f" {value.year}"
    )


def initials(name: str) -> str:
    """A name in one or two letters: `M`, `JA` of Jo Anne."""
    words = name.split()
    return "".join(word[0] for word in words[:2]).upper()


def local(value: datetime) -> str:
    """A stored time on the shop's own clock: `4 Dec 16:05`."""
    here = value.astimezone()
    return f"{here.day} {here:%b} {time_of_day(here)}"

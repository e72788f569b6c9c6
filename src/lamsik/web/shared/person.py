"""Who stands at this browser: said once, by one of the shop's names, and changed by one tap."""

from typing import Any
from urllib.parse import urlsplit

from flask import request, session

from lamsik.store import people
from lamsik.store.tables import Person
from lamsik.web.shared.db import HERE, db


def choose(row: Person | None) -> None:
    """This browser is used by someone from now on, or by nobody who was named."""
    session.permanent = True
    session[HERE] = row.id if row else 0


def at_the_bench() -> dict[str, Any]:
    """The shop's people, who of them is here (0 for nobody named), and whether that was never said."""
    rows = people.here(db())
    said = session.get(HERE)
    known = said if said in {0, *(row.id for row in rows)} else None
    came = urlsplit(request.referrer or "").path if request.method != "GET" else request.full_path
    return {
        "way_back": came or "/",
        "people": rows,
        "person_here": known or 0,
        "person_unsaid": bool(rows) and known is None,
    }

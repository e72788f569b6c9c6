"""Styles, scripts and fonts under an address that changes with them, kept for ever; what the shop's own
data makes is kept nowhere. Our own scripts and the style sheet go out without what only people read.
"""

import hashlib
import re
from functools import lru_cache
from pathlib import Path
from typing import Any

from flask import Flask, Response, request, send_from_directory
from rcssmin import cssmin
from rjsmin import jsmin

FOLDER = Path(__file__).parent.parent / "static"
SHEET = "css/shop.css"
PARTS = (
    "vendor/bootstrap.css",
    *(
        f"css/{name}.css"
        for name in (
            "fonts",
            "tokens",
            "page",
            "waterline",
            "workbench",
            "scale",
            "print",
            "drawings",
        )
    ),
)
"""What the one sheet of every page is put together from, later over earlier."""
FOR_EVER_S = 365 * 24 * 3600


def install(app: Flask) -> None:
    """The route, the version in every address of it, and what browsers may keep."""
    app.add_url_rule("/static/<version>/<path:filename>", endpoint="static", view_func=_send)
    app.url_defaults(_versioned)
    app.after_request(_keeping)


@lru_cache(maxsize=1)
def digest() -> str:
    """Of all that is there: modules and styles name each other by relative paths, so they share one
    version.
    """
    hashed = hashlib.sha256()
    for path in sorted(FOLDER.rglob("*")):
        if path.is_file():
            hashed.update(path.relative_to(FOLDER).as_posix().encode())
            hashed.update(path.read_bytes())
    return hashed.hexdigest()[:16]


@lru_cache(maxsize=1)
def sheet() -> bytes:
    """The style sheets of every page as one."""
    return str(cssmin("\n".join((FOLDER / part).read_text("utf-8") for part in PARTS))).encode()


@lru_cache(maxsize=256)
def script(name: str) -> bytes:
    """A module of our own. Raises `FileNotFoundError` where there is none."""
    return str(jsmin((FOLDER / name).read_text("utf-8"))).encode()


OWN = re.compile(r"js/[a-z]+/[a-z_]+\.js")
"""Addresses of our own modules."""


def _versioned(endpoint: str, values: dict[str, Any]) -> None:
    if endpoint == "static":
        values.setdefault("version", digest())


def _send(version: str, filename: str) -> Response:
    """A file; under an address of another version what there is now, not to be kept."""
    if filename == SHEET:
        response = Response(sheet(), mimetype="text/css")
        response.cache_control.no_cache = True
    elif OWN.fullmatch(filename) and (FOLDER / filename).exists():
        response = Response(script(filename), mimetype="text/javascript")
        response.cache_control.no_cache = True
    else:
        response = send_from_directory(FOLDER, filename, max_age=FOR_EVER_S if version == digest() else 0)
    if version == digest():
        for_ever(response)
    return response


def for_ever(response: Response) -> None:
    """What is under this address never changes: a browser need not ask again."""
    response.cache_control.max_age = FOR_EVER_S
    response.cache_control.no_cache = None
    response.cache_control.public, response.cache_control.immutable = True, True


def _keeping(response: Response) -> Response:
    if request.endpoint != "static" and not response.cache_control.immutable:
        response.headers["Cache-Control"] = "no-store"
    return response

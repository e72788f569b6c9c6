"""Text goes out compressed: drawings, pages and scripts are a fifth of their size then."""

import gzip
from functools import lru_cache

from flask import Flask, Response, request

LEAST, LEAST_KEPT = 1_000, 250
"""Shorter answers [bytes] go as they are: what is made for one, and what is kept."""
TEXTS = ("text/", "application/json", "application/javascript", "image/svg+xml")
QUICK, SMALL = 1, 9
"""How hard to press: what is made for one answer, and what is kept."""


def install(app: Flask) -> None:
    """Compress every answer that is text, long enough, and for a browser that takes it."""
    app.after_request(_packed)


def _packed(response: Response) -> Response:
    if not (response.mimetype or "").startswith(TEXTS):
        return response
    response.vary.add("Accept-Encoding")
    if (
        response.status_code != 200
        or "Content-Encoding" in response.headers
        or request.accept_encodings.quality("gzip") <= 0
        or request.method == "HEAD"
        or request.range
    ):
        return response
    if request.endpoint == "static":
        return _kept(response)
    if response.direct_passthrough or response.is_streamed or (response.content_length or 0) < LEAST:
        return response
    return _of(response, gzip.compress(response.get_data(), QUICK, mtime=0))


def _kept(response: Response) -> Response:
    """Our own files are text that stays: pressed hard, once."""
    if (response.content_length or 0) < LEAST_KEPT:
        return response
    response.direct_passthrough = False
    return _of(response, _pressed(response.get_data()))


@lru_cache(maxsize=256)
def _pressed(data: bytes) -> bytes:
    return gzip.compress(data, SMALL, mtime=0)


def _of(response: Response, data: bytes) -> Response:
    response.set_data(data)
    response.headers["Content-Encoding"] = "gzip"
    response.headers.pop("ETag", None)
    return response

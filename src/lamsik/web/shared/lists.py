"""Lists in pages: which page is asked for, and what is typed to find something."""

from typing import TypeVar

from flask import request

from lamsik.store import paging
from lamsik.store.paging import Page, Query
from lamsik.web.shared.db import db

Row = TypeVar("Row")

FARTHEST = 100_000
"""Beyond this no list goes; an address that asks for it is answered with the last page that can be."""


def asked_text() -> str:
    """What is to be found, as typed."""
    return request.args.get("q", "").strip()


def asked_page(query: "Query[Row]", most: int = paging.MOST) -> Page[Row]:
    """The page of a list that the address names, the first where it names none."""
    text = request.args.get("page", "")
    number = int(text) if text.isascii() and text.isdigit() and len(text) < 7 else 1
    return paging.page(db(), query, min(max(number, 1), FARTHEST), most)

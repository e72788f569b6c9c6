"""The Paints bench: what stands in the header, and where its pages are."""

from lamsik.web.paints import (
    amounts,
    batch,
    beside,
    doing,
    files,
    known,
    live,
    match,
    mixing,
    photo,
    reader,
    shelf,
    stencil,
    views,
)
from lamsik.web.shared.bench import BenchPages

BENCH = BenchPages(
    "Paints",
    "paints.index",
    (
        views.blueprint,
        live.blueprint,
        files.blueprint,
        doing.blueprint,
        batch.blueprint,
        known.blueprint,
        beside.blueprint,
        amounts.blueprint,
        mixing.blueprint,
        shelf.blueprint,
        match.blueprint,
        stencil.blueprint,
        photo.blueprint,
        reader.blueprint,
    ),
)

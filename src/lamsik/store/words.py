"""Finding a text anywhere in what there are very many of: pieces and orders, by the three-letter index
that SQLite keeps (FTS5, trigram).
"""

from sqlalchemy import ColumnElement, column, select, table, text
from sqlmodel import col

from lamsik.store.search import fold, pattern
from lamsik.store.tables import Order, Piece

INDEXES = {"piece": "piece_words", "shop_order": "order_words"}
"""Table that is searched, and the index of its words; triggers keep the two alike."""
SHORTEST = 3
"""Shorter texts are not in such an index: the rows themselves are read for them."""

MOST_HELD = 3_000
"""The newest that hold a text are found; who wants an older one types more of it."""


def made(name: str) -> list[str]:
    """What makes the index of a table and keeps it: rows that come, change and go."""
    words = INDEXES[name]
    comes = f"INSERT INTO {words} (rowid, search) VALUES (new.id, new.search);"
    goes = f"INSERT INTO {words} ({words}, rowid, search) VALUES ('delete', old.id, old.search);"
    return [
        (
            f"CREATE VIRTUAL TABLE {words} USING fts5(search, content='{name}', content_rowid='id',"
            " tokenize='trigram')"
        ),
        f"CREATE TRIGGER {words}_comes AFTER INSERT ON {name} BEGIN {comes} END",
        f"CREATE TRIGGER {words}_goes AFTER DELETE ON {name} BEGIN {goes} END",
        f"CREATE TRIGGER {words}_changes AFTER UPDATE OF search ON {name} BEGIN {goes} {comes} END",
        f"INSERT INTO {words} ({words}) VALUES ('rebuild')",
    ]


def is_index(name: str) -> bool:
    """Whether a table is part of such an index: what it holds is told from the rows."""
    return any(name.startswith(words) for words in INDEXES.values())


def holds(rows: type[Piece] | type[Order], asked: str) -> ColumnElement[bool]:
    """Whether a row holds the text, anywhere, in any script, accents and capitals aside."""
    folded = fold(asked)
    if len(folded) < SHORTEST:
        return col(rows.search).like(pattern(asked), escape="\\")
    words = INDEXES[str(rows.__tablename__)]
    phrase = '"' + folded.replace('"', '""') + '"'
    rowid: ColumnElement[int] = column("rowid")
    held = (
        select(rowid)
        .select_from(table(words))
        .where(text(f"{words} MATCH :phrase").bindparams(phrase=phrase))
    )
    return col(rows.id).in_(held.order_by(rowid.desc()).limit(MOST_HELD))

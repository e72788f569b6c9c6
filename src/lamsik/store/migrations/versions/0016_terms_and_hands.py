"""Discounts and deposits of orders, minutes of hands on a step, what a mould cost and is expected to do"""

import json

import sqlalchemy as sa
from alembic import op

revision = "0016"
down_revision = "0015"

NEW = {
    "shop_order": (
        ("discount_percent", "FLOAT", None),
        ("discount_minor", "INTEGER", None),
        ("discount_why", "VARCHAR NOT NULL DEFAULT ''", ""),
        ("deposit_percent", "FLOAT", None),
        ("deposit_minor", "INTEGER", None),
    ),
    "piece_step": (("hands_min", "FLOAT", None),),
    "mould_made": (
        ("cost_minor", "INTEGER", None),
        ("currency", "VARCHAR NOT NULL DEFAULT ''", ""),
        ("expected_shots", "INTEGER", None),
    ),
}
LOGGED = {"shop_order": ("order", ""), "piece_step": ("piece", "step"), "mould_made": ("document", "made")}
"""What the log calls a row of each table."""


def upgrade() -> None:
    """Each is there and empty; what the log says of a whole row says so too"""
    log = sa.table(
        "event",
        *(sa.column(name) for name in ("id", "of", "part")),
        *(sa.column(name, sa.JSON(none_as_null=True)) for name in ("before", "after")),
    )
    bind = op.get_bind()
    op.execute(  # what floats and blades take is told anew
        "DELETE FROM need WHERE revision_id IN (SELECT revision.id FROM revision JOIN document "
        "ON document.id = revision.document_id WHERE document.kind IN ('float', 'blade'))"
    )
    for table, columns in NEW.items():
        for name, kind, _ in columns:
            op.execute(f"ALTER TABLE {table} ADD COLUMN {name} {kind}")
        of, part = LOGGED[table]
        empty = {name: value for name, _, value in columns}
        for row in bind.execute(sa.select(log).where(log.c.of == of, log.c.part == part)).fetchall():
            before, after = (json.loads(one) if isinstance(one, str) else one for one in (row.before, row.after))
            if (before is None) != (after is None):  # a whole row that came or went
                halves = {"before": before, "after": after}
                told = {name: {**empty, **half} for name, half in halves.items() if half is not None}
                bind.execute(sa.update(log).where(log.c.id == row.id).values(**told))

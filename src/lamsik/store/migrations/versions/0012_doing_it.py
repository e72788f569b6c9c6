"""Test patches, stencils, points ticked on a finished piece, the version of a scheme an order froze"""

import sqlalchemy as sa
import sqlmodel
from alembic import op

revision = "0012"
down_revision = "0011"

TEXT = sqlmodel.sql.sqltypes.AutoString


def upgrade() -> None:
    """Orders keep the version their scheme has now: what it was when they were placed nobody wrote down. What the
    log says of rows that were made has the new columns too.
    """
    op.create_table(
        "test_patch",
        sa.Column("typed", sa.JSON(), nullable=False),
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("under", TEXT(), nullable=False),
        sa.Column("over", TEXT(), nullable=False),
        sa.Column("after_h", sa.Float(), nullable=False),
        sa.Column("result", TEXT(), nullable=False),
        sa.Column("note", TEXT(), nullable=False),
        sa.Column("at", sa.DateTime(), nullable=False),
        sa.PrimaryKeyConstraint("id"),
    )
    op.create_table(
        "paint_tool",
        sa.Column("typed", sa.JSON(), nullable=False),
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("name", TEXT(), nullable=False),
        sa.Column("kind", TEXT(), nullable=False),
        sa.Column("source", TEXT(), nullable=False),
        sa.Column("body_id", sa.Integer(), nullable=True),
        sa.Column("side", TEXT(), nullable=False),
        sa.Column("hangs", TEXT(), nullable=False),
        sa.Column("note", TEXT(), nullable=False),
        sa.ForeignKeyConstraint(["body_id"], ["document.id"]),
        sa.PrimaryKeyConstraint("id"),
        sa.UniqueConstraint("name"),
    )
    op.create_index("ix_paint_tool_body_id", "paint_tool", ["body_id"])
    op.create_index("ix_shop_order_scheme_id", "shop_order", ["scheme_id"])
    op.execute("ALTER TABLE piece_step ADD COLUMN points JSON NOT NULL DEFAULT '[]'")
    op.execute("ALTER TABLE piece ADD COLUMN repaint VARCHAR NOT NULL DEFAULT ''")
    op.execute("ALTER TABLE shop_order ADD COLUMN scheme_version INTEGER NOT NULL DEFAULT 0")
    op.execute(
        "UPDATE shop_order SET scheme_version = (SELECT current FROM document WHERE document.id = shop_order.scheme_id) "
        "WHERE scheme_id IS NOT NULL"
    )
    for of, part, table, name, value in (
        ("piece", "", "piece", "repaint", "''"),
        ("piece", "step", "piece_step", "points", "json('[]')"),
        ("order", "", "shop_order", "scheme_version", "(SELECT scheme_version FROM shop_order WHERE shop_order.id = event.row_id)"),
    ):
        op.execute(
            f"UPDATE event SET after = json_set(after, '$.{name}', {value}) WHERE of = '{of}' AND part = '{part}' "
            f"AND json_type(after) = 'object' AND (before IS NULL OR before = 'null') "
            f"AND row_id IN (SELECT id FROM {table})"
        )

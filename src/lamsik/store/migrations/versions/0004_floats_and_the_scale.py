"""Floats and the scale: weighed things; a scale's spread and the mass it was checked with"""

import sqlalchemy as sa
import sqlmodel
from alembic import op

revision = "0004"
down_revision = "0003"


def upgrade() -> None:
    """One table, two columns"""
    with op.batch_alter_table("instrument") as table:
        table.add_column(sa.Column("spread_g", sa.Float(), nullable=False, server_default="0"))
        table.add_column(sa.Column("checked_g", sa.Float(), nullable=True))
    op.create_table(
        "weighed",
        sa.Column("typed", sa.JSON(), nullable=False),
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("name", sqlmodel.sql.sqltypes.AutoString(), nullable=False),
        sa.Column("search", sqlmodel.sql.sqltypes.AutoString(), nullable=False),
        sa.Column("kind", sqlmodel.sql.sqltypes.AutoString(), nullable=False),
        sa.Column("air_g", sa.Float(), nullable=True),
        sa.Column("water_g", sa.Float(), nullable=True),
        sa.Column("sinker_g", sa.Float(), nullable=True),
        sa.Column("both_g", sa.Float(), nullable=True),
        sa.Column("marks", sa.JSON(), nullable=False),
        sa.Column("water", sa.JSON(), nullable=False),
        sa.Column("line_mm", sa.Float(), nullable=False),
        sa.Column("line_under_mm", sa.Float(), nullable=False),
        sa.Column("stage", sqlmodel.sql.sqltypes.AutoString(), nullable=False),
        sa.Column("float_id", sa.Integer(), nullable=True),
        sa.Column("instrument_id", sa.Integer(), nullable=True),
        sa.Column("at", sqlmodel.sql.sqltypes.UTCDateTime(), nullable=False),
        sa.Column("note", sqlmodel.sql.sqltypes.AutoString(), nullable=False),
        sa.Column("deleted_at", sqlmodel.sql.sqltypes.UTCDateTime(), nullable=True),
        sa.ForeignKeyConstraint(["float_id"], ["document.id"]),
        sa.ForeignKeyConstraint(["instrument_id"], ["instrument.id"]),
        sa.PrimaryKeyConstraint("id"),
    )
    for column in ("search", "kind", "float_id"):
        op.create_index(f"ix_weighed_{column}", "weighed", [column])

"""Nothing breaks it: a piece can be put away, a form that is sent twice is done once"""

import sqlalchemy as sa
import sqlmodel
from alembic import op

revision = "0007"
down_revision = "0006"


def upgrade() -> None:
    """A column, and the forms that were answered"""
    op.add_column("piece", sa.Column("deleted_at", sa.DateTime(), nullable=True))
    op.create_table(
        "sentform",
        sa.Column("key", sqlmodel.sql.sqltypes.AutoString(), nullable=False),
        sa.Column("sent_at", sa.DateTime(), nullable=False),
        sa.Column("answer", sqlmodel.sql.sqltypes.AutoString(), nullable=False),
        sa.PrimaryKeyConstraint("key"),
    )
    op.create_index("ix_sentform_sent_at", "sentform", ["sent_at"])

"""Put right: a weighed thing has a source, a skipped step its reason, a blank its weighing in water, a run its lead and its pitch"""

import sqlalchemy as sa
import sqlmodel
from alembic import op

revision = "0006"
down_revision = "0005"


def upgrade() -> None:
    """Five columns"""
    op.add_column("weighed", sa.Column("source", sa.JSON(), nullable=False, server_default="{}"))
    op.add_column("weighing", sa.Column("water", sa.JSON(), nullable=False, server_default="{}"))
    op.add_column("stepdone", sa.Column("reason", sqlmodel.sql.sqltypes.AutoString(), nullable=False, server_default=""))
    op.add_column("towrun", sa.Column("lead_g", sa.Float(), nullable=False, server_default="0"))
    op.add_column("towrun", sa.Column("pitch_deg", sa.Float(), nullable=True))

"""Steps that were timed are found without those that were not"""

from alembic import op

revision = "0017"
down_revision = "0016"


def upgrade() -> None:
    """An index of them alone"""
    op.execute(
        "CREATE INDEX step_timed ON piece_step (piece_id) WHERE begun_at IS NOT NULL OR hands_min IS NOT NULL"
    )

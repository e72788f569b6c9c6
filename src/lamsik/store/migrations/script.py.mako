"""${message}"""

import sqlalchemy as sa
import sqlmodel
from alembic import op

revision = ${repr(up_revision)}
down_revision = ${repr(down_revision)}


def upgrade() -> None:
    """${message}"""
    ${upgrades if upgrades else "pass"}


def downgrade() -> None:
    """Going back is done from a backup."""
    raise RuntimeError("restore a backup instead")

"""Pictures are files beside the database, by their digest"""

from pathlib import Path

import sqlalchemy as sa
from alembic import op

from lamsik.store import pictures

revision = "0008"
down_revision = "0007"


def upgrade() -> None:
    """Each picture out of its row into a file."""
    op.add_column("tracing", sa.Column("digest", sa.String(), nullable=False, server_default=""))
    here = op.get_bind()
    shop = Path(here.exec_driver_sql("PRAGMA database_list").fetchone()[2]).parent
    for key in [row[0] for row in here.exec_driver_sql("SELECT id FROM tracing")]:
        data = here.exec_driver_sql("SELECT picture FROM tracing WHERE id = ?", (key,)).scalar_one()
        here.exec_driver_sql("UPDATE tracing SET digest = ? WHERE id = ?", (pictures.put(shop, data), key))
    with op.batch_alter_table("tracing") as batch:
        batch.drop_column("picture")

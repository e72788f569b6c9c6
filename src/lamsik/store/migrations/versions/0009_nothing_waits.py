"""Nothing waits: where pieces and orders stand is kept beside them, lists have indexes, old revisions are kept as differences"""

import sqlalchemy as sa
import sqlmodel
from alembic import op

from lamsik.store import words

revision = "0009"
down_revision = "0008"

TEXT = sqlmodel.sql.sqltypes.AutoString


def upgrade() -> None:
    """Columns and indexes; where things stand is told when the shop is opened."""
    op.add_column("piece", sa.Column("stand", TEXT(), nullable=False, server_default="making"))
    op.add_column("shop_order", sa.Column("stand", TEXT(), nullable=False, server_default="enquiry"))
    op.add_column("shop_order", sa.Column("queue", TEXT(), nullable=False, server_default=""))
    op.add_column("revision", sa.Column("packed", sa.LargeBinary(), nullable=True))
    with op.batch_alter_table("revision") as batch:
        batch.add_column(sa.Column("packed_on", sa.Integer(), nullable=True))
        batch.create_foreign_key("revision_packed_on", "revision", ["packed_on"], ["id"])
    op.create_table(
        "card",
        sa.Column("revision_id", sa.Integer(), nullable=False),
        sa.Column("look", TEXT(), nullable=False),
        sa.Column("svg", TEXT(), nullable=False),
        sa.ForeignKeyConstraint(["revision_id"], ["revision.id"]),
        sa.PrimaryKeyConstraint("revision_id"),
    )
    here = sa.text("deleted_at IS NULL")
    op.create_index("document_here", "document", ["kind", "search"], sqlite_where=here)
    op.create_index("revision_saved", "revision", ["saved_at", "id"])
    op.create_index("order_by_design", "shop_order", ["design_id", "queue"])
    op.create_index("order_queue", "shop_order", ["queue"], sqlite_where=here)
    op.create_index("order_by_stand", "shop_order", ["stand", "queue"], sqlite_where=here)
    op.create_index("piece_going", "piece", ["order_id", "id"], sqlite_where=sa.text("stand != 'shipped' AND deleted_at IS NULL"))
    op.create_index("weighing_in_water", "weighing", ["piece_id"], sqlite_where=sa.text("target LIKE 'water:%'"))
    op.create_index("batch_by_product", "batch", ["product_id", "state", "id"])
    op.create_index("clock_running", "clock", ["ends_at"], sqlite_where=sa.text("stopped_at IS NULL"))
    for name in words.INDEXES:
        for statement in words.made(name):
            op.execute(statement)
    op.create_index("pour_open", "pour", ["id"], sqlite_where=sa.text("finished_at IS NULL"))

"""Customers that were double, erased or put away; what they wrote; what was said of orders and paid; what is theirs"""

import sqlalchemy as sa
import sqlmodel
from alembic import op

revision = "0013"
down_revision = "0012"

TEXT = sqlmodel.sql.sqltypes.AutoString


def upgrade() -> None:
    """What the log says of customers and orders that were made has the new columns too."""
    op.execute("ALTER TABLE customer ADD COLUMN merged_into_id INTEGER REFERENCES customer (id)")
    op.execute("ALTER TABLE customer ADD COLUMN merged JSON NOT NULL DEFAULT '{}'")
    op.execute("ALTER TABLE customer ADD COLUMN erased_at DATETIME")
    op.execute("ALTER TABLE customer ADD COLUMN deleted_at DATETIME")
    op.create_index("ix_customer_merged_into_id", "customer", ["merged_into_id"])
    op.create_table(
        "customer_word",
        sa.Column("typed", sa.JSON(), nullable=False),
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("customer_id", sa.Integer(), nullable=False),
        sa.Column("order_id", sa.Integer(), nullable=True),
        sa.Column("text", TEXT(), nullable=False),
        sa.Column("at", sa.DateTime(), nullable=False),
        sa.ForeignKeyConstraint(["customer_id"], ["customer.id"]),
        sa.ForeignKeyConstraint(["order_id"], ["shop_order.id"]),
        sa.PrimaryKeyConstraint("id"),
    )
    op.create_index("ix_customer_word_customer_id", "customer_word", ["customer_id"])
    for name in ("quoted_at", "declined_at", "cancelled_at"):
        op.execute(f"ALTER TABLE shop_order ADD COLUMN {name} DATETIME")
    op.execute("ALTER TABLE shop_order ADD COLUMN shipping_minor INTEGER")
    op.create_table(
        "payment",
        sa.Column("typed", sa.JSON(), nullable=False),
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("order_id", sa.Integer(), nullable=False),
        sa.Column("paid_on", sa.Date(), nullable=False),
        sa.Column("minor", sa.Integer(), nullable=False),
        sa.Column("how", TEXT(), nullable=False),
        sa.Column("note", TEXT(), nullable=False),
        sa.ForeignKeyConstraint(["order_id"], ["shop_order.id"]),
        sa.PrimaryKeyConstraint("id"),
    )
    op.create_index("ix_payment_order_id", "payment", ["order_id"])
    op.create_table(
        "custody",
        sa.Column("typed", sa.JSON(), nullable=False),
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("number", TEXT(), nullable=False),
        sa.Column("customer_id", sa.Integer(), nullable=False),
        sa.Column("order_id", sa.Integer(), nullable=True),
        *(sa.Column(name, TEXT(), nullable=False) for name in ("kind", "what", "condition")),
        sa.Column("weight_g", sa.Float(), nullable=True),
        *(sa.Column(name, TEXT(), nullable=False) for name in ("genuine", "genuine_by", "eyes", "electronics", "place")),
        sa.Column("bag", sa.JSON(), nullable=False),
        sa.Column("received_on", sa.Date(), nullable=False),
        sa.Column("due_back_on", sa.Date(), nullable=True),
        sa.Column("returned_on", sa.Date(), nullable=True),
        sa.Column("written_off", TEXT(), nullable=False),
        sa.Column("search", TEXT(), nullable=False),
        sa.ForeignKeyConstraint(["customer_id"], ["customer.id"]),
        sa.ForeignKeyConstraint(["order_id"], ["shop_order.id"]),
        sa.PrimaryKeyConstraint("id"),
        sa.UniqueConstraint("number"),
    )
    op.create_table(
        "photo",
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("of", TEXT(), nullable=False),
        sa.Column("of_id", sa.Integer(), nullable=False),
        sa.Column("digest", TEXT(), nullable=False),
        *(sa.Column(name, sa.Integer(), nullable=False) for name in ("width_px", "height_px", "bytes")),
        sa.Column("at", sa.DateTime(), nullable=False),
        sa.Column("deleted_at", sa.DateTime(), nullable=True),
        sa.PrimaryKeyConstraint("id"),
    )
    op.create_index("ix_photo_digest", "photo", ["digest"])
    op.create_index("photo_of", "photo", ["of", "of_id"], sqlite_where=sa.text("deleted_at IS NULL"))
    for name in ("customer_id", "order_id", "search"):
        op.create_index(f"ix_custody_{name}", "custody", [name])
    for name in ("quoted_at", "declined_at", "cancelled_at", "shipping_minor"):
        op.execute(
            f"UPDATE event SET after = json_set(after, '$.{name}', null) WHERE of = 'order' AND part = '' "
            "AND json_type(after) = 'object' AND (before IS NULL OR before = 'null')"
        )
    for name, value in (("merged_into_id", "null"), ("merged", "json('{}')"), ("erased_at", "null"), ("deleted_at", "null")):
        op.execute(
            f"UPDATE event SET after = json_set(after, '$.{name}', {value}) WHERE of = 'customer' AND part = '' "
            "AND json_type(after) = 'object' AND (before IS NULL OR before = 'null')"
        )

"""Moulds, mixes and casting: tubs, batches, clocks, moulds made, pours; a piece knows the pour it came from"""

import sqlalchemy as sa
import sqlmodel
from alembic import op

revision = "0005"
down_revision = "0004"


def text(name, default=None):
    return sa.Column(name, sqlmodel.sql.sqltypes.AutoString(), nullable=False, server_default=default)


def moment(name, needed=False):
    return sa.Column(name, sqlmodel.sql.sqltypes.UTCDateTime(), nullable=not needed)


def whole(name, needed=True):
    return sa.Column(name, sa.Integer(), nullable=not needed)


def plain(name):
    return sa.Column(name, sa.JSON(), nullable=False)


def number(name):
    return sa.Column(name, sa.Float(), nullable=False)


def link(name, to):
    return sa.ForeignKeyConstraint([name], [to])


def upgrade() -> None:
    """Five tables, two columns"""
    op.create_table(
        "tub", plain("typed"), whole("id"), whole("product_id"), text("part"), text("lot"), number("received_g"), number("left_g"), whole("price_minor", False),
        sa.Column("opened_on", sa.Date(), nullable=True), sa.Column("expires_on", sa.Date(), nullable=True), moment("stirred_at"), text("colour"), whole("heats"),
        text("note"), moment("at", True), moment("gone_at"), link("product_id", "document.id"), sa.PrimaryKeyConstraint("id"),
    )
    op.create_table(
        "mould_made", plain("typed"), whole("id"), whole("mould_id"), whole("revision"), whole("version"), text("material"), text("lot"), text("release"), plain("cavities"),
        moment("made_at", True), moment("retired_at"), text("note"), link("mould_id", "document.id"), sa.PrimaryKeyConstraint("id"),
    )
    op.create_table(
        "pour", plain("typed"), whole("id"), whole("made_id"), whole("product_id"), whole("shot"), sa.Column("purge", sa.Boolean(), nullable=False), text("step"), plain("ticks"),
        plain("plan"), plain("castings"), number("at_c"), whole("order_id", False), moment("at", True), moment("poured_at"), moment("finished_at"),
        sa.Column("failed", sa.Boolean(), nullable=False), text("note"), link("made_id", "mould_made.id"), link("product_id", "document.id"), link("order_id", "shop_order.id"),
        sa.PrimaryKeyConstraint("id"),
    )
    op.create_table(
        "batch", plain("typed"), whole("id"), whole("product_id"), text("purpose"), whole("mould_id", False), whole("made_id", False), whole("pour_id", False), plain("plan"),
        plain("weighed"), number("at_c"), text("state"), moment("at", True), moment("mixed_at"), text("note"), link("product_id", "document.id"), link("mould_id", "document.id"),
        link("made_id", "mould_made.id"), link("pour_id", "pour.id"), sa.PrimaryKeyConstraint("id"),
    )
    op.create_table(
        "clock", whole("id"), text("name"), text("kind"), moment("started_at", True), moment("ends_at", True), text("link"), whole("batch_id", False), moment("stopped_at"),
        link("batch_id", "batch.id"), sa.PrimaryKeyConstraint("id"),
    )
    for table, column in (
        ("tub", "product_id"), ("mould_made", "mould_id"), ("pour", "made_id"), ("batch", "product_id"), ("batch", "mould_id"), ("batch", "pour_id"), ("batch", "state"),
        ("clock", "batch_id"),
    ):
        op.create_index(f"ix_{table}_{column}", table, [column])
    with op.batch_alter_table("piece") as table:
        table.add_column(whole("pour_id", False))
        table.add_column(text("cavity", ""))
        table.create_foreign_key("fk_piece_pour", "pour", ["pour_id"], ["id"])
    op.create_index("ix_piece_pour_id", "piece", ["pour_id"])

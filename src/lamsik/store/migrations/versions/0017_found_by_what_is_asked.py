"""Orders by the day they went out and by what is owed, pieces by their line, steps that were timed: found without the others"""

from alembic import op

revision = "0017"
down_revision = "0016"

GONE = """
UPDATE shop_order SET gone_on = coalesce(
    (SELECT max(parcel.sent_on) FROM parcel WHERE parcel.order_id = shop_order.id),
    (SELECT date(max(piece_step.done_at)) FROM piece_step JOIN piece ON piece.id = piece_step.piece_id
     WHERE piece.order_id = shop_order.id AND piece_step.step = 'ship'),
    due_on, date(placed_at)
) WHERE stand IN ('shipped', 'closed')
"""
OWED = """
UPDATE shop_order SET owed_minor = nullif(max(
    price_minor + coalesce(shipping_minor, 0)
    - coalesce((SELECT sum(payment.minor) FROM payment WHERE payment.order_id = shop_order.id), 0), 0), 0)
WHERE accepted_at IS NOT NULL AND cancelled_at IS NULL AND declined_at IS NULL
"""


def upgrade() -> None:
    """The day and what is owed are told from parcels, steps and payments, as they are whenever they change"""
    op.execute("ALTER TABLE shop_order ADD COLUMN gone_on DATE")
    op.execute("ALTER TABLE shop_order ADD COLUMN owed_minor INTEGER")
    op.execute(GONE)
    op.execute(OWED)
    op.execute("CREATE INDEX order_gone ON shop_order (gone_on) WHERE gone_on IS NOT NULL")
    op.execute(
        "CREATE INDEX order_owed ON shop_order (customer_id, owed_minor)"
        " WHERE owed_minor IS NOT NULL AND deleted_at IS NULL"
    )
    op.execute("DROP INDEX ix_order_line_design_id")
    op.execute(
        "CREATE INDEX line_of_design ON order_line (design_id, deleted_at, order_id, quantity, per_set)"
    )
    op.execute("DROP INDEX ix_piece_line_id")
    op.execute("CREATE INDEX piece_of_line ON piece (line_id, deleted_at, revision_id)")
    op.execute(
        "CREATE INDEX step_timed ON piece_step (piece_id) WHERE begun_at IS NOT NULL OR hands_min IS NOT NULL"
    )

"""An order is lines; what was agreed of each, and how it changed since; pieces know their line"""

import json

import sqlalchemy as sa
import sqlmodel
from alembic import op

from lamsik.store import words

revision = "0014"
down_revision = "0013"

TEXT = sqlmodel.sql.sqltypes.AutoString
MOVED = (
    "typed",
    "quantity",
    "length_mm",
    "form",
    "material",
    "scheme_id",
    "scheme_version",
    "behaviour",
    "pitch_deg",
    "water_id",
    "design_id",
)
"""What an order with one bait said, and its line says now."""
NEW = {"kind": "made", "per_set": 1, "clears": None, "revision_id": None, "like_id": None, "custody_id": None, "piece_id": None, "kept_until": None}
NEW |= {"old_paint": "", "rate_minor": None, "picked_at": None, "note": "", "agreed": {}, "deleted_at": None}


def upgrade() -> None:
    """Each order has one line with what it said; the log tells it as it happened, of the line."""
    _lines()
    _what_goes_out()
    columns = ", ".join(MOVED)
    op.execute(
        f"INSERT INTO order_line (id, order_id, kind, title, per_set, old_paint, note, agreed, lump_minor, {columns}) "
        f"SELECT id, id, 'made', title, 1, '', '', '{{}}', price_minor, {columns} FROM shop_order"
    )
    _log()
    for index in ("order_by_design", "ix_shop_order_scheme_id"):
        op.execute(f"DROP INDEX IF EXISTS {index}")
    op.execute("DROP TABLE order_words")
    for when in ("comes", "goes", "changes"):
        op.execute(f"DROP TRIGGER order_words_{when}")
    with op.batch_alter_table("shop_order") as batch:
        for name in MOVED:
            if name != "quantity":
                batch.drop_column(name)
    for statement in words.made("shop_order"):
        op.execute(statement)
    op.execute("ALTER TABLE piece ADD COLUMN line_id INTEGER REFERENCES order_line (id)")
    op.execute("ALTER TABLE piece ADD COLUMN price_minor INTEGER")
    op.create_index("ix_piece_line_id", "piece", ["line_id"])
    op.execute("UPDATE piece SET line_id = order_id")
    op.execute(
        "UPDATE event SET after = json_set(after, '$.line_id', (SELECT line_id FROM piece WHERE piece.id = row_id), "
        "'$.price_minor', null) "
        "WHERE of = 'piece' AND part = '' AND json_type(after) = 'object' "
        "AND (before IS NULL OR before = 'null')"
    )


def _lines() -> None:
    op.create_table(
        "order_line",
        sa.Column("typed", sa.JSON(), nullable=False),
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("order_id", sa.Integer(), nullable=False),
        *(sa.Column(name, TEXT(), nullable=False) for name in ("kind", "title")),
        *(sa.Column(name, sa.Integer(), nullable=False) for name in ("quantity", "per_set")),
        sa.Column("clears", sa.Integer(), nullable=True),
        sa.Column("form", TEXT(), nullable=False),
        sa.Column("length_mm", sa.Float(), nullable=True),
        sa.Column("material", TEXT(), nullable=False),
        sa.Column("scheme_id", sa.Integer(), nullable=True),
        sa.Column("scheme_version", sa.Integer(), nullable=False),
        sa.Column("behaviour", TEXT(), nullable=False),
        sa.Column("pitch_deg", sa.Float(), nullable=False),
        *(
            sa.Column(name, sa.Integer(), nullable=True)
            for name in ("water_id", "design_id", "revision_id", "like_id", "custody_id", "piece_id")
        ),
        sa.Column("kept_until", sa.DateTime(), nullable=True),
        sa.Column("old_paint", TEXT(), nullable=False),
        *(sa.Column(name, sa.Integer(), nullable=True) for name in ("rate_minor", "lump_minor")),
        sa.Column("picked_at", sa.DateTime(), nullable=True),
        sa.Column("note", TEXT(), nullable=False),
        sa.Column("agreed", sa.JSON(), nullable=False),
        sa.Column("deleted_at", sa.DateTime(), nullable=True),
        sa.ForeignKeyConstraint(["order_id"], ["shop_order.id"]),
        sa.ForeignKeyConstraint(["scheme_id"], ["document.id"]),
        sa.ForeignKeyConstraint(["water_id"], ["water.id"]),
        sa.ForeignKeyConstraint(["design_id"], ["document.id"]),
        sa.ForeignKeyConstraint(["revision_id"], ["revision.id"]),
        sa.ForeignKeyConstraint(["like_id"], ["document.id"]),
        sa.ForeignKeyConstraint(["custody_id"], ["custody.id"]),
        sa.PrimaryKeyConstraint("id"),
    )
    for name in ("order_id", "scheme_id", "design_id", "custody_id", "piece_id"):
        op.create_index(f"ix_order_line_{name}", "order_line", [name])
    op.create_table(
        "order_change",
        sa.Column("id", sa.Integer(), nullable=False),
        *(sa.Column(name, sa.Integer(), nullable=False) for name in ("order_id", "line_id")),
        *(sa.Column(name, sa.JSON(), nullable=False) for name in ("before", "after")),
        sa.Column("asked_at", sa.DateTime(), nullable=False),
        sa.Column("answer", TEXT(), nullable=False),
        sa.Column("answered_at", sa.DateTime(), nullable=True),
        sa.Column("word", TEXT(), nullable=False),
        sa.ForeignKeyConstraint(["order_id"], ["shop_order.id"]),
        sa.ForeignKeyConstraint(["line_id"], ["order_line.id"]),
        sa.PrimaryKeyConstraint("id"),
    )
    op.create_index("ix_order_change_order_id", "order_change", ["order_id"])


def _what_goes_out() -> None:
    op.create_table(
        "promise",
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("order_id", sa.Integer(), nullable=False),
        sa.Column("due_on", sa.Date(), nullable=False),
        sa.Column("why", TEXT(), nullable=False),
        sa.Column("at", sa.DateTime(), nullable=False),
        sa.ForeignKeyConstraint(["order_id"], ["shop_order.id"]),
        sa.PrimaryKeyConstraint("id"),
    )
    op.create_table(
        "parcel",
        sa.Column("typed", sa.JSON(), nullable=False),
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("order_id", sa.Integer(), nullable=False),
        *(sa.Column(name, TEXT(), nullable=False) for name in ("number", "box")),
        *(sa.Column(name, sa.Float(), nullable=True) for name in ("box_g", "weight_g")),
        sa.Column("tracking", TEXT(), nullable=False),
        sa.Column("sent_on", sa.Date(), nullable=True),
        sa.ForeignKeyConstraint(["order_id"], ["shop_order.id"]),
        sa.PrimaryKeyConstraint("id"),
        sa.UniqueConstraint("number"),
    )
    op.create_table(
        "parcel_item",
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("parcel_id", sa.Integer(), nullable=False),
        *(sa.Column(name, sa.Integer(), nullable=True) for name in ("piece_id", "custody_id", "line_id")),
        sa.Column("count", sa.Integer(), nullable=False),
        sa.ForeignKeyConstraint(["parcel_id"], ["parcel.id"]),
        sa.ForeignKeyConstraint(["piece_id"], ["piece.id"]),
        sa.ForeignKeyConstraint(["custody_id"], ["custody.id"]),
        sa.ForeignKeyConstraint(["line_id"], ["order_line.id"]),
        sa.PrimaryKeyConstraint("id"),
        sa.UniqueConstraint("piece_id"),
    )
    op.create_table(
        "paper",
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("order_id", sa.Integer(), nullable=False),
        sa.Column("kind", TEXT(), nullable=False),
        sa.Column("n", sa.Integer(), nullable=False),
        sa.Column("number", TEXT(), nullable=False),
        sa.Column("issued_at", sa.DateTime(), nullable=False),
        sa.Column("cancels_id", sa.Integer(), nullable=True),
        *(sa.Column(name, TEXT(), nullable=False) for name in ("html", "digest")),
        sa.ForeignKeyConstraint(["order_id"], ["shop_order.id"]),
        sa.ForeignKeyConstraint(["cancels_id"], ["paper.id"]),
        sa.PrimaryKeyConstraint("id"),
        sa.UniqueConstraint("kind", "n"),
        sa.UniqueConstraint("number"),
        sa.UniqueConstraint("cancels_id"),
    )
    for way in ("UPDATE", "DELETE"):
        op.execute(
            f"CREATE TRIGGER paper_stays_{way.lower()} BEFORE {way} ON paper "
            "BEGIN SELECT RAISE(ABORT, 'an issued paper stays as it is'); END"
        )
    op.create_table(
        "message",
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("customer_id", sa.Integer(), nullable=False),
        sa.Column("order_id", sa.Integer(), nullable=True),
        *(sa.Column(name, TEXT(), nullable=False) for name in ("about", "address", "subject", "text", "state", "problem")),
        sa.Column("tries", sa.Integer(), nullable=False),
        sa.Column("mail_id", TEXT(), nullable=False),
        sa.Column("at", sa.DateTime(), nullable=False),
        sa.ForeignKeyConstraint(["customer_id"], ["customer.id"]),
        sa.ForeignKeyConstraint(["order_id"], ["shop_order.id"]),
        sa.PrimaryKeyConstraint("id"),
    )
    for table, names in {
        "promise": ("order_id",),
        "parcel": ("order_id",),
        "parcel_item": ("parcel_id", "line_id"),
        "paper": ("order_id",),
        "message": ("customer_id", "order_id", "mail_id"),
    }.items():
        for name in names:
            op.create_index(f"ix_{table}_{name}", table, [name])


def _log() -> None:
    """What the log says of what moved is said of the line, by the same hand at the same moment."""
    connection = op.get_bind()
    log = sa.table(
        "event",
        *(sa.column(name) for name in ("id", "act", "of", "of_id", "part", "row_id", "person_id", "at")),
        *(sa.column(name, sa.JSON(none_as_null=True)) for name in ("before", "after")),
    )
    told = connection.execute(sa.select(log).where(log.c.of == "order", log.c.part == "").order_by(log.c.id)).all()
    for row in told:
        halves = [_parted(half, row.row_id) for half in (row.before, row.after)]
        order, line = ([half[n] for half in halves] for n in (0, 1))
        if not order[0] and not order[1]:
            connection.execute(sa.delete(log).where(log.c.id == row.id))
        else:
            connection.execute(sa.update(log).where(log.c.id == row.id).values(before=order[0], after=order[1]))
        if line[0] or line[1]:
            connection.execute(
                sa.insert(log).values(
                    at=row.at, act=row.act, of="order", of_id=row.of_id, part="line", row_id=row.row_id,
                    person_id=row.person_id, before=line[0], after=line[1],
                )
            )


def _parted(values: dict | None, row_id: int) -> tuple[dict | None, dict | None]:
    """What of a half of an event is the order's, and what is its line's; of a whole row with all it has."""
    values = json.loads(values) if isinstance(values, str) else values
    if not values:
        return None, None
    is_whole = "customer_id" in values and "number" in values
    order = {k: v for k, v in values.items() if k not in (*MOVED, "title", "price_minor")}
    line = {k: v for k, v in values.items() if k in MOVED}
    if "price_minor" in values:
        line["lump_minor"] = values["price_minor"]
    if is_whole:
        line = {**NEW, "id": row_id, "order_id": row_id, **line}
    return order, line or None

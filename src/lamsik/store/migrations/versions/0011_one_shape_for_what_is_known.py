"""What was read of things weighed by themselves joins all that was seen; what is known of a customer is facts"""

import sqlalchemy as sa
import sqlmodel
from alembic import op

revision = "0011"
down_revision = "0010"

TEXT = sqlmodel.sql.sqltypes.AutoString
READ = "SELECT id, {at} AS nth, '{what}' AS what, {what}_g AS value, json_extract(typed, '$.{what}') AS text FROM weighed WHERE {what}_g IS NOT NULL"
MARKS = (
    "SELECT weighed.id, 9 + m.key AS nth, 'mark:' || json_extract(m.value, '$[0]') AS what, json_extract(m.value, '$[1]') AS value, NULL AS text "
    "FROM weighed, json_each(weighed.marks) AS m"
)


def upgrade() -> None:
    """Things keep their ids."""
    op.create_table(
        "thing",
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("name", TEXT(), nullable=False),
        sa.Column("search", TEXT(), nullable=False),
        sa.Column("kind", TEXT(), nullable=False),
        sa.Column("stage", TEXT(), nullable=False),
        sa.Column("float_id", sa.Integer(), nullable=True),
        sa.Column("at", sa.DateTime(), nullable=False),
        sa.Column("note", TEXT(), nullable=False),
        sa.Column("source", sa.JSON(), nullable=False),
        sa.Column("deleted_at", sa.DateTime(), nullable=True),
        sa.ForeignKeyConstraint(["float_id"], ["document.id"]),
        sa.PrimaryKeyConstraint("id"),
    )
    for name in ("search", "kind", "float_id"):
        op.create_index(f"ix_thing_{name}", "thing", [name])
    kept = "id, name, search, kind, stage, float_id, \"at\", note, source, deleted_at"
    op.execute(f"INSERT INTO thing ({kept}) SELECT {kept} FROM weighed")
    read = " UNION ALL ".join(READ.format(at=at, what=what) for at, what in enumerate(("air", "water", "sinker", "both")))
    op.execute(
        "INSERT INTO observation (typed, of, of_id, what, value, text, instrument_id, conditions, \"at\") "
        "SELECT CASE WHEN json_extract(w.typed, '$.temperature') IS NULL THEN '{}' "
        "ELSE json_object('temperature', json_extract(w.typed, '$.temperature')) END, "
        "'thing', w.id, seen.what, seen.value, coalesce(seen.text, ''), w.instrument_id, "
        "json_object('water', json(coalesce(w.water, '{}')), 'line_mm', w.line_mm, 'line_under_mm', w.line_under_mm), w.\"at\" "
        f"FROM ({read} UNION ALL {MARKS}) AS seen JOIN weighed AS w ON w.id = seen.id ORDER BY w.id, seen.nth"
    )
    op.drop_table("weighed")
    op.execute("ALTER TABLE customer ADD COLUMN facts JSON NOT NULL DEFAULT '{}'")
    op.execute("UPDATE customer SET facts = json_patch('{}', json_object('contact', nullif(contact, ''), 'note', nullif(note, '')))")
    for told in ("contact", "note"):
        op.execute(f"ALTER TABLE customer DROP COLUMN {told}")

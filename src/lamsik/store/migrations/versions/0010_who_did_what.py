"""Who did what: people, the event log; the route of a piece and what was done of its steps are data"""

import sqlalchemy as sa
import sqlmodel
from alembic import op

revision = "0010"
down_revision = "0009"

TEXT = sqlmodel.sql.sqltypes.AutoString
JSON_COLUMNS = {"typed", "conditions", "ticks", "plan", "castings", "weighed"}
OF_STEPS = ("id", "piece_id", "step", "begun_at", "done_at", "person_id", "note", "reason")
OF_SEEN = ("id", "typed", "of", "of_id", "what", "value", "spread", "text", "instrument_id", "conditions", "at", "person_id", "undone_at")
OF_PIECES = ("id", "number", "design_id", "revision_id", "order_id", "route_id", "started_at", "note", "pour_id", "cavity", "deleted_at")
OF_POURS = ("id", "typed", "made_id", "product_id", "shot", "purge", "step", "ticks", "plan", "castings", "at_c", "order_id", "at", "poured_at", "finished_at", "failed", "note")
OF_BATCHES = ("id", "typed", "product_id", "purpose", "mould_id", "made_id", "pour_id", "plan", "weighed", "at_c", "state", "at", "mixed_at", "note")
BEGINNINGS = (
    ("piece", "piece", "id", "", "started_at", OF_PIECES),
    ("piece_step", "piece", "piece_id", "step", "coalesce(done_at, begun_at)", OF_STEPS),
    ("observation", "piece", "of_id", "observed", "at", OF_SEEN),
    ("pour", "pour", "id", "", "at", OF_POURS),
    ("batch", "batch", "id", "", "at", OF_BATCHES),
)
"""Table, what its rows belong to, the column that names it, which part they are, when; their columns."""


def upgrade() -> None:
    """Tables; what there is of pieces, pours and batches begins its log with an event that holds its state."""
    op.create_table(
        "person",
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("name", TEXT(), nullable=False),
        sa.Column("gone_at", sa.DateTime(), nullable=True),
        sa.PrimaryKeyConstraint("id"),
    )
    op.create_table(
        "event",
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("at", sa.DateTime(), nullable=False),
        sa.Column("person_id", sa.Integer(), nullable=True),
        sa.Column("act", TEXT(), nullable=False),
        sa.Column("of", TEXT(), nullable=False),
        sa.Column("of_id", sa.Integer(), nullable=False),
        sa.Column("part", TEXT(), nullable=False),
        sa.Column("row_id", sa.Integer(), nullable=False),
        sa.Column("before", sa.JSON(), nullable=True),
        sa.Column("after", sa.JSON(), nullable=True),
        sa.ForeignKeyConstraint(["person_id"], ["person.id"]),
        sa.PrimaryKeyConstraint("id"),
    )
    op.create_index("event_of", "event", ["of", "of_id", "at", "id"])
    op.create_index("event_kind", "event", ["of", "at", "id"])
    op.create_index("event_by", "event", ["person_id", "at", "id"])
    op.create_index("event_when", "event", ["at", "id"])
    _routes()
    _observations()
    op.execute("UPDATE pour SET step = 'weigh' WHERE step = 'mix'")  # one step now
    for table, of, by, part, at, columns in BEGINNINGS:
        only = " WHERE of = 'piece'" if table == "observation" else ""
        op.execute(
            f'INSERT INTO event ("at", act, "of", of_id, part, row_id, "after") '
            f"SELECT {at}, '', '{of}', {by}, '{part}', id, json_object({_values(columns)}) FROM {table}{only} ORDER BY id"
        )


def _routes() -> None:
    op.create_table(
        "route",
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("digest", TEXT(), nullable=False),
        sa.Column("steps", sa.JSON(), nullable=False),
        sa.PrimaryKeyConstraint("id"),
        sa.UniqueConstraint("digest"),
    )
    op.rename_table("stepdone", "piece_step")
    op.drop_index("ix_stepdone_piece_id", "piece_step")
    with op.batch_alter_table("piece_step") as batch:
        batch.add_column(sa.Column("begun_at", sa.DateTime(), nullable=True))
        batch.add_column(sa.Column("person_id", sa.Integer(), nullable=True))
        batch.add_column(sa.Column("note", TEXT(), nullable=False, server_default=""))
        batch.alter_column("done_at", existing_type=sa.DateTime(), nullable=True)
        batch.create_foreign_key("step_by", "person", ["person_id"], ["id"])
    op.create_index("ix_piece_step_piece_id", "piece_step", ["piece_id"])
    op.create_index("step_running", "piece_step", ["piece_id"], sqlite_where=sa.text("done_at IS NULL"))
    # a table that others name is not made anew: its rows would count as gone for a moment
    op.execute("ALTER TABLE piece ADD COLUMN route_id INTEGER REFERENCES route (id)")
    op.create_index("ix_piece_route_id", "piece", ["route_id"])


def _observations() -> None:
    """Weighings, timed runs and towed runs into one table; the first keep their ids."""
    op.create_table(
        "observation",
        sa.Column("typed", sa.JSON(), nullable=False),
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("of", TEXT(), nullable=False),
        sa.Column("of_id", sa.Integer(), nullable=False),
        sa.Column("what", TEXT(), nullable=False),
        sa.Column("value", sa.Float(), nullable=False),
        sa.Column("spread", sa.Float(), nullable=True),
        sa.Column("text", TEXT(), nullable=False),
        sa.Column("instrument_id", sa.Integer(), nullable=True),
        sa.Column("conditions", sa.JSON(), nullable=False),
        sa.Column("at", sa.DateTime(), nullable=False),
        sa.Column("person_id", sa.Integer(), nullable=True),
        sa.Column("undone_at", sa.DateTime(), nullable=True),
        sa.ForeignKeyConstraint(["instrument_id"], ["instrument.id"]),
        sa.ForeignKeyConstraint(["person_id"], ["person.id"]),
        sa.PrimaryKeyConstraint("id"),
    )
    op.create_index("observation_of", "observation", ["of", "of_id", "what", "id"])
    op.create_index("observation_in_water", "observation", ["of_id"], sqlite_where=sa.text("what LIKE 'water:%'"))
    into = "INSERT INTO observation (id, typed, of, of_id, what, value, text, instrument_id, conditions, at, undone_at)"
    op.execute(
        f"{into} SELECT id, '{{}}', 'piece', piece_id, target, mass_g, text, instrument_id, "
        "CASE WHEN water IN ('{}', 'null') OR water IS NULL THEN '{}' ELSE json_object('water', json(water)) END, "
        '"at", undone_at FROM weighing'
    )
    op.execute(
        f"{into} SELECT NULL, coalesce(typed, '{{}}'), 'document', design_id, way, seconds, '', NULL, "
        "json_object('distance_m', distance_m, 'net_g', net_g), \"at\", undone_at FROM timedrun ORDER BY id"
    )
    towed = ("revision", "line_out_m", "speed_m_s", "line_mm", "rod_m", "lead_g", "pitch_deg", "note")
    pairs = ", ".join(f"'{name}', {name}" for name in towed)
    op.execute(
        f"{into} SELECT NULL, coalesce(typed, '{{}}'), 'document', design_id, 'tow', depth_m, '', NULL, "
        f'json_object({pairs}), "at", undone_at FROM towrun ORDER BY id'
    )
    for gone in ("weighing", "timedrun", "towrun"):
        op.drop_table(gone)


def _values(columns: tuple[str, ...]) -> str:
    return ", ".join(f"'{name}', {_value(name)}" for name in columns)


def _value(name: str) -> str:
    if name in JSON_COLUMNS:
        return f'json("{name}")'
    if name in ("purge", "failed"):
        return f"json(CASE WHEN \"{name}\" THEN 'true' ELSE 'false' END)"
    return f"replace(substr(\"{name}\", 1, 19), ' ', 'T') || '+00:00'" if name == "at" or name.endswith("_at") else f'"{name}"'

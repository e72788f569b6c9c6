"""The Tank at full depth: timed and towed runs; body documents say allowances, pours, cavities, trial weights and more"""

import json

import sqlalchemy as sa
import sqlmodel
from alembic import op

revision = "0002"
down_revision = "0001"

# What a document of version 2 says beside version 1, as it was when this step was written: never changed later.
ADDED = {"allowances": [], "pours": [], "cavities": [], "trials": [], "drag": None, "drag_source": "shop"}
ADDED_WITHIN = {
    "want": {"by": "speed", "net_percent": 2.0, "freeboard_mm": 4.0, "roll": "any", "pierced": False, "waters": []},
    "material": {"solid_g_cm3": None},
    "lip": {"square_deg": 0.0},
}


def upgrade() -> None:
    """Two tables, and every stored body revision one version up"""
    op.create_table(
        "timedrun",
        sa.Column("typed", sa.JSON(), nullable=False),
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("design_id", sa.Integer(), nullable=False),
        sa.Column("way", sqlmodel.sql.sqltypes.AutoString(), nullable=False),
        sa.Column("distance_m", sa.Float(), nullable=False),
        sa.Column("seconds", sa.Float(), nullable=False),
        sa.Column("net_g", sa.Float(), nullable=True),
        sa.Column("at", sqlmodel.sql.sqltypes.UTCDateTime(), nullable=False),
        sa.Column("undone_at", sqlmodel.sql.sqltypes.UTCDateTime(), nullable=True),
        sa.ForeignKeyConstraint(["design_id"], ["document.id"]),
        sa.PrimaryKeyConstraint("id"),
    )
    with op.batch_alter_table("timedrun", schema=None) as batch_op:
        batch_op.create_index(batch_op.f("ix_timedrun_design_id"), ["design_id"], unique=False)
    op.create_table(
        "towrun",
        sa.Column("typed", sa.JSON(), nullable=False),
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("design_id", sa.Integer(), nullable=False),
        sa.Column("revision", sa.Integer(), nullable=False),
        sa.Column("line_out_m", sa.Float(), nullable=False),
        sa.Column("speed_m_s", sa.Float(), nullable=False),
        sa.Column("line_mm", sa.Float(), nullable=False),
        sa.Column("rod_m", sa.Float(), nullable=False),
        sa.Column("depth_m", sa.Float(), nullable=False),
        sa.Column("note", sqlmodel.sql.sqltypes.AutoString(), nullable=False),
        sa.Column("at", sqlmodel.sql.sqltypes.UTCDateTime(), nullable=False),
        sa.Column("undone_at", sqlmodel.sql.sqltypes.UTCDateTime(), nullable=True),
        sa.ForeignKeyConstraint(["design_id"], ["document.id"]),
        sa.PrimaryKeyConstraint("id"),
    )
    with op.batch_alter_table("towrun", schema=None) as batch_op:
        batch_op.create_index(batch_op.f("ix_towrun_design_id"), ["design_id"], unique=False)
    _raise_documents(op.get_bind())


def _raise_documents(connection: sa.Connection) -> None:
    rows = connection.execute(sa.text("SELECT r.id, r.content FROM revision r JOIN document d ON d.id = r.document_id WHERE d.kind = 'body'")).all()
    for key, content in rows:
        document = json.loads(content)
        if document.get("version") != 1:
            continue
        document = {**ADDED, **document, "version": 2}
        for name, added in ADDED_WITHIN.items():
            if isinstance(document.get(name), dict):
                document[name] = {**added, **document[name]}
        connection.execute(sa.text("UPDATE revision SET content = :content WHERE id = :id"), {"content": json.dumps(document), "id": key})


def downgrade() -> None:
    """Going back is done from a backup."""
    raise RuntimeError("restore a backup instead")

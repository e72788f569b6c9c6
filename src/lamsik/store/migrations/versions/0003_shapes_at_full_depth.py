"""Shapes at full depth: meshes, tracings, families, sizes of hardware; body documents say joints, segments, shell, source and more"""

import json

import sqlalchemy as sa
import sqlmodel
from alembic import op

revision = "0003"
down_revision = "0002"

# What a document of version 3 says beside version 2, as it was when this step was written: never changed later.
ADDED = {"joints": [], "segments": [], "shell": None, "source": {"kind": "own", "note": ""}}
ADDED_WITHIN = {"body": {"widest_shares": None, "turned": False, "mesh": None}, "lip": {"outline": "round"}}
ADDED_TO_ROWS = {
    "hardware": {"material": "steel", "wire_mm": 0.0, "shank_mm": 0.0, "bore_mm": 0.0, "up_mm": None},
    "pours": {"tilt_deg": 0.0},
}


def upgrade() -> None:
    """Three tables, new columns of hardware, and every stored body revision one version up"""
    op.create_table(
        "skinmesh",
        sa.Column("digest", sqlmodel.sql.sqltypes.AutoString(), nullable=False),
        sa.Column("name", sqlmodel.sql.sqltypes.AutoString(), nullable=False),
        sa.Column("faces", sa.Integer(), nullable=False),
        sa.Column("data", sa.LargeBinary(), nullable=False),
        sa.PrimaryKeyConstraint("digest"),
    )
    op.create_table(
        "tracing",
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("name", sqlmodel.sql.sqltypes.AutoString(), nullable=False),
        sa.Column("picture", sa.LargeBinary(), nullable=False),
        sa.Column("width_px", sa.Integer(), nullable=False),
        sa.Column("height_px", sa.Integer(), nullable=False),
        sa.Column("state", sa.JSON(), nullable=False),
        sa.Column("at", sqlmodel.sql.sqltypes.UTCDateTime(), nullable=False),
        sa.PrimaryKeyConstraint("id"),
    )
    op.create_table(
        "family",
        sa.Column("design_id", sa.Integer(), nullable=False),
        sa.Column("lengths_mm", sa.JSON(), nullable=False),
        sa.Column("materials", sa.JSON(), nullable=False),
        sa.Column("excluded", sa.JSON(), nullable=False),
        sa.ForeignKeyConstraint(["design_id"], ["document.id"]),
        sa.PrimaryKeyConstraint("design_id"),
    )
    with op.batch_alter_table("revision", schema=None) as batch_op:
        batch_op.add_column(sa.Column("name", sqlmodel.sql.sqltypes.AutoString(), nullable=False, server_default=""))
    with op.batch_alter_table("hardware", schema=None) as batch_op:
        batch_op.add_column(sa.Column("material", sqlmodel.sql.sqltypes.AutoString(), nullable=False, server_default="steel"))
        batch_op.add_column(sa.Column("wire_mm", sa.Float(), nullable=False, server_default="0"))
        batch_op.add_column(sa.Column("shank_mm", sa.Float(), nullable=False, server_default="0"))
        batch_op.add_column(sa.Column("bore_mm", sa.Float(), nullable=False, server_default="0"))
        batch_op.add_column(sa.Column("outline", sqlmodel.sql.sqltypes.AutoString(), nullable=False, server_default="round"))
        batch_op.add_column(sa.Column("pack_count", sa.Integer(), nullable=False, server_default="0"))
        batch_op.add_column(sa.Column("weighed_count", sa.Integer(), nullable=False, server_default="0"))
    _size_parts(op.get_bind())
    _raise_documents(op.get_bind())


# Screw eyes of the first stock, by the code they were given: shank diameter and length [mm].
SHANKS = {"tie-s": (0.9, 16.0), "tie-m": (1.2, 22.0), "hgr-s": (0.9, 13.0), "hgr-m": (1.2, 18.0), "wire-1": (1.0, 0.0)}


def _size_parts(connection: sa.Connection) -> None:
    for code, (wire, shank) in SHANKS.items():
        connection.execute(sa.text("UPDATE hardware SET wire_mm = :w, shank_mm = :s WHERE code = :c"), {"w": wire, "s": shank, "c": code})


def _raise_documents(connection: sa.Connection) -> None:
    rows = connection.execute(sa.text("SELECT r.id, r.content FROM revision r JOIN document d ON d.id = r.document_id WHERE d.kind = 'body'")).all()
    for key, content in rows:
        document = json.loads(content)
        if document.get("version") != 2:
            continue
        document = {**ADDED, **document, "version": 3}
        for name, added in ADDED_WITHIN.items():
            if isinstance(document.get(name), dict):
                document[name] = {**added, **document[name]}
        for name, added in ADDED_TO_ROWS.items():
            document[name] = [{**added, **row} for row in document[name]]
        connection.execute(sa.text("UPDATE revision SET content = :content WHERE id = :id"), {"content": json.dumps(document), "id": key})


def downgrade() -> None:
    """Going back is done from a backup."""
    raise RuntimeError("restore a backup instead")

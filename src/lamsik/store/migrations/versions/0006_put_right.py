"""Put right: ballast balls come whole; a weighed thing has a source, a skipped step its reason, a blank its weighing in water, a run its lead and its pitch"""

import json
from math import pi

import sqlalchemy as sa
import sqlmodel
from alembic import op

revision = "0006"
down_revision = "0005"


def upgrade() -> None:
    """Five columns; balls in stored bodies whole"""
    op.add_column("weighed", sa.Column("source", sa.JSON(), nullable=False, server_default="{}"))
    op.add_column("weighing", sa.Column("water", sa.JSON(), nullable=False, server_default="{}"))
    op.add_column("stepdone", sa.Column("reason", sqlmodel.sql.sqltypes.AutoString(), nullable=False, server_default=""))
    op.add_column("towrun", sa.Column("lead_g", sa.Float(), nullable=False, server_default="0"))
    op.add_column("towrun", sa.Column("pitch_deg", sa.Float(), nullable=True))
    _whole_balls()


def _whole_balls() -> None:
    """A stack of balls whose mass was no whole number of them is the nearest that is: that is what was drawn."""
    connection = op.get_bind()
    rows = connection.execute(sa.text("SELECT revision.id, content FROM revision JOIN document ON document.id = document_id WHERE kind = 'body'")).all()
    for key, text in rows:
        content = json.loads(text)
        changed = False
        for hole in content.get("ballast", []):
            slug = hole.get("slug", {})
            if slug.get("form") != "ball" or not hole.get("mass_g"):
                continue
            each = pi * slug["diameter_mm"] ** 3 / 6 * slug["density_g_cm3"] / 1000.0
            whole = max(round(hole["mass_g"] / each), 1) * each
            if abs(hole["mass_g"] - whole) > max(0.02 * whole, 0.006):
                hole["mass_g"], changed = round(whole, 4), True
        if changed:
            connection.execute(sa.text("UPDATE revision SET content = :content WHERE id = :key"), {"content": json.dumps(content), "key": key})

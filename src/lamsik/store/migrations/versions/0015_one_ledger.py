"""One ledger of what there is: items, lots, movements; suppliers, machines; tubs are lots of it"""

import json
import unicodedata
from datetime import UTC, datetime

import sqlalchemy as sa
import sqlmodel
from alembic import op

revision = "0015"
down_revision = "0014"

TEXT = sqlmodel.sql.sqltypes.AutoString
KEPT = (
    "typed",
    "id",
    "product_id",
    "part",
    "lot",
    "opened_on",
    "expires_on",
    "stirred_at",
    "colour",
    "heats",
    "note",
    "at",
    "gone_at",
)
"""What a tub said and its lot says now; the rest are movements."""
GONE = ("left_g", "received_g", "price_minor")


def texts(*names):
    return [sa.Column(name, TEXT(), nullable=False) for name in names]


def wholes(*names, needed=False):
    return [sa.Column(name, sa.Integer(), nullable=not needed) for name in names]


def floats(*names, needed=True):
    return [sa.Column(name, sa.Float(), nullable=not needed) for name in names]


def moments(*names, needed=False):
    return [sa.Column(name, sa.DateTime(), nullable=not needed) for name in names]


def table(name, *columns, **links):
    op.create_table(
        name,
        sa.Column("id", sa.Integer(), nullable=False),
        *columns,
        *(sa.ForeignKeyConstraint([column], [to]) for column, to in links.items()),
        sa.PrimaryKeyConstraint("id"),
    )


def upgrade() -> None:
    """What the shop had is in the ledger, with the same sums"""
    _tables()
    bind, now = op.get_bind(), datetime.now(UTC).replace(microsecond=0, tzinfo=None)
    for of, kind, unit, pack, query in (
        ("hardware", "part", "'piece'", "pack_count", "SELECT id, name, {unit}, {pack} FROM hardware"),
        ("slug", "metal", "CASE form WHEN 'ball' THEN 'piece' ELSE 'g' END", "0", "SELECT id, name, {unit}, {pack} FROM slugstock"),
        ("stencil", "stencil", "'piece'", "0", "SELECT id, name, {unit}, {pack} FROM paint_tool"),
        ("drill", "drill", "'piece'", "0", "SELECT id, coalesce(json_extract(typed, '$.diameter'), CASE WHEN diameter_mm = CAST(diameter_mm AS INTEGER) THEN CAST(CAST(diameter_mm AS INTEGER) AS TEXT) ELSE CAST(diameter_mm AS TEXT) END || ' mm'), {unit}, {pack} FROM drill"),
    ):  # fmt: skip
        for key, name, its_unit, its_pack in bind.execute(sa.text(query.format(unit=unit, pack=pack))).fetchall():
            called = f"Drill {name}" if of == "drill" else name
            item = _item(bind, kind, called, its_unit, of, key, "", its_pack or 0)
            if of in ("drill", "stencil"):
                _moved(bind, item, None, 1.0, "counted", now, counted=1.0)
    _tubs(bind, now)
    _log(bind)
    op.execute("DROP TABLE tub")
    op.execute("ALTER TABLE order_line ADD COLUMN swaps JSON NOT NULL DEFAULT '{}'")
    op.execute(
        "UPDATE event SET after = json_set(after, '$.swaps', json('{}')) WHERE of = 'order' AND part = 'line' "
        "AND json_type(after) = 'object' AND (before IS NULL OR before = 'null')"
    )


def _tables():
    table("supplier", *texts("name", "search", "reach"), *wholes("lead_days"), *texts("note"), *moments("deleted_at"), sa.UniqueConstraint("name"))
    op.create_index("ix_supplier_search", "supplier", ["search"])
    table(
        "item",
        sa.Column("typed", sa.JSON(), nullable=False),
        *texts("number", "kind", "name", "search", "unit", "of"),
        *wholes("of_id"),
        *texts("part"),
        *floats("pack", "minimum", "each_piece"),
        *wholes("uses", needed=True),
        *texts("place"),
        *wholes("supplier_id", "price_minor"),
        *texts("currency"),
        *floats("tax_percent", "density_g_cm3", needed=False),
        *texts("material", "note"),
        *moments("deleted_at"),
        sa.UniqueConstraint("of", "of_id", "part"),
        supplier_id="supplier.id",
    )
    for name in ("number", "kind", "supplier_id", "material"):
        op.create_index(f"ix_item_{name}", "item", [name])
    op.create_index("item_by_name", "item", ["search", "id"], sqlite_where=sa.text("deleted_at IS NULL"))
    table(
        "lot",
        sa.Column("typed", sa.JSON(), nullable=False),
        *wholes("item_id", needed=True),
        *wholes("product_id"),
        *texts("part", "lot", "place"),
        *(sa.Column(name, sa.Date(), nullable=True) for name in ("opened_on", "expires_on")),
        *moments("stirred_at"),
        *texts("colour"),
        *wholes("heats", needed=True),
        *texts("note"),
        *moments("at", needed=True),
        *moments("gone_at"),
        item_id="item.id",
        product_id="document.id",
    )
    for name in ("item_id", "product_id"):
        op.create_index(f"ix_lot_{name}", "lot", [name])
    table(
        "movement",
        *wholes("item_id", needed=True),
        *wholes("lot_id"),
        *floats("amount"),
        *texts("why"),
        *floats("counted", needed=False),
        *moments("at", needed=True),
        *wholes("person_id"),
        *texts("of"),
        *wholes("of_id", "price_minor"),
        *texts("currency"),
        *wholes("supplier_id"),
        sa.Column("ordered_on", sa.Date(), nullable=True),
        *texts("note"),
        *moments("undone_at"),
        item_id="item.id",
        lot_id="lot.id",
        person_id="person.id",
        supplier_id="supplier.id",
    )
    op.create_index("movement_sum", "movement", ["item_id", "undone_at", "amount"])
    op.create_index("movement_of", "movement", ["of", "of_id"])
    op.create_index("movement_of_lot", "movement", ["lot_id", "undone_at", "amount"])
    op.create_index("ix_movement_supplier_id", "movement", ["supplier_id"])
    _beside()


def _beside():
    table(
        "stand_in",
        *wholes("item_id", "other_id", needed=True),
        *texts("note"),
        sa.UniqueConstraint("item_id", "other_id"),
        item_id="item.id",
        other_id="item.id",
    )
    op.create_index("ix_stand_in_other_id", "stand_in", ["other_id"])
    table(
        "need",
        *wholes("revision_id", needed=True),
        *texts("of", "key", "name"),
        *floats("amount"),
        *texts("unit", "step"),
        revision_id="revision.id",
    )
    op.create_index("ix_need_revision_id", "need", ["revision_id"])
    table(
        "machine",
        *texts("name", "state"),
        *moments("since", needed=True),
        sa.Column("steps", sa.JSON(), nullable=False),
        *texts("fallback", "note"),
        sa.UniqueConstraint("name"),
    )
    table(
        "incident",
        *wholes("supplier_id", needed=True),
        *wholes("lot_id"),
        *texts("text", "outcome"),
        *moments("at", needed=True),
        supplier_id="supplier.id",
        lot_id="lot.id",
    )
    op.create_index("ix_incident_supplier_id", "incident", ["supplier_id"])


def _folded(text):
    kept = (char for char in unicodedata.normalize("NFKD", text.casefold()) if not unicodedata.combining(char))
    return " ".join("".join(kept).split())


def _item(bind, kind, name, unit, of, of_id, part, pack):
    bind.execute(
        sa.text(
            "INSERT INTO item (typed, number, kind, name, search, unit, of, of_id, part, pack, minimum, each_piece, uses, "
            "place, currency, material, note) VALUES ('{}', '', :kind, :name, '', :unit, :of, :of_id, :part, :pack, "
            "0, 0, 0, '', '', '', '')"
        ),
        {"kind": kind, "name": name, "unit": unit, "of": of, "of_id": of_id, "part": part, "pack": float(pack)},
    )
    key = bind.execute(sa.text("SELECT last_insert_rowid()")).scalar_one()
    bind.execute(
        sa.text("UPDATE item SET number = :number, search = :search WHERE id = :key"),
        {"number": f"S{key:04d}", "search": f"{_folded(name)} s{key:04d}", "key": key},
    )
    return key


def _moved(bind, item, lot, amount, why, at, **more):
    values = {"item_id": item, "lot_id": lot, "amount": amount, "why": why, "at": at, "of": "", "currency": "", "note": ""}
    values |= more
    names = ", ".join(values)
    bind.execute(
        sa.text(f"INSERT INTO movement ({names}) VALUES ({', '.join(f':{name}' for name in values)})"), values
    )


def _tubs(bind, now):
    weighed = {}
    for key, lines, at in bind.execute(
        sa.text("SELECT id, weighed, at FROM batch WHERE state NOT IN ('', 'dropped')")
    ).fetchall():
        for line in json.loads(lines):
            if line.get("tub"):
                weighed.setdefault(line["tub"], []).append((key, float(line["grams"]), at))
    items, columns = {}, ", ".join(KEPT)
    for tub in bind.execute(
        sa.text(
            "SELECT tub.id, product_id, part, received_g, left_g, price_minor, tub.at, gone_at, document.name AS name "
            "FROM tub JOIN document ON document.id = product_id ORDER BY tub.id"
        )
    ).fetchall():
        mine = tub.product_id, tub.part
        if mine not in items:
            items[mine] = _item(bind, "compound", f"{tub.name}, {tub.part}", "g", "product", tub.product_id, tub.part, 0)
        item = items[mine]
        bind.execute(
            sa.text(f"INSERT INTO lot (item_id, place, {columns}) SELECT {item}, '', {columns} FROM tub WHERE id = :key"),
            {"key": tub.id},
        )
        _moved(bind, item, tub.id, tub.received_g, "bought", tub.at, price_minor=tub.price_minor)
        used = weighed.get(tub.id, [])
        for batch, grams, at in used:
            _moved(bind, item, tub.id, -grams, "used", at, of="batch", of_id=batch)
        differs = tub.left_g - tub.received_g + sum(grams for _, grams, _ in used)
        if abs(differs) > 1e-9:
            _moved(bind, item, tub.id, differs, "corrected", now, note="as the tub was counted")
        if tub.gone_at and tub.left_g > 0:
            _moved(bind, item, tub.id, -tub.left_g, "wasted", tub.gone_at, note="gone")


def _log(bind):
    """What the log says of a tub it says of its lot, less what its movements say."""
    log = sa.table(
        "event",
        *(sa.column(name) for name in ("id", "of", "of_id", "part", "row_id")),
        *(sa.column(name, sa.JSON(none_as_null=True)) for name in ("before", "after")),
    )
    items = dict(bind.execute(sa.text("SELECT id, item_id FROM lot")).fetchall())
    for row in bind.execute(sa.select(log).where(log.c.of == "item", log.c.part == "tub")).fetchall():
        before, after = (
            None if half is None else {name: value for name, value in half.items() if name not in GONE}
            for half in (row.before, row.after)
        )
        if not before and not after:
            bind.execute(sa.delete(log).where(log.c.id == row.id))
            continue
        for half, other in ((before, after), (after, before)):
            if half is not None and other is None:
                half |= {"item_id": items.get(row.row_id, 0), "place": ""}
            elif half is not None and row.row_id in items and "lot" not in half:
                half["lot"] = bind.execute(sa.text("SELECT lot FROM lot WHERE id = :key"), {"key": row.row_id}).scalar_one()
        bind.execute(
            sa.update(log)
            .where(log.c.id == row.id)
            .values(of="stock", of_id=items.get(row.row_id, 0), part="lot", before=before, after=after)
        )

"""Alembic's entry: runs on the connection that `store.database.migrate` hands over."""

from alembic import context
from sqlmodel import SQLModel

from lamsik.store import tables

connection = context.config.attributes["connection"]
context.configure(
    connection=connection,
    target_metadata=SQLModel.metadata,
    render_as_batch=True,
    transaction_per_migration=True,
    transactional_ddl=True,
)
assert tables.Document.__tablename__ in SQLModel.metadata.tables
with context.begin_transaction():
    context.run_migrations()

"""Run by Alembic with the connection handed over in ``fahrtwind.store.database.migrate``."""

from alembic import context

from fahrtwind.store.tables import Base

connection = context.config.attributes["connection"]
context.configure(connection=connection, target_metadata=Base.metadata, render_as_batch=True)
with context.begin_transaction():
    context.run_migrations()

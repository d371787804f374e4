"""Alembic's entry: migrations run over the URL that they are given."""

from alembic import context
from sqlalchemy import create_engine

from rillstep.store.models import Base

url = context.config.get_main_option("sqlalchemy.url")
assert url is not None
with create_engine(url).connect() as connection:
    context.configure(connection=connection, target_metadata=Base.metadata, compare_type=True)
    with context.begin_transaction():
        context.run_migrations()
    connection.commit()

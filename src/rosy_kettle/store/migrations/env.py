"""Alembic's entry: runs migrations on the engine it is handed, all of them in one transaction, foreign keys off meanwhile."""

from __future__ import annotations

from alembic import context

from rosy_kettle.store import formulas, ingredients, profiles
from rosy_kettle.store.base import Base

TABLE_MODULES = (formulas, ingredients, profiles)  # importing them fills Base.metadata

engine = context.config.attributes["engine"]
with engine.connect() as connection:
    # A rebuilt parent table would take its children with it through ON DELETE CASCADE.
    connection.exec_driver_sql("PRAGMA foreign_keys=OFF")
    dangling = set(connection.exec_driver_sql("PRAGMA foreign_key_check").fetchall())
    connection.rollback()
    # SQLite's DDL rolls back where the driver opens no transaction of its own, so a kill leaves all steps done or none.
    context.configure(connection=connection, target_metadata=Base.metadata, render_as_batch=True, transactional_ddl=True)
    with context.begin_transaction():
        context.run_migrations()
        broken = set(connection.exec_driver_sql("PRAGMA foreign_key_check").fetchall()) - dangling
        if broken:
            raise RuntimeError(f"the migration left dangling rows: {sorted(broken)[:3]}")
    connection.commit()
    connection.exec_driver_sql("PRAGMA foreign_keys=ON")

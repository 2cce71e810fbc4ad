"""Opening the database: WAL, foreign keys, full sync, migrations run at start."""

from __future__ import annotations

from pathlib import Path
from typing import Any

from alembic import command
from alembic.config import Config
from sqlalchemy import Connection, Engine, create_engine, event

MIGRATIONS = Path(__file__).parent / "migrations"
BUSY_MS = 5000


def open_database(path: Path) -> Engine:
    """Open (or create) the database at ``path`` and bring it to the newest version."""
    path.parent.mkdir(parents=True, exist_ok=True)
    engine = create_engine(f"sqlite:///{path}")

    @event.listens_for(engine, "connect")
    def _prepare(connection: Any, _record: Any) -> None:
        connection.isolation_level = None  # transactions are begun below, so that a write takes its lock at once
        for pragma in ("journal_mode=WAL", "foreign_keys=ON", "synchronous=FULL", f"busy_timeout={BUSY_MS}"):
            connection.execute(f"PRAGMA {pragma}")

    @event.listens_for(engine, "begin")
    def _begin(connection: Connection) -> None:
        writes = connection.get_execution_options().get("writes", False)
        connection.exec_driver_sql("BEGIN IMMEDIATE" if writes else "BEGIN")

    migrate(engine)
    return engine


def migrate(engine: Engine, target: str = "head") -> None:
    config = Config()
    config.set_main_option("script_location", str(MIGRATIONS))
    with engine.execution_options(writes=True).begin() as connection:
        config.attributes["connection"] = connection
        command.upgrade(config, target)

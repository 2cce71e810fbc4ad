"""Opening the database: WAL, foreign keys, full sync, migrations run at start. Copying it while it is in
use.
"""

from __future__ import annotations

import os
import sqlite3
from pathlib import Path
from typing import Any

from sqlalchemy import URL, Connection, Engine, create_engine, event, inspect, text
from sqlalchemy.exc import DatabaseError

from fahrtwind.core.errors import Unavailable, UnreadableFile
from fahrtwind.store.tables import Base

MIGRATIONS = Path(__file__).parent / "migrations"
BUSY_MS = 5000
TROUBLE = (
    ("locked", "The database is busy.", "Nothing was stored. Wait a moment and try again."),
    ("busy", "The database is busy.", "Nothing was stored. Wait a moment and try again."),
    ("full", "The disk is full.", "Nothing was stored. Make room, then try again."),
    (
        "readonly",
        "The database may only be read.",
        "Nothing was stored. Give this user the right to write it and its folder.",
    ),
    ("unable to open", "The database cannot be opened.", "Check the path and the rights of its folder."),
    ("malformed", "The database is damaged.", "Nothing was stored. Take the last backup."),
    (
        "not a database",
        "The file is no database of Fahrtwind.",
        "Choose another file, or take the last backup.",
    ),
)


def trouble(error: DatabaseError | sqlite3.Error) -> tuple[str, str]:
    """What is wrong with the database and what to do, in one sentence each."""
    said = str(getattr(error, "orig", error))
    found = next(((problem, remedy) for word, problem, remedy in TROUBLE if word in said), None)
    return found or (
        "The database does not answer.",
        "Nothing was stored. Try again, then take the last backup.",
    )


def open_database(path: Path) -> Engine:
    """Open (or create) the database at ``path`` and bring it to the newest version.

    Raises Unavailable, in words, where it is damaged, locked, read-only or cannot be created.
    """
    try:
        path.parent.mkdir(parents=True, exist_ok=True)
    except OSError as error:
        raise Unavailable(
            f"{path.parent} cannot be made ({error.strerror}).",
            remedy="Choose another place with --database.",
            field="database",
        ) from error
    engine = create_engine(URL.create("sqlite", database=str(path)))

    @event.listens_for(engine, "connect")
    def _prepare(connection: Any, _record: Any) -> None:
        connection.isolation_level = (
            None  # transactions are begun below, so that a write takes its lock at once
        )
        for pragma in (f"busy_timeout={BUSY_MS}", "journal_mode=WAL", "foreign_keys=ON", "synchronous=FULL"):
            connection.execute(f"PRAGMA {pragma}")

    @event.listens_for(engine, "begin")
    def _begin(connection: Connection) -> None:
        writes = connection.get_execution_options().get("writes", False)
        connection.exec_driver_sql("BEGIN IMMEDIATE" if writes else "BEGIN")

    try:
        version = _version(engine)
        if version is None:
            _begin_empty(engine)
        elif version != newest_version():
            migrate(engine)
    except DatabaseError as error:
        problem, remedy = trouble(error)
        raise Unavailable(f"{path}: {problem}", remedy=remedy, field="database") from error
    return engine


def newest_version() -> str:
    """The version that the last migration brings: its file's name begins with it."""
    return max(path.name for path in (MIGRATIONS / "versions").glob("[0-9]*.py"))[:4]


def _version(engine: Engine) -> str | None:
    """The version of a database, None for a new one. Asked as a writer, so that one that is locked or may
    only be read is told at once.
    """
    with engine.execution_options(writes=True).begin() as connection:
        if not inspect(connection).has_table("alembic_version"):
            return None
        return connection.execute(text("SELECT version_num FROM alembic_version")).scalar()


def _begin_empty(engine: Engine) -> None:
    """The tables as they are now, in a database that has none; a test holds them against the migrations."""
    with engine.execution_options(writes=True).begin() as connection:
        Base.metadata.create_all(connection)
        connection.exec_driver_sql(
            "CREATE TABLE alembic_version (version_num VARCHAR(32) NOT NULL, "
            "CONSTRAINT alembic_version_pkc PRIMARY KEY (version_num))"
        )
        connection.execute(text("INSERT INTO alembic_version VALUES (:v)"), {"v": newest_version()})


def migrate(engine: Engine, target: str = "head") -> None:
    """Bring a database to a version, the newest by default."""
    from alembic import command  # loaded late: it takes a third of a second and most starts need none of it
    from alembic.config import Config

    config = Config()
    config.set_main_option("script_location", str(MIGRATIONS).replace("%", "%%"))
    with engine.execution_options(writes=True).begin() as connection:
        config.attributes["connection"] = connection
        command.upgrade(config, target)


def backup(source: Path, target: Path) -> None:
    """A consistent, checked copy of a database that may be in use. Nothing stands at ``target`` until the
    copy is whole.

    Raises UnreadableFile where the source is missing or the target is there, Unavailable where the copy
    fails.
    """
    if not source.is_file():
        raise UnreadableFile(
            f"There is no database at {source}.", remedy="Name it with --database.", field="database"
        )
    if target.exists():
        raise UnreadableFile(f"{target} is there already.", remedy="Choose another name.", field="target")
    aside = target.with_name(f"{target.name}.part-{os.getpid()}")
    try:
        _copy(source, aside)
        aside.rename(target)
    except sqlite3.Error as error:
        problem, remedy = trouble(error)
        raise Unavailable(f"{source}: {problem}", remedy=remedy, field="database") from error
    except OSError as error:
        raise UnreadableFile(
            f"{target} cannot be written ({error.strerror}).", remedy="Choose another place.", field="target"
        ) from error
    finally:
        aside.unlink(missing_ok=True)


def _copy(source: Path, aside: Path) -> None:
    aside.parent.mkdir(parents=True, exist_ok=True)
    connection = sqlite3.connect(source, timeout=BUSY_MS / 1000)
    try:
        connection.execute("VACUUM INTO ?", (str(aside),))
    finally:
        connection.close()
    copy = sqlite3.connect(aside)
    try:
        if copy.execute("PRAGMA integrity_check").fetchone()[0] != "ok":
            raise sqlite3.DatabaseError("malformed")
        copy.execute("SELECT count(*) FROM revisions").fetchone()
    finally:
        copy.close()

"""Revisions, undo, conflicts, crash, migrations, backup."""

from __future__ import annotations

import json
import os
import signal
import sqlite3
import subprocess
import sys
import textwrap
from datetime import datetime, timedelta
from pathlib import Path
from typing import Any

import pytest
from sqlalchemy import Engine, create_engine, inspect

from fahrtwind.core.edits import SetValue
from fahrtwind.core.errors import Conflict, InputError, NotFound
from fahrtwind.core.job.document import Job
from fahrtwind.store.database import backup, migrate, newest_version, open_database
from fahrtwind.store.jobs import Change, JobStore


class Clock:
    def __init__(self) -> None:
        self.now = datetime(2026, 5, 1, 9, 0)

    def __call__(self) -> datetime:
        self.now += timedelta(minutes=1)
        return self.now


@pytest.fixture
def store(database: Path) -> JobStore:
    return JobStore(open_database(database), Clock())


def name(value: str) -> list:  # type: ignore[type-arg]
    return [SetValue(path="name", value=value)]


def change(revision: int, edit_id: str = "", client: str = "me") -> Change:
    return Change(revision, client, edit_id or f"edit {revision}")


def test_undo_and_redo_walk_the_whole_history_as_new_revisions(store: JobStore, demo: Job) -> None:
    job = store.create(demo, "me")
    for i, word in enumerate("abc", start=1):
        store.edit(job.id, change(i), name(word))
    seen = [store.undo(job.id, change(4 + i)).job.name for i in range(3)]
    assert seen == ["b", "a", demo.name]
    with pytest.raises(NotFound):
        store.undo(job.id, change(7))
    seen = [store.redo(job.id, change(7 + i)).job.name for i in range(3)]
    assert seen == ["a", "b", "c"]
    assert not store.get(job.id).can_redo
    store.undo(job.id, change(10))
    branched = store.edit(job.id, change(11), name("d"))
    assert not branched.can_redo and store.undo(job.id, change(12)).job.name == "b"


def test_quick_changes_of_one_field_undo_as_one(store: JobStore, demo: Job) -> None:
    clock = store._now
    job = store.create(demo, "me")
    for i, x in enumerate((240, 241, 242), start=1):
        clock.now -= timedelta(seconds=59.5)  # type: ignore[attr-defined]
        store.edit(job.id, change(i), [SetValue(path="panels.p1.x", value={"mm": x})])
    assert store.undo(job.id, change(4)).job.panels[0].x.mm == 230


def test_the_slower_window_is_told_and_nothing_is_overwritten(store: JobStore, demo: Job) -> None:
    job = store.create(demo, "first")
    store.edit(job.id, change(1, client="first"), name("by the first"))
    with pytest.raises(Conflict) as caught:
        store.edit(job.id, change(1, "other", client="second"), name("by the second"))
    assert (caught.value.current_revision, caught.value.changed_by) == (2, "first")
    assert store.get(job.id).job.name == "by the first"
    assert (
        store.edit(job.id, change(2, "other", client="second"), name("taken over")).job.name == "taken over"
    )


def test_the_same_edit_sent_twice_counts_once(store: JobStore, demo: Job) -> None:
    job = store.create(demo, "me")
    store.edit(job.id, change(1, "same"), name("once"))
    again = store.edit(job.id, change(1, "same"), name("once"))
    assert again.revision == 2


def test_a_refused_edit_leaves_the_stored_job_as_it_was(store: JobStore, demo: Job) -> None:
    job = store.create(demo, "me")
    with pytest.raises(InputError):
        store.edit(
            job.id,
            change(1),
            [SetValue(path="name", value="x"), SetValue(path="panels.p1.x", value="far away")],
        )
    assert store.get(job.id).job == demo and store.get(job.id).revision == 1


def test_removed_jobs_leave_the_list(store: JobStore, demo: Job) -> None:
    job = store.create(demo, "me")
    store.remove(job.id)
    assert store.summaries() == []
    with pytest.raises(NotFound):
        store.get(job.id)


def test_database_is_kept_as_promised(database: Path, demo: Job) -> None:
    engine = open_database(database)
    JobStore(engine).create(demo, "me")
    with engine.connect() as connection:
        read = {
            p: connection.exec_driver_sql(f"PRAGMA {p}").scalar()
            for p in ("journal_mode", "foreign_keys", "synchronous")
        }
    assert read == {"journal_mode": "wal", "foreign_keys": 1, "synchronous": 2}
    copy = database.with_name("copy.db")
    backup(database, copy)
    assert JobStore(open_database(copy)).summaries()[0].name == demo.name


def test_an_empty_file_and_a_database_of_the_first_version_are_brought_up(database: Path, demo: Job) -> None:
    raw = sqlite3.connect(database)
    raw.executescript(
        "CREATE TABLE jobs (id VARCHAR(24) PRIMARY KEY, head INTEGER NOT NULL, created_at DATETIME "
        "NOT NULL, removed_at DATETIME);"
        "CREATE TABLE revisions (job_id VARCHAR(24) REFERENCES jobs(id), number INTEGER, document "
        "TEXT NOT NULL, summary VARCHAR(200)"
        " NOT NULL, client VARCHAR(60) NOT NULL, edit_id VARCHAR(60) NOT NULL, merge_key "
        "VARCHAR(200) NOT NULL, at DATETIME NOT NULL,"
        " back_to INTEGER, forward_to INTEGER, PRIMARY KEY (job_id, number));"
        "CREATE UNIQUE INDEX one_revision_per_edit ON revisions (job_id, edit_id);"
        "CREATE TABLE alembic_version (version_num VARCHAR(32) PRIMARY KEY); INSERT INTO "
        "alembic_version VALUES ('0001');"
        "INSERT INTO jobs VALUES ('old', 1, '2026-01-01 00:00:00', NULL);"
    )
    raw.execute(
        "INSERT INTO revisions VALUES ('old', 1, ?, 's', 'c', 'e', '', '2026-01-01 00:00:00', NULL, NULL)",
        (json.dumps(demo.model_dump(mode="json")),),
    )
    raw.commit()
    raw.close()
    assert JobStore(open_database(database)).get("old").job == demo
    new = database.with_name("new.db")
    for path in (database, new):
        open_database(path)
        told = sqlite3.connect(path).execute("SELECT version_num FROM alembic_version").fetchone()
        assert told == (newest_version(),), "the migrations' own account and the names of their files agree"


def test_a_new_database_has_the_tables_that_the_migrations_make(tmp_path: Path) -> None:
    """Columns, types, defaults, keys and indices, as the database itself tells them."""
    at_once, step_by_step = tmp_path / "new.db", create_engine(f"sqlite:///{tmp_path / 'steps.db'}")
    open_database(at_once)
    migrate(step_by_step)

    def told(engine: Engine) -> dict[str, Any]:
        seen = inspect(engine)
        return {
            table: (
                [(c["name"], str(c["type"]), c["nullable"], c["default"]) for c in seen.get_columns(table)],
                seen.get_pk_constraint(table)["constrained_columns"],
                sorted(str(k) for k in seen.get_foreign_keys(table)),
                sorted((i["name"], i["column_names"], i["unique"]) for i in seen.get_indexes(table)),
            )
            for table in sorted(seen.get_table_names())
        }

    assert told(create_engine(f"sqlite:///{at_once}")) == told(step_by_step)


def test_killed_while_writing_it_keeps_every_answered_edit(database: Path, demo: Job) -> None:
    """A second process edits as fast as it can and is killed; every edit it reported is there, and the file
    is sound.
    """
    job = JobStore(open_database(database)).create(demo, "me")
    script = textwrap.dedent(
        f"""
        from pathlib import Path
        from fahrtwind.core.edits import SetValue
        from fahrtwind.store.database import open_database
        from fahrtwind.store.jobs import Change, JobStore
        store = JobStore(open_database(Path({str(database)!r})))
        for i in range(1, 100000):
            edit = SetValue(path="name", value=f"edit {{i}}")
            store.edit({job.id!r}, Change(i, "victim", f"e{{i}}"), [edit])
            print(i, flush=True)
        """
    )
    victim = subprocess.Popen([sys.executable, "-c", script], stdout=subprocess.PIPE, text=True)
    assert victim.stdout is not None
    reported = [int(victim.stdout.readline()) for _ in range(15)]
    os.kill(victim.pid, signal.SIGKILL)
    rest = victim.stdout.read().split()
    victim.wait()
    last = int(rest[-1]) if rest else reported[-1]
    with sqlite3.connect(database) as raw:
        assert raw.execute("PRAGMA integrity_check").fetchone() == ("ok",)
    found = JobStore(open_database(database)).get(job.id)
    assert found.revision in (last + 1, last + 2)
    assert found.job.name == f"edit {found.revision - 1}"

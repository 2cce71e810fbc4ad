"""When things go wrong around a job: sent twice, clock set back, documents nobody can read, databases that
refuse.
"""

from __future__ import annotations

import json
import sqlite3
from datetime import datetime, timedelta
from pathlib import Path

import pytest
from sqlalchemy import text

from fahrtwind.core.edits import SetValue
from fahrtwind.core.errors import Conflict, FahrtwindError, Unavailable, UnreadableFile, UnreadableJob
from fahrtwind.core.job.document import Job
from fahrtwind.core.job.load import load_job
from fahrtwind.store import database as db
from fahrtwind.store.database import backup, open_database
from fahrtwind.store.jobs import Change, JobStore


def name(value: str) -> list:  # type: ignore[type-arg]
    return [SetValue(path="name", value=value)]


def test_what_is_sent_twice_is_done_once_also_undo_and_after_a_restart(database: Path, demo: Job) -> None:
    now = [datetime(2026, 5, 1, 9, 0)]
    store = JobStore(open_database(database), lambda: now[0])
    job = store.create(demo, "me")
    store.edit(job.id, Change(1, "me", "e1"), name("a"))
    now[0] += timedelta(minutes=1)
    store.edit(job.id, Change(2, "me", "e2"), name("b"))
    undone = store.undo(job.id, Change(3, "me", "u1"))
    assert (undone.revision, undone.job.name) == (4, "a")
    again = JobStore(open_database(database))
    assert again.undo(job.id, Change(3, "me", "u1")).revision == 4, "the answer was lost, the step was not"
    assert again.edit(job.id, Change(1, "me", "e1"), name("a")).revision == 4
    assert (
        again.redo(job.id, Change(4, "me", "r1")).job.name
        == again.redo(job.id, Change(4, "me", "r1")).job.name
        == "b"
    )
    assert again.get(job.id).revision == 5


def test_a_draft_that_was_overtaken_is_not_stored(database: Path, demo: Job) -> None:
    store = JobStore(open_database(database))
    job = store.create(demo, "me")
    slow = store.draft_edit(job.id, Change(1, "slow", "s"), name("slow"))
    store.edit(job.id, Change(1, "fast", "f"), name("fast"))
    with pytest.raises(Conflict):
        store.commit(slow)
    assert store.get(job.id).job.name == "fast" and store.get(job.id).revision == 2


def test_a_clock_that_steps_back_merges_nothing(database: Path, demo: Job) -> None:
    now = [datetime(2026, 5, 1, 9, 0)]
    store = JobStore(open_database(database), lambda: now[0])
    job = store.create(demo, "me")
    for i, x in enumerate((240, 241), start=1):
        store.edit(job.id, Change(i, "me", f"e{i}"), [SetValue(path="panels.p1.x", value={"mm": x})])
        now[0] -= timedelta(hours=1)
    assert store.undo(job.id, Change(3, "me", "u")).job.panels[0].x.mm == 240


def damaged(database: Path, demo: Job, document: str) -> tuple[JobStore, str]:
    """A job whose newest revision, the second, holds something else than a job."""
    store = JobStore(open_database(database))
    job = store.create(demo, "me")
    store.edit(job.id, Change(1, "me", "e1"), name("before it broke"))
    with sqlite3.connect(database) as raw:
        raw.execute("UPDATE revisions SET document = ? WHERE number = 2", (document,))
    return JobStore(open_database(database)), job.id


@pytest.mark.parametrize(
    "document", ["{", "[]", '{"schema_version": 99}', '{"schema_version": 3, "name": 5}', "[" * 100_000]
)
def test_a_document_nobody_can_read_costs_neither_the_list_nor_the_job(
    database: Path, demo: Job, document: str
) -> None:
    store, job_id = damaged(database, demo, document)
    store.create(demo, "me")
    assert len(store.summaries()) == 2
    with pytest.raises(UnreadableJob) as caught:
        store.get(job_id)
    assert caught.value.can_undo and caught.value.current_revision == 2 and "ndo" in caught.value.remedy
    assert store.document(job_id) == document
    assert store.undo(job_id, Change(2, "me", "u")).job.name == demo.name


def test_old_documents_keep_their_values_where_a_rule_about_text_came_later(demo: Job) -> None:
    data = demo.model_dump(mode="json", exclude_none=True)
    data["name"] = "bus\x07 one\ud800"
    data["panels"][0]["x"] = {"mm": 230.0, "text": "999 mm"}
    with pytest.raises(FahrtwindError):
        load_job(data)
    job = load_job(data, stored=True)
    assert job.name == "bus� one�" and job.panels[0].x.mm == 230 and job.panels[0].x.text is None
    assert json.loads(job.model_dump_json())["name"] == job.name


def test_a_locked_database_is_told_and_nothing_is_lost(
    database: Path, demo: Job, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setattr(db, "BUSY_MS", 60)
    store = JobStore(open_database(database))
    job = store.create(demo, "me")
    with sqlite3.connect(database, isolation_level=None) as other:
        other.execute("BEGIN IMMEDIATE")
        with pytest.raises(Exception) as caught:
            store.edit(job.id, Change(1, "me", "e1"), name("late"))
        assert db.trouble(caught.value)[0] == "The database is busy."  # type: ignore[arg-type]
        assert store.get(job.id).job.name == demo.name, "reading goes on"
        other.execute("ROLLBACK")
    assert store.edit(job.id, Change(1, "me", "e1"), name("late")).job.name == "late"


def test_opening_what_is_no_database_says_so_in_one_line(tmp_path: Path, demo: Job) -> None:
    garbage = tmp_path / "garbage.db"
    garbage.write_bytes(b"not a database at all, " * 200)
    with pytest.raises(Unavailable) as caught:
        open_database(garbage)
    assert "no database" in caught.value.problem and "\n" not in str(caught.value)
    blocked = tmp_path / "file"
    blocked.write_text("in the way")
    with pytest.raises(Unavailable):
        open_database(blocked / "jobs.db")
    odd = tmp_path / "a?b.db"
    JobStore(open_database(odd)).create(demo, "me")
    assert odd.is_file() and [p.name for p in tmp_path.glob("a*")] and not (tmp_path / "a").exists()


def test_a_damaged_database_is_told(database: Path, demo: Job) -> None:
    engine = open_database(database)
    JobStore(engine).create(demo, "me")
    with engine.connect() as connection:
        connection.execute(text("PRAGMA wal_checkpoint(TRUNCATE)"))
    engine.dispose()
    whole = bytearray(database.read_bytes())
    whole[100:4096] = b"\xff" * (4096 - 100)
    database.write_bytes(bytes(whole))
    with pytest.raises(Unavailable) as caught:
        JobStore(open_database(database)).summaries()
    assert "backup" in caught.value.remedy


def test_backup_writes_aside_checks_and_renames(
    database: Path, demo: Job, monkeypatch: pytest.MonkeyPatch
) -> None:
    copy = database.with_name("copy.db")
    with pytest.raises(UnreadableFile):
        backup(database, copy)
    assert not database.exists(), "looking for a source does not make one"
    JobStore(open_database(database)).create(demo, "me")
    backup(database, copy)
    with pytest.raises(UnreadableFile):
        backup(database, copy)

    def broken(_source: Path, aside: Path) -> None:
        aside.write_bytes(b"half")
        raise sqlite3.DatabaseError("disk is full")

    monkeypatch.setattr(db, "_copy", broken)
    with pytest.raises(Unavailable):
        backup(database, database.with_name("other.db"))
    assert sorted(
        p.name for p in database.parent.glob("*.db*") if "wal" not in p.name and "shm" not in p.name
    ) == ["copy.db", "jobs.db"]

"""The log only grows and undo does not reach it; files are kept once by their content."""

from __future__ import annotations

from collections.abc import Iterator
from pathlib import Path

import pytest
from sqlalchemy import Engine, func, select, text
from sqlalchemy.orm import Session

from fahrtwind.core.edits import SetValue
from fahrtwind.core.errors import FahrtwindError, InputError, NotFound, TooLarge
from fahrtwind.core.job.document import Job
from fahrtwind.core.stations.log.entries import Photographed, Remark, StepTicked, steps_done
from fahrtwind.store.database import backup, open_database
from fahrtwind.store.jobs import Change, JobStore
from fahrtwind.store.records import LARGEST_FILE_BYTES, Records
from fahrtwind.store.tables import ContentRow

PICTURE = b"\x89PNG\r\n\x1a\n" + bytes(200)


@pytest.fixture
def engine(database: Path) -> Iterator[Engine]:
    engine = open_database(database)
    yield engine
    engine.dispose()


@pytest.fixture
def job_id(engine: Engine) -> str:
    return JobStore(engine).create(Job(name="kept"), "test").id


def test_the_last_word_on_a_step_counts_and_undo_leaves_the_log_alone(engine: Engine, job_id: str) -> None:
    records, store = Records(engine), JobStore(engine)
    store.edit(job_id, Change(1, "test", "e1"), [SetValue(path="name", value="new")])
    for i, (step, done) in enumerate((("Dry-fit", True), ("Drill", True), ("Drill", False))):
        records.write(job_id, "phone", f"t{i}", StepTicked(step=step, done=done))
    records.write(job_id, "phone", "t3", Remark(text="rib is soft", place="panels.p1.feet.f2"))
    store.undo(job_id, Change(2, "test", "u1"))
    kept = records.log(job_id)
    assert [row.number for row in kept] == [1, 2, 3, 4] and {row.client for row in kept} == {"phone"}
    assert steps_done(tuple(row.entry for row in kept)) == {"Dry-fit"}
    assert [row.number for row in records.log(job_id, after=3)] == [4]


def test_an_entry_sent_twice_is_written_once(engine: Engine, job_id: str) -> None:
    records = Records(engine)
    first = records.write(job_id, "phone", "same", StepTicked(step="Drill"))
    again = records.write(job_id, "phone", "same", StepTicked(step="Drill"))
    assert first == again and len(records.log(job_id)) == 1


def test_a_picture_is_kept_once_and_goes_with_the_last_job_that_has_it(engine: Engine, job_id: str) -> None:
    records, other = Records(engine), JobStore(engine).create(Job(name="other"), "test").id
    kept = records.attach(job_id, "rib.png", PICTURE)
    assert records.attach(job_id, "again.png", PICTURE) == kept
    assert records.attach(other, "rib.png", PICTURE).digest == kept.digest
    assert (kept.media_type, kept.size, kept.name) == ("image/png", len(PICTURE), "rib.png")
    assert records.content(other, kept.digest) == ("image/png", PICTURE)
    count = select(func.count()).select_from(ContentRow)
    for owner, left in ((job_id, 1), (other, 0)):
        records.detach(owner, kept.digest)
        with Session(engine) as session:
            assert session.scalar(count) == left
        with pytest.raises(NotFound):
            records.content(owner, kept.digest)


@pytest.mark.parametrize(
    ("content", "error"),
    [
        (b"MZ not a picture", InputError),
        (b"", InputError),
        (PICTURE + bytes(LARGEST_FILE_BYTES), TooLarge),
        (b"<svg onload='x'>", InputError),
    ],
)
def test_other_files_are_refused(
    engine: Engine, job_id: str, content: bytes, error: type[FahrtwindError]
) -> None:
    with pytest.raises(error):
        Records(engine).attach(job_id, "x.png", content)
    assert Records(engine).attachments(job_id) == ()


def test_nothing_is_kept_for_a_job_that_is_not_there_and_a_backup_has_it_all(
    engine: Engine, job_id: str, database: Path, tmp_path: Path
) -> None:
    records = Records(engine)
    with pytest.raises(NotFound):
        records.write("nobody", "t", "x", StepTicked(step="Drill"))
    records.write(job_id, "t", "x", StepTicked(step="Drill"))
    kept = records.attach(job_id, "rib.png", PICTURE)
    backup(database, tmp_path / "copy.db")
    copy = open_database(tmp_path / "copy.db")
    assert len(Records(copy).log(job_id)) == 1 and Records(copy).content(job_id, kept.digest)[1] == PICTURE
    copy.dispose()


def test_a_record_that_was_changed_shows(engine: Engine, job_id: str) -> None:
    """Somebody writes into the database; before, and in another job's log, all is whole."""
    records = Records(engine)
    for i in range(4):
        records.write(job_id, "phone", f"t{i}", Remark(text=f"entry {i}"))
    assert records.broken(job_id) is None
    with engine.begin() as connection:
        connection.execute(text("UPDATE log SET document = replace(document, 'entry 2', 'entry two')"))
    assert records.broken(job_id) == 3
    assert records.broken(JobStore(engine).create(Job(name="other"), "test").id) is None


def test_a_log_of_before_gets_its_chain(database: Path) -> None:
    """An entry written under the version before carries its hash after the migration."""
    engine = open_database(database)
    job_id = JobStore(engine).create(Job(name="old"), "test").id
    records = Records(engine)
    for i in range(3):
        records.write(job_id, "desk", f"t{i}", StepTicked(step=f"step {i}"))
    with engine.begin() as connection:
        connection.execute(text("DROP TABLE phones"))
        connection.execute(text("DROP TABLE answers"))
        connection.execute(text("ALTER TABLE log DROP COLUMN digest"))
        connection.execute(text("UPDATE alembic_version SET version_num = '0004'"))
    engine.dispose()
    again = open_database(database)
    assert Records(again).broken(job_id) is None and len(Records(again).log(job_id)) == 3
    Records(again).write(job_id, "desk", "t9", StepTicked(step="more"))
    assert Records(again).broken(job_id) is None
    again.dispose()


def test_a_photograph_that_the_log_tells_of_stays(engine: Engine, job_id: str) -> None:
    records = Records(engine)
    kept = records.attach(job_id, "roof.png", PICTURE)
    records.write(job_id, "desk", "t1", Photographed(digest=kept.digest))
    with pytest.raises(InputError, match="Entry 1"):
        records.detach(job_id, kept.digest)
    assert records.content(job_id, kept.digest)[1] == PICTURE

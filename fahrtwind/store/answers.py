"""The last answer of each job, kept beside it: what is worked out of a job depends on nothing but its
document and this program, so a job that nobody changed opens at once the next time.
"""

from __future__ import annotations

import zlib
from functools import cache
from hashlib import sha256
from importlib.metadata import version
from pathlib import Path

from sqlalchemy import Engine, select
from sqlalchemy.orm import Session

from fahrtwind.store.tables import AnswerRow, JobRow

PROGRAM = Path(__file__).parents[1]
COUNTS_WITH = ("numpy", "scipy", "shapely", "pvlib", "pydantic")
"""Libraries whose numbers and words an answer is made of."""
QUICKLY = 1
"""Level of compression: an answer is written while somebody works."""


class Answers:
    """Args:
    engine: from ``open_database``.
    maker: what an answer was made by, replaceable in tests.
    """

    def __init__(self, engine: Engine, maker: str = "") -> None:
        self._engine, self._maker = engine, maker

    def of(self, job_id: str) -> bytes | None:
        """The answer of a job as it stands now, made by this very program; None where there is none."""
        wanted = (
            select(AnswerRow.body)
            .join(JobRow, (JobRow.id == AnswerRow.job_id) & (JobRow.head == AnswerRow.revision))
            .where(JobRow.id == job_id, JobRow.removed_at.is_(None), AnswerRow.maker == self.maker)
        )
        with Session(self._engine) as session:
            body = session.scalar(wanted)
        try:
            return None if body is None else zlib.decompress(body)
        except zlib.error:  # damaged: the job itself is not
            return None

    def keep(self, job_id: str, revision: int, answer: bytes) -> None:
        """Keep the answer of a revision in place of the one before."""
        packed = zlib.compress(answer, QUICKLY)
        with Session(self._engine.execution_options(writes=True)) as session, session.begin():
            if session.get(JobRow, job_id) is not None:
                session.merge(AnswerRow(job_id=job_id, revision=revision, maker=self.maker, body=packed))

    @property
    def maker(self) -> str:
        return self._maker or this_program()


@cache
def this_program() -> str:
    """Stands for this very program with its libraries: any file that is changed makes another."""
    told = [f"{name} {version(name)}" for name in COUNTS_WITH]
    for path in sorted(PROGRAM.rglob("*.py")):
        about = path.stat()
        told.append(f"{path.relative_to(PROGRAM)} {about.st_size} {about.st_mtime_ns}")
    return sha256("\n".join(told).encode()).hexdigest()

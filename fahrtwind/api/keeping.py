"""Keeping the answer of a job once nobody has changed it for a while: so it opens at once the next time."""

from __future__ import annotations

import logging
from collections.abc import Callable
from threading import Lock, Timer

from sqlalchemy.exc import DatabaseError

from fahrtwind.core.errors import FahrtwindError
from fahrtwind.store.answers import Answers

QUIET_S = 3.0
log = logging.getLogger("fahrtwind")


class Keeping:
    """Args:
    answers: where they are kept.
    answer_of: the newest revision of a job and its answer; raises FahrtwindError where there is none.
    quiet_s: so long nobody must have changed a job.
    """

    def __init__(
        self, answers: Answers, answer_of: Callable[[str], tuple[int, bytes]], quiet_s: float = QUIET_S
    ) -> None:
        self._answers, self._answer_of, self._quiet_s = answers, answer_of, quiet_s
        self._due: dict[str, Timer] = {}
        self._lock = Lock()

    def changed(self, job_id: str) -> None:
        """A job has a new revision: its answer is due once it rests."""
        timer = Timer(self._quiet_s, self.keep, [job_id])
        timer.daemon = True
        with self._lock:
            if (before := self._due.pop(job_id, None)) is not None:
                before.cancel()
            self._due[job_id] = timer
        timer.start()

    def close(self) -> None:
        """What is still due is left: it only opens less quickly the next time."""
        with self._lock:
            while self._due:
                self._due.popitem()[1].cancel()

    def keep(self, job_id: str) -> None:
        """Keep the answer of a job as it stands now."""
        with self._lock:
            self._due.pop(job_id, None)
        found = self.work_out(job_id)
        if found is not None:
            self.put(job_id, *found)

    def work_out(self, job_id: str) -> tuple[int, bytes] | None:
        """The newest revision of a job and its answer, which is remembered from then on; None where there is
        none any more.
        """
        try:
            return self._answer_of(job_id)
        except (FahrtwindError, DatabaseError) as error:
            log.info("job %s is not worked out ahead: %s", job_id, error)
            return None

    def put(self, job_id: str, revision: int, answer: bytes) -> None:
        """Keep an answer. Where the database takes none the job only opens less quickly."""
        try:
            self._answers.keep(job_id, revision, answer)
        except DatabaseError as error:
            log.info("the answer of job %s is not kept: %s", job_id, error)

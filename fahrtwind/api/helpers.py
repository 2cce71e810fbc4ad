"""Helpers: processes of their own that take parts of slow work, so that it has all cores and takes nothing
from the answers a page waits for.
"""

from __future__ import annotations

import logging
import multiprocessing
import os
import threading
from collections.abc import Callable, Iterator, Sequence
from concurrent.futures import FIRST_COMPLETED, Future, ProcessPoolExecutor, wait
from concurrent.futures.process import BrokenProcessPool
from ctypes import c_bool
from typing import Any, TypeVar

from fahrtwind.api.collecting import collect_seldom
from fahrtwind.core.engine.beside import Apart, Hands, Stopped, beside, one_by_one
from fahrtwind.core.evaluate import MEMORY

P = TypeVar("P")
R = TypeVar("R")
log = logging.getLogger("fahrtwind")
MOST = 4
GENTLY = 5
"""Whoever opens a page goes first."""
REMEMBERED = 4
"""Results of one part that a helper keeps: it serves one search, not many windows, and frames are large."""
FORGETS_AFTER_S = 30.0
"""What was worked out for one work serves the next of the same job; after so long it only takes memory."""
WORKS = 64
"""Works that can be told apart when one of them is to stop; only a few run at once."""
LOOKS_EVERY_S = 0.1
LATE = ("scipy.optimize", "scipy.sparse.csgraph", "scipy.linalg.lapack")
"""What the core loads where it is first needed, because it takes its time."""


class Helpers:
    """As many as there are cores, each with all of the core in memory. They end with this process."""

    def __init__(self, count: int | None = None) -> None:
        ways = multiprocessing.get_all_start_methods()
        self._context = multiprocessing.get_context("forkserver" if "forkserver" in ways else "spawn")
        if "forkserver" in ways:  # imported once, and shared by all of them
            self._context.set_forkserver_preload(["fahrtwind.core.slow", *LATE])
        self.count = min(MOST, count or os.cpu_count() or 1)
        self._stop = self._context.RawArray(c_bool, WORKS)
        self._pool = self._new_ones()
        self._next = 0
        self._lock = threading.Lock()

    def _new_ones(self) -> ProcessPoolExecutor:
        return ProcessPoolExecutor(
            self.count, mp_context=self._context, initializer=_begin, initargs=(self._stop,)
        )

    def call(self) -> None:
        """Bring them in while nobody waits for them; back when they are there."""
        wait([self._pool.submit(os.getpid) for _ in range(self.count)])

    def apart(self, cancelled: Callable[[], bool]) -> Apart:
        """Parts of one work, which stop when it is ``cancelled``."""

        def shared(work: Callable[[P], R], parts: Sequence[P]) -> Iterator[tuple[int, R]]:
            if len(parts) < 2:  # what is known here already need not be worked out elsewhere
                return one_by_one(work, parts)
            return self._shared(work, parts, cancelled)

        return shared

    def _shared(
        self, work: Callable[[P], R], parts: Sequence[P], cancelled: Callable[[], bool]
    ) -> Iterator[tuple[int, R]]:
        with self._lock:
            name = self._next = (self._next + 1) % WORKS
            self._stop[name] = False
            pool = self._pool
        told: set[int] = set()
        try:
            given = {pool.submit(_part, name, work, part): i for i, part in enumerate(parts)}
            for number, found in _as_they_come(given, cancelled):
                told.add(number)
                yield number, found
        except BrokenProcessPool:  # somebody ended a helper, or there is no memory for one
            log.warning("helpers are gone; this work goes on without them")
            with self._lock:
                self._pool = self._new_ones() if self._pool is pool else self._pool
            for number, part in enumerate(parts):
                if number not in told:
                    yield number, work(part)
        finally:
            self._stop[name] = True

    def close(self) -> None:
        """Whatever they do now ends as soon as it looks whether to go on."""
        for name in range(WORKS):
            self._stop[name] = True
        self._pool.shutdown(cancel_futures=True)


def _as_they_come(given: dict[Future[R], int], cancelled: Callable[[], bool]) -> Iterator[tuple[int, R]]:
    waiting = set(given)
    try:
        while waiting:
            if cancelled():
                raise Stopped
            done, waiting = wait(waiting, timeout=LOOKS_EVERY_S, return_when=FIRST_COMPLETED)
            for future in done:
                yield given[future], future.result()
    finally:
        for future in waiting:
            future.cancel()


# in a helper


class _Own:
    """What a helper has: whom it stops for, and when it forgets."""

    stop: Any = None
    forgetting: threading.Timer | None = None


def _begin(stop: Any) -> None:
    _Own.stop = stop
    MEMORY.remembered = REMEMBERED
    if hasattr(os, "nice"):
        os.nice(GENTLY)
    collect_seldom()
    threading.Thread(target=_end_with_parent, daemon=True).start()


def _end_with_parent() -> None:
    """A server that is killed says nothing to its helpers."""
    parent = multiprocessing.parent_process()
    if parent is not None:
        parent.join()
        os._exit(0)


def _part(name: int, work: Callable[[P], R], part: P) -> R:
    if _Own.forgetting is not None:
        _Own.forgetting.cancel()
    hands = Hands(lambda: float("inf"), lambda: bool(_Own.stop[name]), lambda share, doing: None)
    try:
        with beside(hands):
            return work(part)
    finally:
        _Own.forgetting = threading.Timer(FORGETS_AFTER_S, MEMORY.forget)
        _Own.forgetting.daemon = True
        _Own.forgetting.start()

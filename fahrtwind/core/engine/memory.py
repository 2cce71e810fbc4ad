"""What was worked out lately, so that it is worked out again only when something it reads has changed."""

from __future__ import annotations

from collections import OrderedDict, deque
from threading import Lock
from typing import Any

Key = tuple[str, str]
"""Name of a part and id of the entry it belongs to (empty for a whole part)."""
REMEMBERED = 10
"""Results of one part that are kept: a few windows, each with a drag under way."""
COMPARED = 4
MOST_KEYS = 20_000


class Memory:
    """Results by what they were worked out from. Values are compared as objects first and by equality then.

    An equal value is replaced by the older object, so that whatever reads it sees that nothing changed.
    ``remembered``: how many results of one part are kept.
    """

    def __init__(self, remembered: int = REMEMBERED) -> None:
        self.remembered = remembered
        self._done: OrderedDict[Key, OrderedDict[tuple[int, ...], tuple[tuple[Any, ...], Any]]] = (
            OrderedDict()
        )
        self._values: dict[Key, deque[Any]] = {}
        self._lock = Lock()

    def done(self, key: Key, given: tuple[Any, ...]) -> Any:
        """What was kept for these inputs, None where there is nothing."""
        results = self._done.get(key)  # one look each: nothing that another thread does in between matters
        found = None if results is None else results.get(tuple(map(id, given)))
        return None if found is None else found[1]

    def keep(self, key: Key, given: tuple[Any, ...], result: Any) -> None:
        """Remember a result; the inputs are held with it, so that no other object can take their place in
        memory.
        """
        with self._lock:
            results = self._done.setdefault(key, OrderedDict())
            results[tuple(map(id, given))] = (given, result)
            if len(results) > self.remembered:
                results.popitem(last=False)
            if len(self._done) > MOST_KEYS:
                forgotten, _ = self._done.popitem(last=False)
                self._values.pop(forgotten, None)

    def same_as_before(self, key: Key, value: Any) -> Any:
        """The object kept for an equal value, or the value itself, which is kept now."""
        with self._lock:
            candidates = tuple(self._values.get(key, ()))
        for old in candidates:
            if old is value:
                return old
        for old in candidates:
            if type(old) is type(value) and _equal(old, value):
                return old
        with self._lock:
            self._values.setdefault(key, deque(maxlen=COMPARED)).append(value)
        return value

    def forget(self) -> None:
        with self._lock:
            self._done.clear()
            self._values.clear()


def _equal(one: Any, other: Any) -> bool:
    try:
        return bool(one == other)
    except (
        ValueError
    ):  # arrays say what is equal element by element: taken as different, which only costs time
        return False

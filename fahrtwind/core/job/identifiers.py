"""The one place that makes identifiers of entries."""

from __future__ import annotations

from collections.abc import Iterable

LETTERS = {
    "readings": "r",
    "scans": "s",
    "trust": "t",
    "obstacles": "o",
    "panels": "p",
    "feet": "f",
    "built_feet": "u",
    "built_torques": "q",
    "carriers": "b",
    "tethers": "j",
    "raisings": "g",
    "rails": "r",
    "bars": "a",
    "places": "s",
    "marks": "l",
    "scars": "h",
    "keep_outs": "k",
    "point_rows": "w",
    "points": "n",
    "sections": "c",
    "keep_free": "z",
    "offers": "e",
    "variants": "v",
    "decisions": "d",
    "stock": "x",
    "changes": "y",
    "items": "i",
}
OTHER = "e"


def next_number(list_name: str, taken: Iterable[str]) -> int:
    """One more than the highest number in use in that list, so that ids are not reused at once."""
    letter = LETTERS.get(list_name, OTHER)
    return 1 + max(
        (int(t[len(letter) :]) for t in taken if t.startswith(letter) and t[len(letter) :].isdigit()),
        default=0,
    )


def identifier(list_name: str, number: int) -> str:
    """The id of an entry.

    >>> identifier("panels", 5)
    'p5'
    """
    return f"{LETTERS.get(list_name, OTHER)}{number}"


def next_id(list_name: str, taken: Iterable[str]) -> str:
    """The next free id of a list.

    >>> next_id("panels", ["p1", "p4"])
    'p5'
    """
    return identifier(list_name, next_number(list_name, taken))

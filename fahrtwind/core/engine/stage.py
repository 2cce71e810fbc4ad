"""Stages: plain functions whose parameters name what they read.

A *view* is a narrow look at what is asked about (the document and what the outside hands in); only views see
it. A *stage* works something out from views and other stages; a *rule* says what is wrong with them. All are
collected while their modules are imported and checked by ``House.check``. With ``each`` a part is worked out
for every entry of a list: the entry itself is the function's first parameter, other parts of the same entries
come as that entry's, and whoever stands outside reads them together under the name given as ``all``.

A parameter that may be None is handed None where the part is not known; who needs the part is not run and is
not known either.
"""

from __future__ import annotations

import typing
from collections import defaultdict
from collections.abc import Callable, Iterable, Iterator
from dataclasses import field
from functools import cache
from graphlib import CycleError, TopologicalSorter
from types import FunctionType, UnionType
from typing import Any, Literal, TypeVar, cast

from fahrtwind.core.engine.beside import Stopped
from fahrtwind.core.engine.memory import Memory
from fahrtwind.core.engine.silence import Question, Silence, silence_of
from fahrtwind.core.errors import FahrtwindError, NotFound
from fahrtwind.core.formulas.declare import Step, recording
from fahrtwind.core.records import dataclass

F = TypeVar("F", bound=Callable[..., Any])
Kind = Literal["view", "stage", "rule", "working"]


@dataclass(frozen=True, slots=True)
class Missing:
    """What a view says where the document lacks something: the question that would answer it."""

    question: Question


class _Unknown:
    """The value of a part that could not be worked out."""

    def __repr__(self) -> str:
        return "unknown"


UNKNOWN = _Unknown()
NOT_YET = object()
"""Of an entry whose part nobody read so far."""


@dataclass(frozen=True, slots=True)
class Declared:
    """A part as it was declared. ``place`` is where its working stands; ``otherwise`` is told where the work
    fails.
    """

    name: str
    kind: Kind
    work: Callable[..., Any]
    reads: tuple[str, ...]
    optional: frozenset[str]
    station: str = ""
    what: str = ""
    at: str = ""
    each: str | None = None
    all: str | None = None
    place: str = ""
    otherwise: Any = UNKNOWN
    slow: bool = False


@dataclass(slots=True)
class House:
    """All parts of a product, by name."""

    parts: dict[str, Declared] = field(default_factory=dict)
    together: dict[str, Declared] = field(default_factory=dict)
    _sources: dict[str, tuple[tuple[str, bool, bool], ...]] = field(default_factory=dict)

    def sources(self, part: Declared) -> tuple[tuple[str, bool, bool], ...]:
        """What a part reads: each name, whether it is that of the same entry, and whether it may be None.
        Looked up once, after everything is declared: it is asked thousands of times in an evaluation.
        """
        known = self._sources.get(part.name)
        if known is None:
            known = self._sources[part.name] = tuple(
                (n, n in self.parts and bool(self.parts[n].each), n in part.optional) for n in part.reads
            )
        return known

    def view(self, *, each: str | None = None, all: str | None = None) -> Callable[[F], F]:
        """Declare a view. Without ``each`` its only parameter is what is asked about, otherwise the entry."""
        return lambda work: self._declare(work, "view", each=each, all=all)

    def stage(
        self,
        station: str,
        what: str,
        at: str = "",
        *,
        each: str | None = None,
        all: str | None = None,
        place: str = "",
        otherwise: Any = UNKNOWN,
        slow: bool = False,
    ) -> Callable[[F], F]:
        """Declare a stage of a station: in words what it works out, and the job path at which a failure is
        told.
        """
        told: dict[str, Any] = {
            "station": station,
            "what": what,
            "at": at,
            "each": each,
            "all": all,
            "place": place,
        }
        return lambda work: self._declare(work, "stage", otherwise=otherwise, slow=slow, **told)

    def rule(self, name: str, station: str, what: str, *, each: str | None = None) -> Callable[[F], F]:
        """Declare a rule: it yields what it finds."""
        return lambda work: self._declare(
            work, "rule", name=name, station=station, what=what, each=each, all=f"all {name}"
        )

    def working(self, place: str, *, each: str | None = None) -> Callable[[F], F]:
        """Declare who shows the working at a place, where the stage that owns the numbers does not show it by
        itself.
        """
        whose = f"{place}, {each}" if each else place
        return lambda work: self._declare(
            work, "working", name=f"working of {whose}", each=each, place=place, all=f"workings of {whose}"
        )

    def _declare(self, work: F, kind: Kind, *, name: str = "", **told: Any) -> F:
        name = name or work.__name__
        if name in self.parts or name in self.together:
            raise ValueError(f"{name} is declared twice")
        code = cast(FunctionType, work).__code__
        reads = code.co_varnames[: code.co_argcount]
        hints = work.__annotations__
        optional = frozenset(n for n in reads if "None" in str(hints.get(n, "")))
        own = 1 if kind == "view" or told.get("each") else 0
        part = Declared(name, kind, work, reads[own:], optional, **told)
        self.parts[name] = part
        if part.each:
            self.together[part.all or f"{name}s"] = part
        return work

    def check(self) -> None:
        """Raise ValueError where a parameter names nothing or what stands outside of its entries, or parts
        read one another in a circle.
        """
        before = {}
        for part in self.parts.values():
            needs = [*part.reads, *([part.each] if part.each else [])]
            for name in needs:
                if name not in self.parts and name not in self.together:
                    raise ValueError(f"{part.name} reads {name}, which nobody declares")
                source = self.parts.get(name)
                if name in part.reads and source and source.each and source.each != part.each:
                    raise ValueError(
                        f"{part.name} stands outside of {source.each} and must read {name} of all together"
                    )
            before[part.name] = {self.together[n].name if n in self.together else n for n in needs}
        try:
            tuple(TopologicalSorter(before).static_order())
        except CycleError as error:
            raise ValueError(f"parts read one another in a circle: {' → '.join(error.args[1])}") from None

    def check_types(self) -> None:
        """Raise ValueError where a parameter takes a part with another type than it has. It evaluates every
        annotation there is, so a single command does without.
        """
        for part in self.parts.values():
            for name in part.reads:
                self._check_type(part, name)

    def behind(self, name: str) -> frozenset[str]:
        """Names of all parts that a part reads, itself or through others."""
        part = self.together.get(name) or self.parts[name]
        found: set[str] = set()
        left = [*part.reads, *([part.each] if part.each else [])]
        while left:
            read = left.pop()
            source = self.together.get(read) or self.parts[read]
            if source.name not in found:
                found.add(source.name)
                left += [*source.reads, *([source.each] if source.each else [])]
        return frozenset(found)

    def _check_type(self, part: Declared, name: str) -> None:
        source = self.together.get(name) or self.parts[name]
        given = _hints(source.work).get("return")
        wanted = _hints(part.work).get(name)
        if name in self.together:
            given = tuple.__class_getitem__((_without(given), ...))
        if _without(wanted) != _without(given):
            raise ValueError(f"{part.name} takes {name} as {wanted}, it is {given}")


@cache
def _hints(work: Callable[..., Any]) -> dict[str, Any]:
    return typing.get_type_hints(work)


def _without(hint: Any) -> Any:
    """A type without ``None`` and without ``Missing``: what a reader gets."""
    if typing.get_origin(hint) in (typing.Union, UnionType):
        kept = tuple(a for a in typing.get_args(hint) if a not in (type(None), Missing))
        return kept[0] if len(kept) == 1 else typing.Union[kept]  # noqa: UP007  built from a tuple
    return hint


class Visit:
    """One look at a document: parts are worked out when they are read, and taken from ``memory`` where
    nothing they read changed.
    """

    def __init__(self, house: House, asked: Any, memory: Memory) -> None:
        self.house, self.asked, self.memory = house, asked, memory
        self._wholes: dict[str, Any] = {}
        self._entries: defaultdict[str, dict[str, Any]] = defaultdict(dict)
        self.silent: dict[tuple[str, str], Silence] = {}
        self._errors: dict[tuple[str, str], Exception] = {}
        self.questions: dict[tuple[str, str], Question] = {}

    def __getitem__(self, name: str) -> Any:
        """A whole part, or all of an entry's parts together; ``UNKNOWN`` where it is not known."""
        part = self.house.together.get(name)
        if part is not None:
            return self._together(name, part)
        if name not in self._wholes:
            self._wholes[name] = self._worked_out(self.house.parts[name], "", None)
        return self._wholes[name]

    def demand(self, name: str) -> Any:
        """A whole part for somebody who asks for nothing else: raises what keeps it from being told."""
        value = self[name]
        if (name, "") in self._errors:
            raise self._errors[name, ""]
        if value is UNKNOWN:
            raise NotFound("That is not known yet.", remedy="Answer the open questions first.", field=name)
        return value

    def get(self, name: str, otherwise: Any = None) -> Any:
        """A whole part, or ``otherwise`` where it is not known."""
        value = self[name]
        return otherwise if value is UNKNOWN else value

    def _together(self, name: str, part: Declared) -> Any:
        if name not in self._wholes:
            entries = self[part.each or ""]
            told = () if entries is UNKNOWN else (self.of(part.name, entry) for entry in entries)
            known = tuple(value for value in told if value is not UNKNOWN and value is not None)
            self._wholes[name] = self.memory.same_as_before((name, ""), known)
        return self._wholes[name]

    def of(self, name: str, entry: Any) -> Any:
        """The part of one entry."""
        found, own = self._entries[name], entry.id
        if own not in found:
            found[own] = self._worked_out(self.house.parts[name], own, entry)
        return found[own]

    def inputs_of(self, part: Declared, entry: Any) -> tuple[Any, ...] | None:
        """What a part reads; None where it needs something that is not known."""
        # asked a thousand times in an evaluation: what is there already is taken without a further call
        given = [entry] if part.each else []
        wholes, entries = self._wholes, self._entries
        own = entry.id if part.each else ""
        for name, of_entry, optional in self.house.sources(part):
            if of_entry:
                value = entries[name].get(own, NOT_YET)
                if value is NOT_YET:
                    value = self.of(name, entry)
            else:
                value = wholes[name] if name in wholes else self[name]
            if value is UNKNOWN or value is None:
                if not optional:
                    return None
                value = None
            given.append(value)
        return tuple(given)

    def _worked_out(self, part: Declared, entry_id: str, entry: Any) -> Any:
        anew = part.kind == "view" and not part.each  # what is asked about is never the same
        given = (self.asked,) if anew else self.inputs_of(part, entry)
        if given is None:
            return UNKNOWN
        key = (part.name, entry_id)
        done = None if anew else self.memory.done(key, given)
        if done is None:
            value, error = self._run(part, given)
            done = (self.memory.same_as_before(key, value), error)
            if not anew:
                self.memory.keep(key, given, done)
        value, error = done
        if error is not None:
            self._errors[key] = error
            what = part.what or part.name.replace("_", " ")
            self.silent[key] = silence_of(part.station, part.at.format(id=entry_id), what, error)
        if isinstance(value, Missing):
            self.questions[key] = value.question
            return UNKNOWN
        return value

    def _run(self, part: Declared, given: tuple[Any, ...]) -> tuple[Any, Exception | None]:
        try:
            value = part.work(*given)
            return (tuple(value) if isinstance(value, Iterator) else value), None
        except Stopped:  # nothing was found and nothing failed: the next who asks begins anew
            raise
        except Exception as error:  # whatever it is: the rest of the document must stay readable and mendable
            return part.otherwise, error.with_traceback(None)

    def everything(self, kinds: Iterable[Kind] = ("view", "stage", "rule")) -> None:
        """Work out all that is not slow."""
        for part in self.house.parts.values():
            if part.kind in kinds and not part.slow:
                _ = self[part.all or f"{part.name}s"] if part.each else self[part.name]

    def all_questions(self) -> tuple[Question, ...]:
        """What is asked for, each once, in the order in which the views were declared, entry by entry."""
        return tuple(dict.fromkeys(self.questions[key] for key in self._in_order(self.questions)))

    def all_silent(self) -> tuple[tuple[str, Silence], ...]:
        """Parts that could not answer by their names, in the order in which they were declared."""
        return tuple((key[0], self.silent[key]) for key in self._in_order(self.silent))

    def _in_order(self, keys: Iterable[tuple[str, str]]) -> list[tuple[str, str]]:
        order = {name: i for i, name in enumerate(self.house.parts)}
        return sorted(keys, key=lambda key: order[key[0]])

    def explain(self, place: str) -> tuple[Step, ...]:
        """The working at a place: only the part that owns it is worked out again, on what it reads, while its
        steps are noted.

        Empty where nobody owns the place or nothing was computed there.
        """
        for part in self.house.parts.values():
            if not part.place:
                continue
            for entry in self._entries_at(part):
                own = part.place.format(id=entry.id if entry is not None else "")
                if place == own or place.startswith((f"{own}/", f"{own} ")):
                    given = self.inputs_of(part, entry)
                    if given is None:
                        return ()
                    with recording() as notes:
                        try:
                            part.work(*given)
                        except FahrtwindError:
                            raise
                        except Exception:  # told as a stop of its station; there is no working to show
                            return ()
                    steps = (s for s in notes.steps if s.place == place or s.place.startswith(f"{place}/"))
                    return tuple(dict.fromkeys(steps))
        return ()

    def _entries_at(self, part: Declared) -> tuple[Any, ...]:
        if not part.each:
            return (None,)
        entries = self[part.each]
        return () if entries is UNKNOWN else entries

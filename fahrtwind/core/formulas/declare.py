"""One published formula = one declared function.

The declaration carries what the working sheet prints: expression, unit, arguments with unit and validity,
source. A call inside ``recording()`` notes itself as a step; outside it costs two comparisons per argument.
Arguments may be numpy arrays where the body is plain arithmetic, so the vectorised paths run the very same
line.
"""

from __future__ import annotations

from collections.abc import Callable, Iterator, Mapping
from contextlib import AbstractContextManager, contextmanager, nullcontext
from contextvars import ContextVar
from dataclasses import field
from functools import wraps
from types import FunctionType
from typing import Annotated, Any, Literal, ParamSpec, TypeVar, cast

import numpy as np
import numpy.typing as npt

from fahrtwind.core.errors import OutsideValidity
from fahrtwind.core.records import dataclass
from fahrtwind.core.tables.confidence import Confidence

P = ParamSpec("P")
R = TypeVar("R")
FloatArray = npt.NDArray[np.float64]
Number = Any  # float or FloatArray: the formulas are plain arithmetic and serve both

Kind = Literal["measured", "chosen", "default", "inferred", "computed", "table"]


@dataclass(frozen=True, slots=True)
class Source:
    """Where a formula or value comes from. ``confidence`` says how far to trust it."""

    text: str
    confidence: Confidence = "published"


@dataclass(frozen=True, slots=True)
class Arg:
    """How one argument is shown, and the closed range within which the formula holds."""

    symbol: str
    unit: str
    words: str
    low: float = -np.inf
    high: float = np.inf


@dataclass(frozen=True, slots=True)
class Formula:
    name: str
    title: str
    symbol: str
    expression: str
    unit: str
    source: Source
    arguments: Mapping[str, Arg]
    function: Callable[..., Any]


@dataclass(frozen=True, slots=True)
class Origin:
    """Where an input of a step came from: a kind and a place (a job field, a table, an earlier step)."""

    kind: Kind
    place: str


class Traced(float):
    """A number that remembers its origin; made only while recording."""

    origin: Origin

    def __new__(cls, value: float, origin: Origin) -> Traced:
        self = super().__new__(cls, value)
        self.origin = origin
        return self


@dataclass(frozen=True, slots=True)
class StepInput:
    symbol: str
    words: str
    value: float
    unit: str
    origin: Origin


@dataclass(frozen=True, slots=True)
class Step:
    """One line of a working sheet."""

    place: str
    formula: str
    title: str
    symbol: str
    expression: str
    inputs: tuple[StepInput, ...]
    result: float
    unit: str
    validity: str
    source: str
    confidence: Confidence


@dataclass(slots=True)
class Recording:
    steps: list[Step] = field(default_factory=list)
    scope: tuple[str, ...] = ()


FORMULAS: dict[str, Formula] = {}
_UNNOTED = nullcontext()
_recording: ContextVar[Recording | None] = ContextVar("recording", default=None)


def formula(
    *, title: str, symbol: str, expression: str, unit: str, source: Source
) -> Callable[[Callable[P, R]], Callable[P, R]]:
    """Declare a function as a formula. Each parameter must be annotated ``Annotated[Number, Arg(...)]``.
    Raises TypeError where one is not, as where a module's annotations are read as text.
    """

    def declare(function: Callable[P, R]) -> Callable[P, R]:
        code = cast(FunctionType, function).__code__
        names = code.co_varnames[: code.co_argcount]
        arguments = {name: _argument(function, name) for name in names}
        name = function.__name__
        if name in FORMULAS:
            raise ValueError(f"formula {name} is declared twice")
        declared = Formula(name, title, symbol, expression, unit, source, arguments, function)
        FORMULAS[name] = declared
        limits = [
            (i, a) for i, a in enumerate(arguments.values()) if np.isfinite(a.low) or np.isfinite(a.high)
        ]

        @wraps(function)
        def call(*args: P.args, **kwargs: P.kwargs) -> R:
            for i, limit in limits:
                value = args[i] if i < len(args) else kwargs[names[i]]
                if type(value) is not float or not limit.low <= value <= limit.high:
                    _check(declared, limit, value)
            result = function(*args, **kwargs)
            active = _recording.get()
            if active is None:
                return result
            return _record(active, declared, dict(zip(names, args, strict=False), **kwargs), result)  # type: ignore[no-any-return]

        return call

    return declare


def _argument(function: Callable[..., Any], name: str) -> Arg:
    told = getattr(function.__annotations__.get(name), "__metadata__", ())
    if not told or not isinstance(told[0], Arg):
        raise TypeError(f"{function.__name__}: {name} is no Annotated[Number, Arg(...)]")
    found: Arg = told[0]
    return found


def _check(declared: Formula, limit: Arg, value: Any) -> None:
    if isinstance(value, (float, int)):
        inside = limit.low <= value <= limit.high
    else:  # an array: whoever made it may hold millions, so a side without a limit is not looked at
        above = limit.low == -np.inf or not value.size or limit.low <= value.min()
        inside = above and (limit.high == np.inf or not value.size or value.max() <= limit.high)
    if not inside:
        raise OutsideValidity(
            f"{declared.title}: {limit.words} {value} {limit.unit} is outside {limit.low:g} … "
            f"{limit.high:g}.",
            remedy="Choose a part the source covers, or have this link judged by an engineer.",
            field=limit.words,
        )


def _record(active: Recording, declared: Formula, bound: Mapping[str, Any], result: Any) -> Any:
    if not isinstance(result, (float, int)):  # arrays are the fast path; scalars are what gets explained
        return result
    inputs = tuple(
        StepInput(
            arg.symbol,
            arg.words,
            float(bound[name]),
            arg.unit,
            getattr(bound[name], "origin", Origin("computed", "from the lines above")),
        )
        for name, arg in declared.arguments.items()
    )
    active.steps.append(
        Step(
            place="/".join(active.scope),
            formula=declared.name,
            title=declared.title,
            symbol=declared.symbol,
            expression=declared.expression,
            inputs=inputs,
            result=float(result),
            unit=declared.unit,
            validity=validity_words(declared),
            source=declared.source.text,
            confidence=declared.source.confidence,
        )
    )
    return Traced(float(result), Origin("computed", declared.title))


def validity_words(declared: Formula) -> str:
    """The validity limits of a formula in words.

    >>> validity_words(FORMULAS["dynamic_pressure"])
    'ρ 0.3 … 1.8 kg/m³; v 0 … 90 m/s'
    """
    parts = []
    for arg in declared.arguments.values():
        if np.isfinite(arg.low) and np.isfinite(arg.high):
            parts.append(f"{arg.symbol} {arg.low:g} … {arg.high:g} {arg.unit}".strip())
        elif np.isfinite(arg.low):
            parts.append(f"{arg.symbol} ≥ {arg.low:g} {arg.unit}".strip())
    return "; ".join(parts) or "no limit"


@contextmanager
def recording() -> Iterator[Recording]:
    """Note every scalar formula call made inside."""
    active = Recording()
    token = _recording.set(active)
    try:
        yield active
    finally:
        _recording.reset(token)


def scope(*names: str) -> AbstractContextManager[None]:
    """Say what the steps inside belong to, for example ``scope("hold", "p1", "f2")``. Costs next to nothing
    without a recording.
    """
    active = _recording.get()
    return _UNNOTED if active is None else _scope(active, names)


@contextmanager
def _scope(active: Recording, names: tuple[str, ...]) -> Iterator[None]:
    before = active.scope
    active.scope = (*before, *names)
    try:
        yield
    finally:
        active.scope = before


def is_recording() -> bool:
    return _recording.get() is not None


def given(value: float, kind: Kind, place: str) -> float:
    """Name the origin of an input. Returns the number unchanged unless a recording is running. The number
    keeps whatever unit it has.
    """
    return value if _recording.get() is None else Traced(value, Origin(kind, place))


__all__ = [
    "FORMULAS",
    "Annotated",
    "Arg",
    "Formula",
    "Number",
    "Source",
    "Step",
    "formula",
    "given",
    "recording",
    "scope",
]

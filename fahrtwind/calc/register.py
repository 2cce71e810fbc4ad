"""The register of calculations with typed input and output."""

from __future__ import annotations

import inspect
import math
from collections.abc import Callable
from dataclasses import fields, is_dataclass
from typing import Any, get_type_hints

from pydantic import BaseModel, ConfigDict, TypeAdapter, ValidationError, create_model

import fahrtwind.core.formulas  # noqa: F401  declares all formulas
from fahrtwind.core.errors import NotFound, OutsideValidity
from fahrtwind.core.formulas.declare import FORMULAS, Formula, Step, given, recording, validity_words
from fahrtwind.core.job.load import as_input_error
from fahrtwind.core.records import dataclass


class CalcInput(BaseModel):
    """Base of all inputs: unknown fields and numbers that are not finite are refused."""

    model_config = ConfigDict(frozen=True, extra="forbid", allow_inf_nan=False)


@dataclass(frozen=True, slots=True)
class Calculation:
    """A calculation: its name, what it answers, its input model, its result type and the function."""

    name: str
    answers: str
    input_model: type[BaseModel]
    result_type: Any
    function: Callable[[Any], Any]


@dataclass(frozen=True, slots=True)
class FormulaResult:
    """The value of one declared formula with its working."""

    value: float
    unit: str
    working: tuple[Step, ...]


CALCULATIONS: dict[str, Calculation] = {}


def calculation(name: str) -> Callable[[Callable[..., Any]], Callable[..., Any]]:
    """Register a function of one input model; its docstring's first line says what it answers."""

    def register(function: Callable[..., Any]) -> Callable[..., Any]:
        hints = get_type_hints(function)
        argument = next(iter(inspect.signature(function).parameters))
        answers = (inspect.getdoc(function) or "").splitlines()[0]
        CALCULATIONS[name] = Calculation(name, answers, hints[argument], hints["return"], function)
        return function

    return register


def run(name: str, data: Any) -> Any:
    """Validate the input, compute, and return the typed result. Raises NotFound or an InputError."""
    found = CALCULATIONS.get(name)
    if found is None:
        raise NotFound(
            f"There is no calculation {name}.", remedy="Choose one of the listed names.", field="name"
        )
    try:
        typed = found.input_model.model_validate(data)
    except ValidationError as error:
        raise as_input_error(error) from error
    return compute(found, typed)


def compute(found: Calculation, typed: BaseModel) -> Any:
    """The answer to a validated input. Raises an InputError or OutsideValidity where there is none: no number
    is promised and missing.
    """
    try:
        result = found.function(typed)
    except (ArithmeticError, ValueError, TypeError, ValidationError) as error:
        if isinstance(error, ValidationError):
            raise as_input_error(error) from error
        raise OutsideValidity(
            f"{found.name} has no result for these inputs ({error}).",
            remedy="Check them for zeros and for very large numbers.",
            field=found.name,
        ) from error
    if not _finite(result):
        raise OutsideValidity(
            f"{found.name} has no finite result for these inputs.",
            remedy="Check them for zeros and for very large numbers.",
            field=found.name,
        )
    return result


def _finite(result: Any) -> bool:
    """Whether every number of a result is one."""
    if isinstance(result, float):
        return math.isfinite(result)
    if isinstance(result, list | tuple):
        return all(_finite(part) for part in result)
    if is_dataclass(result):
        return all(_finite(getattr(result, f.name)) for f in fields(result))
    return True


def as_json(name: str, result: Any) -> bytes:
    return TypeAdapter(CALCULATIONS[name].result_type).dump_json(result)


def _declare_formula(declared: Formula) -> None:
    """Give every declared formula a door of its own: ``formula.<name>``."""
    fields: dict[str, Any] = {name: (float, ...) for name in declared.arguments}
    model = create_model(
        f"{''.join(w.title() for w in declared.name.split('_'))}Input", __base__=CalcInput, **fields
    )

    def compute(typed: BaseModel) -> FormulaResult:
        call = getattr(inspect.getmodule(declared.function), declared.name)
        with recording() as notes:
            try:
                value = call(
                    **{key: given(number, "chosen", "input") for key, number in typed.model_dump().items()}
                )
                good = not isinstance(value, complex) and math.isfinite(float(value))
            except (ArithmeticError, ValueError, TypeError):
                good = False
        if not good:
            raise OutsideValidity(
                f"{declared.title} has no finite result for these inputs.",
                remedy=f"It holds for {validity_words(declared)}.",
                field=next(iter(declared.arguments), declared.name),
            )
        return FormulaResult(float(value), declared.unit, tuple(notes.steps))

    name = f"formula.{declared.name}"
    CALCULATIONS[name] = Calculation(
        name, f"{declared.title}: {declared.expression}", model, FormulaResult, compute
    )


for _formula in FORMULAS.values():
    _declare_formula(_formula)

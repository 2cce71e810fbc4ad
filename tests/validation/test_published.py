import pytest

import fahrtwind.core.formulas  # noqa: F401
from fahrtwind.calc import CALCULATIONS, run
from fahrtwind.core.formulas.declare import FORMULAS
from tests.validation.published import CHECKS, Check


@pytest.mark.parametrize("check", CHECKS, ids=lambda check: f"{check.formula}: {check.source}")
def test_formula_gives_the_independent_value(check: Check) -> None:
    result = run(f"formula.{check.formula}", check.given)
    assert result.value == pytest.approx(check.expected, rel=check.within, abs=1e-9)
    assert result.working[-1].result == result.value, "the working shows another number than the one returned"


def test_no_formula_without_a_source_a_door_and_an_independent_check() -> None:
    assert set(FORMULAS) == {c.formula for c in CHECKS}
    for declared in FORMULAS.values():
        assert len(declared.source.text) > 10, declared.name
        assert declared.expression and declared.symbol
        assert f"formula.{declared.name}" in CALCULATIONS
        assert all(arg.words and arg.symbol for arg in declared.arguments.values())


def test_a_judgement_is_never_called_published() -> None:
    for declared in FORMULAS.values():
        if "judgement" in declared.source.text.lower():
            assert declared.source.confidence == "judgement", declared.name

"""Public docstrings of the core say what a reader needs: what comes out, in which unit, what is raised.

Formulas say it in their declaration, stages and rules by their names and types.
"""

from __future__ import annotations

import ast
import re
from collections.abc import Iterator
from pathlib import Path

from fahrtwind.core.formulas.declare import FORMULAS

CORE = Path(__file__).parent.parent / "fahrtwind" / "core"
DECLARED = re.compile(r"rule|stage|view|working|formula|house\.|overload|property|\w*validator")
PROTOCOL = {"apply", "words", "usual", "chain", "marks", "needs", "on_solution_callback"}
"""Told once, where the protocol is: ``PlainEdit`` and ``School``."""
SHORT_LINES = 4
IN_ITS_NAME = re.compile(
    r"(^|_)(mm|mm2|mm3|cm2|m2|n|n_mm|n_mm2|pa|kg|kg_m2|kg_m3|m_s|km|m|deg|deg_c|wh|w|h|s|g|k|hz|share|"
    r"count|factor|probability|weight|seconds)$"
)
TOLD = re.compile(
    r"(?i)[°²%]|\b(mm|ml|m/s|N|Pa|kg|deg(rees)?|Wh?|hours?|shares?|ratio|factor|seconds|probability|chance|log|"
    r"weight|units?|V|A|volts|amperes?|worth|indices|zero|0 to 1)\b"
)


def functions() -> Iterator[tuple[str, ast.FunctionDef, str]]:
    for path in sorted(CORE.rglob("*.py")):
        for holder in ast.walk(ast.parse(path.read_text(encoding="utf-8"))):
            if not isinstance(holder, ast.Module | ast.ClassDef):
                continue
            for f in holder.body:
                if not isinstance(f, ast.FunctionDef) or f.name.startswith("_"):
                    continue
                if not any(DECLARED.match(ast.unparse(d)) for d in f.decorator_list):
                    yield f"{path.relative_to(CORE)}: {f.name}", f, ast.get_docstring(f) or ""


def test_whatever_is_longer_than_a_glance_is_described() -> None:
    silent = [
        where
        for where, f, told in functions()
        if not told and f.name not in PROTOCOL and (f.end_lineno or 0) - f.lineno >= SHORT_LINES
    ]
    assert not silent


def test_what_is_raised_is_said() -> None:
    silent = [
        where
        for where, f, told in functions()
        if any(isinstance(n, ast.Raise) and n.exc for n in ast.walk(f))
        and not re.search(r"\b[Rr]aises?\b", told)
    ]
    assert not silent


def test_numbers_have_their_unit_in_the_name_or_in_the_docstring() -> None:
    number = re.compile(r"\bfloat\b|FloatArray")
    silent = [
        where
        for where, f, told in functions()
        if f.name not in PROTOCOL
        and not TOLD.search(told)
        and (
            (
                f.returns is not None
                and number.search(ast.unparse(f.returns))
                and not IN_ITS_NAME.search(f.name)
            )
            or any(
                a.annotation is not None
                and number.search(ast.unparse(a.annotation))
                and not IN_ITS_NAME.search(a.arg)
                for a in f.args.args + f.args.kwonlyargs
            )
        )
    ]
    assert not silent


def test_every_formula_names_its_source_and_its_arguments() -> None:
    for name, declared in FORMULAS.items():
        assert len(declared.source.text) >= 20, name
        assert declared.expression and all(argument.words for argument in declared.arguments.values()), name

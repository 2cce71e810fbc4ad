"""What the demo jobs, and three wider ones, were told, kept number by number: a change of any of it is a
change to see.

``python -m tests.truth.golden`` writes it anew. Regression only: whether the numbers are right is what the
other tests say.
"""

from __future__ import annotations

import json
from importlib import import_module
from math import isfinite
from pathlib import Path
from pkgutil import walk_packages
from typing import Any

from pydantic import TypeAdapter

from fahrtwind import core
from fahrtwind.core.choose.compare import VariantLine, compare
from fahrtwind.core.choose.remedies import Remedy, remedies
from fahrtwind.core.evaluate import Evaluation, evaluate
from fahrtwind.core.formulas.declare import FORMULAS
from fahrtwind.core.job import quantity_ranges
from fahrtwind.core.job.catalogue import catalogue
from fahrtwind.core.job.document import Job
from fahrtwind.core.job.load import load_job
from fahrtwind.core.job.views import SunnyRoof
from fahrtwind.core.stations.layout.sun.findings import YieldFinding, yield_of
from fahrtwind.demo import demo_jobs
from tests.truth.documents import range_ends

KEPT = Path(__file__).parent.parent / "golden"
DIGITS = 4
SUNNY = "Lichtspiel"


def told(job: Job) -> dict[str, Any]:
    """Everything that is told about a job, numbers to four digits."""
    whole = TypeAdapter(Evaluation).dump_python(evaluate(job), mode="json")
    parts = {**whole.pop("findings"), **whole}
    if job.name == SUNNY:
        parts["year"] = TypeAdapter(YieldFinding).dump_python(yield_of(SunnyRoof.of(job)), mode="json")
        parts["remedies"] = TypeAdapter(tuple[Remedy, ...]).dump_python(remedies(job), mode="json")
        parts["variants compared"] = TypeAdapter(tuple[VariantLine, ...]).dump_python(
            compare(job), mode="json"
        )
    return {name: _rounded(part) for name, part in parts.items()}


def _rounded(value: Any) -> Any:
    if isinstance(value, float):
        return float(f"{value:.{DIGITS}g}") if abs(value) > 1e-9 else 0.0
    if isinstance(value, dict):
        return {key: _rounded(part) for key, part in value.items()}
    return [_rounded(part) for part in value] if isinstance(value, list) else value


def golden_jobs() -> list[Job]:
    """The demo's jobs, jobs with trusses, boxes and decks, held in every way there is, and the field jobs."""
    wider = [p for p in sorted((KEPT / "jobs").glob("*.json")) if not p.name.startswith("version-")]
    wider += sorted((KEPT.parent / "field_jobs").glob("*.json"))
    return [*demo_jobs(), *(load_job(json.loads(p.read_text(encoding="utf-8"))) for p in wider)]


def figures() -> dict[str, Any]:
    """What may be typed at all, and the panels to start from: numbers that no demo job happens to
    touch, judgements and limits, and within what the formulas hold.
    """
    ranges: dict[str, list[float]] = {}
    for path, end in range_ends():
        ranges.setdefault(path, []).append(end)
    own = {
        name: [within.func.low, within.func.high]
        for name, kind in vars(quantity_ranges).items()
        for within in getattr(kind, "__metadata__", ())
    }
    models = [model.model_dump(mode="json", exclude_none=True) for model in catalogue()]
    return {
        "ranges": ranges,
        "kinds of range": own,
        "catalogue": models,
        "constants": constants(),
        "validity": validity(),
    }


def constants() -> dict[str, Any]:
    """Every number that the core names in capitals: judgements, limits, tolerances."""
    found: dict[str, Any] = {}
    for module in walk_packages(core.__path__, "fahrtwind.core."):
        for name, value in vars(import_module(module.name)).items():
            whole = value if isinstance(value, tuple) else (value,)
            if name.isupper() and whole and all(type(v) in (int, float) and isfinite(v) for v in whole):
                kept = list(value) if isinstance(value, tuple) else value
                found[name] = kept if name not in found or found[name] == kept else [found[name], kept]
    return dict(sorted(found.items()))


def validity() -> dict[str, list[list[float | None]]]:
    """Within what each formula holds, argument by argument; None where there is no bound."""
    return {
        name: [
            [end if isfinite(end) else None for end in (a.low, a.high)] for a in formula.arguments.values()
        ]
        for name, formula in sorted(FORMULAS.items())
    }


FIGURES = KEPT / "figures.json"


def path_of(job: Job) -> Path:
    plain = job.name.lower().replace(" ", "-").translate(str.maketrans({"ä": "ae", "ö": "oe", "ü": "ue"}))
    return KEPT / f"{plain}.json"


def write() -> None:
    FIGURES.write_text(json.dumps(figures(), indent=1, ensure_ascii=False) + "\n", encoding="utf-8")
    for job in golden_jobs():
        parts = [
            f"{json.dumps(name)}: {json.dumps(part, ensure_ascii=False)}" for name, part in told(job).items()
        ]
        path_of(job).write_text("{\n" + ",\n".join(parts) + "\n}\n", encoding="utf-8")


if __name__ == "__main__":
    write()

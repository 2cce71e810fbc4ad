"""What no test notices: small faults (mutants) are put into the core one at a time, and the tests run on
each.

``python -m bench.mutants [share …] [--sample 24] [--seed 1]`` draws a seeded sample, because all of them
would take days. The kinds of fault are those that a slip of the hand makes: another sign, another number, a
comparison turned round, a condition negated, a loop not entered. A bound that is met exactly is not among
them: "less" for "less or equal" changes nothing on measured numbers; nor are how much a cache remembers, how
a class of data is built, the demand that two lists are equally long, and how far a work says that it is.
"""

from __future__ import annotations

import argparse
import os
import random
import re
import shutil
import subprocess
import sys
import tempfile
from collections.abc import Iterator
from concurrent.futures import ThreadPoolExecutor
from dataclasses import dataclass
from pathlib import Path
from queue import Queue

from cosmic_ray.ast import ast_nodes, get_ast
from cosmic_ray.mutating import mutate_code
from cosmic_ray.plugins import get_operator

ROOT = Path(__file__).parent.parent
CORE = ROOT / "fahrtwind" / "core"
_HELD = [
    "adhesive",
    "air",
    "bolts",
    "brackets",
    "joints",
    "members",
    "metal_screws",
    "plates",
    "raised",
    "sections",
    "sharing",
    "tethers",
    "verdict",
    "wood",
]
#: share of the core -> its files
FILES: dict[str, tuple[str, ...]] = {
    "hold": ("stations/hold/**/*.py", "spoken.py", *(f"formulas/{name}.py" for name in _HELD)),
    "structure": ("stations/structure/*.py",),
    "build": ("stations/build/*.py", *(f"formulas/{name}.py" for name in ("bending", "fitting", "lifting"))),
    "seal": ("stations/seal/*.py", "formulas/sealing.py"),
    "wire": ("stations/wire/*.py", "formulas/wiring.py", "stations/layout/sun/moments.py"),
    "days": ("stations/days/*.py", "choose/days.py", "formulas/weather.py"),
    "log": (
        "stations/log/*.py",
        "stations/roof_day/*.py",
        "stations/layout/built.py",
        "choose/as_built.py",
        "glance.py",
    ),
    "survey": ("stations/survey/*.py", "formulas/roof_shape.py"),
    "layout": ("stations/layout/*.py",),
    "sun": ("stations/layout/sun/*.py", "formulas/sun.py"),
    "job": ("job/*.py", "quantities.py", "saying.py", "edits.py", "engine/*.py"),
}
_ALWAYS = "test_generated.py test_golden.py core/test_wiring.py core/test_snags.py"
#: share of the core -> the tests that are there to notice, the quickest first
TESTS: dict[str, str] = {
    "hold": f"{_ALWAYS} core/test_hold.py core/test_carriers.py core/test_racks.py core/test_posts.py "
    "core/test_raised.py core/test_raised_frame.py core/test_tethers.py core/test_field_jobs.py "
    "validation/test_published.py validation/test_beside_libraries.py core/test_frame.py",
    "structure": f"{_ALWAYS} core/test_structure.py core/test_posterior.py core/test_members.py",
    "build": f"{_ALWAYS} core/test_build.py core/test_workshop.py validation/test_published.py "
    "core/test_field_jobs.py files",
    "seal": f"{_ALWAYS} core/test_seal.py core/test_water.py validation/test_published.py files",
    "wire": f"{_ALWAYS} core/test_wire.py validation/test_published.py files core/test_field_jobs.py",
    "days": f"{_ALWAYS} core/test_days.py core/test_build.py validation/test_published.py files "
    "api/test_record_files.py",
    "log": "core/test_log.py core/test_as_built.py core/test_in_hand.py store/test_records.py "
    f"{_ALWAYS} files",
    "survey": f"{_ALWAYS} core/test_survey.py validation/test_roof_geometry.py",
    "layout": f"{_ALWAYS} core/test_layout.py core/test_arranging.py",
    "sun": f"{_ALWAYS} core/test_sun_geometry.py core/test_shade_day.py validation/test_sun.py",
    "job": f"{_ALWAYS} core/engine core/test_quantities.py core/test_edits.py core/test_documents.py store",
}
_TURNS = (("Lt", "Gt"), ("LtE", "Gt"), ("Gt", "Lt"), ("GtE", "Lt"), ("Eq", "NotEq"), ("NotEq", "Eq"))
_SIGNS = (("Add", "Sub"), ("Sub", "Add"), ("Mul", "Div"), ("Div", "Mul"), ("Pow", "Mul"))
_WORDS = (
    "NumberReplacer AddNot ReplaceAndWithOr ReplaceOrWithAnd ReplaceTrueWithFalse "
    "ReplaceFalseWithTrue ZeroIterationForLoop"
)
FAULTS = (
    *(f"core/ReplaceComparisonOperator_{a}_{b}" for a, b in _TURNS),
    *(f"core/ReplaceBinaryOperator_{a}_{b}" for a, b in _SIGNS),
    *(f"core/{name}" for name in _WORDS.split()),
    "core/ReplaceUnaryOperator_Delete_USub",
)
WITHOUT_RESULT = re.compile(r"\(maxsize=|^@dataclass\(|strict=True|\.tell\(|\bgo_on\(")
#: seconds after which tests that no longer end have noticed
PATIENCE = 300


@dataclass(frozen=True)
class Mutant:
    file: Path
    fault: str
    occurrence: int
    line: int

    def __str__(self) -> str:
        return (
            f"{self.file.relative_to(CORE)}:{self.line} {self.fault.removeprefix('core/')} no. "
            f"{self.occurrence}"
        )


def mutants(share: str) -> Iterator[Mutant]:
    for pattern in FILES[share]:
        for path in sorted(CORE.glob(pattern)):
            text = path.read_text().splitlines()
            nodes = list(ast_nodes(get_ast(path.read_text())))
            for fault in FAULTS:
                kind = get_operator(fault)()
                lines = [begin[0] for node in nodes for begin, _ in kind.mutation_positions(node)]
                yield from (
                    Mutant(path, fault, i, line)
                    for i, line in enumerate(lines)
                    if not WITHOUT_RESULT.search(text[line - 1])
                )


def sample(share: str, count: int, seed: int) -> list[Mutant]:
    found = list(mutants(share))
    return random.Random(f"{share} {seed}").sample(found, min(count, len(found)))


def noticed(mutant: Mutant, tests: str, bench: Path) -> bool:
    """Whether any test fails in ``bench``, a copy of the program, while the mutant stands in it."""
    file = bench / mutant.file.relative_to(ROOT)
    sound = file.read_text()
    file.write_text(mutate_code(sound, get_operator(mutant.fault)(), mutant.occurrence))
    try:
        return not _passes(tests, bench)
    finally:
        file.write_text(sound)


def _passes(tests: str, bench: Path) -> bool:
    given = ["-x", "-q", "-p", "no:cacheprovider", "-p", "no:schemathesis"]
    command = [sys.executable, "-m", "pytest", *given, *(f"tests/{t}" for t in tests.split())]
    environment = {k: v for k, v in os.environ.items() if k != "PYTHONDONTWRITEBYTECODE"}
    try:
        return (
            subprocess.run(
                command, cwd=bench, capture_output=True, timeout=PATIENCE, env=environment
            ).returncode
            == 0
        )
    except subprocess.TimeoutExpired:
        return False


def _copy(to: Path) -> Path:
    for part in ("fahrtwind", "tests", "docs"):
        shutil.copytree(
            ROOT / part, to / part, ignore=shutil.ignore_patterns("__pycache__", "static", "*.png")
        )
    shutil.copy(ROOT / "pyproject.toml", to)
    return to


def run(shares: list[str], count: int, seed: int, hands: int) -> None:
    with tempfile.TemporaryDirectory() as folder, ThreadPoolExecutor(hands) as pool:
        benches: Queue[Path] = Queue()
        for i in range(hands):
            benches.put(_copy(Path(folder) / str(i)))
        for share in shares:
            tests = TESTS[share]

            def judge(mutant: Mutant, tests: str = tests) -> bool:
                bench = benches.get()
                try:
                    return noticed(mutant, tests, bench)
                finally:
                    benches.put(bench)

            drawn, seen = sample(share, count, seed), 0
            for mutant, told in zip(drawn, pool.map(judge, drawn), strict=True):
                seen += told
                if not told:
                    print(f"  not noticed: {mutant}", flush=True)
            print(f"{share:<10} {seen:3d} of {len(drawn):3d} noticed  {seen / len(drawn):6.1%}", flush=True)


def main() -> None:
    parser = argparse.ArgumentParser(prog="python -m bench.mutants", description=__doc__)
    parser.add_argument("shares", nargs="*", default=list(FILES), help=f"of {', '.join(FILES)}")
    parser.add_argument("--sample", type=int, default=24)
    parser.add_argument("--seed", type=int, default=1)
    parser.add_argument(
        "--hands", type=int, default=os.cpu_count() or 1, help="how many are judged at the same time"
    )
    given = parser.parse_args()
    run(given.shares, given.sample, given.seed, given.hands)


if __name__ == "__main__":
    main()

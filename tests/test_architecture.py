"""The house keeps its shape: the core knows no web, database or files; imports run downward only."""

import ast
import subprocess
import sys
from fnmatch import fnmatch
from pathlib import Path

import pytest

from fahrtwind.core.stations.all import house

ROOT = Path(__file__).parent.parent / "fahrtwind"
ALLOWED = {
    "core": {"core"},
    "calc": {"core", "files", "calc"},
    "files": {"core", "files"},
    "store": {"core", "store"},
    "demo": {"core", "demo"},
    "instruments": {"core", "instruments"},
    "api": {"core", "calc", "files", "store", "demo", "instruments", "api"},
}
FORBIDDEN_IN_CORE = (
    "fastapi",
    "starlette",
    "sqlalchemy",
    "alembic",
    "uvicorn",
    "sqlite3",
    "ezdxf",
    "typst",
    "httpx",
)


def test_the_core_loads_no_web_database_or_file_library() -> None:
    code = (
        "import sys, fahrtwind.core.evaluate, fahrtwind.core.working, fahrtwind.core.edits; "
        "print('\\n'.join(sys.modules))"
    )
    loaded = subprocess.run(
        [sys.executable, "-c", code], capture_output=True, text=True, check=True
    ).stdout.split()
    assert not [m for m in loaded if m.split(".")[0] in FORBIDDEN_IN_CORE]


def test_the_core_reads_no_clock_no_files_and_rolls_no_dice() -> None:
    for path in (ROOT / "core").rglob("*.py"):
        nodes = list(ast.walk(ast.parse(path.read_text())))
        names = {n.id for n in nodes if isinstance(n, ast.Name)}
        asked = {ast.unparse(n) for n in nodes if isinstance(n, ast.Attribute)}
        assert not names & {"open", "Path", "random"}, path
        assert not [a for a in asked if a.endswith((".datetime.now", ".today", ".utcnow", "datetime.now"))], (
            path
        )


def test_imports_run_downward() -> None:
    for path in ROOT.rglob("*.py"):
        floor = path.relative_to(ROOT).parts[0]
        if floor not in ALLOWED:
            continue
        for node in ast.walk(ast.parse(path.read_text())):
            module = node.module if isinstance(node, ast.ImportFrom) else None
            if module and module.startswith("fahrtwind."):
                assert module.split(".")[1] in ALLOWED[floor], f"{path} imports {module}"


def test_files_stay_small() -> None:
    long = {str(p): n for p in ROOT.rglob("*.py") if (n := len(p.read_text().splitlines())) > 420}
    assert not long


CORE_FLOORS = (
    ("records",),
    ("errors", "quantities", "saying", "road", "normal", "solar_library", "tables"),
    ("formulas",),
    ("job",),
    ("engine",),
    ("stations",),
    ("results", "spoken", "edits", "evaluate", "working"),
    ("choose", "glance"),
    ("slow",),
)


def test_inside_the_core_imports_run_downward_too() -> None:
    floor_of = {name: i for i, names in enumerate(CORE_FLOORS) for name in names}
    for path in (ROOT / "core").rglob("*.py"):
        own = path.relative_to(ROOT / "core").parts[0].removesuffix(".py")
        for node in ast.walk(ast.parse(path.read_text())):
            module = node.module if isinstance(node, ast.ImportFrom) else None
            if module and module.startswith("fahrtwind.core.") and own != "__init__":
                other = module.split(".")[2]
                assert floor_of[other] <= floor_of[own], f"{path} imports {module}"


def test_only_views_see_a_job() -> None:
    """A stage or a rule reads what its parameters name; whoever asks for the whole document would run at
    every change.
    """
    for part in house.parts.values():
        sees = "asked" in part.work.__annotations__ or "Asked" in str(part.work.__annotations__)
        assert sees == (part.kind == "view" and not part.each), part.name
        assert "Job" not in [str(a) for a in part.work.__annotations__.values()], part.name


def test_no_test_file_is_left_uncollected(pytestconfig: pytest.Config) -> None:
    root = Path(__file__).parent
    for path in root.rglob("test_*.py"):
        folders = path.relative_to(root).parts[:-1]
        for pattern in pytestconfig.getini("norecursedirs"):
            assert not any(fnmatch(folder, pattern) for folder in folders), (
                f"{path} stands in a folder that pytest does not enter"
            )
    named = {p for p in root.rglob("*.py") if "def test_" in p.read_text(encoding="utf-8")}
    assert not [p for p in named if not p.name.startswith("test_")], (
        "tests in a file that pytest does not read"
    )

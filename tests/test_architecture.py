"""The house keeps its shape: the core knows no web, database or files; imports run downward only."""

import ast
import subprocess
import sys
from pathlib import Path

ROOT = Path(__file__).parent.parent / "fahrtwind"
ALLOWED = {
    "core": {"core"},
    "calc": {"core", "files", "calc"},
    "files": {"core", "files"},
    "store": {"core", "store"},
    "demo": {"core", "demo"},
    "api": {"core", "calc", "files", "store", "demo", "api"},
}
FORBIDDEN_IN_CORE = ("fastapi", "starlette", "sqlalchemy", "alembic", "uvicorn", "sqlite3", "ezdxf", "typst", "httpx")


def test_the_core_loads_no_web_database_or_file_library() -> None:
    code = "import sys, fahrtwind.core.evaluate, fahrtwind.core.working, fahrtwind.core.job.edits; print('\\n'.join(sys.modules))"
    loaded = subprocess.run([sys.executable, "-c", code], capture_output=True, text=True, check=True).stdout.split()
    assert not [m for m in loaded if m.split(".")[0] in FORBIDDEN_IN_CORE]


def test_the_core_reads_no_clock_no_files_and_rolls_no_dice() -> None:
    for path in (ROOT / "core").rglob("*.py"):
        names = {n.id for n in ast.walk(ast.parse(path.read_text())) if isinstance(n, ast.Name)}
        assert not names & {"open", "Path", "datetime", "time", "random"}, path


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

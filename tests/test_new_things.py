"""The table "Where does a new … go?" is tried out: a school, a snag, an export go in by its words alone."""

from __future__ import annotations

import re
import shutil
import subprocess
import sys
from pathlib import Path

import pytest

ROOT = Path(__file__).parent.parent
STATIONS = "fahrtwind/core/stations"


@pytest.fixture
def copy(tmp_path: Path) -> Path:
    quiet = shutil.ignore_patterns("__pycache__", "static")
    shutil.copytree(ROOT / "fahrtwind", tmp_path / "fahrtwind", ignore=quiet)
    return tmp_path


def run(copy: Path, code: str) -> str:
    """What a program prints in the copy."""
    done = subprocess.run([sys.executable, "-c", code], cwd=copy, capture_output=True, text=True)
    assert done.returncode == 0, done.stderr[-2000:]
    return done.stdout.strip()


def changed(path: Path, *changes: tuple[str, str]) -> None:
    text = path.read_text(encoding="utf-8")
    for before, after in changes:
        assert re.search(before, text, re.M), before
        text = re.sub(before, after, text, count=1, flags=re.M)
    path.write_text(text, encoding="utf-8")


def test_a_snag_is_a_function_in_the_rules_of_its_station(copy: Path) -> None:
    path = copy / STATIONS / "hold" / "rules.py"
    path.write_text(
        path.read_text(encoding="utf-8")
        + """

@rule("too-pretty", "caution", "hold", "Too pretty", "judgement", each="panels")
def too_pretty(panel: PlacedPanel, verdict: PanelVerdict) -> Iterator[Found]:
    yield Found(place=f"panels.{panel.id}", where=panel.name, why="It shines.", remedy="Look away.")
""",
        encoding="utf-8",
    )
    told = run(
        copy,
        "from fahrtwind.demo import demo_jobs; from fahrtwind.core.evaluate import evaluate;"
        "job = next(j for j in demo_jobs() if j.name == 'Lichtspiel');"
        "print(sum(s.id == 'too-pretty' for s in evaluate(job).snags), len(job.panels))",
    )
    assert told == "5 5"


def test_a_way_to_hold_is_a_folder_a_part_and_a_word(copy: Path) -> None:
    schools = copy / STATIONS / "hold" / "schools"
    shutil.copytree(schools / "screws", schools / "studs")
    changed(
        schools / "studs" / "__init__.py", (r'School\("screws"', 'School("studs"'), (r"\bScrews\b", "Studs")
    )
    text = (schools / "studs" / "__init__.py").read_text(encoding="utf-8")
    (schools / "studs" / "__init__.py").write_text(
        re.sub(r"\bScrews\b", "Studs", text).replace("schools.screws.", "schools.studs."), encoding="utf-8"
    )
    chain = schools / "studs" / "chain.py"
    chain.write_text(re.sub(r"\bScrews\b", "Studs", chain.read_text(encoding="utf-8")), encoding="utf-8")
    (schools / "studs" / "rules.py").write_text('"""No snags of its own."""\n', encoding="utf-8")
    changed(
        schools / "__init__.py",
        (
            r"import base_plate, bolts, one_sided, outer_foot, screws, tape",
            "import base_plate, bolts, one_sided, outer_foot, screws, studs, tape",
        ),
        (r"screws\.SCHOOL,", "screws.SCHOOL, studs.SCHOOL,"),
    )
    changed(
        copy / "fahrtwind/core/job/panel.py",
        (
            r"^class ThroughBolts",
            'class Studs(Screws):\n    school: Literal["studs"] = "studs"\n\n\nclass ThroughBolts',
        ),
        (r"Annotated\[Screws \| ThroughBolts", "Annotated[Screws | Studs | ThroughBolts"),
    )
    told = run(
        copy,
        "from fahrtwind.demo import demo_jobs; from fahrtwind.core.evaluate import evaluate;"
        "from fahrtwind.core.edits import SetValue, apply_edits;"
        "job = next(j for j in demo_jobs() if j.name == 'Lichtspiel');"
        "held = apply_edits(job, [SetValue(path='panels.p1.hold', value={'school': 'studs'})]);"
        "e = evaluate(held).findings;"
        "v = next(v for v in e.verdicts if v.panel == 'p1');"
        "print(v.let_go_m_s > 10, len([m for m in e.marks if m.panel == 'p1']), e.silent)",
    )
    assert told == "True 12 ()"


def test_an_export_is_a_writer_and_a_line(copy: Path) -> None:
    (copy / "fahrtwind/files/names_txt.py").write_text(
        '"""The panels by name."""\n\n\ndef write_names(job, evaluation, stamp):\n'
        '    return "\\n".join(p.name for p in job.panels).encode()\n',
        encoding="utf-8",
    )
    exports = copy / "fahrtwind/files/exports.py"
    own = '"names.txt": Export("Names", "text/plain", write_names),'
    text = exports.read_text(encoding="utf-8").replace('"job.json": Export', f'{own}\n    "job.json": Export')
    exports.write_text(
        text.replace(
            "from fahrtwind", "from fahrtwind.files.names_txt import write_names\nfrom fahrtwind", 1
        ),
        encoding="utf-8",
    )
    run(copy, "from fahrtwind.cli import main; main(['export', 'fahrtwind/demo/lichtspiel.json', 'out'])")
    assert "Front port" in (copy / "out/names.txt").read_text(encoding="utf-8")

"""Demo jobs as readable files: the invented workshop Werft & Achse and its vehicles."""

import json
from pathlib import Path

from fahrtwind.core.job.document import Job
from fahrtwind.core.job.load import load_job

FOLDER = Path(__file__).parent


def demo_jobs() -> list[Job]:
    return [load_job(json.loads(path.read_text(encoding="utf-8"))) for path in sorted(FOLDER.glob("*.json"))]

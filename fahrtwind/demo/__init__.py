"""Demo jobs as readable files: the invented workshop Werft & Achse and its vehicles."""

import json
from pathlib import Path

from fahrtwind.core.job.document import Job
from fahrtwind.core.job.load import load_job

FOLDER = Path(__file__).parent


def demo_shelf() -> str:
    """What lies in the invented workshop, as a table of items."""
    return (FOLDER / "shop.csv").read_text(encoding="utf-8")


def demo_jobs() -> list[Job]:
    return [load_job(json.loads(path.read_text(encoding="utf-8"))) for path in sorted(FOLDER.glob("*.json"))]

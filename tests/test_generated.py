"""The documents that are generated from declarations say what the declarations say: a changed range or source
is a change to see.
"""

from __future__ import annotations

import json
from pathlib import Path

from fahrtwind.api.generate import formulas_page, snags_page
from fahrtwind.files.job_file import job_schema

DOCS = Path(__file__).parent.parent / "docs"


def test_formulas_and_snags_are_documented_as_they_are_declared() -> None:
    for name, page in (("formulas.md", formulas_page()), ("snags.md", snags_page())):
        assert (DOCS / name).read_text(encoding="utf-8") == page, f"docs/{name} is stale: run 'make generate'"


def test_the_schema_is_the_one_that_was_published() -> None:
    kept = json.loads((DOCS / "job.schema.json").read_text(encoding="utf-8"))
    assert kept == job_schema(), "docs/job.schema.json is stale: run 'make generate'"
